// What a click would take at a place, the likeliest first: objects, intersections, and places where a point could be put.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { Hits } from "../../figure/hits.js";
import { dependentsOf, rounded } from "../../figure/log.js";
/** @import { Board } from "../board.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Offer, Where } from "../types.js" */
/** @import { Place, Step } from "../../figure/types.js" */
/** @import { Store } from "../construction/store.js" */
/** @import { View } from "../../figure/view.js" */

/** @type {Record<string, number>} */
const REACH = { mouse: 13, pen: 14, touch: 24 }; // pixels
const LENIENT = 1.5; // times as far an intersection is still meant, where only a new point on one curve lies nearer

/** @param {string} pointerType */
export function reachOf(pointerType) {
  return REACH[pointerType] ?? REACH.mouse;
}

/**
 * Whether an object may fill the next blank.
 * @param {Pick<Board, "store" | "hand">} parts
 * @param {string} id
 */
export function fits({ store, hand }, id) {
  return hand.fits(store.figure, id) && (!hand.blank?.own || store.isOwn(id));
}

/**
 * parts: store, hand, tools, view. isFree: a new point lands on nothing, however near a curve is.
 * @param {Where} parts
 * @param {Place} place
 * @param {string} pointerType
 * @param {boolean} [isFree]
 * @returns {Offer[]}
 */
export function offersAt(parts, [px, py], pointerType, isFree = false) {
  const { store, hand, tools, view } = parts;
  if (!hand.tool) return [];
  const reach = reachOf(pointerType);
  if (hand.meetings) {
    return hand.meetings
      .map(({ at }, number) => ({ which: number + 1, far: distance(view, at, px, py) }))
      .filter(({ far }) => far < 2 * reach)
      .sort((a, b) => a.far - b.far);
  }
  const hits = new Hits(store.figure, view, (id) => store.isHidden(id));
  /** @param {Offer[]} list */
  const fitting = (list) => list.filter(({ id }) => fits(parts, id));
  const points = fitting(hits.points([px, py], reach));
  const meetings = () => hits.intersections([px, py], points.length ? reach : reach * LENIENT);
  // A point and an intersection within reach: the nearer one first.
  const pointsAndMeetings = () => byDistance([...points, ...meetings()]);
  const curves = hits.curves([px, py], reach);
  const free = { type: "free", at: view.toPaper(px, py), far: 0 };
  const isTaken = hits.points([px, py], reach / 2).some(({ id }) => !fits(parts, id));
  const mayPut = store.mayPutPoints(tools) && !isTaken; // no point on top of another one
  if (isFree && (hand.blank?.kind === "place" || (hand.blank?.kind === "point" && mayPut && !hand.blank.there)))
    return [free];
  switch (hand.blank?.kind) {
    case "draggable":
      return points;
    case "straight":
    case "circle":
      return fitting(curves);
    case "curve":
      return [...(hand.isEmpty ? hits.intersections([px, py], reach) : []), ...fitting(curves)];
    case "any":
      return fitting([...hits.points([px, py], reach), ...curves]);
    case "wanted":
      return [...(hand.blank.kinds?.includes("point") ? pointsAndMeetings() : []), ...fitting(curves)];
    case "point or line":
      return [...pointsAndMeetings(), ...fitting(curves)];
    case "spot":
      return [free];
    case "place":
      return isTaken ? [] : [...hits.intersections([px, py], reach * LENIENT), ...slides(curves), free];
    case "point":
      return [...pointsAndMeetings(), ...(mayPut && !hand.blank.there ? [...slides(curves), free] : [])];
    default:
      return [];
  }
}

/**
 * An offer in words. isAmbiguous: several lie there, and their kinds tell them apart: a, segment; l, line.
 * @param {Figure} figure
 * @param {Offer | null} offer
 * @param {boolean} isAmbiguous
 */
export function wordsFor(figure, offer, isAmbiguous) {
  if (!offer) return "";
  if (offer.which) return String(offer.which);
  /** @param {string} id */
  const name = (id) => labelOf(figure, id);
  switch (offer.type) {
    case "object":
      return isAmbiguous ? `${name(offer.id)}, ${figure.kind(offer.id)}` : name(offer.id);
    case "intersection":
      return _("intersection of %(first)s, %(second)s", {
        first: name(offer.step.from[0]),
        second: name(offer.step.from[1]),
      });
    case "slide":
      return _("new point on %(name)s", { name: name(offer.id) });
    case "free":
      return _("new point");
    default:
      throw new Error(`${offer.type} is no offer`);
  }
}

