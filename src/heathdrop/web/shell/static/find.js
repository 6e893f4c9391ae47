// A field that finds in a list: what does not hold its words is hidden.
document.addEventListener("input", (event) => {
  const rows = event.target.dataset?.finds;
  if (!rows) { return; }
  const asked = event.target.value.toLowerCase().split(" ").filter(Boolean);
  for (const row of document.querySelectorAll(rows)) {
    const text = row.textContent.toLowerCase();
    row.hidden = !asked.every((word) => text.includes(word));
  }
});
