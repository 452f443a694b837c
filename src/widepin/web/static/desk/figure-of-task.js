// The figure on the page where a task is made: given and model, drawn anew when they change, and clicked to name things.

import { Hits } from "../figure/hits.js";
import { Picture } from "../figure/picture.js";

const REACH = 16; // pixels

export class FigureOfTask {
  /** @type {Picture | undefined} */
  picture;

  // clicked(name, isPoint): an object was clicked
  constructor(book, svg, clicked) {
    this.book = book;
    this.svg = svg;
    svg.addEventListener("click", (event) => {
      const hit = this.#at(event);
      if (hit) clicked(hit, this.picture?.figure.isPoint(hit));
    });
  }

  show({ given, model, wanted }) {
    this.picture?.end();
    this.picture = new Picture(
      this.book,
      { given, start: [], steps: model, answer: wanted.map(({ name }) => name) },
      this.svg,
      true,
    );
    this.picture.paint();
  }

  kind(id) {
    return this.picture?.figure.kind(id);
  }

  #at({ clientX, clientY }) {
    if (!this.picture) return undefined;
    const box = this.svg.getBoundingClientRect();
    const hits = new Hits(this.picture.figure, this.picture.view, () => false);
    const place = [clientX - box.left, clientY - box.top];
    return [...hits.points(...place, REACH), ...hits.curves(...place, REACH)][0]?.id;
  }
}
