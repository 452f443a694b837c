// What is in hand: a tool, and the blanks of its sentence filled so far.

import { _ } from "../../look/language.js";
import { blanksOf } from "../construction/tools.js";
/** @import { Blank, Offer, Part, Tool } from "../types.js" */
/** @import { Figure } from "../../figure/figure.js" */

export class Hand {
  /** @type {Tool | null} */
  tool = null;
  /** @type {any[]} */
  filled = []; // ids, and places of notes; null for a blank that was emptied before others
  /** @type {Omit<Offer, "far">[] | null} */
  meetings = null; // two intersections to choose between, once both curves are named

  // The tool, for who knows that there is one.
  get taken() {
    return /** @type {Tool} */ (this.tool);
  }

  /** @param {Tool | null} tool */
  take(tool) {
    this.tool = tool;
    this.filled = [];
    this.meetings = null;
  }

  putDown() {
    this.take(null);
  }
  empty() {
    this.filled = [];
    this.meetings = null;
  }

  /**
   * Empty the blanks that hold what is gone; intersections of it are no choice any more.
   * @param {(id: string) => boolean} isGone
   */
  forget(isGone) {
    for (const [place, id] of this.filled.entries()) if (typeof id === "string" && isGone(id)) this.emptyAt(place);
  }

  /** @param {number} place */
  emptyAt(place) {
    this.meetings = null;
    this.fillAll(this.filled.map((one, at) => (at === place ? null : one)));
  }

  /** @param {any[]} values  null for a blank that stays empty */
  fillAll(values) {
    this.filled = values.slice(0, values.findLastIndex((one) => one !== null) + 1);
  }

  // The place of the blank that is filled next: the first that is empty.
  get #place() {
    const emptied = this.filled.indexOf(null);
    return emptied < 0 ? this.filled.length : emptied;
  }

  get isEmpty() {
    return this.filled.length === 0;
  }

  // Whether what is filled in next makes the sentence whole.
  get isAlmostFull() {
    return this.tool !== null && this.filled.filter((one) => one !== null).length === blanksOf(this.tool).length - 1;
  }

  /**
   * The blanks, with a value in the next one. In an answer that is whole it takes the place of the last of its kind.
   * @param {any} value
   * @param {string} [kind]
   */
  filledWith(value, kind) {
    const place = this.isFull ? this.#rivals.findLastIndex(({ kinds }) => !kind || kinds?.includes(kind)) : this.#place;
    const filled = [...this.filled];
    filled[place] = value;
    return filled;
  }

  // The blanks of an answer, each of which takes another object even when all are filled.
  get #rivals() {
    return this.tool?.make === "answer" ? blanksOf(this.tool) : [];
  }

  // Ready for the next step: a compass keeps its radius, a polyline goes on from its end.
  next() {
    this.filled = (this.taken.keeps ?? []).map((blank) => this.filled[blank]);
    this.meetings = null;
  }

  /** @returns {Blank | null} */
  get blank() {
    if (!this.tool) return null;
    if (this.meetings) return { kind: "which" };
    return blanksOf(this.tool)[this.#place] ?? this.#anyOfAnswer;
  }

  // Of an answer that is whole: what any of its blanks takes.
  get #anyOfAnswer() {
    const blanks = this.#rivals;
    if (!blanks.length) return null;
    return {
      kind: "wanted",
      kinds: blanks.flatMap(({ kinds }) => kinds ?? []),
      own: blanks.every(({ own }) => own),
    };
  }

  get isFull() {
    return this.tool !== null && this.filled.length === blanksOf(this.taken).length && !this.filled.includes(null);
  }

  // The ids in the order of "from".
  get sources() {
    const { order, opening } = this.taken;
    if (opening) return [...this.filled, ...opening];
    return order ? order.map((blank) => this.filled[blank]) : [...this.filled];
  }

  /** @param {Figure} figure @param {string} id */
  fits(figure, id) {
    const kind = figure.kind(id);
    switch (this.blank?.kind) {
      case "point":
        return kind === "point" && !this.#mustDiffer(id);
      case "point or line":
        return kind !== "circle" && !this.filled.includes(id);
      case "any":
        return true;
      case "wanted":
        return Boolean(this.blank.kinds?.includes(kind)) && !this.filled.includes(id);
      case "draggable":
        return figure.canDrag(id);
      case "straight":
        return kind !== "point" && kind !== "circle" && !this.filled.includes(id);
      case "curve":
        return kind !== "point" && !this.filled.includes(id);
      case "place":
        return kind !== "point";
      case "circle":
        return kind === "circle" && !this.filled.includes(id);
      default:
        return false;
    }
  }

  /**
   * Whether an object stands in the sentence already where the next blank needs another one. The tool book says which
   * sources of a make have to be different; of other tools all have to, but where a blank says that it takes one again.
   * @param {string} id
   */
  #mustDiffer(id) {
    if (this.blank?.again) return false;
    const { different } = this.taken;
    const next = this.#place;
    return this.filled.some(
      (one, blank) =>
        one === id && (!different || different.some((pair) => pair.includes(blank) && pair.includes(next))),
    );
  }

  /**
   * The sentence: words and blanks; offer is what a click would take now.
   * @param {(id: string) => string} labelOf
   * @param {string} offer
   */
  parts(labelOf, offer) {
    if (!this.tool) return [_("Take a tool, or drag a point.")];
    let blank = 0;
    /** @type {Part[]} */
    const parts = this.tool.say.map((part) => {
      if (typeof part === "string") return part;
      const place = blank++;
      const filled = this.filled[place] ?? null;
      if (filled !== null) return { filled: typeof filled === "string" ? labelOf(filled) : _("here"), place };
      return place === this.#place && !this.meetings
        ? {
            next: part.as
              ? _("%(kind)s, as %(name)s", { kind: roleWords(part.kind), name: part.as })
              : roleWords(part.kind),
            offer,
          }
        : { open: true };
    });
    if (this.meetings) parts.push(_(", at"), { next: _("1 or 2"), offer: offer || "1 2" });
    return parts;
  }
}

/** @param {string} kind */
function roleWords(kind) {
  /** @type {Record<string, string>} */
  const words = {
    point: _("a point"),
    draggable: _("a point"),
    straight: _("a line, ray or segment"),
    curve: _("a curve"),
    circle: _("a circle"),
    place: _("a place"),
    "point or line": _("a point, or a line, ray or segment"),
    any: _("an object"),
    wanted: _("an object"),
    spot: _("a place"),
    words: _("words"),
  };
  return words[kind];
}
