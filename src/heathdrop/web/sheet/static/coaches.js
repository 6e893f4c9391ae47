// The count coach and the pace coach: ticks for the eye and the ear.
import { buzz, stayAwake } from "../shell/awake.js";
import { by } from "../shell/dom.js";
import { beep } from "../shell/sound.js";

const still = window.matchMedia("(prefers-reduced-motion: reduce)");
let counting = null;
let pacing = null;

export function count() {
  const coach = by("count-coach");
  const whole = parseFloat(coach.dataset.count);
  const said = by("count-now");
  window.clearInterval(counting);
  const begun = performance.now();
  let spoken = 0;
  said.textContent = "0";
  stayAwake(true);
  beep(520, 0.08);
  counting = window.setInterval(() => {
    const passed = (performance.now() - begun) / 1000;
    if (!by("count-now")) { window.clearInterval(counting); return; }
    if (passed >= whole) {
      window.clearInterval(counting);
      said.textContent = coach.dataset.then;
      if (!by("fold-pace").open) { by("fold-pace").querySelector("summary").click(); }
      coach.classList.add("now");
      beep(1040, 0.35);
      buzz(400);
      stayAwake(false);
      window.setTimeout(() => coach.classList.remove("now"), 1500);
    } else if (Math.floor(passed) > spoken) {
      spoken = Math.floor(passed);
      said.textContent = String(spoken);
      beep(520, 0.08);
      buzz(30);
    }
  }, 25);
}

export function pace(button) {
  const on = button.getAttribute("aria-pressed") !== "true";
  button.setAttribute("aria-pressed", String(on));
  button.textContent = on ? "Stop ticking" : "Tick the turns";
  window.clearInterval(pacing);
  stayAwake(on);
  if (!on) { by("turns-now").textContent = ""; return; }
  const turns = parseFloat(by("pace-coach").dataset.turns);
  const begun = performance.now();
  let told = -1;
  pacing = window.setInterval(() => {
    const arm = by("crank-arm");
    if (!arm) { window.clearInterval(pacing); return; }
    const turned = (performance.now() - begun) / 1000 * turns;
    const whole = Math.floor(turned);
    if (!still.matches) {
      arm.setAttribute("transform", `rotate(${((turned - whole) * 360).toFixed(0)})`);
    }
    if (whole > told) {
      told = whole;
      by("turns-now").textContent = whole + " turns";
      beep(whole % 4 === 0 ? 760 : 620, 0.06);
    }
  }, 30);
}
