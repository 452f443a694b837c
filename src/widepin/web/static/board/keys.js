// The keyboard: everything on the board can be done with it.

const NUDGE = 0.1; // centimetres per arrow key; ten times as much with Shift

const VIEW = { "+": "closer", "=": "closer", "-": "farther", 0: "fit" };

export class Keys {
  // deeds: name -> what its button does
  constructor(board, deeds) {
    this.board = board;
    this.deeds = deeds;
    document.addEventListener("keydown", (event) => this.#press(event));
  }

  #press(event) {
    const { board } = this;
    const writing = event.target.matches?.("input, select") && event.target !== board.bar.field;
    if (writing) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
      event.preventDefault();
      const deed = key === "y" || event.shiftKey ? "bring back" : "take back";
      if (!board.page.querySelector(`[data-do='${deed}']`).disabled) this.deeds[deed]();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Escape") return this.#escape();
    if (event.key === "?") return this.#toggleHelp(event);
    if (event.key === "Delete" && !board.gathering.isEmpty) return board.gathering.askToRemove();
    if (!board.hand.instrument && this.#onHovered(event)) return;
    if (!board.hand.instrument && (key === "n" || key === "g")) return this.#takeUp(event, key === "n" ? "note" : "gather");
    if (!board.hand.instrument && VIEW[event.key]) return this.deeds[VIEW[event.key]]();
    if (event.key === "Tab" && board.pointing.next()) return event.preventDefault();
    if (board.hand.instrument?.make === "move" && board.hand.isFull && this.#arrow(event)) return event.preventDefault();
    if (!board.hand.instrument && /^[1-9]$/.test(event.key)) {
      const card = board.bench.cards[Number(event.key) - 1]?.card;
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
    else board.record.askToRemove(id);
    return true;
  }

  #takeUp(event, deed) {
    event.preventDefault();
    this.deeds[deed]();
  }

  #escape() {
    const { board } = this;
    const open = board.page.querySelector("details.keys[open], details.copies[open]");
    if (open) open.open = false;
    else if (board.shaking.isOn) board.shaking.stop();
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
