// Acts of a list that are kept on this phone while there is no connection, and sent when it is
// back: each has a name of its own, so that the shop counts it once.
"use strict";

{
  const AFAR = {
    prefix: "jolvek-afar-",
    retry_ms: 5000
  };

  // One item an act, so that two tabs never write over each other.
  const kept = () => Object.keys(localStorage)
    .filter((key) => key.startsWith(AFAR.prefix))
    .map((key) => JSON.parse(localStorage.getItem(key)))
    .sort((a, b) => a.fields.at.localeCompare(b.fields.at));
  const keep = (act) => localStorage.setItem(AFAR.prefix + act.fields.op, JSON.stringify(act));
  const drop = (act) => localStorage.removeItem(AFAR.prefix + act.fields.op);

  // Whose page this is: what another has ticked on this phone waits for them to sign in.
  const person = () => document.querySelector("[data-afar] input[name=person]")?.value || "";
  const mine = () => kept().filter((act) => act.fields.person === person());

  const tellAfar = () => {
    const line = document.getElementById("afar");
    if (!line) return;
    const own = mine().length;
    const others = kept().filter((act) => act.fields.person !== person());
    const names = [...new Set(others.map((act) => act.fields.person))].join(", ");
    const told = [];
    if (own) told.push(tr(
      "%(n)s kept on this phone; sent when the connection is back.", {
        n: own
      }));
    if (others.length) told.push(tr("%(n)s wait for %(names)s to sign in here.", {
      n: others.length,
      names
    }));
    line.hidden = !told.length;
    line.textContent = told.join(" ");
  };

  const showAct = (act, words) => {
    const row = document.getElementById(`step-${act.fields.step}`);
    if (!row || act.action !== location.pathname + "/step") return;
    row.className = `is-${act.fields.state} is-${act.told ? "kept" : "waiting"}`;
    const state = {
      done: tr("done"),
      not_needed: tr("not needed"),
      open: tr("open again")
    };
    row.querySelector("[data-said]").textContent = `${state[act.fields.state]}, ${words}`;
  };

  const csrf = () => document.querySelector("[data-afar] input[name=csrf_token]")?.value || "";

  const send = async (act) => {
    const body = new URLSearchParams({
      ...act.fields,
      csrf_token: csrf()
    });
    const answer = await fetch(act.action, {
      method: "POST",
      body,
      headers: {
        Accept: "application/json"
      },
    });
    const type = answer.headers.get("Content-Type") || "";
    if (!type.startsWith("application/json")) throw new Error(`answered ${answer.status}`);
    return answer.json();
  };

  // The row as the shop has it now, who did it and when, with what may be done next.
  const refresh = async (act) => {
    showAct({
      ...act,
      told: true
    }, "kept by the shop");
    if (act.action !== location.pathname + "/step") return;
    const answer = await fetch(location.pathname);
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    for (const id of [`step-${act.fields.step}`, "left"]) {
      const fresh = page.getElementById(id);
      if (fresh) document.getElementById(id)?.replaceWith(fresh);
    }
  };

  let sending = false;

  const sendAll = async () => {
    if (sending || !csrf()) return;
    sending = true;
    try {
      for (let act = mine()[0]; act; act = mine()[0]) {
        const told = await send(act);
        drop(act);
        if (told.kept) await refresh(act);
        else showAct(act, `not kept: ${told.why}`);
      }
    } catch {
      setTimeout(sendAll, AFAR.retry_ms);
    } finally {
      sending = false;
      tellAfar();
    }
  };

  document.addEventListener("submit", (event) => {
    const form = event.target.closest("form[data-afar]");
    if (!form || form.querySelector("input[type=file]")?.files.length)
      return; // photos go at once
    event.preventDefault();
    const fields = Object.fromEntries(new FormData(form, event.submitter));
    delete fields.csrf_token;
    delete fields.photo;
    const note = (fields.note || "").trim();
    if (fields.state === "not_needed" && !note) {
      form.querySelector("input[name=note]").focus();
      const words = "write in the note why it is not needed";
      form.closest("li").querySelector("[data-said]").textContent = words;
      return;
    }
    const op = Array.from(crypto.getRandomValues(new Uint8Array(12)), (x) =>
      x.toString(16).padStart(2, "0"),
    ).join("");
    const act = {
      action: new URL(form.action).pathname,
      fields: {
        ...fields,
        op,
        at: new Date().toISOString()
      },
    };
    keep(act);
    showAct(act, "kept on this phone");
    tellAfar();
    sendAll();
  });

  // A number read from a photo of a code, where the browser can.
  if ("BarcodeDetector" in window) {
    document.querySelectorAll(".scan").forEach((label) => {
      label.hidden = false;
    });
  }

  document.addEventListener("change", async (event) => {
    const input = event.target.closest("[data-scan]");
    if (!input || !input.files.length) return;
    const found = await new BarcodeDetector().detect(await createImageBitmap(input.files[0]));
    if (found.length) input.closest("form").querySelector("[name=number]").value = found[0]
      .rawValue;
  });

  window.addEventListener("online", sendAll);
  if (document.querySelector("[data-afar]")) {
    kept().forEach((act) => showAct(act, "kept on this phone"));
    tellAfar();
    sendAll();
  }
}
