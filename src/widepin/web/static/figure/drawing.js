// Draws a figure into an SVG element: marks on paper as a draughtsman makes them.

import { arcsPath, pointsUsedOn } from "./arcs.js";
import { ticks } from "./marks.js";
import { Names } from "./names.js";

const SVG = "http://www.w3.org/2000/svg";

export function element(name, attributes = {}, text) {
  const made = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  if (text !== undefined) made.textContent = text;
  return made;
}

// The part of a line, ray or segment that lies in the window, as screen coordinates; null if none does.
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

export class Drawing {
  constructor(svg) {
    this.svg = svg;
    this.layers = {};
    for (const name of ["under", "curves", "points", "labels", "over"]) {
      this.layers[name] = element("g", { class: `layer-${name}` });
    }
    svg.replaceChildren(...Object.values(this.layers));
  }

  size() {
    const box = this.svg.getBoundingClientRect();
    return [box.width, box.height];
  }

  // roles: id -> a set of "given", "answer", "broken", "highlighted", "hidden", "dashed", "arcs". extras: elements laid on top.
  draw(figure, view, roles, { names = true, extras = [] } = {}) {
    const [width, height] = this.size();
    const layers = { under: [], curves: [], points: [], labels: [], over: extras };
    const points = [],
      curves = []; // what gets a name
    for (const id of figure.ids) {
      const role = roles(id);
      if (!figure.isDefined(id) || (role.has("hidden") && !role.has("highlighted"))) continue;
      if (figure.isPoint(id)) {
        layers.points.push(pointMark(figure, id, view, role));
        points.push({ id, role });
      } else if (this.#curve(layers, figure, id, view, role, width, height)) {
        curves.push({ id, role });
      }
    }
    if (names) layers.labels.push(...new Names(figure, view, width, height).texts(points, curves));
    for (const [name, elements] of Object.entries(layers)) this.layers[name].replaceChildren(...elements);
  }

  // Whether a curve is seen as such, and not as arcs or not at all.
  #curve(layers, figure, id, view, role, width, height) {
    const used = role.has("arcs") ? pointsUsedOn(figure, id) : [];
    const make = () =>
      used.length
        ? arcsPath(
            figure.shape(id),
            used.map((point) => figure.shape(point)),
            view,
          )
        : curvePath(figure.kind(id), figure.shape(id), view, width, height);
    const path = make();
    if (!path) return false;
    if (role.has("answer") || role.has("highlighted")) {
      const under = make();
      under.setAttribute("class", role.has("highlighted") ? "underlay highlighted" : "underlay answer");
      layers.under.push(under);
    }
    path.setAttribute("class", ["curve", ...role].join(" "));
    path.dataset.id = id;
    layers.curves.push(path);
    const count = figure.kind(id) === "segment" ? figure.step(id).ticks : 0;
    if (count) layers.curves.push(ticks(figure.shape(id), count, view, "tick believed"));
    return !used.length;
  }
}

// How a step asks to be drawn, as classes.
export function looksOf({ style, weight, hue }) {
  return [style === "dashed" && "dashed", weight === "thick" && "thick", hue && hue !== "grey" && `hue-${hue}`].filter(
    Boolean,
  );
}

export function labelOf(figure, id) {
  return figure.step(id).label || id;
}

export function curvePath(kind, shape, view, width, height) {
  if (kind === "circle") {
    const [cx, cy] = view.toScreen(shape[0], shape[1]);
    return element("circle", { cx, cy, r: Math.sqrt(shape[2]) * view.scale });
  }
  const part = visiblePart(kind, shape, view, width, height);
  if (!part) return null;
  const [x1, y1, x2, y2] = part;
  return element("line", { x1, y1, x2, y2 });
}

// Given: dot with a ring. Free: open ring. Sliding: ring with a bar along its curve. Constructed: diagonal cross.
function pointMark(figure, id, view, role) {
  const [x, y] = view.toScreen(...figure.shape(id));
  const step = figure.step(id);
  const group = element("g", { class: ["point", ...role].join(" "), transform: `translate(${x} ${y})` });
  group.dataset.id = id;
  if (role.has("answer") || role.has("highlighted")) group.append(element("circle", { r: 13, class: "halo" }));
  if (role.has("given")) {
    group.append(element("circle", { r: 8, class: "ring" }), element("circle", { r: 4, class: "dot" }));
    if (step.make === "point_on") group.append(slideBar(figure, step));
  } else if (step.make === "free_point") {
    group.append(element("circle", { r: 6, class: "ring" }));
  } else if (step.make === "point_on") {
    group.append(element("circle", { r: 6, class: "ring" }), slideBar(figure, step));
  } else {
    group.append(element("path", { d: "M-5-5L5 5M-5 5L5-5", class: "cross" }));
  }
  return group;
}

function slideBar(figure, step) {
  const [x, y, dx, dy] = figure.shape(step.from[0]);
  const [px, py] = figure.shape(step.id);
  const angle = figure.kind(step.from[0]) === "circle" ? Math.atan2(-(px - x), -(py - y)) : Math.atan2(-dy, dx);
  return element("line", { x1: -12, x2: 12, class: "bar", transform: `rotate(${(angle * 180) / Math.PI})` });
}

export function middleOf(figure) {
  const points = pointsOf(figure);
  if (points.length === 0) return [0, 0];
  return [0, 1].map((axis) => points.reduce((sum, p) => sum + p[axis], 0) / points.length);
}

// The places of all points of a figure that exist.
export function pointsOf(figure) {
  return figure.ids.filter((id) => figure.isPoint(id) && figure.isDefined(id)).map((id) => figure.shape(id));
}

// What should be in view: points that are not hidden, and circles unless they are far larger than what the points span.
export function outlineOf(figure) {
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
