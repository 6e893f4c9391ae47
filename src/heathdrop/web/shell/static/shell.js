// Every page: sun mode kept in this browser, the sheet of keys, views by number.
import { by, recall, remember } from "./dom.js";
import "./find.js";
import "./folding.js";
import "./lost.js";
import "./tab.js";

const root = document.documentElement;
const TYPING = "input:not([type=range]):not([type=radio]):not([type=checkbox]), select, textarea, dialog";

function sun(on) {
  root.classList.toggle("sun", on);
  by("sun").setAttribute("aria-pressed", String(on));
}

function toggleSun() {
  const on = !root.classList.contains("sun");
  sun(on);
  remember("sun", on ? "1" : "");
}

// A link that takes a while says so until its page is there; a page that is come back to does not.
document.addEventListener("click", (event) => {
  const link = event.target.closest("a[data-slow]");
  if (link && !event.ctrlKey && !event.metaKey) { link.setAttribute("aria-busy", "true"); }
});
window.addEventListener("pageshow", () => document.querySelector("a[aria-busy]")?.removeAttribute("aria-busy"));

sun(recall("sun") === "1");
by("sun").addEventListener("click", toggleSun);
by("keys").addEventListener("click", () => by("keysheet").showModal());
document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest(TYPING)) {
    return;
  }
  if (event.key === "?") {
    by("keysheet").showModal();
  }
  if (event.key === "s") {
    toggleSun();
  }
  const view = document.querySelectorAll("input[name=view]")[parseInt(event.key, 10) - 1];
  if (view) {
    view.click();
  }
});
