// The deck's panels, from below: stops, rigs, water, a fish, and what is read seldom.
import { by } from "../shell/dom.js";

const SOON_MS = 450;
const pending = new Map();
let timer = null;
let open = null;

function element(tag, text, more) {
  const made = document.createElement(tag);
  made.textContent = text;
  return Object.assign(made, more || {});
}

function show(title, parts, kind) {
  open = kind;
  by("paneltitle").textContent = title;
  by("inside").replaceChildren(...parts);
  if (!by("panel").open) { by("panel").showModal(); }
}

export function close() {
  by("panel").close();
}

by("panel").addEventListener("close", () => {
  open = null;
  settle();
});
by("close").addEventListener("click", close);

/** Something came from the laptop while a panel may be open. */
export function onPanels(news) {
  if (open && open.refresh && by("panel").open) { open.refresh(news.stop); }
}

function choice(main, small, current, tap) {
  const made = element("button", "", { type: "button" });
  made.append(element("b", main), element("small", small));
  made.setAttribute("aria-current", String(current));
  made.addEventListener("click", () => { close(); tap(); });
  return made;
}

export function stopPanel(data, at, move) {
  show("Stops", data.stops.map((s, k) => choice(s.name, `${s.next.made} ${s.next.made === 1 ? "cast" : "casts"} here`, k === at, () => move(k))));
}

export function rigPanel(data, stop, now, hold) {
  const rods = data.rods.map((r) => choice(`Rod ${r.name}: ${r.said}`, r.line, r.rig === now, () => hold(r.rig)));
  const box = element("button", "From my box", { type: "button" });
  const said = element("p", "");
  said.setAttribute("role", "alert");
  let offered = [];
  // What was found stands right below what was asked.
  async function offer(address, below) {
    said.textContent = "";
    offered.forEach((one) => one.remove());
    offered = [];
    below.after(said);
    try {
      const reply = await fetch(address);
      const found = await reply.json();
      if (!reply.ok) { said.textContent = found.detail; return; }
      offered = found.map((r) => choice(r.said, r.small || "tie it on", false, () => hold(r.rig)));
      below.after(...offered);
    } catch (_) {
      said.textContent = "No connection to the laptop: only the rods can be changed now.";
    }
  }
  const last = element("button", "What bit last time", { type: "button" });
  last.addEventListener("click", () => offer(`/deck/last?stop=${encodeURIComponent(stop.name)}`, last));
  box.addEventListener("click", () => offer(`/deck/box?stop=${encodeURIComponent(stop.name)}`, box));
  const typed = element("form", "", { className: "typedrig" });
  const field = element("input", "", { type: "text", placeholder: "3/8 swim jig, craw 4 in" });
  field.setAttribute("aria-label", "Type a rig");
  typed.append(field, element("button", "Take it"));
  typed.addEventListener("submit", (event) => {
    event.preventDefault();
    offer(`/deck/typed?rig=${encodeURIComponent(field.value)}`, typed);
  });
  const free = choice("Whichever the search says", "any rod", false, () => hold(""));
  show("Rig", [...rods, free, last, box, typed, said]);
}

// Steps that follow each other quickly are one change; closing the panel makes it at once.
function settle() {
  window.clearTimeout(timer);
  const all = [...pending.values()];
  pending.clear();
  all.forEach((make) => make());
}

function stepped(row, change) {
  const line = element("div", "", { className: "turned" });
  const from = { sounder: " (from the sounder)", typed: " (typed here)" }[row.by] || "";
  const out = element("output", `${row.value || "?"} ${row.unit}`);
  const by_ = (sign) => {
    const button = element("button", sign > 0 ? "+" : "–", { type: "button" });
    button.setAttribute("aria-label", `${row.label} ${sign > 0 ? "more" : "less"}`);
    button.addEventListener("click", () => {
      const step = parseFloat(row.step);
      const now = Number.isNaN(parseFloat(row.value)) ? step : parseFloat(row.value);
      const next = Math.max(0, Math.round((now + sign * step) / step) * step);
      row.value = String(Math.round(next * 1000) / 1000);
      out.textContent = `${row.value} ${row.unit}`;
      pending.set(row.name, () => change(row.name, row.value));
      window.clearTimeout(timer);
      timer = window.setTimeout(settle, SOON_MS);
    });
    return button;
  };
  line.append(element("span", row.label + from), by_(-1), out, by_(1));
  return line;
}

function worded(row, change) {
  const line = element("div", "", { className: "words" });
  line.setAttribute("role", "group");
  line.setAttribute("aria-label", row.label);
  line.append(element("span", row.label), ...row.options.map(([id, words]) => {
    const button = element("button", words, { type: "button" });
    button.setAttribute("aria-current", String(id === row.value));
    button.addEventListener("click", () => {
      line.querySelectorAll("button").forEach((b) => b.setAttribute("aria-current", String(b === button)));
      change(row.name, id);
    });
    return button;
  }));
  return line;
}

export function waterPanel(stop, change) {
  const rows = (s) => s.water.map((row) => (row.step ? stepped(row, change) : worded(row, change)));
  const kind = { refresh: (s) => {
    if (s.name === stop.name && pending.size === 0) {
      const scrolled = by("panel").scrollTop;
      show("Water here", rows(s), kind);
      by("panel").scrollTop = scrolled;
    }
  } };
  show("Water here", rows(stop), kind);
}

