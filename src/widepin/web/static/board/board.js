// The drawing board: brings figure, tools, steps and saving together.

import { csrfToken, find } from "../look/page.js";
import { Drawing, labelOf, looksOf, outlineOf } from "../figure/drawing.js";
import { Figure } from "../figure/figure.js";
import { ToolBook } from "../figure/tape.js";
import { View } from "../figure/view.js";
import { Toolbar } from "./toolbar.js";
import { Building } from "./building.js";
import { pngOf, save, svgOf } from "./copies.js";
import { Hand } from "./hand.js";
import { HandingIn } from "./handing-in.js";
import { Selection } from "./selection.js";
import { hints } from "./hints.js";
import { Hits } from "./hits.js";
import { Drafting } from "./drafting.js";
import { SELECT, NOTE, allowed, makeOf } from "./tools.js";
import { Keys } from "./keys.js";
import { replay, nextId, rebased, stepsOf } from "./log.js";
import { Measures } from "./measures.js";
import { Notes } from "./notes.js";
import { Pointing } from "./pointing.js";
import { StepList } from "./step-list.js";
import { Saving } from "./saving.js";
import { Result } from "./result.js";
import { SentenceBar } from "./sentence-bar.js";
import { DragTest } from "./drag-test.js";
import { ProvenFigure, fromProven, isHelper } from "./uses.js";
import { Vanished, whyGone } from "./vanished.js";

const REACH = { mouse: 13, pen: 14, touch: 24 };
// What is said over an empty board, by what is drawn on it.
const WELCOME = {
  given: "Draw what is given to the students. Start with some points.",
  model: "Draw one correct construction, with any tools.",
};
const HERE_EVERY = 30000; // milliseconds
const ROOM = 0.28; // share of the window left free around the figure, for what is still to be drawn

export class Board {
  constructor(page, book, setting) {
    this.page = page;
    this.book = book;
    this.setting = setting;
    this.stored = setting.log.map(({ operation }) => operation);
    this.hand = new Hand();
    this.offer = null; // what a click would take now
    this.highlighted = null;
    this.showsArcs = false;
    this.candidates = []; // intersections that could be marked, while that tool is in hand
    this.trial = null; // a step that is being thought of in the place of another
    this.vanished = new Vanished();
    this.drawing = new Drawing(page.querySelector(".paper"));
    this.tools = [
      ...allowed(setting.tools, setting.measuring, book),
      ...(setting.class_tools ?? []).map((one) => fromProven(one, book)),
    ];
    this.bar = new SentenceBar(page.querySelector(".sentence-bar"), {
      typed: (text) => this.building.typed(text, false),
      entered: (text) => this.building.typed(text, true),
    });
    this.toolbar = new Toolbar(page.querySelector(".cards"), this.tools, (tool) => this.building.take(tool));
    const panel = page.querySelector(".proven");
    this.proven = panel && new ProvenFigure(panel, book);
    this.stepList = new StepList(
      page.querySelector(".step-list ol"),
      page.querySelector(".step-list .count"),
      page.querySelector(".step-list progress"),
      {
        highlighted: (id) => {
          this.highlighted = id;
          this.paint();
        },
        chosen: () => this.show(),
        dress: (id, dress) => this.perform({ op: "dress", id, dress }),
        remake: (step) => {
          this.trial = null;
          this.perform({ op: "remake", step });
        },
        hideRest: (id) => this.#hideRest(id),
        remove: (id) => {
          this.perform({ op: "remove", id });
          this.bar.announce("Removed. Undo brings it back.");
        },
        tryOut: (step) => {
          this.trial = step;
          this.paint();
        },
      },
    );
    /** @type {any} */
    this.saving = new (setting.draft ? Drafting : Saving)({
      url: setting.urls.operations,
      draft: setting.draft,
      steps: () => this.own,
      token: csrfToken(),
      place: `widepin-${setting.student}-${setting.urls.operations}`,
      stored: setting.log,
      on: {
        stored: ({ operation }) => {
          this.stored.push(operation);
          this.rebuild();
        },
        missed: (operations) => this.#missed(operations),
        refused: (entry, words) => {
          this.rebuild();
          this.bar.announce(words, true);
        },
        state: (words, isTrouble) => this.#saved(words, isTrouble),
      },
    });
    this.measures = new Measures(page.querySelector(".measures"), (of) => this.perform({ op: "stop measuring", of }));
    this.notes = new Notes(page.querySelector(".notes"), ({ note, text, at }) =>
      this.perform({ op: "note", note, text, at }),
    );
    this.selection = new Selection(page.querySelector(".selected-objects"), this);
    this.building = new Building(this);
    this.dragTest = new DragTest(this, () => this.#dragTestEnded());
    this.result = new Result(page.querySelector(".result-strip"), this, () => this.rebuild());
    this.handingIn = new HandingIn(page.querySelector(".handing-in"), this, (result) => {
      this.result.show(result);
      const last = page.querySelector(".last-result");
      last.href = result.url;
      last.hidden = false;
      this.paint();
    });
    this.pointing = new Pointing(this);
    this.#listen();
    this.rebuild();
    this.fit();
    new ResizeObserver(() => (this.isFitted ? this.fit() : this.paint())).observe(this.drawing.svg);
    this.saving.flush();
    if (setting.urls.here) this.#sayHere();
    if (!this.own.length)
      this.bar.announce(WELCOME[setting.draft?.part] ?? "Drag the given points and see how the figure moves.");
  }

  // Somebody is before this board; the teacher's class overview shows it.
  #sayHere() {
    const say = () => {
      if (document.hidden) return;
      const headers = { "X-CSRFToken": csrfToken() };
      fetch(this.setting.urls.here, { method: "POST", headers }).catch(() => {}); // it is said again soon
    };
    say();
    setInterval(say, HERE_EVERY);
  }

