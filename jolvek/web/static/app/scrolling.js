// What scrolls sideways is reached by Tab, so that the arrow keys scroll it.
"use strict";

function reachable() {
  for (const box of document.querySelectorAll(".scroll, .chart-box")) {
    const hidden = box.scrollWidth > box.clientWidth + 1;
    box.toggleAttribute("tabindex", hidden);
    if (hidden) {
      box.tabIndex = 0;
      box.setAttribute("role", "group");
      box.setAttribute("aria-label", "scrolls sideways");
    }
  }
}
for (const when of ["load", "resize"]) window.addEventListener(when, reachable);
document.addEventListener("htmx:after:swap", reachable);
