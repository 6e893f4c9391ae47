// On a phone long lists are folded: a piece of the box opens at a touch, what is roomy is closed until it is asked
// for, and a long list shows its first lines. What was opened stays open when the page's answer comes anew.
import { by, recall, remember } from "./dom.js";

// Paper is not narrow: what stands open is printed open.
const narrow = window.matchMedia("screen and (max-width: 760px)");
const opened = new Set();
const KEPT = "open:";

document.documentElement.classList.add("scripted");

/** Whether the water's controls are what the angler came for: not all answered yet. */
function waterWanted() {
  const view = document.querySelector("[name=view]:checked")?.value;
  const given = new Set(by("given")?.value.split(" "));
  const left = by("ask")?.dataset.answers.split(" ").some((name) => !given.has(name));
  return left && ["size", "water"].includes(view);
}

function fold() {
  document.querySelectorAll("details.more").forEach((part) => { part.open ||= Boolean(part.querySelector(".error:not(:empty)")); });
  document.querySelectorAll("details[data-roomy]").forEach((part) => {
    const refused = part.querySelector(".error:not(:empty)");
    const wanted = opened.has(part.id) || refused || (part.id === "fold-water" && waterWanted());
    if (!narrow.matches) { part.open ||= opened.has(part.id) || part.matches(".whole, .plain"); } else { part.open = Boolean(wanted); }
  });
  document.querySelectorAll(".items tr").forEach((row) => {
    const open = opened.has(row.id);
    row.classList.toggle("unfolded", open);
    row.querySelector(".unfold")?.setAttribute("aria-expanded", String(open));
  });
  document.querySelectorAll("[data-whole]").forEach((button) => {
    const open = opened.has(button.dataset.whole);
    by(button.dataset.whole).classList.toggle("unfolded", open);
    button.dataset.said ??= button.textContent;
    button.textContent = open ? "Fewer" : button.dataset.said;
    button.setAttribute("aria-expanded", String(open));
  });
}

// Parts of a form stay as they were left, from visit to visit; a phone has its own way.
const parts = [...document.querySelectorAll("details.more[id]")].map((part) => [part, part.open]);
function asLeft() {
  parts.forEach(([part, open]) => { if (!narrow.matches) { part.open = (recall(KEPT + part.id) ?? (open ? "yes" : "no")) === "yes"; } });
}
parts.forEach(([part]) => part.querySelector("summary").addEventListener("click", () => {
  if (!narrow.matches) { remember(KEPT + part.id, part.open ? "no" : "yes"); }
}));
asLeft();
narrow.addEventListener("change", asLeft);

function turn(id) {
  if (opened.has(id)) { opened.delete(id); } else { opened.add(id); }
  fold();
}

document.addEventListener("click", (event) => {
  const summary = event.target.closest("details[data-roomy] > summary");
  if (summary) {
    if (summary.parentElement.open) { opened.delete(summary.parentElement.id); } else { opened.add(summary.parentElement.id); }
  }
  const row = event.target.closest(".unfold")?.closest("tr");
  if (row) { turn(row.id); }
  const list = event.target.closest("[data-whole]");
  if (list) { turn(list.dataset.whole); }
});
// One explanation at a time; Escape or a touch elsewhere closes it.
document.addEventListener("click", (event) => {
  document.querySelectorAll(".about[open], .key[open]").forEach((about) => {
    if (!about.contains(event.target)) { about.open = false; }
  });
});
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") { document.querySelectorAll(".about[open], .key[open]").forEach((about) => { about.open = false; }); }
});
// Before the new answer is painted, so that nothing flashes by unfolded.
document.addEventListener("htmx:afterSwap", fold);
document.addEventListener("htmx:afterSettle", fold);
narrow.addEventListener("change", fold);
fold();
