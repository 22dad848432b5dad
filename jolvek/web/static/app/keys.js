// Shortcuts of one key; keys pressed before this file had loaded are taken from early.js.
"use strict";

function typing(event) {
  const t = event.target;
  return t.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName);
}

// Whoever speaks to the machine, or leans on its keys, switches them off (WCAG 2.1.4).
const SWITCHED = "jolvek:keys";
const keysOff = () => localStorage.getItem(SWITCHED) === "off";
document.addEventListener("change", (event) => {
  if (event.target.id === "single-keys") localStorage.setItem(SWITCHED, event.target.checked ?
    "on" : "off");
});

// A form on its way must not be overtaken by a key: the page that answers it acts on the key.
const HELD = "jolvek:key";
let sending = false;
document.addEventListener("submit", (event) => {
  const how = event.submitter?.getAttribute("formmethod") || event.target.method;
  sending = !event.defaultPrevented && how === "post";
});
window.addEventListener("pageshow", () => {
  sending = false;
});

function pressed(event) {
  if (typing(event) || event.ctrlKey || event.metaKey || event.altKey || keysOff()) return;
  if (sending) {
    sessionStorage.setItem(HELD, event.key);
    return;
  }
  const station = document.querySelector(`[data-station="${event.key}"]`);
  if (station) {
    station.click();
    return;
  }
  if (event.key === "/") {
    event.preventDefault();
    document.getElementById("find").focus();
    return;
  }
  if (event.key === "n") {
    document.querySelector(".brand").click();
    return;
  }
  if (event.key === "?") {
    const keys = document.querySelector(".keys");
    keys.open = !keys.open;
    return;
  }
  if (event.key === "," || event.key === ".") document.dispatchEvent(new CustomEvent(
    "jolvek:step", {
      detail: event.key === "." ? 1 : -1
    }));
  if (event.key === "[" || event.key === "]") {
    const buttons = [...document.querySelectorAll("[data-choose]")];
    const now = buttons.findIndex((b) => b.classList.contains("is-on"));
    const next = buttons[(now + (event.key === "]" ? 1 : -1) + buttons.length) % buttons.length];
    if (next) next.click();
  }
}

// Until the cursor listens too, keys are kept and acted on in their order.
document.removeEventListener("keydown", window.jolvekEarly.keep);
document.addEventListener("keydown", (event) => {
  (document.documentElement.dataset.ready ? pressed : window.jolvekEarly.keep)(event);
});

document.addEventListener("alpine:initialized", () => {
  document.documentElement.dataset.ready = "1";
  const box = document.getElementById("single-keys");
  if (box) box.checked = !keysOff();
  const held = sessionStorage.getItem(HELD);
  sessionStorage.removeItem(HELD);
  for (const key of [...(held ? [held] : []), ...window.jolvekEarly.keys.splice(0)]) {
    pressed({
      key,
      target: document.body,
      preventDefault() {}
    });
  }
});

// Fields changed before htmx listened say so again.
window.addEventListener("load", () => setTimeout(() => {
  for (const kind of ["input", "change"]) {
    document.removeEventListener(kind, window.jolvekEarly.typed);
    for (const field of window.jolvekEarly.fields) field.dispatchEvent(new Event(kind, {
      bubbles: true
    }));
  }
}));
