// The cursor of Side by side: dragged, typed or stepped, every live figure following.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("compare", () => ({
    data: null,
    at: 0,
    speedText: "",
    sentence: "",
    live: {},
    init() {
      this.data = JSON.parse(document.getElementById(this.$root.dataset.compare)
        .textContent);
      this.svg = document.getElementById("chart");
      if (!this.svg) return;
      this.speedText = this.$root.querySelector("[x-text=speedText]").textContent;
      this.sentence = this.$root.querySelector("[x-text=sentence]").textContent;
      this.$root.querySelectorAll("[data-live]").forEach((cell) => {
        this.live[cell.dataset.live] = cell;
      });
      this.cursor = document.getElementById("cursor");
      this.field = this.$root.querySelector("[data-cursor]");
      this.at = this.data.at;
      this.step = this.data.mode === "power" ? Math.max(this.data.xMax / 100, 0.001) :
        0.1;
      this.place();
      this.stress();
      this.svg.addEventListener("pointerdown", (event) => {
        this.dragging = true;
        this.svg.setPointerCapture(event.pointerId);
        this.drag(event);
      });
      this.svg.addEventListener("pointermove", (event) => {
        if (this.dragging) this.drag(event);
      });
      for (const end of ["pointerup", "pointercancel"]) this.svg.addEventListener(end,
        () => {
          this.dragging = false;
          this.remember();
        });
      document.addEventListener("jolvek:step", (event) => {
        this.set(this.at + event.detail * this.step, true);
        this.remember();
      });
    },
    text() {
      return grouped(this.at, this.data.mode === "power" ? this.data.places.power : 1);
    },
    drag(event) {
      const box = this.svg.getBoundingClientRect();
      const x = ((event.clientX - box.left) / box.width) * this.svg.viewBox.baseVal.width;
      this.set(((x - this.data.x0) / (this.data.x1 - this.data.x0)) * this.data.xMax,
        true);
    },
    typed(event) {
      const value = Number.parseFloat(event.target.value.replace(",", "."));
      if (Number.isFinite(value) && /^[\s\d.,]+$/.test(event.target.value)) this.set(
        value, false);
    },
    set(value, write) {
      const least = Math.min(...this.data.setups.map((s) => s.x[0]));
      const most = Math.max(...this.data.setups.map((s) => s.x[s.x.length - 1]));
      this.at = Math.round(Math.min(Math.max(value, least), most) * 100) / 100;
      if (write) this.field.value = this.text().replace("\u202f", "");
      this.show();
    },
    place() {
      const x = this.data.x0 + ((this.data.x1 - this.data.x0) * this.at) / this.data.xMax;
      this.cursor.setAttribute("transform", `translate(${x.toFixed(1)} 0)`);
      document.getElementById("cursor-text").textContent =
        `${this.text()} ${this.data.unit}`;
    },
    show() {
      this.place();
      this.speedText = `${this.text()}\u00a0${this.data.unit}`;
      for (const s of this.data.setups) {
        const now = {};
        for (const row of ["speed", "power", "runtime", "range"]) now[row] = between(s.x,
          s[row], this.near(s));
        for (const row of ["speed", "power", "range"]) this.put(row, s.letter, now[
          row] === null ? "–" : grouped(now[row], this.data.places[row]));
        this.put("runtime", s.letter, now.runtime === null ? "–" : clock(now.runtime));
        this.doubt(s);
        if (s.letter === this.hand().letter) this.say(s, now);
      }
      this.stress();
    },
    // A setup whose top is shown as the cursor's own figure does it.
    near(s) {
      const last = s.x[s.x.length - 1];
      const places = this.data.mode === "power" ? this.data.places.power : 1;
      return this.at > last && this.at.toFixed(places) === last.toFixed(places) ? last :
        this.at;
    },
    // What four such boats in five lie between, at the cursor.
    doubt(s) {
      const first = this.data.mode === "power" ? "speed" : "power";
      for (const [key, places] of [
          ["firstBand", this.data.places[first]],
          ["rangeBand", this.data.places.range]
        ]) {
        const ends = s[key].map((end) => between(s.x, end, this.near(s)));
        this.put(key, s.letter, ends.includes(null) ? "–" : ends.map((x) => grouped(x,
          places)).join("–"));
      }
    },
    put(row, letter, text) {
      const cell = this.live[`${row}-${letter}`];
      if (cell) cell.textContent = text;
    },
    hand() {
      return this.data.setups.find((s) => s.hold) || this.data.setups[0];
    },
    say(s, now) {
      if (now.range === null) {
        const top = `${grouped(s.x[s.x.length - 1], 1)}\u00a0${this.data.unit}`;
        this.sentence = tr("does not get there: its top is %(top)s.", {
          top
        });
        return;
      }
      const values = {
        speed: now.speed === null ? "" :
          `${grouped(now.speed, 1)}\u00a0${this.data.speedUnit}`,
        runtime: inWords(now.runtime),
        range: `${grouped(now.range, 1)}\u00a0${this.data.distanceUnit}`
      };
      this.sentence = this.data.mode === "power" && now.speed !== null ? tr(
        "makes %(speed)s, runs %(runtime)s and goes %(range)s, with the reserve kept.",
        values) : tr("runs %(runtime)s and goes %(range)s, with the reserve kept.",
        values);
    },
    stress() {
      if (this.data.setups.length < 2) return;
      for (const [row, sign] of [
          ["power", -1],
          ["speed", 1],
          ["runtime", 1],
          ["range", 1]
        ]) {
        const known = this.data.setups.map((s) => [between(s.x, s[row], this.at), s
            .letter
          ])
          .filter(([value]) => value !== null).sort(([a], [b]) => sign * (b - a));
        const [first, second] = known;
        const tied = second && Math.abs(first[0] - second[0]) <= this.data.tie * Math.abs(
          first[0]);
        for (const s of this.data.setups) {
          const cell = this.live[`${row}-${s.letter}`];
          if (cell) cell.classList.toggle("best", !tied && first?.[1] === s.letter);
        }
      }
    },
    remember() {
      const url = new URL(window.location.href);
      url.searchParams.set(this.field.name, this.text().replace("\u202f", ""));
      window.history.replaceState(null, "", url);
    },
  }));
});

// Copies a field; where the browser does not allow it, the text is selected to be copied by hand.
async function copyField(button) {
  const field = document.getElementById(button.dataset.copy);
  field.select();
  try {
    await navigator.clipboard.writeText(field.value);
    button.textContent = tr("Copied");
  } catch {
    button.textContent = tr("Selected: copy it");
  }
}

// The chart as a PNG: the server's SVG drawn on a canvas and saved.
async function savePng(address) {
  const text = await (await fetch(address)).text();
  const image = new Image();
  image.src =
    "data:image/svg+xml;charset=utf-8," +
    encodeURIComponent(text.replace("<svg ", '<svg width="1140" height="904" '));
  await image.decode();
  const canvas = Object.assign(document.createElement("canvas"), {
    width: 1140,
    height: 904
  });
  canvas.getContext("2d").drawImage(image, 0, 0);
  const link = Object.assign(document.createElement("a"), {
    download: "side-by-side.png",
    href: canvas.toDataURL("image/png")
  });
  link.click();
}

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
  const copy = event.target.closest("[data-copy]");
  if (copy) copyField(copy);
  const png = event.target.closest("[data-png]");
  if (png) savePng(png.dataset.png);
  for (const menu of document.querySelectorAll("details.menu[open]"))
    if (!menu.contains(event.target)) menu.open = false;
});
