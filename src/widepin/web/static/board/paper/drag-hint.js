// On an empty board: that the given figure can be dragged, shown at one of its points until something was dragged or drawn.

import { _ } from "../../look/language.js";
import { element } from "../../figure/element.js";
/** @import { Board } from "../board.js" */
/** @import { View } from "../../figure/view.js" */

const ARROWS = "M0-30v-12M-4-38L0-42L4-38M0 30v12M-4 38L0 42L4 38M-30 0h-12M-38-4L-42 0L-38 4M30 0h12M38-4L42 0L38 4";

export class DragHint {
  /**
   * parts: store, hand, paper
   * @param {Pick<Board, "store" | "hand" | "paper">} parts
   */
  constructor(parts) {
    this.parts = parts;
  }

  /** @param {View} view */
  marks(view) {
    const { store, hand, paper } = this.parts;
    if (store.own.length || store.hasMoved || hand.tool) return [];
    const { figure } = store;
    const points = [...store.given].filter((id) => figure.canDrag(id) && figure.isDefined(id));
    const id = points.find((one) => paper.isInView(figure.shape(one)));
    if (!id) return [];
    const [x, y] = view.toScreen(...figure.shape(id));
    const group = element("g", { class: "drag-hint", transform: `translate(${x} ${y})` });
    group.append(element("path", { d: ARROWS }), element("text", { y: 60 }, _("drag me")));
    return [group];
  }
}
