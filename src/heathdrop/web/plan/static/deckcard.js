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
  by("kept").textContent = kept ? "" : "This browser keeps nothing for a file: save the record often.";
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
  if (state.begun) { over(); return; }
  state.begun = Date.now();
  state.reeling = 0;
  stayAwake(true);
  beep(520, 0.1);
  buzz(60);
  keep();
  show();
}

// The running count comes from when the splash was, so that a reload or a locked phone does not lose it.
let spoken = -1;
let turned = -1;
function tick() {
  if (!state.begun) { return; }
  const cast = step();
  const passed = (Date.now() - state.begun) / 1000;
  const now = by("now");
  if (passed < cast.countdown_s) {
    now.textContent = String(Math.floor(passed));
    if (Math.floor(passed) !== spoken) { spoken = Math.floor(passed); if (spoken > 0) { beep(520, 0.06); } }
    return;
  }
  if (!state.reeling) {
    state.reeling = 1;
    keep();
    beep(1040, 0.4);
    buzz(400);
  }
  now.textContent = cast.lands ? "Down" : cast.work === "hang" ? "Stop" : "Reel";
  const whole = Math.floor((passed - cast.countdown_s) * cast.turns_per_s);
  if (!cast.lands && cast.work !== "hang" && whole !== turned) { turned = whole; beep(whole % 4 ? 640 : 780, 0.04); }
}

function show() {
  const here = stop();
  const cast = step();
  spoken = -1;
  turned = -1;
  by("stop").textContent = `${state.stop + 1} of ${plan.stops.length}: ${here.name}`;
  by("rod").textContent = `Rod ${cast.rod}`;
  ["count", "turns", "runs"].forEach((id, k) => { by(id).previousElementSibling.textContent = cast.labels[k]; });
  by("water").textContent = here.water;
  by("rig").textContent = cast.said;
  by("count").textContent = cast.count_said;
  by("turns").textContent = cast.turns_said;
  by("runs").textContent = cast.runs_said;
  by("why").textContent = cast.why;
  by("now").textContent = state.begun ? "" : cast.count_said;
  by("go").textContent = state.begun ? "In" : "Splash";
  by("go").classList.toggle("on", !!state.begun);
  by("ifs").replaceChildren(...here.ifs.map((i) => element("li", i)));
  by("care").replaceChildren(...here.cautions.map((c) => element("li", c)));
  by("rods").replaceChildren(...plan.rods.map((r) => element("li", r)));
  by("last").replaceChildren(...state.casts.slice(-5).reverse().map((c) => element("li",
    `${c.time.slice(11, 16)} ${c.stop}: ${SAID[c.outcome] || c.outcome}, count ${Math.round(10 * c.countdown_s) / 10}`)));
  by("undo").hidden = state.casts.length === 0;
  const made = state.casts.length;
  by("made").textContent = `${made} ${made === 1 ? "cast" : "casts"} kept on this phone`;
}

by("go").addEventListener("click", main);
by("undo").addEventListener("click", () => {
  if (answers.early()) { return; }
  answers.taken();
  state.casts.pop();
  keep();
  show();
});
by("back").addEventListener("click", () => move(-1));
by("on").addEventListener("click", () => move(1));
function move(by_) {
  state.stop = (state.stop + by_ + plan.stops.length) % plan.stops.length;
  over();
}
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
