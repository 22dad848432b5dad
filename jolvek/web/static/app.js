// What server pages cannot do alone: the cursor of Side by side, shortcuts, printing, and the session's token for htmx.
"use strict";

function between(xs, ys, x) {
  if (x < xs[0]) return ys[0];
  if (x > xs[xs.length - 1] * (1 + 1e-9)) return null;
  let i = 1;
  while (i < xs.length - 1 && xs[i] < x) i += 1;
  const f = (x - xs[i - 1]) / (xs[i] - xs[i - 1]);
  return ys[i - 1] + f * (ys[i] - ys[i - 1]);
}

function grouped(value, places) {
  const [whole, part] = value.toFixed(places).split(".");
  const spaced = whole.replace(/\B(?=(\d{3})+(?!\d))/g, "\u202f");
  return part ? `${spaced}.${part}` : spaced;
}

function clock(seconds) {
  const minutes = Math.floor(seconds / 60);
  return minutes > 60000 ? "> 999 h" : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}

function inWords(seconds) {
  const minutes = Math.floor(seconds / 60);
  if (minutes >= 6000) return `${Math.floor(minutes / 60)} h`;
  return minutes >= 60 ? `${Math.floor(minutes / 60)}\u00a0h ${minutes % 60}\u00a0min` : `${minutes}\u00a0min`;
}

document.addEventListener("alpine:init", () => {
  window.Alpine.data("compare", () => ({
    data: null, at: 0, speedText: "", sentence: "", live: {},
    init() {
      this.data = JSON.parse(document.getElementById(this.$root.dataset.compare).textContent);
      this.svg = document.getElementById("chart");
      if (!this.svg) return;
      this.speedText = this.$root.querySelector("[x-text=speedText]").textContent;
      this.sentence = this.$root.querySelector("[x-text=sentence]").textContent;
      this.$root.querySelectorAll("[data-live]").forEach((cell) => { this.live[cell.dataset.live] = cell; });
      this.cursor = document.getElementById("cursor");
      this.field = this.$root.querySelector("[data-cursor]");
      this.at = this.data.at;
      this.step = this.data.mode === "power" ? Math.max(this.data.xMax / 100, 0.001) : 0.1;
      this.place();
      this.stress();
      this.svg.addEventListener("pointerdown", (event) => { this.dragging = true; this.svg.setPointerCapture(event.pointerId); this.drag(event); });
      this.svg.addEventListener("pointermove", (event) => { if (this.dragging) this.drag(event); });
      this.svg.addEventListener("pointerup", () => { this.dragging = false; this.remember(); });
      document.addEventListener("jolvek:step", (event) => { this.set(this.at + event.detail * this.step, true); this.remember(); });
    },
    text() { return this.data.mode === "power" ? grouped(this.at, this.data.places.power) : this.at.toFixed(1); },
    drag(event) {
      const box = this.svg.getBoundingClientRect();
      const x = ((event.clientX - box.left) / box.width) * this.svg.viewBox.baseVal.width;
      this.set(((x - this.data.x0) / (this.data.x1 - this.data.x0)) * this.data.xMax, true);
    },
    typed(event) {
      const value = Number.parseFloat(event.target.value.replace(",", "."));
      if (Number.isFinite(value) && /^[\s\d.,]+$/.test(event.target.value)) this.set(value, false);
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
      document.getElementById("cursor-text").textContent = `${this.text()} ${this.data.unit}`;
    },
    show() {
      this.place();
      this.speedText = `${this.text()}\u00a0${this.data.unit}`;
      for (const s of this.data.setups) {
        const now = {};
        for (const row of ["speed", "power", "runtime", "range"]) now[row] = between(s.x, s[row], this.at);
        for (const row of ["speed", "power", "range"]) this.put(row, s.letter, now[row] === null ? "–" : grouped(now[row], this.data.places[row]));
        this.put("runtime", s.letter, now.runtime === null ? "–" : clock(now.runtime));
        if (s.letter === this.hand().letter) this.say(s, now);
      }
      this.stress();
    },
    put(row, letter, text) { const cell = this.live[`${row}-${letter}`]; if (cell) cell.textContent = text; },
    hand() { return this.data.setups.find((s) => s.hold) || this.data.setups[0]; },
    say(s, now) {
      const makes = this.data.mode === "power" && now.speed !== null ? `makes ${now.speed.toFixed(1)}\u00a0${this.data.speedUnit}, ` : "";
      this.sentence = now.range === null
        ? `does not get there: its top is ${s.x[s.x.length - 1].toFixed(1)}\u00a0${this.data.unit}.`
        : `${makes}runs ${inWords(now.runtime)} and goes ${grouped(now.range, 1)}\u00a0${this.data.distanceUnit}, with the reserve kept.`;
    },
    stress() {
      if (this.data.setups.length < 2) return;
      for (const [row, sign] of [["power", -1], ["speed", 1], ["runtime", 1], ["range", 1]]) {
        let best = null;
        for (const s of this.data.setups) {
          const value = between(s.x, s[row], this.at);
          if (value !== null && (best === null || sign * value > sign * best.value)) best = { value, letter: s.letter };
        }
        for (const s of this.data.setups) { const cell = this.live[`${row}-${s.letter}`]; if (cell) cell.classList.toggle("best", best !== null && best.letter === s.letter); }
      }
    },
    remember() {
      const url = new URL(window.location.href);
      url.searchParams.set(this.field.name, this.text().replace("\u202f", ""));
      window.history.replaceState(null, "", url);
    },
  }));
});

function typing(event) {
  const t = event.target;
  return t.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName) && t.type !== "radio" && t.type !== "checkbox";
}