  // -- state --------------------------------------------------------------------------------------

  rebuild() {
    const { done, undone } = replay(this.#operations());
    const { given, own, measures, notes } = stepsOf(this.setting, done);
    const start = new Set(this.setting.start.map(({ id }) => id));
    this.given = new Set(given.map(({ id }) => id).filter((id) => !start.has(id)));
    this.start = start;
    this.own = own;
    this.figure = new Figure(this.book, [...given, ...own]);
    this.measures.show(this.figure, measures);
    this.notes.show(notes);
    this.offer = this.pointing.stillThere(this.figure);
    this.hand.forget((id) => !this.figure.has(id));
    this.page.querySelector("[data-do='undo']").disabled = done.length === 0;
    this.page.querySelector("[data-do='redo']").disabled = undone.length === 0;
    for (const button of this.page.querySelectorAll("[data-do='hand in']")) button.disabled = own.length === 0;
    this.page.querySelector("[data-do='show all']").hidden = !own.some((step) => step.hidden && !isHelper(step));
    this.show();
  }

  perform(operation) {
    if (this.result.isOpen) this.result.close();
    this.saving.add(operation);
    this.rebuild();
  }

  #missed(operations) {
    this.stored.push(...operations.map(({ operation }) => operation));
    const known = new Set(operations.map(({ key }) => key));
    const { done } = replay(this.stored);
    const { given, own } = stepsOf(this.setting, done);
    const taken = [...given, ...own].map(({ id }) => id);
    const waiting = this.saving.pending.filter(({ key }) => !known.has(key));
    this.saving.replace(rebased(waiting, taken, (make, names) => this.newId(make, names)));
    this.rebuild();
    this.bar.announce("Steps from another window were added.");
  }

