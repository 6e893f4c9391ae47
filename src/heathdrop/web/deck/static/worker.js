// A reload of the deck without a line: the network first, always; where it gives nothing, the page as it last came.
const PATIENCE_MS = 4000;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
self.addEventListener("fetch", (event) => {
  const { pathname, origin } = new URL(event.request.url);
  const page = event.request.mode === "navigate" && pathname === "/deck";
  if (event.request.method === "GET" && origin === self.location.origin && (page || pathname.startsWith("/static/"))) {
    event.respondWith(answered(event.request));
  }
});

async function answered(request) {
  const kept = await caches.match(request);
  if (!kept) { return fetch(request); }
  try {
    return await Promise.race([fetch(request), new Promise((_, no) => { setTimeout(no, PATIENCE_MS); })]);
  } catch (_) {
    return kept;
  }
}
