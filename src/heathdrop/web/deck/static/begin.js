// A plan that is still being worked out takes seconds: the button says so, and is pressed once.
import { by } from "../shell/dom.js";
import { forgetPage } from "./reload.js";

forgetPage();

document.addEventListener("submit", (event) => {
  const button = event.target.querySelector(".begin");
  if (!button) { return; }
  by("begun").textContent = "Getting the stops ready ...";
  document.querySelectorAll(".begin").forEach((b) => { b.disabled = true; });
});
