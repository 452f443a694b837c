// Where names stand: beside what they name, and clear of points and other names where there is room.

import { labelOf, middleOf, rounded, visiblePart } from "./outlines.js";
/** @import { Figure } from "./figure.js" */
/** @import { Place, Places } from "./types.js" */
/** @import { View } from "./view.js" */

const FROM_POINT = 20,
  FROM_CURVE = 11; // pixels
const CROSSED = 30; // square pixels: as bad as it is when a line runs through a name
const NEAR = 0.7; // of half the height of a letter
const MOST_LINES = 30; // of which names of points keep off
const MARK = 8; // half the width of a point's mark, in pixels
const TURNS = [0, 45, -45, 90, -90, 135, -135, 180].map((turn) => (turn * Math.PI) / 180);
const AROUND = [45, 135, -45, -135, 90, 0, 180].map((angle) => (angle * Math.PI) / 180);
/** @type {Record<string, number[]>} */
const SHARES = {
  segment: [0.42, 0.62, 0.25, 0.78],
  ray: [0.12, 0.3, 0.55, 0.8, 0.92],
  line: [0.12, 0.3, 0.7, 0.88, 0.2, 0.8, 0.42, 0.58],
};

export class Names {
  /** @type {number[][]} */
  #taken = []; // boxes [left, top, right, bottom]
  /** @type {number[][]} */
  #lines = []; // the parts of straight curves that are seen, [x1, y1, x2, y2], which names of points keep off

  /** @param {Figure} figure @param {View} view @param {number} width @param {number} height */
  constructor(figure, view, width, height) {
    this.figure = figure;
    this.view = view;
    /** @type {[number, number]} */
    this.size = [width, height];
  }

  /**
   * The names of these points and curves, each {id, role}, with where they stand: {id, name, x, y, classes, aside}.
   * @param {{id: string, role: Set<string>}[]} points
   * @param {{id: string, role: Set<string>}[]} curves
   */
  labels(points, curves) {
    const centre = middleOf(this.figure);
    for (const { id } of points) {
      const [x, y] = this.view.toScreen(...this.figure.shape(id));
      this.#taken.push([x - MARK, y - MARK, x + MARK, y + MARK]);
    }
    const straight = curves.filter(({ id }) => this.figure.kind(id) !== "circle").slice(0, MOST_LINES);
    this.#lines = straight.flatMap(({ id }) => {
      const seen = visiblePart(this.figure.kind(id), this.figure.shape(id), this.view, ...this.size);
      return seen ? [seen] : [];
    });
    return [
      ...points.map(({ id, role }) => this.#label(id, this.#besidePoint(id, centre), ["label", ...role].join(" "), 11)),
      ...curves.map(({ id }) => this.#label(id, this.#besideCurve(id), "label quiet", 8)),
    ];
  }

  /**
   * The first of the places that is free, or else the one that covers least of the others; half: of the height of a
   * letter. Places are worked out one by one, since in most cases the first will do.
   * @param {string} id
   * @param {{count: number, placeAt: (n: number) => Place}} where
   * @param {string} classes
   * @param {number} half
   */
  #label(id, { count, placeAt }, classes, half) {
    const { figure } = this;
    const name = labelOf(figure, id);
    const [aside, below] = figure.step(id).name_at ?? [0, 0];
    const wide = 3 + half * 0.42 * name.length;
    let place = placeAt(0);
    // A name that was dragged aside stays where it was put.
    const isOfPoint = figure.isPoint(id);
    let covered = figure.step(id).name_at ? 0 : this.#covered(place, wide, half, isOfPoint);
    for (let n = 1; n < count && covered > 0; n++) {
      const other = placeAt(n);
      const less = this.#covered(other, wide, half, isOfPoint);
      if (less < covered) [place, covered] = [other, less];
    }
    const [x, y] = [place[0] + aside, place[1] + below];
    this.#taken.push([x - wide, y - half, x + wide, y + half]);
    const [x0, y0] = placeAt(0); // from where it is dragged aside
    return { id, name, x: rounded(x), y: rounded(y + half * 0.55), classes, aside: [x - x0, y - y0] };
  }

  /**
   * How much of a name at a place would lie on others or outside the paper, in square pixels; 0 where it is free.
   * @param {Place} place
   * @param {number} wide
   * @param {number} half
   * @param {boolean} isOfPoint
   */
  #covered([x, y], wide, half, isOfPoint) {
    const [width, height] = this.size;
    const left = x - wide,
      top = y - half,
      right = x + wide,
      bottom = y + half;
    const across = Math.max(0, Math.min(right, width) - Math.max(left, 0));
    const down = Math.max(0, Math.min(bottom, height) - Math.max(top, 0));
    let area = 4 * wide * half - across * down;
    for (const other of this.#taken)
      if (left < other[2] && right > other[0] && top < other[3] && bottom > other[1])
        area +=
          (Math.min(right, other[2]) - Math.max(left, other[0])) *
          (Math.min(bottom, other[3]) - Math.max(top, other[1]));
    if (isOfPoint) for (const line of this.#lines) if (distance(line, x, y) < half * NEAR) area += CROSSED;
    return area;
  }

  /**
   * Away from the middle of the figure, or turned from there.
   * @param {string} id
   * @param {Place} centre
   */
  #besidePoint(id, centre) {
    const shape = this.figure.shape(id);
    const [x, y] = this.view.toScreen(...shape);
    const away = Math.atan2(-(shape[1] - centre[1]), shape[0] - centre[0]);
    /** @param {number} n */
    const placeAt = (n) => [x + FROM_POINT * Math.cos(away + TURNS[n]), y + FROM_POINT * Math.sin(away + TURNS[n])];
    return { count: TURNS.length, placeAt };
  }

  /** @param {string} id */
  #besideCurve(id) {
    const { figure, view } = this;
    const kind = figure.kind(id),
      shape = figure.shape(id);
    if (kind === "circle") {
      const [x, y] = view.toScreen(shape[0], shape[1]);
      const far = Math.sqrt(shape[2]) * view.scale + FROM_CURVE;
      return {
        count: AROUND.length,
        placeAt: (/** @type {number} */ n) => [x + far * Math.cos(AROUND[n]), y - far * Math.sin(AROUND[n])],
      };
    }
    const [x1, y1, x2, y2] = visiblePart(kind, shape, view, ...this.size) ?? [0, 0, 0, 0];
    const length = Math.hypot(x2 - x1, y2 - y1) || 1;
    const [nx, ny] = [(FROM_CURVE * (y2 - y1)) / length, (-FROM_CURVE * (x2 - x1)) / length];
    /** @param {number} n */
    const placeAt = (n) => {
      const share = SHARES[kind][n >> 1],
        side = n % 2 ? -1 : 1; // first on one side of the line, then on the other
      return [x1 + share * (x2 - x1) + side * nx, y1 + share * (y2 - y1) + side * ny];
    };
    return { count: 2 * SHARES[kind].length, placeAt };
  }
}

/**
 * How far a place is from a part of a line.
 * @param {number[]} part
 * @param {number} x
 * @param {number} y
 */
function distance([x1, y1, x2, y2], x, y) {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const share = Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - x1 - share * dx, y - y1 - share * dy);
}
