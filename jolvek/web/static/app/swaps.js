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
  document.addEventListener("input", changed);
  document.addEventListener("change", changed);
  document.addEventListener("htmx:before:request", (event) => since.delete(event.target.id));

  document.addEventListener("htmx:after:swap", () => {
    for (const fields of since.values()) {
      for (const [id, value] of fields) {
        const field = document.getElementById(id);
        if (field && field.type !== "radio" && field.value !== value) field.value = value;
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
