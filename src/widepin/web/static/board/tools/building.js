// Building: blanks are filled by pointing or typing, and a full sentence becomes a step.

import { _, ngettext } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { listed } from "../../figure/listed.js";
import { Hits } from "../../figure/hits.js";
import { nearestPlace } from "../../figure/figure.js";
import { rounded } from "../../figure/log.js";
import { byHand, isTouch } from "../../look/touch.js";
import { fits, insteadOf, pointOf } from "../paper/offers.js";
import { makeOf } from "../construction/tools.js";
import { isHelper, useOf } from "../construction/uses.js";
import { whyNoIntersection } from "../examining/vanished.js";
/** @import { Board } from "../board.js" */
/** @import { ClassTool } from "../types.js" */
/** @import { Made, NewStep, Place, Shape, Step } from "../../figure/types.js" */

export const HASTE = 900; // milliseconds in which Enter is meant for the name that was taken by itself just now
const PLACE = /^\(?\s*(-?\d+(?:\.\d+)?)\s*[,; ]\s*(-?\d+(?:\.\d+)?)\s*\)?$/; // 3.5, 4
const PLACE_WITH_COMMAS = /^\(?\s*(-?\d+(?:,\d+)?)\s*[;|]\s*(-?\d+(?:,\d+)?)\s*\)?$/; // 3,5; 4
/** @type {Record<string, string>} */
const MADE_AS = { intersection: "intersection", slide: "point_on", free: "free_point" }; // what is pointed at
const ONE = 1e-6; // centimetres within which two places are one
/** @type {((at: Shape, number: number) => Place)[]} */
const SHAKEN = [
  ([x, y], number) => [x + 0.37 + 0.11 * number, y - 0.23 + 0.07 * number],
  ([x, y], number) => [x - 0.29 * number, y + 0.41],
]; // other positions of the figure, in each of which its points lie otherwise
const PROBES = [
  [90, 40],
  [-70, 50],
  [30, -80],
  [-20, -60],
]; // of which two curves that are one have the same nearest places

export class Building {
  #filledAt = 0; // when a blank was filled last
  /**
   * parts: store, hand, tools, pointed, paper, bar, show()
   * @param {Board} parts
   * @param {Pick<Board, "selection" | "handingIn">} asked
   */
  constructor(parts, { selection, handingIn }) {
    this.parts = parts;
    this.store = parts.store;
    this.hand = parts.hand;
    this.bar = parts.bar;
    this.paper = parts.paper;
    this.selection = selection;
    this.handingIn = handingIn;
  }

  get figure() {
    return this.store.figure;
  }

  /** @param {NewStep} step */
  add(step) {
    this.store.perform({ op: "add", step });
    return step.id;
  }

  /**
   * Make steps another way, all at once.
   * @param {Step[]} steps
   */
  remakeAll(steps) {
    this.store.asOneAction(() => {
      for (const step of steps) this.store.perform({ op: "remake", step });
    });
    const names = listed(steps.map(({ id }) => labelOf(this.figure, id)));
    this.bar.announce(
      _("%(names)s is made the other way now. Drag the figure to see it hold; Undo takes it back.", { names }),
    );
  }

  /**
   * Fill the next blank with what was pointed at or named; a place or intersection becomes a point first. All that comes
   * of it is undone at once.
   * @param {any} choice
   */
  fill(choice) {
    this.store.asOneAction(() => this.#fill(choice));
  }

  /** @param {any} choice */
  #fill(choice) {
    const { hand } = this;
    if (hand.meetings) return this.mark(hand.meetings[choice.which - 1].step);
    if (hand.blank?.kind === "place") return this.#point(choice);
    if (hand.blank?.kind === "spot") return this.#startNote(choice.at);
    if (hand.taken.make === "select several") {
      this.bar.clear();
      return this.selection.toggle(choice.id);
    }
    if (hand.taken.make === "intersection" && choice.type === "intersection") return this.mark(choice.step);
    const id = choice.type === "object" ? choice.id : this.#pointFor(choice);
    if (id === null) return;
    const isChanged = hand.isFull;
    hand.filled = hand.filledWith(id, this.figure.kind(id));
    this.#filledAt = performance.now();
    if (hand.taken.make === "move")
      this.bar.announce(
        byHand(_("Arrow keys move it, with Shift ten times as far. Esc lets go of it."), _("Drag it where you like.")),
      );
    const newPoint = choice.type === "object" ? null : id;
    if (newPoint) this.#announcePoint(newPoint);
    if (hand.isFull) this.#complete(newPoint);
    if (isChanged) this.bar.announce(_("%(name)s is pointed out instead.", { name: labelOf(this.figure, id) }));
    this.#shown();
  }

