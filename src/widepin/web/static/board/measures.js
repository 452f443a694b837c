// What is measured: lengths, distances, angles, radii and ratios, live, on the drawing and in a list.

import { _ } from "../look/language.js";
import { isRightHere, measureMarks, nameOf, rightAngle, valueOf } from "../figure/measuring.js";
import { html, render } from "../vendor/lit-html/lit-html.js";

export class Measures {
  #all = []; // the objects of each, all of which are there

  // list: where they are listed; claims: what holds in every position; drop(of): no longer measure this
  constructor(list, claims, drop) {
    this.list = list;
    this.claims = claims;
    this.drop = drop;
  }

  // Angles that are right as they lie, of which it is to be known whether they always are.
  wanted(figure) {
    return this.#all.filter((of) => isRightHere(figure, of)).map(rightAngle);
  }

  show(figure, measures) {
    this.#all = measures.filter((of) => of.every((id) => figure.has(id)));
    this.list.hidden = this.#all.length === 0;
    this.#list(figure);
  }

  #list(figure) {
    render(html`${this.#all.map((of) => this.#row(figure, of))}`, this.list);
  }

  #row(figure, of) {
    const name = nameOf(figure, of);
    return html`<li>
      <i>${name}</i> <output>${valueOf(figure, of) ?? _("undefined here")}</output>
      <button type="button" aria-label=${_("Remove the measure of %(name)s", { name })} @click=${() => this.drop(of)}>
        ${_("Remove")}
      </button>
    </li>`;
  }

  // What each measures as the figure lies: {name, value}; null where it does not exist.
  values(figure) {
    return this.#all.map((of) => ({ name: nameOf(figure, of), value: valueOf(figure, of) }));
  }

  // Elements to lay over the drawing; the list gets the same values.
  marks(figure, view) {
    if (this.#all.length) this.#list(figure);
    return this.#all.flatMap((of) => measureMarks(figure, view, of, this.claims.holds(rightAngle(of))));
  }
}
