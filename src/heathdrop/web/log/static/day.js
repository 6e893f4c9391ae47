import { by } from "../shell/dom.js";

// A touch on a day's drawing opens the cast nearest to it beneath, to be read and corrected.
for (const drawing of document.querySelectorAll("svg.depths")) {
  const beneath = by(drawing.dataset.beneath);
  const dots = [...drawing.querySelectorAll("[data-cast]")];
  drawing.addEventListener("click", (event) => {
    const far = (dot) => {
      const box = dot.getBoundingClientRect();
      return Math.hypot(event.clientX - box.x - box.width / 2, event.clientY - box.y - box.height / 2);
    };
    const nearest = dots.reduce((a, b) => (far(b) < far(a) ? b : a));
    htmx.ajax("GET", `/log/cast/${nearest.dataset.cast}`, { target: beneath });
  });
  beneath.addEventListener("htmx:afterSettle", () => {
    const shown = beneath.querySelector("[data-shown]")?.dataset.shown;
    for (const dot of dots) { dot.classList.toggle("chosen", dot.dataset.cast === shown); }
  });
}
