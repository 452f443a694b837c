// A demonstration on the paper: a construction shown up to a frame, which can be dragged at any of them.

import { Drawing, looksOf } from "./drawing.js";
import { outlineOf } from "./outlines.js";
import { Figure } from "./figure.js";
import { measureMarks } from "./measuring.js";
import { View } from "./view.js";
/** @import { Place } from "./types.js" */
/** @import { ToolBook } from "./tape.js" */

const MARGIN = 0.12; // share of the window around the figure

export class Frames {
  view = new View(); // until it is painted
  at = 0; // the frame that is shown
  looks = new Map(); // id -> how an object is shown by then
  /** @type {string[][]} */
  measures = [];
  dragged = () => {}; // to be called when a point was dragged

  /**
   * document: a demonstration; svg: where it is drawn
   * @param {ToolBook} book
   * @param {any} document
   * @param {any} svg
   */
  constructor(book, document, svg) {
    this.book = book;
    this.document = document;
    this.drawing = new Drawing(svg);
    this.figure = new Figure(book, [...document.given, ...document.steps]);
    this.outline = outlineOf(this.figure);
    new ResizeObserver(() => this.paint()).observe(svg);
    this.go(0);
  }

  get frames() {
    return this.document.frames;
  }
  get frame() {
    return this.frames[this.at];
  }
  get isLast() {
    return this.at === this.frames.length - 1;
  }

  /**
   * Show a frame: its steps, its points where it or the last frame before has put them, and what was said of looks so far.
   * @param {number} number
   */
  go(number) {
    this.at = Math.max(0, Math.min(this.frames.length - 1, number));
    const { given, steps } = this.document;
    this.figure = new Figure(this.book, [...given, ...steps]);
    this.looks = new Map();
    this.measures = this.frames
      .slice(0, this.at + 1)
      .flatMap((/** @type {{measures?: string[][]}} */ { measures = [] }) => measures);
    for (const { points = {}, dress = {} } of this.frames.slice(0, this.at + 1)) {
      for (const [id, at] of Object.entries(points)) if (this.figure.has(id)) this.figure.put(id, at);
      for (const [id, look] of Object.entries(dress)) this.looks.set(id, { ...this.looks.get(id), ...look });
    }
    this.paint();
  }

  // The points that can be dragged, where they lie now.
  get places() {
    const ids = this.figure.ids.filter((id) => this.figure.canDrag(id) && this.figure.isDefined(id));
    return Object.fromEntries(ids.map((id) => [id, this.figure.shape(id)]));
  }

  /**
   * What makeDraggable asks for.
   * @param {string} id
   * @param {Place} at
   */
  put(id, at) {
    this.figure.put(id, at);
    this.dragged();
    this.paint();
  }
  /** @param {string} id */
  isHidden(id) {
    return this.#roles()(id).has("hidden");
  }

  paint() {
    const [width, height] = this.drawing.size();
    if (!width) return;
    const view = this.#viewOfFrame();
    this.view = view ? View.fitted(view, width, height, 0) : View.fitted(this.outline, width, height, MARGIN);
    const extras = this.measures
      .filter((of) => of.every((id) => this.figure.has(id) && !this.isHidden(id)))
      .flatMap((of) => measureMarks(this.figure, this.view, of));
    this.drawing.draw(this.figure, this.view, this.#roles(), { extras });
  }

  #viewOfFrame() {
    return this.frames.slice(0, this.at + 1).findLast((/** @type {{view: any}} */ { view }) => view)?.view;
  }

  #roles() {
    const { given, steps, answer } = this.document;
    const isGiven = new Set(given.map((/** @type {{id: string}} */ { id }) => id));
    const later = new Set(steps.slice(this.frame.shown).map((/** @type {{id: string}} */ { id }) => id));
    const before = this.at ? this.frames[this.at - 1].shown : 0;
    const fresh = new Set(steps.slice(before, this.frame.shown).map((/** @type {{id: string}} */ { id }) => id));
    return (/** @type {string} */ id) => {
      const look = this.looks.get(id) ?? {};
      const role = new Set(looksOf({ ...this.figure.step(id), ...look }));
      if (isGiven.has(id)) role.add("given");
      if (later.has(id) || look.hidden) role.add("hidden");
      if (fresh.has(id) && !look.hidden) role.add("highlighted");
      if (this.isLast && answer.includes(id)) role.add("answer");
      return role;
    };
  }
}
