// Box and drop tests: Enter adds, refusals stand beside what was typed.
import { by } from "../shell/dom.js";

document.addEventListener("keydown", (event) => {
  if (event.target.id === "entry" && event.key === "Enter" && !event.shiftKey) {
    event.preventDefault();
    event.target.form.requestSubmit();
  }
});

// A line that was not understood is written as it was likely meant, at a touch.
document.addEventListener("click", (event) => {
  const { line, write } = event.target.dataset;
  if (write === undefined || !by("entry")) { return; }
  by("entry").value = by("entry").value.split("\n").map((one) => (one.trim() === line ? write : one)).join("\n");
  by("entry").dispatchEvent(new Event("input", { bubbles: true }));
  by("entry").focus();
});

// More lines than are taken at once go in parts; what is not whole, and what was not sent, stays in the field.
document.addEventListener("htmx:beforeRequest", (event) => {
  const from = event.detail.elt;
  const lines = from.id === "entry-form" ? by("entry").value.split("\n").filter((line) => line.trim()) : [];
  if (lines.length > Number(from.dataset.most)) {
    event.preventDefault();
    inParts(from, lines, Number(from.dataset.most));
  }
});

async function inParts(from, lines, most) {
  const whole = lines.length;
  const back = [];
  by("entry-problem").textContent = "";
  while (lines.length) {
    by("parts").textContent = `Adding: ${whole - lines.length} of ${whole} lines`;
    const part = new URLSearchParams({ token: from.elements.token.value, entry: lines.slice(0, most).join("\n") });
    const answer = await fetch("/box", { method: "POST", body: part, headers: { "HX-Request": "true" } }).catch(() => null);
    if (!answer?.ok) {
      by("entry-problem").innerHTML = answer && answer.status < 500 ? await answer.text() : "";
      break;
    }
    const list = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector("[data-left]");
    back.push(...(list ? list.dataset.left.split("\n") : []));
    lines = lines.slice(most);
    by("entry").value = [...back, ...lines].join("\n");
  }
  const left = lines.length + back.length;
  by("parts").textContent = left ? `${whole - left} of ${whole} lines added; the rest is not kept.` : `${whole} lines added.`;
  by("understood").textContent = "";
  htmx.ajax("GET", "/box", { target: "#boxlist", swap: "outerHTML" });
}

// Weighing down a column: Enter goes to the same field of the next piece.
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches(".edit")) { return; }
  event.preventDefault();
  const { name } = event.target;
  let row = event.target.closest("tr").nextElementSibling;
  while (row && !row.querySelector(`[name=${name}]`)) { row = row.nextElementSibling; }
  const next = row?.querySelector(`[name=${name}]`);
  if (next) { next.focus(); next.select(); } else { event.target.blur(); }
});

// Where a change took the focused piece away, the focus goes to its Undo, or to what was said.
document.addEventListener("htmx:afterSettle", (event) => {
  const left = event.target.matches("#boxlist") && event.target.querySelector("[data-left]");
  if (left && !by("entry").value) { by("entry").value = left.dataset.left; by("entry").focus(); return; }
  if (document.activeElement !== document.body || !event.target.matches("#boxlist, #droplist")) { return; }
  const to = event.target.querySelector(".said button") || event.target.querySelector(".said");
  if (to && !to.matches("button")) { to.tabIndex = -1; }
  to?.focus();
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
    // It asks what was asked while it was typed: once is enough.
    if (from.id === "entry-form") { by("understood").textContent = ""; }
  }
});
document.addEventListener("input", (event) => {
  if (event.target.id === "entry") { by("entry-problem").textContent = ""; }
});