/**
 * The point nearest to a place among those that can be dragged, or null.
 * @param {Pick<Where, "store" | "view">} where
 * @param {Place} place
 * @param {string} pointerType
 */
export function draggableAt({ store, view }, [px, py], pointerType) {
  const { figure } = store;
  const near = figure.ids
    .filter((id) => figure.isPoint(id) && figure.canDrag(id) && figure.isDefined(id) && !store.isHidden(id))
    .map((id) => ({ id, far: distance(view, figure.shape(id), px, py) }))
    .filter(({ far }) => far <= reachOf(pointerType));
  return near.sort((a, b) => a.far - b.far)[0]?.id ?? null;
}

/**
 * The objects at a place whatever is in hand, the points first.
 * @param {Pick<Where, "store" | "view">} where
 * @param {Place} place
 * @param {string} pointerType
 */
export function objectsAt({ store, view }, [px, py], pointerType) {
  const hits = new Hits(store.figure, view, (id) => store.isHidden(id));
  const reach = reachOf(pointerType);
  return [...hits.points([px, py], reach), ...hits.curves([px, py], reach)];
}

/**
 * How a point is made of an intersection, a place on a curve or a free place; a step without an id.
 * @param {any} offer
 */
export function pointOf({ type, step, id, at }) {
  if (type === "intersection") return step;
  return type === "slide" ? { make: "point_on", from: [id], at: rounded(at) } : { make: "free_point", at: rounded(at) };
}

/**
 * What lies beside a point of one's own and does not hang on it.
 * @param {Store} store
 * @param {View} view
 * @param {string} id
 */
export function hitsBeside(store, view, id) {
  const its = new Set(dependentsOf(store.own, id));
  return new Hits(store.figure, view, (one) => store.isHidden(one) || its.has(one));
}

const INSTEAD = 3; // times the reach within which something else may have been meant

/**
 * What else may have been meant by a new point that was put here: an intersection, a point on a curve, a free point, in
 * this order; null where nothing is near.
 * @param {Step} made
 * @param {Pick<Where, "store" | "view">} where
 * @param {string} pointerType
 * @returns {Offer | null}
 */
export function insteadOf(made, { store, view }, pointerType) {
  const { figure } = store;
  const [px, py] = view.toScreen(...figure.shape(made.id));
  const hits = hitsBeside(store, view, made.id);
  const reach = INSTEAD * reachOf(pointerType);
  /** @param {Offer} offer */
  const onIts = ({ step }) => made.make !== "point_on" || step.from.includes(made.from[0]);
  const [meeting] = made.make === "intersection" ? [] : hits.intersections([px, py], reach).filter(onIts);
  if (meeting) return meeting;
  if (made.make === "point_on") return { type: "free", at: figure.shape(made.id), far: 0 };
  const [curve] = slides(hits.curves([px, py], made.make === "intersection" ? 1 : reach));
  return curve ?? null;
}

/**
 * Points and intersections before curves, the nearest first, whatever order the wheel has brought them into.
 * @param {Offer[]} offers
 */
export function byDistance(offers) {
  return [...offers].sort(
    (a, b) => Number(isCurve(a)) - Number(isCurve(b)) || a.far - b.far || named(a).localeCompare(named(b)),
  );
}

/**
 * Whether an offer is a curve or a place on one; these have the place on it that is nearest.
 * @param {Offer} offer
 */
function isCurve({ type, at }) {
  return type === "slide" || (type === "object" && at !== undefined);
}

/**
 * What tells an offer from others that are as near: of a segment on a line, the order must not hang on which was meant.
 * @param {Offer} offer
 */
function named({ type, id, step }) {
  return [type, id, ...(step?.from ?? []), step?.pick].join(" ");
}

/** @param {Offer[]} curves */
function slides(curves) {
  return curves.map(({ id, at, far }) => ({ type: "slide", id, at, far }));
}

/** @param {View} view @param {Place} at @param {number} px @param {number} py */
function distance(view, at, px, py) {
  const [x, y] = view.toScreen(...at);
  return Math.hypot(x - px, y - py);
}
