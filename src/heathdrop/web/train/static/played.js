// The cast of an answer plays once: the lure goes its simulated way, past the guess. Nothing moves for who wants none.
const PLAYS_MS = 3600;
const still = window.matchMedia("(prefers-reduced-motion: reduce)").matches;

function played(drawing) {
  const path = drawing.querySelector(".path");
  if (!path?.getTotalLength?.() || still) { return; }
  const lure = document.createElementNS("http://www.w3.org/2000/svg", "circle");
  lure.setAttribute("class", "playing");
  lure.setAttribute("r", "7");
  drawing.append(lure);
  const length = path.getTotalLength();
  const begun = performance.now();
  const step = (now) => {
    const share = Math.min(1, (now - begun) / PLAYS_MS);
    const at = path.getPointAtLength(share * length);
    lure.setAttribute("transform", `translate(${at.x},${at.y})`);
    if (share < 1) { window.requestAnimationFrame(step); } else { drawing.dataset.played = "yes"; }
  };
  window.requestAnimationFrame(step);
}

document.querySelectorAll("figure.asked svg").forEach(played);
