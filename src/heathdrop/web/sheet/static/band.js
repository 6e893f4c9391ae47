// The wanted band in the section: its edges are dragged, or moved by the arrow keys; then it is the angler's own.
import { by } from "../shell/dom.js";

/** An edge is set to a half foot, or a tenth of a metre. */
const step = () => (document.querySelector("#state [name=units]")?.value === "metric" ? 0.1 : 0.5);
/** What a wet thumb cannot hold apart. */
const LEAST_APART = 1;
const KEYS = { ArrowUp: -1, ArrowDown: 1, PageUp: -4, PageDown: 4 };

const depth = (edge) => Number(edge.getAttribute("aria-valuenow"));

function place(edge) {
  const { zero, per, height } = edge.parentElement.dataset;
  edge.style.top = `${100 * (Number(zero) + Number(per) * depth(edge)) / Number(height)}%`;
  edge.querySelector("b").textContent = edge.getAttribute("aria-valuetext");
}

function move(edge, to) {
  const [upper, lower] = edge.parentElement.children;
  const [low, high] = edge === upper ? [0, depth(lower) - LEAST_APART * step()]
    : [depth(upper) + LEAST_APART * step(), Number(edge.parentElement.dataset.bottom)];
  const unit = edge.getAttribute("aria-valuetext").split(" ").at(-1);
  const at = Number(Math.min(high, Math.max(low, Math.round(to / step()) * step())).toFixed(2));
  edge.setAttribute("aria-valuenow", at);
  edge.setAttribute("aria-valuetext", `${at} ${unit}`);
  place(edge);
}

function set(edges) {
  const [upper, lower] = edges.children;
  by("more-wanted").open = true;
  by("want_depth").value = `${depth(upper)} to ${depth(lower)}`;
  by("want_depth").dispatchEvent(new Event("input", { bubbles: true }));
}

let held = null;
document.addEventListener("pointerdown", (event) => {
  held = event.target.closest(".edge");
  if (held) { event.preventDefault(); held.focus(); held.setPointerCapture(event.pointerId); }
});
document.addEventListener("pointermove", (event) => {
  if (!held) { return; }
  const box = held.parentElement.getBoundingClientRect();
  const { zero, per, height } = held.parentElement.dataset;
  move(held, ((event.clientY - box.top) / box.height * Number(height) - Number(zero)) / Number(per));
});
document.addEventListener("pointerup", () => {
  if (held) { set(held.parentElement); }
  held = null;
});
document.addEventListener("pointercancel", () => { held = null; });

document.addEventListener("keydown", (event) => {
  const edge = event.target.closest(".edge");
  if (!edge || !(event.key in KEYS)) { return; }
  event.preventDefault();
  move(edge, depth(edge) + KEYS[event.key] * step());
  set(edge.parentElement);
});

const all = () => document.querySelectorAll(".edge").forEach(place);
document.addEventListener("htmx:afterSettle", all);
all();
