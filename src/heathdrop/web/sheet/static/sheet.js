// The sheet: controls that depend on the cover, what is assumed, controls outside the form, links that
// keep what is typed. All else is the server's.
import { care } from "./cautions.js";
import { by, form } from "../shell/dom.js";
import "./band.js";
import "./board.js";
import "./feed.js";
import "./slim.js";
import "./stepper.js";
import "./waiting.js";

const TYPING_MS = 120;

function fitCover() {
  const cover = by("cover").value;
  document.querySelectorAll("[data-for-cover], [data-needs]").forEach((field) => {
    const kinds = field.dataset.forCover;
    field.hidden = kinds ? !kinds.split(" ").includes(cover) : !by(field.dataset.needs).value;
    // Only one of two controls with the same meaning may speak.
    field.querySelectorAll("input, select").forEach((input) => {
      input.disabled = field.hidden;
    });
  });
}

function sayGear() {
  const said = (name) => `${by(name).value} ${by("field-" + name).querySelector(".unit").textContent}`;
  by("gear-said").textContent = `${said("test_lb")} ${by("line").value}, ${said("inches_per_turn")}`;
}

/** The water in a line, where its controls are folded away. */
function sayWater() {
  const spot = by("water-said");
  if (!spot) { return; }
  const unit = (name) => by("field-" + name).querySelector(".unit").textContent.trim();
  const cover = by("cover").selectedOptions[0].textContent.trim();
  spot.textContent = `${by("water_temp_f").value} ${unit("water_temp_f")}, fish ${by("fish_depth_ft").value} of ` +
    `${by("bottom_depth_ft").value} ${unit("bottom_depth_ft")}, ${cover}`;
}

// What was answered: everything touched, or said to be as it stands. The rest stays marked as assumed.
const given = () => new Set(by("given").value.split(" ").filter(Boolean));

function answered(name) {
  const field = by("field-" + name);
  if (!field || !by("given")) { return; }
  by("given").value = [...given().add(name)].join(" ");
  field.classList.remove("assumed");
  document.querySelector(".does")?.remove();
  ask();
  sayAssumed();
}

let unfolded = [];
/** How many answers are assumed, in a line; which they are is shown at a touch. */
function sayAssumed() {
  const said = by("assumes");
  if (!said) { return; }
  const left = [...form().querySelectorAll(".field.assumed")].filter((f) => !f.hidden && !f.closest("#more-wanted")).length;
  const showing = form().classList.contains("marking");
  said.hidden = left === 0;
  said.textContent = `${left} assumed: ${showing ? "hide" : "show"}`;
  said.setAttribute("aria-expanded", String(showing));
}

/** Which of the four answers is wanted next, in words, and its field marked. */
function ask() {
  const spot = by("ask");
  if (!spot) { return; }
  const have = given();
  const left = spot.dataset.answers.split(" ").filter((name) => !have.has(name));
  document.querySelectorAll(".field.next").forEach((field) => field.classList.remove("next"));
  spot.textContent = "";
  if (left.length) {
    by("field-" + left[0]).classList.add("next");
    const label = by("field-" + left[0]).querySelector("label").firstChild.textContent.trim().toLowerCase();
    const done = 4 - left.length;
    spot.textContent = done ? `${done} of 4 answered; next: ${label}`
      : `Four answers make it yours. First: ${label}`;
  }
}

// Fish and grass tops follow a bottom that comes up to them, and go back down with it.
const wanted = {};
function follow() {
  const bottom = parseFloat(by("bottom_depth_ft").value);
  for (const name of ["fish_depth_ft", "top_depth_ft", "tops_ft"]) {
    const field = by(name);
    const plain = /^[\d.]+$/;
    if (!field || !(bottom > 0) || !plain.test(field.value)) { continue; }
    wanted[name] = wanted[name] ?? parseFloat(field.value);
    if (!given().has(name) || parseFloat(field.value) > bottom || wanted[name] > parseFloat(field.value)) {
      field.value = String(Math.min(wanted[name], bottom));
    }
  }
}

document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") {
    document.querySelectorAll("details.shelf[open], details.cautions[open]").forEach((shelf) => {
      shelf.open = false;
      shelf.querySelector("summary").focus();
    });
  }
  if (event.key === "Enter" && event.target.matches("#state .num")) {
    answered(event.target.name);
    const next = document.querySelector(".field.next .num, .field.next select");
    if (next) { event.preventDefault(); next.focus(); htmx.trigger(form(), "refresh"); }
  }
});

// Another material has another usual test; it moves before the change is sent.
document.addEventListener("change", (event) => {
  const usual = event.target.selectedOptions?.[0]?.dataset.usual;
  const test = { line: "test_lb", leader: "leader_lb" }[event.target.id];
  if (usual && test) { by(test).value = usual; }
  if (event.target.form === form() && form()?.contains(event.target)) { answered(event.target.name); }
}, true);

