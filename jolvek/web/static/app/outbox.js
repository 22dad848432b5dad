// Whatever is sent without a connection waits on this device, photos too, is listed on every page,
// and is sent when the connection is back. Each has a number of its own, so that it counts once.
"use strict";

const outbox = {
  retry_ms: 5000,
  sending: false,
  heard: [], // what pages do when one of theirs was sent: (entry, answer as JSON or null)

  reader: () => document.body.dataset.reader || "",
  async mine() {
    return (await waiting.all()).filter((entry) => entry.reader === outbox.reader());
  },

  async add(form, submitter, more = {}) {
    const fields = [...new FormData(form, submitter)].filter(([name]) => name !== "csrf_token");
    const action = submitter?.getAttribute("formaction") || form.action;
    const entry = {
      op: waiting.newOp(),
      at: new Date().toISOString(),
      action: new URL(action, location.href).pathname,
      page: location.pathname + location.search,
      reader: outbox.reader(),
      title: document.title,
      label: (submitter?.textContent || tr("Send")).trim(),
      fields,
      ...more
    };
    await waiting.put(entry);
    typedHere.forget(form);
    await outbox.show();
    return entry;
  },

  async send(entry) {
    const body = new FormData();
    for (const [name, value] of entry.fields) body.append(name, value);
    body.append("csrf_token", tokenOf(document));
    const headers = {
      "X-Sent-Later": entry.op
    };
    if (entry.json) headers.Accept = "application/json";
    const answer = await fetch(entry.action, {
      method: "POST",
      body,
      headers
    });
    if (answer.status === 401) signInHere();
    if ([401, 429].includes(answer.status) || answer.status >= 500) {
      throw new Error(`answered ${answer.status}`);
    }
    const text = await answer.text();
    const json = (answer.headers.get("Content-Type") || "").startsWith("application/json");
    if (json || answer.ok) {
      await waiting.drop(entry.op);
      for (const told of outbox.heard) await told(entry, json ? JSON.parse(text) : null);
      if (!entry.json && entry.page === location.pathname + location.search) location.reload();
      return;
    }
    const page = new DOMParser().parseFromString(text, "text/html");
    const why = page.querySelector(".wrong, .lacks, main p")?.textContent || "";
    await waiting.put({
      ...entry,
      refused: why.trim().slice(0, 300) || tr("the server answered %(status)s", {
        status: answer.status
      })
    });
  },

  async sendAll() {
    if (outbox.sending || !tokenOf(document)) return;
    outbox.sending = true;
    try {
      for (const entry of await outbox.mine()) {
        if (!entry.refused) await outbox.send(entry);
      }
    } catch {
      setTimeout(outbox.sendAll, outbox.retry_ms);
    } finally {
      outbox.sending = false;
      await outbox.show();
    }
  },

  item(entry) {
    const row = document.createElement("li");
    const spoken = document.documentElement.lang;
    const at = new Date(entry.at).toLocaleString(spoken === "en" ? "en-GB" : spoken, {
      dateStyle: "medium",
      timeStyle: "short"
    });
    row.append(`${entry.label}, ${entry.title}, ${at}`);
    const photos = entry.fields.filter(([, x]) => x instanceof Blob && x.size).length;
    if (photos) row.append(` ${tr("with a photo")}`);
    if (!entry.refused) return row;
    row.append(` ${tr("Refused: %(why)s", {why: entry.refused})} `);
    const back = Object.assign(document.createElement("a"), {
      href: entry.page,
      textContent: tr("Open the page")
    });
    const drop = Object.assign(document.createElement("button"), {
      type: "button",
      className: "linklike",
      textContent: tr("Discard")
    });
    drop.addEventListener("click", async () => {
      await waiting.drop(entry.op);
      await outbox.show();
    });
    row.append(back, " ", drop);
    return row;
  },

  async show() {
    const box = document.getElementById("outbox");
    if (!box) return;
    const all = await waiting.all();
    const own = all.filter((entry) => entry.reader === outbox.reader());
    const others = all.length - own.length;
    const words = [];
    if (own.length) words.push(tr(
      "%(n)s kept on this device; sent when the connection is back.", {
        n: own.length
      }));
    if (others) {
      const names = [...new Set(all.filter((x) => x.reader !== outbox.reader()).map((x) => x
        .person || ""))].filter(Boolean).join(", ");
      words.push(tr("%(n)s wait for %(names)s to sign in here.", {
        n: others,
        names: names || tr("somebody else")
      }));
    }
    box.hidden = !words.length;
    const list = document.createElement("ul");
    list.append(...own.map(outbox.item));
    const line = Object.assign(document.createElement("p"), {
      textContent: words.join(" ")
    });
    box.replaceChildren(line, list);
  }
};

// A form that cannot be sent now waits; one that saves itself waits on its page.
document.addEventListener("submit", (event) => {
  const {
    target,
    submitter
  } = event;
  const method = submitter?.getAttribute("formmethod") || target.method;
  if (event.defaultPrevented || method !== "post" || navigator.onLine) return;
  if (target.matches("[data-online]")) return;
  event.preventDefault();
  if (target === saving.form) {
    resendLater(tr("Not saved: no connection."));
    return;
  }
  outbox.add(target, submitter);
});

window.addEventListener("online", outbox.sendAll);
document.addEventListener("jolvek:signed-in", outbox.sendAll);
window.addEventListener("load", async () => {
  if (!("indexedDB" in window)) return;
  try {
    await waiting.setReader(outbox.reader());
    await outbox.show();
    if (navigator.onLine && (await outbox.mine()).length) outbox.sendAll();
  } catch { // a browser that keeps nothing: all else works
  }
});
