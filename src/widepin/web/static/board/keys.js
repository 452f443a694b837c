// The keyboard: everything on the board can be done with it.

const NUDGE = 0.1; // centimetres per arrow key; ten times as much with Shift

const VIEW = { "+": "closer", "=": "closer", "-": "farther", 0: "fit" };

export class Keys {
  // actions: name -> what its button does
  constructor(board, actions) {
    this.board = board;
    this.actions = actions;
    document.addEventListener("keydown", (event) => this.#press(event));
  }

  #press(event) {
    const { board } = this;
    const writing = event.target.matches?.("input, select") && event.target !== board.bar.field;
    if (writing) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
      event.preventDefault();
      const action = key === "y" || event.shiftKey ? "redo" : "undo";
      if (!board.page.querySelector(`[data-do='${action}']`).disabled) this.actions[action]();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Escape") return this.#escape();
    if (event.key === "?") return this.#toggleHelp(event);
    if (event.key === "Delete" && !board.selection.isEmpty) return board.selection.askToRemove();
    if (!board.hand.tool && this.#onHovered(event)) return;
    if (!board.hand.tool && (key === "n" || key === "g"))
      return this.#takeUp(event, key === "n" ? "note" : "select several");
    if (!board.hand.tool && VIEW[event.key]) return this.actions[VIEW[event.key]]();
    if (event.key === "Tab" && board.pointing.next()) return event.preventDefault();
    if (board.hand.tool?.make === "move" && board.hand.isFull && this.#arrow(event)) return event.preventDefault();
    if (!board.hand.tool && /^[1-9]$/.test(event.key)) {
      const card = board.toolbar.cards[Number(event.key) - 1]?.card;
      if (card && !card.disabled) {
        event.preventDefault();
        card.click();
      }
    } else if (event.key.length === 1 && /\S/.test(event.key) && !event.target.closest?.("a, input, summary")) {
      board.bar.focus();
    }
  }

  // H hides what is under the pointer, Delete asks to remove it. True where there was something.
  #onHovered({ key }) {
    if (!["h", "H", "Delete", "Backspace"].includes(key)) return false;
    const { board } = this;
    const id = board.pointing.under();
    if (!board.own.some((step) => step.id === id)) return false;
    if (key.toLowerCase() === "h") board.perform({ op: "dress", id, dress: { hidden: true } });
    else board.stepList.askToRemove(id);
    return true;
  }

  #takeUp(event, action) {
    event.preventDefault();
    this.actions[action]();
  }

  #escape() {
    const { board } = this;
    const open = board.page.querySelector("details.keys[open], details.copies[open]");
    if (open) open.open = false;
    else if (board.dragTest.isOn) board.dragTest.stop();
    else if (board.result.isOpen) board.result.close();
    else board.building.putDown();
  }

  #toggleHelp(event) {
    event.preventDefault();
    const help = this.board.page.querySelector("details.keys");
    help.open = !help.open;
  }

  #arrow(event) {
    const ways = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
    const way = ways[event.key];
    if (!way) return false;
    const far = event.shiftKey ? NUDGE * 10 : NUDGE;
    this.board.building.nudge(way[0] * far, way[1] * far);
    return true;
  }
}
