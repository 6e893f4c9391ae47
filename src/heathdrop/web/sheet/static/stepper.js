// Numbers stepped by button or arrow key.
import { by } from "../shell/dom.js";

function step(input, size) {
  // An empty field begins where another stands: tops at the fish.
  const from = input.value.trim() === "" && input.dataset.from ? by(input.dataset.from).value : input.value;
  const now = parseFloat(from.replace(",", ".")) || 0;
  const digits = Math.max(0, ...[size, now].map((v) => (String(v).split(".")[1] || "").length));
  // A unit that was typed stays: 15 C goes to 16 C.
  const unit = (input.value.match(/\s*[^\d\s.,+-][^\d]*$/) || [""])[0];
  const low = unit ? -Infinity : parseFloat(input.dataset.low ?? "-Infinity");
  // What stands in the water goes no deeper than its bottom.
  const high = input.dataset.most && !unit ? parseFloat(by(input.dataset.most).value) || Infinity : Infinity;
  input.value = String(Number(Math.min(high, Math.max(low, now + size)).toFixed(digits))) + unit;
  input.dispatchEvent(new CustomEvent("input", { bubbles: true, detail: "step" }));
}

document.addEventListener("click", (event) => {
  const button = event.target.closest(".step");
  if (button) {
    step(by(button.dataset.to), parseFloat(button.dataset.step));
  }
});

document.addEventListener("keydown", (event) => {
  const input = event.target.closest(".num");
  if (input && input.dataset.step && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
    event.preventDefault();
    const size = parseFloat(input.dataset.step) * (event.shiftKey ? 5 : 1);
    step(input, event.key === "ArrowUp" ? size : -size);
  }
});
