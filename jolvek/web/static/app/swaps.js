// An answer that waited for the one before goes where its place stands now: that one may have
// renewed the part of the page for which it was asked. What was changed in a form since its last
// request stays as it was changed.
"use strict";
{
  const since = new Map();

  function changed(event) {
    const field = event.target;
    const form = field.form?.hasAttribute("hx-get") && field.form.id;
    if (!form || !field.id) return;
    if (!since.has(form)) since.set(form, new Map());
    since.get(form).set(field.id, field.value);
  }
  document.addEventListener("input", changed, true); // before a request that the same event sends
  document.addEventListener("htmx:before:request", (event) => since.delete(event.target.id));

  function still(field, value) { // a choice that is offered no more is none
    if (!field || field.type === "radio" || field.value === value) return false;
    return !field.options || [...field.options].some((option) => option.value === value);
  }
  document.addEventListener("htmx:after:swap", () => {
    for (const fields of since.values()) {
      for (const [id, value] of fields) {
        const field = document.getElementById(id);
        if (still(field, value)) field.value = value;
      }
    }
  });

  document.addEventListener("htmx:after:request", (event) => {
    const {
      ctx
    } = event.detail;
    const {
      target
    } = ctx;
    if (target?.id && !target.isConnected) {
      ctx.target = document.getElementById(target.id) || target;
    }
  });
}
