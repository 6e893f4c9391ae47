// A slow answer shows that it is worked on; while the server does not answer, what is shown turns grey, and it is
// asked again by itself until it answers.
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

function lost() {
  busy(false);
  by("answer")?.classList.add("stale");
  window.clearTimeout(again);
  again = window.setTimeout(() => { if (form()) { htmx.trigger(form(), "refresh"); } }, AGAIN_MS);
}

function found() {
  window.clearTimeout(again);
  busy(false);
  by("answer")?.classList.remove("stale");
}

document.addEventListener("htmx:beforeRequest", (event) => {
  if (event.detail.elt === form()) { busy(true); }
});
document.addEventListener("htmx:sendError", lost);
document.addEventListener("htmx:timeout", lost);
document.addEventListener("htmx:afterRequest", (event) => {
  const status = event.detail.xhr?.status;
  if (status >= 500) { lost(); } else if (status > 0) { found(); }
});
