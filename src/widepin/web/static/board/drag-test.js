// The drag test: a few seconds of drags at random, as a test of one's own. Nothing of it is kept.

/** @import { Board } from "./board.js" */
/** @import { Places } from "../figure/types.js" */

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

  /**
   * parts: store, whose figure is dragged, and paint()
   * @param {Pick<Board, "store" | "paint">} parts
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
    const beats = Math.round(SECONDS / BEAT);
    this.targets = [this.home, ...Array.from({ length: beats - 1 }, (_, beat) => this.#target(beat)), this.home];
    const calm = matchMedia("(prefers-reduced-motion: reduce)").matches;
    let begun = NaN;
    /** @param {number} now */
    const step = (now) => {
      if (Number.isNaN(begun)) begun = now;
      const at = (now - begun) / 1000 / BEAT;
      if (at >= beats) return this.stop();
      this.#put(Math.floor(at), calm ? 0 : smooth(at % 1));
      this.#frame = requestAnimationFrame(step);
    };
    this.#frame = requestAnimationFrame(step);
  }

  stop() {
    if (this.#frame !== null) cancelAnimationFrame(this.#frame);
    this.#frame = null;
    this.parts.store.refresh(); // the figure as it was
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
    this.parts.paint();
  }
}

/** @param {number} share */
function smooth(share) {
  return share * share * (3 - 2 * share);
}
