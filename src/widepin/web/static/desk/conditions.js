// The list of conditions: each a sentence whose blanks are filled by typing or by clicking in the figure.

import { _ } from "../look/language.js";
import { plainButton } from "./plain-button.js";
import { blanksOf, blanksIn, fixedIn, joins, termOf, written } from "./sentences.js";
/** @import { Condition, Relation } from "../figure/types.js" */

export class Conditions {
  /**
   * relations: those of the tool book; list: where they stand; names(): those that may stand in a blank; changed(conditions)
   * @param {Record<string, Relation>} relations
   * @param {any} list
   * @param {() => Set<string>} names
   * @param {(conditions: Condition[]) => void} changed
   */
  constructor(relations, list, names, changed) {
    this.relations = relations;
    this.list = list;
    this.names = names;
    this.changed = changed;
    /** @type {Condition[]} */
    this.all = [];
    /** @type {any} */
    this.blank = null; // the one that was used last
    list.addEventListener("focusin", (/** @type {{target: any}} */ { target }) => {
      if (target.matches("input.term")) this.blank = target;
    });
  }

  /** @param {Condition[]} conditions */
  show(conditions) {
    this.all = structuredClone(conditions);
    this.blank = null;
    this.list.replaceChildren(...this.all.map((one, place) => this.#row(one, place)));
    if (!this.all.length) {
      const empty = document.createElement("li");
      empty.className = "quiet-note";
      empty.textContent = _("No conditions yet.");
      this.list.append(empty);
    }
  }

  /** @param {string} rel */
  add(rel) {
    const relation = this.relations[rel];
    this.all.push({ rel, of: Array(blanksOf(relation)).fill(""), ...(relation.numbers ? { is: [1, 2] } : {}) });
    this.show(this.all);
    this.list.lastElementChild.querySelector("input").focus();
  }

  /**
   * Mark what is wrong, by its place in the document; null for nothing.
   * @param {string | undefined} place
   */
  mark(place) {
    const number = Number(place?.match(/^conditions\[(\d+)\]/)?.[1] ?? -1);
    [...this.list.children].forEach((row, at) => row.classList.toggle("bad", at === number));
  }

  /**
   * A name from the figure goes into the blank that was used last; points come together in one blank.
   * @param {string} name
   * @param {boolean} isPoint
   */
  point(name, isPoint) {
    if (!this.blank?.isConnected) return false;
    const sofar = termOf(this.blank.value, this.names());
    const isJoined = isPoint && this.blank.value && this.blank.dataset.joins;
    this.blank.value = isJoined ? written([sofar, name].flat()) : written(name);
    this.blank.dispatchEvent(new Event("change", { bubbles: true }));
    return true;
  }

  /** @param {Condition} condition @param {number} place */
  #row(condition, place) {
    const row = document.createElement("li");
    for (const part of blanksIn(this.relations[condition.rel])) row.append(...this.#part(condition, part, place));
    row.append(
      this.#button(_("Remove"), _("Remove condition %(number)s", { number: place + 1 }), () => {
        this.all.splice(place, 1);
        this.show(this.all);
        this.changed(this.all);
      }),
    );
    return row;
  }

  /** @param {Condition} condition @param {any} part @param {number} place */
  #part(condition, part, place) {
    if (typeof part === "string") return [part];
    if (part.blank === "n" || part.blank === "d") return [this.#number(condition, part.blank === "n" ? 0 : 1)];
    if (part.blank !== "all") return [this.#blank(condition, Number(part.blank))];
    const first = fixedIn(this.relations[condition.rel]);
    const terms = condition.of
      .map((_term, at) => this.#blank(condition, at))
      .slice(first)
      .flatMap((blank, at) => [...(at ? [_(" and ")] : []), blank]);
    return [
      ...terms,
      this.#button("+", _("One more in condition %(number)s", { number: place + 1 }), () => this.#more(condition)),
    ];
  }

  /** @param {Condition} condition @param {number} at */
  #blank(condition, at) {
    const field = document.createElement("input");
    field.className = "term form-control";
    field.value = condition.of[at] === "" ? "" : written(condition.of[at]);
    field.setAttribute("aria-label", _("Blank %(number)s", { number: at + 1 }));
    field.size = 7;
    if (joins(this.relations[condition.rel], at)) field.dataset.joins = "yes";
    field.addEventListener("change", () => {
      condition.of[at] = termOf(field.value, this.names());
      this.changed(this.all);
    });
    return field;
  }

  /** @param {Condition} condition @param {number} at */
  #number(condition, at) {
    const field = document.createElement("input");
    field.className = "form-control short";
    field.inputMode = "numeric";
    field.value = String(condition.is?.[at] ?? "");
    field.setAttribute("aria-label", at ? _("to so many") : "so many");
    field.addEventListener("change", () => {
      const numbers = condition.is ?? [];
      numbers[at] = Number.parseInt(field.value, 10) || 0;
      this.changed(this.all);
    });
    return field;
  }

  /** @param {Condition} condition */
  #more(condition) {
    condition.of.push("");
    this.show(this.all);
  }

  /** @param {string} words @param {string} label @param {() => void} onClick */
  #button(words, label, onClick) {
    const button = plainButton(words, onClick);
    button.setAttribute("aria-label", label);
    return button;
  }
}
