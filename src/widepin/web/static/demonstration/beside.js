// A demonstration beside the board: opened and closed by a button, loaded when it is first wanted.

import { find } from "../look/page.js";

const aside = find(".demonstration.beside");
const opener = find("[data-beside]");

/** @param {boolean} isOpen */
async function show(isOpen) {
  aside.hidden = !isOpen;
  document.body.classList.toggle("with-demonstration", isOpen);
  opener.setAttribute("aria-expanded", String(isOpen));
  if (!isOpen) return opener.focus();
  await import("./show.js");
  find("[data-on]", aside).focus();
}

aside.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
  if (event.key !== "Escape") return;
  event.stopPropagation();
  show(false);
});
opener.addEventListener("click", () => show(aside.hidden));
find("[data-close]", aside).addEventListener("click", () => show(false));
