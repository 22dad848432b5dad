// Sections of a page behind tabs: links to their ids. Without scripts all of them stand below each
// other; on paper too.
"use strict";

{
  const sectionsOf = (bar) => [...bar.querySelectorAll("a")].map((a) => document.getElementById(a
    .hash.slice(1))).filter(Boolean);

  const open = (bar, id) => {
    for (const section of sectionsOf(bar)) section.classList.toggle("behind-tab", section.id !==
      id);
    for (const a of bar.querySelectorAll("a")) {
      if (a.hash === `#${id}`) a.setAttribute("aria-current", "true");
      else a.removeAttribute("aria-current");
    }
  };

  // The tab that holds what the address names, else what was refused, else the first.
  const settle = () => {
    for (const bar of document.querySelectorAll("[data-tabs]")) {
      const sections = sectionsOf(bar);
      const named = location.hash && document.getElementById(location.hash.slice(1));
      const shown = sections.find((s) => named && (s === named || s.contains(named))) ||
        sections.find((s) => s.querySelector(".wrong, [aria-invalid=true]")) ||
        sections.find((s) => !s.classList.contains("behind-tab") &&
          bar.querySelector(`a[aria-current][href="#${s.id}"]`)) || sections[0];
      if (shown) open(bar, shown.id);
    }
  };

  document.addEventListener("click", (event) => {
    const link = event.target.closest("[data-tabs] a");
    if (!link) return;
    event.preventDefault();
    history.replaceState(history.state, "", link.hash);
    open(link.closest("[data-tabs]"), link.hash.slice(1));
  });

  // What was behind a tab when the browser looked for it has no place to scroll to.
  const follow = () => {
    settle();
    const named = location.hash && document.getElementById(location.hash.slice(1));
    if (named && document.querySelector(`[data-tabs] a[href="${location.hash}"]`)) {
      named.scrollIntoView();
    }
  };

  follow();
  window.addEventListener("hashchange", follow);
  document.addEventListener("htmx:after:swap", settle);
}
