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

// Charts are drawn for the screen: the server is told where that is narrow.
window.jolvekEarly.room = () => {
  const narrow = window.innerWidth < 700 ? 1 : 0;
  document.cookie = `narrow=${narrow}; path=/; samesite=lax; max-age=31536000`;
};
window.jolvekEarly.room();
window.addEventListener("resize", window.jolvekEarly.room);
