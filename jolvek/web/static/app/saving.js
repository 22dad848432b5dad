// Forms that save themselves: nothing typed is lost. Refused fields are marked in place, what could
// not be sent waits and is sent again, and a page is left only when what was typed is saved.
"use strict";

const RESEND_MS = 4000;
const LEAVE_MS = 15000; // the longest that a link waits for a save
const STASH = "jolvek-typed:";
const saving = {
  form: null,
  dirty: 0,
  sent: 0,
  waiting: null,
  shown: null,
  touched: new Map(), // fields changed since they were last saved, by name: number of the change
  atParting: new Map(), // the same when the next page was asked for
  posts: 0, // saves of other parts of the page that are under way
  stuck: false // the session is over, or there is no connection
};
const GOOD = (status) => status === 200 || status === 422;

function tellSaving(text) {
  const line = document.getElementById("saving");
  if (!line) return;
  line.textContent = text;
  line.hidden = !text;
}

function resendLater(why) {
  const after = tr("What you typed waits and is sent again.");
  tellSaving(`${why} ${after}`);
  saving.stuck = true;
  clearTimeout(saving.waiting);
  saving.waiting = setTimeout(resend, RESEND_MS);
}

function resend() {
  saving.form?.dispatchEvent(new CustomEvent("resend"));
}

function notSaved(status) {
  const over = status === 401 || status === 400 && !saving.renewed;
  if (over) {
    saving.renewed = status === 400; // once: a 400 that comes again is none of the session's
    clearTimeout(saving.waiting);
    tellSaving(tr("Not saved yet: your session has ended. Sign in below to go on."));
    saving.stuck = true;
    signInHere();
  } else {
    resendLater(tr("Not saved: the server answered %(status)s.", {
      status
    }));
  }
}

function notKept(box, name) {
  return JSON.parse(box?.dataset[name] || "[]");
}

function markRefused() {
  const box = document.getElementById("kept");
  if (box === saving.shown) return; // an answer while one types: nothing was kept
  saving.shown = box;
  const refused = notKept(box, "refused");
  // The line that names them stays in sight however far one has scrolled.
  const line = box?.querySelector(".refused");
  document.getElementById("refused").replaceChildren(...(line ? [line] : []));
  for (const old of document.querySelectorAll(".wrong[data-live]")) old.remove();
  for (const field of document.querySelectorAll("[data-marked]")) {
    field.removeAttribute("aria-invalid");
    field.removeAttribute("data-marked");
    field.closest(".entry")?.classList.remove("is-wrong");
  }
  for (const [name, , why] of refused) {
    const field = document.querySelector(`#station-form [name="${name}"]`);
    if (!field) continue;
    field.setAttribute("aria-invalid", "true");
    field.setAttribute("data-marked", "");
    const entry = field.closest(".entry");
    if (!entry) continue;
    entry.classList.add("is-wrong");
    const folded = entry.closest("details");
    if (folded) folded.open = true;
    if (entry.querySelector(".wrong")) continue;
    const text = Object.assign(document.createElement("p"), {
      className: "wrong"
    });
    text.dataset.live = "1";
    text.textContent = why;
    entry.append(text);
  }
}

// What was sent is saved, but for fields that were refused and rows that are not finished.
function saved(upTo, status) {
  saving.sent = Math.max(saving.sent, upTo);
  saving.renewed = false;
  saving.stuck = false;
  clearTimeout(saving.waiting);
  tellSaving("");
  const box = document.getElementById("kept");
  const open = [...notKept(box, "refused"), ...notKept(box, "unfinished")].map(([name]) => name);
  const row = (name) => name.match(/^(bay|leg)\d+_/)?.[0];
  const rows = new Set(open.map(row).filter(Boolean));
  if (status === 422 && !open.length) return; // somebody else changed the same: all stays typed
  for (const [name, change] of saving.touched) {
    const stays = open.includes(name) || rows.has(row(name));
    if (change <= upTo && !stays) saving.touched.delete(name);
  }
}

function changed(event) {
  saving.dirty += 1;
  const {
    name
  } = event.target;
  if (name) saving.touched.set(name, saving.dirty);
  // A save says after which change it was made: the server drops one that comes late.
  const turn = saving.form.elements.turn;
  turn.value = String(Math.max(Number(turn.value) + 1, Date.now()));
}

