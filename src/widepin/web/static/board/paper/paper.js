// The paper on the screen: which part of it is seen, and what is drawn on it.

import { Drawing } from "../../figure/drawing.js";
import { nearestPlace } from "../../figure/figure.js";
import { View } from "../../figure/view.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Place, Roles } from "../../figure/types.js" */
/** @import { Where } from "../types.js" */

const ROOM = 0.22; // share of the window left free around the figure, for what is still to be drawn
const EDGE = 0.12; // the same around all that a solution needs

export class Paper {
  isFitted = true; // the view follows the window until somebody moves it
  /** @type {Place[]} */
  #fitted = []; // what it was fitted to: what is drawn since does not move the figure when the window changes
  showsArcs = false;
  view = /** @type {View} */ (/** @type {unknown} */ (null)); // until the size of the window is known

  /**
   * places(): what should be in view; needed: corners between which a solution lies, none where that is not known;
   * changed(): it has to be painted again
   * @param {any} svg
   * @param {() => Place[]} places
   * @param {Place[]} needed
   * @param {() => void} changed
   */
  constructor(svg, places, needed, changed) {
    this.svg = svg;
    this.drawing = new Drawing(svg);
    this.places = places;
    this.needed = needed;
    this.changed = changed;
    new ResizeObserver(() => (this.isFitted ? this.#fitAgain() : this.changed())).observe(svg);
  }

  /** @returns {[number, number]} of the window in pixels */
  get size() {
    return this.drawing.size();
  }

  fit() {
    this.#fitted = this.places();
    this.#fitAgain();
  }

  #fitAgain() {
    this.isFitted = true;
    if (!this.#fitted.length) this.#fitted = this.places();
    const [width, height] = this.size;
    const around = View.fitted(this.#fitted, width, height, ROOM);
    const whole = View.fitted([...this.needed, ...this.#fitted], width, height, EDGE);
    this.view = this.needed.length && whole.scale < around.scale ? whole : around;
    this.changed();
  }

  /** @param {View} view */
  look(view) {
    this.setView(view);
    this.changed();
  }

  /**
   * The same for whoever paints anyway.
   * @param {View} view
   */
  setView(view) {
    this.isFitted = false;
    this.view = view;
  }

  /** @param {number} factor */
  zoom(factor) {
    this.look(this.view.zoomed(factor, ...this.middle));
  }

  get middle() {
    return this.size.map((length) => length / 2);
  }

  /**
   * Show these places too, as large as they and what is seen now allow.
   * @param {Place[]} places
   * @param {number} inset
   */
  bringIn(places, inset) {
    const [width, height] = this.size;
    const seen = [this.view.toPaper(0, 0), this.view.toPaper(width, height)];
    const shrunk = seen.map(([x, y]) => {
      const [cx, cy] = this.view.toPaper(width / 2, height / 2);
      return [cx + (x - cx) * (1 - 2 * inset), cy + (y - cy) * (1 - 2 * inset)];
    });
    this.look(View.fitted([...shrunk, ...places], width, height, inset));
  }

  /**
   * Whether a place lies in the window.
   * @param {Place} at
   */
  isInView(at) {
    const [x, y] = this.view.toScreen(...at);
    const [width, height] = this.size;
    return x >= 0 && y >= 0 && x <= width && y <= height;
  }

  /**
   * A place in the window on an object, in pixels; the middle for what is undefined.
   * @param {Figure} figure
   * @param {string} id
   */
  placeOn(figure, id) {
    if (!figure.isDefined(id)) return this.middle;
    const shape = figure.shape(id);
    return this.view.toScreen(
      ...(figure.isPoint(id) ? shape : nearestPlace(figure.kind(id), shape, this.view.toPaper(...this.middle))),
    );
  }

  /**
   * Where an event of the pointer is, in pixels.
   * @param {{clientX: number, clientY: number}} fields
   */
  placeOf({ clientX, clientY }) {
    const box = this.svg.getBoundingClientRect();
    return [clientX - box.left, clientY - box.top];
  }

  /** @param {Figure} figure @param {Roles} roles @param {Element[]} extras */
  draw(figure, roles, extras) {
    this.drawing.draw(figure, this.view, roles, { extras });
  }
}
