// The pointer on the board: hovering offers, a click takes, a drag moves a point or the paper.

import { Hits } from "./hits.js";
import { rounded } from "./log.js";

const STILL = 5; // pixels that a click may wander
const AGAIN = 24; // pixels within which a finger taps the same place again

export class Pointing {
  #down = null; // {id, start, at, view, dragged} while a pointer is down
  #touches = new Map();
  #offers = [];
  #touched = null; // where a finger was last
  #place = null;

  constructor(board) {
    this.board = board;
    this.isTouch = false;
    const paper = board.drawing.svg;
    // Wherever a finger was last, so that no keyboard pops up under it.
    document.addEventListener(
      "pointerdown",
      ({ pointerType }) => {
        this.isTouch = pointerType === "touch";
      },
      true,
    );
    paper.addEventListener("pointerdown", (event) => this.#press(event));
    paper.addEventListener("pointermove", (event) => this.#move(event));
    paper.addEventListener("pointerup", (event) => this.#release(event));
    paper.addEventListener("pointercancel", (event) => this.#cancel(event));
    // A finger that is lifted leaves too, but what it pointed at may still be meant.
    paper.addEventListener("pointerleave", ({ pointerType }) => {
      if (!this.#down && pointerType !== "touch") this.#offer([]);
    });
    paper.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
  }

  // What is offered on a figure that was made anew: objects that are gone are offered no more.
  stillThere(figure) {
    this.#offers = this.#offers.filter(({ id, step }) =>
      [id, ...(step?.from ?? [])].every((one) => !one || figure.has(one)),
    );
    return this.#offers[0] ?? null;
  }

  get isAmbiguous() {
    return this.#offers.filter(({ type }) => type === "object").length > 1;
  }

  // Tab, wheel, tapping again: offer the next of several objects under the pointer. False where there is only one.
  next() {
    if (this.#offers.length < 2) return false;
    this.#offers.push(this.#offers.shift());
    this.board.offerNow(this.#offers[0]);
    return true;
  }

  // A finger: the first tap offers, tapping again at the same place goes round.
  #touch(place) {
    const again = this.#touched && Math.hypot(place[0] - this.#touched[0], place[1] - this.#touched[1]) < AGAIN;
    this.#touched = place;
    if (!(again && this.isAmbiguous && this.next())) this.#offer(this.board.offersAt(...place, "touch"));
    this.board.bar.askToTake(null);
  }

  #take() {
    const [taken] = this.#offers;
    this.#offers = [];
    this.#touched = null;
    this.board.offer = null;
    this.board.bar.askToTake(null);
    if (taken) this.board.building.fill(taken);
  }

  // What lies under the pointer when no tool is in hand, the points first.
  under() {
    if (!this.#place) return null;
    const hits = new Hits(this.board.figure, this.board.view, (id) => this.board.isHidden(id));
    const reach = this.isTouch ? 24 : 13;
    return [...hits.points(...this.#place, reach), ...hits.curves(...this.#place, reach)][0]?.id ?? null;
  }

  #position(event) {
    const box = this.board.drawing.svg.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  }

  #offer(offers) {
    this.#offers = offers;
    this.board.offerNow(offers[0] ?? null);
  }

  #press(event) {
    if (event.button > 0) return;
    const { board } = this;
    const place = this.#position(event);
    this.#touches.set(event.pointerId, place);
    board.drawing.svg.setPointerCapture(event.pointerId);
    if (this.#touches.size === 2) return this.#startPinch();
    if (this.isTouch) this.#touch(place);
    if (board.selection.isOn && !this.#offers.length) {
      this.#down = { isFrame: true, start: place, dragged: false };
      return;
    }
    const note = board.hand.tool ? null : event.target.closest?.("[data-note]")?.dataset.note;
    if (note) {
      this.#down = { note, aside: board.notes.named(note).at, start: place, view: board.view, dragged: false };
      return;
    }
    const id = this.#draggableAt(...place, event.pointerType);
    // A name can be dragged aside where nothing else is meant.
    const name = board.hand.tool ? null : event.target.closest?.("[data-names]")?.dataset.names;
    if (name && !id) {
      this.#down = {
        name,
        aside: board.figure.step(name).name_at ?? [0, 0],
        start: place,
        view: board.view,
        dragged: false,
      };
      return;
    }
    // With Shift the paper stays and the whole figure goes along.
    const whole = !id && event.shiftKey && !board.hand.tool ? freePlaces(board.figure) : null;
    this.#down = { id, whole, start: place, view: board.view, dragged: false };
  }

  #draggableAt(px, py, pointerType) {
    const { figure, view } = this.board;
    const reach = pointerType === "touch" ? 24 : 13;
    let best = null;
    for (const id of figure.ids) {
      if (!figure.isPoint(id) || !figure.canDrag(id) || !figure.isDefined(id) || this.board.isHidden(id)) continue;
      const [x, y] = view.toScreen(...figure.shape(id));
      const far = Math.hypot(x - px, y - py);
      if (far <= reach && (!best || far < best.far)) best = { id, far };
    }
    return best?.id ?? null;
  }

  #move(event) {
    const place = this.#position(event);
    this.#place = place;
    if (this.#touches.has(event.pointerId)) this.#touches.set(event.pointerId, place);
    if (this.#pinch) return this.#spread();
    if (!this.#down) return this.#offer(this.board.offersAt(...place, event.pointerType, event.shiftKey));
    const [dx, dy] = [place[0] - this.#down.start[0], place[1] - this.#down.start[1]];
    if (!this.#down.dragged && Math.hypot(dx, dy) < STILL) return;
    this.#down.dragged = true;
    const { board } = this;
    if (this.#down.isFrame) board.selection.frame(this.#down.start, place);
    else if (this.#down.note) board.notes.putAside(this.#down.note, this.#onPaper(dx, dy));
    else if (this.#down.name) board.figure.step(this.#down.name).name_at = this.#aside(dx, dy);
    else if (this.#down.whole) this.#putWhole(dx, dy);
    else if (this.#down.id) board.figure.put(this.#down.id, board.view.toPaper(...place));
    else board.look(this.#down.view.panned(dx, dy));
    this.#offers = [];
    board.offer = null;
    board.paint();
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
    const { board } = this;
    if (down.dragged && down.isFrame) {
      board.selection.close();
    } else if (down.dragged && down.note) {
      const { note, text, at } = board.notes.named(down.note);
      board.perform({ op: "note", note, text, at });
    } else if (down.dragged && down.name) {
      board.perform({ op: "dress", id: down.name, dress: { name_at: board.figure.step(down.name).name_at } });
    } else if (down.dragged && down.whole) {
      board.perform({
        op: "move",
        points: Object.fromEntries([...down.whole.keys()].map((id) => [id, rounded(board.figure.shape(id))])),
      });
    } else if (down.dragged && down.id) {
      const at = rounded(board.figure.shape(down.id));
      board.perform({ op: "move", points: { [down.id]: at } });
    } else if (!down.dragged && event.pointerType === "touch" && this.isAmbiguous) {
      board.bar.askToTake(() => this.#take());
      board.bar.announce("Several lie here. Tap again for the next one.");
    } else if (!down.dragged && this.#offers.length) {
      this.#take();
      if (event.pointerType !== "touch") {
        this.#offer(board.offersAt(...(this.#place ?? down.start), event.pointerType));
        board.bar.focus();
      }
    } else if (!down.dragged && board.hand.tool) {
      board.bar.announce("There is nothing here that fits the blank.", true);
    } else if (!down.dragged) {
      this.#place = down.start;
      board.stepList.choose(this.under());
    }
  }

  #aside(dx, dy) {
    return [dx, dy].map((way, axis) => Math.round(this.#down.aside[axis] + way));
  }

  #onPaper(dx, dy) {
    const {
      aside: [x, y],
      view,
    } = this.#down;
    return [x + dx / view.scale, y - dy / view.scale];
  }

  #putWhole(dx, dy) {
    const { figure, view } = this.board;
    for (const [id, [x, y]] of this.#down.whole) figure.put(id, [x + dx / view.scale, y - dy / view.scale]);
  }

  #cancel(event) {
    this.#touches.delete(event.pointerId);
    this.#down = null;
    this.#pinch = null;
    this.board.rebuild();
  }

  #wheel(event) {
    event.preventDefault();
    const { board } = this;
    if (this.isAmbiguous && !event.ctrlKey) return this.next();
    board.look(board.view.zoomed(Math.exp(-event.deltaY / 500), ...this.#position(event)));
  }

  // -- two fingers ---------------------------------------------------------------------------------

  #pinch = null;

  #startPinch() {
    if (this.#down?.dragged && this.#down.id) this.board.rebuild();
    this.#down = null;
    this.#pinch = { ...this.#span(), view: this.board.view };
  }

  #span() {
    const [a, b] = [...this.#touches.values()];
    return { middle: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], width: Math.hypot(a[0] - b[0], a[1] - b[1]) || 1 };
  }

  #spread() {
    if (this.#touches.size !== 2) return;
    const { middle, width } = this.#span();
    const { middle: before, width: old, view } = this.#pinch;
    this.board.look(view.zoomed(width / old, ...before).panned(middle[0] - before[0], middle[1] - before[1]));
  }
}

// Where all free points are, by id.
function freePlaces(figure) {
  return new Map(figure.ids.filter((id) => figure.step(id).make === "free_point").map((id) => [id, figure.shape(id)]));
}
