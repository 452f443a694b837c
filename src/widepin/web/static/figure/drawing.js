// Draws a figure into an SVG element: marks on paper as a draughtsman makes them.

import { arcsData, pointsUsedOn } from "./arcs.js";
import { element } from "./element.js";
import { Layer } from "./layer.js";
import { ticks } from "./marks.js";
import { Names } from "./names.js";
import { curveOf, rounded } from "./outlines.js";
/** @import { Figure } from "./figure.js" */
/** @import { Roles, Step } from "./types.js" */
/** @import { View } from "./view.js" */

export class Drawing {
  /** @type {[number, number] | null} */
  #size = null;

  /** @param {any} svg */
  constructor(svg) {
    this.svg = svg;
    /** @type {Record<string, Layer>} */
    this.layers = {};
    this.asides = new Map(); // id -> how far its name stands from its first place, in pixels
    for (const name of ["under", "curves", "points", "labels", "over"]) this.layers[name] = new Layer(name);
    svg.replaceChildren(...Object.values(this.layers).map(({ group }) => group));
    // Asking the browser in every frame would have it lay out the page again.
    new ResizeObserver(() => {
      this.#size = null;
    }).observe(svg);
  }

  /** @returns {[number, number]} of the window in pixels */
  size() {
    if (!this.#size) {
      const { width, height } = this.svg.getBoundingClientRect();
      if (!width) return [width, height];
      this.#size = [width, height];
    }
    return this.#size;
  }

  /**
   * roles: id -> a set of "given", "answer", "broken", "highlighted", "hidden", "dashed", "arcs". extras: elements laid on top.
   * @param {Figure} figure
   * @param {View} view
   * @param {Roles} roles
   * @param {{names?: boolean, extras?: Element[]}} [fields]
   */
  draw(figure, view, roles, { names = true, extras = /** @type {Element[]} */ ([]) } = {}) {
    const [width, height] = this.size();
    const { layers } = this;
    const points = [],
      curves = []; // what gets a name
    for (const id of figure.ids) {
      const role = roles(id);
      if (!figure.isDefined(id) || (role.has("hidden") && !role.has("highlighted"))) continue;
      if (figure.isPoint(id)) {
        this.#point(figure, id, view, role);
        points.push({ id, role });
      } else if (this.#curve(figure, id, view, role, width, height)) {
        curves.push({ id, role });
      }
    }
    if (names)
      for (const { id, name, x, y, classes, aside } of new Names(figure, view, width, height).labels(points, curves)) {
        layers.labels.put(id, "text", { x, y, class: classes, "data-names": id }, lettered(name));
        this.asides.set(id, aside);
      }
    layers.over.add(...extras);
    for (const layer of Object.values(layers)) layer.end();
  }

  /**
   * Whether a curve is seen as such, and not as arcs or not at all.
   * @param {Figure} figure
   * @param {string} id
   * @param {View} view
   * @param {Set<string>} role
   * @param {number} width
   * @param {number} height
   */
  #curve(figure, id, view, role, width, height) {
    const { layers } = this;
    const shape = figure.shape(id);
    const used = role.has("arcs") ? pointsUsedOn(figure, id) : [];
    /** @type {[string, Record<string, any>] | null} */
    const drawn = used.length
      ? [
          "path",
          {
            d: arcsData(
              shape,
              used.map((point) => figure.shape(point)),
              view,
            ),
          },
        ]
      : curveOf(figure.kind(id), shape, view, width, height);
    if (!drawn) return false;
    const [name, attributes] = drawn;
    const under = role.has("highlighted") ? "highlighted" : role.has("answer") ? "answer" : null;
    if (under) layers.under.put(id, name, { ...attributes, class: `underlay ${under}` });
    layers.curves.put(id, name, { ...attributes, class: ["curve", ...role].join(" "), "data-id": id });
    const count = figure.kind(id) === "segment" ? figure.step(id).ticks : 0;
    if (count) layers.curves.add(ticks(shape, count, view, "tick believed"));
    return !used.length;
  }

  /**
   * Given: dot with a ring. Free: open ring. Sliding: ring with a bar along its curve. Constructed: diagonal cross.
   * @param {Figure} figure
   * @param {string} id
   * @param {View} view
   * @param {Set<string>} role
   */
  #point(figure, id, view, role) {
    const [x, y] = view.toScreen(...figure.shape(id));
    const step = figure.step(id);
    const mark = {
      isGiven: role.has("given"),
      isFree: step.make === "free_point",
      turn: step.make === "point_on" ? turnOf(figure, step) : null,
      hasHalo: role.has("answer") || role.has("highlighted"),
    };
    const attributes = { class: ["point", ...role].join(" "), "data-id": id };
    const like = Object.values(mark).join(" ");
    this.layers.points.put(id, "g", attributes, { like, children: () => markOf(mark) }, [rounded(x), rounded(y)]);
  }
}

/**
 * How a step asks to be drawn, as classes.
 * @param {{style?: string, weight?: string, hue?: string}} look
 */
export function looksOf({ style, weight, hue }) {
  const looks = [];
  if (style === "dashed") looks.push("dashed");
  if (weight === "thick") looks.push("thick");
  if (hue && hue !== "grey") looks.push(`hue-${hue}`);
  return looks;
}

/** @param {{isGiven: boolean, isFree: boolean, turn: number | null, hasHalo: boolean}} mark */
function markOf({ isGiven, isFree, turn, hasHalo }) {
  const bar = turn === null ? [] : [element("line", { x1: -12, x2: 12, class: "bar", transform: `rotate(${turn})` })];
  const halo = hasHalo ? [element("circle", { r: 13, class: "halo" })] : [];
  if (isGiven)
    return [...halo, element("circle", { r: 8, class: "ring" }), element("circle", { r: 4, class: "dot" }), ...bar];
  if (isFree || turn !== null) return [...halo, element("circle", { r: 6, class: "ring" }), ...bar];
  return [...halo, element("path", { d: "M-5-5L5 5M-5 5L5-5", class: "cross" })];
}

/**
 * The direction of the curve under a sliding point, in whole degrees on screen.
 * @param {Figure} figure
 * @param {Step} step
 */
function turnOf(figure, step) {
  const [x, y, dx, dy] = figure.shape(step.from[0]);
  const [px, py] = figure.shape(step.id);
  const angle = figure.kind(step.from[0]) === "circle" ? Math.atan2(-(px - x), -(py - y)) : Math.atan2(-dy, dx);
  return Math.round((angle * 180) / Math.PI);
}

/**
 * A name as the content of a text, its last digits set low: P12 as P with a small 12.
 * @param {string} name
 */
function lettered(name) {
  return {
    like: name,
    children() {
      const [, letters, digits] = name.match(/^(.*?)(\d*)$/) ?? ["", name, ""];
      return digits && letters ? [letters, element("tspan", { dy: "0.28em", class: "low" }, digits)] : [name];
    },
  };
}
