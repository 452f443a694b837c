// The sentence bar: the tool in hand as a sentence with blanks. The next blank is a field to type a name into.

import { _ } from "../../look/language.js";
/** @import { Part } from "../types.js" */
export class SentenceBar {
  /**
   * on: typed(text) for every change, entered(text) for Enter, emptied(place) for a blank whose cross was pressed
   * @param {any} bar
   * @param {{typed: (text: string) => void, entered: (text: string) => void, emptied: (place: number) => void}} on
   */
  constructor(bar, on) {
    this.say = bar.querySelector(".sentence");
    this.hint = bar.querySelector(".hint");
    this.takeIt = document.createElement("button");
    this.takeIt.type = "button";
    this.takeIt.className = "btn btn-main take-it";
    this.takeIt.textContent = _("Select");
    this.takeIt.hidden = true;
    this.takeIt.addEventListener("click", () => this.onTake?.());
    this.say.after(this.takeIt);
    this.field = document.createElement("input");
    this.hasFocus = false;
    this.on = on;
    this.field.className = "blank next";
    this.field.autocomplete = "off";
    this.field.spellcheck = false;
    this.field.maxLength = 30;
    this.field.addEventListener("input", () => on.typed(this.field.value));
    this.field.addEventListener("keydown", (event) => {
      if (event.key !== "Enter") return;
      event.preventDefault();
      on.entered(this.field.value);
    });
  }

  /**
   * parts: words, {filled: name, place}, {next: role, offer: name under the pointer} or {open: true}
   * @param {Part[]} parts
   */
  show(parts) {
    // Between two sentences there may be one without a blank; focus comes back with the next blank.
    const lost = this.hasFocus && document.activeElement === document.body;
    this.hasFocus = document.activeElement === this.field || lost;
    this.said = parts.map((part) => (typeof part === "string" ? part : "filled" in part ? part.filled : "…")).join(" ");
    this.say.replaceChildren(...parts.map((part) => this.#part(part)));
    if (this.hasFocus) this.focus();
  }

  /** @param {any} part */
  #part(part) {
    if (part.next) {
      this.field.maxLength = part.next === "words" ? 200 : 30;
      this.field.classList.toggle("wide", part.next === "words");
      this.field.placeholder = part.offer ?? "";
      const spoken = _("%(sentence)s Next, %(next)s: type its name", { sentence: this.said, next: part.next });
      this.field.setAttribute("aria-label", spoken);
      this.field.style.width = `${Math.max(3, (part.offer ?? "").length * 0.62 + 1.6)}rem`;
      return this.field;
    }
    const span = document.createElement("span");
    span.className = part.filled ? "blank filled" : part.open ? "blank" : "word";
    span.textContent = part.filled ?? (part.open ? "·" : part);
    if (part.filled) span.append(this.#cross(part));
    return span;
  }

  /** @param {{filled: string, place: number}} part */
  #cross({ filled, place }) {
    const cross = Object.assign(document.createElement("button"), { type: "button", className: "empty-it" });
    cross.setAttribute("aria-label", _("Empty this blank: %(name)s", { name: filled }));
    cross.addEventListener("click", () => this.on.emptied(place));
    return cross;
  }

  /**
   * A button that takes what is offered; null when there is nothing to ask.
   * @param {(() => void) | null} onTake
   */
  askToTake(onTake) {
    this.onTake = onTake;
    this.takeIt.hidden = onTake === null;
  }

  get isTrouble() {
    return this.hint.classList.contains("trouble") && this.hint.textContent !== "";
  }

  clear() {
    this.field.value = "";
  }
  focus() {
    if (this.field.isConnected) this.field.focus({ preventScroll: true });
  }

  /**
   * change: what could have been meant instead, as {words, run()}; it is offered as a button behind the words.
   * @param {string} words
   * @param {boolean} [isTrouble]
   * @param {{words: string, run: () => void} | null} [change]
   */
  announce(words, isTrouble = false, change = /** @type {{words: string, run: () => void} | null} */ (null)) {
    this.hint.classList.toggle("trouble", isTrouble);
    if (!change) return this.hint.replaceChildren(words);
    const button = Object.assign(document.createElement("button"), { type: "button", textContent: change.words });
    button.className = "instead";
    button.addEventListener("click", () => change.run());
    this.hint.replaceChildren(words, " ", button);
  }
}
