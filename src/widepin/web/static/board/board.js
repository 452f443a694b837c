// The drawing board: brings figure, instruments, record and saving together.

import { Drawing, labelOf, outlineOf } from "../figure/drawing.js";
import { Figure } from "../figure/figure.js";
import { ToolBook } from "../figure/tape.js";
import { View } from "../figure/view.js";
import { Bench } from "./bench.js";
import { Hand } from "./hand.js";
import { hints } from "./hints.js";
import { Hits, nearestPlace } from "./hits.js";
import { allowed } from "./instruments.js";
import { fold, nextId, rebased, stepsOf } from "./log.js";
import { Pointing } from "./pointing.js";
import { Record } from "./record.js";
import { Saving } from "./saving.js";
import { SentenceBar } from "./sentence-bar.js";

const REACH = { mouse: 13, pen: 14, touch: 24 };
const ROOM = 0.2; // share of the window left free around the figure, for what is still to be drawn
const NUDGE = 0.1; // centimetres per arrow key; ten times as much with Shift

export class Board {
  constructor(page, book, setting) {
    this.page = page;
    this.book = book;
    this.setting = setting;
    this.stored = setting.log.map(({ operation }) => operation);
    this.hand = new Hand();
    this.offer = null; // what a click would take now
    this.lit = null;
    this.drawing = new Drawing(page.querySelector(".paper"));
    this.instruments = allowed(setting.tools);
    this.bar = new SentenceBar(page.querySelector(".sentence-bar"), {
      typed: (text) => this.typed(text, false),
      entered: (text) => this.typed(text, true),
    });
    this.bench = new Bench(page.querySelector(".cards"), this.instruments, (instrument) => this.take(instrument));
    this.record = new Record(page.querySelector(".record ol"), page.querySelector(".record .count"), page.querySelector(".record progress"), {
      lit: (id) => { this.lit = id; this.paint(); },
      chosen: () => this.show(),
      dress: (id, dress) => this.perform({ op: "dress", id, dress }),
    });
    this.saving = new Saving({
      url: setting.urls.operations,
      token: document.querySelector("meta[name=csrf-token]").content,
      place: `widepin-${setting.student}-${setting.urls.operations}`,
      stored: setting.log.length,
      on: {
        stored: ({ operation }) => { this.stored.push(operation); this.rebuild(); },
        missed: (operations) => this.#missed(operations),
        refused: (entry, words) => { this.rebuild(); this.bar.tell(words, true); },
        state: (words, isTrouble) => this.#saved(words, isTrouble),
      },
    });
    this.pointing = new Pointing(this);
    this.#listen();
    this.rebuild();
    this.fit();
    new ResizeObserver(() => (this.isFitted ? this.fit() : this.paint())).observe(this.drawing.svg);
    this.saving.flush();
  }

  // -- state --------------------------------------------------------------------------------------

  rebuild() {
    const { done, undone } = fold([...this.stored, ...this.saving.pending.map(({ operation }) => operation)]);
    const { given, own } = stepsOf(this.setting, done);
    this.given = new Set(given.map(({ id }) => id));
    this.own = own;
    this.figure = new Figure(this.book, [...given, ...own]);
    this.hand.filled = this.hand.filled.filter((id) => this.figure.has(id));
    this.page.querySelector("[data-do='take back']").disabled = done.length === 0;
    this.page.querySelector("[data-do='bring back']").disabled = undone.length === 0;
    this.page.querySelector("[data-do='hand in']").disabled = own.length === 0;
    this.show();
  }

  perform(operation) {
    this.saving.add(operation);
    this.rebuild();
  }

