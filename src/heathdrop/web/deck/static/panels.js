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
  show("Stops", data.stops.map((s, k) => choice(s.name, `${s.next.made} casts here`, k === at, () => move(k))));
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

export function fishPanel(cast, units, mend) {
  const metric = units === "metric";
  const fish = { length: metric ? 35 : 14, weight: 0 };
  const row = (name, label, unit, step) => stepped({ name, label, unit, value: String(fish[name]), step: String(step),
    by: "" }, (_, value) => { fish[name] = parseFloat(value); });
  const keep = element("button", "Keep the fish", { type: "button" });
  keep.addEventListener("click", () => {
    settle();
    close();
    const kept = { length_in: metric ? Math.round(fish.length / 0.254) / 10 : fish.length };
    if (fish.weight > 0) { kept.weight_lb = metric ? Math.round(fish.weight / 0.00453592) / 100 : fish.weight; }
    mend({ ...cast, fish: kept });
  });
  show(cast.at_s ? `Fish, bit at ${cast.at_s} s` : "Fish", [row("length", "Length", metric ? "cm" : "in", metric ? 1 : 0.5),
    row("weight", "Weight, if weighed", metric ? "kg" : "lb", metric ? 0.1 : 0.25), keep,
    element("p", "Done: the fish is kept without a length.")]);
}

export function morePanel(following, refused) {
  const link = (text, address) => {
    const made = element("a", text, { href: address });
    return element("p", "").appendChild(made).parentNode;
  };
  const parts = following.cautions.map((c) => element("p", c));
  refused.forEach(([, o]) => parts.push(element("p", `Refused: ${o.detail} (${JSON.stringify(o.cast || o.form)})`)));
  const sun = element("button", "Sun: black and white", { type: "button" });
  sun.addEventListener("click", () => by("sun").click());
  const end = element("button", "End the trip", { type: "button" });
  end.addEventListener("click", () => {
    if (end.dataset.sure) { by("ending").requestSubmit(); return; }
    end.dataset.sure = "yes";
    end.textContent = "Tap again to end the trip: its casts stay";
  });
  parts.push(link("Read and mend the casts", "/deck/record"), link("All casts as CSV", "/export/casts.csv"),
    link("The bottom as driven", "/bottom"), link("Phones", "/devices"), sun, end,
    element("p", "Without the laptop this page goes on while it stays open; to begin without it, carry the " +
      "plan's deck card."));
  show("More", parts);
}
