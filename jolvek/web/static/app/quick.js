// Another kind of boat brings its usual figures; what was typed since it was chosen stays typed.
// What the catalogue has follows the answer, and says so where it does not come.
"use strict";
{
  let mine = new Map();
  const quick = (event) => event.target.closest?.("#quick-form");

  document.addEventListener("change", (event) => {
    if (quick(event) && event.target.name === "family") mine = new Map();
  });
  document.addEventListener("input", (event) => {
    if (quick(event) && event.target.name !== "family") mine.set(event.target.name, event.target
      .value);
  });
  document.addEventListener("htmx:after:swap", () => {
    for (const [name, value] of mine) {
      const field = document.querySelector(`#quick-entries [name="${name}"]`);
      if (!field || field.value === value) continue;
      field.value = value;
      field.dispatchEvent(new Event("change", {
        bubbles: true
      }));
    }
  });

  function notLooked(event) {
    const status = event.detail?.ctx?.response?.status ?? 0;
    const line = event.target.closest?.(".from-catalogue[aria-busy]");
    if (!line || status === 200) return;
    line.removeAttribute("aria-busy");
    line.textContent = tr("The catalogue could not be read.");
  }
  document.addEventListener("htmx:after:request", notLooked);
  document.addEventListener("htmx:error", notLooked);
}
