// The drag test: a few seconds of drags at random, as a test of one's own. At its end it says what vanished on the way.
// Nothing of it is kept.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { isHelper } from "../construction/uses.js";
import { whyGone } from "./vanished.js";
/** @import { Board } from "../board.js" */
/** @import { Places } from "../../figure/types.js" */

const SECONDS = 5;
const BEAT = 0.55; // seconds from one place to the next
const REACH = 0.8; // of the figure's span

export class DragTest {
  /** @type {number | null} */
  #frame = null;
  /** @type {string[]} */
  ids = []; // of the points that are dragged
  home = new Map(); // id -> place, before
  middle = [0, 0]; // of these places, and how far they reach
  span = 0;
  /** @type {Map<string, number[]>[]} */
  targets = []; // where they go, beat by beat
  /** @type {Set<string>} */
  #watched = new Set(); // what is there and seen before, and should be so everywhere
  /** @type {{id: string, why: string, places: Map<string, number[]>} | null} */
  #vanished = null; // the first of it that was gone, why, and where the points lay then
  #positions = 0; // that were shown

  /**
   * parts: store, whose figure is dragged, bar, which says what was seen, show() and paint()
   * @param {Pick<Board, "store" | "bar" | "show" | "paint">} parts
   */
  constructor(parts) {
    this.parts = parts;
  }

  get isOn() {
    return this.#frame !== null;
  }

  start() {
    const { figure } = this.parts.store;
    this.ids = figure.ids.filter((id) => figure.canDrag(id) && figure.isDefined(id));
    if (!this.ids.length) return;
    this.home = new Map(this.ids.map((id) => [id, figure.shape(id)]));
    const places = [...this.home.values()];
    this.middle = [0, 1].map((axis) => places.reduce((sum, at) => sum + at[axis], 0) / places.length);
    this.span = Math.max(2, ...places.map((at) => Math.hypot(at[0] - this.middle[0], at[1] - this.middle[1])));
    const isSeen = (/** @type {string} */ id) =>
      figure.isDefined(id) && !figure.step(id).hidden && !isHelper(figure.step(id));
    this.#watched = new Set(figure.ids.filter(isSeen));
    this.#vanished = null;
    this.#positions = 0;
    const beats = Math.round(SECONDS / BEAT);
    this.targets = [this.home, ...Array.from({ length: beats - 1 }, (_none, beat) => this.#target(beat)), this.home];
    const calm = matchMedia("(prefers-reduced-motion: reduce)").matches;
    let begun = NaN;
    /** @param {number} now */
    const step = (now) => {
      if (Number.isNaN(begun)) begun = now;
      const at = (now - begun) / 1000 / BEAT;
      if (at >= beats) return this.#end();
      this.#put(Math.floor(at), calm ? 0 : smooth(at % 1));
      this.#frame = requestAnimationFrame(step);
    };
    this.#frame = requestAnimationFrame(step);
  }

  stop() {
    this.halt();
    this.parts.store.refresh(); // the figure as it was
  }

  // Stop where it is: somebody takes hold of the figure, which is made anew when that is done.
  halt() {
    if (this.#frame !== null) cancelAnimationFrame(this.#frame);
    this.#frame = null;
  }

  #end() {
    this.stop();
    const { store, bar, show } = this.parts;
    show();
    const gone = this.#vanished;
    if (!gone || !store.figure.has(gone.id))
      return bar.announce(
        _("Nothing vanished in %(n)s positions. Whether it stays right, you see, and the check.", {
          n: this.#positions,
        }),
      );
    const words = _("%(name)s vanished in one position: %(why)s", {
      name: labelOf(store.figure, gone.id),
      why: gone.why,
    });
    bar.announce(words, true, { words: _("Show it"), run: () => this.#putAll(gone.places) });
  }

  /** @param {Map<string, number[]>} places */
  #putAll(places) {
    const { figure } = this.parts.store;
    for (const [id, at] of places) if (figure.has(id)) figure.put(id, at);
    this.parts.paint();
  }

  /**
   * Places for all points: mirrored, nearly in a row, and else anywhere.
   * @param {number} beat
   */
  #target(beat) {
    const [mx, my] = this.middle;
    const places = new Map();
    for (const [id, [x, y]] of this.home) {
      if (beat === 2) places.set(id, [2 * mx - x, y]);
      else if (beat === 5) places.set(id, [x, my + (y - my) * 0.03]);
      else {
        const [angle, way] = [2 * Math.PI * Math.random(), REACH * this.span * Math.sqrt(Math.random())];
        places.set(id, [x + way * Math.cos(angle), y + way * Math.sin(angle)]);
      }
    }
    return places;
  }

  /** @param {number} beat @param {number} share */
  #put(beat, share) {
    // Steps may be undone while it runs.
    for (const id of this.ids.filter((one) => this.parts.store.figure.has(one))) {
      const [from, to] = [this.targets[beat], this.targets[beat + 1]].map((places) => places.get(id) ?? [0, 0]);
      this.parts.store.figure.put(
        id,
        [0, 1].map((axis) => from[axis] + share * (to[axis] - from[axis])),
      );
    }
    this.#look();
    this.parts.paint();
  }

  // Whether everything is there in this position.
  #look() {
    const { figure } = this.parts.store;
    this.#positions += 1;
    if (this.#vanished) return;
    const id = figure.ids.find((one) => this.#watched.has(one) && !figure.isDefined(one));
    if (!id) return;
    const places = new Map(this.ids.filter((one) => figure.has(one)).map((one) => [one, figure.shape(one)]));
    this.#vanished = { id, why: whyGone(figure, id), places };
  }
}

/** @param {number} share */
function smooth(share) {
  return share * share * (3 - 2 * share);
}
