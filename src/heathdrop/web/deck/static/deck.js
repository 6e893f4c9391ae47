// The deck: splash, count, reel, in, one tap for what it came to, the next cast. Every figure was computed by
// the laptop; this counts, keeps and shows.
import { by, recall, remember } from "../shell/dom.js";
import { beep } from "../shell/sound.js";
import { buzz, stayAwake } from "../shell/awake.js";
import { guard, skew, stamp, uuid } from "../shell/clock.js";
import { again, flush, onChange, put, refused, stand, waiting } from "./outbox.js";
import { comesBack, keepPage, lacking, note } from "./reload.js";
import { fishPanel, onPanels, rigPanel, stopPanel, waterPanel, morePanel } from "./panels.js";
import { watch } from "./sounder.js";

const data = JSON.parse(by("deck").textContent);
const KEY = "heathdrop-deck-state";
const BITTEN = data.bitten;
const TWICE_MS = 700;
const OTHERS_MS = 20000;
const SHOWN = 3;
const said = Object.fromEntries(data.answers);
let state = { trip: data.trip, stop: 0, at: 0, begun: 0, reeling: 0, rig: "" };
let casts = [];
const answers = guard(TWICE_MS);
const presses = guard(TWICE_MS / 2);
let spoken = -1;
let turned = -1;
let asked = 0;

const stop = () => data.stops[state.stop];
const following = () => stop().next;
// The order; a rod that was picked keeps it to its own casts, before the laptop has said more as well.
function ordered() {
  const { casts: all, each_rod: each } = following();
  const mine = (some) => some.filter((c) => c.name === state.rig);
  return [mine(all), mine(each), all].find((some) => some.length);
}
// Who asked for one rod alone keeps what was known of the others.
function follow(at, found) {
  const { each_rod: before } = data.stops[at].next;
  data.stops[at].next = found.each_rod.length ? found : { ...found, each_rod: before };
}
const cast = () => ordered()[Math.min(state.at, ordered().length - 1)];
const passed = () => (Date.now() - state.begun) / 1000;

function keepState() {
  remember(KEY, JSON.stringify(state));
}

// The casts of the day: what the laptop had when the page came, and what was done since, here or before it.
const made = new Map(data.made.map((c) => [c.id, c]));
function take(op) {
  if (op.do === "withdraw") { made.delete(op.id); }
  if (op.cast && op.cast.trip === data.trip) { made.set(op.id, op.cast); }
}
lacking(data.page_at).forEach(take);
function gather() {
  const waits = waiting().map((e) => e[1]);
  waits.forEach((op) => { take(op); note(op); });
  const ids = waits.map((o) => o.id);
  casts = [...made.values()].map((c) => ({ ...c, waits: ids.includes(c.id) }))
    .sort((a, b) => Date.parse(a.time) - Date.parse(b.time));
}

/** A count as a voice counts it: to a tenth. */
const counted = (c) => Math.round(10 * c.countdown_s) / 10;

function element(tag, text) {
  const made = document.createElement(tag);
  made.textContent = text;
  return made;
}

function named(button, main, small) {
  button.replaceChildren(element("span", main), element("small", small));
}

function show() {
  const here = cast();
  named(by("stop"), stop().name, `${state.stop + 1} of ${data.stops.length}`);
  named(by("rig"), (here.rod ? `Rod ${here.rod}: ` : "") + here.said.rig, here.said.line);
  by("count").textContent = here.said.count;
  by("turns").textContent = here.lands ? "–" : here.said.turns;
  by("runs").textContent = here.lands ? "bottom" : here.said.runs;
  const mend = state.at === 0 && following().mend;
  const learned = state.at === 0 ? [...following().learned, following().move_on || "", following().left || ""] : [];
  by("why").textContent = [mend ? `${mend.symptom}. Smallest change: ${mend.change}. Or search on.` : "",
    ...learned, here.said.why].filter(Boolean).join(" ");
  const change = ["rod", "trailer", "retie"].includes(here.change) && following().thrown;
  by("stay").hidden = !change || !!state.begun || state.at > 0;
  const go = by("go");
  go.classList.toggle("counting", !!state.begun && !state.reeling);
  go.classList.toggle("reeling", !!state.reeling);
  by("now").textContent = state.begun ? "" : here.said.count;
  by("what").textContent = state.begun ? (state.reeling ? "In" : "Now") : "Splash";
  by("before").disabled = state.stop === 0;
  by("after").disabled = state.stop === data.stops.length - 1;
  record();
  spoken = -1;
  turned = -1;
}

