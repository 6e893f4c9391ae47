// The deck card: one file on a phone, no network, no server. It counts, ticks, and keeps what is tapped; every
// number in it was computed when the plan was made. What it does as the deck does is the deck's own.
import { by, recall, remember } from "../shell/dom.js";
import { beep } from "../shell/sound.js";
import { buzz, stayAwake } from "../shell/awake.js";
import { guard, stamp, uuid } from "../shell/clock.js";

const plan = JSON.parse(document.getElementById("plan").textContent);
const KEY = "heathdrop-deck-" + plan.key;
const OUTCOMES = plan.outcomes;
const TWICE_MS = 700;
const SAID = Object.fromEntries(OUTCOMES);
const BITTEN = OUTCOMES.filter(([, , bitten]) => bitten).map(([id]) => id);
let state = { stop: 0, at: {}, casts: [], begun: 0, reeling: 0 };
let kept = true;

// What is tapped is on the phone before anything else happens.
function keep() {
  const text = JSON.stringify(state);
  remember(KEY, text);
  kept = recall(KEY) === text;
}

try {
  const before = JSON.parse(recall(KEY) || "null");
  if (before && Array.isArray(before.casts)) { state = Object.assign(state, before); }
} catch (_) {
  kept = false;
}

const stop = () => plan.stops[state.stop];
const step = () => {
  const order = stop().casts;
  return order[(state.at[state.stop] || 0) % order.length];
};

function element(tag, text, more) {
  const made = document.createElement(tag);
  made.textContent = text;
  return Object.assign(made, more || {});
}

function named(at, main, small) {
  by(at).replaceChildren(element("span", main), element("small", small));
}

const answers = guard(TWICE_MS);
const presses = guard(TWICE_MS / 2);

function answer(outcome) {
  // A double tap is one answer.
  if (answers.early()) { return; }
  answers.taken();
  const cast = step();
  const passed = state.begun ? (Date.now() - state.begun) / 1000 : null;
  const one = { id: uuid(), time: stamp(), stop: stop().name, ...cast.rig, line: cast.line, countdown_s: cast.countdown_s,
    pace_ft_s: cast.pace_ft_s, turns_per_s: cast.turns_per_s, rod_tip_height_ft: cast.rod_tip_height_ft, work: cast.work, outcome };
  if (state.reeling) { one.count_s = Math.round(state.reeling * 10) / 10; }
  if (passed && passed < 600) { one.at_s = Math.round(passed * 10) / 10; }
  state.casts.push(one);
  if (!BITTEN.includes(outcome)) { state.at[state.stop] = (state.at[state.stop] || 0) + 1; }
  over();
}

function over() {
  state.begun = 0;
  state.reeling = 0;
  stayAwake(false);
  keep();
  show();
}

function main() {
  if (presses.early()) { return; }
  presses.taken();
  if (state.reeling) { over(); return; }
  if (state.begun) { reel((Date.now() - state.begun) / 1000); return; }
  state.begun = Date.now();
  state.reeling = 0;
  stayAwake(true);
  beep(520, 0.1);
  buzz(60);
  keep();
  show();
}

function reel(count) {
  state.reeling = Math.max(count, 0.001);
  keep();
  show();
  beep(1040, 0.4);
  buzz(400);
}

// The running count comes from when the splash was, so that a reload or a locked phone does not lose it.
let spoken = -1;
let turned = -1;
function tick() {
  if (!state.begun) { return; }
  const cast = step();
  const at = (Date.now() - state.begun) / 1000;
  if (!state.reeling && at >= cast.countdown_s) { reel(cast.countdown_s); }
  if (Math.floor(at) !== spoken) {
    spoken = Math.floor(at);
    by("now").textContent = String(spoken);
    if (spoken > 0 && !state.reeling) { beep(520, 0.06); }
  }
  if (!state.reeling || cast.lands || cast.work === "hang") { return; }
  const whole = Math.floor((at - state.reeling) * cast.turns_per_s);
  if (whole !== turned) { turned = whole; beep(whole % 4 ? 640 : 780, 0.04); }
}

function show() {
  const here = stop();
  const cast = step();
  spoken = -1;
  turned = -1;
  named("stop", here.name, `${state.stop + 1} of ${plan.stops.length}`);
  named("rig", `Rod ${cast.rod}: ${cast.said}`, cast.on);
  ["count", "turns", "runs"].forEach((id, k) => { by(id).previousElementSibling.textContent = cast.labels[k]; });
  by("water").textContent = here.water;
  by("count").textContent = cast.count_said;
  by("turns").textContent = cast.turns_said;
  by("runs").textContent = cast.runs_said;
  by("why").textContent = cast.why;
  by("now").textContent = state.begun ? "" : cast.count_said;
  by("what").textContent = state.begun ? (state.reeling ? "In" : "Now") : "Splash";
  by("go").className = `go${state.reeling ? " reeling" : state.begun ? " counting" : ""}`;
  by("before").disabled = state.stop === 0;
  by("after").disabled = state.stop === plan.stops.length - 1;
  by("ifs").replaceChildren(...here.ifs.map((i) => element("li", i)));
  by("care").replaceChildren(...[...here.cautions, ...plan.care].map((c) => element("li", c)));
  by("rods").replaceChildren(...plan.rods.map((r) => element("li", r)));
  by("last").replaceChildren(...state.casts.slice(-3).reverse().map((c) => element("li",
    `${c.time.slice(11, 16)} ${SAID[c.outcome] || c.outcome}, count ${Math.round(10 * c.countdown_s) / 10}`)));
  const made = state.casts.length;
  by("undo").disabled = made === 0;
  const many = made ? `${made} ${made === 1 ? "cast" : "casts"} kept on this phone.` : "";
  by("kept").textContent = kept ? many : "This browser keeps nothing for a file: save the record often.";
}

by("go").addEventListener("click", main);
by("undo").addEventListener("click", () => {
  if (answers.early()) { return; }
  answers.taken();
  state.casts.pop();
  keep();
  show();
});
by("before").addEventListener("click", () => move(-1));
by("after").addEventListener("click", () => move(1));
function move(by_) {
  state.stop += by_;
  over();
}
by("decksun").addEventListener("click", () => {
  by("decksun").setAttribute("aria-pressed", String(document.documentElement.classList.toggle("sun")));
});
const others = element("button", "Other …", { type: "button" });
others.addEventListener("click", () => by("answers").classList.toggle("all"));
by("answers").append(...OUTCOMES.map(([id, said, , rare]) => {
  const button = element("button", said, { type: "button", className: rare ? "rare" : "" });
  button.dataset.outcome = id;
  button.addEventListener("click", () => { answer(id); by("answers").classList.remove("all"); });
  return button;
}), others);
by("save").addEventListener("click", () => {
  const record = JSON.stringify({ version: 1, date: plan.date, casts: state.casts }, null, 1);
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([record], { type: "application/json" }));
  link.download = "deck-record.json";
  link.click();
  by("text").value = record;
  by("text").hidden = false;
});
window.setInterval(tick, 40);
keep();
show();
