// Positions of the figure that are kept to be compared: what is measured stands in a row for each, and a row brings its
// position back. One of them, or the one before a drag, can be seen as a ghost.

import { _ } from "../../look/language.js";
import { curvePath } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { rounded } from "../../figure/log.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
import { newKey } from "../construction/saving.js";
import { save } from "./copies.js";
/** @import { Board } from "../board.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Places } from "../../figure/types.js" */
/** @import { Position } from "../types.js" */
/** @import { View } from "../../figure/view.js" */

const KEY = 10; // characters of the name of a position

export class Positions {
  /** @type {Places | null} */
  #ghost = null; // points of the position that is seen as a ghost: id -> place
  /** @type {{elements: Element[], figure?: Figure, view?: View}} */
  #drawn = { elements: [] }; // the ghost as it was drawn last

  /**
   * panel: where the table stands; parts: store, measures, paper, bar, show()
   * @param {any} panel
   * @param {Board} parts
   */
  constructor(panel, parts) {
    this.panel = panel;
    this.parts = parts;
  }

  get isComparing() {
    return this.#ghost !== null;
  }

  // Where all points that can be dragged lie now.
  #now() {
    const { figure } = this.parts.store;
    const ids = figure.ids.filter((id) => figure.canDrag(id) && figure.isDefined(id));
    return Object.fromEntries(ids.map((id) => [id, rounded(figure.shape(id))]));
  }

  note() {
    const { store, bar } = this.parts;
    const points = this.#now();
    if (!Object.keys(points).length) return bar.announce(_("There is no point that could be dragged."), true);
    store.perform({ op: "position", position: newKey().slice(0, KEY), points });
    bar.announce(_("This position is noted. Drag the figure and note another one to compare."));
  }

  // The ghost of the figure as it lies now, or none.
  toggleGhost() {
    this.#compareWith(this.#ghost ? null : this.#now());
  }

  /** @param {Places | null} points */
  #compareWith(points) {
    this.#ghost = points;
    this.#drawn = { elements: [] };
    const { bar, show } = this.parts;
    bar.announce(points ? _("The dashed figure stays as it was: drag and compare.") : "");
    show();
  }

  show() {
    const { positions } = this.parts.store;
    this.panel.hidden = positions.length === 0;
    render(positions.length ? this.#table(positions) : nothing, this.panel);
  }

  /** @param {Position[]} positions */
  #table(positions) {
    const { store, measures } = this.parts;
    const values = positions.map(({ points }) => store.figure.elsewhere(points, () => measures.values(store.figure)));
    const names = measures.values(store.figure).map(({ name }) => name);
    return html`<h3>${_("Positions")}</h3>
      <div class="scroll-sideways" tabindex="0" role="region" aria-label=${_("Positions")}>
        <table>
          <thead>
            <tr>
              <th scope="col">${_("No.")}</th>
              ${names.map((name) => html`<th scope="col"><i>${name}</i></th>`)}
              <th scope="col"><span class="visually-hidden">${_("What to do")}</span></th>
            </tr>
          </thead>
          <tbody>
            ${positions.map((one, number) => this.#row(one, number, values[number]))}
          </tbody>
        </table>
      </div>
      ${
        names.length
          ? html`<button type="button" @click=${() => this.#export(names, values)}>${_("Export (CSV)")}</button>`
          : html`<p class="quiet-note">${_("Measure something, and its values stand here.")}</p>`
      }`;
  }

  /** @param {Position} one @param {number} number @param {{name: string, value: string | null}[]} values */
  #row({ position, points }, number, values) {
    const { store, bar } = this.parts;
    const bringBack = () => {
      const there = Object.fromEntries(Object.entries(points).filter(([id]) => store.figure.has(id)));
      store.perform({ op: "move", points: there });
      bar.announce(_("Position %(n)s is back. Undo returns.", { n: number + 1 }));
    };
    const isGhost = this.#ghost === points;
    return html`<tr>
      <th scope="row">${number + 1}</th>
      ${values.map(({ value }) => html`<td>${value ?? "–"}</td>`)}
      <td class="row-actions">
        <button type="button" aria-label=${_("Go to position %(n)s", { n: number + 1 })} @click=${bringBack}>
          ${_("Go to")}
        </button>
        <button
          type="button"
          aria-pressed=${String(isGhost)}
          aria-label=${_("Compare with position %(n)s", { n: number + 1 })}
          @click=${() => this.#compareWith(isGhost ? null : points)}
        >
          ${_("Compare")}
        </button>
        <button
          type="button"
          aria-label=${_("Remove position %(n)s", { n: number + 1 })}
          @click=${() => store.perform({ op: "position", position, points: {} })}
        >
          ×
        </button>
      </td>
    </tr>`;
  }

  /** @param {string[]} names @param {{name: string, value: string | null}[][]} values */
  #export(names, values) {
    const rows = [
      [_("Position"), ...names],
      ...values.map((row, number) => [number + 1, ...row.map(({ value }) => value ?? "")]),
    ];
    const text = rows.map((row) => row.map(inCsv).join(",")).join("\r\n");
    save(`\ufeff${text}\r\n`, `${document.title.split(" · ")[0]}.csv`, "text/csv");
    this.parts.bar.announce(_("Exported to your downloads."));
  }

  /**
   * The ghost, to lie under the figure; drawn anew only where the figure or the view has changed.
   * @param {View} view
   * @param {[number, number]} size
   */
  marks(view, size) {
    if (!this.#ghost) return [];
    const { figure } = this.parts.store;
    const last = this.#drawn;
    if (last.figure !== figure || last.view !== view)
      this.#drawn = { figure, view, elements: figure.elsewhere(this.#ghost, () => ghostOf(figure, view, size)) };
    return this.#drawn.elements;
  }
}

/** @param {Figure} figure @param {View} view @param {[number, number]} size */
function ghostOf(figure, view, size) {
  return figure.ids
    .filter((id) => figure.isDefined(id) && !figure.step(id).hidden)
    .map((id) => {
      const shape = figure.shape(id);
      const [cx, cy] = figure.isPoint(id) ? view.toScreen(...shape) : [];
      const made = figure.isPoint(id)
        ? element("circle", { cx, cy, r: 4 })
        : curvePath(figure.kind(id), shape, view, ...size);
      made?.setAttribute("class", "compared");
      return made;
    })
    .filter(Boolean);
}

/**
 * A cell that no spreadsheet takes for a formula.
 * @param {any} value
 */
function inCsv(value) {
  const text = String(value);
  return `"${/^[=+\-@\t]/.test(text) ? "'" : ""}${text.replaceAll('"', '""')}"`;
}
