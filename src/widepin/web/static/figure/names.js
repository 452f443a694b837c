// Where names stand: beside what they name, and clear of points and other names where there is room.

import { labelOf, middleOf, rounded, visiblePart } from "./drawing.js";

const FROM_POINT = 20,
  FROM_CURVE = 11; // pixels
const MARK = 8; // half the width of a point's mark, in pixels
const TURNS = [0, 45, -45, 90, -90, 135, -135, 180].map((turn) => (turn * Math.PI) / 180);
const AROUND = [45, 135, -45, -135, 90, 0, 180].map((angle) => (angle * Math.PI) / 180);
const SHARES = { segment: [0.42, 0.62, 0.25, 0.78], ray: [0.12, 0.3, 0.55, 0.8], line: [0.12, 0.3, 0.7, 0.88] };

export class Names {
  #taken = []; // boxes [left, top, right, bottom]

  constructor(figure, view, width, height) {
    this.figure = figure;
    this.view = view;
    this.size = [width, height];
  }

  // The names of these points and curves, each {id, role}, with where they stand: {id, name, x, y, classes}.
  labels(points, curves) {
    const centre = middleOf(this.figure);
    for (const { id } of points) {
      const [x, y] = this.view.toScreen(...this.figure.shape(id));
      this.#taken.push([x - MARK, y - MARK, x + MARK, y + MARK]);
    }
    return [
      ...points.map(({ id, role }) => this.#label(id, this.#besidePoint(id, centre), ["label", ...role].join(" "), 11)),
      ...curves.map(({ id }) => this.#label(id, this.#besideCurve(id), "label quiet", 8)),
    ];
  }

  // The first of the places that is free, or else the first; half: of the height of a letter.
  #label(id, places, classes, half) {
    const { figure } = this;
    const name = labelOf(figure, id);
    const [aside, below] = figure.step(id).name_at ?? [0, 0];
    const wide = 3 + half * 0.42 * name.length;
    /** @returns {[number, number, number, number]} */
    const box = ([x, y]) => [x - wide, y - half, x + wide, y + half];
    // A name that was dragged aside stays where it was put.
    const place = (figure.step(id).name_at ? null : places.find((one) => this.#isFree(box(one)))) ?? places[0];
    this.#taken.push(box([place[0] + aside, place[1] + below]));
    return { id, name, x: rounded(place[0] + aside), y: rounded(place[1] + below + half * 0.55), classes };
  }

  #isFree([left, top, right, bottom]) {
    const [width, height] = this.size;
    if (left < 0 || top < 0 || right > width || bottom > height) return false;
    return !this.#taken.some((other) => left < other[2] && right > other[0] && top < other[3] && bottom > other[1]);
  }

  // Away from the middle of the figure, or turned from there.
  #besidePoint(id, centre) {
    const shape = this.figure.shape(id);
    const [x, y] = this.view.toScreen(...shape);
    const away = Math.atan2(-(shape[1] - centre[1]), shape[0] - centre[0]);
    return TURNS.map((turn) => [x + FROM_POINT * Math.cos(away + turn), y + FROM_POINT * Math.sin(away + turn)]);
  }

  #besideCurve(id) {
    const { figure, view } = this;
    const kind = figure.kind(id),
      shape = figure.shape(id);
    if (kind === "circle") {
      const [x, y] = view.toScreen(shape[0], shape[1]);
      const far = Math.sqrt(shape[2]) * view.scale + FROM_CURVE;
      return AROUND.map((angle) => [x + far * Math.cos(angle), y - far * Math.sin(angle)]);
    }
    const [x1, y1, x2, y2] = visiblePart(kind, shape, view, ...this.size);
    const length = Math.hypot(x2 - x1, y2 - y1) || 1;
    const [nx, ny] = [(FROM_CURVE * (y2 - y1)) / length, (-FROM_CURVE * (x2 - x1)) / length];
    return SHARES[kind].flatMap((share) =>
      [1, -1].map((side) => [x1 + share * (x2 - x1) + side * nx, y1 + share * (y2 - y1) + side * ny]),
    );
  }
}
