// What a drag on the paper takes hold of: a point, the whole figure, a note, a name, a frame, or the paper itself. While
// it is dragged the figure may be made anew, since something was stored: then it is moved again, if it is still there.

import { rounded } from "../../figure/log.js";
import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { Attaching } from "./attaching.js";
import { draggableAt } from "./offers.js";
/** @import { Board } from "../board.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Grip } from "../types.js" */
/** @import { Notes } from "../examining/notes.js" */
/** @import { Paper } from "./paper.js" */
/** @import { Place } from "../../figure/types.js" */
/** @import { Selection } from "./selection.js" */
/** @import { Store } from "../construction/store.js" */
/** @import { View } from "../../figure/view.js" */

const always = () => true;
const letGo = () => {};

/**
 * parts: store, hand, paper, selection, notes. event: of the pointer that went down at this place.
 * @param {Board} parts
 * @param {PointerEvent & {target: any}} event
 * @param {Place} place
 * @param {boolean} isOffered
 * @returns {Grip}
 */
export function gripAt(parts, event, place, isOffered) {
  const { store, hand, paper, selection, notes } = parts;
  if (selection.isOn && !isOffered) return frame(selection, place);
  /** @param {string} name */
  const on = (name) => (hand.tool ? null : event.target.closest?.(`[data-${name}]`)?.dataset[name]);
  if (on("note")) return note(store, notes, paper.view, on("note"));
  const id = draggableAt({ store, view: paper.view }, place, event.pointerType);
  if (id) return point(parts, id, event);
  if (on("names")) return nameBeside(store, paper, on("names"));
  // With Shift the paper stays and the whole figure goes along.
  if (event.shiftKey && !hand.tool) return wholeFigure(store, paper.view);
  return paperItself(paper);
}

/**
 * A point of one's own is attached to what it is dropped on, and pulled away from its curve with Shift.
 * @param {Board} parts
 * @param {string} id
 * @param {{pointerType: string, shiftKey: boolean}} event
 * @returns {Grip}
 */
function point(parts, id, { pointerType, shiftKey }) {
  // The figure is made anew when something is stored meanwhile, so it is asked for each time.
  const { store, paper, bar } = parts;
  if (shiftKey && store.isOwn(id) && store.figure.step(id).make === "point_on") return pulledAway(parts, id);
  const attaching = new Attaching(parts, id, pointerType);
  const others = othersThan(store, id);
  return {
    isThere: () => isDraggable(store, id),
    letGo: () => attaching.end(),
    move: (place, _dx, _dy, isFree) => {
      const at = attaching.at(place, isFree) ?? pointAt(store.figure, paper.view, others, place);
      store.figure.put(id, at ?? paper.view.toPaper(...place));
    },
    drop: () => {
      const step = attaching.end();
      if (step) store.perform({ op: "remake", step });
      else store.perform({ op: "move", points: { [id]: rounded(store.figure.shape(id)) } });
      const words = step ? attaching.said(step) : attaching.saidOfMiss();
      if (words) bar.announce(words);
    },
  };
}

/** @param {Pick<Store, "figure">} store @param {string} id */
function isDraggable({ figure }, id) {
  return figure.has(id) && figure.canDrag(id);
}

const ONTO = 3; // pixels within which a point is dragged exactly onto another one

/**
 * The points that do not hang on one that is dragged.
 * @param {Pick<Store, "figure">} store
 * @param {string} id
 */
function othersThan({ figure }, id) {
  /** @param {string} one */
  const hangs = (one) => figure.madeFrom(one).includes(id);
  return figure.ids.filter((one) => figure.isPoint(one) && !figure.step(one).hidden && !hangs(one));
}

/** @param {Figure} figure @param {View} view @param {string[]} ids @param {Place} place */
function pointAt(figure, view, ids, [px, py]) {
  const id = ids.find((one) => {
    const [x, y] = view.toScreen(...figure.shape(one));
    return Math.hypot(x - px, y - py) < ONTO;
  });
  return id ? figure.shape(id) : null;
}

/**
 * Without its curve, and wherever it is pulled.
 * @param {Pick<Board, "store" | "paper" | "bar">} parts
 * @param {string} id
 * @returns {Grip}
 */
function pulledAway({ store, paper, bar }, id) {
  let at = store.figure.shape(id);
  return {
    isThere: () => isDraggable(store, id),
    letGo,
    move: (place) => {
      at = paper.view.toPaper(...place);
      if (store.figure.step(id).make === "point_on") store.figure.detach(id);
      store.figure.put(id, at);
    },
    drop: () => {
      store.perform({ op: "remake", step: { id, make: "free_point", at: rounded(at) } });
      bar.announce(_("%(name)s is a free point now.", { name: labelOf(store.figure, id) }));
    },
  };
}

/** @param {Store} store @param {View} view * @returns {Grip}
 */
function wholeFigure(store, view) {
  const { figure } = store;
  const places = new Map(
    figure.ids.filter((id) => figure.step(id).make === "free_point").map((id) => [id, figure.shape(id)]),
  );
  return {
    isThere: () => [...places.keys()].every((id) => store.figure.has(id)),
    letGo,
    move: (_place, dx, dy) => {
      for (const [id, [x, y]] of places) store.figure.put(id, [x + dx / view.scale, y - dy / view.scale]);
    },
    drop: () => {
      const points = Object.fromEntries([...places.keys()].map((id) => [id, rounded(store.figure.shape(id))]));
      store.perform({ op: "move", points });
    },
  };
}

/** @param {Store} store @param {Notes} notes @param {View} view @param {string} name * @returns {Grip}
 */
function note(store, notes, view, name) {
  const [x, y] = notes.named(name)?.at ?? [0, 0];
  return {
    isThere: () => Boolean(notes.named(name)),
    letGo,
    move: (_place, dx, dy) => notes.putAside(name, [x + dx / view.scale, y - dy / view.scale]),
    drop: () => {
      const { text, at } = notes.named(name) ?? {};
      if (at) store.perform({ op: "note", note: name, text, at });
    },
  };
}

/**
 * A name can be dragged aside from where it stands; how far it then is from its first place is kept, in pixels.
 * @param {Store} store
 * @param {Paper} paper
 * @param {string} id
 * @returns {Grip}
 */
function nameBeside(store, paper, id) {
  const [x, y] = paper.drawing.asides.get(id) ?? [0, 0];
  return {
    isThere: () => store.figure.has(id),
    letGo,
    move: (_place, dx, dy) => {
      store.figure.step(id).name_at = [Math.round(x + dx), Math.round(y + dy)];
    },
    drop: () => store.perform({ op: "dress", id, dress: { name_at: store.figure.step(id).name_at } }),
  };
}

/** @param {Selection} selection @param {Place} start * @returns {Grip}
 */
function frame(selection, start) {
  return {
    isThere: always,
    letGo: () => selection.unframe(),
    move: (place) => selection.frame(start, place),
    drop: () => selection.close(),
  };
}

/** @param {Paper} paper * @returns {Grip}
 */
function paperItself(paper) {
  const { view } = paper;
  return {
    isThere: always,
    letGo,
    /** @param {Place} _place @param {number} dx @param {number} dy */ move: (_place, dx, dy) =>
      paper.setView(view.panned(dx, dy)),
    drop: letGo,
  };
}