/** A typed length or weight in its unit: ``21``, ``21 1/2``, ``53 cm``, ``5 lb 3 oz``, ``5-3``; NaN for none. */
function typedFish(text, unit, per) {
  const plain = text.trim().toLowerCase().replaceAll(",", ".");
  const pounds = unit === "lb" && plain.match(/^(\d+)\s*(?:lbs?|-|\s)\s*(\d+(?:\.\d+)?)\s*(?:oz)?$/);
  if (pounds) { return Number(pounds[1]) + Number(pounds[2]) / 16; }
  const found = plain.match(/^(\d*\.?\d+)(?:\s+(\d+)\/(\d+))?\s*(in|"|cm|lbs?|kg|g)?$/);
  if (!found) { return NaN; }
  const value = Number(found[1]) + (found[2] ? Number(found[2]) / Number(found[3]) : 0);
  const own = { in: per.cm, '"': per.cm, cm: 1, lb: per.kg, lbs: per.kg, kg: 1, g: 0.001 };
  return value * (found[4] ? own[found[4]] / own[unit] : 1);
}

/** A measure of a fish: stepped by a button, dragged, or typed. */
function measured(label, unit, per, { step, most, start }, set) {
  const line = element("div", "", { className: "turned measured" });
  const field = element("input", "", { type: "text", inputMode: "text", value: start ? String(start) : "" });
  field.setAttribute("aria-label", `${label}, ${unit}`);
  const slide = element("input", "", { type: "range", min: "0", max: String(most), step: String(step), value: String(start) });
  slide.setAttribute("aria-label", `${label}, dragged`);
  const to = (value, from) => {
    set(value);
    if (from !== field) { field.value = value ? String(Math.round(value * 100) / 100) : ""; }
    if (from !== slide && !Number.isNaN(value)) { slide.value = String(value); }
  };
  const button = (sign) => {
    const made = element("button", sign > 0 ? "+" : "–", { type: "button" });
    made.setAttribute("aria-label", `${label} ${sign > 0 ? "more" : "less"}`);
    made.addEventListener("click", () => to(Math.max(0, Number(slide.value) + sign * step)));
    return made;
  };
  slide.addEventListener("input", () => to(Number(slide.value), slide));
  field.addEventListener("input", () => to(field.value.trim() ? typedFish(field.value, unit, per) : 0, field));
  line.append(element("span", `${label}, ${unit}`), button(-1), field, button(1), slide);
  return line;
}

export function fishPanel(cast, data, mend) {
  const metric = data.units === "metric";
  const per = data.per;
  const fish = { length: metric ? 35 : 14, weight: 0 };
  const said = element("p", "Kept as a fish. Close keeps it without a length.");
  said.setAttribute("role", "status");
  const keep = element("button", "Write it down", { type: "button" });
  keep.addEventListener("click", () => {
    if (Number.isNaN(fish.length) || Number.isNaN(fish.weight)) {
      said.textContent = metric ? "Length in cm, weight in kg: 53, 1.2." : "Length in inches, weight in lb: 21 1/2, 5 lb 3 oz.";
      return;
    }
    close();
    const kept = {};
    if (fish.length > 0) { kept.length_in = metric ? Math.round(10 * fish.length / per.cm) / 10 : Math.round(10 * fish.length) / 10; }
    if (fish.weight > 0) { kept.weight_lb = Math.round(100 * (metric ? fish.weight / per.kg : fish.weight)) / 100; }
    mend({ ...cast, fish: kept });
  });
  show(cast.at_s ? `Fish, bit at ${cast.at_s} s` : "Fish", [
    measured("Length", metric ? "cm" : "in", per, metric ? { step: 1, most: 70, start: 35 } : { step: 0.5, most: 28, start: 14 },
      (v) => { fish.length = v; }),
    measured("Weight", metric ? "kg" : "lb", per, metric ? { step: 0.1, most: 6, start: 0 } : { step: 0.25, most: 12, start: 0 },
      (v) => { fish.weight = v; }),
    keep, said]);
}

/** What the laptop would not take, in words. */
function asideSaid(o) {
  if (o.form) { return `${o.form.name.replaceAll("_", " ")} ${o.form.value} at ${o.form.stop}`; }
  if (!o.cast) { return "a cast taken back"; }
  const { outcome, head_oz, family, stop, time } = o.cast;
  return `${outcome} on a ${head_oz} oz ${family.replaceAll("-", " ")}, ${stop}, ${new Date(time).toTimeString().slice(0, 5)}`;
}

export function morePanel(following, refused, sendAgain) {
  const link = (text, address) => {
    const made = element("a", text, { href: address });
    return element("p", "").appendChild(made).parentNode;
  };
  const parts = following.cautions.map((c) => element("p", c));
  refused.forEach(([, o]) => parts.push(element("p", `Not kept: ${asideSaid(o)}. ${o.detail}`)));
  if (refused.length) {
    const again = element("button", "Send them again", { type: "button" });
    again.addEventListener("click", () => { again.disabled = true; sendAgain().then(close); });
    parts.push(again);
  }
  const end = element("button", "End the trip", { type: "button" });
  end.addEventListener("click", () => {
    if (end.dataset.sure) { by("ending").requestSubmit(); return; }
    end.dataset.sure = "yes";
    end.textContent = "Tap again to end the trip: its casts stay";
  });
  parts.push(link("Read and change the casts", "/deck/record"), link("The days so far", "/log"), link("All casts as CSV", "/export/casts.csv"),
    link("The bottom as driven", "/bottom"), link("Phones", "/devices"), end,
    element("p", "Without the laptop this page goes on while it stays open; to begin without it, carry the " +
      "plan's deck card."));
  show("More", parts);
}
