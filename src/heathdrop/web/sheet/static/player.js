// Plays, scrubs and steps a simulated cast in the section.
import { by } from "../shell/dom.js";

const still = window.matchMedia("(prefers-reduced-motion: reduce)");
let cast = null;
let at = 0;
let playing = false;
let last = 0;

function frameAt(seconds) {
  let k = 0;
  while (k < cast.t.length - 2 && cast.t[k + 1] <= seconds) { k += 1; }
  const span = cast.t[k + 1] - cast.t[k] || 1;
  return [k, Math.min(1, Math.max(0, (seconds - cast.t[k]) / span))];
}

const mix = (a, b, f) => a + (b - a) * f;

function draw() {
  const [k, f] = frameAt(at);
  const far = mix(cast.lure[k][0], cast.lure[k + 1][0], f);
  const deep = mix(cast.lure[k][1], cast.lure[k + 1][1], f);
  Object.entries(cast.scales).forEach(([name, s]) => {
    const svg = document.querySelector("svg." + name);
    if (!svg) { return; }
    const X = (v) => (s.x0 + v * s.kx).toFixed(1);
    const Y = (v) => (s.y0 + v * s.ky).toFixed(1);
    svg.querySelector(".lure-at").setAttribute("transform", "translate(" + X(far) + " " + Y(deep) + ")");
    const a = cast.line[k];
    const b = cast.line[k + 1];
    const points = [];
    for (let i = 0; i < a.length; i += 2) {
      points.push(`${X(mix(a[i], b[i], f))},${Y(mix(a[i + 1], b[i + 1], f))}`);
    }
    svg.querySelector(".line").setAttribute("points", points.join(" "));
    svg.querySelectorAll(".rivaldot").forEach((dot, n) => {
      const track = cast.rivals[n];
      dot.setAttribute("cx", X(mix(track[k][0], track[k + 1][0], f)));
      dot.setAttribute("cy", Y(mix(track[k][1], track[k + 1][1], f)));
    });
  });
  by("scrub").value = at;
  const doing = cast.bottom[k] ? "on the bottom" : ["falling", "coming home", "taking up slack"][cast.reeling[k]];
  const { unit, per } = cast.say;
  const down = `${(deep * per).toFixed(1)} ${unit} down, ${(far * per).toFixed(0)} ${unit} out`;
  const said = `${at.toFixed(1)} s: ${down}, ${doing}`;
  by("where").textContent = said;
  by("scrub").setAttribute("aria-valuetext", said);
}

function set(seconds) {
  at = Math.min(cast.t[cast.t.length - 1], Math.max(0, seconds));
  draw();
}

function run(now) {
  if (!playing || !cast || !by("play")) { playing = false; return; }
  const passed = (now - last) / 1000;
  // With reduced motion the picture moves a whole second at a time.
  if (!still.matches || passed >= 1) {
    last = now;
    set(at + passed * parseFloat(by("rate").value));
  }
  if (at >= cast.t[cast.t.length - 1]) { toggle(false); return; }
  window.requestAnimationFrame(run);
}

export function toggle(on) {
  playing = on;
  const button = by("play");
  button.textContent = on ? "Pause" : "Play";
  button.setAttribute("aria-pressed", String(on));
  if (on) {
    if (at >= cast.t[cast.t.length - 1]) { at = 0; }
    last = performance.now();
    window.requestAnimationFrame(run);
  }
}

export const isReady = () => cast !== null;
export const isPlaying = () => playing;
export const jump = (seconds) => set(at + seconds);
export const goTo = (seconds) => set(seconds);

export function begin() {
  const data = by("cast-data");
  playing = false;
  if (!data) { cast = null; return; }
  cast = JSON.parse(data.textContent);
  set(Math.min(at, cast.t[cast.t.length - 1]));
}
