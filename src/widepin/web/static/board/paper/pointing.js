// The pointer on the board: hovering offers, a click takes, a drag moves what it takes hold of.

import { _ } from "../../look/language.js";
import { isTouch } from "../../look/touch.js";
import { labelOf } from "../../figure/outlines.js";
import { gripAt } from "./grips.js";
import { byDistance, objectsAt, offersAt } from "./offers.js";
/** @import { Board } from "../board.js" */
/** @import { Grip, Offer, Where } from "../types.js" */
/** @import { Place } from "../../figure/types.js" */
/** @import { View } from "../../figure/view.js" */

const TYPED = ["point", "place", "spot"]; // kinds of blanks that take a place as 3, 4.5
const STILL = 5; // pixels that a click may wander
const TWICE = 500; // milliseconds between two clicks on a name that write it anew
const AGAIN = 24; // pixels within which a finger taps the same place again

export class Pointing {
  /** @type {{start: Place, grip: Grip, moved: [Place, number, number, boolean] | null} | null} */
  #down = null; // {start, grip, moved} while a pointer is down; moved: what the grip was moved by last, nothing before
  #touches = new Map();
  /** @type {{middle: Place, width: number, view: View} | null} */
  #pinch = null; // {middle, width, view} while two fingers are down
  /** @type {Offer[]} */
  #offers = [];
  #isHalted = false; // whether the pointer that is down has stopped the drag test
  #asking = ""; // the blank that they were offered for
  /** @type {Offer[]} */
  #near = []; // objects that lie there while no tool is in hand, the one that is meant first
  /** @type {string | null} */
  #chosen = null; // the one of them that was chosen with the arrow keys; what is only brushed on the way is not
  /** @type {number[] | null} */
  #touched = null; // where a finger was last
  /** @type {number[] | null} */
  #place = null;
  /** @type {{id: string, timeStamp: number} | null} */
  #named = null; // the name that was clicked last, and when: {id, timeStamp}

