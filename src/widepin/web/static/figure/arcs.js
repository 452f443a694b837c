// The arcs view: of a helper circle only short arcs about the points that are used on it, as drawn by hand.

/** @import { Figure } from "./figure.js" */
/** @import { Place, Shape } from "./types.js" */
/** @import { View } from "./view.js" */

const HALF = 26; // pixels of arc on either side of a point, whatever the view
const MOST = 0.45; // radians, so that a small circle keeps its gaps

/**
 * The points that lie on a circle by the making of one of them.
 * @param {Figure} figure
 * @param {string} circle
 */
export function pointsUsedOn(figure, circle) {
  const { make, from } = figure.step(circle);
  const through = figure.book.makes[make].through.map((/** @type {number} */ entry) => from[entry]);
  const marked = figure.ids.filter((id) => {
    const step = figure.step(id);
    return ["intersection", "point_on"].includes(step.make) && step.from.includes(circle);
  });
  return [...new Set([...through, ...marked])].filter((id) => figure.isDefined(id) && !figure.step(id).hidden);
}

/**
 * The data of an SVG path of arcs of a circle about these points.
 * @param {Shape} circle
 * @param {Place[]} places
 * @param {View} view
 */
export function arcsData([x, y, rr], places, view) {
  const r = Math.sqrt(rr);
  const half = Math.min(MOST, HALF / (r * view.scale));
  /** @param {number} angle */
  const at = (angle) =>
    view
      .toScreen(x + r * Math.cos(angle), y + r * Math.sin(angle))
      .map((value) => value.toFixed(2))
      .join(" ");
  const radius = (r * view.scale).toFixed(2);
  return places
    .map(([px, py]) => {
      const angle = Math.atan2(py - y, px - x);
      return `M${at(angle - half)}A${radius} ${radius} 0 0 0 ${at(angle + half)}`;
    })
    .join("");
}
