// What lies under the pointer, the likeliest first: points, intersections that have no mark yet, curves.

import { nearestPlace } from "./figure.js";
/** @import { Figure } from "./figure.js" */
/** @import { Hit, Place, Shape } from "./types.js" */
/** @import { View } from "./view.js" */

const MAX_CURVES = 24; // of which all intersections are shown at once
const ONE = 1e-6; // centimetres within which two places are one

export class Hits {
  /** @param {Figure} figure @param {View} view @param {(id: string) => boolean} isHidden */
  constructor(figure, view, isHidden) {
    this.figure = figure;
    this.view = view;
    this.isHidden = isHidden;
  }

  /** @param {(id: string) => boolean} isKind */
  #visible(isKind) {
    const { figure } = this;
    return figure.ids.filter((id) => isKind(id) && figure.isDefined(id) && !this.isHidden(id));
  }

  /** @param {Hit[]} list @param {number} reach */
  #near(list, reach) {
    return list.filter(({ far }) => far <= reach).sort((a, b) => a.far - b.far);
  }

  /** @param {Shape} shape @param {number} px @param {number} py */
  #far(shape, px, py) {
    const [x, y] = this.view.toScreen(shape[0], shape[1]);
    return Math.hypot(x - px, y - py);
  }

  /** @param {Place} place @param {number} reach */
  points([px, py], reach) {
    const ids = this.#visible((id) => this.figure.isPoint(id));
    return this.#near(
      ids.map((id) => ({ type: "object", id, far: this.#far(this.figure.shape(id), px, py) })),
      reach,
    );
  }

  /** @param {Place} place @param {number} reach */
  curves([px, py], reach) {
    const paper = this.view.toPaper(px, py);
    const ids = this.#visible((id) => !this.figure.isPoint(id));
    return this.#near(
      ids.map((id) => {
        const at = nearestPlace(this.figure.kind(id), this.figure.shape(id), paper);
        return { type: "object", id, at, far: this.#far(at, px, py) };
      }),
      reach,
    );
  }

  /**
   * Intersections near the pointer where no point is marked.
   * @param {Place} place
   * @param {number} reach
   */
  intersections([px, py], reach) {
    const close = this.curves([px, py], reach * 2)
      .slice(0, 8)
      .map(({ id }) => id);
    const marked = this.#visible((id) => this.figure.isPoint(id));
    const found = [];
    for (let i = 0; i < close.length; i++) {
      for (let j = i + 1; j < close.length; j++) {
        const from =
          this.figure.ids.indexOf(close[i]) < this.figure.ids.indexOf(close[j])
            ? [close[i], close[j]]
            : [close[j], close[i]];
        found.push(...this.meetings(from));
      }
    }
    const free = found.filter(({ at }) => {
      const [x, y] = this.view.toScreen(...at);
      return !marked.some((id) => this.#far(this.figure.shape(id), x, y) < 1);
    });
    return this.#near(
      free.map((one) => ({ ...one, far: this.#far(one.at, px, py) })),
      reach,
    );
  }

  // Every intersection of visible curves where no point is marked; pairs beyond a bound are left to the pointer.
  allIntersections() {
    const curves = this.#visible((id) => !this.figure.isPoint(id)).slice(-MAX_CURVES);
    const points = this.#visible((id) => this.figure.isPoint(id)).map((id) => this.figure.shape(id));
    const pairs = curves.flatMap((a, i) => curves.slice(i + 1).map((b) => [a, b]));
    return pairs
      .flatMap((pair) => this.meetings(pair))
      .map(({ at }) => at)
      .filter(([x, y]) => !points.some(([px, py]) => Math.hypot(px - x, py - y) < ONE));
  }

  /**
   * The one or two places where two curves meet, as steps without an id.
   * @param {string[]} from
   * @returns {Omit<Hit, "far">[]}
   */
  meetings(from) {
    const round = from.some((id) => this.figure.kind(id) === "circle");
    return (round ? [1, 2] : [undefined])
      .map((pick) => ({ make: "intersection", from, ...(pick ? { pick } : {}) }))
      .map((step) => ({ type: "intersection", step, at: this.figure.preview(step) }))
      .filter(({ at }) => at.every(Number.isFinite));
  }
}
