// What vanishes while the figure is dragged: a fading ghost where it was last, and a sentence that says why.

import { _ } from "../../look/language.js";
import { curvePath, labelOf } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { listed } from "../../figure/listed.js";
import { parentsOf } from "../../figure/log.js";
import { isHelper } from "../construction/uses.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Shape } from "../../figure/types.js" */
/** @import { View } from "../../figure/view.js" */

const SEEN = 0.005; // centimetres from which on a distance is told
const SAME = 1e-6; // centimetres by which two curves that have become one may differ in doubles

export class Vanished {
  #lastSeen = new Map(); // id -> shape
  #gone = new Set();

  get isAny() {
    return this.#gone.size > 0;
  }

  /**
   * What is new: ids that are gone since the last time, and whether everything is back.
   * @param {Figure} figure
   */
  note(figure) {
    const gone = new Set();
    for (const id of figure.ids) {
      if (figure.isDefined(id)) this.#lastSeen.set(id, figure.shape(id));
      else gone.add(id);
    }
    const fresh = [...gone].filter((id) => !this.#gone.has(id) && this.#lastSeen.has(id) && !isHelper(figure.step(id)));
    const isBack = this.#gone.size > 0 && gone.size === 0;
    this.#gone = gone;
    return { fresh, isBack };
  }

  /** @param {Figure} figure @param {View} view @param {number} width @param {number} height */
  ghosts(figure, view, width, height) {
    return [...this.#gone]
      .filter((id) => this.#lastSeen.has(id) && figure.has(id) && !figure.step(id).hidden)
      .flatMap((id) => {
        const shape = this.#lastSeen.get(id);
        if (!figure.isPoint(id)) {
          const path = curvePath(figure.kind(id), shape, view, width, height);
          path?.setAttribute("class", "ghost fading");
          return path ? [path] : [];
        }
        const [cx, cy] = view.toScreen(...shape);
        return [element("circle", { cx, cy, r: 9, class: "ghost fading" })];
      });
  }
}

/**
 * Why an object does not exist, as a sentence about the first thing that went wrong.
 * @param {Figure} figure
 * @param {string} id
 */
export function whyGone(figure, id) {
  const step = figure.step(id);
  const parents = parentsOf(step);
  const missing = parents.find((/** @type {string} */ parent) => !figure.isDefined(parent));
  if (step.within && (!missing || isHelper(figure.step(missing))))
    return _("What %(class_tool)s is made from is undefined in this position.", { class_tool: step.within.class_tool });
  if (missing) return whyGone(figure, missing);
  const { spanned, undefined: why } = figure.book.makes[step.make];
  const names = spanned.map((/** @type {number} */ entry) => labelOf(figure, step.from[entry]));
  if (step.make === "intersection") return whyNoIntersection(figure, step.from, true);
  return figure.book.words.undefined[why].replace("{names}", listed(names));
}

/**
 * Why two curves have no intersection in this position. isGone: they had one before.
 * @param {Figure} figure
 * @param {string[]} curves
 * @param {boolean} [isGone]
 */
export function whyNoIntersection(figure, curves, isGone = false) {
  const [a, b] = curves;
  const [first, second] = [a, b].map((id) => labelOf(figure, id));
  /** @param {string} key @param {...Shape} shapes */
  const measure = (key, ...shapes) => figure.book.play(key, shapes.flat());
  /** @param {string} id */
  const isRound = (id) => figure.kind(id) === "circle";
  if (isRound(a) === isRound(b)) {
    const differ = measure(isRound(a) ? "differ circle circle" : "differ line line", figure.shape(a), figure.shape(b));
    if (differ.every((/** @type {number} */ value) => value < SAME))
      return isRound(a)
        ? _("%(first)s and %(second)s are the same circle here.", { first, second })
        : _("%(first)s and %(second)s are the same line here.", { first, second });
  }
  if (isRound(a) && isRound(b)) {
    const [outside, inside] = measure("apart circle circle", figure.shape(a), figure.shape(b));
    const circles = _("circles %(first)s and %(second)s", { first, second });
    if (outside > 0) return apart(circles, isGone, outside);
    if (inside > 0)
      return inside < SEEN
        ? apart(circles, isGone, inside)
        : _("%(meeting)s: one lies %(far)s inside the other.", {
            meeting: notMeeting(circles, isGone),
            far: cm(inside),
          });
  }
  if (isRound(a) !== isRound(b)) {
    const [line, circle] = isRound(a) ? [b, a] : [a, b];
    const [off] = measure("apart line circle", figure.shape(line), figure.shape(circle));
    if (off > 0) return apart(_("%(first)s and %(second)s", { first, second }), isGone, off);
  }
  const short = [a, b].find((id) => ["segment", "ray"].includes(figure.kind(id)));
  if (short)
    return _("%(first)s and %(second)s meet beyond the end of the %(kind)s %(name)s.", {
      first,
      second,
      kind: figure.kind(short),
      name: labelOf(figure, short),
    });
  if (!isRound(a) && !isRound(b)) return _("%(first)s and %(second)s are parallel.", { first, second });
  return _("Which intersection of %(first)s and %(second)s is meant cannot be told: both are equally far.", {
    first,
    second,
  });
}

/**
 * That curves do not meet, or no longer, to begin a sentence.
 * @param {string} curves
 * @param {boolean} isGone
 */
function notMeeting(curves, isGone) {
  const start = curves[0] === "c" && curves.startsWith("circles") ? `C${curves.slice(1)}` : curves;
  return isGone ? _("%(curves)s no longer meet", { curves: start }) : _("%(curves)s do not meet", { curves: start });
}

/**
 * That curves miss each other, and by how much where that can be seen.
 * @param {string} curves
 * @param {boolean} isGone
 * @param {number} far
 */
function apart(curves, isGone, far) {
  const meeting = notMeeting(curves, isGone);
  return far < SEEN
    ? _("%(meeting)s: they just miss each other.", { meeting })
    : _("%(meeting)s: they are %(far)s apart.", { meeting, far: cm(far) });
}

/** @param {number} value */
function cm(value) {
  return `${value < 0.1 ? value.toFixed(2) : value.toFixed(1)} cm`;
}
