// The steps of a list are ticked at once, with or without a connection: each goes through the
// outbox.
"use strict";

{
  const stateWords = () => ({
    done: tr("done"),
    not_needed: tr("not needed"),
    open: tr("open again")
  });
  const valueOf = (entry, name) => entry.fields.find(([key]) => key === name)?.[1];

  // The next open step stands in the headline and in the bar; its group is open, a finished one
  // folds. Worked out here, for a phone without a connection goes on too.
  const advance = () => {
    const rows = [...document.querySelectorAll(".act-list li")];
    const left = rows.filter((row) => row.classList.contains("is-open"));
    const next = left[0];
    const text = next?.querySelector(".step-text").textContent.trim();
    const headline = document.querySelector("[data-next]");
    if (!headline) return;
    headline.hidden = !next;
    document.querySelector("[data-all-done]").hidden = Boolean(next);
    if (next) headline.querySelector("strong").textContent = text;
    document.getElementById("left").textContent = tr("%(done)s of %(all)s steps done", {
      done: rows.length - left.length,
      all: rows.length
    });
    document.querySelector(".progress-line progress").value = rows.length - left.length;
    const bar = document.querySelector("[data-next-bar]");
    if (bar) bar.hidden = !next;
    if (bar && next) {
      bar.querySelector("[data-photo]").href = `#${next.id}`;
      bar.querySelector("button").setAttribute("form", next.querySelector("form").id);
    }
    for (const group of document.querySelectorAll(".step-group")) {
      const all = group.querySelectorAll("li").length;
      const open = group.querySelectorAll("li.is-open").length;
      group.querySelector("[data-count]").textContent = `${all - open} / ${all}`;
      if (open === 0) group.open = false;
      if (next && group.contains(next)) group.open = true;
    }
  };

  const showAct = (entry, words, css = "waiting") => {
    const row = document.getElementById(`step-${valueOf(entry, "step")}`);
    if (!row || entry.action !== location.pathname + "/step") return;
    const state = valueOf(entry, "state");
    row.className = `is-${state} is-${css}`;
    row.querySelector("[data-act-note]").textContent = `${stateWords()[state]}, ${words}`;
    advance();
  };

  // The row as the shop has it now, who did it and when, with what may be done next; where the act
  // was refused it is as it was before, and says why.
  outbox.heard.push(async (entry, answer) => {
    if (!answer || !entry.json || entry.action !== location.pathname + "/step") return;
    if (answer.kept) showAct(entry, tr("saved by the shop"), "kept");
    const page = new DOMParser().parseFromString(await (await fetch(location.pathname))
      .text(),
      "text/html");
    const id = `step-${valueOf(entry, "step")}`;
    const fresh = page.getElementById(id);
    if (fresh) document.getElementById(id)?.replaceWith(fresh);
    if (fresh && !answer.kept) {
      fresh.classList.add("is-waiting");
      fresh.querySelector("[data-act-note]").textContent = tr("not saved: %(why)s", {
        why: answer.why
      });
    }
    advance();
  });

  // One press ticks one step, however hastily it is pressed.
  const HASTY_MS = 400;
  let pressed = 0;

  document.addEventListener("click", (event) => {
    const bar = event.target.closest("[data-next-bar]");
    if (!bar) return;
    const step = document.querySelector(".act-list li.is-open");
    if (event.target.closest("[data-photo]")) {
      event.preventDefault();
      step.querySelector("details").open = true;
      step.scrollIntoView({
        block: "center"
      });
      step.querySelector("input[type=file]").click();
    } else if (event.target.closest("button")) {
      if (Date.now() - pressed < HASTY_MS) event.preventDefault();
      else pressed = Date.now();
      setTimeout(() => document.querySelector(".act-list li.is-open")?.scrollIntoView({
        block: "center"
      }), 50);
    }
  });

  document.addEventListener("submit", async (event) => {
    const form = event.target.closest("form[data-afar]");
    if (!form || event.defaultPrevented) return;
    event.preventDefault();
    const fields = new FormData(form, event.submitter);
    if (fields.get("state") === "not_needed" && !(fields.get("note") || "").trim()) {
      form.querySelector("input[name=note]").focus();
      form.closest("li").querySelector("[data-act-note]").textContent = tr(
        "write in the note why it is not needed");
      return;
    }
    const person = fields.get("person");
    const entry = await outbox.add(form, event.submitter, {
      json: true,
      label: fields.get("state") === "not_needed" ? event.submitter.textContent.trim() :
        form.querySelector(".tick").getAttribute("aria-label"),
      person
    });
    // The step's own number and the time on this phone, so that it counts once and when it was
    // done.
    entry.fields = [...entry.fields.filter(([name]) => !["op", "at"].includes(name)),
      ["op", entry.op],
      ["at", entry.at]
    ];
    await waiting.put(entry);
    showAct(entry, tr("kept on this phone"));
    outbox.sendAll();
  }, true);

  window.addEventListener("load", async () => {
    if (!document.querySelector("[data-afar]")) return;
    for (const entry of await outbox.mine()) showAct(entry, tr("kept on this phone"));
  });

  // A number read from a photo of a code, where the browser can.
  if ("BarcodeDetector" in window) {
    document.querySelectorAll(".scan").forEach((label) => {
      label.hidden = false;
    });
  }

  document.addEventListener("change", async (event) => {
    const input = event.target.closest("[data-scan]");
    if (!input || !input.files.length) return;
    const found = await new BarcodeDetector().detect(await createImageBitmap(input.files[0]));
    if (found.length) input.closest("form").querySelector("[name=number]").value = found[0]
      .rawValue;
  });
}