  /**
   * parts: store, hand, tools, pointed, paper, bar, selection, notes, objectMenu, building
   * @param {Board} parts
   */
  constructor(parts) {
    this.parts = parts;
    const { svg } = parts.paper;
    svg.addEventListener("pointerdown", (/** @type {any} */ event) => this.#press(event));
    svg.addEventListener("pointermove", (/** @type {any} */ event) => this.#move(event));
    svg.addEventListener("pointerup", (/** @type {any} */ event) => this.#release(event));
    svg.addEventListener("pointercancel", (/** @type {any} */ event) => this.#cancel(event));
    // A finger that is lifted leaves too, but what it pointed at may still be meant.
    svg.addEventListener("pointerleave", (/** @type {{pointerType: string}} */ { pointerType }) => {
      // Nor does a mouse that rests where a list appears under it.
      if (this.#down || pointerType === "touch" || isTouch()) return;
      this.#place = null;
      this.#offer([]);
    });
    svg.addEventListener("wheel", (/** @type {any} */ event) => this.#wheel(event), { passive: false });
  }

  /**
   * To be called when the figure was made anew: objects that are gone are offered no more.
   * @param {(id: string) => boolean} isGone
   */
  forget(isGone) {
    this.#offers = this.#offers.filter(({ id, step }) =>
      [id, ...(step?.from ?? [])].every((one) => !one || !isGone(one)),
    );
    this.parts.pointed.offer = this.#offers[0] ?? null;
    this.#near = this.#near.filter(({ id }) => !isGone(id));
  }

  // To be called when the figure was made anew, before it is drawn: what is dragged stays where it is held.
  holdOn() {
    if (!this.#down?.moved) return;
    if (this.#down.grip.isThere()) this.#down.grip.move(...this.#down.moved);
    else this.#letGo();
  }

  // Nothing is dragged any more, and nothing of it is kept; what it has done is seen until the figure is made anew.
  #letGo() {
    this.#down?.grip.letGo();
    this.#down = null;
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

  /**
   * Take the one with this number in the list beside the pointer. Where a place could be typed, digits are its own.
   * @param {number} number
   */
  chooseNumber(number) {
    const { hand } = this.parts;
    if (!this.isAmbiguous || hand.meetings || TYPED.includes(hand.blank?.kind ?? "")) return false;
    const chosen = byDistance(this.ambiguous)[number - 1];
    if (chosen) this.choose(chosen);
    return Boolean(chosen);
  }

  // Where the pointer is, in pixels of the paper.
  get place() {
    return this.#touched ?? this.#place;
  }

  /**
   * Take one of what lies there.
   * @param {Offer} offer
   */
  choose(offer) {
    this.#offers = [offer];
    this.#take();
  }

  // Arrow keys, wheel, tapping again: offer the next of several objects under the pointer, or the one before (-1). False
  // where there is only one.
  next(way = 1) {
    const list = this.parts.hand.tool ? this.#offers : this.#near;
    if (list.length < 2) return false;
    if (way > 0) list.push(...list.splice(0, 1));
    else list.unshift(...list.splice(-1));
    if (list === this.#near) this.#chosen = list[0].id;
    this.parts.pointed.at(list === this.#near ? { highlighted: list[0].id } : { offer: list[0] });
    return true;
  }

  // What lies under the pointer when no tool is in hand, the one that is meant first.
  get near() {
    return this.#near;
  }

  // To be called when what is pointed at was hidden or removed.
  letGo() {
    this.#near = [];
    this.#chosen = null;
    this.parts.pointed.at({ highlighted: null });
  }

  // Open the menu of what lies under the pointer; false where there is nothing.
  openMenu(isRenaming = false) {
    const { objectMenu, hand } = this.parts;
    if (!this.#near.length || !this.#place || hand.tool) return false;
    objectMenu.open(
      this.#near.map(({ id }) => id),
      this.#place,
    );
    objectMenu.focus(isRenaming);
    return true;
  }

  #where() {
    const { store, hand, tools, paper } = this.parts;
    return { store, hand, tools, view: paper.view };
  }

  /** @param {Place} place @param {string} pointerType @param {boolean} [isFree] */
  #offersAt(place, pointerType, isFree = false) {
    return offersAt(this.#where(), place, pointerType, isFree);
  }

  // The blank that is to be filled next, as text.
  get #blank() {
    const { tool, filled, meetings } = this.parts.hand;
    return tool ? `${tool.make} ${tool.name ?? ""} ${filled.join(" ")} ${Boolean(meetings)}` : "";
  }

  /** @param {Offer[]} offers */
  #offer(offers) {
    this.#offers = offers;
    this.#asking = this.#blank;
    const wasNear = this.#near.length > 0;
    this.#near = [];
    this.parts.pointed.at(wasNear ? { offer: offers[0] ?? null, highlighted: null } : { offer: offers[0] ?? null });
  }

  /**
   * Without a tool, what lies there is named and lit up.
   * @param {Place} place
   * @param {string} pointerType
   */
  #hover(place, pointerType) {
    const { objectMenu, pointed } = this.parts;
    if (objectMenu.isOpen) return;
    const [before] = this.#near;
    this.#near = this.#nearAt(place, pointerType);
    if (before || this.#near.length) pointed.at({ offer: null, highlighted: this.#near[0]?.id ?? null });
  }

  /**
   * What lies at a place: first what was chosen of it with the arrow keys, then points, then curves.
   * @param {Place} place
   * @param {string} pointerType
   */
  #nearAt(place, pointerType) {
    const near = objectsAt(this.#where(), place, pointerType);
    const at = near.findIndex(({ id }) => id === this.#chosen);
    if (at < 0) this.#chosen = null;
    else near.unshift(...near.splice(at, 1));
    return near;
  }

  /**
   * A finger: the first tap offers, tapping again at the same place goes round.
   * @param {Place} place
   */
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

  /** @param {PointerEvent & {target: any}} event */
  #press(event) {
    if (event.button > 0) return;
    const { paper } = this.parts;
    const place = paper.placeOf(event);
    this.#touches.set(event.pointerId, place);
    paper.svg.setPointerCapture(event.pointerId);
    if (this.#touches.size === 2) return this.#startPinch();
    if (isTouch()) this.#touch(place);
    // A tool may have been taken or put down since the pointer came to rest here.
    else if (this.#asking !== this.#blank) this.#offer(this.#offersAt(place, event.pointerType, event.shiftKey));
    if (this.parts.dragTest.isOn) {
      this.parts.dragTest.halt(); // who takes hold of the figure drags it now
      this.parts.commands.show();
      this.#isHalted = true;
    }
    const grip = gripAt(this.parts, event, place, this.#offers.length > 0);
    this.#down = { start: place, grip, moved: null };
  }

  /** @param {PointerEvent & {target: any}} event */
  #move(event) {
    const { paper } = this.parts;
    const place = paper.placeOf(event);
    this.#place = place;
    if (this.#touches.has(event.pointerId)) this.#touches.set(event.pointerId, place);
    if (this.#pinch) return this.#spread();
    if (!this.#down && !this.parts.hand.tool) return this.#hover(place, event.pointerType);
    if (!this.#down) return this.#offer(this.#offersAt(place, event.pointerType, event.shiftKey));
    const [dx, dy] = [place[0] - this.#down.start[0], place[1] - this.#down.start[1]];
    if (!this.#down.moved && Math.hypot(dx, dy) < STILL) return;
    if (!this.#down.moved) this.parts.objectMenu.close();
    this.#down.moved = [place, dx, dy, event.shiftKey];
    this.#down.grip.move(...this.#down.moved);
    this.#offer([]);
  }

  /** @param {PointerEvent & {target: any}} event */
  #release(event) {
    this.#touches.delete(event.pointerId);
    if (this.#pinch) {
      if (this.#touches.size === 0) this.#pinch = null;
      return;
    }
    const down = this.#down;
    const isHalted = this.#isHalted;
    this.#isHalted = false;
    this.#down = null;
    if (!down) return;
    if (down.moved) down.grip.drop();
    if (isHalted)
      this.parts.store.refresh(); // the figure as it was before the drag test
    else if (!down.moved) this.#click(down.start, event);
  }

  /** @param {Place} place @param {PointerEvent & {target: any}} event */
  #click(place, event) {
    const { pointerType } = event;
    const { bar, hand } = this.parts;
    if (pointerType === "touch" && this.isAmbiguous) {
      bar.askToTake(() => this.#take());
      bar.announce(_("Several lie here. Tap again for the next one."));
    } else if (this.#offers.length) {
      this.#take();
      if (pointerType === "touch") return;
      this.#offer(this.#offersAt(this.#place ?? place, pointerType));
      bar.focus();
    } else if (hand.tool) {
      this.#place = place;
      const { figure } = this.parts.store;
      const id = objectsAt(this.#where(), place, pointerType)[0]?.id;
      bar.announce(
        id && figure.isPoint(id) && ["point", "place"].includes(hand.blank?.kind ?? "")
          ? _("%(name)s lies here already.", { name: labelOf(figure, id) })
          : _("There is nothing here that fits the blank."),
        true,
      );
    } else {
      this.#place = place;
      const near = this.#nearAt(place, pointerType);
      this.#near = near;
      const named = namedAt(event);
      if (named && this.#isTwice(named, event)) this.#rename(named);
      else if (!near.length && named) this.parts.objectMenu.open([named], place);
      else if (near.length)
        this.parts.objectMenu.open(
          near.map(({ id }) => id),
          place,
        );
      else this.parts.objectMenu.close();
    }
  }

  /**
   * Whether a name was clicked a second time just now; the element itself may have been drawn anew between.
   * @param {string} id
   * @param {{timeStamp: number}} event
   */
  #isTwice(id, { timeStamp }) {
    const last = this.#named;
    this.#named = { id, timeStamp };
    return last !== null && last.id === id && timeStamp - last.timeStamp < TWICE;
  }

  /**
   * Clicking a name twice writes it anew.
   * @param {string} id
   */
  #rename(id) {
    const { objectMenu } = this.parts;
    if (this.#place) objectMenu.open([id], this.#place);
    objectMenu.focus(true);
  }

  /** @param {PointerEvent & {target: any}} event */
  #cancel(event) {
    this.#touches.delete(event.pointerId);
    this.#letGo();
    this.#pinch = null;
    this.parts.store.refresh();
  }

  /** @param {WheelEvent} event */
  #wheel(event) {
    event.preventDefault();
    const { paper } = this.parts;
    if (this.isAmbiguous && !event.ctrlKey) return this.next();
    paper.look(paper.view.zoomed(Math.exp(-event.deltaY / 500), ...paper.placeOf(event)));
  }

  // -- two fingers ---------------------------------------------------------------------------------

  #startPinch() {
    const wasDragged = this.#down?.moved;
    this.#letGo();
    if (wasDragged) this.parts.store.refresh();
    this.#pinch = { ...this.#span(), view: this.parts.paper.view };
  }

  #span() {
    const [a, b] = [...this.#touches.values()];
    return { middle: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], width: Math.hypot(a[0] - b[0], a[1] - b[1]) || 1 };
  }

  #spread() {
    if (this.#touches.size !== 2 || !this.#pinch) return;
    const { middle, width } = this.#span();
    const { middle: before, width: old, view } = this.#pinch;
    this.parts.paper.look(view.zoomed(width / old, ...before).panned(middle[0] - before[0], middle[1] - before[1]));
  }
}

/**
 * The object whose name lies under the pointer, while that is captured by the paper.
 * @param {{clientX: number, clientY: number}} fields
 */
function namedAt({ clientX, clientY }) {
  return document.elementFromPoint(clientX, clientY)?.closest("[data-names]")?.getAttribute("data-names");
}
