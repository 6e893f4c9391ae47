import { stayAwake } from "../shell/awake.js";
import { by, recall, remember } from "../shell/dom.js";

// Stopwatch: a thumb, the space bar or typed times. What was timed stands over the button; a touch scraps it.
let begun = 0;
let ticking = null;
const tries = () => by("times").value.replaceAll(";", " ").split(/[\s,]+/).filter(Boolean);

const middle = (some) => {
  const sorted = [...some].sort((a, b) => a - b);
  return (sorted[Math.floor((sorted.length - 1) / 2)] + sorted[Math.ceil((sorted.length - 1) / 2)]) / 2;
};

/** Whether a time is so far from the middle of its test that the drop was likely spoilt; of two far apart both. */
function far(times, k) {
  const most = parseFloat(document.querySelector(".watchbox").dataset.far);
  const ratio = times[k] / (times.length === 2 ? times[1 - k] : middle(times));
  return ratio >= most || ratio <= 1 / most;
}

// What is being timed stays on this machine until it is kept: a reload or another page loses no drop.
const UNDER_WAY = "heathdrop-timing";

function putBy() {
  const said = Object.fromEntries([...new FormData(by("drop-form"))].filter(([name]) => name !== "token"));
  remember(UNDER_WAY, tries().length ? JSON.stringify(said) : "");
}

/** The drops that were timed before, with their rig and depth, unless the page was asked for another rig. */
function takeUp() {
  const said = recall(UNDER_WAY);
  if (!said || by("times").value || location.search) { return; }
  Object.entries(JSON.parse(said)).forEach(([name, value]) => {
    const field = by("drop-form").elements[name];
    if (field && field.type === "checkbox") { field.checked = true; } else if (field) { field.value = value; }
  });
}

function keepTimes(times) {
  by("times").value = times.join(" ");
  show();
  putBy();
}

/** The times as figures over the button, what is far off marked, and what is being timed in a line. */
function show() {
  const said = tries();
  const times = said.map(parseFloat);
  by("tries").replaceChildren(...said.map((one, k) => {
    const item = document.createElement("li");
    const button = document.createElement("button");
    button.type = "button";
    button.dataset.scrap = k;
    button.setAttribute("aria-label", `Scrap ${one} s`);
    button.classList.toggle("far", far(times, k));
    button.textContent = `${one} ×`;
    item.append(button);
    return item;
  }));
  const off = said.filter((_, k) => far(times, k));
  by("far").textContent = off.length ? `${off.join(" and ")} s: far from the rest. A spoilt drop? Touch it to scrap it.` : "";
  by("scrap").hidden = by("keep-tries").hidden = !said.length;
  by("keep-tries").textContent = said.length === 1 ? "Keep it" : `Keep these ${said.length}`;
  const field = (name) => document.querySelector(`#drop-form [name=${name}]`);
  const word = (name) => field(name).selectedOptions[0].textContent.trim();
  const unit = (name) => field(name).closest("label").querySelector(".unit").textContent;
  by("timing-what").textContent = `${field("head_oz").value} ${unit("head_oz")} ${word("family")}, ${word("trailer")}, ` +
    `in ${field("depth_ft").value} ${unit("depth_ft")}`;
}

function stamp() {
  const button = by("watch");
  stayAwake(!begun);
  if (!begun) {
    begun = performance.now();
    button.textContent = "Landed";
    button.classList.add("running");
    ticking = window.setInterval(() => {
      by("watch-now").textContent = ((performance.now() - begun) / 1000).toFixed(1);
    }, 60);
    return;
  }
  const seconds = ((performance.now() - begun) / 1000).toFixed(2);
  window.clearInterval(ticking);
  begun = 0;
  button.textContent = "Splash";
  button.classList.remove("running");
  by("watch-now").textContent = seconds;
  keepTimes([...tries(), seconds]);
}
document.addEventListener("click", (event) => {
  if (event.target.id === "watch") { stamp(); }
  if (event.target.id === "scrap") { keepTimes(tries().slice(0, -1)); }
  const one = event.target.dataset.scrap;
  if (one !== undefined) { keepTimes(tries().filter((_, k) => k !== Number(one))); by("watch").focus(); }
});
document.addEventListener("keydown", (event) => {
  const busy = event.target.closest("input, textarea, select, button, summary, a");
  if (event.key === " " && by("watch") && !busy) {
    event.preventDefault();
    if (!event.repeat) { stamp(); }
  }
});
// What was kept leaves an empty field; the watch is there for timed drops alone.
const timed = () => { document.querySelector(".watchbox").hidden = by("kind").value !== "drop"; };
document.addEventListener("htmx:afterRequest", (event) => {
  if (event.detail.elt.id === "drop-form" && event.detail.xhr.status < 300) {
    by("times").value = "";
    by("drop-problem").textContent = "";
    show();
    putBy();
  }
});
document.addEventListener("change", (event) => { if (event.target.id === "kind") { timed(); } });
document.addEventListener("input", (event) => { if (event.target.closest("#drop-form")) { show(); putBy(); } });
// What is asked back is brought to where the thumb is.
document.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id === "drop-problem") { event.detail.target.scrollIntoView({ block: "center" }); }
});
if (by("kind")) { takeUp(); timed(); show(); }
