import { by } from "../shell/dom.js";

// The call: a lure is offered in the heads that it is made in.
const lure = document.querySelector("[name=family]");
function asMade() {
  const heads = document.querySelector("[name=head_oz]");
  for (const head of heads.options) {
    head.hidden = head.disabled = Boolean(lure.value && head.dataset.made && !head.dataset.made.split(" ").includes(lure.value));
  }
  if (heads.selectedOptions[0].disabled) { heads.value = ""; }
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
const drawings = [...document.querySelectorAll("svg.eye")];
function marked() {
  const feet = Number.parseFloat(depth.value) / Number(depth.dataset.perFoot);
  for (const drawing of drawings) {
    const guess = drawing.querySelector(".guess");
    const along = drawing.querySelector(".half").getAttribute("d").slice(1).split(",")[0];
    guess.toggleAttribute("hidden", !Number.isFinite(feet));
    const y = Number(drawing.dataset.surface) + (feet || 0) * Number(drawing.dataset.foot);
    guess.setAttribute("transform", `translate(${along},${y})`);
  }
}
function touched(event) {
  const drawing = event.currentTarget;
  const box = drawing.getBoundingClientRect();
  const high = drawing.viewBox.baseVal.height;
  const y = (event.clientY - box.top) * high / box.height;
  const feet = (y - Number(drawing.dataset.surface)) / Number(drawing.dataset.foot);
  const inside = Math.min(Number(depth.dataset.deepest), Math.max(0, feet));
  depth.value = (inside * Number(depth.dataset.perFoot)).toFixed(1);
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
