// A figure: steps linked end to end by their tapes, evaluated whole in every frame of a drag.

import { parentsOf } from "./log.js";
import { referenceOf } from "./tape.js";
/** @import { Made, NewStep, Place, Places, Shape, Step } from "./types.js" */
/** @import { ToolBook } from "./tape.js" */

/**
 * An object: its tape, and the objects and numbers that this is played on. inputs: x and y of a free point, the parameter
 * of one that slides.
 * @typedef {{tape: import("./tape.js").Tape, parents: Linked[], inputs: number[], step: Step, kind: string, shape: Shape}} Linked
 */

export class Figure {
  /** @type {Map<string, Linked>} */
  #objects = new Map();

  /** @param {ToolBook} book @param {Step[]} [steps] */
  constructor(book, steps = []) {
    this.book = book;
    for (const step of steps) this.add(step);
  }

  get ids() {
    return [...this.#objects.keys()];
  }
  /** @param {string} id */
  has(id) {
    return this.#objects.has(id);
  }
  /** @param {string} id */
  step(id) {
    return this.#object(id).step;
  }
  /** @param {string} id */
  kind(id) {
    return this.#object(id).kind;
  }
  /** @param {string} id */
  shape(id) {
    return this.#object(id).shape;
  }
  /** @param {string} id */
  isDefined(id) {
    return this.shape(id).every(Number.isFinite);
  }
  /** @param {string} id */
  isPoint(id) {
    return this.kind(id) === "point";
  }
  /** @param {string} id */
  canDrag(id) {
    return ["free_point", "point_on"].includes(this.step(id).make);
  }

  /**
   * A step and all that it is made from, each once.
   * @param {string} id
   */
  madeFrom(id) {
    const found = new Set([id]);
    for (const one of found) for (const parent of parentsOf(this.step(one))) found.add(parent);
    return [...found];
  }

  /** @param {NewStep} step */
  add(step) {
    /** @type {any} */
    const object = {
      step,
      kind: this.book.makes[step.make].gives,
      inputs: this.#inputs(step, step.at),
      ...this.#linked(step),
    };
    object.shape = play(object);
    this.#objects.set(step.id, object);
  }

  /**
   * The shape that a step would make, without adding it.
   * @param {Made} step
   */
  preview(step) {
    return play({ ...this.#linked(step), inputs: this.#inputs(step, step.at) });
  }

  /**
   * The shapes that steps would make one after the other, by their ids, without adding them.
   * @param {NewStep[]} steps
   */
  previewAll(steps) {
    for (const step of steps) this.add(step);
    const shapes = new Map(steps.map(({ id }) => [id, this.shape(id)]));
    for (const { id } of steps) this.#objects.delete(id);
    return shapes;
  }

  /**
   * Put a draggable point at a place; a sliding one at the nearest place on its curve.
   * @param {string} id
   * @param {Place} at
   */
  put(id, at) {
    const object = this.#object(id);
    const inputs = this.#inputs(object.step, at);
    if (inputs.every(Number.isFinite)) object.inputs = inputs;
    this.evaluate();
  }

  /**
   * The places of a point, [x, y], while a sliding one takes these parameters. The figure is left as it was.
   * @param {string} driver
   * @param {number[]} parameters
   * @param {string} point
   */
  sweep(driver, parameters, point) {
    const object = this.#object(driver);
    const { inputs } = object;
    const needed = new Set(this.madeFrom(point));
    const chain = [...this.#objects.entries()].filter(([id]) => needed.has(id)).map(([, one]) => one);
    const shapes = chain.map(({ shape }) => shape);
    const places = parameters.map((parameter) => {
      object.inputs = [parameter];
      for (const one of chain) one.shape = play(one);
      return this.shape(point);
    });
    object.inputs = inputs;
    for (const [number, one] of chain.entries()) one.shape = shapes[number];
    return places;
  }

  /**
   * Make a sliding point a free one where it lies, until the figure is made anew.
   * @param {string} id
   */
  detach(id) {
    const object = this.#object(id);
    const step = { ...object.step, make: "free_point", from: undefined, at: object.shape };
    Object.assign(object, { step, inputs: this.#inputs(step, step.at), ...this.#linked(step) });
  }

  /**
   * What read() finds while points lie elsewhere: id -> place. The figure is left as it was.
   * @param {Places} points
   * @param {() => any} read
   */
  elsewhere(points, read) {
    const places = Object.entries(points).filter(([id]) => this.has(id) && this.canDrag(id));
    const before = places.map(([id]) => this.#object(id).inputs);
    for (const id of this.ids) if (points[id] && this.canDrag(id)) this.put(id, points[id]);
    const found = read();
    for (const [number, [id]] of places.entries()) this.#object(id).inputs = before[number];
    this.evaluate();
    return found;
  }

  evaluate() {
    for (const object of this.#objects.values()) object.shape = play(object);
  }

  /** @param {string} id @returns {Linked} */
  #object(id) {
    return /** @type {Linked} */ (this.#objects.get(id));
  }

  /**
   * The tape of a step, and the objects that its inputs come from.
   * @param {Made} step
   */
  #linked(step) {
    const sources = step.from ?? [];
    const kinds = sources.map((id) => this.kind(id));
    const reference = step.make === "intersection" && kinds.includes("circle") ? referenceOf(step) : null;
    const parents = [...sources, ...(reference ? [reference.id] : [])].map((id) => this.#object(id));
    return { tape: this.book.tape(this.book.key(step, kinds)), parents };
  }

  /** @param {Made} step @param {any} at */
  #inputs(step, at) {
    const count = this.book.makes[step.make].inputs;
    if (count === 0) return [];
    if (step.parameter !== undefined) return [step.parameter];
    if (count === 2) return at;
    const [curve] = step.from ?? [];
    return [parameterAt(this.kind(curve), this.shape(curve), at)];
  }
}

/**
 * The shape of an object: its tape, played on the shapes of its parents and its own inputs.
 * @param {Pick<Linked, "tape" | "parents" | "inputs">} object
 */
function play({ tape, parents, inputs }) {
  const values = [];
  for (const { shape } of parents) for (const value of shape) values.push(value);
  for (const value of inputs) values.push(value);
  return tape.play(values);
}

/**
 * The parameter of the place on a curve nearest to a point: an angle, or a multiple of the way.
 * @param {string} kind
 * @param {Shape} line
 * @param {Place} place
 */
function parameterAt(kind, [x, y, dx, dy], [px, py]) {
  if (kind === "circle") return Math.atan2(py - y, px - x);
  const t = ((px - x) * dx + (py - y) * dy) / (dx * dx + dy * dy);
  if (kind === "line") return t;
  return kind === "ray" ? Math.max(0, t) : Math.min(1, Math.max(0, t));
}

/**
 * The place on a curve that is nearest to a point.
 * @param {string} kind
 * @param {Shape} shape
 * @param {Place} paper
 */
export function nearestPlace(kind, shape, paper) {
  const t = parameterAt(kind, shape, paper);
  if (kind !== "circle") return [shape[0] + t * shape[2], shape[1] + t * shape[3]];
  const r = Math.sqrt(shape[2]);
  return [shape[0] + r * Math.cos(t), shape[1] + r * Math.sin(t)];
}
