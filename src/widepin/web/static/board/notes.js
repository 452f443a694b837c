// Notes on the paper: words at a place, listed to be rewritten and removed.

import { _ } from "../look/language.js";
import { noteText } from "../figure/marks.js";
import { html, render } from "../vendor/lit-html/lit-html.js";
import { repeat } from "../vendor/lit-html/directives/repeat.js";
import { rounded } from "../figure/log.js";

export class Notes {
  all = [];

  // list: where they are listed; write({note, text, at}): what one of them says from now on, nothing to remove it
  constructor(list, write) {
    this.list = list;
    this.write = write;
  }

  show(notes) {
    this.all = notes;
    const rows = repeat(
      notes,
      ({ note }) => note,
      (note) => this.#row(note),
    );
    render(html`${rows}`, this.list);
    this.list.hidden = notes.length === 0;
  }

  #row({ note, text, at }) {
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
