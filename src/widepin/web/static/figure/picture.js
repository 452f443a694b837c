// A figure on a page that can be dragged towards its break and shown step by step.

import { _ } from "../look/language.js";
import { Drawing, looksOf } from "./drawing.js";
import { curvePath, labelOf, outlineOf } from "./outlines.js";
import { element } from "./element.js";
import { Figure } from "./figure.js";
import { noteText } from "./marks.js";
import { reasonMarks } from "./reason-marks.js";
import { renamed } from "./renaming.js";
import { View } from "./view.js";
/** @import { NoteText, Place, Step } from "./types.js" */
/** @import { ToolBook } from "./tape.js" */

const STRIDE = 0.02; // share of a drag that is never jumped over, so that what vanishes is seen where it was last

export class Picture {
  /**
   * data: given, start, steps, answer, outcome, breaks; svg: where to draw; names: whether with names
   * @param {ToolBook} book
   * @param {any} data
   * @param {any} svg
   * @param {boolean} names
   */
  constructor(book, data, svg, names) {
    this.data = data;
    this.names = names;
    this.model = modelBeside(data); // laid over the work on demand
    this.showsModel = false;
    this.figure = new Figure(book, [...data.given, ...(data.start ?? []), ...data.steps, ...this.model]);
    this.drawing = new Drawing(svg);
    this.drags = data.breaks?.points ?? [];
    this.share = 0; // of the way to the break
    this.shown = data.steps.length; // steps of the student's
    this.view = new View(); // until it is painted
    this.lastSeen = new Map(); // id -> shape
    this.highlighted = new Set(); // objects that are pointed out
    this.reason = {}; // what is said of them: equal lengths and angles, right angles
    this.outline = outlineOf(new Figure(book, [...data.given, ...(data.start ?? []), ...data.steps]));
    // A small picture is of the figure as drawn, in which its points stand apart.
    if (this.drags.length && names) {
      this.#put(1);
      this.outline.push(...outlineOf(this.figure));
      this.#put(0);
    }
    this.observer = new ResizeObserver(() => this.paint());
    this.observer.observe(svg);
  }

  get isUntouched() {
    return this.share === 0 && this.shown === this.data.steps.length;
  }
  get isBroken() {
    return this.drags.length > 0 && this.share > 0.98;
  }

  // No longer drawn; another picture takes its place.
  end() {
    this.observer.disconnect();
  }

  /**
   * Drag the figure to a share of the way to where it breaks, 0 to 1.
   * @param {number} share
   */
  dragTo(share) {
    const way = share - this.share;
    const strides = Math.max(1, Math.ceil(Math.abs(way) / STRIDE));
    const from = this.share;
    // The last one arrives exactly: what is computed could miss it by a rounding, and 0 would be before the drawing.
    for (let n = 1; n < strides; n++) this.#put(from + (way * n) / strides);
    this.#put(share);
    this.paint();
  }

  /**
   * Drag a point of the figure to a place.
   * @param {string} id
   * @param {Place} at
   */
  put(id, at) {
    this.figure.put(id, at);
    this.#note();
    this.paint();
  }

  /** @param {string} id */
  isHidden(id) {
    return this.#roles()(id).has("hidden");
  }

  /**
   * Point an object out, or none.
   * @param {string | null} id
   */
  light(id) {
    this.tell(id === null ? [] : [id]);
  }

  /**
   * Point objects out, with what is said of them.
   * @param {string[]} ids
   * @param {object} [reason]
   */
  tell(ids, reason = {}) {
    this.highlighted = new Set(ids);
    this.reason = reason;
    this.paint();
  }

  /**
   * Show so many of the student's steps, the last of them highlighted.
   * @param {number} count
   */
  showSteps(count) {
    this.shown = count;
    this.paint();
  }

  paint() {
    const [width, height] = this.drawing.size();
    if (!width) return;
    const view = View.fitted(this.outline, width, height);
    this.view = view;
    this.drawing.draw(this.figure, view, this.#roles(), {
      names: this.names,
      extras: [
        ...this.#ghosts(view, width, height),
        ...reasonMarks(this.figure, view, this.reason),
        ...(this.names ? (this.data.notes ?? []).map((/** @type {NoteText} */ note) => noteText(note, view)) : []),
      ],
    });
  }

  /** @param {number} share */
  #put(share) {
    this.share = share;
    for (const { id, from, to, path } of this.drags)
      this.figure.put(id, along(path?.length ? path : [from, to], share));
    this.#note();
  }

  #note() {
    for (const id of this.figure.ids) if (this.figure.isDefined(id)) this.lastSeen.set(id, this.figure.shape(id));
  }

  #roles() {
    const { data } = this;
    const given = new Set(data.given.map((/** @type {{id: string}} */ { id }) => id));
    const answer = new Set(data.answer ?? []);
    const failed = this.isBroken || ["wrong", "refused"].includes(data.outcome);
    const later = new Set(data.steps.slice(this.shown).map((/** @type {{id: string}} */ { id }) => id));
    const latest = this.shown < data.steps.length ? data.steps[this.shown - 1]?.id : null;
    const model = new Set(this.model.map(({ id }) => id));
    const put = new Set(
      data.steps
        .filter((/** @type {{hidden: boolean}} */ { hidden }) => hidden)
        .map((/** @type {{id: string}} */ { id }) => id),
    );
    return (/** @type {string} */ id) => {
      const role = new Set();
      for (const look of looksOf(this.figure.step(id))) role.add(look);
      if (given.has(id)) role.add("given");
      if (model.has(id)) role.add(this.showsModel ? "model" : "hidden");
      if (later.has(id) || (put.has(id) && id !== latest)) role.add("hidden"); // what is told of is seen
      if (id === latest || this.highlighted.has(id)) role.add("highlighted");
      if (answer.has(id)) role.add(failed ? "broken" : "answer");
      return role;
    };
  }

  /**
   * What the break is about, where it was seen last, once it is gone.
   * @param {View} view
   * @param {number} width
   * @param {number} height
   */
  #ghosts(view, width, height) {
    const about = [...new Set([this.data.breaks?.object, ...(this.data.answer ?? [])])];
    return about
      .filter((id) => id && this.figure.has(id) && !this.figure.isDefined(id) && this.lastSeen.has(id))
      .flatMap((id) => {
        const shape = this.lastSeen.get(id);
        if (!this.figure.isPoint(id)) {
          const path = curvePath(this.figure.kind(id), shape, view, width, height);
          path?.setAttribute("class", "ghost");
          return path ? [path] : [];
        }
        const [x, y] = view.toScreen(...shape);
        return [
          element("circle", { cx: x, cy: y, r: 11, class: "ghost" }),
          element(
            "text",
            { x, y: y - 17, class: "label gone" },
            _("%(name)s is undefined here", { name: labelOf(this.figure, id) }),
          ),
        ];
      });
  }
}

/**
 * The steps of the model under names that no student can give.
 * @param {{model?: Step[]}} data
 */
function modelBeside({ model = [] }) {
  const own = new Map(model.map(({ id }) => [id, `model ${id}`]));
  /** @param {string} id */
  const named = (id) => own.get(id) ?? id;
  return model.map((step) => renamed({ ...step, label: step.label ?? step.id }, named));
}

/**
 * The place at a share of a path of places at equal shares.
 * @param {Place[]} path
 * @param {number} share
 */
export function along(path, share) {
  const at = share * (path.length - 1);
  const first = Math.max(0, Math.min(Math.floor(at), path.length - 2));
  return [0, 1].map((axis) => path[first][axis] + (at - first) * (path[first + 1][axis] - path[first][axis]));
}
