// Every page: sun mode kept in this browser, the sheet of keys, steps by number.
"use strict";
(function () {
  const by = (id) => document.getElementById(id);
  const root = document.documentElement;

  function sun(on) {
    root.classList.toggle("sun", on);
    by("sun").setAttribute("aria-pressed", String(on));
  }
  function toggleSun() {
    const on = !root.classList.contains("sun");
    sun(on);
    try { localStorage.setItem("sun", on ? "1" : ""); } catch (_) { /* private browsing */ }
  }
  try { sun(localStorage.getItem("sun") === "1"); } catch (_) { sun(false); }

  by("sun").addEventListener("click", toggleSun);
  by("keys").addEventListener("click", () => by("keysheet").showModal());
  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input:not([type=range]), select, textarea, dialog")) { return; }
    if (event.key === "?") { by("keysheet").showModal(); }
    if (event.key === "s") { toggleSun(); }
    const step = { 1: "water", 2: "size", 3: "rig", 4: "cast" }[event.key];
    if (step && by("view-" + step)) { by("view-" + step).click(); }
  });
})();
