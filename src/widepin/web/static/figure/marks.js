// Marks on a figure: ticks on equally long segments, arcs in angles, a square in a right one.

import { element } from "./drawing.js";

const TICK = 7,
  APART = 6; // pixels
const ARC = 30,
  SQUARE = 14; // pixels from the vertex
const RIGHT = 0.05; // degrees within which an angle is drawn as a right one

// Ticks across the middle of a segment.
export function ticks([x, y, dx, dy], count, view) {
  const [cx, cy] = view.toScreen(x + dx / 2, y + dy / 2);
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / length, -dy / length]; // along the segment, on screen
  let d = "";
  for (let n = 0; n < count; n++) {
    const along = (n - (count - 1) / 2) * APART;
    const [px, py] = [cx + along * ux, cy + along * uy];
    d += `M${px - TICK * uy} ${py + TICK * ux}L${px + TICK * uy} ${py - TICK * ux}`;
  }
  return element("path", { d, class: "tick" });
}

// The mark of the angle from a over v to b; all three as they lie on screen.
export function angleMark(a, v, b, degrees) {
  const ways = [a, b].map(([x, y]) => Math.atan2(y - v[1], x - v[0]));
  const at = (angle, far) => `${v[0] + far * Math.cos(angle)} ${v[1] + far * Math.sin(angle)}`;
  if (Math.abs(degrees - 90) < RIGHT) {
    const corner = ways.map((angle) => [SQUARE * Math.cos(angle), SQUARE * Math.sin(angle)]);
    const [cx, cy] = [v[0] + corner[0][0] + corner[1][0], v[1] + corner[0][1] + corner[1][1]];
    return element("path", { d: `M${at(ways[0], SQUARE)}L${cx} ${cy}L${at(ways[1], SQUARE)}`, class: "tick" });
  }
  const turn = ((ways[1] - ways[0] + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
  return element("path", {
    d: `M${at(ways[0], ARC)}A${ARC} ${ARC} 0 0 ${turn > 0 ? 1 : 0} ${at(ways[1], ARC)}`,
    class: "tick",
  });
}

const LETTERS = 30; // in a line of a note, about

// A note at its place, in short lines.
export function noteText({ note, text, at }, view) {
  const [x, y] = view.toScreen(...at);
  const made = element("text", { x, y, class: "note" });
  if (note) made.dataset.note = note;
  for (const [number, line] of linesOf(text).entries())
    made.append(element("tspan", { x, dy: number ? "1.25em" : 0 }, line));
  return made;
}

function linesOf(text) {
  const lines = [""];
  for (const word of text.split(/\s+/)) {
    if (lines.at(-1) && lines.at(-1).length + word.length >= LETTERS) lines.push("");
    lines[lines.length - 1] = `${lines.at(-1)} ${word}`.trim();
  }
  return lines;
}
