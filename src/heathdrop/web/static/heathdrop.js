// Heathdrop's page: stepping numbers, cover-dependent controls, keyboard, cautions. All else is the server's.
"use strict";
(function () {
  const by = (id) => document.getElementById(id);
  const form = () => by("state");

  function tell(input) {
    input.dispatchEvent(new Event("input", { bubbles: true }));
  }

  function step(input, by) {
    const now = parseFloat(input.value.replace(",", ".")) || 0;
    const digits = Math.max(0, ...[by, now].map((v) => (String(v).split(".")[1] || "").length));
    input.value = (now + by).toFixed(digits);
    tell(input);
  }

  function fitCover() {
    const cover = by("cover").value;
    document.querySelectorAll("[data-for-cover]").forEach((field) => {
      field.hidden = !field.dataset.forCover.split(" ").includes(cover);
      // Only one of two controls with the same meaning may speak.
      field.querySelectorAll("input, select").forEach((input) => { input.disabled = field.hidden; });
    });
  }

  function markAssumed(input) {
    const field = input.closest(".field");
    if (field && input.dataset.default !== undefined) {
      field.classList.toggle("assumed", input.value === input.dataset.default && !!field.querySelector(".assume"));
    }
  }

  // Cautions: hidden for today at most, kept in this browser by date.
  const today = () => new Date().toISOString().slice(0, 10);
  function hushed() {
    try {
      const kept = JSON.parse(localStorage.getItem("hushed") || "{}");
      return kept.day === today() ? kept.ids : [];
    } catch (_) { return []; }
  }
  function care() {
    const ids = hushed();
    let left = 0;
    document.querySelectorAll("[data-caution]").forEach((item) => {
      item.hidden = ids.includes(item.dataset.caution);
      left += item.hidden ? 0 : 1;
    });
    if (by("care-count")) { by("care-count").textContent = left; }
  }
  function hush(ids) {
    localStorage.setItem("hushed", JSON.stringify({ day: today(), ids: ids }));
    care();
  }

  document.addEventListener("click", (event) => {
    const button = event.target.closest(".step");
    const silence = event.target.closest("[data-hush]");
    if (button) { step(by(button.dataset.to), parseFloat(button.dataset.step)); }
    if (silence) { hush([...hushed(), silence.dataset.hush]); }
    if (event.target.closest("[data-unhush]")) { hush([]); }
  });

  document.addEventListener("keydown", (event) => {
    const input = event.target.closest(".num");
    if (input && input.dataset.step && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      const size = parseFloat(input.dataset.step) * (event.shiftKey ? 5 : 1);
      step(input, event.key === "ArrowUp" ? size : -size);
    }
    if (event.key === "Escape") {
      document.querySelectorAll("details.shelf, details.cautions").forEach((shelf) => { shelf.open = false; });
    }
  });

  let typing;
  document.addEventListener("input", (event) => {
    markAssumed(event.target);
    const outside = form() && event.target.form === form() && !form().contains(event.target);
    if (outside && event.target.matches(".num")) {
      clearTimeout(typing);
      typing = setTimeout(() => htmx.trigger(form(), "refresh"), 250);
    }
  });

  // Controls outside the form come and go with each answer: they speak for the form wherever they stand.
  document.addEventListener("change", (event) => {
    if (!form() || event.target.form !== form()) { return; }
    markAssumed(event.target);
    if (form().contains(event.target)) { fitCover(); }
    else if (event.target.matches(".pick, select")) { htmx.trigger(form(), "refresh"); }
  });

  document.addEventListener("htmx:afterSettle", care);
  document.addEventListener("htmx:afterSettle", fitCover);
  fitCover();
  care();
})();
