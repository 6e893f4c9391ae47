// A figure of the sounder is taken over into the sheet by a touch; it stays as it is until it is touched again.
import { by, form } from "./dom.js";

document.addEventListener("click", (event) => {
  const chip = event.target.closest("[data-fill]");
  if (!chip || !form()) { return; }
  const field = by(chip.dataset.fill);
  const unit = { bottom_depth_ft: " ft", water_temp_f: " °F", wind_mph: " mph" }[chip.dataset.fill];
  field.value = form().elements.units.value === "metric" ? chip.dataset.value + unit : chip.dataset.value;
  field.dispatchEvent(new Event("input", { bubbles: true }));
  field.closest(".field").classList.add("sounded");
});
