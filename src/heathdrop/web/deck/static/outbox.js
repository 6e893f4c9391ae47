// Whatever is tapped on the deck is kept on this phone first, each in a place of its own, and sent in order when
// the laptop answers. Each has its id, so that what is sent twice is kept once.
import { recall, remember } from "../shell/dom.js";
import { heard } from "../shell/clock.js";

const KEY = "heathdrop-out-";
const COUNT = "heathdrop-out-n";
const REFUSED = "heathdrop-refused-";
const FIRST_MS = 1000;
const LAST_MS = 15000;
const ANSWER_MS = 8000;
const MOST = 50;
let busy = null;
let wait = FIRST_MS;
let timer = null;
let inHand = [];
let last = 0;
const ears = [];

/** Called after every change with how the outbox stands: waiting, refused, kept (by this browser), sentence. */
export function onChange(ear) {
  ears.push(ear);
}

function read(key) {
  try {
    return JSON.parse(localStorage.getItem(key));
  } catch (_) {
    // What cannot be read is left where it is.
    return null;
  }
}

function stored(prefix) {
  const found = [];
  try {
    for (let k = 0; k < localStorage.length; k += 1) {
      const key = localStorage.key(k);
      const kept = key.startsWith(prefix) && key !== COUNT ? read(key) : null;
      if (kept) { found.push([key, kept]); }
    }
  } catch (_) {
    // A browser that keeps nothing has nothing here.
  }
  return found.sort((a, b) => (a[0] < b[0] ? -1 : 1));
}

/** Everything that is not sent yet, in order: [key, operation]. */
export const waiting = () => stored(KEY).concat(inHand).sort((a, b) => (a[0] < b[0] ? -1 : 1));

/** What the laptop would not take, with its sentence: kept here until it is looked at. */
export const refused = () => stored(REFUSED);

/** Keep an operation, then try to send. {do: keep | mend | withdraw | water, ...}. */
export function put(operation) {
  // A full storage does not count on: what is in hand has its place behind what was put there before.
  last = Math.max(last, parseInt(recall(COUNT) || "0", 10)) + 1;
  const n = last;
  const key = KEY + String(n).padStart(9, "0") + "-" + operation.id;
  remember(COUNT, String(n));
  remember(key, JSON.stringify(operation));
  if (recall(key) === null) { inHand.push([key, operation]); }
  tell("");
  return flush();
}

function drop(entries) {
  const keys = entries.map((e) => e[0]);
  inHand = inHand.filter((e) => !keys.includes(e[0]));
  try { keys.forEach((key) => localStorage.removeItem(key)); } catch (_) { /* it was in hand only */ }
}

function tell(sentence, answer) {
  const state = { waiting: waiting().length, refused: refused().length, kept: inHand.length === 0, sentence,
    answer };
  ears.forEach((ear) => ear(state));
}

/** Say how the outbox stands though nothing changed: a page that was loaded again has said nothing yet. */
export const stand = () => tell("");

async function ask(method, address, body, kind) {
  const headers = kind ? { "Content-Type": kind } : {};
  const answer = await fetch(address, { method, headers, body, credentials: "same-origin",
    signal: AbortSignal.timeout(ANSWER_MS) });
  heard(answer.headers.get("Date"));
  return answer;
}

function sent(operation, batch) {
  if (operation.do === "keep") {
    return ask("POST", "/api/v1/casts", JSON.stringify(batch.map((b) => b[1].cast)), "application/json");
  }
  if (operation.do === "mend") {
    return ask("PUT", "/api/v1/casts/" + operation.id, JSON.stringify(operation.cast), "application/json");
  }
  if (operation.do === "withdraw") { return ask("DELETE", "/api/v1/casts/" + operation.id); }
  return ask("POST", "/deck/water", new URLSearchParams(operation.form));
}

/** Whether an answer names what was sent: the casts that it kept, the one that it took back, the stop. */
function names(said, batch) {
  const first = batch[0][1];
  if (first.do === "withdraw") { return said.id === first.id; }
  if (first.do === "water") { return said.name === first.form.stop; }
  return batch.every((b) => (said.kept || []).includes(b[1].id));
}

/** Send what waits, in order; true when nothing waits any more. One at a time. */
export function flush() {
  busy = busy || run().finally(() => { busy = null; });
  return busy;
}

async function run() {
  window.clearTimeout(timer);
  let single = false;
  for (let rest = waiting(); rest.length; rest = waiting()) {
    const first = rest[0][1];
    let batch = [rest[0]];
    if (first.do === "keep" && !single) {
      const end = rest.findIndex((e) => e[1].do !== "keep");
      batch = rest.slice(0, Math.min(end < 0 ? rest.length : end, MOST));
    }
    try {
      const answer = await sent(first, batch);
      if (answer.status === 403) { return later("This phone is not paired with the laptop any more."); }
      if (answer.status >= 500 || answer.status === 429) { return later("The laptop cannot keep it now."); }
      const said = await answer.json().catch(() => null) || {};
      // Another machine at this address may answer anything: what it does not name stays here.
      if (answer.ok ? !names(said, batch) : !said.detail) {
        return later("What answers there is not this laptop.");
      }
      if (answer.ok) {
        drop(batch);
        wait = FIRST_MS;
        tell("", said);
      } else if (batch.length > 1) {
        single = true;
      } else {
        remember(REFUSED + batch[0][0].slice(KEY.length), JSON.stringify({ ...first, detail: said.detail }));
        drop(batch);
        tell(said.detail);
      }
    } catch (_) {
      return later("No connection to the laptop.");
    }
  }
  return true;
}

function later(sentence) {
  tell(sentence);
  timer = window.setTimeout(flush, wait);
  wait = Math.min(2 * wait, LAST_MS);
  return false;
}

window.addEventListener("online", () => { wait = FIRST_MS; flush(); });
document.addEventListener("visibilitychange", () => { if (!document.hidden) { flush(); } });