function watchSaving(form) {
  saving.form = form;
  form.addEventListener("input", changed, true);
  form.addEventListener("change", changed, true);
  form.addEventListener("submit", () => {
    saving.sent = saving.dirty;
    saving.touched.clear();
  });
  form.addEventListener("htmx:config:request", (event) => {
    if (event.target === form) event.detail.ctx.upTo = saving.dirty;
  });
  // When what came of it stands on the page: which fields were refused is read there.
  form.addEventListener("htmx:finally:request", (event) => {
    const {
      ctx
    } = event.detail;
    const status = ctx?.response?.status ?? 0;
    if (event.target !== form || !status) return;
    if (GOOD(status)) {
      saved(ctx.upTo ?? 0, status);
      // What was typed meanwhile has a request under way; should it not come, ask again.
      saving.waiting = setTimeout(() => {
        if (saving.sent < saving.dirty) resend();
      }, RESEND_MS / 4);
    } else {
      notSaved(status);
    }
  });
  form.addEventListener("htmx:error", () => {
    resendLater(tr("Not saved: no connection."));
  });
}

// --- Leaving the page -------------------------------------------------------------------------

const isUnsaved = () => Boolean(saving.form && saving.sent < saving.dirty) || saving.posts > 0;

// Sends what stands in the fields now; true once the server has it.
async function saveNow() {
  const upTo = saving.dirty;
  const answer = await fetch(saving.form.action, {
    method: "POST",
    body: new FormData(saving.form),
    headers: {
      "HX-Request": "true"
    }
  });
  if (!GOOD(answer.status)) {
    notSaved(answer.status);
    return false;
  }
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  const fresh = page.getElementById("kept");
  if (fresh) document.getElementById("kept")?.replaceWith(fresh);
  saved(upTo, answer.status);
  return true;
}

async function settled() {
  const until = Date.now() + LEAVE_MS;
  while (isUnsaved() && Date.now() < until) {
    if (saving.form && saving.sent < saving.dirty) {
      if (!await saveNow()) return false;
    } else {
      await new Promise((done) => setTimeout(done, 30));
    }
  }
  return true;
}

// Goes on once what was typed is saved. Without a connection it goes on too: what was typed stays
// on this device and is sent from the next page.
async function leave(go) {
  if (saving.leaving) return;
  saving.leaving = true;
  document.documentElement.setAttribute("aria-busy", "true");
  tellSaving(tr("Saving what you typed…"));
  let free = true;
  try {
    free = await settled();
  } catch {
    free = true;
  }
  document.documentElement.removeAttribute("aria-busy");
  saving.leaving = false;
  if (!free) return; // it says why, and what to do
  tellSaving("");
  go();
}

document.addEventListener("click", (event) => {
  const link = event.target.closest?.("a[href]");
  const other = event.button || event.ctrlKey || event.metaKey || event.shiftKey || event
    .altKey;
  if (!link || other || link.hasAttribute("hx-get")) return;
  followLive(link);
  const inPage = link.getAttribute("href").startsWith("#");
  if (event.defaultPrevented || inPage || link.target || !isUnsaved()) return;
  event.preventDefault();
  leave(() => {
    window.location.href = link.href;
  });
});

document.addEventListener("submit", (event) => {
  const {
    target,
    submitter
  } = event;
  fillLive(target);
  if (event.defaultPrevented || target === saving.form || !isUnsaved()) return;
  if (target.closest("#sign-in-here")) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  leave(() => target.requestSubmit(submitter?.form === target ? submitter : undefined));
}, true);

// A link or a button that stands for the page as it is asked now goes by the fields on screen, not
// by those that the page was made with.
function liveQuery(id) {
  const form = document.getElementById(id);
  return form ? new URLSearchParams([...new FormData(form)].filter(([, v]) => v !== "")) : null;
}

function followLive(link) {
  const asked = link.dataset.live && liveQuery(link.dataset.live);
  if (asked) link.search = asked;
}

function fillLive(form) {
  const field = form.querySelector?.("input[data-live]");
  const asked = field && liveQuery(field.dataset.live);
  if (asked) field.value = asked;
}

