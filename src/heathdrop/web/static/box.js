// Box and drop tests: Enter adds, refusals stand beside what was typed, the stopwatch.
"use strict";
(function () {
  const by = (id) => document.getElementById(id);

  document.addEventListener("keydown", (event) => {
    if (event.target.id === "entry" && event.key === "Enter" && !event.shiftKey) {
      event.preventDefault();
      event.target.form.requestSubmit();
    }
  });

  // A refusal (4xx) never replaces what is on the screen: it is said beside the field.
  document.addEventListener("htmx:beforeSwap", (event) => {
    const status = event.detail.xhr.status;
    const from = event.detail.requestConfig.elt;
    if (status < 400) {
      if (from.id === "entry-form") { by("entry").value = ""; by("entry-problem").textContent = ""; }
      document.querySelectorAll(".rowproblem").forEach((spot) => { spot.textContent = ""; });
      return;
    }
    const row = from.closest("tr");
    const spot = row ? row.querySelector(".rowproblem") : from.querySelector("[id$=-problem]");
    if (spot) {
      event.detail.shouldSwap = false;
      spot.innerHTML = event.detail.xhr.responseText;
    }
  });

  // Stopwatch: a thumb, the space bar or typed times.
  let begun = 0;
  let ticking = null;
  function stamp() {
    const button = by("watch");
    if (!begun) {
      begun = performance.now();
      button.textContent = "Landed";
      button.classList.add("running");
      ticking = window.setInterval(() => { by("watch-now").textContent = ((performance.now() - begun) / 1000).toFixed(1); }, 60);
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
    if (event.key === " " && by("watch") && !event.target.closest("input, textarea, select, button, summary, a")) {
      event.preventDefault();
      stamp();
    }
  });
})();
