// The sheet: controls that depend on the cover, what is assumed, controls outside the form.
// All else is the server's.
import { care } from "./cautions.js";
import { by, form } from "./dom.js";
import "./stepper.js";

const TYPING_MS = 250;

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

function markAssumed(input) {
  const field = input.closest(".field");
  if (field && input.dataset.default !== undefined) {
    const same = input.value === input.dataset.default;
    field.classList.toggle("assumed", same && !!field.querySelector(".assume"));
  }
}

document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") {
    document.querySelectorAll("details.shelf, details.cautions").forEach((shelf) => {
      shelf.open = false;
    });
  }
});

// Another material has another usual test; it moves before the change is sent.
document.addEventListener("change", (event) => {
  const usual = event.target.selectedOptions?.[0]?.dataset.usual;
  const test = { line: "test_lb", leader: "leader_lb" }[event.target.id];
  if (usual && test) {
    by(test).value = usual;
    markAssumed(by(test));
  }
}, true);

let typing;
document.addEventListener("input", (event) => {
  markAssumed(event.target);
  const outside = form() && event.target.form === form() && !form().contains(event.target);
  if (outside && event.target.matches(".num")) {
    clearTimeout(typing);
    typing = setTimeout(() => htmx.trigger(form(), "refresh"), TYPING_MS);
  }
});

// Controls outside the form come and go with each answer: they speak for the form wherever they stand.
document.addEventListener("change", (event) => {
  if (!form() || event.target.form !== form()) {
    return;
  }
  markAssumed(event.target);
  if (form().contains(event.target)) {
    fitCover();
    sayGear();
  } else if (event.target.matches(".pick, select")) {
    htmx.trigger(form(), "refresh");
  }
});

document.addEventListener("htmx:afterSettle", care);
document.addEventListener("htmx:afterSettle", fitCover);
fitCover();
care();
