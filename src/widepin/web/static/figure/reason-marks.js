// What a line of a proof says, on the figure: equal lengths and angles with marks, right angles with a square.

import { element } from "./element.js";
import { angleArcs, angleMark, ticks } from "./marks.js";

// reason: {equal, right}, each a list of pairs or triples of points. Elements to lay over the drawing.
export function reasonMarks(figure, view, { equal = [], right = [] }) {
  const there = (term) => term.every((id) => figure.has(id) && figure.isPoint(id) && figure.isDefined(id));
  return [
    ...equal
      .filter(there)
      .flatMap((term) => (term.length === 2 ? length(figure, view, term) : angle(figure, view, term))),
    ...right.filter(there).map((term) => angleMark(...onScreen(figure, view, term), true, "tick told")),
  ];
}

function length(figure, view, [p, q]) {
  const [[x, y], [toX, toY]] = [figure.shape(p), figure.shape(q)];
  const [[x1, y1], [x2, y2]] = [view.toScreen(x, y), view.toScreen(toX, toY)];
  return [
    element("line", { x1, y1, x2, y2, class: "told-length" }),
    ticks([x, y, toX - x, toY - y], 2, view, "tick told"),
  ];
}

function angle(figure, view, term) {
  return angleArcs(...onScreen(figure, view, term), 1, "tick told");
}

function onScreen(figure, view, term) {
  return term.map((id) => view.toScreen(...figure.shape(id)));
}
