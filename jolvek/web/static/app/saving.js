// Forms that save themselves: nothing typed is lost. Refused fields are marked in place, what could
// not be sent waits and is sent again, and leaving the page sends what is left.
"use strict";

const RESEND_MS = 4000;
const saving = {
  form: null,
  dirty: 0,
  sent: 0,
  waiting: null,
  told: null
};

function tellSaving(text) {
  const line = document.getElementById("saving");
  if (!line) return;
  line.textContent = text;
  line.hidden = !text;
}

function resendLater(why) {
  const after = tr("What you typed waits and is sent again.");
  tellSaving(`${why} ${after}`);
  clearTimeout(saving.waiting);
  saving.waiting = setTimeout(() => {
    saving.form.dispatchEvent(new CustomEvent("resend"));
  }, RESEND_MS);
}

function markRefused() {
  const box = document.getElementById("kept");
  if (box === saving.told) return; // an answer while one types: nothing was kept
  saving.told = box;
  const refused = box ? JSON.parse(box.dataset.refused || "[]") : [];
  // The line that names them stays in sight however far one has scrolled.
  const line = box?.querySelector(".refused");
  document.getElementById("refused").replaceChildren(...(line ? [line] : []));
  for (const old of document.querySelectorAll(".wrong[data-live]")) old.remove();
  for (const field of document.querySelectorAll("[data-marked]")) {
    field.removeAttribute("aria-invalid");
    field.removeAttribute("data-marked");
    field.closest(".entry")?.classList.remove("is-wrong");
  }
  for (const [name, , why] of refused) {
    const field = document.querySelector(`#station-form [name="${name}"]`);
    if (!field) continue;
    field.setAttribute("aria-invalid", "true");
    field.setAttribute("data-marked", "");
    const entry = field.closest(".entry");
    if (!entry) continue;
    entry.classList.add("is-wrong");
    const folded = entry.closest("details");
    if (folded) folded.open = true;
    if (entry.querySelector(".wrong")) continue;
    const text = Object.assign(document.createElement("p"), {
      className: "wrong"
    });
    text.dataset.live = "1";
    text.textContent = why;
    entry.append(text);
  }
}

function watchSaving(form) {
  saving.form = form;
  form.addEventListener("input", () => {
    saving.dirty += 1;
  });
  form.addEventListener("change", () => {
    saving.dirty += 1;
  });
  form.addEventListener("submit", () => {
    saving.sent = saving.dirty;
  });
  form.addEventListener("htmx:before:request", () => {
    form.dataset.sending = String(saving.dirty);
  });
  form.addEventListener("htmx:after:request", (event) => {
    const status = event.detail?.ctx?.response?.status ?? 0;
    if (status === 200 || status === 422) {
      saving.sent = Number(form.dataset.sending || 0);
      clearTimeout(saving.waiting);
      tellSaving("");
      // What was typed meanwhile has a request of its own under way; should it not come, ask again.
      saving.waiting = setTimeout(() => {
        if (saving.sent < saving.dirty) form.dispatchEvent(new CustomEvent("resend"));
      }, RESEND_MS / 4);
    } else if (status) {
      resendLater(tr("Not saved: the server answered %(status)s.", {
        status
      }));
    }
  });
  form.addEventListener("htmx:error", () => {
    resendLater(tr("Not saved: no connection."));
  });
}

function flush() {
  const form = saving.form;
  if (!form || saving.sent >= saving.dirty) return;
  saving.sent = saving.dirty;
  navigator.sendBeacon(form.action, new FormData(form));
}

document.addEventListener("DOMContentLoaded", () => {
  const form = document.querySelector("form[data-saves]");
  if (!form) return;
  watchSaving(form);
  markRefused();
});
document.addEventListener("htmx:after:swap", markRefused);

// What is asked without being kept (a slider, a filter): what stands is then from before, and told.
function tellAsked(event, why) {
  const after = tr("What is shown is from before.");
  if (event.target !== saving.form) tellSaving(`${why} ${after}`);
}
document.addEventListener("htmx:after:request", (event) => {
  const status = event.detail?.ctx?.response?.status ?? 0;
  if (status === 200 || status === 422) {
    if (event.target !== saving.form && saving.sent >= saving.dirty) tellSaving("");
  } else if (status >= 400) {
    tellAsked(event, tr("Not answered: the server said %(status)s.", {
      status
    }));
  }
});
document.addEventListener("htmx:error", (event) => {
  tellAsked(event, tr("Not answered: no connection."));
});
window.addEventListener("pagehide", flush);
