// Keeps keys that are pressed and fields that are changed while the page is still loading, for
// keys.js to act on.
"use strict";

window.jolvekEarly = {
  keys: [],
  fields: new Set(),
  keep(event) {
    const box = /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
    const more = event.ctrlKey || event.metaKey || event.altKey;
    if (!box && !more && event.key.length === 1) window.jolvekEarly.keys.push(event.key);
  },
  typed(event) {
    window.jolvekEarly.fields.add(event.target);
  },
};
document.addEventListener("keydown", window.jolvekEarly.keep);
document.addEventListener("input", window.jolvekEarly.typed);
document.addEventListener("change", window.jolvekEarly.typed);
