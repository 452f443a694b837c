// Several objects at once: selected one by one or with a frame, then shown another way or removed together.

import { element, visiblePart } from "../figure/drawing.js";
import { question } from "./dressing.js";
import { dependentsOf } from "./log.js";

const SAMPLES = 90; // places on a curve that are looked at, of which one must lie in the frame

export class Selection {
  #ids = new Set();
  #frame = null; // [from, to] in the window, while it is dragged

  // strip: with buttons that hold what they do to the look as JSON, and one each to remove and to clear the selection
  constructor(strip, board) {
    this.strip = strip;
    this.board = board;
    for (const button of strip.querySelectorAll("[data-dress]")) {
      button.addEventListener("click", () => this.#dress(JSON.parse(button.dataset.dress)));
    }
    strip.querySelector("[data-remove]").addEventListener("click", () => this.askToRemove());
    strip.querySelector("[data-clear]").addEventListener("click", () => board.building.putDown());
  }

  get isOn() {
    return this.board.hand.tool?.make === "select several";
  }
  get isEmpty() {
    return this.#ids.size === 0;
  }
  has(id) {
    return this.#ids.has(id);
  }

  toggle(id) {
    if (!this.#ids.delete(id)) this.#ids.add(id);
    this.#ask(false);
  }

  // To be called when the board has changed: what is gone or no longer in hand is not selected any more.
  show() {
    if (!this.isOn) this.#ids.clear();
    for (const id of this.#ids) if (!this.board.own.some((step) => step.id === id)) this.#ids.delete(id);
    this.strip.hidden = this.isEmpty;
    this.strip.querySelector("b").textContent = `${this.#ids.size} selected`;
  }

  // -- the frame -----------------------------------------------------------------------------------

  frame(from, to) {
    this.#frame = [from, to];
  }

  // Select what the frame holds or touches.
  close() {
    if (!this.#frame) return;
    const [[x1, y1], [x2, y2]] = this.#frame;
    this.#frame = null;
    const inside = ([x, y]) =>
      Math.min(x1, x2) <= x && x <= Math.max(x1, x2) && Math.min(y1, y2) <= y && y <= Math.max(y1, y2);
    const { board } = this;
    for (const { id, hidden } of board.own) {
      if (!hidden && board.figure.isDefined(id) && this.#placesOf(id).some(inside)) this.#ids.add(id);
    }
    board.bar.announce(this.isEmpty ? "The frame touches nothing of yours." : "");
    this.#ask(false);
  }

  #placesOf(id) {
    const { figure, view, drawing } = this.board;
    const shape = figure.shape(id),
      kind = figure.kind(id);
    if (kind === "point") return [view.toScreen(...shape)];
    const shares = Array.from({ length: SAMPLES + 1 }, (_, n) => n / SAMPLES);
    if (kind === "circle") {
      const [x, y] = view.toScreen(shape[0], shape[1]);
      const r = Math.sqrt(shape[2]) * view.scale;
      return shares.map((share) => [x + r * Math.cos(2 * Math.PI * share), y + r * Math.sin(2 * Math.PI * share)]);
    }
    const [ax, ay, bx, by] = visiblePart(kind, shape, view, ...drawing.size()) ?? [];
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

  #dress(dress) {
    const ids = [...this.#ids];
    if (dress.hidden) this.#ids.clear();
    this.#ask(false);
    this.board.perform({ op: "dress", id: ids, dress });
  }

  // Removes what is selected, and asks first where more would go along.
  askToRemove() {
    if (this.#along().length) return this.#ask(true);
    this.#removeAll();
  }

  #removeAll() {
    this.board.perform({ op: "remove", id: [...this.#ids] });
    this.board.bar.announce("Removed. Undo brings it back.");
  }

  // What depends on the selected objects and is not selected itself.
  #along() {
    return dependentsOf(this.board.own, ...this.#ids).filter((id) => !this.#ids.has(id));
  }

  #ask(isAsking) {
    this.strip.querySelector(".asking")?.remove();
    if (isAsking) {
      this.strip.append(
        question(this.board.figure, [...this.#ids], this.#along(), {
          dress: (_, dress) => this.#dress(dress),
          remove: () => this.#removeAll(),
          ask: () => this.#ask(false),
        }),
      );
      this.strip.querySelector(".asking button").focus();
    }
    this.board.show();
  }
}