  #saved(words, isTrouble) {
    const state = document.querySelector(".save-state");
    state.textContent = words;
    state.classList.toggle("trouble", isTrouble);
  }

  newId(make, taken = new Set([...this.figure.ids, ...(this.setting.taken ?? [])])) {
    return nextId(this.book.makes[make].gives === "point", taken);
  }

  used(tool) {
    const makes = tool.make === "point" ? ["free_point", "point_on"] : [makeOf(tool)];
    return this.own.filter(({ make }) => makes.includes(make)).length;
  }

  get mayPutPoints() {
    const point = this.tools.find(({ make }) => make === "point");
    return Boolean(point) && (point.most === null || this.used(point) < point.most);
  }

  // Whether a place lies in the window.
  isInView(at) {
    const [x, y] = this.view.toScreen(...at);
    const [width, height] = this.drawing.size();
    return x >= 0 && y >= 0 && x <= width && y <= height;
  }

  // Whether an object may fill the next blank.
  fits(id) {
    return this.hand.fits(this.figure, id) && (!this.hand.blank.own || this.own.some((step) => step.id === id));
  }

  isHidden(id) {
    return Boolean(this.figure.step(id).hidden);
  }

  // -- pointing: what a click would take -----------------------------------------------------------

  // isFree: a new point lands on nothing, however near a curve is.
  offersAt(px, py, pointerType, isFree = false) {
    const { hand } = this;
    const reach = REACH[pointerType] ?? REACH.mouse;
    const hits = new Hits(this.figure, this.view, (id) => this.isHidden(id));
    if (!hand.tool) return [];
    if (hand.meetings) {
      return hand.meetings
        .map(({ at }, number) => ({ which: number + 1, far: distance(this.view, at, px, py) }))
        .filter(({ far }) => far < 2 * reach)
        .sort((a, b) => a.far - b.far);
    }
    const fitting = (list) => list.filter(({ id }) => this.fits(id));
    const points = fitting(hits.points(px, py, reach));
    const curves = hits.curves(px, py, reach);
    const free = { type: "free", at: this.view.toPaper(px, py) };
    if (isFree && (hand.blank?.kind === "place" || (hand.blank?.kind === "point" && this.mayPutPoints))) return [free];
    switch (hand.blank?.kind) {
      case "draggable":
        return points;
      case "straight":
      case "circle":
        return fitting(curves);
      case "curve":
        return [...(hand.filled.length ? [] : hits.intersections(px, py, reach)), ...fitting(curves)];
      case "any":
      case "wanted":
        return fitting([...hits.points(px, py, reach), ...curves]);
      case "point or line":
        return [...points, ...hits.intersections(px, py, reach), ...fitting(curves)];
      case "spot":
        return [free];
      case "place":
        return [...hits.intersections(px, py, reach), ...slides(curves), free];
      case "point":
        return [
          ...points,
          ...hits.intersections(px, py, reach),
          ...(this.mayPutPoints ? [...slides(curves), free] : []),
        ];
      default:
        return [];
    }
  }

  wordsFor(offer) {
    if (!offer) return "";
    if (offer.which) return String(offer.which);
    const name = (id) => labelOf(this.figure, id);
    // Where several lie under the pointer, the kind tells them apart: a, segment; l, line.
    if (offer.type === "object")
      return this.pointing.isAmbiguous ? `${name(offer.id)}, ${this.figure.kind(offer.id)}` : name(offer.id);
    if (offer.type === "intersection")
      return `intersection of ${name(offer.step.from[0])}, ${name(offer.step.from[1])}`;
    if (offer.type === "slide") return `new point on ${name(offer.id)}`;
    return "new point";
  }

  // -- showing ------------------------------------------------------------------------------------

  // Fitted, the view stays so when the window changes, until somebody moves it.
  fit() {
    this.isFitted = true;
    const places = [...outlineOf(this.figure), ...(this.hand.meetings ?? []).map(({ at }) => at)];
    this.view = View.fitted(places, ...this.drawing.size(), ROOM);
    this.paint();
  }

  look(view) {
    this.isFitted = false;
    this.view = view;
    this.paint();
  }

  show() {
    this.bar.show(this.hand.parts((id) => labelOf(this.figure, id), this.wordsFor(this.offer)));
    this.selection.show();
    this.handingIn.show();
    for (const tool of ["note", "select several"]) {
      this.page
        .querySelector(`[data-do='${tool}']`)
        .setAttribute("aria-pressed", String(this.hand.tool?.make === tool));
    }
    this.proven?.show(this.hand.tool?.proven ?? null);
    this.toolbar.show((tool) => this.used(tool), this.hand.tool);
    const marks = this.hand.tool?.make === "intersection" && !this.hand.meetings;
    this.candidates = marks ? new Hits(this.figure, this.view, (id) => this.isHidden(id)).allIntersections() : [];
    this.stepList.show(this.figure, this.setting.start, this.own, this.book.makes, this.setting.budget);
    this.paint();
  }

  offerNow(offer) {
    this.offer = offer;
    this.bar.show(this.hand.parts((id) => labelOf(this.figure, id), this.wordsFor(offer)));
    this.paint();
  }

  // What is special about an object when it is drawn.
  #roles() {
    const inHand = new Set(this.hand.filled);
    const filledAs = this.hand.tool?.make === "answer" ? "answer" : "highlighted";
    return (id) => {
      const role = new Set();
      if (this.given.has(id)) role.add("given");
      if (this.start.has(id)) role.add("start");
      if (this.isHidden(id)) role.add("hidden");
      for (const look of looksOf(this.figure.step(id))) role.add(look);
      if (this.showsArcs && this.figure.kind(id) === "circle" && !this.given.has(id) && id !== this.highlighted)
        role.add("arcs");
      const result = this.result.role(id);
      if (result) role.add(result);
      if (inHand.has(id)) role.add(filledAs);
      if (id === this.highlighted || this.selection.has(id) || (this.offer?.type === "object" && this.offer.id === id))
        role.add("highlighted");
      return role;
    };
  }

  paint() {
    if (!this.view) return;
    this.drawing.draw(this.figure, this.view, this.#roles(), {
      extras: [
        ...this.measures.marks(this.figure, this.view),
        ...this.#whatVanished(),
        ...this.notes.marks(this.view),
        ...hints(this),
        ...this.selection.marks(),
      ],
    });
  }

  // Steps from a file; the server takes all of them or says what is wrong with one.
  async #importSteps(file) {
    if (!file) return;
    let work;
    try {
      work = JSON.parse(await file.text());
    } catch {
      return this.bar.announce(`${file.name} is not JSON; choose one that was exported from a board.`, true);
    }
    const { operations, error } = await this.saving.importSteps(this.setting.urls.import, work);
    if (!operations) return this.bar.announce(`${file.name}: ${error}`, true);
    this.stored.push(...operations.map(({ operation }) => operation));
    this.rebuild();
    this.fit();
    this.bar.announce(`${operations.length} steps imported.`);
  }

  async #copy(kind) {
    const name = document.title.split(" · ")[0];
    if (kind === "svg")
      save((await svgOf(this.figure, this.#roles(), this.notes.all)).text, `${name}.svg`, "image/svg+xml");
    if (kind === "png") save(await pngOf(this.figure, this.#roles(), this.notes.all), `${name}.png`);
    if (kind === "json")
      save(
        JSON.stringify({ steps: this.own.map(({ within: _, ...step }) => step) }, null, 1),
        `${name}.json`,
        "application/json",
      );
    this.page.querySelector(".copies").open = false;
    this.bar.announce("Exported to your downloads.");
  }

  // Ghosts of what is gone, and a sentence that says why when it goes.
  #whatVanished() {
    const { fresh, isBack } = this.vanished.note(this.figure);
    if (fresh.length) this.bar.announce(whyGone(this.figure, fresh[0]), true);
    else if (isBack) this.bar.announce("Everything is defined again.");
    return this.vanished.ghosts(this.figure, this.view, ...this.drawing.size());
  }

  // Every point back where the task or the student first put it.
  #backToDrawn() {
    const first = new Map([...this.setting.given, ...this.setting.start].map(({ id, at }) => [id, at]));
    for (const { op, step } of replay(this.#operations()).done)
      if (op === "add" || op === "remake") first.set(step.id, step.at);
    const moved = this.figure.ids.filter(
      (id) => this.figure.canDrag(id) && first.get(id) && !isAt(this.figure.step(id).at, first.get(id)),
    );
    if (moved.length) this.perform({ op: "move", points: Object.fromEntries(moved.map((id) => [id, first.get(id)])) });
    this.bar.announce(moved.length ? "Every point is where it was first put." : "No point has been moved.");
  }

  // Hides what a step is not made from; what is hidden is still there.
  #hideRest(id) {
    const kept = new Set(this.figure.madeFrom(id));
    const rest = this.own.filter((step) => !kept.has(step.id) && !step.hidden).map((step) => step.id);
    if (rest.length) this.perform({ op: "dress", id: rest, dress: { hidden: true } });
    this.bar.announce(`What ${labelOf(this.figure, id)} does not need is hidden. Show all brings it back.`);
  }

  #showAll() {
    this.perform({
      op: "dress",
      id: this.own.filter((step) => step.hidden && !isHelper(step)).map(({ id }) => id),
      dress: { hidden: false },
    });
  }

  #operations() {
    return [...this.stored, ...this.saving.pending.map(({ operation }) => operation)];
  }

  #startDragTest() {
    if (this.dragTest.isOn) return this.dragTest.stop();
    this.page.querySelector("[data-do='drag test']").textContent = "Stop";
    this.bar.announce("Drag test: watch whether it holds.");
    this.dragTest.start();
  }

  #toggleArcs() {
    this.showsArcs = !this.showsArcs;
    this.page.querySelector("[data-do=arcs]").setAttribute("aria-pressed", String(this.showsArcs));
    this.paint();
  }

  #dragTestEnded() {
    this.page.querySelector("[data-do='drag test']").textContent = "Drag test";
    this.rebuild();
  }

  // -- keys and buttons ----------------------------------------------------------------------------

  #listen() {
    const actions = {
      undo: () => this.perform({ op: "undo" }),
      redo: () => this.perform({ op: "redo" }),
      fit: () => this.fit(),
      "show all": () => this.#showAll(),
      arcs: () => this.#toggleArcs(),
      "drag test": () => this.#startDragTest(),
      note: () => this.building.take(NOTE),
      "select several": () => this.building.take(SELECT),
      "hand in": () => {
        if (this.result.isOpen) this.result.close();
        this.handingIn.ask();
      },
      "back to drawn": () => this.#backToDrawn(),
      closer: () => this.#zoom(1.25),
      farther: () => this.#zoom(0.8),
    };
    for (const button of this.page.querySelectorAll("[data-do]")) {
      if (actions[button.dataset.do]) button.addEventListener("click", actions[button.dataset.do]);
    }
    for (const button of this.page.querySelectorAll("[data-copy]")) {
      button.addEventListener("click", () => this.#copy(button.dataset.copy));
    }
    const file = this.page.querySelector(".copies input");
    file?.addEventListener("change", async () => {
      await this.#importSteps(file.files[0]);
      file.value = "";
    });
    new Keys(this, actions);
    addEventListener("pageshow", (event) => {
      if (event.persisted) location.reload();
    });
  }

  #zoom(factor) {
    const [width, height] = this.drawing.size();
    this.look(this.view.zoomed(factor, width / 2, height / 2));
  }
}

function isAt(a, b) {
  return Math.abs(a[0] - b[0]) < 1e-4 && Math.abs(a[1] - b[1]) < 1e-4;
}

function slides(curves) {
  return curves.map(({ id, at, far }) => ({ type: "slide", id, at, far }));
}

function distance(view, at, px, py) {
  const [x, y] = view.toScreen(...at);
  return Math.hypot(x - px, y - py);
}

const page = find(".board-page");
try {
  const book = await ToolBook.load(document.body.dataset.toolBook);
  page.board = new Board(page, book, JSON.parse(document.getElementById("setting").textContent));
  page.dataset.ready = "yes";
} catch (error) {
  page.querySelector(".sentence").textContent = "The board could not be opened. Load the page again.";
  throw error;
}
