// The keyboard: everything on the board can be done with it.

/** @import { Board } from "./board.js" */

const NUDGE = 0.1; // centimetres per arrow key; ten times as much with Shift

/** @type {Record<string, string>} */
const VIEW = { "+": "closer", "=": "closer", "-": "farther", 0: "fit" };
/** @type {Record<string, string>} */
const TAKEN_UP = { n: "note", g: "select several" };
/** @type {Record<string, number>} */
const CYCLE = { ArrowDown: 1, ArrowUp: -1 }; // through what lies under the pointer
/** @type {Record<string, number[]>} */
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

export class Keys {
  /**
   * parts: store, hand, bar, selection, objectMenu, pointing, building, toolbar, commands
   * @param {Board} parts
   */
  constructor(parts) {
    this.parts = parts;
    document.addEventListener("keydown", (event) => this.#press(event));
  }

  /** @param {KeyboardEvent & {target: any}} event */
  #press(event) {
    const { hand, bar, selection, pointing, building, commands, toolbar } = this.parts;
    const writing = event.target.matches?.("input, select") && event.target !== bar.field;
    if (writing) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
      event.preventDefault();
      return commands.run(key === "y" || event.shiftKey ? "redo" : "undo");
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Escape") return commands.stepBack();
    if (event.key === "?") {
      event.preventDefault();
      return commands.toggleHelp();
    }
    if (event.key === "Delete" && !selection.isEmpty) return selection.askToRemove();
    if (!hand.tool && this.#onHovered(event)) return;
    if (!hand.tool && TAKEN_UP[key]) {
      event.preventDefault();
      return commands.run(TAKEN_UP[key]);
    }
    if (!hand.tool && key === "t") {
      event.preventDefault();
      return toolbar.focus();
    }
    if (!hand.tool && VIEW[event.key]) return commands.run(VIEW[event.key]);
    if (CYCLE[event.key] && pointing.next(CYCLE[event.key])) return event.preventDefault();
    if (/^[1-9]$/.test(event.key) && !bar.field.value && pointing.chooseNumber(Number(event.key)))
      return event.preventDefault();
    const arrow = ARROWS[event.key];
    if (arrow && hand.tool?.make === "move" && hand.isFull) {
      event.preventDefault();
      const far = event.shiftKey ? NUDGE * 10 : NUDGE;
      return building.nudge(arrow[0] * far, arrow[1] * far);
    }
    if (!hand.tool && /^[1-9]$/.test(event.key)) return this.#takeCard(event);
    if (event.key.length === 1 && /\S/.test(event.key) && !event.target.closest?.("a, input, summary")) bar.focus();
  }

  /** @param {KeyboardEvent & {target: any}} event */
  #takeCard(event) {
    const card = this.parts.toolbar.cards[Number(event.key) - 1]?.card;
    if (!card || card.disabled) return;
    event.preventDefault();
    card.click();
  }

  /**
   * H hides what is under the pointer, Delete asks to remove it, Enter opens its menu, F2 its name. True where there was
   * something.
   * @param {{key: string, target: any}} event
   */
  #onHovered({ key, target }) {
    if (!["h", "H", "Delete", "Backspace", "Enter", "F2"].includes(key)) return false;
    if (key === "Enter" && target.closest?.("button, a, summary")) return false;
    const { store, pointing, objectMenu } = this.parts;
    const id = pointing.near[0]?.id;
    if (!id) return false;
    if (key === "F2" || key === "Enter") return pointing.openMenu(key === "F2");
    if (key.toLowerCase() === "h") {
      pointing.letGo();
      store.perform({ op: "dress", id, dress: { hidden: true } });
    } else if (store.isOwn(id)) {
      pointing.openMenu();
      objectMenu.askToRemove();
    }
    return true;
  }
}
