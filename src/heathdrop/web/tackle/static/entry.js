// Box and drop tests: Enter adds, refusals stand beside what was typed.
import { by } from "../shell/dom.js";

document.addEventListener("keydown", (event) => {
  if (event.target.id === "entry" && event.key === "Enter" && !event.shiftKey) {
    event.preventDefault();
    event.target.form.requestSubmit();
  }
});

// A refusal (4xx) never replaces what is on the screen: it is said beside the field.
document.addEventListener("htmx:beforeSwap", (event) => {
  const kind = event.detail.xhr.getResponseHeader("content-type") || "";
  if (!kind.startsWith("text/html")) {
    // Only pages of ours are put into the page; anything else is shown as the text it is.
    event.detail.shouldSwap = false;
    return;
  }
  const status = event.detail.xhr.status;
  const from = event.detail.requestConfig.elt;
  if (status < 400) {
    if (from.id === "entry-form") { by("entry").value = ""; by("understood").textContent = ""; by("entry-problem").textContent = ""; }
    document.querySelectorAll(".rowproblem").forEach((spot) => { spot.textContent = ""; });
    return;
  }
  // What was said of the change before does not stand beside a refusal.
  document.querySelectorAll(".said").forEach((said) => { said.textContent = ""; });
  const row = from.closest("tr");
  const spot = row ? row.querySelector(".rowproblem") : from.querySelector("[id$=-problem]");
  if (spot) {
    event.detail.shouldSwap = false;
    spot.innerHTML = event.detail.xhr.responseText;
  }
});
