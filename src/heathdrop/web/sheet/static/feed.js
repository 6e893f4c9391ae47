// A figure of the sounder is taken over into the sheet by a touch and marked; it stays as it is until it is
// touched or typed again.
import { by, form } from "../shell/dom.js";

const UNIT = { bottom_depth_ft: " ft", water_temp_f: " °F", wind_mph: " mph" };
let filling = false;

function mark(field, on) {
  const spot = field.closest(".field");
  spot.classList.toggle("sounded", on);
  spot.querySelector(".from")?.remove();
  if (on) {
    const said = document.createElement("small");
    said.className = "from";
    said.textContent = "from the sounder";
    spot.querySelector(".labelled").append(said);
  }
}

document.addEventListener("click", (event) => {
  const chip = event.target.closest("[data-fill]");
  const field = chip && form() && by(chip.dataset.fill);
  if (!field) { return; }
  const metric = form().elements.units.value === "metric" && UNIT[chip.dataset.fill];
  field.value = metric ? chip.dataset.value + UNIT[chip.dataset.fill] : chip.dataset.value;
  filling = true;
  field.dispatchEvent(new Event(field.tagName === "SELECT" ? "change" : "input", { bubbles: true }));
  filling = false;
  mark(field, true);
});
["input", "change"].forEach((kind) => document.addEventListener(kind, (event) => {
  if (!filling && event.target.closest?.(".sounded")) { mark(event.target, false); }
}));
