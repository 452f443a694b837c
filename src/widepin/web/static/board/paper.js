// The paper on the screen: which part of it is seen, and what is drawn on it.

import { Drawing } from "../figure/drawing.js";
import { View } from "../figure/view.js";

const ROOM = 0.28; // share of the window left free around the figure, for what is still to be drawn

export class Paper {
  isFitted = true; // the view follows the window until somebody moves it
  showsArcs = false;
  view = null;

  // places(): what should be in view; changed(): it has to be painted again
  constructor(svg, places, changed) {
    this.svg = svg;
    this.drawing = new Drawing(svg);
    this.places = places;
    this.changed = changed;
    new ResizeObserver(() => (this.isFitted ? this.fit() : this.changed())).observe(svg);
  }

  get size() {
    return this.drawing.size();
  }

  fit() {
    this.isFitted = true;
    this.view = View.fitted(this.places(), ...this.size, ROOM);
    this.changed();
  }

  look(view) {
    this.setView(view);
    this.changed();
  }

  // The same for whoever paints anyway.
  setView(view) {
    this.isFitted = false;
    this.view = view;
  }

  zoom(factor) {
    this.look(this.view.zoomed(factor, ...this.middle));
  }

  get middle() {
    return this.size.map((length) => length / 2);
  }

  // Whether a place lies in the window.
  isInView(at) {
    const [x, y] = this.view.toScreen(...at);
    const [width, height] = this.size;
    return x >= 0 && y >= 0 && x <= width && y <= height;
  }

  // Where an event of the pointer is, in pixels.
  placeOf({ clientX, clientY }) {
    const box = this.svg.getBoundingClientRect();
    return [clientX - box.left, clientY - box.top];
  }

  draw(figure, roles, extras) {
    this.drawing.draw(figure, this.view, roles, { extras });
  }
}
