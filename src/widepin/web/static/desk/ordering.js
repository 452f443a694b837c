// Lines that are put in order: by buttons, which keys and fingers reach as well, or by dragging with the mouse.

import { find, findAll } from "../look/page.js";

for (const list of findAll("[data-order]")) {
  /** @type {any} */
  let dragged = null;

  const show = () => {
    const rows = [...list.children];
    for (const [place, row] of rows.entries()) {
      find("[data-up]", row).disabled = place === 0;
      find("[data-down]", row).disabled = place === rows.length - 1;
    }
  };
  /** @param {any} row @param {any} before @param {any} button */
  const move = (row, before, button) => {
    list.insertBefore(row, before);
    show();
    (button.disabled ? find("button:not(:disabled)", row) : button).focus();
  };

  list.addEventListener("click", (/** @type {{target: any}} */ { target }) => {
    const row = target.closest("li");
    if (target.matches("[data-up]")) move(row, row.previousElementSibling, target);
    if (target.matches("[data-down]")) move(row, row.nextElementSibling.nextElementSibling, target);
  });
  for (const row of list.children) row.draggable = true;
  list.addEventListener("dragstart", (/** @type {any} */ event) => {
    dragged = event.target.closest("li");
    event.dataTransfer.effectAllowed = "move";
  });
  list.addEventListener("dragover", (/** @type {any} */ event) => {
    const over = event.target.closest("li");
    if (!dragged || !over || over === dragged) return;
    event.preventDefault();
    const { top, height } = over.getBoundingClientRect();
    list.insertBefore(dragged, event.clientY < top + height / 2 ? over : over.nextElementSibling);
  });
  list.addEventListener("dragend", () => {
    dragged = null;
    show();
  });
  show();
}
