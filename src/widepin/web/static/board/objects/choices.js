// Ways to make a step of one's own another way: which intersection is meant, and whether a point is tied to a curve.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { nearestPlace } from "../../figure/figure.js";
import { rounded } from "../../figure/log.js";
import { CHOICES } from "../../figure/tape.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Made, Step } from "../../figure/types.js" */

const ON = 1e-6; // centimetres within which a point lies on a curve as drawn
const MOST = 4; // points and curves that are offered, the nearest first

/**
 * Each {words, step}: how the step would be made instead.
 * @param {Figure} figure
 * @param {Step} step
 */
export function choicesFor(figure, step) {
  if (step.make === "intersection") return intersections(figure, step);
  if (step.make === "free_point") return ties(figure, step);
  if (step.make === "point_on")
    return [{ words: _("Detach"), step: { id: step.id, make: "free_point", at: rounded(figure.shape(step.id)) } }];
  return [];
}

/** @param {Figure} figure @param {Step & {from: string[]}} step */
function intersections(figure, step) {
  if (!step.from.some((id) => figure.kind(id) === "circle")) return [];
  /** @param {string} id */
  const name = (id) => labelOf(figure, id);
  const plain = { id: step.id, make: "intersection", from: step.from };
  const bothRound = step.from.every((id) => figure.kind(id) === "circle");
  const line = step.from.find((id) => figure.kind(id) !== "circle") ?? "";
  const words = bothRound
    ? [_("left"), _("right")].map((side) =>
        _("%(side)s of the way from %(first)s to %(second)s", {
          side,
          first: name(step.from[0]),
          second: name(step.from[1]),
        }),
      )
    : [_("first"), _("second")].map((turn) => _("met %(turn)s along %(name)s", { turn, name: name(line) }));
  const points = before(figure, step.id).filter((id) => figure.isPoint(id) && figure.isDefined(id));
  const common = points.filter((id) => step.from.every((curve) => away(figure, id, curve) < ON));
  const near = byDistance(
    figure,
    step,
    points.filter((id) => !common.includes(id)),
  ).slice(0, MOST);
  return [
    ...words.map((words_, at) => ({ words: words_, step: { ...plain, pick: at + 1 } })),
    ...common.map((id) => ({ words: _("not %(name)s", { name: name(id) }), step: { ...plain, other_than: id } })),
    ...near.map((id) => ({ words: _("nearer to %(name)s", { name: name(id) }), step: { ...plain, nearest_to: id } })),
    ...near.map((id) => ({
      words: _("farther from %(name)s", { name: name(id) }),
      step: { ...plain, farthest_from: id },
    })),
  ].filter((choice) => !isSame(choice.step, step));
}

/** @param {Figure} figure @param {Step} step */
function ties(figure, step) {
  const curves = before(figure, step.id).filter(
    (id) => !figure.isPoint(id) && figure.isDefined(id) && !figure.step(id).hidden,
  );
  return curves
    .map((id) => ({ id, far: away(figure, step.id, id) }))
    .sort((a, b) => a.far - b.far)
    .slice(0, MOST)
    .map(({ id }) => ({
      words: _("Attach to %(name)s", { name: labelOf(figure, id) }),
      step: { id: step.id, make: "point_on", from: [id], at: rounded(figure.shape(step.id)) },
    }));
}

/** @param {Figure} figure @param {string} id */
function before(figure, id) {
  return figure.ids.slice(0, figure.ids.indexOf(id));
}

/** @param {Figure} figure @param {string} point @param {string} curve */
function away(figure, point, curve) {
  const at = figure.shape(point);
  const [x, y] = nearestPlace(figure.kind(curve), figure.shape(curve), at);
  return Math.hypot(x - at[0], y - at[1]);
}

/** @param {Figure} figure @param {Step} step @param {string[]} points */
function byDistance(figure, step, points) {
  if (!figure.isDefined(step.id)) return points;
  const here = figure.shape(step.id);
  /** @param {string} id */
  const far = (id) => Math.hypot(figure.shape(id)[0] - here[0], figure.shape(id)[1] - here[1]);
  return points.sort((a, b) => far(a) - far(b));
}

/** @param {Made} a @param {Made} b */
function isSame(a, b) {
  return CHOICES.every((choice) => a[choice] === b[choice]) && (a.pick ?? 1) === (b.pick ?? 1);
}