document.addEventListener("keydown", (event) => {
  if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const station = document.querySelector(`[data-station="${event.key}"]`);
  if (station) { station.click(); return; }
  if (event.key === "/") { event.preventDefault(); document.getElementById("find").focus(); return; }
  if (event.key === "n") { window.location.href = "/"; return; }
  if (event.key === "?") { const keys = document.querySelector(".keys"); keys.open = !keys.open; return; }
  if (event.key === "," || event.key === ".") document.dispatchEvent(new CustomEvent("jolvek:step", { detail: event.key === "." ? 1 : -1 }));
  if (event.key === "[" || event.key === "]") {
    const buttons = [...document.querySelectorAll("[data-choose]")];
    const now = buttons.findIndex((b) => b.classList.contains("is-on"));
    const next = buttons[(now + (event.key === "]" ? 1 : -1) + buttons.length) % buttons.length];
    if (next) next.click();
  }
});

// Dragging over the Shortlist's field narrows price and range.
document.addEventListener("pointerdown", (down) => {
  const svg = down.target.closest && down.target.closest("#field");
  if (!svg) return;
  const place = (event) => {
    const box = svg.getBoundingClientRect();
    return [((event.clientX - box.left) / box.width) * svg.viewBox.baseVal.width, ((event.clientY - box.top) / box.height) * svg.viewBox.baseVal.height];
  };
  const from = place(down);
  const brush = document.getElementById("brush");
  svg.setPointerCapture(down.pointerId);
  const move = (event) => {
    const to = place(event);
    for (const [name, value] of [["x", Math.min(from[0], to[0])], ["y", Math.min(from[1], to[1])], ["width", Math.abs(from[0] - to[0])], ["height", Math.abs(from[1] - to[1])]]) brush.setAttribute(name, value.toFixed(1));
  };
  const up = (event) => {
    svg.removeEventListener("pointermove", move);
    const to = place(event);
    const d = svg.dataset;
    const price = (x) => Math.max(0, ((x - d.x0) / (d.x1 - d.x0)) * d.xMax);
    const range = (y) => Math.max(0, ((d.y0 - y) / (d.y0 - d.y1)) * d.yMax);
    const small = Math.abs(from[0] - to[0]) < 6 && Math.abs(from[1] - to[1]) < 6;
    const set = { price_min: price(Math.min(from[0], to[0])).toFixed(0), price_max: price(Math.max(from[0], to[0])).toFixed(0), range_min: range(Math.max(from[1], to[1])).toFixed(1), range_max: range(Math.min(from[1], to[1])).toFixed(1) };
    for (const [id, value] of Object.entries(set)) document.getElementById(id).value = small ? "" : value;
    if (small) move({ clientX: -9, clientY: -9 }), brush.setAttribute("width", "0");
    document.querySelector(".narrowing").open = true;
    document.getElementById("narrow").dispatchEvent(new Event("change", { bubbles: true }));
  };
  svg.addEventListener("pointermove", move);
  svg.addEventListener("pointerup", up, { once: true });
});

// Dragging a weight along the boat moves its slider.
document.addEventListener("pointerdown", (down) => {
  const weight = down.target.closest && down.target.closest(".weight");
  const slider = weight && document.getElementById(`w-${weight.dataset.weight}`);
  if (!slider) return;
  down.preventDefault();
  const svg = weight.ownerSVGElement;
  const perPixel = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width / weight.dataset.scale;
  const perMetre = (slider.max - 0) / (document.getElementById("fit-form").dataset.length || slider.max);
  const from = Number(slider.value);
  const move = (event) => {
    const value = Math.min(Math.max(from + (event.clientX - down.clientX) * perPixel * perMetre, Number(slider.min)), Number(slider.max)).toFixed(2);
    if (value === slider.value) return;
    slider.value = value;
    slider.dispatchEvent(new Event("input", { bubbles: true }));
  };
  document.addEventListener("pointermove", move);
  document.addEventListener("pointerup", () => document.removeEventListener("pointermove", move), { once: true });
});

// Dragging a leg of the day's chart up or down makes it faster or slower.
document.addEventListener("pointerdown", (down) => {
  const band = down.target.closest && down.target.closest(".legband");
  const slider = band && document.getElementById(`v${band.dataset.leg}`);
  if (!slider) return;
  down.preventDefault();
  const from = Number(slider.value);
  const span = slider.max - slider.min;
  const move = (event) => {
    const value = Math.min(Math.max(from + ((down.clientY - event.clientY) / 160) * span, Number(slider.min)), Number(slider.max)).toFixed(1);
    if (value === slider.value) return;
    slider.value = value;
    slider.dispatchEvent(new Event("input", { bubbles: true }));
  };
  document.addEventListener("pointermove", move);
  document.addEventListener("pointerup", () => document.removeEventListener("pointermove", move), { once: true });
});

document.addEventListener("input", (event) => {
  if (event.target.type !== "range") return;
  const shown = event.target.parentElement.querySelector(`output[for="${event.target.id}"]`);
  if (shown) shown.textContent = event.target.value;
});

// The chart as a PNG: the server's SVG drawn on a canvas and saved.
async function savePng(address) {
  const text = await (await fetch(address)).text();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text.replace("<svg ", '<svg width="1140" height="904" '))}`;
  await image.decode();
  const canvas = Object.assign(document.createElement("canvas"), { width: 1140, height: 904 });
  canvas.getContext("2d").drawImage(image, 0, 0);
  const link = Object.assign(document.createElement("a"), { download: "side-by-side.png", href: canvas.toDataURL("image/png") });
  link.click();
}

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-print]")) window.print();
  const png = event.target.closest("[data-png]");
  if (png) savePng(png.dataset.png);
  for (const menu of document.querySelectorAll("details.menu[open]")) if (!menu.contains(event.target)) menu.open = false;
});
