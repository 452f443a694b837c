// The list of conditions: each a sentence whose blanks are filled by typing or by clicking in the figure.

import { _ } from "../look/language.js";
import { plainButton } from "./plain-button.js";
import { isSame } from "../look/storing.js";
import { blanksOf, blanksIn, fixedIn, pointsIn, termOf, written } from "./sentences.js";
/** @import { Condition, Relation } from "../figure/types.js" */

export class Conditions {
  /**
   * relations: those of the tool book; list: where they stand; names(): those that may stand in a blank;
   * changed(conditions); wrong(words): what was typed is not taken
   * @param {Record<string, Relation>} relations
   * @param {any} list
   * @param {{names: () => Set<string>, changed: (conditions: Condition[]) => void, wrong: (words: string) => void}} on
   */
  constructor(relations, list, { names, changed, wrong }) {
    this.relations = relations;
    this.list = list;
    this.names = names;
    this.changed = changed;
    this.wrong = wrong;
    /** @type {Condition[]} */
    this.all = [];
    /** @type {any} */
    this.blank = null; // the one that was used last
    list.addEventListener("focusin", (/** @type {{target: any}} */ { target }) => {
      if (target.matches("input.term")) this.blank = target;
    });
  }

  /**
   * What is begun here and has an empty blank yet stays where it is; and nothing is put anew that is there already.
   * @param {Condition[]} conditions
   */
  show(conditions) {
    const next = structuredClone(conditions);
    for (const [place, one] of this.all.entries())
      if (isUnfinished(one) && !next.some((other) => isSame(one, other))) next.splice(place, 0, one);
    if (this.list.childElementCount && isSame(next, this.all)) return;
    this.#put(next);
  }

  /** @param {Condition[]} conditions */
  #put(conditions) {
    this.all = conditions;
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
    const made = { rel, of: Array(blanksOf(relation)).fill(""), ...(relation.numbers ? { is: [1, 2] } : {}) };
    this.#put([...this.all, made]);
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
   * A name from the figure goes into the blank that was used last; points come together in one blank. A blank that is full
   * passes the turn on.
   * @param {string} name
   * @param {boolean} isPoint
   */
  point(name, isPoint) {
    if (!this.blank?.isConnected || this.#isFull(this.blank)) this.blank = this.#nextEmpty() ?? this.blank;
    if (!this.blank?.isConnected) return false;
    const sofar = termOf(this.blank.value, this.names());
    const isJoined = isPoint && this.blank.value && this.blank.dataset.points > 1 && !this.#isFull(this.blank);
    this.blank.value = isJoined ? written([sofar, name].flat()) : written(name);
    this.blank.dispatchEvent(new Event("change", { bubbles: true }));
    if (this.#isFull(this.blank)) this.#nextEmpty()?.focus();
    return true;
  }

  // The first blank of the sentence in hand, else of any, that is empty.
  #nextEmpty() {
    const empty = [...this.list.querySelectorAll("input.term")].filter(({ value }) => !value.trim());
    const row = this.blank?.closest("li");
    return empty.find((one) => one.closest("li") === row) ?? empty[0];
  }

  /** @param {any} field */
  #isFull(field) {
    if (!field?.value.trim()) return false;
    const names = [termOf(field.value, this.names())].flat();
    return names.length >= Number(field.dataset.points) || !names.every((name) => /^(?:model:)?[A-Z]/.test(name));
  }

  /** @param {Condition} condition @param {number} place */
  #row(condition, place) {
    const row = document.createElement("li");
    for (const part of blanksIn(this.relations[condition.rel])) row.append(...this.#part(condition, part, place));
    row.append(
      this.#button(_("Remove"), _("Remove condition %(number)s", { number: place + 1 }), () => {
        this.#put(this.all.filter((_one, at) => at !== place));
        this.#changed();
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
    field.dataset.points = String(pointsIn(this.relations[condition.rel], at));
    field.addEventListener("change", () => {
      condition.of[at] = termOf(field.value, this.names());
      this.#changed();
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
      const isNumber = /^[1-9]\d{0,5}$/.test(field.value.trim());
      field.setAttribute("aria-invalid", String(!isNumber));
      field.title = isNumber ? "" : _("a whole number, 1 or more");
      if (!isNumber) return this.wrong(_("A ratio has whole numbers, 1 or more."));
      (condition.is ??= [1, 2])[at] = Number(field.value);
      return this.#changed();
    });
    return field;
  }

  /** @param {Condition} condition */
  #more(condition) {
    condition.of.push("");
    this.#put(this.all);
  }

  // Others get a copy: what is added here is not theirs before it is told.
  #changed() {
    this.changed(structuredClone(this.all));
  }

  /** @param {string} words @param {string} label @param {() => void} onClick */
  #button(words, label, onClick) {
    const button = plainButton(words, onClick);
    button.setAttribute("aria-label", label);
    return button;
  }
}

/**
 * Whether a blank of a condition is empty yet.
 * @param {Condition} condition
 */
export function isUnfinished({ of }) {
  return of.flat().some((/** @type {any} */ term) => term === "");
}
