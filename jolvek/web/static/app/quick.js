// Another kind of boat brings its usual figures; what was typed since it was chosen stays typed.
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
}
