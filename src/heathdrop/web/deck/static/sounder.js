// The boat's instruments on the deck: what they say with its age, conditions filled while they are live, and the
// figures of the minute for each cast.
import { by } from "../shell/dom.js";

const EVERY_MS = 2000;
const APART_MS = 60000;
const SAID = { depth_ft: "Depth", water_temp_f: "Water", wind_mph: "Wind" };
const UNIT = { water_temp_f: "°F", wind_mph: "mph" };
const CONDITION = { depth_ft: "bottom_depth_ft", water_temp_f: "water_temp_f", wind_mph: "wind_mph" };

/** Watch the feed; the answer gives the live figures of this minute and the place, for a cast's record. */
export function watch(data, stop, change) {
  let feed = {};
  const filled = {};
  const live = (name) => (feed[name] && feed[name].state === "live" ? feed[name].value : null);
  const number = (name) => Math.round(live(name) * (name === "wind_mph" ? 1 : 10)) / (name === "wind_mph" ? 1 : 10);

  function fill() {
    Object.entries(CONDITION).forEach(([name, condition]) => {
      const row = stop().water.find((r) => r.name === condition);
      if (live(name) === null || !row || data.sounded[condition] !== "fills" || row.by === "typed") { return; }
      const value = Math.round(live(name));
      const key = stop().name + condition;
      if (Math.abs(value - stop().conditions[condition]) < 1 || Date.now() - (filled[key] || 0) < APART_MS) { return; }
      filled[key] = Date.now();
      change(condition, `${value} ${UNIT[name]}`, "sounder");
    });
  }

  function show() {
    by("sounder").hidden = false;
    by("sounder").replaceChildren(...Object.entries(SAID).map(([name, label]) => {
      const figure = feed[name] || { state: "lost", said: "–" };
      const made = document.createElement("span");
      made.className = `feed-${figure.state}`;
      made.textContent = `${label} ${figure.said} ${figure.state}`;
      return made;
    }));
    const bar = feed.pressure_hpa;
    if (bar && bar.value !== null && feed.pressure_trend) {
      const made = document.createElement("span");
      made.className = `feed-${bar.state}`;
      made.textContent = `${bar.said} ${feed.pressure_trend}`;
      by("sounder").append(made);
    }
  }

  async function ask() {
    try {
      const reply = await fetch(`/api/v1/feed?units=${data.units}`, { signal: AbortSignal.timeout(EVERY_MS) });
      feed = reply.ok ? await reply.json() : {};
    } catch (_) {
      feed = {};
    }
    show();
    fill();
  }

  if (data.instruments) {
    ask();
    window.setInterval(ask, EVERY_MS);
  }
  return {
    minute() {
      const found = {};
      ["water_temp_f", "wind_mph", "pressure_hpa"].forEach((name) => {
        if (live(name) !== null) { found[name] = number(name); }
      });
      return found;
    },
    place() {
      const at = live("position");
      return at ? { lat: at.lat, lon: at.lon } : {};
    },
  };
}
