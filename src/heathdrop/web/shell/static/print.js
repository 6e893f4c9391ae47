// The one button that prints the page.
import { by } from "./dom.js";

by("print").addEventListener("click", () => window.print());
