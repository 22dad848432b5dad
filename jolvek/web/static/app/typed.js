// A form that is sent by a button keeps what was typed when one goes to another page and comes
// back, or loads the page again: in this tab, until it is sent or discarded.
"use strict";

const typedHere = {
  prefix: "jolvek-form:",

  keyOf(form) {
    const own = form.getAttribute("action") || "";
    const parts = [...form.querySelectorAll("input[type=hidden]")]
      .filter((x) => !["csrf_token", "op", "at", "after", "signature", "changed"].includes(x
        .name))
      .map((x) => `${x.name}=${x.defaultValue}`);
    return `${typedHere.prefix}${document.body.dataset.reader}:${location.pathname}:` +
      `${own}:${parts.join("&")}`;
  },

  isKept(form) {
    const method = (form.getAttribute("method") || "get").toLowerCase();
    const saves = form.hasAttribute("hx-post") || form.hasAttribute("data-saves") ||
      form.hasAttribute("data-online") || form.id === "fit-form" || form.id === "wiring-form";
    return method === "post" && !saves && !form.querySelector("input[type=password]");
  },

  fieldsOf: (form) => [...form.elements].filter((x) => x.name && !x.readOnly && !["hidden",
    "submit", "button", "file", "password", "fieldset"
  ].includes(x.type)),

  now: (x) => x.type === "checkbox" || x.type === "radio" ? x.checked : x.value,
  was(x) {
    if (x.type === "checkbox" || x.type === "radio") return x.defaultChecked;
    if (!x.options) return x.defaultValue;
    const chosen = [...x.options].find((o) => o.defaultSelected) || x.options[0];
    return chosen ? chosen.value : "";
  },

  keep(form) {
    const list = typedHere.fieldsOf(form).filter((x) => typedHere.now(x) !== typedHere.was(x))
      .map((x) => [x.name, x.type === "radio" || x.type === "checkbox" ? x.value : "",
        typedHere.was(x), typedHere.now(x)
      ]);
    const key = typedHere.keyOf(form);
    if (list.length) sessionStorage.setItem(key, JSON.stringify(list));
    else sessionStorage.removeItem(key);
  },

  forget: (form) => sessionStorage.removeItem(typedHere.keyOf(form)),

  // Only into fields that hold what they held then: what was saved since stands.
  restore(form) {
    const kept = JSON.parse(sessionStorage.getItem(typedHere.keyOf(form)) || "[]");
    const fields = typedHere.fieldsOf(form);
    let n = 0;
    for (const [name, value, was, typed] of kept) {
      const field = fields.find((x) => x.name === name && (!value || x.value === value));
      if (!field || typedHere.was(field) !== was || typedHere.now(field) === typed) continue;
      if (typeof typed === "boolean") field.checked = typed;
      else field.value = typed;
      const folded = field.closest("details");
      if (folded) folded.open = true;
      n += 1;
    }
    if (!n) {
      typedHere.forget(form);
      return;
    }
    const line = Object.assign(document.createElement("p"), {
      className: "hint typed-before"
    });
    line.setAttribute("role", "status");
    const drop = Object.assign(document.createElement("button"), {
      type: "button",
      className: "linklike",
      textContent: tr("Discard it")
    });
    drop.addEventListener("click", () => {
      typedHere.forget(form);
      form.reset();
      line.remove();
    });
    line.append(tr("What you typed earlier is back. It has not been sent yet."), " ", drop);
    form.prepend(line);
  }
};

for (const kind of ["input", "change"]) document.addEventListener(kind, (event) => {
  const {
    form
  } = event.target;
  if (form && typedHere.isKept(form)) typedHere.keep(form);
});
document.addEventListener("submit", (event) => {
  if (typedHere.isKept(event.target) && !event.defaultPrevented && navigator.onLine) {
    sessionStorage.setItem("jolvek-sent", typedHere.keyOf(event.target));
  }
});
window.addEventListener("pageshow", () => {
  // A page that came is a form that went: a browser's error page would not run this.
  const sent = sessionStorage.getItem("jolvek-sent");
  sessionStorage.removeItem("jolvek-sent");
  if (sent && !document.body.dataset.kept) sessionStorage.removeItem(sent);
  const forms = [...document.forms].filter(typedHere.isKept);
  if (document.querySelector("main .wrong, main [aria-invalid=true]"))
    return; // it holds what was sent
  forms.forEach(typedHere.restore);
});
