// What lies over the drawing while a tool is in hand: what a click would mark, and what it would draw.

import { curvePath } from "../../figure/outlines.js";
import { element } from "../../figure/element.js";
import { Hand } from "./hand.js";
import { makeOf } from "../construction/tools.js";
import { useOf } from "../construction/uses.js";
/** @import { Board } from "../board.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { NewStep, Place } from "../../figure/types.js" */
/** @import { Offer, Tool } from "../types.js" */

const HERE = " here"; // no object can have this id

/**
 * candidates: intersections that could be marked; hinting: whose ghost is the step that a hint shows
 * @param {Pick<Board, "store" | "hand" | "pointed" | "paper" | "hinting">} parts
 * @param {Place[]} candidates
 */
export function hints({ store: { figure }, hand, pointed, paper: { view, size }, hinting }, candidates) {
  const { offer } = pointed;
  const trial = pointed.trial ?? hinting?.ghost ?? null;
  const extras = candidates.map((at) => {
    const [cx, cy] = view.toScreen(...at);
    return element("circle", { cx, cy, r: 4, class: "candidate" });
  });
  const thought = trial ? figure.preview(trial) : [];
  if (thought.length === 2 && thought.every(Number.isFinite)) {
    const [cx, cy] = view.toScreen(...thought);
    extras.push(element("circle", { cx, cy, r: 12, class: "offer intersection" }));
  } else if (thought.length > 2 && thought.every(Number.isFinite)) {
    const path = curvePath(figure.book.makes[trial.make].gives, thought, view, ...size);
    path?.setAttribute("class", "preview");
    if (path) extras.push(path);
  }
  for (const { kind, shape } of previewsOf(hand, offer, figure)) {
    const path = curvePath(kind, shape, view, ...size);
    path?.setAttribute("class", "preview");
    if (path) extras.push(path);
  }
  if (offer?.at && offer.type !== "object") {
    const [cx, cy] = view.toScreen(...offer.at);
    extras.push(element("circle", { cx, cy, r: offer.type === "intersection" ? 9 : 6, class: `offer ${offer.type}` }));
  }
  for (const [number, { at }] of (hand.meetings ?? []).entries()) {
    const [x, y] = view.toScreen(...at);
    extras.push(element("circle", { cx: x, cy: y, r: 13, class: "numbered" }));
    extras.push(element("text", { x, y: y + 5, class: "number" }, number + 1));
  }
  return extras;
}

/**
 * The curves that filling the last blank with the offer would draw.
 * @param {Hand} hand
 * @param {Offer | null} offer
 * @param {Figure} figure
 */
function previewsOf(hand, offer, figure) {
  const { tool } = hand;
  if (!tool || !offer || hand.meetings || !hand.blank || !hand.isAlmostFull) return [];
  if (!tool.classTool && hand.blank.kind !== "point") return [];
  const trial = new Hand();
  trial.take(tool);
  trial.filled = hand.filledWith(HERE);
  const at = offer.type === "object" ? null : offer.at;
  const here = at ? [{ id: HERE, make: "free_point", at }] : [];
  const sources = trial.sources.map((id) => (id === HERE && !at ? offer.id : id));
  const steps = madeBy(tool, sources, figure);
  const shapes = figure.previewAll([...here, ...steps.all]);
  return steps.results
    .map((id) => ({ kind: steps.kind(id), shape: shapes.get(id) ?? [] }))
    .filter(({ kind, shape }) => kind !== "point" && shape.every(Number.isFinite));
}

/**
 * What the tool would make, under names that no object has.
 * @param {Tool} tool
 * @param {string[]} from
 * @param {Figure} figure
 */
function madeBy(tool, from, { book, ids }) {
  /** @type {NewStep[]} */
  let all = [];
  /** @type {string[]} */
  let results = [];
  if (tool.classTool) {
    ({ steps: all, gives: results } = useOf(tool.classTool, from, ids, (_, taken) => ` made ${taken.size}`));
  } else if (book.makes[makeOf(tool)]) {
    all = [{ id: " made", make: makeOf(tool), from }];
    results = [" made"];
  }
  return {
    all,
    results,
    kind: (/** @type {string} */ id) => book.makes[String(all.find((step) => step.id === id)?.make)].gives,
  };
}
