// The figure on the page where a task is made: given and model, drawn anew when they change, and clicked to name things.

import { Hits } from "../figure/hits.js";
import { Picture } from "../figure/picture.js";
/** @import { Step, Wanted } from "../figure/types.js" */
/** @import { ToolBook } from "../figure/tape.js" */

const REACH = 16; // pixels

export class FigureOfTask {
  /** @type {Picture | undefined} */
  picture;

  /**
   * clicked(name, isPoint): an object was clicked
   * @param {ToolBook} book
   * @param {any} svg
   * @param {(name: string, isPoint: boolean) => void} clicked
   */
  constructor(book, svg, clicked) {
    this.book = book;
    this.svg = svg;
    svg.addEventListener("click", (/** @type {MouseEvent} */ event) => {
      const hit = this.#at(event);
      if (hit) clicked(hit, Boolean(this.picture?.figure.isPoint(hit)));
    });
  }

  /** @param {{given: Step[], model: Step[], wanted: Wanted[]}} fields */
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

  /** @param {string} id */
  kind(id) {
    return this.picture?.figure.kind(id);
  }

  /** @param {{clientX: number, clientY: number}} fields */
  #at({ clientX, clientY }) {
    if (!this.picture) return undefined;
    const box = this.svg.getBoundingClientRect();
    const hits = new Hits(this.picture.figure, this.picture.view, () => false);
    const place = [clientX - box.left, clientY - box.top];
    return [...hits.points(place, REACH), ...hits.curves(place, REACH)][0]?.id;
  }
}
