// Copies of the figure to take away: SVG in centimetres with named groups, PNG, and the steps as JSON.

import { find } from "../../look/page.js";
import { Drawing } from "../../figure/drawing.js";
import { outlineOf } from "../../figure/outlines.js";
import { noteText } from "../../figure/marks.js";
import { View } from "../../figure/view.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Hand } from "../tools/hand.js" */
/** @import { NoteText, Roles } from "../../figure/types.js" */

const SCALE = 48; // pixels per centimetre in the PNG, units per centimetre in the SVG
const MARGIN = 1; // centimetres around the figure
// A drawing on a sheet of a fixed size, which is not on the page.
class Sheet extends Drawing {
  /** @param {number} width @param {number} height */
  constructor(width, height) {
    super(document.createElementNS("http://www.w3.org/2000/svg", "svg"));
    this.extent = /** @type {[number, number]} */ ([width, height]);
  }

  size() {
    return this.extent;
  }
}

/**
 * notes: {text, at} each.
 * @param {Figure} figure
 * @param {Roles} roles
 * @param {NoteText[]} notes
 */
export async function svgOf(figure, roles, notes) {
  const places = [...outlineOf(figure), ...notes.map(({ at }) => at)];
  const span = (/** @type {number} */ axis) => {
    const values = places.map((at) => at[axis]);
    return [Math.min(...values) - MARGIN, Math.max(...values) + MARGIN];
  };
  const [[left, right], [low, high]] = [span(0), span(1)];
  const [width, height] = [(right - left) * SCALE, (high - low) * SCALE];
  const sheet = new Sheet(width, height);
  const view = new View(SCALE, left, high);
  sheet.draw(figure, view, roles, { extras: notes.map((note) => noteText(note, view)) });
  const { svg } = sheet;
  for (const [name, { group }] of Object.entries(sheet.layers)) group.id = name;
  for (const [name, value] of Object.entries({
    xmlns: "http://www.w3.org/2000/svg",
    width: `${right - left}cm`,
    height: `${high - low}cm`,
    viewBox: `0 0 ${width} ${height}`,
  }))
    svg.setAttribute(name, value);
  const style = document.createElementNS("http://www.w3.org/2000/svg", "style");
  style.textContent = await styles();
  svg.prepend(style);
  return { text: new XMLSerializer().serializeToString(svg), width, height };
}

// The page's own styles of a figure, with its colours filled in, so that the copy stands alone.
async function styles() {
  const sheet = find("link[href*='figure.css']");
  const text = await (await fetch(sheet.href)).text();
  const root = getComputedStyle(document.documentElement);
  return text.replace(/var\((--[\w-]+)\)/g, (_, name) => root.getPropertyValue(name).trim());
}

/** @param {Figure} figure @param {Roles} roles @param {NoteText[]} notes */
export async function pngOf(figure, roles, notes) {
  const { text, width, height } = await svgOf(figure, roles, notes);
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [Math.round(width), Math.round(height)];
  const context = canvas.getContext("2d");
  if (!context) throw new Error("this browser draws no canvas");
  context.fillStyle = getComputedStyle(document.documentElement).getPropertyValue("--board");
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((done) => {
    canvas.toBlob(done, "image/png");
  });
}

/**
 * Hand a file to the browser's downloads.
 * @param {any} content
 * @param {string} name
 * @param {string} [type]
 */
export function save(content, name, type) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
