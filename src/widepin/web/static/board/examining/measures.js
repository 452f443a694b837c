// What is measured: lengths, distances, angles, radii and ratios, live, on the drawing and in a list.

import { _ } from "../../look/language.js";
import { isRightHere, measureMarks, nameOf, rightAngle, valueOf } from "../../figure/measuring.js";
import { html, render } from "../../vendor/lit-html/lit-html.js";
/** @import { Claims } from "./claims.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { View } from "../../figure/view.js" */

export class Measures {
  /** @type {string[][]} */
  #all = []; // the objects of each, all of which are there

  /**
   * list: where they are listed; claims: what holds in every position; drop(of): no longer measure this
   * @param {any} list
   * @param {Claims} claims
   * @param {(of: string[]) => void} drop
   */
  constructor(list, claims, drop) {
    this.list = list;
    this.claims = claims;
    this.drop = drop;
  }

  /**
   * Angles that are right as they lie, of which it is to be known whether they always are.
   * @param {Figure} figure
   */
  wanted(figure) {
    return this.#all.filter((of) => isRightHere(figure, of)).map(rightAngle);
  }

  /** @param {Figure} figure @param {string[][]} measures */
  show(figure, measures) {
    this.#all = measures.filter((of) => of.every((id) => figure.has(id)));
    this.list.hidden = this.#all.length === 0;
    this.#list(figure);
  }

  /** @param {Figure} figure */
  #list(figure) {
    render(html`${this.#all.map((of) => this.#row(figure, of))}`, this.list);
  }

  /** @param {Figure} figure @param {string[]} of */
  #row(figure, of) {
    const name = nameOf(figure, of);
    return html`<li>
      <i>${name}</i> <output>${valueOf(figure, of) ?? _("undefined here")}</output>
      <button type="button" aria-label=${_("Remove the measure of %(name)s", { name })} @click=${() => this.drop(of)}>
        ${_("Remove")}
      </button>
    </li>`;
  }

  /**
   * What each measures as the figure lies: {name, value}; null where it does not exist.
   * @param {Figure} figure
   */
  values(figure) {
    return this.#all.map((of) => ({ name: nameOf(figure, of), value: valueOf(figure, of) }));
  }

  /**
   * Elements to lay over the drawing; the list gets the same values.
   * @param {Figure} figure
   * @param {View} view
   */
  marks(figure, view) {
    if (this.#all.length) this.#list(figure);
    return this.#all.flatMap((of) => measureMarks(figure, view, of, this.claims.holds(rightAngle(of))));
  }
}
