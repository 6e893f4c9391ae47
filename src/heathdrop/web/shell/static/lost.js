// A server that does not answer, or cannot do what it was asked, is said on every page.
import { by } from "./dom.js";

const WROTE = "Heathdrop does not answer: this was not kept. Try it again when it is back.";
const ASKED = "Heathdrop does not answer. What is shown is from before.";
const AGAIN = "Heathdrop does not answer. What is shown is the answer to the water before; it is asked again by itself.";

/** The server's own sentence in a refusal; empty when it sent none. */
function sentence(xhr) {
  const page = new DOMParser().parseFromString(xhr?.responseText || "", "text/html");
  return page.querySelector(".error")?.textContent.trim() || "";
}

function lost(from, xhr) {
  const spot = by("lost");
  if (!spot) { return; }
  const wrote = from?.matches("form[method=post], [hx-post]");
  spot.textContent = sentence(xhr) || (wrote ? WROTE : by("answer") ? AGAIN : ASKED);
}

document.addEventListener("htmx:sendError", (event) => lost(event.detail.elt));
document.addEventListener("htmx:timeout", (event) => lost(event.detail.elt));
document.addEventListener("htmx:afterRequest", (event) => {
  const status = event.detail.xhr?.status;
  if (status >= 500) { lost(event.detail.elt, event.detail.xhr); }
  else if (status > 0 && by("lost")) { by("lost").textContent = ""; }
});
