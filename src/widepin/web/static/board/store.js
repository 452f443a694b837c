// The construction on the board: its operations, replayed into steps and their figure. It knows nothing of the page.

import { Figure } from "../figure/figure.js";
import { replay, stepsOf } from "../figure/log.js";
import { nextId, rebased } from "./rebasing.js";
import { makeOf } from "./tools.js";
import { countOf, isHelper } from "./uses.js";

const SAME = 1e-4; // centimetres within which a point lies where it was first put

export class Store {
  #stored;
  figure = /** @type {Figure} */ (/** @type {unknown} */ (null)); // replayed before anybody can ask
  #listeners = []; // called when the construction has changed
  /** @type {boolean | null} */
  #isJoined = null; // within one action: whether the next operation is joined to the one before
  #beforehand = []; // called before an operation of this window is performed
  /** @type {{pending: any[], add: (operation: object) => void, replace: (pending: any[]) => void}} */
  #saving = { pending: [], add() {}, replace() {} }; // until it is connected, nothing is kept

  // setting: given, start, log: [{operation}], and tools, taken where there are any
  constructor(book, setting) {
    this.book = book;
    this.setting = setting;
    this.#stored = setting.log.map(({ operation }) => operation);
    this.start = new Set(setting.start.map(({ id }) => id));
    this.#replay();
  }

  // saving: keeps operations until they are stored, as saving.js
  connect(saving) {
    this.#saving = saving;
    this.#replay();
  }

  onChange(listener) {
    this.#listeners.push(listener);
  }

  // To be told before an operation of this window is performed.
  onPerform(listener) {
    this.#beforehand.push(listener);
  }

  // -- changing -----------------------------------------------------------------------------------

  perform(operation) {
    for (const listener of this.#beforehand) listener();
    this.#saving.add(this.#isJoined ? { ...operation, joined: true } : operation);
    if (this.#isJoined !== null) this.#isJoined = true;
    this.refresh();
  }

  // What is performed within is one action: undoing takes all of it back.
  asOneAction(act) {
    if (this.#isJoined !== null) return act();
    this.#isJoined = false;
    try {
      return act();
    } finally {
      this.#isJoined = null;
    }
  }

  // The own steps are these, instead of those that it began with.
  redraw(steps) {
    this.#stored = steps.map((step) => ({ op: "add", step }));
    this.#replay();
  }

  // Operations that the server has stored, as {operation}.
  takeIn(entries) {
    this.#stored.push(...entries.map(({ operation }) => operation));
    this.refresh();
  }

  // Operations that were stored from another window; those that wait here come after them, under names that are free.
  takeInMissed(entries) {
    this.#stored.push(...entries.map(({ operation }) => operation));
    const known = new Set(entries.map(({ key }) => key));
    const { given, own } = stepsOf(this.setting, replay(this.#stored).done);
    const taken = [...given, ...own].flatMap(namesOf);
    const waiting = this.#saving.pending.filter(({ key }) => !known.has(key));
    this.#saving.replace(rebased(waiting, taken, (make, names) => this.newId(make, names)));
    this.refresh();
  }

  // The figure as its operations say, whatever a drag has done to it meanwhile.
  refresh() {
    this.#replay();
    for (const listener of this.#listeners) listener();
  }

  #operations() {
    return [...this.#stored, ...this.#saving.pending.map(({ operation }) => operation)];
  }

  #replay() {
    const { done, undone } = replay(this.#operations());
    const { given, own, measures, equals, loci, positions, notes } = stepsOf(this.setting, done);
    this.given = new Set(given.map(({ id }) => id).filter((id) => !this.start.has(id)));
    this.own = own;
    this.measures = measures;
    this.equals = equals;
    this.loci = loci;
    this.positions = positions;
    this.notes = notes;
    this.hasMoved = done.some(({ op }) => op === "move");
    this.canUndo = done.length > 0;
    this.canRedo = undone.length > 0;
    this.figure = new Figure(this.book, [...given, ...own]);
  }

  // -- asking -------------------------------------------------------------------------------------

  isOwn(id) {
    return this.own.some((step) => step.id === id);
  }

  isHidden(id) {
    return Boolean(this.figure.step(id).hidden);
  }

  // The objects that somebody has hidden; not what a class tool made on the way.
  get hidden() {
    const { figure } = this;
    return figure.ids.filter((id) => this.isHidden(id) && !isHelper(figure.step(id)));
  }

  // What no new object may be called.
  get taken() {
    const { figure } = this;
    return new Set([...figure.ids.flatMap((id) => namesOf(figure.step(id))), ...(this.setting.taken ?? [])]);
  }

  newId(make, taken = this.taken) {
    return nextId(this.book.makes[make].gives === "point", taken);
  }

  get moves() {
    return this.own.reduce((sum, step) => sum + countOf(step, this.book.makes), 0);
  }

  // How often a tool was used.
  used(tool) {
    const makes = tool.make === "point" ? ["free_point", "point_on"] : [makeOf(tool)];
    return this.own.filter(({ make }) => makes.includes(make)).length;
  }

  // Whether one of these tools puts points, and may be used once more.
  mayPutPoints(tools) {
    const point = tools.find(({ make }) => make === "point");
    return Boolean(point) && (point.most === null || this.used(point) < point.most);
  }

  // Where the points that were moved had first been put, by id.
  get movedFrom() {
    const first = new Map([...this.setting.given, ...this.setting.start].map(({ id, at }) => [id, at]));
    for (const { op, step } of replay(this.#operations()).done)
      if (op === "add" || op === "remake") first.set(step.id, step.at);
    const moved = this.figure.ids.filter(
      (id) => this.figure.canDrag(id) && first.get(id) && !isAt(this.figure.step(id).at, first.get(id)),
    );
    return Object.fromEntries(moved.map((id) => [id, first.get(id)]));
  }

  // What is hidden to leave an object alone with all that it is made from.
  notNeededBy(id) {
    const kept = new Set(this.figure.madeFrom(id));
    return this.own.filter((step) => !kept.has(step.id) && !step.hidden).map((step) => step.id);
  }
}

function namesOf({ id, label }) {
  return label ? [id, label] : [id];
}

function isAt(a, b) {
  return Math.abs(a[0] - b[0]) < SAME && Math.abs(a[1] - b[1]) < SAME;
}
