// Each tab goes back to its own water: the browser keeps one, that of the tab in front.
import { by } from "./dom.js";

const KEY = "water";
const { kept, keptFor } = document.documentElement.dataset;

function own() {
  try {
    const at = by("answer")?.dataset.at;
    if (at) {
      sessionStorage.setItem(KEY, at);
    }
    return sessionStorage.getItem(KEY);
  } catch (_) {
    return null; // Private browsing: the browser's one water stands for every tab.
  }
}

function inFront() {
  const at = own();
  if (!at || document.visibilityState !== "visible") {
    return;
  }
  for (const link of document.querySelectorAll("[data-sheet]")) {
    const water = new URLSearchParams(at.split("?")[1] ?? "");
    if (link.dataset.sheet) {
      water.set("box", link.dataset.sheet);
    }
    const query = water.toString();
    link.href = query ? `/?${query}` : "/";
  }
  document.cookie = `${kept}="${at.split("?")[1] ?? ""}"; max-age=${keptFor}; path=/; samesite=lax`;
}

inFront();
document.addEventListener("visibilitychange", inFront);
addEventListener("focus", inFront);
document.addEventListener("htmx:afterSettle", inFront);
