// What is seen of a figure: the names and places of its objects, and the part of a curve that lies in the window.

import { element } from "./element.js";
/** @import { Figure } from "./figure.js" */
/** @import { Shape } from "./types.js" */
/** @import { View } from "./view.js" */

/**
 * The part of a line, ray or segment that lies in the window, as screen coordinates; null if none does.
 * @param {string} kind
 * @param {Shape} line
 * @param {View} view
 * @param {number} width
 * @param {number} height
 */
export function visiblePart(kind, [x, y, dx, dy], view, width, height) {
  const [px, py] = view.toScreen(x, y);
  const vx = dx * view.scale,
    vy = -dy * view.scale;
  let from = kind === "line" ? -Infinity : 0;
  let to = kind === "segment" ? 1 : Infinity;
  const edge = 20; // a little beyond the window
  for (const [p, v, size] of [
    [px, vx, width],
    [py, vy, height],
  ]) {
    if (Math.abs(v) < 1e-12) {
      if (p < -edge || p > size + edge) return null;
      continue;
    }
    const a = (-edge - p) / v,
      b = (size + edge - p) / v;
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  if (!(from < to)) return null;
  return [px + from * vx, py + from * vy, px + to * vx, py + to * vy];
}

/**
 * To a hundredth of a pixel.
 * @param {number} pixels
 */
export function rounded(pixels) {
  return Math.round(pixels * 100) / 100;
}

/** @param {Figure} figure @param {string} id */
export function labelOf(figure, id) {
  return figure.step(id).label || id;
}

/** @param {string} kind @param {Shape} shape @param {View} view @param {number} width @param {number} height */
export function curvePath(kind, shape, view, width, height) {
  const drawn = curveOf(kind, shape, view, width, height);
  return drawn && element(...drawn);
}

/**
 * The name of the element that shows a curve, and its attributes; null where nothing of it is in the window.
 * @param {string} kind
 * @param {Shape} shape
 * @param {View} view
 * @param {number} width
 * @param {number} height
 * @returns {[string, Record<string, any>] | null}
 */
export function curveOf(kind, shape, view, width, height) {
  if (kind === "circle") {
    const [cx, cy] = view.toScreen(shape[0], shape[1]).map(rounded);
    return ["circle", { cx, cy, r: rounded(Math.sqrt(shape[2]) * view.scale) }];
  }
  const part = visiblePart(kind, shape, view, width, height);
  if (!part) return null;
  const [x1, y1, x2, y2] = part.map(rounded);
  return ["line", { x1, y1, x2, y2 }];
}

/** @param {Figure} figure */
export function middleOf(figure) {
  const points = pointsOf(figure);
  if (points.length === 0) return [0, 0];
  return [0, 1].map((axis) => points.reduce((sum, p) => sum + p[axis], 0) / points.length);
}

/**
 * The places of all points of a figure that exist.
 * @param {Figure} figure
 */
export function pointsOf(figure) {
  return figure.ids.filter((id) => figure.isPoint(id) && figure.isDefined(id)).map((id) => figure.shape(id));
}

/**
 * What should be in view: points that are not hidden, and circles unless they are far larger than what the points span.
 * @param {Figure} figure
 */
export function outlineOf(figure) {
  /** @param {string} id */
  const isShown = (id) => figure.isDefined(id) && !figure.step(id).hidden;
  const shown = figure.ids.filter((id) => figure.isPoint(id) && isShown(id)).map((id) => figure.shape(id));
  const points = shown.length ? shown : pointsOf(figure);
  const xs = points.map(([x]) => x),
    ys = points.map(([, y]) => y);
  const span = Math.max(1, Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
  const circles = figure.ids.filter((id) => figure.kind(id) === "circle" && isShown(id));
  return points.concat(
    circles.flatMap((id) => {
      const [x, y, rr] = figure.shape(id);
      const r = Math.sqrt(rr);
      return r > 2.5 * span
        ? []
        : [
            [x - r, y - r],
            [x + r, y + r],
          ];
    }),
  );
}
