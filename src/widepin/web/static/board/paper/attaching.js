// A point of one's own that is dragged onto a curve or an intersection is attached to it when it is dropped there; with
// Shift it is not. A point that slides on a curve is taken to the intersections of that.

import { _ } from "../../look/language.js";
import { byHand } from "../../look/touch.js";
import { labelOf } from "../../figure/outlines.js";
import { hitsBeside, pointOf, reachOf } from "./offers.js";
/** @import { Board } from "../board.js" */
/** @import { Offer } from "../types.js" */
/** @import { Place, Step } from "../../figure/types.js" */

const ON_CURVE = 0.6; // of the reach of the pointer: how near a curve takes hold of a point that is dragged past it
const BESIDE = 3; // times the reach: what a point was perhaps meant to be dropped on

export class Attaching {
  /** @type {Step | null} */
  #step = null; // how it would be made
  /** @type {Place | null} */
  #place = null; // where the pointer was last
  #isFree = false; // with Shift

  /**
   * @param {Pick<Board, "store" | "paper" | "bar" | "pointed">} parts
   * @param {string} id
   * @param {string} pointerType
   */
  constructor({ store, paper, bar, pointed }, id, pointerType) {
    this.store = store;
    this.paper = paper;
    this.bar = bar;
    this.pointed = pointed;
    this.id = id;
    this.reach = reachOf(pointerType);
    this.isOwn = store.isOwn(id);
  }

  /**
   * The point is dragged to a place: where it is held there, null where it is free. isFree: it lands on nothing.
   * @param {Place} place
   * @param {boolean} isFree
   * @returns {Place | null}
   */
  at(place, isFree) {
    if (!this.isOwn) return null;
    this.#place = place;
    this.#isFree = isFree;
    const target = isFree ? null : this.#targetAt(place);
    const step = target && { ...pointOf(target), id: this.id };
    if (tied(step) !== tied(this.#step)) this.#say(step);
    this.#step = step;
    return target ? target.at : null;
  }

  /**
   * The nearest intersection, else the nearest curve, within reach; of a point that slides only its own intersections.
   * @param {Place} place
   * @returns {Offer | null}
   */
  #targetAt(place) {
    const { store, paper, id, reach } = this;
    const { make, from } = store.figure.step(id);
    const hits = hitsBeside(store, paper.view, id);
    const meetings = hits.intersections(place, reach);
    if (make === "point_on") return meetings.find(({ step }) => step?.from?.includes(from[0])) ?? null;
    if (meetings.length) return meetings[0];
    const [curve] = hits.curves(place, reach * ON_CURVE);
    return curve ? { ...curve, type: "slide" } : null;
  }

  // The step that it is made by from now on; null where it stays as it was.
  end() {
    const step = this.#step;
    this.#step = null;
    this.pointed.at({ trial: null });
    return step;
  }

  /** @param {Step | null} step */
  #say(step) {
    this.pointed.at({ trial: step });
    if (this.bar.isTrouble) return; // why something has vanished is worth more
    const [first, second] = (step?.from ?? []).map((/** @type {string} */ one) => labelOf(this.store.figure, one));
    this.bar.announce(
      !step
        ? ""
        : step.make === "intersection"
          ? _("Drop it to make it the intersection of %(first)s and %(second)s.", { first, second })
          : byHand(
              _("Drop it to attach it to %(first)s; with Shift it stays free.", { first }),
              _("Drop it to attach it to %(first)s.", { first }),
            ),
    );
  }

  /** @param {{id: string, make: string, from?: string[]}} step */
  said({ id, make, from = /** @type {string[]} */ ([]) }) {
    /** @param {string} one */
    const name = (one) => labelOf(this.store.figure, one);
    const [first, second] = from.map(name);
    return make === "intersection"
      ? _("%(id)s is the intersection of %(first)s and %(second)s now.", { id: name(id), first, second })
      : byHand(
          _("%(id)s is attached to %(first)s now. Undo takes it back; with Shift it is pulled away.", {
            id: name(id),
            first,
          }),
          _("%(id)s is attached to %(first)s now. Undo takes it back; its menu detaches it.", { id: name(id), first }),
        );
  }

  // Of a point that was dropped beside something, or on it with Shift: that it is not attached. Nothing where it lies free.
  saidOfMiss() {
    const { store, paper, id, isOwn } = this;
    const { figure } = store;
    if (!isOwn || !this.#place || figure.step(id).make !== "free_point") return "";
    const hits = hitsBeside(store, paper.view, id);
    const [point] = hits.points(this.#place, this.reach).filter((one) => one.id !== id);
    const [curve] = hits.curves(this.#place, BESIDE * this.reach);
    const beside = point ?? curve;
    if (!beside?.id) return "";
    const names = { id: labelOf(figure, id), other: labelOf(figure, beside.id) };
    if (point) return _("%(id)s lies at %(other)s as drawn, and does not move along with it.", names);
    return this.#isFree
      ? _("%(id)s stays free: with Shift it is not attached to %(other)s.", names)
      : _("%(id)s stays free: it lies beside %(other)s, not on it.", names);
  }
}

/**
 * What a step ties a point to, as text.
 * @param {Step | null} step
 */
function tied(step) {
  return step ? [step.make, ...(step.from ?? []), step.pick].join(" ") : "";
}