// What is on record, and whether it is on the laptop: said anew in the midst of a count too.
function record() {
  by("undo").disabled = casts.length === 0;
  by("last").replaceChildren(...casts.slice(-SHOWN).reverse().map((c) => element("li",
    `${c.time.slice(11, 16)} ${said[c.outcome] || c.outcome}, count ${counted(c)}${c.waits ? " · waits" : ""}`)));
  beside();
}

// On a wide screen there is room for what comes after, for the day so far and for the cautions.
function beside() {
  const after = [];
  ordered().slice(state.at + 1).forEach(({ said: { why } }) => {
    if (after.length && after.at(-1).why === why) { after.at(-1).times += 1; } else { after.push({ why, times: 1 }); }
  });
  const order = after.map((a) => element("li", a.times > 1 ? `${a.why.replace(/\.$/, "")}: ${a.times} times.` : a.why));
  const day = casts.slice(-12).reverse().map((c) => element("li",
    `${c.time.slice(11, 16)} ${c.stop}: ${said[c.outcome] || c.outcome}, count ${counted(c)}`));
  const part = (title, list, rows) => {
    const whole = document.createElement(list);
    whole.replaceChildren(...rows);
    return rows.length ? [element("h2", title), whole] : [];
  };
  by("beside").replaceChildren(...part("After this, while nothing bites", "ol", order),
    ...part("The day so far", "ul", day),
    ...part("Take care", "ul", following().cautions.map((c) => element("li", c))));
}

// The count comes from when the splash was: a reload or a locked phone does not lose it.
function tick() {
  if (!state.begun) { return; }
  if (passed() < 0) { state.begun = Date.now(); }
  const now = by("now");
  const at = passed();
  const here = cast();
  if (!state.reeling && at < here.countdown_s) {
    const whole = Math.floor(at);
    if (whole !== spoken) {
      spoken = whole;
      now.textContent = String(whole);
      if (whole > 0) { beep(520, 0.06); }
    }
    return;
  }
  if (!state.reeling) { reel(here.countdown_s); }
  if (here.lands || here.work === "hang") { now.textContent = `${Math.floor(at)}`; return; }
  const turns = Math.floor((at - state.reeling) * here.turns_per_s);
  if (turns !== turned) { turned = turns; beep(turns % 4 ? 640 : 780, 0.04); }
  if (Math.floor(at) !== spoken) { spoken = Math.floor(at); now.textContent = String(spoken); }
}

function reel(count) {
  state.reeling = Math.max(count, 0.001);
  keepState();
  show();
  beep(1040, 0.4);
  buzz(400);
}

function main() {
  if (presses.early()) { return; }
  presses.taken();
  if (!state.begun) {
    state.begun = Date.now();
    state.reeling = 0;
    stayAwake(true);
    beep(520, 0.1);
    buzz(60);
  } else if (!state.reeling) {
    reel(passed());
    return;
  } else {
    state.begun = 0;
    state.reeling = 0;
    stayAwake(false);
  }
  keepState();
  show();
}

function answer(outcome) {
  // A double tap is one answer.
  if (answers.early()) { return; }
  answers.taken();
  const here = cast();
  const second = state.begun ? passed() : null;
  const one = { id: uuid(), time: stamp(), trip: data.trip, stop: stop().name, ...here.rig, line: here.line,
    countdown_s: here.countdown_s, pace_ft_s: here.pace_ft_s, turns_per_s: here.turns_per_s,
    rod_tip_height_ft: here.rod_tip_height_ft, work: here.work, outcome,
    conditions: sounder.minute(), ...sounder.place() };
  if (second && second < 600) { one.at_s = Math.round(second * 10) / 10; }
  if (state.reeling) { one.count_s = Math.round(state.reeling * 10) / 10; }
  Object.assign(state, { begun: 0, reeling: 0 });
  if (!BITTEN.includes(outcome)) { state.at += 1; }
  keepState();
  stayAwake(false);
  buzz(60);
  put({ do: "keep", id: one.id, cast: one }).then(after);
  gather();
  show();
  // From when it was done: on a slow phone the second tap of two waits until then.
  answers.taken();
  if (outcome === "fish") { fishPanel(one, data, mend); }
}

function mend(one) {
  put({ do: "mend", id: one.id, cast: one }).then(after);
  gather();
  show();
}

function undo() {
  const last = casts[casts.length - 1];
  if (!last || answers.early()) { return; }
  answers.taken();
  if (last.stop === stop().name) { state.at = Math.max(0, state.at - 1); }
  put({ do: "withdraw", id: last.id }).then(after);
  gather();
  show();
}

