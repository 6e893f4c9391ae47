// On a phone long lists are folded: a piece of the box opens at a touch, and what is roomy is closed until it is
// asked for. What was opened stays open when the page's answer comes anew.
const narrow = window.matchMedia("(max-width: 760px)");
const opened = new Set();

document.documentElement.classList.add("scripted");

function fold() {
  document.querySelectorAll("details[data-roomy]").forEach((part) => {
    if (narrow.matches && !opened.has(part.id)) { part.removeAttribute("open"); }
  });
  document.querySelectorAll(".items tr").forEach((row) => {
    const open = opened.has(row.id);
    row.classList.toggle("unfolded", open);
    row.querySelector(".unfold")?.setAttribute("aria-expanded", String(open));
  });
}

document.addEventListener("toggle", (event) => {
  if (!event.target.matches?.("details[data-roomy]")) { return; }
  if (event.target.open) { opened.add(event.target.id); } else { opened.delete(event.target.id); }
}, true);
document.addEventListener("click", (event) => {
  const row = event.target.closest(".unfold")?.closest("tr");
  if (!row) { return; }
  if (opened.has(row.id)) { opened.delete(row.id); } else { opened.add(row.id); }
  fold();
});
// One explanation at a time; Escape or a touch elsewhere closes it.
document.addEventListener("click", (event) => {
  document.querySelectorAll(".about[open]").forEach((about) => {
    if (!about.contains(event.target)) { about.open = false; }
  });
});
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") { document.querySelectorAll(".about[open]").forEach((about) => { about.open = false; }); }
});
document.addEventListener("htmx:afterSettle", fold);
narrow.addEventListener("change", fold);
fold();
