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
const ASIDE = [403, 404, 413, 422];
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
  const headers = { Accept: "application/json", ...(kind ? { "Content-Type": kind } : {}) };
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

/** What is sent next: the first that waits, with the casts behind it up to another kind; none that was passed
    over, nor anything of the same cast behind one. */
function next(passed, single) {
  const rest = waiting().filter((e) => !passed.has(e[1].id));
  if (!rest.length || rest[0][1].do !== "keep" || single) { return rest.slice(0, 1); }
  const end = rest.findIndex((e) => e[1].do !== "keep");
  return rest.slice(0, Math.min(end < 0 ? rest.length : end, MOST));
}

/** Whether an answer is the laptop's own refusal: its sentence and the field that it names. */
const refuses = (status, said) => ASIDE.includes(status) && typeof said.detail === "string" && "field" in said;

async function run() {
  window.clearTimeout(timer);
  let single = false;
  let odd = "";
  const passed = new Set();
  for (let batch = next(passed, single); batch.length; batch = next(passed, single)) {
    const first = batch[0][1];
    try {
      const answer = await sent(first, batch);
      const said = await answer.json().catch(() => null) || {};
      if (answer.status === 429) { return later("The laptop cannot keep it now."); }
      if (answer.status === 403 && !refuses(403, said)) {
        return later("This phone is not paired with the laptop any more.");
      }
      if (answer.ok && names(said, batch)) {
        drop(batch);
        wait = FIRST_MS;
        tell("", said);
      } else if (batch.length > 1) {
        single = true;
      } else if (refuses(answer.status, said)) {
        const { detail } = said;
        remember(REFUSED + batch[0][0].slice(KEY.length), JSON.stringify({ ...first, detail }));
        drop(batch);
        tell(detail);
      } else {
        // Another machine at this address may answer anything: what it does not name stays here. One that
        // cannot be kept does not hold up the rest; where nothing is, the rest waits too.
        if (odd) { return later(odd); }
        odd = answer.status >= 500 ? "The laptop cannot keep it now." : "What answers there is not this laptop.";
        passed.add(first.id);
      }
    } catch (_) {
      return later("No connection to the laptop.");
    }
  }
  return odd ? later(odd) : true;
}

/** What stands aside goes into the line again, with the token of the page as it is now. */
export function again(token) {
  refused().forEach(([key, { detail, ...operation }]) => {
    try { localStorage.removeItem(key); } catch (_) { return; }
    put(operation.form ? { ...operation, form: { ...operation.form, token } } : operation);
  });
  return flush();
}

function later(sentence) {
  tell(sentence);
  timer = window.setTimeout(flush, wait);
  wait = Math.min(2 * wait, LAST_MS);
  return false;
}

window.addEventListener("online", () => { wait = FIRST_MS; flush(); });
document.addEventListener("visibilitychange", () => { if (!document.hidden) { flush(); } });
