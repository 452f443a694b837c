// A free point of one's own that is held on a curve or an intersection is attached to it when it is dropped there.

import { _ } from "../look/language.js";
import { labelOf } from "../figure/outlines.js";
import { hitsBeside, pointOf, reachOf } from "./offers.js";
/** @import { Board } from "./board.js" */
/** @import { Place } from "../figure/types.js" */

const HELD = 600; // milliseconds that a point stays over what it is to be attached to
const STILL = 6; // pixels that it may wander meanwhile

export class Attaching {
  /** @type {number | undefined} */
  #timer;
  #place = [0, 0]; // where the point was when it came to rest
  /** @type {import("../figure/types.js").Step | null} */
  #step = null; // how it would be made

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
    this.pointerType = pointerType;
    this.isPossible = store.isOwn(id) && store.figure.step(id).make === "free_point";
  }

  /**
   * The point is dragged to a place.
   * @param {Place} place
   */
  at(place) {
    if (!this.isPossible) return;
    if (this.#place && Math.hypot(place[0] - this.#place[0], place[1] - this.#place[1]) < STILL) return;
    this.#place = place;
    this.#forget();
    this.#timer = setTimeout(() => this.#hold(), HELD);
  }

  // The step that it is made by from now on; null where it stays free.
  end() {
    const step = this.#step;
    clearTimeout(this.#timer);
    this.pointed.at({ trial: null });
    return step;
  }

  /** @param {{id: string, make: string, from?: string[]}} step */
  said({ id, make, from = /** @type {string[]} */ ([]) }) {
    /** @param {string} one */
    const name = (one) => labelOf(this.store.figure, one);
    const [first, second] = from.map(name);
    return make === "intersection"
      ? _("%(id)s is the intersection of %(first)s and %(second)s now.", { id: name(id), first, second })
      : _("%(id)s is attached to %(first)s. Drag it with Shift to pull it away.", { id: name(id), first });
  }

  #forget() {
    clearTimeout(this.#timer);
    if (!this.#step) return;
    this.#step = null;
    this.pointed.at({ trial: null });
    this.bar.announce("");
  }

  #hold() {
    const { store, paper, id } = this;
    const { figure } = store;
    const hits = hitsBeside(store, paper.view, id);
    const reach = reachOf(this.pointerType);
    const [meeting] = hits.intersections(this.#place, reach);
    const [curve] = hits.curves(this.#place, reach);
    const target = meeting ?? (curve && { ...curve, type: "slide" });
    if (!target) return;
    const { from = [], ...made } = { id, ...pointOf(target) };
    this.#step = { ...made, from };
    const names = from.map((/** @type {any} */ one) => labelOf(figure, one));
    this.bar.announce(
      meeting
        ? _("Drop it to make it the intersection of %(first)s and %(second)s.", { first: names[0], second: names[1] })
        : _("Drop it to attach it to %(first)s.", { first: names[0] }),
    );
    this.pointed.at({ trial: this.#step });
  }
}
