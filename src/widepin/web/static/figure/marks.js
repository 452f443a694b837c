// Marks on a figure: ticks on equally long segments, arcs in angles, a square in a right one.

import { element } from "./element.js";
/** @import { NoteText, Place, Shape } from "./types.js" */
/** @import { View } from "./view.js" */

const TICK = 7,
  APART = 6; // pixels
const ARC = 30,
  SQUARE = 14; // pixels from the vertex
const BETWEEN = 5; // pixels between the arcs of an equality mark

/**
 * Ticks across the middle of a segment.
 * @param {Shape} segment
 * @param {number} count
 * @param {View} view
 * @param {string} kind
 */
export function ticks([x, y, dx, dy], count, view, kind) {
  const [cx, cy] = view.toScreen(x + dx / 2, y + dy / 2);
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / length, -dy / length]; // along the segment, on screen
  let d = "";
  for (let n = 0; n < count; n++) {
    const along = (n - (count - 1) / 2) * APART;
    const [px, py] = [cx + along * ux, cy + along * uy];
    d += `M${px - TICK * uy} ${py + TICK * ux}L${px + TICK * uy} ${py - TICK * ux}`;
  }
  return element("path", { d, class: kind });
}

/**
 * The mark of the angle from a over v to b, a square in a right one; all three as they lie on screen.
 * @param {Place[]} places of a point on one leg, the vertex, a point on the other
 * @param {boolean} isRight
 * @param {string} [kind]
 */
export function angleMark([a, v, b], isRight, kind = "tick") {
  if (!isRight) return angleArcs([a, v, b], 1, kind)[0];
  const ways = waysFrom(v, a, b);
  const corner = ways.map((angle) => [SQUARE * Math.cos(angle), SQUARE * Math.sin(angle)]);
  const [cx, cy] = [v[0] + corner[0][0] + corner[1][0], v[1] + corner[0][1] + corner[1][1]];
  const d = `M${turned(v, ways[0], SQUARE)}L${cx} ${cy}L${turned(v, ways[1], SQUARE)}`;
  return element("path", { d, class: kind });
}

/**
 * So many arcs, one within the other.
 * @param {Place[]} places
 * @param {number} count
 * @param {string} kind
 */
export function angleArcs([a, v, b], count, kind) {
  const ways = waysFrom(v, a, b);
  const turn = turnBetween(ways[0], ways[1]);
  return Array.from({ length: count }, (_arc, n) => {
    const r = ARC + (n - (count - 1) / 2) * BETWEEN;
    const d = `M${turned(v, ways[0], r)}A${r} ${r} 0 0 ${turn > 0 ? 1 : 0} ${turned(v, ways[1], r)}`;
    return element("path", { d, class: kind });
  });
}

/**
 * A tick across the middle of the arc of an angle.
 * @param {Place[]} places
 * @param {string} kind
 */
export function acrossArc([a, v, b], kind) {
  const ways = waysFrom(v, a, b);
  const half = ways[0] + turnBetween(ways[0], ways[1]) / 2;
  return element("path", { d: `M${turned(v, half, ARC - TICK)}L${turned(v, half, ARC + TICK)}`, class: kind });
}

/** @param {Place} v @param {...Place} places */
function waysFrom(v, ...places) {
  return places.map(([x, y]) => Math.atan2(y - v[1], x - v[0]));
}

/**
 * The turn from one way to another, the shorter way round.
 * @param {number} from
 * @param {number} to
 */
function turnBetween(from, to) {
  return ((to - from + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
}

/** @param {Place} v @param {number} angle @param {number} far */
function turned(v, angle, far) {
  return `${v[0] + far * Math.cos(angle)} ${v[1] + far * Math.sin(angle)}`;
}

const LETTERS = 30; // in a line of a note, about

/**
 * A note at its place, in short lines.
 * @param {NoteText} note
 * @param {View} view
 */
export function noteText({ note, text, at }, view) {
  const [x, y] = view.toScreen(...at);
  const made = element("text", { x, y, class: "note" });
  if (note) made.dataset.note = note;
  for (const [number, line] of linesOf(text).entries())
    made.append(element("tspan", { x, dy: number ? "1.25em" : 0 }, line));
  return made;
}

/** @param {string} text */
function linesOf(text) {
  const lines = [""];
  for (const word of text.split(/\s+/)) {
    const last = lines[lines.length - 1];
    if (last && last.length + word.length >= LETTERS) lines.push("");
    lines[lines.length - 1] = `${lines.at(-1)} ${word}`.trim();
  }
  return lines;
}
