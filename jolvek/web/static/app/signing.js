// A session that ends while somebody types: they sign in on the page as it stands, and go on.
"use strict";

// The page as this session gets it now; null where nobody is signed in.
async function freshPage() {
  const answer = await fetch(location.href);
  if (!answer.ok || new URL(answer.url).pathname === "/sign-in") return null;
  return new DOMParser().parseFromString(await answer.text(), "text/html");
}

const tokenOf = (page) => page.querySelector("[name=csrf_token]")?.value || "";

function takeToken(page) {
  const token = tokenOf(page);
  for (const field of document.querySelectorAll("[name=csrf_token]")) field.value = token;
  for (const box of document.querySelectorAll("[hx-vals*=csrf_token]")) {
    box.setAttribute("hx-vals", JSON.stringify({
      csrf_token: token
    }));
  }
}

function goOn(page) {
  takeToken(page);
  document.dispatchEvent(new CustomEvent("jolvek:signed-in"));
}

async function signInHere() {
  if (document.getElementById("sign-in-here")) return;
  const still = await freshPage();
  if (still) { // signed in elsewhere meanwhile, or only the form was of another session
    goOn(still);
    return;
  }
  const answer = await fetch("/sign-in");
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  const form = page.querySelector("form[action='/sign-in']");
  if (!form || document.getElementById("sign-in-here")) return;
  const box = Object.assign(document.createElement("section"), {
    id: "sign-in-here",
    className: "part"
  });
  const words = Object.assign(document.createElement("p"), {
    className: "answer"
  });
  words.textContent = tr("Your session has ended. Sign in to go on; nothing you typed is lost.");
  const wrong = Object.assign(document.createElement("p"), {
    className: "wrong",
    role: "alert",
    hidden: true
  });
  box.append(words, document.importNode(form, true), wrong);
  document.querySelector(".sticky-told").append(box);
  box.querySelector("[name=name]").focus();
  box.addEventListener("submit", async (event) => {
    event.preventDefault();
    event.stopPropagation();
    const entered = await fetch("/sign-in", {
      method: "POST",
      body: new FormData(event.target)
    });
    const fresh = entered.ok ? await freshPage() : null;
    if (!fresh) {
      const told = new DOMParser().parseFromString(await entered.text(), "text/html");
      wrong.textContent = told.querySelector(".wrong, main p")?.textContent || tr(
        "That did not work. Try again.");
      wrong.hidden = false;
      return;
    }
    box.remove();
    goOn(fresh);
  });
}