  #missed(operations) {
    this.stored.push(...operations.map(({ operation }) => operation));
    const known = new Set(operations.map(({ key }) => key));
    const { done } = fold(this.stored);
    const { given, own } = stepsOf(this.setting, done);
    const taken = [...given, ...own].map(({ id }) => id);
    const waiting = this.saving.pending.filter(({ key }) => !known.has(key));
    this.saving.replace(rebased(waiting, taken, (make, names) => this.newId(make, names)));
    this.rebuild();
    this.bar.tell("Steps from another window were added.");
  }

  #saved(words, isTrouble) {
    const state = document.querySelector(".save-state");
    state.textContent = words;
    state.classList.toggle("trouble", isTrouble);
  }

  newId(make, taken = new Set(this.figure.ids)) {
    return nextId(this.book.makes[make].gives === "point", taken);
  }

  used(instrument) {
    const makes = instrument.make === "point" ? ["free_point", "point_on"] : [instrument.make];
    return this.own.filter(({ make }) => makes.includes(make)).length;
  }

  get mayPutPoints() {
    const point = this.instruments.find(({ make }) => make === "point");
    return Boolean(point) && (point.most === null || this.used(point) < point.most);
  }

  isHidden(id) { return Boolean(this.figure.step(id).hidden); }

  // -- building -----------------------------------------------------------------------------------

  take(instrument) {
    if (this.hand.instrument?.make === instrument.make) return this.putDown();
    this.hand.take(instrument);
    this.bar.clear();
    this.bar.tell("");
    this.show();
    if (!this.pointing.isTouch) this.bar.focus();
  }

  putDown() {
    if (this.hand.filled.length) this.hand.empty();
    else this.hand.putDown();
    this.bar.clear();
    this.bar.tell("");
    this.offer = null;
    this.show();
  }

  add(step) {
    this.perform({ op: "add", step });
    return step.id;
  }

  // Fill the next blank with what was pointed at or named; a place or crossing becomes a point first.
  fill(choice) {
    const { hand } = this;
    if (hand.meetings) return this.mark(hand.meetings[choice.which - 1].step);
    if (hand.blank.kind === "place") return this.#point(choice);
    if (hand.instrument.make === "intersection" && choice.type === "crossing") return this.mark(choice.step);
    const id = choice.type === "object" ? choice.id : this.#pointFor(choice);
    if (id === null) return;
    hand.filled.push(id);
    if (hand.instrument.make === "move") this.bar.tell("Arrow keys move it, with Shift ten times as far. Esc puts it down.");
    if (hand.isFull) this.#complete();
    this.bar.clear();
    this.show();
  }

  #pointFor(choice) {
    if (choice.type === "crossing") return this.add({ id: this.newId("intersection"), ...choice.step });
    if (!this.mayPutPoints) {
      this.bar.tell("This task has no points to put freely; take a crossing or a point that is there.", true);
      return null;
    }
    if (choice.type === "slide") return this.add({ id: this.newId("point_on"), make: "point_on", from: [choice.id], at: rounded(choice.at) });
    return this.add({ id: this.newId("free_point"), make: "free_point", at: rounded(choice.at) });
  }

  #point(choice) {
    const id = this.#pointFor(choice.type === "object" ? { type: "slide", id: choice.id, at: choice.at ?? this.#middleOf(choice.id) } : choice);
    if (id !== null) this.bar.tell(`${id} is there.`);
    this.bar.clear();
    this.show();
  }

  #middleOf(id) {
    const [width, height] = this.drawing.size();
    return nearestPlace(this.figure.kind(id), this.figure.shape(id), this.view.toPaper(width / 2, height / 2));
  }

  #complete() {
    const { hand } = this;
    const { make } = hand.instrument;
    if (make === "move") return;
    if (make === "intersection") return this.#cross();
    const step = { id: this.newId(make), make, from: hand.sources };
    hand.empty();
    const isThere = this.figure.preview(step).every(Number.isFinite);
    this.add(step);
    this.bar.tell(isThere ? `${step.id} is drawn.` : `${step.id} does not exist as the figure lies now; it will when it can.`, !isThere);
    if (hand.instrument.most !== null && this.used(hand.instrument) >= hand.instrument.most) hand.putDown();
  }

  #cross() {
    const { hand } = this;
    const marked = (at) => this.figure.ids.find((id) => this.figure.isPoint(id) && this.figure.isDefined(id)
      && Math.hypot(this.figure.shape(id)[0] - at[0], this.figure.shape(id)[1] - at[1]) < 1e-6);
    const all = new Hits(this.figure, this.view, () => false).meetings([...hand.filled]);
    const meetings = all.filter(({ at }) => !marked(at));
    if (meetings.length === 2) {
      hand.meetings = meetings;
      this.bar.tell("Both crossings are numbered on the board: type 1 or 2, or point at one.");
    } else if (meetings.length === 1) {
      this.mark(meetings[0].step);
    } else {
      hand.empty();
      this.bar.tell(all.length ? `${marked(all[0].at)} is marked there already.` : "These two do not meet as the figure lies now.", true);
    }
  }

  mark(step) {
    const id = this.add({ id: this.newId("intersection"), ...step });
    this.hand.empty();
    this.bar.tell(`${id} is marked.`);
    this.bar.clear();
    this.show();
  }

  // -- typing -------------------------------------------------------------------------------------

  typed(text, isFinal) {
    const { hand, figure } = this;
    const name = text.trim();
    if (hand.meetings) {
      if (name === "1" || name === "2") this.fill({ which: Number(name) });
      return;
    }
    const place = name.match(/^\(?\s*(-?\d+(?:\.\d+)?)\s*[,; ]\s*(-?\d+(?:\.\d+)?)\s*\)?$/);
    if (place && isFinal && ["point", "place"].includes(hand.blank?.kind)) {
      return this.fill({ type: "free", at: [Number(place[1]), Number(place[2])] });
    }
    const ids = figure.ids.filter((id) => hand.fits(figure, id));
    const exact = ids.find((id) => labelOf(figure, id) === name || id === name);
    const longer = ids.some((id) => id !== exact && (id.startsWith(name) || labelOf(figure, id).startsWith(name)));
    if (exact && (isFinal || !longer)) return this.fill({ type: "object", id: exact });
    if (isFinal && !name && this.offer) return this.fill(this.offer);
    if (isFinal) this.bar.tell(name ? this.#misnamed(name) : "Type the name of what is meant.", true);
    this.lit = exact ?? null;
    this.paint();
  }

  #misnamed(name) {
    if (!this.figure.has(name)) return `There is no ${name} on the board.`;
    return `${name} is a ${this.figure.kind(name)}; it does not fit here.`;
  }

  nudge(dx, dy) {
    const [id] = this.hand.filled;
    const [x, y] = this.figure.shape(id);
    this.perform({ op: "move", points: { [id]: rounded([x + dx, y + dy]) } });
  }

  // -- pointing: what a click would take -----------------------------------------------------------

  offersAt(px, py, pointerType) {
    const { hand } = this;
    const reach = REACH[pointerType] ?? REACH.mouse;
    const hits = new Hits(this.figure, this.view, (id) => this.isHidden(id));
    if (!hand.instrument) return [];
    if (hand.meetings) {
      return hand.meetings.map(({ at }, number) => ({ which: number + 1, far: distance(this.view, at, px, py) }))
        .filter(({ far }) => far < 2 * reach).sort((a, b) => a.far - b.far);
    }
    const fitting = (list) => list.filter(({ id }) => hand.fits(this.figure, id));
    const points = fitting(hits.points(px, py, reach));
    const curves = hits.curves(px, py, reach);
    const free = { type: "free", at: this.view.toPaper(px, py) };
    switch (hand.blank?.kind) {
      case "draggable": return points;
      case "straight": return fitting(curves);
      case "curve": return [...(hand.filled.length ? [] : hits.crossings(px, py, reach)), ...fitting(curves)];
      case "place": return [...hits.crossings(px, py, reach), ...slides(curves), free];
      case "point": return [...points, ...hits.crossings(px, py, reach), ...(this.mayPutPoints ? [...slides(curves), free] : [])];
      default: return [];
    }
  }

  wordsFor(offer) {
    if (!offer) return "";
    if (offer.which) return String(offer.which);
    const name = (id) => labelOf(this.figure, id);
    if (offer.type === "object") return name(offer.id);
    if (offer.type === "crossing") return `crossing of ${name(offer.step.from[0])}, ${name(offer.step.from[1])}`;
    if (offer.type === "slide") return `new point on ${name(offer.id)}`;
    return "new point";
  }

  // -- showing ------------------------------------------------------------------------------------

  // Fitted, the view stays so when the window changes, until somebody moves it.
  fit() {
    this.isFitted = true;
    this.view = View.fitted(outlineOf(this.figure), ...this.drawing.size(), ROOM);
    this.paint();
  }

  look(view) {
    this.isFitted = false;
    this.view = view;
    this.paint();
  }

  show() {
    this.bar.show(this.hand.parts((id) => labelOf(this.figure, id), this.wordsFor(this.offer)));
    this.bench.show((instrument) => this.used(instrument), this.hand.instrument);
    this.record.show(this.figure, this.own, this.book.makes, this.setting.budget);
    this.paint();
  }

  offerNow(offer) {
    this.offer = offer;
    this.bar.show(this.hand.parts((id) => labelOf(this.figure, id), this.wordsFor(offer)));
    this.paint();
  }

  paint() {
    if (!this.view) return;
    const inHand = new Set(this.hand.filled);
    this.drawing.draw(this.figure, this.view, (id) => {
      const role = new Set();
      if (this.given.has(id)) role.add("given");
      if (this.isHidden(id)) role.add("hidden");
      if (this.figure.step(id).style === "dashed") role.add("dashed");
      if (id === this.lit || inHand.has(id) || (this.offer?.type === "object" && this.offer.id === id)) role.add("lit");
      return role;
    }, { extras: hints(this) });
  }

  // -- keys and buttons ----------------------------------------------------------------------------

  #listen() {
    const deeds = {
      "take back": () => this.perform({ op: "take back" }),
      "bring back": () => this.perform({ op: "bring back" }),
      fit: () => this.fit(),
      closer: () => this.#zoom(1.25),
      farther: () => this.#zoom(0.8),
    };
    for (const button of this.page.querySelectorAll("[data-do]")) {
      if (deeds[button.dataset.do]) button.addEventListener("click", deeds[button.dataset.do]);
    }
    document.addEventListener("keydown", (event) => this.#key(event, deeds));
    const form = this.page.querySelector("form.hand-in");
    form.addEventListener("submit", async (event) => {
      event.preventDefault();
      const button = form.querySelector("button");
      button.disabled = true;
      button.textContent = "Checking …";
      await this.saving.settled();
      form.submit();
    });
    addEventListener("pageshow", (event) => { if (event.persisted) location.reload(); });
  }

  #zoom(factor) {
    const [width, height] = this.drawing.size();
    this.look(this.view.zoomed(factor, width / 2, height / 2));
  }

  #key(event, deeds) {
    const writing = event.target.matches?.("input") && event.target !== this.bar.field;
    if (writing) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && (key === "z" || key === "y")) {
      event.preventDefault();
      const deed = key === "y" || event.shiftKey ? "bring back" : "take back";
      if (!this.page.querySelector(`[data-do='${deed}']`).disabled) deeds[deed]();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Escape") return this.putDown();
    if (event.key === "Tab" && this.pointing.next()) return event.preventDefault();
    if (this.hand.instrument?.make === "move" && this.hand.isFull && this.#arrow(event)) return event.preventDefault();
    if (!this.hand.instrument && /^[1-9]$/.test(event.key)) {
      const card = this.bench.cards[Number(event.key) - 1]?.card;
      if (card && !card.disabled) {
        event.preventDefault();
        card.click();
      }
    } else if (event.key.length === 1 && /\S/.test(event.key) && !event.target.closest?.("button, a, input")) {
      this.bar.focus();
    }
  }

  #arrow(event) {
    const ways = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
    const way = ways[event.key];
    if (!way) return false;
    const far = event.shiftKey ? NUDGE * 10 : NUDGE;
    this.nudge(way[0] * far, way[1] * far);
    return true;
  }
}

function slides(curves) {
  return curves.map(({ id, at, far }) => ({ type: "slide", id, at, far }));
}

function distance(view, at, px, py) {
  const [x, y] = view.toScreen(...at);
  return Math.hypot(x - px, y - py);
}

// Places are kept to a thousandth of a millimetre.
function rounded(at) {
  return at.map((value) => Math.round(value * 1e4) / 1e4);
}

const page = document.querySelector(".board-page");
try {
  const book = await ToolBook.load(document.body.dataset.toolBook);
  new Board(page, book, JSON.parse(document.getElementById("setting").textContent));
  page.dataset.ready = "yes";
} catch (error) {
  page.querySelector(".sentence").textContent = "The board could not be opened. Load the page again.";
  throw error;
}