// What was sent counts: the next cast anew, unless one is under way.
async function after(all) {
  if (!all) { return; }
  const name = stop().name;
  asked += 1;
  const mine = asked;
  const more = (state.rig ? `&rig=${encodeURIComponent(state.rig)}` : "") + `&limit=6&units=${data.units}`;
  try {
    const reply = await fetch(`/api/v1/next?stop=${encodeURIComponent(name)}${more}`);
    if (!reply.ok || mine !== asked) { return; }
    const found = await reply.json();
    gather();
    if (state.begun || stop().name !== name) { return; }
    follow(state.stop, found);
    state.at = 0;
    keepState();
    show();
  } catch (_) {
    // The order that is here goes on.
  }
}

function move(to) {
  Object.assign(state, { stop: Math.min(data.stops.length - 1, Math.max(0, to)), at: 0, begun: 0, reeling: 0, rig: "" });
  keepState();
  show();
  flush().then(after);
}

function hold(rig) {
  Object.assign(state, { rig, at: 0 });
  keepState();
  show();
  return flush().then(after);
}

function change(name, value, from) {
  const form = { token: by("main").dataset.token, stop: stop().name, name, value, units: data.units, by: from || "",
    rig: state.rig };
  return put({ do: "water", id: uuid(), form });
}

onChange((outbox) => {
  gather();
  record();
  const all = casts.length && !outbox.refused ? `${casts.length} ${casts.length === 1 ? "cast" : "casts"}, all on the laptop.` : "";
  const notes = [outbox.sentence, outbox.waiting ? `${outbox.waiting} kept on this phone, not sent yet.` : all];
  if (outbox.waiting && !comesBack()) { notes.push("Do not reload: without the laptop this page does not come back."); }
  if (!outbox.waiting) { keepPage(); }
  if (!outbox.kept) { notes.push("This browser keeps nothing: leave the page open."); }
  if (outbox.refused) { notes.push(`${outbox.refused} not kept: see More.`); }
  if (skew()) { notes.push("This phone's clock is off: casts get the laptop's time."); }
  by("kept").textContent = notes.filter(Boolean).join(" ");
  if (outbox.answer) {
    const at = data.stops.findIndex((s) => s.name === outbox.answer.name);
    if (at >= 0) {
      follow(at, outbox.answer.next);
      data.stops[at] = { ...outbox.answer, next: data.stops[at].next };
    }
    if (at === state.stop && !state.begun) { state.at = 0; keepState(); show(); }
    onPanels({ stop: stop() });
  }
});

const sounder = watch(data, () => stop(), change);
try {
  const before = JSON.parse(recall(KEY) || "null");
  if (before && before.trip === data.trip && data.stops[before.stop]) { state = Object.assign(state, before, { at: 0 }); }
} catch (_) {
  // A state that cannot be read is begun anew.
}
by("go").addEventListener("click", main);
by("undo").addEventListener("click", undo);
by("before").addEventListener("click", () => move(state.stop - 1));
by("after").addEventListener("click", () => move(state.stop + 1));
by("stay").addEventListener("click", () => hold(following().thrown));
function others(open) {
  by("answers").classList.toggle("all", open);
  by("others").setAttribute("aria-expanded", String(open));
}
by("others").addEventListener("click", () => others(!by("answers").classList.contains("all")));
by("answers").addEventListener("click", (event) => {
  const tapped = event.target.closest("[data-outcome]");
  if (tapped) { answer(tapped.dataset.outcome); others(false); }
});
by("stop").addEventListener("click", () => stopPanel(data, state.stop, move));
by("rig").addEventListener("click", () => rigPanel(data, stop(), cast().name, hold));
by("water").addEventListener("click", () => waterPanel(stop(), change));
const sunny = () => by("decksun").setAttribute("aria-pressed", by("sun").getAttribute("aria-pressed"));
by("decksun").addEventListener("click", () => { by("sun").click(); sunny(); });
sunny();
by("more").addEventListener("click", () => morePanel(following(), refused(), () => again(by("main").dataset.token)));

gather();
show();
window.setInterval(tick, 40);
// What another window of the trip threw is taken in while this one rests.
window.setInterval(() => {
  if (!document.hidden && !state.begun && state.at === 0 && waiting().length === 0) { after(true); }
}, OTHERS_MS);
flush().then((all) => {
  if (all) { stand(); }
  return after(all);
});
