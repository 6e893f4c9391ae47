// The time of a cast: this phone's, put right by the laptop's where they differ; it never goes back, so that
// casts stay in the order in which they were made.
import { recall, remember } from "./dom.js";

const LAST = "heathdrop-deck-last";
const SKEW = "heathdrop-deck-skew";
const CLOSE_MS = 120000;

/** The laptop said what time it is. */
export function heard(date) {
  const theirs = Date.parse(date || "");
  if (Number.isNaN(theirs)) { return; }
  const off = theirs - Date.now();
  remember(SKEW, String(Math.abs(off) > CLOSE_MS ? off : 0));
}

/** How far this phone's clock is off the laptop's, ms; 0 while it is close. */
export const skew = () => parseInt(recall(SKEW) || "0", 10);

/** This moment as ISO 8601 with its offset, later than every one before. */
export function stamp() {
  const before = parseInt(recall(LAST) || "0", 10);
  const here = Date.now() + skew();
  // A clock that was put back hours ago is believed again; a small step back is not.
  const moment = here > before || before - here > 86400000 ? here : before + 1;
  remember(LAST, String(moment));
  const off = -new Date(moment).getTimezoneOffset();
  const two = (v) => String(Math.trunc(Math.abs(v))).padStart(2, "0");
  const local = new Date(moment + off * 60000).toISOString().slice(0, 23);
  return local + (off < 0 ? "-" : "+") + two(off / 60) + ":" + two(off % 60);
}

/** A guard against double taps, by a clock that never jumps: a phone's own may be put back in the midst of a day. */
export function guard(ms) {
  let last = -ms;
  return { early: () => performance.now() - last < ms, taken: () => { last = performance.now(); } };
}

export function uuid() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 0x0f) | 0x40;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}
