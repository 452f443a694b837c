// How ruler and compass do what a tool did in one move: drawn over the figure and told step by step. A picture only.

import { _ } from "../../look/language.js";
import { curvePath, labelOf } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { renamed } from "../../figure/renaming.js";
import { inOneLine, sentenceOf } from "../../figure/step-words.js";
import { html, nothing } from "../../vendor/lit-html/lit-html.js";
import { nextId } from "../construction/rebasing.js";
/** @import { Board } from "../board.js" */
/** @import { Shape, Step } from "../../figure/types.js" */
/** @import { View } from "../../figure/view.js" */

export class Elementary {
  /** @type {string | null} */
  #id = null; // of the object whose construction is shown
  #upTo = Infinity; // the step that is pointed at, and with it those before

  /**
   * parts: store; changed(): show the board anew
   * @param {Pick<Board, "store">} parts
   * @param {() => void} changed
   */
  constructor(parts, changed) {
    this.parts = parts;
    this.changed = changed;
  }

  /**
   * What the menu of an object offers; nothing for what ruler and compass draw anyway.
   * @param {string} id
   */
  offer(id) {
    const { figure } = this.parts.store;
    if (!figure.book.makes[figure.step(id).make].constructions.length) return nothing;
    const isShown = this.isShown(id);
    return html`<button type="button" aria-pressed=${String(isShown)} @click=${() => this.#toggle(id)}>
        ${_("How ruler and compass do it")}
      </button>
      ${isShown ? this.#told(id) : nothing}`;
  }

  /** @param {string} id */
  isShown(id) {
    return this.#id === id;
  }

  hide() {
    this.#id = null;
  }

  /** @param {string} id */
  #toggle(id) {
    this.#id = this.#id === id ? null : id;
    this.#upTo = Infinity;
    this.changed();
  }

  /** @param {string} id */
  #told(id) {
    const { figure } = this.parts.store;
    const steps = this.#steps(id);
    if (!steps) return html`<p class="quiet-note">${_("Not in this position: drag the figure a little.")}</p>`;
    const names = new Map(steps.map((/** @type {{id: string, name: string}} */ { id: own, name }) => [own, name]));
    /** @param {string} one */
    const nameOf = (one) => names.get(one) ?? labelOf(figure, one);
    const at = Math.min(this.#upTo, steps.length - 1);
    const step = steps[at];
    /** @param {number} number */
    const goTo = (number) => {
      this.#upTo = number;
      this.changed();
    };
    return html`<div class="told-steps" role="group" aria-label=${_("How ruler and compass do it")}>
      <button type="button" aria-label=${_("Back")} ?disabled=${at === 0} @click=${() => goTo(at - 1)}>‹</button>
      <p role="status">
        <small>${_("%(n)s of %(all)s", { n: at + 1, all: steps.length })}</small>
        <i>${step.name}</i>: ${inOneLine(sentenceOf(step, figure.book), nameOf)}
      </p>
      <button type="button" aria-label=${_("Next")} ?disabled=${at === steps.length - 1} @click=${() => goTo(at + 1)}>
        ›
      </button>
    </div>`;
  }

  /**
   * The steps of the first construction of which all exist here, under names that are free; null where there is none.
   * @param {string} id
   */
  #steps(id) {
    const { figure, taken } = this.parts.store;
    const { make, from } = figure.step(id);
    for (const { steps: construction, turn } of figure.book.makes[make].constructions) {
      if (turn) {
        const [side] = figure.book.play(
          "side point point point",
          turn.of.flatMap((/** @type {number} */ entry) => figure.shape(from[entry])),
        );
        if (!(side * turn.side > 0)) continue;
      }
      const known = new Set(taken);
      const names = new Map(from.map((one, entry) => [String(entry), one]));
      const steps = construction.map((/** @type {Step} */ step, /** @type {number} */ number) => {
        const name =
          number === construction.length - 1
            ? labelOf(figure, id)
            : nextId(figure.book.makes[step.make].gives === "point", known);
        known.add(name);
        const own = ` by hand ${number}`; // no object can have this id
        names.set(step.id, own);
        return { ...renamed(step, (one) => names.get(one) ?? one), name };
      });
      const shapes = figure.previewAll(steps);
      if ([...shapes.values()].every((shape) => shape.every(Number.isFinite)))
        return steps.map((/** @type {Step} */ step) => ({ ...step, shape: shapes.get(step.id) ?? [] }));
    }
    return null;
  }

  /**
   * Elements to lay over the drawing.
   * @param {View} view
   * @param {[number, number]} size
   */
  marks(view, size) {
    const { figure } = this.parts.store;
    if (this.#id === null || !figure.has(this.#id)) return [];
    const steps = this.#steps(this.#id) ?? [];
    return steps
      .slice(0, this.#upTo + 1)
      .flatMap((/** @type {{make: string, shape: Shape, name: string}} */ { make, shape, name }) => {
        const kind = figure.book.makes[make].gives;
        if (kind !== "point") {
          const path = curvePath(kind, shape, view, ...size);
          path?.setAttribute("class", "by-hand");
          return path ? [path] : [];
        }
        const [x, y] = view.toScreen(...shape);
        return [
          element("circle", { cx: x, cy: y, r: 3.5, class: "by-hand dot" }),
          element("text", { x: x + 8, y: y - 8, class: "by-hand name" }, name),
        ];
      });
  }
}
