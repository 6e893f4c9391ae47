// A slow answer shows that it is worked on; a server that does not answer is said, what is shown turns grey,
// and it is asked again by itself until it answers.
import { by, form } from "../shell/dom.js";

const SLOW_MS = 350;
const AGAIN_MS = 3000;
let slow = null;
let again = null;

function busy(on) {
  window.clearTimeout(slow);
  const answer = by("answer");
  if (!answer) { return; }
  if (on) {
    slow = window.setTimeout(() => {
      answer.classList.add("working");
      answer.setAttribute("aria-busy", "true");
    }, SLOW_MS);
    return;
  }
  answer.classList.remove("working");
  answer.removeAttribute("aria-busy");
}

function lost(from) {
  busy(false);
  by("answer")?.classList.add("stale");
  const spot = by("lost");
  if (!spot) { return; }
  const wrote = from && from.matches("form[method=post], [hx-post]");
  spot.textContent = wrote
    ? "Heathdrop does not answer: this was not kept. Try it again when the answer is back."
    : "Heathdrop does not answer. What is shown is the answer to the water before; it is asked again by itself.";
  window.clearTimeout(again);
  again = window.setTimeout(() => { if (form()) { htmx.trigger(form(), "refresh"); } }, AGAIN_MS);
}

function found() {
  window.clearTimeout(again);
  busy(false);
  by("answer")?.classList.remove("stale");
  if (by("lost")) { by("lost").textContent = ""; }
}

document.addEventListener("htmx:beforeRequest", (event) => {
  if (event.detail.elt === form()) { busy(true); }
});
document.addEventListener("htmx:sendError", (event) => lost(event.detail.elt));
document.addEventListener("htmx:timeout", (event) => lost(event.detail.elt));
document.addEventListener("htmx:afterRequest", (event) => {
  const status = event.detail.xhr?.status;
  if (status >= 500) { lost(event.detail.elt); } else if (status > 0) { found(); }
});
