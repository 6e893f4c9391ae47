// The plan: a stop that is pointed at in the board opens below it.
function open() {
  const stop = window.location.hash.startsWith("#stop-") && document.querySelector(window.location.hash);
  if (stop) { stop.open = true; }
}

window.addEventListener("hashchange", open);
document.addEventListener("htmx:afterSettle", open);
open();
