// The deck card: one file on a phone, no network, no server. It counts, ticks, and keeps what is tapped; every
// number in it was computed when the plan was made.
(() => {
  const plan = JSON.parse(document.getElementById("plan").textContent);
  const by = (id) => document.getElementById(id);
  const KEY = "heathdrop-deck-" + plan.key;
  const OUTCOMES = plan.outcomes;
  const BITTEN = OUTCOMES.filter(([, , bitten]) => bitten).map(([id]) => id);
  let state = { stop: 0, at: {}, casts: [], begun: 0, reeling: 0 };
  let kept = true;
  let voice = null;
  let ticking = null;

  // What is tapped is on the phone before anything else happens.
  function keep() {
    try {
      localStorage.setItem(KEY, JSON.stringify(state));
      kept = localStorage.getItem(KEY) !== null;
    } catch (_) {
      kept = false;
    }
    by("kept").textContent = kept ? "" : "This browser keeps nothing for a file: save the record often.";
  }

  try {
    const before = JSON.parse(localStorage.getItem(KEY) || "null");
    if (before && Array.isArray(before.casts)) { state = Object.assign(state, before); }
  } catch (_) {
    kept = false;
  }

  function beep(pitch, length) {
    // A page that was only reloaded may neither buzz nor sound until it is touched.
    if (navigator.userActivation && !navigator.userActivation.hasBeenActive) { return; }
    if (navigator.vibrate) { navigator.vibrate(length * 1000); }
    const Voice = window.AudioContext || window.webkitAudioContext;
    if (!Voice) { return; }
    voice = voice || new Voice();
    const tone = voice.createOscillator();
    const loud = voice.createGain();
    tone.frequency.value = pitch;
    loud.gain.setValueAtTime(0.3, voice.currentTime);
    loud.gain.exponentialRampToValueAtTime(0.001, voice.currentTime + length);
    tone.connect(loud).connect(voice.destination);
    tone.start();
    tone.stop(voice.currentTime + length);
  }

  const stop = () => plan.stops[state.stop];
  const step = () => {
    const order = stop().casts;
    return order[(state.at[state.stop] || 0) % order.length];
  };

  function uuid() {
    const bytes = crypto.getRandomValues(new Uint8Array(16));
    bytes[6] = (bytes[6] & 0x0f) | 0x40;
    bytes[8] = (bytes[8] & 0x3f) | 0x80;
    const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
    return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
  }

  function localTime() {
    const now = new Date();
    const off = -now.getTimezoneOffset();
    const two = (v) => String(Math.trunc(Math.abs(v))).padStart(2, "0");
    const local = new Date(now.getTime() + off * 60000).toISOString().slice(0, 19);
    return local + (off < 0 ? "-" : "+") + two(off / 60) + ":" + two(off % 60);
  }

  function element(tag, text, more) {
    const made = document.createElement(tag);
    made.textContent = text;
    return Object.assign(made, more || {});
  }

  function answer(outcome) {
    const cast = step();
    const passed = state.begun ? (Date.now() - state.begun) / 1000 : null;
    state.casts.push({ id: uuid(), time: localTime(), stop: stop().name, ...cast.rig, line: stop().line,
      countdown_s: cast.countdown_s, pace_ft_s: cast.pace_ft_s, outcome, at_s: passed && passed < 600
        ? Math.round(passed * 10) / 10 : null });
    if (!BITTEN.includes(outcome)) { state.at[state.stop] = (state.at[state.stop] || 0) + 1; }
    state.begun = 0;
    state.reeling = 0;
    keep();
    show();
  }

  function main() {
    if (!state.begun) {
      state.begun = Date.now();
      state.reeling = 0;
      beep(520, 0.1);
    } else {
      state.begun = 0;
      state.reeling = 0;
    }
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
    }
    now.textContent = stop().lands ? "Down" : "Reel";
    const whole = Math.floor((passed - cast.countdown_s) * cast.turns_per_s);
    if (!stop().lands && whole !== turned) { turned = whole; beep(whole % 4 ? 640 : 780, 0.04); }
  }

  function show() {
    const here = stop();
    const cast = step();
    spoken = -1;
    turned = -1;
    by("stop").textContent = `${state.stop + 1} of ${plan.stops.length}: ${here.name}`;
    by("rod").textContent = `Rod ${cast.rod}`;
    ["count", "turns", "runs"].forEach((id, k) => { by(id).previousElementSibling.textContent = here.labels[k]; });
    by("water").textContent = here.water;
    by("rig").textContent = cast.said;
    by("count").textContent = cast.count_said;
    by("turns").textContent = cast.turns_said;
    by("runs").textContent = here.runs_said;
    by("why").textContent = cast.why;
    by("now").textContent = state.begun ? "" : cast.count_said;
    by("go").textContent = state.begun ? "In" : "Splash";
    by("go").classList.toggle("on", !!state.begun);
    by("ifs").replaceChildren(...here.ifs.map((i) => element("li", i)));
    by("care").replaceChildren(...here.cautions.map((c) => element("li", c)));
    by("rods").replaceChildren(...plan.rods.map((r) => element("li", r)));
    by("last").replaceChildren(...state.casts.slice(-5).reverse().map((c) => element("li",
      `${c.time.slice(11, 16)} ${c.stop}: ${c.outcome.replace("-", " ")}, count ${Math.round(10 * c.countdown_s) / 10}`)));
    by("undo").hidden = state.casts.length === 0;
    const made = state.casts.length;
    by("made").textContent = `${made} ${made === 1 ? "cast" : "casts"} kept on this phone`;
  }

  by("go").addEventListener("click", main);
  by("undo").addEventListener("click", () => { state.casts.pop(); keep(); show(); });
  by("back").addEventListener("click", () => move(-1));
  by("on").addEventListener("click", () => move(1));
  function move(by_) {
    state.stop = (state.stop + by_ + plan.stops.length) % plan.stops.length;
    state.begun = 0;
    keep();
    show();
  }
  by("answers").append(...OUTCOMES.map(([id, said]) => {
    const button = element("button", said, { type: "button" });
    button.dataset.outcome = id;
    button.addEventListener("click", () => answer(id));
    return button;
  }));
  by("save").addEventListener("click", () => {
    const record = JSON.stringify({ version: 1, date: plan.date, casts: state.casts }, null, 1);
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([record], { type: "application/json" }));
    link.download = "deck-record.json";
    link.click();
    by("text").value = record;
    by("text").hidden = false;
  });
  ticking = window.setInterval(tick, 40);
  window.addEventListener("pagehide", () => window.clearInterval(ticking));
  keep();
  show();
})();
