// What lies over the drawing while an instrument is in hand: what a click would mark, and what it would draw.

import { curvePath, element } from "../figure/drawing.js";
import { Hand } from "./hand.js";
import { blanksOf, makeOf } from "./instruments.js";

const HERE = " here"; // no object can have this id

export function hints({ hand, offer, trial, candidates, figure, view, drawing }) {
  const extras = candidates.map((at) => {
    const [cx, cy] = view.toScreen(...at);
    return element("circle", { cx, cy, r: 4, class: "candidate" });
  });
  const thought = trial ? figure.preview(trial) : [];
  if (thought.length === 2 && thought.every(Number.isFinite)) {
    const [cx, cy] = view.toScreen(...thought);
    extras.push(element("circle", { cx, cy, r: 12, class: "offer crossing" }));
  }
  const preview = previewOf(hand, offer, figure);
  const path = preview && curvePath(preview.kind, preview.shape, view, ...drawing.size());
  if (path) {
    path.setAttribute("class", "preview");
    extras.push(path);
  }
  if (offer?.at && offer.type !== "object") {
    const [cx, cy] = view.toScreen(...offer.at);
    extras.push(element("circle", { cx, cy, r: offer.type === "crossing" ? 9 : 6, class: `offer ${offer.type}` }));
  }
  for (const [number, { at }] of (hand.meetings ?? []).entries()) {
    const [x, y] = view.toScreen(...at);
    extras.push(element("circle", { cx: x, cy: y, r: 13, class: "numbered" }));
    extras.push(element("text", { x, y: y + 5, class: "number" }, number + 1));
  }
  return extras;
}

// The curve that filling the last blank with the offer would draw.
function previewOf(hand, offer, figure) {
  if (!hand.instrument || !offer || hand.meetings || hand.blank?.kind !== "point") return null;
  const gives = figure.book.makes[makeOf(hand.instrument)]?.gives ?? "point";
  if (gives === "point" || hand.filled.length !== blanksOf(hand.instrument).length - 1) return null;
  const trial = new Hand();
  trial.take(hand.instrument);
  trial.filled = [...hand.filled, HERE];
  const at = offer.type === "object" ? figure.shape(offer.id) : offer.at;
  const shape = figure.previewWith({ id: HERE, make: "free_point", at }, { make: makeOf(hand.instrument), from: trial.sources });
  return shape.every(Number.isFinite) ? { kind: gives, shape } : null;
}
