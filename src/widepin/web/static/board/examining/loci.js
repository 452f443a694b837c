// Loci: the path of a point while another one slides along its whole curve. A picture only; no object lies on it.

import { element } from "../../figure/element.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Place } from "../../figure/types.js" */
/** @import { View } from "../../figure/view.js" */

const SAMPLES = 240; // places of the point that slides
const REACH = 40; // times the way of a line or ray that it slides along, in both directions
const JUMP = 0.25; // share of the window's width between two neighbours beyond which the path is broken

/**
 * The sliding points that a point hangs on.
 * @param {Figure} figure
 * @param {string} id
 */
export function driversOf(figure, id) {
  const needed = new Set(figure.madeFrom(id));
  return figure.ids.filter((one) => one !== id && needed.has(one) && figure.step(one).make === "point_on");
}

/**
 * The places of a point while another slides, in order, undefined ones included. The figure is left as it was.
 * @param {Figure} figure
 * @param {string} point
 * @param {string} driver
 */
function pathOf(figure, point, driver) {
  const [curve] = figure.step(driver).from;
  if (!figure.isDefined(curve)) return [];
  return figure.sweep(driver, parametersOf(figure.kind(curve)), point);
}

/** @param {string} kind */
function parametersOf(kind) {
  const shares = Array.from({ length: SAMPLES + 1 }, (_share, n) => n / SAMPLES);
  switch (kind) {
    case "circle":
      return shares.map((share) => 2 * Math.PI * share);
    case "segment":
      return shares;
    case "ray":
      return shares.map((share) => REACH * share ** 3);
    default:
      return shares.map((share) => REACH * (2 * share - 1) ** 3); // dense in the middle, where the figure lies
  }
}

/**
 * Paths to lay under the figure. loci: [{point, driver}]
 * @param {Figure} figure
 * @param {{point: string, driver: string}[]} loci
 * @param {View} view
 * @param {number} width
 */
export function lociPaths(figure, loci, view, width) {
  return loci
    .filter(({ point, driver }) => figure.has(point) && figure.has(driver) && driversOf(figure, point).includes(driver))
    .map(({ point, driver }) => {
      const d = pathData(
        pathOf(figure, point, driver).map((at) => view.toScreen(...at)),
        JUMP * width,
      );
      return element("path", { d, class: "locus" });
    });
}

/** @param {Place[]} places @param {number} jump */
function pathData(places, jump) {
  /** @type {number[] | null} */
  let before = null;
  return places
    .map(([x, y]) => {
      const isThere = Number.isFinite(x) && Number.isFinite(y);
      const isNear = before && Math.hypot(x - before[0], y - before[1]) < jump;
      before = isThere ? [x, y] : null;
      return isThere ? `${isNear ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}` : "";
    })
    .join("");
}
