// Cautions: hidden for today at most, kept in this browser by its own date.
import { by, recall, remember } from "../shell/dom.js";

function today() {
  const now = new Date();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()].join("-");
}

function hushed() {
  try {
    const kept = JSON.parse(recall("hushed") || "{}");
    return kept.day === today() ? kept.ids : [];
  } catch (_) {
    return [];
  }
}

export function care() {
  const ids = hushed();
  let left = 0;
  document.querySelectorAll("[data-caution]").forEach((item) => {
    item.hidden = ids.includes(item.dataset.caution);
    left += item.hidden ? 0 : 1;
  });
  if (by("care-count")) {
    by("care-count").textContent = left;
  }
}

function hush(ids) {
  remember("hushed", JSON.stringify({ day: today(), ids: ids }));
  care();
}

document.addEventListener("click", (event) => {
  const silence = event.target.closest("[data-hush]");
  if (silence) {
    hush([...hushed(), silence.dataset.hush]);
  }
  if (event.target.closest("[data-unhush]")) {
    hush([]);
  }
});
