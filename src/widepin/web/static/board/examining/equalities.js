// Equal lengths and angles: what the student believes is marked dashed, what holds in every position in full.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { angleArcs, ticks } from "../../figure/marks.js";
import { html, render } from "../../vendor/lit-html/lit-html.js";
/** @import { Claims } from "./claims.js" */
/** @import { Equality } from "../types.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { View } from "../../figure/view.js" */

const MOST = 3; // ticks on one mark; after that they begin anew

export class Equalities {
  /** @type {Equality[]} */
  #all = []; // {of, claim, number}: number of the group of lengths or angles that are equal, null for what is not equal

  /**
   * list: where they are listed; claims: what is known of them; drop(of): no longer mark this
   * @param {any} list
   * @param {Claims} claims
   * @param {(of: string[][]) => void} drop
   */
  constructor(list, claims, drop) {
    this.list = list;
    this.claims = claims;
    this.drop = drop;
  }

  get wanted() {
    return this.#all.map(({ claim }) => claim);
  }

  /** @param {Figure} figure @param {string[][][]} equals */
  show(figure, equals) {
    const there = equals.filter((of) => of.flat().every((id) => figure.has(id)));
    const claims = there.map((of) => {
      const terms = of.map((term) => pointsOf(figure, term));
      return { rel: terms[0].length === 3 ? "equal_angle" : "equal_length", of: terms };
    });
    // What is not so in every position joins no group, and is not marked.
    const keys = there.map((of) => of.map((term) => keyOf(figure, term)));
    const groups = groupsOf(keys.filter((_key, number) => this.claims.holds(claims[number]) !== false));
    let group = 0;
    this.#all = there.map((of, number) => {
      const claim = claims[number];
      return { of, claim, number: this.claims.holds(claim) === false ? null : groups[group++] };
    });
    this.list.hidden = this.#all.length === 0;
    render(html`${this.#all.map((one) => this.#row(figure, one))}`, this.list);
  }

  /** @param {Figure} figure @param {Equality} one */
  #row(figure, { of, claim }) {
    const [first, second] = claim.of.map((term) => nameOf(figure, term));
    const name = `${first} = ${second}`;
    return html`<li>
      <i>${name}</i>
      <output class=${this.claims.holds(claim) === false ? "trouble" : ""}
        >${stateWords(this.claims.holds(claim))}</output
      >
      <button type="button" aria-label=${_("Remove the mark %(name)s", { name })} @click=${() => this.drop(of)}>
        ${_("Remove")}
      </button>
    </li>`;
  }

  /**
   * Elements to lay over the drawing. A term that stands in several equalities is marked once, in full where one is proven.
   * @param {Figure} figure
   * @param {View} view
   */
  marks(figure, view) {
    const byTerm = new Map();
    for (const { claim, number } of this.#all) {
      if (number === null) continue;
      const isProven = this.claims.holds(claim) === true;
      for (const term of claim.of) {
        const key = keyOf(figure, term);
        const known = byTerm.get(key);
        byTerm.set(key, { term, number, isProven: isProven || Boolean(known?.isProven) });
      }
    }
    return [...byTerm.values()]
      .filter(({ term }) => term.every((/** @type {string} */ id) => figure.isDefined(id)))
      .flatMap(({ term, number, isProven }) => markOf(figure, term, (number % MOST) + 1, isProven, view));
  }
}

/** @param {boolean | undefined} holds */
function stateWords(holds) {
  if (holds === undefined) return _("believed");
  return holds ? _("in every position") : _("not in every position, so not marked");
}

/**
 * @param {Figure} figure
 * @param {string[]} term
 * @param {number} count
 * @param {boolean} isProven
 * @param {View} view
 */
function markOf(figure, term, count, isProven, view) {
  const shapes = term.map((id) => figure.shape(id));
  const kind = isProven ? "tick proven" : "tick believed";
  if (term.length === 3) {
    const places = shapes.map((at) => view.toScreen(...at));
    return angleArcs(places, count, kind);
  }
  const [[ax, ay], [bx, by]] = shapes;
  const [x1, y1, x2, y2] = [...view.toScreen(ax, ay), ...view.toScreen(bx, by)];
  const mark = ticks([ax, ay, bx - ax, by - ay], count, view, kind);
  return [element("line", { x1, y1, x2, y2, class: "marked-length" }), mark];
}

/**
 * A length as its two points, an angle as its three.
 * @param {Figure} figure
 * @param {string[]} term
 */
function pointsOf(figure, term) {
  return term.length === 1 ? figure.step(term[0]).from : term;
}

/**
 * The same for a length or an angle however its points are named.
 * @param {Figure} figure
 * @param {string[]} term
 */
function keyOf(figure, term) {
  const points = pointsOf(figure, term);
  const [first, last] = [points[0], points.at(-1)].sort();
  return [first, ...points.slice(1, -1), last].join(" ");
}

/** @param {Figure} figure @param {string[]} term */
function nameOf(figure, term) {
  const names = term.map((id) => labelOf(figure, id)).join("");
  return term.length === 3 ? _("angle %(names)s", { names }) : names;
}

/**
 * The number of the group that each pair belongs to, where pairs that share something are one group.
 * @param {string[][]} pairs
 */
function groupsOf(pairs) {
  const group = new Map(); // key -> number
  let count = 0;
  for (const [a, b] of pairs) {
    const [first, second] = [group.get(a), group.get(b)];
    const number = first ?? second ?? count++;
    if (first !== undefined && second !== undefined && first !== second)
      for (const [key, one] of group) if (one === second) group.set(key, first);
    group.set(a, number).set(b, number);
  }
  return pairs.map(([a]) => group.get(a));
}