  #shown() {
    this.bar.clear();
    this.parts.show();
  }

  /** @param {any} choice */
  #pointFor(choice) {
    const put = () => this.add({ id: this.store.newId(MADE_AS[choice.type]), ...pointOf(choice) });
    if (choice.type === "intersection") return put();
    if (!this.store.mayPutPoints(this.parts.tools)) {
      this.bar.announce(_("This task has no free points; take an intersection or a point that is there."), true);
      return null;
    }
    if (choice.at.every(Number.isFinite)) return put();
    const name = labelOf(this.figure, choice.id);
    this.bar.announce(_("%(name)s is undefined in this position; put the point when it is there.", { name }), true);
    return null;
  }

  /** @param {any} choice */
  #point(choice) {
    const place =
      choice.type === "object" ? { type: "slide", id: choice.id, at: choice.at ?? this.#middleOf(choice.id) } : choice;
    const id = this.#pointFor(place);
    if (id !== null) this.#announcePoint(id);
    this.#shown();
  }

  /**
   * What a point became that was put: on a curve, an intersection, or anywhere; and what it could be instead. also: what
   * else there is to say.
   * @param {string} id
   * @param {string} [also]
   */
  #announcePoint(id, also = "") {
    const { figure } = this;
    const { make, from = [] } = figure.step(id);
    const [first, second] = from.map((one) => labelOf(figure, one));
    /** @type {Record<string, () => string>} */
    const said = {
      free_point: () => _("%(id)s is a free point.", { id }),
      point_on: () => _("%(id)s is a point on %(first)s.", { id, first }),
      intersection: () => _("%(id)s is the intersection of %(first)s and %(second)s.", { id, first, second }),
    };
    this.bar.announce(`${said[make]()} ${also}`.trim(), false, this.#change(id, also));
  }

  /**
   * The button that makes a new point what else may have been meant.
   * @param {string} id
   * @param {string} also
   */
  #change(id, also) {
    const { store, figure, paper } = this;
    const instead = insteadOf(figure.step(id), { store, view: paper.view }, isTouch() ? "touch" : "mouse");
    if (!instead) return null;
    /** @param {string} one */
    const name = (one) => labelOf(figure, one);
    /** @type {Record<string, () => string>} */
    const words = {
      intersection: () =>
        _("Intersection of %(first)s and %(second)s instead", {
          first: name(instead.step.from[0]),
          second: name(instead.step.from[1]),
        }),
      slide: () => _("Point on %(name)s instead", { name: name(instead.id) }),
      free: () => _("Free point instead"),
    };
    const run = () => {
      store.perform({ op: "remake", step: { id, ...pointOf(instead) } });
      this.#announcePoint(id, also);
      this.bar.focus();
    };
    return { words: words[String(instead.type)](), run };
  }

  /** @param {string} id */
  #middleOf(id) {
    return nearestPlace(this.figure.kind(id), this.figure.shape(id), this.paper.view.toPaper(...this.paper.middle));
  }

  /**
   * newPoint: the point that was just put to fill the last blank, or null
   * @param {string | null} newPoint
   */
  #complete(newPoint) {
    const { hand } = this;
    const { make } = hand.taken;
    if (make === "move") return;
    if (make === "answer") return this.handingIn.answered();
    if (make === "intersection") return this.#intersect();
    if (hand.taken.gauge) return this.#measure();
    if (hand.taken.pairs) return this.#markEqual();
    if (hand.taken.classTool) return this.#use(newPoint);
    const one = this.#alwaysOne();
    if (one) {
      hand.emptyAt(hand.filled.length - 1);
      return this.bar.announce(
        _("%(first)s and %(second)s lie in one place in every position: another point is needed.", {
          first: labelOf(this.figure, one[0]),
          second: labelOf(this.figure, one[1]),
        }),
        true,
      );
    }
    const { most = null, isForeign, name: tool } = hand.taken;
    const step = { id: this.store.newId(makeOf(hand.taken)), make: makeOf(hand.taken), from: hand.sources };
    hand.next();
    const there = this.#drawnAlready(step);
    if (there)
      return this.bar.announce(_("That is %(name)s, which is there already.", { name: labelOf(this.figure, there) }));
    this.add(step);
    if (isForeign)
      this.bar.announce(
        _("Students of this task do not have %(tool)s; the sample solution may use it.", { tool }),
        true,
      );
    else this.#announceDrawn([step.id], newPoint);
    if (most !== null && this.store.used(hand.taken) >= most) hand.putDown();
  }

  /**
   * Two points of the sentence that have to differ, and lie in one place wherever the figure is dragged; null where there
   * are none.
   */
  #alwaysOne() {
    const { figure, hand } = this;
    const { different = [] } = hand.taken;
    const pairs = different
      .map((blanks) => blanks.map((blank) => hand.filled[blank]))
      .filter((pair) => pair.every((id) => id && figure.isPoint(id)));
    /** @param {string[]} pair */
    const isOne = ([a, b]) => {
      const [[ax, ay], [bx, by]] = [figure.shape(a), figure.shape(b)];
      return !(Math.hypot(ax - bx, ay - by) > ONE); // undefined ones do not lie apart either
    };
    const draggable = figure.ids.filter((id) => figure.canDrag(id) && figure.isDefined(id));
    return (
      pairs.find(
        (pair) =>
          isOne(pair) &&
          SHAKEN.every((shake) => {
            const places = draggable.map((id, number) => [id, shake(figure.shape(id), number)]);
            return figure.elsewhere(Object.fromEntries(places), () => isOne(pair));
          }),
      ) ?? null
    );
  }

  /**
   * The object that a step would draw once more: made from the same, and lying in the same place.
   * @param {{make: string, from: string[]}} step
   */
  #drawnAlready({ make, from }) {
    const { figure } = this;
    const shape = figure.preview({ make, from });
    return figure.ids.find((id) => {
      const known = figure.step(id);
      if (known.make !== make || known.from?.length !== from.length || isHelper(known)) return false;
      if (known.from.every((one, place) => one === from[place])) return true;
      return known.from.every((one) => from.includes(one)) && this.#isSame(id, shape);
    });
  }

  /**
   * Whether an object lies where a shape of its kind does, in whatever direction either runs.
   * @param {string} id
   * @param {Shape} shape
   */
  #isSame(id, shape) {
    const { figure } = this;
    const kind = figure.kind(id);
    /** @param {Place} a @param {Place} b */
    const apart = (a, b) => Math.max(...a.map((number, place) => Math.abs(number - b[place])));
    if (kind === "point" || kind === "circle") return apart(figure.shape(id), shape) < ONE;
    return PROBES.every((at) => apart(nearestPlace(kind, figure.shape(id), at), nearestPlace(kind, shape, at)) < ONE);
  }

  /** @param {string | null} newPoint */
  #use(newPoint) {
    const { hand, store } = this;
    /** @param {string} make @param {Set<string>} taken */
    const newId = (make, taken) => store.newId(make, taken);
    const operation = useOf(/** @type {ClassTool} */ (hand.taken.classTool), hand.sources, [...store.taken], newId);
    hand.next();
    store.perform(operation);
    this.#announceDrawn(operation.gives, newPoint);
  }

  /** @param {string[]} ids @param {string | null} newPoint */
  #announceDrawn(ids, newPoint) {
    const gone = ids.find((id) => !this.figure.isDefined(id));
    const words = gone
      ? _("%(gone)s is undefined in this position.", { gone })
      : ngettext("%(names)s is drawn.", "%(names)s are drawn.", ids.length, { names: listed(ids) });
    if (newPoint && !gone) this.#announcePoint(newPoint, words);
    else this.bar.announce(words, Boolean(gone));
  }

  #measure() {
    const of = [...this.hand.filled];
    this.hand.empty();
    this.store.perform({ op: "measure", of });
    this.bar.announce(_("It is measured. A measure costs no move."));
  }

  #markEqual() {
    const { filled, taken } = this.hand;
    const of = [filled.slice(0, taken.pairs), filled.slice(taken.pairs)];
    this.hand.empty();
    const isNothing = of.some((term) => new Set(term).size < term.length) || of[0].join() === of[1].join();
    if (isNothing) return this.bar.announce(_("Two different lengths or angles can be equal."), true);
    this.store.perform({ op: "mark equal", of });
    this.bar.announce(_("Marked. Dashes say that it is believed; they close where it holds in every position."));
  }

  // -- notes --------------------------------------------------------------------------------------

  /** @param {Place} at */
  #startNote(at) {
    this.hand.filled = this.hand.filledWith({ at: rounded(at) });
    this.parts.pointed.offer = null;
    this.bar.announce(_("Write the note, then press Enter."));
    this.#shown();
    this.bar.focus();
  }

  /** @param {string} text */
  #write(text) {
    const [{ at }] = this.hand.filled;
    this.hand.putDown();
    this.bar.clear();
    const note = crypto.getRandomValues(new Uint32Array(1))[0].toString(36);
    this.store.perform({ op: "note", note, text, at });
    this.bar.announce(_("The note is on the paper; drag it where you like."));
  }

  // -- intersections ------------------------------------------------------------------------------

  #intersect() {
    const { hand } = this;
    const all = new Hits(this.figure, this.paper.view, () => false).meetings([...hand.filled]);
    const meetings = all.filter(({ at }) => !this.#markedAt(at));
    if (meetings.length === 2) {
      hand.meetings = meetings;
      const off = meetings.findIndex(({ at }) => !this.paper.isInView(at));
      this.bar.announce(
        off < 0
          ? byHand(
              _("Both intersections are numbered on the board: type 1 or 2, or point at one."),
              _("Both intersections are numbered on the board: tap one."),
            )
          : byHand(
              _("Intersection %(which)s lies off the paper: Fit brings it in. Type 1 or 2, or point at one.", {
                which: off + 1,
              }),
              _("Intersection %(which)s lies off the paper: Fit brings it in. Tap one.", { which: off + 1 }),
            ),
      );
    } else if (meetings.length === 1) {
      this.mark(meetings[0].step);
    } else {
      const filled = [...hand.filled];
      hand.empty();
      const words = all.length
        ? _("%(point)s is marked there already.", { point: this.#markedAt(all[0].at) })
        : whyNoIntersection(this.figure, filled);
      this.bar.announce(words, true);
    }
  }

  /** @param {Place} at */
  #markedAt(at) {
    const { figure } = this;
    return figure.ids.find(
      (id) =>
        figure.isPoint(id) &&
        figure.isDefined(id) &&
        !isHelper(figure.step(id)) &&
        Math.hypot(figure.shape(id)[0] - at[0], figure.shape(id)[1] - at[1]) < ONE,
    );
  }

  /** @param {Made} step */
  mark(step) {
    const id = this.add({ id: this.store.newId("intersection"), ...step });
    this.hand.empty();
    const isHere = this.paper.isInView(this.figure.shape(id));
    this.bar.announce(
      isHere ? _("%(id)s is marked.", { id }) : _("%(id)s is marked, off the paper: Fit brings it in.", { id }),
    );
    this.#shown();
  }

  // -- typing -------------------------------------------------------------------------------------

  /** @param {string} text @param {boolean} isFinal */
  typed(text, isFinal) {
    const { hand, figure } = this;
    const name = text.trim();
    if (hand.meetings) {
      if (name === "1" || name === "2") this.fill({ which: Number(name) });
      return;
    }
    if (hand.blank?.kind === "words") {
      if (isFinal && name) this.#write(name);
      return;
    }
    const place = name.match(PLACE_WITH_COMMAS) ?? name.match(PLACE);
    if (place && isFinal && ["point", "place", "spot"].includes(hand.blank?.kind ?? "") && !hand.blank?.there)
      return this.fill({ type: "free", at: [place[1], place[2]].map((one) => Number(one.replace(",", "."))) });
    const ids = figure.ids.filter((id) => fits(this.parts, id));
    const exact = ids.find((id) => labelOf(figure, id) === name) ?? ids.find((id) => id === name);
    const longer = ids.some(
      (id) => id !== exact && !this.store.isHidden(id) && (id.startsWith(name) || labelOf(figure, id).startsWith(name)),
    );
    if (exact && (isFinal || !longer)) return this.fill({ type: "object", id: exact });
    const { offer } = this.parts.pointed;
    // A new point is put by a click: Enter may have been meant for something else.
    if (isFinal && !name && offer && !["free", "slide"].includes(offer.type ?? "")) return this.fill(offer);
    if (isFinal && !name && performance.now() - this.#filledAt < HASTE) return;
    if (isFinal)
      this.bar.announce(name ? this.#misnamed(name) : _("Type the name of what is meant, or point at it."), true);
    this.parts.pointed.at({ highlighted: exact ?? null });
  }

  /** @param {string} name */
  #misnamed(name) {
    if (!this.figure.has(name)) return _("There is no %(name)s on the board.", { name });
    return _("%(name)s is a %(kind)s; it does not fit here.", { name, kind: this.figure.kind(name) });
  }

  /**
   * Move the point in hand by so many centimetres.
   * @param {number} dx
   * @param {number} dy
   */
  nudge(dx, dy) {
    const [id] = this.hand.filled;
    const [x, y] = this.figure.shape(id);
    this.store.perform({ op: "move", points: { [id]: rounded([x + dx, y + dy]) } });
  }
}
