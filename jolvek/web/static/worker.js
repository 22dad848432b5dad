// Pages that were open stay readable without connection: they are kept on this phone for two days,
// the newest thirty, until somebody signs out or in as another. Files have their hash in the name.
"use strict";

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
  return new Response(`<!DOCTYPE html><html lang="en"><meta charset="utf-8">` +
    `<meta name="viewport" content="width=device-width"><title>No connection</title>` +
    `<body><main><h1>No connection</h1><p>${words}</p></main></body></html>`, {
      status: 503,
      headers: {
        "Content-Type": "text/html; charset=utf-8"
      }
    });
}
