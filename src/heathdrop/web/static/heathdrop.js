// Heathdrop's page: stepping numbers, cover-dependent controls, keyboard. All else is the server's.
"use strict";
(function () {
  const form = document.getElementById("state");

  function tell(input) {
    input.dispatchEvent(new Event("input", { bubbles: true }));
  }

  function step(input, by) {
    const now = parseFloat(input.value.replace(",", ".")) || 0;
    const digits = Math.max(0, ...[by, now].map((v) => (String(v).split(".")[1] || "").length));
    input.value = (now + by).toFixed(digits);
    tell(input);
  }

  document.addEventListener("click", (event) => {
    const button = event.target.closest(".step");
    if (button) {
      step(document.getElementById(button.dataset.to), parseFloat(button.dataset.step));
    }
    if (event.target.closest("[data-best]")) {
      document.querySelectorAll(".pick:checked").forEach((pick) => { pick.checked = false; });
      htmx.trigger(form, "refresh");
    }
  });

  document.addEventListener("keydown", (event) => {
    const input = event.target.closest(".num");
    if (input && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      const size = parseFloat(input.dataset.step) * (event.shiftKey ? 5 : 1);
      step(input, event.key === "ArrowUp" ? size : -size);
    }
    if (event.key === "Escape") {
      document.getElementById("shelf").open = false;
    }
  });

  form.addEventListener("change", () => {
    const cover = document.getElementById("cover").value;
    document.querySelectorAll("[data-for-cover]").forEach((field) => {
      field.hidden = field.dataset.forCover !== cover;
    });
  });

  let typing;
  document.addEventListener("input", (event) => {
    if (event.target.form === form && !form.contains(event.target) && event.target.matches(".num")) {
      clearTimeout(typing);
      typing = setTimeout(() => htmx.trigger(form, "refresh"), 250);
    }
  });

  // Board cells come and go with each answer: they speak for the form wherever they stand.
  document.addEventListener("change", (event) => {
    const outside = event.target.form === form && !form.contains(event.target);
    if (outside && event.target.matches(".pick, select")) {
      htmx.trigger(form, "refresh");
    }
  });
})();
