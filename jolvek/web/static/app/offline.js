// Keeps pages for reading without connection, and says so when one is read that way.
"use strict";
{
  const OWNER = "jolvek:reader";
  const told = () => {
    const box = document.getElementById("offline");
    const at = document.body.dataset.kept;
    if (!box) return;
    box.hidden = !at && navigator.onLine;
    const then = {
      at: new Date(at).toLocaleString()
    };
    const told = at ? [
      tr("No connection: this is the page as it was at %(at)s.", then),
      tr("What you send waits on this device until there is one.")
    ] : [tr("No connection: what is shown stays readable.")];
    box.textContent = told.join(" ");
  };

  async function begin() {
    if (!("serviceWorker" in navigator) || !window.isSecureContext) return;
    const reader = document.body.dataset.reader || "";
    await navigator.serviceWorker.register("/worker.js");
    if (document.body.dataset.kept) return;
    if (reader !== (localStorage.getItem(OWNER) || "")) {
      await caches.delete("jolvek-pages");
      localStorage.setItem(OWNER, reader);
    }
  }

  window.addEventListener("online", told);
  window.addEventListener("offline", told);
  window.addEventListener("load", () => {
    told();
    begin().catch(() => {}); // a browser that refuses keeps nothing, and all else works
  });
}
