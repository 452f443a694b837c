// Several objects at once: selected one by one or with a frame, then shown another way or removed together.

import { _ } from "../../look/language.js";
import { visiblePart } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
import { question } from "../objects/dressing.js";
import { dependentsOf } from "../../figure/log.js";
/** @import { Board } from "../board.js" */
/** @import { Dress } from "../types.js" */
/** @import { Place } from "../../figure/types.js" */

const SAMPLES = 90; // places on a curve that are looked at, of which one must lie in the frame

export class Selection {
  #ids = new Set();
  /** @type {[number[], number[]] | null} */
  #frame = null; // [from, to] in the window, while it is dragged
  #isAsking = false; // whether what else goes along may be removed

  /**
   * strip: with buttons that hold what they do to the look as JSON, and one each to remove and to clear the selection
   * parts: store, hand, paper, bar, taking, show()
   * @param {any} strip
   * @param {Board} parts
   */
  constructor(strip, parts) {
    this.strip = strip;
    this.parts = parts;
    this.asked = strip.querySelector("[data-asked]");
    for (const button of strip.querySelectorAll("[data-dress]")) {
      button.addEventListener("click", () => this.#dress(JSON.parse(button.dataset.dress)));
    }
    strip.querySelector("[data-remove]").addEventListener("click", () => this.askToRemove());
    strip.querySelector("[data-clear]").addEventListener("click", () => parts.taking.putDown());
  }

  get isOn() {
    return this.parts.hand.tool?.make === "select several";
  }
  get isEmpty() {
    return this.#ids.size === 0;
  }
  /** @param {string} id */
  has(id) {
    return this.#ids.has(id);
  }

  /** @param {string} id */
  toggle(id) {
    if (!this.#ids.delete(id)) this.#ids.add(id);
    this.#ask(false);
  }

  // To be called when the board has changed: what is gone or no longer in hand is not selected any more.
  show() {
    const { store } = this.parts;
    if (!this.isOn) this.#ids.clear();
    for (const id of this.#ids) if (!store.isOwn(id)) this.#ids.delete(id);
    if (this.isEmpty) this.#isAsking = false;
    this.strip.hidden = this.isEmpty;
    this.strip.querySelector("b").textContent = _("%(n)s selected", { n: this.#ids.size });
    render(this.#isAsking ? this.#question() : nothing, this.asked);
  }

  #question() {
    return html`${question(this.parts.store.figure, [...this.#ids], this.#along(), {
      dress: (_id, dress) => this.#dress(dress),
      remove: () => this.#removeAll(),
      ask: () => this.#ask(false),
    })}`;
  }

  // -- the frame -----------------------------------------------------------------------------------

  /** @param {Place} from @param {Place} to */
  frame(from, to) {
    this.#frame = [from, to];
  }

  unframe() {
    this.#frame = null;
  }

  // Select what the frame holds or touches.
  close() {
    if (!this.#frame) return;
    const [[x1, y1], [x2, y2]] = this.#frame;
    this.unframe();
    /** @param {Place} place */
    const inside = ([x, y]) =>
      Math.min(x1, x2) <= x && x <= Math.max(x1, x2) && Math.min(y1, y2) <= y && y <= Math.max(y1, y2);
    const { store, bar } = this.parts;
    for (const { id, hidden } of store.own) {
      if (!hidden && store.figure.isDefined(id) && this.#placesOf(id).some(inside)) this.#ids.add(id);
    }
    bar.announce(this.isEmpty ? _("The frame touches nothing of yours.") : "");
    this.#ask(false);
  }

  /** @param {string} id */
  #placesOf(id) {
    const {
      store: { figure },
      paper: { view, size },
    } = this.parts;
    const shape = figure.shape(id),
      kind = figure.kind(id);
    if (kind === "point") return [view.toScreen(...shape)];
    const shares = Array.from({ length: SAMPLES + 1 }, (_share, n) => n / SAMPLES);
    if (kind === "circle") {
      const [x, y] = view.toScreen(shape[0], shape[1]);
      const r = Math.sqrt(shape[2]) * view.scale;
      return shares.map((share) => [x + r * Math.cos(2 * Math.PI * share), y + r * Math.sin(2 * Math.PI * share)]);
    }
    const [ax, ay, bx, by] = visiblePart(kind, shape, view, ...size) ?? [];
    return ax === undefined ? [] : shares.map((share) => [ax + share * (bx - ax), ay + share * (by - ay)]);
  }

  marks() {
    if (!this.#frame) return [];
    const [[x1, y1], [x2, y2]] = this.#frame;
    return [
      element("rect", {
        x: Math.min(x1, x2),
        y: Math.min(y1, y2),
        width: Math.abs(x2 - x1),
        height: Math.abs(y2 - y1),
        class: "frame",
      }),
    ];
  }

  // -- what is done with them ------------------------------------------------------------------------

  /** @param {Dress} dress */
  #dress(dress) {
    const ids = [...this.#ids];
    if (dress.hidden) this.#ids.clear();
    this.#ask(false);
    this.parts.store.perform({ op: "dress", id: ids, dress });
  }

  // Removes what is selected, and asks first where more would go along.
  askToRemove() {
    if (!this.#along().length) return this.#removeAll();
    this.#ask(true);
    this.asked.querySelector("button").focus();
  }

  #removeAll() {
    this.parts.store.perform({ op: "remove", id: [...this.#ids] });
    this.parts.bar.announce(_("Removed. Undo brings it back."));
  }

  // What depends on the selected objects and is not selected itself.
  #along() {
    return dependentsOf(this.parts.store.own, ...this.#ids).filter((id) => !this.#ids.has(id));
  }

  /** @param {boolean} isAsking */
  #ask(isAsking) {
    this.#isAsking = isAsking;
    this.parts.show();
  }
}
