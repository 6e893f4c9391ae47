// The Cast view: what its buttons and keys do.
import { count, pace } from "./coaches.js";
import { by } from "../shell/dom.js";
import { begin, goTo, isPlaying, isReady, jump, toggle } from "./player.js";

document.addEventListener("click", (event) => {
  const jumps = event.target.closest("[data-jump]");
  if (event.target.id === "play") { toggle(!isPlaying()); }
  if (jumps) { jump(parseFloat(jumps.dataset.jump)); }
  if (event.target.id === "count-go") { count(); }
  if (event.target.id === "pace-go") { pace(event.target); }
});
document.addEventListener("input", (event) => {
  if (event.target.id === "scrub") { goTo(parseFloat(event.target.value)); }
});
document.addEventListener("keydown", (event) => {
  const typing = event.target.closest("input:not([type=range]):not([type=radio]):not([type=checkbox]), select, button, summary, textarea");
  if (!isReady() || typing) { return; }
  if (event.key === " ") { event.preventDefault(); toggle(!isPlaying()); }
  if (event.key === "," || event.key === ".") { jump(event.key === "." ? 1 : -1); }
  if (event.key === "c") { count(); }
  if (event.key === "t") { pace(by("pace-go")); }
});
document.addEventListener("htmx:afterSettle", begin);
begin();
