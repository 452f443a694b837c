// Measures of a figure: their names, their values, and their marks. A measure is a list of objects: two points, a point and
// a line, three points with the vertex second, four points for a ratio, or a circle for its radius.

import { _ } from "../look/language.js";
import { labelOf, middleOf } from "./outlines.js";
import { element } from "./element.js";
import { nearestPlace } from "./figure.js";
import { angleMark } from "./marks.js";
/** @import { Figure } from "./figure.js" */
/** @import { Place, Shape } from "./types.js" */
/** @import { View } from "./view.js" */
/** @import { Where } from "../board/types.js" */

const BESIDE = 18,
  INSIDE = 62; // pixels from a length, from a vertex
const DEGREES = 180 / Math.PI;
const EXACT = 1e-9; // degrees by which an angle in doubles may miss a right one; places have four decimals, so others miss more
const MOST_DECIMALS = 8;

/**
 * Elements to lay over a drawing; none where the measure does not exist. isProven: a right angle holds in every position.
 * @param {Figure} figure
 * @param {View} view
 * @param {string[]} of
 * @param {boolean} [isProven]
 */
export function measureMarks(figure, view, of, isProven = false) {
  const words = valueOf(figure, of);
  if (words === null) return [];
  const shapes = placesOf(figure, of);
  const [x, y] = placeOf(shapes, view, view.toScreen(...middleOf(figure)));
  const text = element(
    "text",
    { x, y, class: "measure" },
    of.length === 4 ? `${nameOf(figure, of)} = ${words}` : words,
  );
  if (of.length !== 3) return [text];
  const kind = isProven ? "tick proven" : "tick";
  return [
    angleMark(
      shapes.map((at) => view.toScreen(...at)),
      isRightHere(figure, of),
      kind,
    ),
    text,
  ];
}

/**
 * What a measure is of, in names.
 * @param {Figure} figure
 * @param {string[]} of
 */
export function nameOf(figure, of) {
  const names = of.map((id) => labelOf(figure, id));
  if (of.length === 1) return _("radius of %(name)s", { name: names[0] });
  if (of.length === 4) return `${names[0]}${names[1]} : ${names[2]}${names[3]}`;
  if (!of.every((id) => figure.isPoint(id))) return _("%(point)s from %(line)s", { point: names[0], line: names[1] });
  return of.length === 3 ? _("angle %(names)s", { names: names.join("") }) : names.join("");
}

/**
 * The value in words; null where it does not exist.
 * @param {Figure} figure
 * @param {string[]} of
 */
export function valueOf(figure, of) {
  const shapes = of.flatMap((id) => figure.shape(id));
  if (!shapes.every(Number.isFinite)) return null;
  if (of.length === 3) {
    const [cos, sin] = figure.book.play("turn point point point", shapes);
    return cos === 0 && sin === 0 ? null : `${inDegrees(Math.atan2(sin, cos) * DEGREES)}°`;
  }
  if (of.length === 4) {
    const [first, second] = [shapes.slice(0, 4), shapes.slice(4)].map(
      (ends) => figure.book.play("length point point", ends)[0],
    );
    return second > 0 ? (first / second).toFixed(3) : null;
  }
  const kinds = of.length === 1 ? "radius circle" : `length point ${figure.isPoint(of[1]) ? "point" : "line"}`;
  const [length] = figure.book.play(kinds, shapes);
  return `${length.toFixed(2)} cm`;
}

/**
 * That three points make a right angle, as a relation.
 * @param {string[]} of
 */
export function rightAngle(of) {
  return { rel: "right_angle", of: [of] };
}

/**
 * Whether an angle is a right one as the figure lies, to the last digit.
 * @param {Figure} figure
 * @param {string[]} of
 */
export function isRightHere(figure, of) {
  if (of.length !== 3 || !of.every((id) => figure.isPoint(id) && figure.isDefined(id))) return false;
  const [cos, sin] = figure.book.play(
    "turn point point point",
    of.flatMap((id) => figure.shape(id)),
  );
  return Math.abs(Math.atan2(sin, cos) * DEGREES - 90) < EXACT;
}

/**
 * With as many decimals as it takes to see that an angle is not quite a right one.
 * @param {number} value
 */
function inDegrees(value) {
  if (Math.abs(value - 90) < EXACT) return "90";
  let decimals = 1;
  while (decimals < MOST_DECIMALS && Number(value.toFixed(decimals)) === 90) decimals += 1;
  return value.toFixed(decimals);
}

/**
 * The places between which a measure stands: a ratio stands at its first length, a distance at the foot on its line.
 * @param {Figure} figure
 * @param {string[]} of
 */
function placesOf(figure, of) {
  const shapes = of.slice(0, of.length === 4 ? 2 : 3).map((id) => figure.shape(id));
  return of.length === 2 && !figure.isPoint(of[1]) ? [shapes[0], nearestPlace("line", shapes[1], shapes[0])] : shapes;
}

/**
 * Where in the window a value stands best: beside a length, inside an angle, below the centre of a circle.
 * @param {Shape[]} shapes
 * @param {View} view
 * @param {Place} middle
 */
function placeOf(shapes, view, [mx, my]) {
  const [[ax, ay], [bx, by], [cx, cy]] = [...shapes, [], []].slice(0, 3).map(([x, y]) => view.toScreen(x, y));
  if (shapes.length === 1) return [ax, ay + 46];
  if (shapes.length === 2) {
    const length = Math.hypot(bx - ax, by - ay) || 1;
    const [x, y] = [(ax + bx) / 2, (ay + by) / 2];
    const [nx, ny] = [(by - ay) / length, (ax - bx) / length];
    const out = (x - mx) * nx + (y - my) * ny >= 0 ? BESIDE : -BESIDE; // on the side away from the figure
    return [x + out * nx, y + out * ny + 5];
  }
  const [u, v] = [Math.hypot(ax - bx, ay - by) || 1, Math.hypot(cx - bx, cy - by) || 1];
  const [dx, dy] = [(ax - bx) / u + (cx - bx) / v, (ay - by) / u + (cy - by) / v];
  const length = Math.hypot(dx, dy) || 1;
  return [bx + (INSIDE * dx) / length, by + (INSIDE * dy) / length + 5];
}
