// What a reload without a line needs is kept where the browser allows it: at a secure address, this machine's own or
// one with TLS.
const STORE = "heathdrop-deck";
const EVERY_MS = 60000;
let kept = 0;

export const comesBack = () => Boolean(navigator.serviceWorker && window.caches);

/** Keep the page as it now comes, and its files; at most once a minute. Nothing but our own page is kept. */
export async function keepPage() {
  if (!comesBack() || Date.now() - kept < EVERY_MS) { return; }
  kept = Date.now();
  try {
    await navigator.serviceWorker.register("/deck-worker.js", { scope: "/deck" });
    const page = await fetch("/deck");
    const text = await page.clone().text();
    if (!page.ok || !text.includes('id="deck"')) { return; }
    const store = await caches.open(STORE);
    await store.put("/deck", page);
    const files = performance.getEntriesByType("resource").map((e) => e.name).filter((n) => n.includes("/static/"));
    await store.addAll([...new Set(files)]);
  } catch (_) {
    kept = 0;
  }
}

/** No trip is under way any more: nothing is brought back. */
export const forgetPage = () => { if (comesBack()) { caches.delete(STORE); } };
