// A page whose clock, timers, tones and line to the laptop are the test's: put in before its scripts run.
const lab = window.lab;
const real = { setTimeout: window.setTimeout.bind(window), clearTimeout: window.clearTimeout.bind(window) };
const here = { kept: {}, before() {}, ...cases[lab.name] };
Object.assign(lab, { wall: Date.parse("2026-04-11T11:12:00Z"), even: 10000, every: [], timers: [], tones: [], buzzed: [],
  asked: [], awake: 0, replies: [], frames: [] });
Date.now = () => lab.wall;
Date.prototype.getTimezoneOffset = () => here.zone ?? 300;
performance.now = () => lab.even;
window.setInterval = (run, ms) => lab.every.push({ run, ms });
// On a page that swaps parts of itself only what a person would wait for is the test's.
const least = here.at ? 300 : 0;
const OURS = 1e6;
window.setTimeout = (run, ms, ...rest) => (ms >= least ? OURS + lab.timers.push({ run, ms, on: true }) : real.setTimeout(run, ms, ...rest));
window.clearTimeout = (n) => { if (lab.timers[n - OURS - 1]) { lab.timers[n - OURS - 1].on = false; } else { real.clearTimeout(n); } };
window.clearInterval = (n) => { if (lab.every[n - 1]) { lab.every[n - 1].run = () => {}; } };
window.requestAnimationFrame = (run) => lab.frames.push(run);
const own = (name, value) => Object.defineProperty(navigator, name, { value, configurable: true });
own("userActivation", { hasBeenActive: true });
own("vibrate", (ms) => lab.buzzed.push(ms));
own("wakeLock", { request: async () => {
  lab.awake += 1;
  const held = new EventTarget();
  lab.hidden = () => { lab.awake -= 1; held.dispatchEvent(new Event("release")); };
  return Object.assign(held, { release: async () => lab.hidden() });
} });
window.AudioContext = class {
  createOscillator() {
    return { frequency: { set value(pitch) { lab.tones.push(pitch); } }, connect: (next) => next, start() {}, stop() {} };
  }
  createGain() { return { gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (next) => next }; }
};
// A reply is [part of the request, answer, status, headers]; what has none finds no line, as out on the lake.
window.fetch = async (address, { method = "GET", body } = {}) => {
  if (address === "/deck") { throw new TypeError("kept for a reload: asked in the browser's own test"); }
  const sent = body instanceof URLSearchParams ? Object.fromEntries(body) : body ? JSON.parse(body) : null;
  lab.asked.push([method, address, sent]);
  const found = lab.replies.find(([part]) => `${method} ${address}`.includes(part));
  if (!found) { throw new TypeError("no line"); }
  const [, answer, status, headers] = found;
  const given = typeof answer === "function" ? await answer(sent, address) : { answer, status };
  return new Response(JSON.stringify(given.answer), { status: given.status || status || 200, headers });
};
const each = (css) => [...document.querySelectorAll(css)];
Object.assign(lab, {
  by: (id) => document.getElementById(id),
  press: (css) => document.querySelector(css).click(),
  text: (id) => lab.by(id).textContent,
  all: (css) => each(css).map((e) => e.textContent),
  marked: (css, name) => each(css).map((e) => e.getAttribute(name)),
  values: (css) => each(css).map((e) => e.value),
  pass: (ms) => { lab.wall += ms; lab.even += ms; },
  run_: (ms) => lab.every.filter((e) => e.ms === ms).forEach((e) => e.run()),
  key: (css, key, more) => document.querySelector(css).dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...more })),
  frame: () => lab.frames.splice(0).forEach((run) => run(lab.even)),
  rest: async () => { for (let k = 0; k < 4; k += 1) { await new Promise((done) => real.setTimeout(done, 0)); } },
  waits: () => lab.timers.filter((t) => t.on && t.ms > 0).map((t) => t.ms),
  due: async (ms) => {
    lab.timers.filter((t) => t.on && t.ms === ms).forEach((t) => { t.on = false; t.run(); });
    await lab.rest();
  },
  type: (css, value) => {
    const field = document.querySelector(css);
    field.value = value;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  },
  kept: (kind) => Object.keys(localStorage).filter((k) => k.startsWith("heathdrop-out-0")).sort()
    .map((k) => JSON.parse(localStorage.getItem(k))).filter((o) => o.do === kind),
  sent: (method) => lab.asked.filter((a) => a[0] === method).map((a) => a[2]),
  module: (file) => import(document.querySelector("script[type=module][src*='deck.js']").src.replace(/deck\/deck\.js.*/, file)),
  same(found, wanted) {
    const [a, b] = [found, wanted].map((v) => JSON.stringify(v));
    if (a !== b) { throw new Error(`found ${a}\n wanted ${b}`); }
  },
  async run() {
    await lab.rest();
    await here.run(lab);
  },
});
localStorage.clear();
Object.entries(here.kept).forEach(([key, text]) => localStorage.setItem(key, typeof text === "string" ? text : JSON.stringify(text)));
here.before(lab);
document.addEventListener("readystatechange", () => {
  const data = document.readyState === "interactive" && lab.by(here.into || "deck");
  if (data) { data.textContent = JSON.stringify(here.data || day()); }
});
