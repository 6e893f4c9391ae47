// The Cast view: plays a simulated cast in the section, ticks the count and the handle turns.
"use strict";
(function () {
  const still = window.matchMedia("(prefers-reduced-motion: reduce)");
  let cast = null;
  let at = 0;
  let playing = false;
  let last = 0;
  let voice = null;
  let counting = null;
  let pacing = null;

  const by = (id) => document.getElementById(id);

  function beep(pitch, length) {
    const sound = by("sound");
    if (sound && !sound.checked) { return; }
    const Voice = window.AudioContext;
    if (!Voice) { return; }
    voice = voice || new Voice();
    const tone = voice.createOscillator();
    const loud = voice.createGain();
    tone.frequency.value = pitch;
    loud.gain.setValueAtTime(0.25, voice.currentTime);
    loud.gain.exponentialRampToValueAtTime(0.001, voice.currentTime + length);
    tone.connect(loud).connect(voice.destination);
    tone.start();
    tone.stop(voice.currentTime + length);
  }

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
      for (let i = 0; i < a.length; i += 2) { points.push(X(mix(a[i], b[i], f)) + "," + Y(mix(a[i + 1], b[i + 1], f))); }
      svg.querySelector(".line").setAttribute("points", points.join(" "));
      svg.querySelectorAll(".rivaldot").forEach((dot, n) => {
        const track = cast.rivals[n];
        dot.setAttribute("cx", X(mix(track[k][0], track[k + 1][0], f)));
        dot.setAttribute("cy", Y(mix(track[k][1], track[k + 1][1], f)));
      });
    });
    by("scrub").value = at;
    const doing = cast.bottom[k] ? "on the bottom" : cast.reeling[k] ? "coming home" : "falling";
    const said = at.toFixed(1) + " s: " + deep.toFixed(1) + " ft down, " + far.toFixed(0) + " ft out, " + doing;
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

  function toggle(on) {
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

  function count() {
    const coach = by("count-coach");
    const whole = parseFloat(coach.dataset.count);
    const said = by("count-now");
    window.clearInterval(counting);
    const begun = performance.now();
    let spoken = 0;
    said.textContent = "0";
    beep(520, 0.08);
    counting = window.setInterval(() => {
      const passed = (performance.now() - begun) / 1000;
      if (!by("count-now")) { window.clearInterval(counting); return; }
      if (passed >= whole) {
        window.clearInterval(counting);
        said.textContent = "Reel";
        coach.classList.add("now");
        beep(1040, 0.35);
        window.setTimeout(() => coach.classList.remove("now"), 1500);
      } else if (Math.floor(passed) > spoken) {
        spoken = Math.floor(passed);
        said.textContent = String(spoken);
        beep(520, 0.08);
      }
    }, 25);
  }

  function pace(button) {
    const on = button.getAttribute("aria-pressed") !== "true";
    button.setAttribute("aria-pressed", String(on));
    button.textContent = on ? "Stop ticking" : "Tick the turns";
    window.clearInterval(pacing);
    if (!on) { by("turns-now").textContent = ""; return; }
    const turns = parseFloat(by("pace-coach").dataset.turns);
    const begun = performance.now();
    let told = -1;
    pacing = window.setInterval(() => {
      const arm = by("crank-arm");
      if (!arm) { window.clearInterval(pacing); return; }
      const turned = (performance.now() - begun) / 1000 * turns;
      const whole = Math.floor(turned);
      if (!still.matches) { arm.setAttribute("transform", "rotate(" + ((turned - whole) * 360).toFixed(0) + ")"); }
      if (whole > told) {
        told = whole;
        by("turns-now").textContent = whole + " turns";
        beep(whole % 4 === 0 ? 760 : 620, 0.06);
      }
    }, 30);
  }

  function begin() {
    const data = by("cast-data");
    playing = false;
    if (!data) { cast = null; return; }
    cast = JSON.parse(data.textContent);
    set(Math.min(at, cast.t[cast.t.length - 1]));
  }

  document.addEventListener("click", (event) => {
    const jump = event.target.closest("[data-jump]");
    if (event.target.id === "play") { toggle(!playing); }
    if (jump) { set(at + parseFloat(jump.dataset.jump)); }
    if (event.target.id === "count-go") { count(); }
    if (event.target.id === "pace-go") { pace(event.target); }
  });
  document.addEventListener("input", (event) => {
    if (event.target.id === "scrub") { set(parseFloat(event.target.value)); }
  });
  document.addEventListener("keydown", (event) => {
    if (!cast || event.target.closest("input:not([type=range]), select, button, summary, textarea")) { return; }
    if (event.key === " ") { event.preventDefault(); toggle(!playing); }
    if (event.key === "," || event.key === ".") { set(at + (event.key === "." ? 1 : -1)); }
    if (event.key === "c") { count(); }
    if (event.key === "t") { pace(by("pace-go")); }
  });
  document.addEventListener("htmx:afterSettle", begin);
  begin();
})();