// What is not saved when the page goes is sent on the way, and stays for the next page to see: the
// same form opened again holds it. The next page may have been made before a save that was answered
// since, so what was open when it was asked for counts as well.
function stash() {
  const {
    form
  } = saving;
  if (!form) return;
  const key = STASH + new URL(form.action).pathname;
  const open = new Set([...saving.atParting.keys(), ...saving.touched.keys()]);
  if (!open.size) return;
  const fields = [...open].filter((name) => name !== "csrf_token")
    .map((name) => [name, new FormData(form).getAll(name)]);
  sessionStorage.setItem(key, JSON.stringify({
    page: form.elements.page.value,
    turn: form.elements.turn.value,
    reader: document.body.dataset.reader,
    fields
  }));
  if (saving.sent >= saving.dirty) return;
  saving.sent = saving.dirty;
  // nobody is left to read the page that the answer leads to
  fetch(form.action, {
    method: "POST",
    body: new FormData(form),
    keepalive: true,
    redirect: "manual"
  }).catch(() => {});
}

function setField(form, name, values) {
  let differs = false;
  for (const field of form.querySelectorAll(`[name="${CSS.escape(name)}"]`)) {
    if (field.type === "checkbox" || field.type === "radio") {
      const on = values.includes(field.value);
      differs ||= field.checked !== on;
      field.checked = on;
    } else if (values.length && field.type !== "hidden") {
      differs ||= field.value !== values[0];
      field.value = values[0];
    }
    const folded = field.closest("details");
    if (differs && folded) folded.open = true;
  }
  return differs;
}

function unstash(form) {
  const key = STASH + new URL(form.action).pathname;
  const kept = JSON.parse(sessionStorage.getItem(key) || "null");
  sessionStorage.removeItem(key);
  if (!kept || kept.reader !== document.body.dataset.reader) return;
  const differs = kept.fields.filter(([name, values]) => setField(form, name, values));
  if (!differs.length) return;
  form.elements.page.value = kept.page; // it goes on with the page that it was typed on
  form.elements.turn.value = kept.turn;
  for (const [name] of differs) {
    const field = form.querySelector(`[name="${CSS.escape(name)}"]`);
    field?.dispatchEvent(new Event("input", {
      bubbles: true
    }));
  }
}

document.addEventListener("DOMContentLoaded", () => {
  const form = document.querySelector("form[data-saves]");
  if (!form) return;
  watchSaving(form);
  markRefused();
});
window.addEventListener("load", () => setTimeout(() => saving.form && unstash(saving.form)));
document.addEventListener("htmx:after:swap", markRefused);
document.addEventListener("jolvek:signed-in", () => {
  tellSaving("");
  if (saving.sent < saving.dirty) resend();
});

// --- What else is asked and saved ---------------------------------------------------------------

const isPost = (event) => event.detail?.ctx?.request?.method === "POST" &&
  !event.detail.ctx.request.action.endsWith("/answer") && event.target !== saving.form;
document.addEventListener("htmx:before:request", (event) => {
  if (isPost(event)) saving.posts += 1;
});
document.addEventListener("htmx:finally:request", (event) => {
  if (isPost(event)) saving.posts = Math.max(saving.posts - 1, 0);
});

// What is asked without being kept (a slider, a filter): what stands is then from before, and told.
function tellAsked(event, why) {
  const after = tr("What is shown is from before.");
  if (event.target !== saving.form) tellSaving(`${why} ${after}`);
}
document.addEventListener("htmx:after:request", (event) => {
  const status = event.detail?.ctx?.response?.status ?? 0;
  if (GOOD(status)) {
    if (event.target !== saving.form && !isUnsaved() && !saving.stuck) tellSaving("");
  } else if (status === 401) {
    signInHere();
  } else if (status >= 400) {
    tellAsked(event, tr("Not answered: the server said %(status)s.", {
      status
    }));
  }
});
document.addEventListener("htmx:error", (event) => {
  tellAsked(event, tr("Not answered: no connection."));
});
window.addEventListener("beforeunload", () => {
  saving.atParting = new Map(saving.touched);
});
window.addEventListener("pagehide", stash);