// Steps that follow one another closely are one entry of the history.
const ONE_ENTRY_MS = 1500;
let asked = 0;
document.addEventListener("htmx:configRequest", (event) => {
  if (event.detail.elt !== form()) { return; }
  if (performance.now() - asked < ONE_ENTRY_MS) { event.detail.headers["X-Step"] = "again"; }
  asked = performance.now();
});

// A step is asked for at once while nothing else is; one during an answer, and typing, wait for their end.
let typing;
function moved(step) {
  clearTimeout(typing);
  const refresh = () => htmx.trigger(form(), "refresh");
  if (step && !form().classList.contains("htmx-request")) { refresh(); } else { typing = setTimeout(refresh, TYPING_MS); }
}

document.addEventListener("input", (event) => {
  if (!form() || event.target.form !== form()) { return; }
  if (form().contains(event.target)) { answered(event.target.name); }
  if (event.target.id === "bottom_depth_ft") { by("driven").value = ""; by("asdriven")?.remove(); follow(); } else { delete wanted[event.target.name]; }
  if (event.target.matches(".num")) { moved(event.detail === "step"); }
}, true);

document.addEventListener("click", (event) => {
  if (event.target.closest("#assumes")) {
    const showing = form().classList.toggle("marking");
    if (showing) { unfolded = ["more-water", "more-gear"].filter((id) => !by(id).open); }
    unfolded.forEach((id) => { by(id).open = showing; });
    sayAssumed();
  }
  const confirm = event.target.closest("[data-confirm]");
  if (confirm) {
    answered(confirm.dataset.confirm);
    by(confirm.dataset.confirm).focus();
    htmx.trigger(form(), "refresh");
  }
  document.querySelectorAll("details.shelf[open], details.cautions[open]").forEach((shelf) => {
    if (!shelf.contains(event.target)) { shelf.open = false; }
  });
});

// Controls outside the form come and go with each answer: they speak for the form wherever they stand.
document.addEventListener("change", (event) => {
  if (!form() || event.target.form !== form()) { return; }
  if (form().contains(event.target)) {
    fitCover();
    sayGear();
    sayAssumed();
  } else if (event.target.matches(".pick, select")) {
    htmx.trigger(form(), "refresh");
  }
});

// A water that was just saved is the one that is open: its name stands over the page and goes with its links.
document.addEventListener("scenario-saved", (event) => {
  form().elements.scenario.value = event.detail.id;
  htmx.trigger(form(), "refresh");
});

let leaving = false;
// A link of the answer was made for the state that was answered: what is typed by now goes with it, save for
// what the link itself changes.
document.addEventListener("htmx:configRequest", (event) => {
  const link = event.detail.elt;
  if (link.tagName !== "A" || !link.closest("#sheet") || !form()) { return; }
  const there = new URL(event.detail.path, location.href);
  const then = new URL(by("answer").dataset.at, location.href).searchParams;
  for (const field of form().elements) {
    const before = field.tagName === "SELECT"
      ? [...field.options].find((o) => o.defaultSelected)?.value ?? field.options[0]?.value
      : field.defaultValue;
    const own = there.searchParams.get(field.name) === then.get(field.name);
    if (field.name && !field.disabled && form().contains(field) && field.value !== before && own) {
      // An address speaks in feet: a number typed in metres goes with its unit.
      const metric = form().elements.units.value === "metric" && /^[\d.,\s]+$/.test(field.value);
      const unit = metric && by("field-" + field.name)?.querySelector(".unit")?.textContent.split(" ")[0];
      there.searchParams.set(field.name, unit ? `${field.value} ${unit}` : field.value);
    }
  }
  event.detail.path = there.pathname + there.search;
  // What was typed goes with the link, so the form's own question is not asked any more.
  htmx.trigger(form(), "htmx:abort");
  leaving = true;
});
document.addEventListener("htmx:beforeRequest", (event) => {
  if (leaving && event.detail.elt === form()) { event.preventDefault(); }
});
for (const over of ["htmx:afterSettle", "htmx:sendError", "htmx:responseError"]) {
  document.addEventListener(over, () => { leaving = false; });
}

// After a swap that took the focus away it goes to the same place in the new answer, or to its heading.
let held = "";
document.addEventListener("htmx:beforeSwap", () => {
  const at = document.activeElement;
  held = at && at !== document.body ? at.id || at.textContent : "";
});
document.addEventListener("htmx:afterSettle", () => {
  care();
  fitCover();
  sayWater();
  ask();
  sayAssumed();
  if (document.activeElement === document.body && held) {
    const like = by(held) || [...document.querySelectorAll("#sheet a")].find((a) => a.textContent === held);
    const to = like || document.querySelector(".strip .what");
    if (to && !like) { to.tabIndex = -1; }
    to?.focus({ preventScroll: true });
  }
});
fitCover();
sayWater();
care();
ask();
sayAssumed();
