// Notes on the paper: words at a place, listed to be rewritten and removed.

import { _ } from "../../look/language.js";
import { noteText } from "../../figure/marks.js";
import { html, render } from "../../vendor/lit-html/lit-html.js";
import { repeat } from "../../vendor/lit-html/directives/repeat.js";
import { rounded } from "../../figure/log.js";
/** @import { NoteText, Place } from "../../figure/types.js" */
/** @import { View } from "../../figure/view.js" */

export class Notes {
  /** @type {NoteText[]} */
  all = [];

  /**
   * list: where they are listed; write({note, text, at}): what one of them says from now on, nothing to remove it
   * @param {any} list
   * @param {(note: NoteText) => void} write
   */
  constructor(list, write) {
    this.list = list;
    this.write = write;
  }

  /** @param {NoteText[]} notes */
  show(notes) {
    this.all = notes;
    const rows = repeat(
      notes,
      (/** @type {NoteText} */ { note }) => note,
      (/** @type {NoteText} */ note) => this.#row(note),
    );
    render(html`${rows}`, this.list);
    this.list.hidden = notes.length === 0;
  }

  /** @param {NoteText} shown */
  #row({ note, text, at }) {
    /** @param {{target: any}} event */
    const rewrite = ({ target }) => {
      if (target.value.trim() !== text) this.write({ note, text: target.value.trim(), at });
    };
    const remove = () => this.write({ note, text: "", at });
    return html`<li>
      <input .value=${text} maxlength="200" aria-label=${_("Note")} @change=${rewrite} />
      <button type="button" aria-label=${_("Remove the note %(text)s", { text })} @click=${remove}>
        ${_("Remove")}
      </button>
    </li>`;
  }

  /** @param {string} name */
  named(name) {
    return this.all.find(({ note }) => note === name);
  }

  /** @param {string} name @param {Place} place */
  putAside(name, [x, y]) {
    const note = this.named(name);
    if (note) note.at = rounded([x, y]);
  }

  /** @param {View} view */
  marks(view) {
    return this.all.map((note) => noteText(note, view));
  }
}
