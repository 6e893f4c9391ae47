import { stayAwake } from "../shell/awake.js";
import { by } from "../shell/dom.js";

// Stopwatch: a thumb, the space bar or typed times.
let begun = 0;
let ticking = null;
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
  const times = by("times");
  times.value = (times.value.trim() + " " + seconds).trim();
}
document.addEventListener("click", (event) => { if (event.target.id === "watch") { stamp(); } });
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
  }
});
document.addEventListener("change", (event) => { if (event.target.id === "kind") { timed(); } });
if (by("kind")) { timed(); }
