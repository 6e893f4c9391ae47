// The plan: a stop that is pointed at in the board opens below it.
function open() {
  const stop = window.location.hash.startsWith("#stop-") && document.querySelector(window.location.hash);
  if (stop) { stop.open = true; }
}

window.addEventListener("hashchange", open);
document.addEventListener("htmx:afterSettle", open);
open();

// A stop is dragged by its grip to its place in the day, or moved by arrow keys.
function place(list, from, to) {
  if (to < 0 || to >= list.children.length || to === from) { return; }
  htmx.ajax("POST", `/plan/${list.dataset.plan}`, {
    target: "#main", select: "#main", swap: "outerHTML show:none",
    values: { token: list.dataset.token, do: "move", stop: from, to },
  });
}
const where = (row) => [...row.parentElement.children].indexOf(row);
let dragged = null;
let from = 0;
document.addEventListener("pointerdown", (event) => {
  const grip = event.target.closest(".grip");
  if (!grip) { return; }
  event.preventDefault();
  grip.focus();
  grip.setPointerCapture(event.pointerId);
  dragged = grip.closest("li");
  from = where(dragged);
  dragged.classList.add("dragged");
});
document.addEventListener("pointermove", (event) => {
  if (!dragged) { return; }
  const over = [...dragged.parentElement.children].filter((row) => row !== dragged);
  const next = over.find((row) => {
    const box = row.getBoundingClientRect();
    return event.clientY < box.y + box.height / 2;
  });
  dragged.parentElement.insertBefore(dragged, next || null);
});
document.addEventListener("pointerup", () => {
  if (!dragged) { return; }
  dragged.classList.remove("dragged");
  place(dragged.parentElement, from, where(dragged));
  dragged = null;
});
document.addEventListener("keydown", (event) => {
  const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  const row = step && event.target.closest(".grip")?.closest("li");
  if (row) { event.preventDefault(); place(row.parentElement, where(row), where(row) + step); }
});
