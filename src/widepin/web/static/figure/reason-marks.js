// What a line of a proof says, on the figure: equal lengths and angles with marks, right angles with a square, two
// triangles filled.

import { element } from "./element.js";
import { acrossArc, angleArcs, angleMark, ticks } from "./marks.js";
/** @import { Figure } from "./figure.js" */
/** @import { Place, Shape } from "./types.js" */
/** @import { View } from "./view.js" */

/**
 * reason: {equal, right, triangles}, each a list of pairs or triples of points; a right angle may be two lines.
 * Elements to lay over the drawing.
 * @param {Figure} figure
 * @param {View} view
 * @param {{equal?: string[][], right?: string[][], triangles?: string[][]}} reason
 */
export function reasonMarks(figure, view, { equal = [], right = [], triangles = [] }) {
  /** @param {string} id */
  const isThere = (id) => figure.has(id) && figure.isDefined(id);
  /** @param {string[]} term */
  const there = (term) => term.every((id) => isThere(id) && figure.isPoint(id));
  return [
    ...triangles.filter(there).map((term, place) => filled(onScreen(figure, view, term), place)),
    ...equal
      .filter(there)
      .flatMap((term) => (term.length === 2 ? length(figure, view, term) : angle(figure, view, term))),
    ...right.filter(there).map((term) => angleMark(onScreen(figure, view, term), true, "tick told")),
    ...right
      .filter((term) => term.length === 2 && term.every(isThere))
      .flatMap((lines) =>
        crossing(
          lines.map((id) => figure.shape(id)),
          view,
        ),
      ),
  ];
}

/** @param {Place[]} corners @param {number} place */
function filled(corners, place) {
  return element("polygon", { points: corners.join(" "), class: place ? "told-triangle other" : "told-triangle" });
}

/**
 * The square where two lines cross; none where they do not.
 * @param {Shape[]} lines
 * @param {View} view
 */
function crossing([[x, y, dx, dy], [otherX, otherY, otherDx, otherDy]], view) {
  const across = dx * otherDy - dy * otherDx;
  if (!across) return [];
  const share = ((otherX - x) * otherDy - (otherY - y) * otherDx) / across;
  const [cx, cy] = [x + share * dx, y + share * dy];
  const legs = [
    [cx + dx, cy + dy],
    [cx, cy],
    [cx + otherDx, cy + otherDy],
  ].map(([a, b]) => view.toScreen(a, b));
  return [angleMark(legs, true, "tick told")];
}

/** @param {Figure} figure @param {View} view @param {string[]} term */
function length(figure, view, [p, q]) {
  const [[x, y], [toX, toY]] = [figure.shape(p), figure.shape(q)];
  const [[x1, y1], [x2, y2]] = [view.toScreen(x, y), view.toScreen(toX, toY)];
  return [
    element("line", { x1, y1, x2, y2, class: "told-length" }),
    ticks([x, y, toX - x, toY - y], 2, view, "tick told"),
  ];
}

/**
 * An arc with a tick across its middle, so that two angles side by side are told apart.
 * @param {Figure} figure
 * @param {View} view
 * @param {string[]} term
 */
function angle(figure, view, term) {
  const places = onScreen(figure, view, term);
  return [...angleArcs(places, 1, "tick told"), acrossArc(places, "tick told")];
}

/** @param {Figure} figure @param {View} view @param {string[]} term */
function onScreen(figure, view, term) {
  return term.map((id) => view.toScreen(...figure.shape(id)));
}
