// Keeps keys that are pressed while the page is still loading, for keys.js to act on.
"use strict";

window.jolvekEarly = {
  keys: [],
  keep(event) {
    const box = /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
    const more = event.ctrlKey || event.metaKey || event.altKey;
    if (!box && !more && event.key.length === 1) window.jolvekEarly.keys.push(event.key);
  },
};
document.addEventListener("keydown", window.jolvekEarly.keep);
