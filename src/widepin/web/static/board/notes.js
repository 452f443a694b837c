// Notes on the paper: words at a place, listed to be rewritten and removed.

import { noteText } from "../figure/marks.js";
import { rounded } from "./log.js";

export class Notes {
  #rows = new Map(); // name of a note -> its row
  all = [];

  // list: where they are listed; write({note, text, at}): what one of them says from now on, nothing to remove it
  constructor(list, write) {
    this.list = list;
    this.write = write;
  }

  show(notes) {
    this.all = notes;
    for (const [name, row] of this.#rows) if (!notes.some(({ note }) => note === name)) this.#forget(name, row);
    for (const one of notes) this.#row(one);
    this.list.hidden = notes.length === 0;
  }

  // Rows stay what they are, so that a save that is answered meanwhile does not disturb who is writing.
  #row({ note, text, at }) {
    let row = this.#rows.get(note);
    if (!row) {
      row = document.createElement("li");
      row.append(document.createElement("input"), document.createElement("button"));
      row.children[0].maxLength = 200;
      row.children[0].setAttribute("aria-label", "Note");
      row.children[1].type = "button";
      row.children[1].textContent = "Remove";
      this.#rows.set(note, row);
      this.list.append(row);
    }
    const [field, remove] = row.children;
    if (document.activeElement !== field) field.value = text;
    field.onchange = () => {
      if (field.value.trim() !== text) this.write({ note, text: field.value.trim(), at });
    };
    remove.onclick = () => this.write({ note, text: "", at });
    remove.setAttribute("aria-label", `Remove the note ${text}`);
  }

  #forget(name, row) {
    row.remove();
    this.#rows.delete(name);
  }

  named(name) {
    return this.all.find(({ note }) => note === name);
  }

  putAside(name, [x, y]) {
    this.named(name).at = rounded([x, y]);
  }

  marks(view) {
    return this.all.map((note) => noteText(note, view));
  }
}
