// The pointer on the board: hovering offers, a click takes, a drag moves what it takes hold of.

import { _ } from "../look/language.js";
import { isTouch } from "../look/touch.js";
import { labelOf } from "../figure/drawing.js";
import { gripAt } from "./grips.js";
import { byDistance, objectAt, offersAt } from "./offers.js";

const TYPED = ["point", "place", "spot"]; // kinds of blanks that take a place as 3, 4.5
const STILL = 5; // pixels that a click may wander
const AGAIN = 24; // pixels within which a finger taps the same place again

export class Pointing {
  #down = null; // {start, grip, isDragged} while a pointer is down
  #touches = new Map();
  #pinch = null; // {middle, width, view} while two fingers are down
  #offers = [];
  #touched = null; // where a finger was last
  #place = null;

  // parts: store, hand, tools, pointed, paper, bar, selection, notes, stepList, building
  constructor(parts) {
    this.parts = parts;
    const { svg } = parts.paper;
    svg.addEventListener("pointerdown", (event) => this.#press(event));
    svg.addEventListener("pointermove", (event) => this.#move(event));
    svg.addEventListener("pointerup", (event) => this.#release(event));
    svg.addEventListener("pointercancel", (event) => this.#cancel(event));
    // A finger that is lifted leaves too, but what it pointed at may still be meant.
    svg.addEventListener("pointerleave", ({ pointerType }) => {
      if (!this.#down && pointerType !== "touch") this.#offer([]);
    });
    svg.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
  }

  // To be called when the figure was made anew: objects that are gone are offered no more.
  forget(isGone) {
    this.#offers = this.#offers.filter(({ id, step }) =>
      [id, ...(step?.from ?? [])].every((one) => !one || !isGone(one)),
    );
    this.parts.pointed.offer = this.#offers[0] ?? null;
  }

  get isAmbiguous() {
    return this.ambiguous.length > 1;
  }

  // What lies within reach, if it is several: objects and intersections, and no places where a point could be put.
  get ambiguous() {
    const { tool } = this.parts.hand;
    const meetings = this.#offers.filter(({ type }) => type === "intersection");
    const isPlain = tool?.make === "intersection" && meetings.length === 1 && this.#offers[0] === meetings[0];
    if (isPlain) return []; // two curves lie there too, and it is their intersection that is meant
    return this.#offers.filter(({ type }) => type === "object" || type === "intersection");
  }

  // Take the one with this number in the list beside the pointer. Where a place could be typed, digits are its own.
  chooseNumber(number) {
    const { hand } = this.parts;
    if (!this.isAmbiguous || hand.meetings || TYPED.includes(hand.blank?.kind)) return false;
    const chosen = byDistance(this.ambiguous)[number - 1];
    if (chosen) this.choose(chosen);
    return Boolean(chosen);
  }

  // Where the pointer is, in pixels of the paper.
  get place() {
    return this.#touched ?? this.#place;
  }

  // Take one of what lies there.
  choose(offer) {
    this.#offers = [offer];
    this.#take();
  }

  // Arrow keys, wheel, tapping again: offer the next of several objects under the pointer, or the one before (-1). False
  // where there is only one.
  next(way = 1) {
    if (this.#offers.length < 2) return false;
    if (way > 0) this.#offers.push(this.#offers.shift());
    else this.#offers.unshift(this.#offers.pop());
    this.parts.pointed.at({ offer: this.#offers[0] });
    return true;
  }

  // The id of what lies under the pointer when no tool is in hand.
  under() {
    return this.#place && objectAt(this.#where(), this.#place, isTouch() ? "touch" : "mouse");
  }

  #where() {
    const { store, hand, tools, paper } = this.parts;
    return { store, hand, tools, view: paper.view };
  }

  #offersAt(place, pointerType, isFree) {
    return offersAt(this.#where(), place, pointerType, isFree);
  }

  #offer(offers) {
    this.#offers = offers;
    this.parts.pointed.at({ offer: offers[0] ?? null });
  }

  // A finger: the first tap offers, tapping again at the same place goes round.
  #touch(place) {
    const again = this.#touched && Math.hypot(place[0] - this.#touched[0], place[1] - this.#touched[1]) < AGAIN;
    this.#touched = place;
    if (!(again && this.isAmbiguous && this.next())) this.#offer(this.#offersAt(place, "touch"));
    this.parts.bar.askToTake(null);
  }

  #take() {
    const [taken] = this.#offers;
    this.#offers = [];
    this.#touched = null;
    this.parts.pointed.offer = null;
    this.parts.bar.askToTake(null);
    if (taken) this.parts.building.fill(taken);
  }

  #press(event) {
    if (event.button > 0) return;
    const { paper } = this.parts;
    const place = paper.placeOf(event);
    this.#touches.set(event.pointerId, place);
    paper.svg.setPointerCapture(event.pointerId);
    if (this.#touches.size === 2) return this.#startPinch();
    if (isTouch()) this.#touch(place);
    const grip = gripAt(this.parts, event, place, this.#offers.length > 0);
    this.#down = { start: place, grip, isDragged: false };
  }

  #move(event) {
    const { paper } = this.parts;
    const place = paper.placeOf(event);
    this.#place = place;
    if (this.#touches.has(event.pointerId)) this.#touches.set(event.pointerId, place);
    if (this.#pinch) return this.#spread();
    if (!this.#down) return this.#offer(this.#offersAt(place, event.pointerType, event.shiftKey));
    const [dx, dy] = [place[0] - this.#down.start[0], place[1] - this.#down.start[1]];
    if (!this.#down.isDragged && Math.hypot(dx, dy) < STILL) return;
    this.#down.isDragged = true;
    this.#down.grip.move(place, dx, dy);
    this.#offer([]);
  }

  #release(event) {
    this.#touches.delete(event.pointerId);
    if (this.#pinch) {
      if (this.#touches.size === 0) this.#pinch = null;
      return;
    }
    const down = this.#down;
    this.#down = null;
    if (!down) return;
    if (down.isDragged) down.grip.drop();
    else this.#click(down.start, event.pointerType);
  }

  #click(place, pointerType) {
    const { bar, hand, stepList } = this.parts;
    if (pointerType === "touch" && this.isAmbiguous) {
      bar.askToTake(() => this.#take());
      bar.announce(_("Several lie here. Tap again for the next one."));
    } else if (this.#offers.length) {
      this.#take();
      if (pointerType === "touch") return;
      this.#offer(this.#offersAt(this.#place ?? place, pointerType, false));
      bar.focus();
    } else if (hand.tool) {
      this.#place = place;
      const { figure } = this.parts.store;
      const id = this.under();
      bar.announce(
        id && figure.isPoint(id) && ["point", "place"].includes(hand.blank?.kind)
          ? _("%(name)s lies here already.", { name: labelOf(figure, id) })
          : _("There is nothing here that fits the blank."),
        true,
      );
    } else {
      this.#place = place;
      stepList.choose(this.under());
    }
  }

  #cancel(event) {
    this.#touches.delete(event.pointerId);
    this.#down = null;
    this.#pinch = null;
    this.parts.store.refresh();
  }

  #wheel(event) {
    event.preventDefault();
    const { paper } = this.parts;
    if (this.isAmbiguous && !event.ctrlKey) return this.next();
    paper.look(paper.view.zoomed(Math.exp(-event.deltaY / 500), ...paper.placeOf(event)));
  }

  // -- two fingers ---------------------------------------------------------------------------------

  #startPinch() {
    if (this.#down?.isDragged) this.parts.store.refresh();
    this.#down = null;
    this.#pinch = { ...this.#span(), view: this.parts.paper.view };
  }

  #span() {
    const [a, b] = [...this.#touches.values()];
    return { middle: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], width: Math.hypot(a[0] - b[0], a[1] - b[1]) || 1 };
  }

  #spread() {
    if (this.#touches.size !== 2) return;
    const { middle, width } = this.#span();
    const { middle: before, width: old, view } = this.#pinch;
    this.parts.paper.look(view.zoomed(width / old, ...before).panned(middle[0] - before[0], middle[1] - before[1]));
  }
}
