// The card's one button.
import { by } from "./dom.js";

by("print").addEventListener("click", () => window.print());
