// Taking a tool in hand, and putting it down.

import { isTouch } from "../../look/touch.js";
/** @import { Board } from "../board.js" */
/** @import { Tool } from "../types.js" */

export class Taking {
  /**
   * show(): the board as it stands
   * @param {Pick<Board, "hand" | "pointed" | "bar" | "show">} parts
   */
  constructor({ hand, pointed, bar, show }) {
    this.hand = hand;
    this.pointed = pointed;
    this.bar = bar;
    this.show = show;
  }

  /**
   * A tool that is in hand already is put down.
   * @param {Tool | null} tool
   */
  take(tool) {
    if (this.hand.tool?.make === tool?.make) return this.putDown();
    this.hand.take(tool);
    this.#begin();
    if (!isTouch()) this.bar.focus();
  }

  // Empty the blanks; with nothing in them, put the tool down.
  putDown() {
    if (!this.hand.isEmpty) this.hand.empty();
    else this.hand.putDown();
    this.pointed.offer = null;
    this.#begin();
  }

  #begin() {
    this.bar.clear();
    this.bar.announce("");
    this.show();
  }
}
