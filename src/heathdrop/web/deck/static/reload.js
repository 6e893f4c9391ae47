import { recall, remember } from "../shell/dom.js";

// What a reload without a line needs is kept where the browser allows it: at a secure address, this machine's own or
// one with TLS.
const STORE = "heathdrop-deck";
const EVERY_MS = 60000;
const COPY = "heathdrop-deck-copy";
let kept = 0;
// What was done since the copy of the page was made: a page that is brought back has it not.
let copy = { at: "", since: [] };
try {
  copy = JSON.parse(recall(COPY)) || copy;
} catch (_) {
  // A note that cannot be read is begun anew.
}

/** Note what was done since the copy. */
export function note(op) {
  if (copy.since.some((one) => one.do === op.do && one.id === op.id)) { return; }
  copy.since.push(op);
  remember(COPY, JSON.stringify(copy));
}

/** What a page made at a moment lacks: all that was noted where it is the copy, nothing where it came anew. */
export const lacking = (at) => (at && at === copy.at ? copy.since : []);

export const comesBack = () => Boolean(navigator.serviceWorker && window.caches);

/** Keep the page as it now comes, and its files; at most once a minute. Nothing but our own page is kept. */
export async function keepPage() {
  if (!comesBack() || Date.now() - kept < EVERY_MS) { return; }
  kept = Date.now();
  const before = copy.since.length;
  try {
    await navigator.serviceWorker.register("/deck-worker.js", { scope: "/deck" });
    const page = await fetch("/deck");
    const text = await page.clone().text();
    if (!page.ok || !text.includes('id="deck"')) { return; }
    const store = await caches.open(STORE);
    await store.put("/deck", page);
    copy = { at: /"page_at":"([^"]+)"/.exec(text)[1], since: copy.since.slice(before) };
    remember(COPY, JSON.stringify(copy));
    const files = performance.getEntriesByType("resource").map((e) => e.name).filter((n) => n.includes("/static/"));
    await store.addAll([...new Set(files)]);
  } catch (_) {
    kept = 0;
  }
}

/** No trip is under way any more: nothing is brought back. */
export const forgetPage = () => { if (comesBack()) { caches.delete(STORE); } };
