import { by } from "../shell/dom.js";

// The call: a lure is offered in the heads that it is made in, with the trailers that are put on it.
const lure = document.querySelector("[name=family]");
function asMade() {
  for (const choice of document.querySelectorAll("[name=head_oz], [name=trailer]")) {
    for (const one of choice.options) {
      one.hidden = one.disabled = Boolean(lure.value && one.dataset.made && !one.dataset.made.split(" ").includes(lure.value));
    }
    if (choice.selectedOptions[0].disabled) { choice.value = ""; }
  }
}
if (lure) { lure.addEventListener("change", asMade); asMade(); }

// The hand: two taps, by the time at which the browser had them. What the page is late by is measured and so taken
// off; what the screen is late by is the same at both and cancels out.
const tap = by("tap");
let begun = 0;
let late = 0;
function tapped(event) {
  const now = event.timeStamp || performance.now();
  late = Math.max(begun ? late : 0, performance.now() - now);
  if (!begun) {
    begun = now;
    tap.textContent = tap.dataset.then;
    tap.classList.add("running");
    return;
  }
  by("tapped").value = ((now - begun) / 1000).toFixed(3);
  by("late").value = String(Math.round(late));
  begun = 0;
  tap.disabled = true;
  by("answer").submit();
}
if (tap) {
  tap.addEventListener("pointerdown", (event) => { event.preventDefault(); tapped(event); });
  document.addEventListener("keydown", (event) => {
    const other = event.target.closest("a, input, select, summary") || (event.target.closest("button") || tap) !== tap;
    if ((event.key === " " || event.key === "Enter") && !other) {
      event.preventDefault();
      if (!event.repeat) { tapped(event); }
    }
    if (event.key === "Escape" && begun) {
      begun = 0;
      tap.textContent = tap.dataset.first;
      tap.classList.remove("running");
    }
  });
  tap.focus();
}

// The eye: a touch or a drag sets the depth, the depth sets the mark.
const depth = by("depth");
const drawings = [...document.querySelectorAll("figure.asked svg")];
function marked() {
  const deep = Number.parseFloat(depth.value.replace(",", "."));
  for (const drawing of drawings) {
    const guess = drawing.querySelector(".guess");
    guess.toggleAttribute("hidden", !Number.isFinite(deep));
    const y = Number(drawing.dataset.zero) + (deep || 0) * Number(drawing.dataset.per);
    guess.setAttribute("transform", `translate(${guess.dataset.at},${y})`);
  }
}
function touched(event) {
  const drawing = event.currentTarget;
  const box = drawing.getBoundingClientRect();
  const y = (event.clientY - box.top) * drawing.viewBox.baseVal.height / box.height;
  const deep = (y - Number(drawing.dataset.zero)) / Number(drawing.dataset.per);
  depth.value = Math.min(Number(drawing.dataset.bottom), Math.max(0, deep)).toFixed(1);
  marked();
}
if (depth) {
  for (const drawing of drawings) {
    drawing.addEventListener("pointerdown", (event) => {
      drawing.setPointerCapture(event.pointerId);
      touched(event);
    });
    drawing.addEventListener("pointermove", (event) => { if (event.buttons) { touched(event); } });
  }
  depth.addEventListener("input", marked);
  marked();
}
