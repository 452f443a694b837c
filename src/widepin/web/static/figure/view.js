// The one place that converts coordinates: centimetres on paper (y up) to pixels on screen (y down), and back.
// A view never changes; moving it makes another.

/** @import { Place } from "./types.js" */

const CLOSEST = 400; // pixels per centimetre
const FARTHEST = 2;

export class View {
  constructor(scale = 60, left = 0, top = 10) {
    this.scale = scale; // pixels per centimetre
    this.left = left; // paper x at the left edge
    this.top = top; // paper y at the top edge
    Object.freeze(this);
  }

  /** @param {...number} place @returns {Place} */
  toScreen(...[x, y]) {
    return [(x - this.left) * this.scale, (this.top - y) * this.scale];
  }
  /** @param {...number} place @returns {Place} */
  toPaper(...[px, py]) {
    return [this.left + px / this.scale, this.top - py / this.scale];
  }

  /** @param {number} dx @param {number} dy */
  panned(dx, dy) {
    return new View(this.scale, this.left - dx / this.scale, this.top + dy / this.scale);
  }

  /**
   * Zoomed so that the paper under a pixel stays there.
   * @param {number} factor
   * @param {...number} place
   */
  zoomed(factor, ...[px, py]) {
    const scale = Math.min(CLOSEST, Math.max(FARTHEST, this.scale * factor));
    const [x, y] = this.toPaper(px, py);
    return new View(scale, x - px / scale, y + py / scale);
  }

  /**
   * The view that shows all of some points, with a margin, in a window of this size.
   * @param {Place[]} points
   * @param {number} width
   * @param {number} height
   * @param {number} [margin]
   */
  static fitted(points, width, height, margin = 0.14) {
    if (points.length === 0) return new View();
    const xs = points.map(([x]) => x),
      ys = points.map(([, y]) => y);
    const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const spanX = Math.max(right - left, 0.5),
      spanY = Math.max(high - low, 0.5);
    const room = 1 - 2 * margin;
    const scale = Math.min(CLOSEST, Math.max(FARTHEST, Math.min((width * room) / spanX, (height * room) / spanY)));
    return new View(scale, (left + right - width / scale) / 2, (low + high + height / scale) / 2);
  }
}
