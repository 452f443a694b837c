// What a line of a proof says, on the figure: equal lengths and angles with marks, right angles with a square, two
// triangles filled.

import { element } from "./element.js";
import { acrossArc, angleArcs, angleMark, ticks } from "./marks.js";

// reason: {equal, right, triangles}, each a list of pairs or triples of points; a right angle may be two lines.
// Elements to lay over the drawing.
export function reasonMarks(figure, view, { equal = [], right = [], triangles = [] }) {
  const isThere = (id) => figure.has(id) && figure.isDefined(id);
  const there = (term) => term.every((id) => isThere(id) && figure.isPoint(id));
  return [
    ...triangles.filter(there).map((term, place) => filled(onScreen(figure, view, term), place)),
    ...equal
      .filter(there)
      .flatMap((term) => (term.length === 2 ? length(figure, view, term) : angle(figure, view, term))),
    ...right.filter(there).map((term) => angleMark(...onScreen(figure, view, term), true, "tick told")),
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

function filled(corners, place) {
  return element("polygon", { points: corners.join(" "), class: place ? "told-triangle other" : "told-triangle" });
}

// The square where two lines cross; none where they do not.
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
  return [angleMark(...legs, true, "tick told")];
}

function length(figure, view, [p, q]) {
  const [[x, y], [toX, toY]] = [figure.shape(p), figure.shape(q)];
  const [[x1, y1], [x2, y2]] = [view.toScreen(x, y), view.toScreen(toX, toY)];
  return [
    element("line", { x1, y1, x2, y2, class: "told-length" }),
    ticks([x, y, toX - x, toY - y], 2, view, "tick told"),
  ];
}

// An arc with a tick across its middle, so that two angles side by side are told apart.
function angle(figure, view, term) {
  const [a, v, b] = onScreen(figure, view, term);
  return [...angleArcs(a, v, b, 1, "tick told"), acrossArc(a, v, b, "tick told")];
}

function onScreen(figure, view, term) {
  return term.map((id) => view.toScreen(...figure.shape(id)));
}
