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

  const showAct = (entry, words, css = "waiting") => {
    const row = document.getElementById(`step-${valueOf(entry, "step")}`);
    if (!row || entry.action !== location.pathname + "/step") return;
    const state = valueOf(entry, "state");
    row.className = `is-${state} is-${css}`;
    row.querySelector("[data-said]").textContent = `${stateWords()[state]}, ${words}`;
  };

  // The row as the shop has it now, who did it and when, with what may be done next.
  outbox.heard.push(async (entry, answer) => {
    if (!answer || !entry.json || entry.action !== location.pathname + "/step") return;
    if (!answer.kept) {
      showAct(entry, tr("not saved: %(why)s", {
        why: answer.why
      }));
      return;
    }
    showAct(entry, tr("saved by the shop"), "kept");
    const page = new DOMParser().parseFromString(await (await fetch(location.pathname))
      .text(),
      "text/html");
    for (const id of [`step-${valueOf(entry, "step")}`, "left"]) {
      const fresh = page.getElementById(id);
      if (fresh) document.getElementById(id)?.replaceWith(fresh);
    }
  });

  document.addEventListener("submit", async (event) => {
    const form = event.target.closest("form[data-afar]");
    if (!form || event.defaultPrevented) return;
    event.preventDefault();
    const fields = new FormData(form, event.submitter);
    if (fields.get("state") === "not_needed" && !(fields.get("note") || "").trim()) {
      form.querySelector("input[name=note]").focus();
      form.closest("li").querySelector("[data-said]").textContent = tr(
        "write in the note why it is not needed");
      return;
    }
    const person = fields.get("person");
    const entry = await outbox.add(form, event.submitter, {
      json: true,
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
