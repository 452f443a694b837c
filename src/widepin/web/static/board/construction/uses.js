// Class tools, constructions: as the toolbar shows them, and what using one makes.

import { _ } from "../../look/language.js";
import { curvePath, outlineOf } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { Figure } from "../../figure/figure.js";
import { joiner } from "../../figure/listed.js";
import { Picture } from "../../figure/picture.js";
import { renamed } from "../../figure/renaming.js";
import { View } from "../../figure/view.js";
/** @import { ClassTool, NewId } from "../types.js" */
/** @import { Step } from "../../figure/types.js" */
/** @import { ToolBook } from "../../figure/tape.js" */

/**
 * A tool as the toolbar and the sentence bar know it. classTool: its name, takes, steps, gives, moves and figure.
 * @param {ClassTool} classTool
 * @param {ToolBook} book
 */
export function fromClassTool(classTool, book) {
  const { name, takes, moves } = classTool;
  const say = takes.flatMap(({ kind, name: as }, place) => [
    place ? joiner(place, takes.length) : _("%(name)s from", { name }),
    { kind, as },
  ]);
  return {
    make: `use ${name}`,
    group: "construct",
    name,
    say,
    classTool,
    most: null,
    drawing: () => miniature(classTool.figure, book),
    costs: `${moves} ${moves === 1 ? "move" : "moves"}`,
  };
}

/**
 * The use of a tool on these objects, as an operation. newId(make, taken): a free name.
 * @param {ClassTool} classTool
 * @param {string[]} from
 * @param {Iterable<string>} taken
 * @param {NewId} newId
 */
export function useOf({ name, takes, steps, gives, moves }, from, taken, newId) {
  const names = freshNames(steps, gives, taken, newId);
  for (const [place, blank] of takes.entries()) names.set(blank.name, from[place]);
  /** @param {string} id */
  const rename = (id) => names.get(id) ?? id;
  const made = steps.map((step) => renamed(step, rename));
  const results = made.map(({ id }) => id).filter((_id, place) => gives.includes(steps[place].id));
  return { op: "use", class_tool: name, from, steps: made, gives: results, moves };
}

/**
 * Names for what a use makes: id -> id. Results are named as any step is, helpers after the first result: d, d1, d2.
 * @param {Step[]} steps
 * @param {string[]} gives
 * @param {Iterable<string>} taken
 * @param {NewId} newId
 */
export function freshNames(steps, gives, taken, newId) {
  const known = new Set(taken);
  /** @type {Map<string, string>} */
  const names = new Map();
  /** @param {string} id @param {string} fresh */
  const give = (id, fresh) => {
    names.set(id, fresh);
    known.add(fresh);
  };
  for (const { id, make } of steps) if (gives.includes(id)) give(id, newId(make, known));
  const result = steps.map(({ id }) => names.get(id)).find(Boolean);
  let number = 0;
  for (const { id } of steps) {
    if (names.has(id)) continue;
    do number += 1;
    while (known.has(`${result}${number}`));
    give(id, `${result}${number}`);
  }
  return names;
}

// Beside the paper while such a tool is in hand: the figure that was classTool, with the names of its blanks.
export class ClassToolFigure {
  /** @param {any} panel @param {ToolBook} book */
  constructor(panel, book) {
    this.panel = panel;
    this.book = book;
    /** @type {ClassTool | null} */
    this.shown = null;
  }

  /** @param {ClassTool | null} classTool */
  show(classTool) {
    if (classTool === this.shown) return;
    this.shown = classTool;
    this.picture?.end();
    this.panel.hidden = !classTool;
    this.picture = classTool && new Picture(this.book, classTool.figure, this.panel.querySelector("svg"), true);
    this.picture?.paint();
  }
}

/**
 * Whether a step was made within a tool and is not its result.
 * @param {Step} step
 */
export function isHelper({ id, within }) {
  return Boolean(within && !within.gives.includes(id));
}

/**
 * How many moves a step counts; what the use of a tool counts, its first result does.
 * @param {Step} step
 * @param {Record<string, any>} makes
 */
export function countOf({ id, make, within }, makes) {
  if (within) return id === within.gives[0] ? within.moves : 0;
  return makes[make].counts ? 1 : 0;
}

/**
 * The classTool figure, small enough for a card: what is asked for thin, the results heavy.
 * @param {{given: Step[], steps: Step[], answer: string[]}} figure
 * @param {ToolBook} book
 */
function miniature({ given, steps, answer }, book) {
  const figure = new Figure(book, [...given, ...steps]);
  const [width, height] = [26, 28];
  const view = View.fitted(outlineOf(figure), width, height, 0.1);
  const shown = [...given.map(({ id }) => id), ...answer];
  return shown
    .map((id) => {
      const weight = answer.includes(id) ? "result" : "asked";
      if (figure.isPoint(id)) {
        const [cx, cy] = view.toScreen(...figure.shape(id));
        return element("circle", { cx, cy, r: 1.6, class: `dot ${weight}` });
      }
      const path = curvePath(figure.kind(id), figure.shape(id), view, width, height);
      path?.setAttribute("class", weight);
      return path;
    })
    .filter((drawn) => drawn !== null);
}
