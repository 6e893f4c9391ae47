// The size board is one stop of the Tab key: arrows move to the neighbour they point at, space or Enter chooses,
// C (or a touch after *compare*) holds a pair beside the chosen one, or takes it off again.
import { by, form } from "../shell/dom.js";

const STEPS = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] };

function cellAt(board, row, column) {
  return board.tBodies[0].rows[row]?.cells[column]?.querySelector("input");
}

document.addEventListener("keydown", (event) => {
  const here = event.target.closest(".board input");
  if (!here) { return; }
  if (event.key === "Enter") { event.preventDefault(); here.click(); return; }
  if (event.key === "c" && !event.ctrlKey && !event.metaKey) { event.preventDefault(); beside(here); return; }
  const step = STEPS[event.key];
  if (!step) { return; }
  event.preventDefault();
  const cell = here.closest("td");
  const board = here.closest("table");
  let row = cell.parentElement.sectionRowIndex + step[0];
  let column = cell.cellIndex + step[1];
  // A pair that the box has not is stepped over.
  while (row >= 0 && row < board.tBodies[0].rows.length && column > 0 && column < board.rows[0].cells.length) {
    const next = cellAt(board, row, column);
    if (next) {
      here.tabIndex = -1;
      next.tabIndex = 0;
      next.focus();
      return;
    }
    row += step[0];
    column += step[1];
  }
});

let comparing = false;

function sayComparing() {
  by("comparing")?.setAttribute("aria-pressed", String(comparing));
  by("board")?.classList.toggle("comparing", comparing);
}

function beside(cell) {
  by("touched").value = cell.value;
  htmx.trigger(form(), "refresh");
}

document.addEventListener("click", (event) => {
  if (event.target.closest("#comparing")) { comparing = !comparing; sayComparing(); return; }
  const cell = comparing && event.target.closest(".board .cell");
  if (!cell) { return; }
  event.preventDefault();
  // A radio that is touched stays checked until its click is over: only then is the form asked.
  window.setTimeout(() => beside(cell.querySelector("input")));
}, true);

document.addEventListener("htmx:afterSettle", sayComparing);
