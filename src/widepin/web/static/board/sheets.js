// In a small window: the sheet with the steps, which is pulled up over the paper, and the controls of the view. One of
// them is open at a time. In a large window both stand beside the paper, and none of this is seen.

import { find } from "../look/page.js";

/** @type {Record<string, string>} */
const SHEETS = { steps: "steps-pulled", more: "more-open" };

export class Sheets {
  /** @param {any} page */
  constructor(page) {
    this.page = page;
    this.last = find(".pull span", page);
    for (const place of [".cards", ".paper"])
      find(place, page).addEventListener("pointerdown", () => this.close("more"), { capture: true });
    find(".cards", page).addEventListener("click", () => this.close("steps"));
    if (page.querySelector(".brief-slip[open]")) this.toggle("steps"); // what is to be constructed is read first
  }

  /** @param {string} name */
  isOpen(name) {
    return this.page.classList.contains(SHEETS[name]);
  }

  /** @param {string} name */
  toggle(name) {
    const isOpen = !this.isOpen(name);
    for (const other of Object.keys(SHEETS)) this.#set(other, other === name && isOpen);
  }

  /** @param {string} name */
  close(name) {
    this.#set(name, false);
  }

  // Whether there was something to close.
  closeAny() {
    const open = Object.keys(SHEETS).filter((name) => this.isOpen(name));
    for (const name of open) this.close(name);
    return open.length > 0;
  }

  /**
   * words: the last step, which is read without pulling the sheet up
   * @param {string} words
   */
  show(words) {
    this.last.textContent = words;
  }

  /** @param {string} name @param {boolean} isOpen */
  #set(name, isOpen) {
    this.page.classList.toggle(SHEETS[name], isOpen);
    find(`[data-do="${name}"]`, this.page).setAttribute("aria-expanded", String(isOpen));
  }
}
