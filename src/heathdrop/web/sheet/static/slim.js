// On a narrow screen the answer stays in sight: once the strip has scrolled away its line stands on top.
import { by } from "../shell/dom.js";

let seen = null;

function slim() {
  const strip = document.querySelector(".strip");
  const line = by("slim");
  seen?.disconnect();
  if (!strip || !line) { return; }
  const figures = [...strip.querySelectorAll(".figures div")].slice(0, 3).map((f) =>
    [...f.querySelectorAll("dt, dd")].map((part) => [...part.childNodes].filter((n) => n.nodeName !== "SMALL")
      .map((n) => n.textContent.trim()).join(" ").trim()).join(" ").toLowerCase());
  const unit = strip.querySelector(".oz").textContent;
  const what = strip.querySelector(".what").textContent.replace(" with ", ", ");
  line.textContent = `${strip.querySelector(".weight").textContent.replace(unit, ` ${unit}`)} ${what}`.trim();
  const small = document.createElement("small");
  small.textContent = figures.join(" · ");
  line.append(small);
  seen = new IntersectionObserver(([entry]) => {
    line.hidden = entry.isIntersecting || entry.boundingClientRect.top > 0;
  });
  seen.observe(strip);
}

document.addEventListener("htmx:afterSettle", slim);
slim();
