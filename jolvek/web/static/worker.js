// Pages that were open stay readable without connection: they are kept on this phone for two days,
// the newest thirty, until somebody signs out or in as another. Files have their hash in the name.
"use strict";
importScripts("/static/app/store.js");

const PAGES = "jolvek-pages";
const FILES = "jolvek-files";
const MOST_PAGES = 30;
const MOST_FILES = 80;
const DAYS_MS = 2 * 86400 * 1000;
const NEVER = ["/sign-in", "/welcome", "/account", "/people", "/settings", "/trail", "/keys",
  "/backups", "/exchange"
];

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("fetch", (event) => {
  const way = new URL(event.request.url);
  const sent = event.request.method === "POST" && event.request.mode === "navigate";
  if (sent && way.origin === self.location.origin && !NEVER.some((x) => way.pathname.startsWith(
      x))) {
    event.respondWith(posted(event.request, way));
    return;
  }
  if (event.request.method !== "GET" || way.origin !== self.location.origin) return;
  if (way.pathname.startsWith("/static/") && way.searchParams.has("v")) {
    event.respondWith(file(event.request));
  } else if (event.request.mode === "navigate" && !NEVER.some((x) => way.pathname.startsWith(
      x))) {
    event.respondWith(opened(event.request));
  }
});

async function trimmed(name, most) {
  const cache = await caches.open(name);
  const keys = await cache.keys();
  for (const key of keys.slice(0, Math.max(keys.length - most, 0))) await cache.delete(key);
}

async function file(request) {
  const cache = await caches.open(FILES);
  const kept = await cache.match(request);
  if (kept) return kept;
  const found = await fetch(request);
  if (found.ok) {
    await cache.put(request, found.clone());
    await trimmed(FILES, MOST_FILES);
  }
  return found;
}

async function opened(request) {
  try {
    const found = await fetch(request);
    const html = (found.headers.get("Content-Type") || "").startsWith("text/html");
    if (found.ok && html && !found.redirected) await keep(request, found.clone());
    return found;
  } catch (error) {
    return kept(request);
  }
}

// A form that did not get through waits on this device; the page it came from lists it.
async function posted(request, way) {
  const copy = request.clone();
  try {
    return await fetch(request);
  } catch (error) {
    const fields = [...await copy.formData()].filter(([name]) => name !== "csrf_token");
    const from = request.referrer ? new URL(request.referrer) : way;
    await waiting.put({
      op: waiting.newOp(),
      at: new Date().toISOString(),
      action: way.pathname,
      page: from.pathname + from.search,
      reader: (await waiting.reader()) || "",
      title: from.pathname,
      label: way.pathname.split("/").pop(),
      fields
    });
    return said("Kept on this device",
      "No connection: what you sent is kept on this device, and is sent when the connection is " +
      "back.",
      `<p><a href="${from.pathname}${from.search}">Back to the page</a></p>`, 202);
  }
}

function said(title, words, more, status) {
  return new Response(`<!DOCTYPE html><html lang="en"><meta charset="utf-8">` +
    `<meta name="viewport" content="width=device-width"><title>${title}</title>` +
    `<body><main><h1>${title}</h1><p>${words}</p>${more}</main></body></html>`, {
      status,
      headers: {
        "Content-Type": "text/html; charset=utf-8"
      }
    });
}

async function keep(request, found) {
  const cache = await caches.open(PAGES);
  const at = new Date().toISOString();
  const body = (await found.text()).replace("<body ", `<body data-kept="${at}" `);
  const headers = new Headers(found.headers);
  headers.delete("Content-Encoding");
  headers.delete("Content-Length");
  headers.set("X-Kept-At", at);
  await cache.delete(request.url);
  await cache.put(request.url, new Response(body, {
    headers
  }));
  await trimmed(PAGES, MOST_PAGES);
}

async function kept(request) {
  const cache = await caches.open(PAGES);
  const found = await cache.match(request.url);
  const age = found ? Date.now() - Date.parse(found.headers.get("X-Kept-At")) : Infinity;
  if (found && age < DAYS_MS) return found;
  const words = "No connection, and this page was not open on this device in the last two days.";
  return said("No connection", words, "", 503);
}
