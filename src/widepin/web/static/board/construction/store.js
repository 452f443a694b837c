// The construction on the board: its operations, replayed into steps and their figure. It knows nothing of the page.

import { Figure } from "../../figure/figure.js";
import { replay, stepsOf } from "../../figure/log.js";
import { nextId, rebased } from "./rebasing.js";
import { makeOf } from "./tools.js";
import { countOf, isHelper } from "./uses.js";
/** @import { Entry, Position, Saver, Setting, Tool } from "../types.js" */
/** @import { NoteText, Operation, Place, Step } from "../../figure/types.js" */
/** @import { ToolBook } from "../../figure/tape.js" */

const SAME = 1e-4; // centimetres within which a point lies where it was first put

export class Store {
  #stored;
  figure = /** @type {Figure} */ (/** @type {unknown} */ (null)); // replayed before anybody can ask
  /** @type {(() => void)[]} */
  #listeners = []; // called when the construction has changed
  /** @type {WeakSet<Operation>} */
  #elsewhere = new WeakSet(); // operations that other windows have performed meanwhile
  /** @type {Operation | null} */
  lastFromElsewhere = null; // what undoing takes back, where another window did it
  /** @type {boolean | null} */
  #isJoined = null; // within one action: whether the next operation is joined to the one before
  /** @type {(() => void)[]} */
  #beforehand = []; // called before an operation of this window is performed
  /** @type {Saver} */
  #saving = { pending: [], add() {}, replace() {}, settled: async () => true, flush() {} }; // until it is connected, nothing is kept

  // As the operations have it.
  /** @type {Set<string>} */
  given = new Set();
  /** @type {Step[]} */
  own = [];
  /** @type {string[][]} */
  measures = [];
  /** @type {string[][][]} */
  equals = [];
  /** @type {{point: string, driver: string}[]} */
  loci = [];
  /** @type {Position[]} */
  positions = [];
  /** @type {NoteText[]} */
  notes = [];

  /**
   * setting: given, start, log: [{operation}], and tools, taken where there are any
   * @param {ToolBook} book
   * @param {Setting} setting
   */
  constructor(book, setting) {
    this.book = book;
    this.setting = setting;
    this.#stored = setting.log.map(({ operation }) => operation);
    this.start = new Set(setting.start.map(({ id }) => id));
    this.#replay();
  }

  /**
   * saving: keeps operations until they are stored, as saving.js
   * @param {Saver} saving
   */
  connect(saving) {
    this.#saving = saving;
    this.#replay();
  }

  /** @param {() => void} listener */
  onChange(listener) {
    this.#listeners.push(listener);
  }

  /**
   * To be told before an operation of this window is performed.
   * @param {() => void} listener
   */
  onPerform(listener) {
    this.#beforehand.push(listener);
  }

  // -- changing -----------------------------------------------------------------------------------

  /** @param {Operation} operation */
  perform(operation) {
    for (const listener of this.#beforehand) listener();
    this.#saving.add(this.#isJoined ? { ...operation, joined: true } : operation);
    if (this.#isJoined !== null) this.#isJoined = true;
    this.refresh();
  }

  /**
   * What is performed within is one action: undoing takes all of it back.
   * @param {() => void} act
   */
  asOneAction(act) {
    if (this.#isJoined !== null) return act();
    this.#isJoined = false;
    try {
      return act();
    } finally {
      this.#isJoined = null;
    }
  }

  /**
   * The own steps are these, instead of those that it began with.
   * @param {Step[]} steps
   */
  redraw(steps) {
    this.#stored = steps.map((step) => ({ op: "add", step }));
    this.#replay();
  }

  /**
   * Operations that the server has stored, as {operation}.
   * @param {{operation: Operation}[]} entries
   */
  takeIn(entries) {
    this.#stored.push(...entries.map(({ operation }) => operation));
    this.refresh();
  }

  /**
   * Operations that were stored from another window; those that wait here come after them, under names that are free.
   * @param {Entry[]} entries
   */
  takeInMissed(entries) {
    this.#stored.push(...entries.map(({ operation }) => operation));
    const own = new Set(this.#saving.pending.map(({ key }) => key));
    for (const { key, operation } of entries) if (!own.has(key)) this.#elsewhere.add(operation);
    const known = new Set(entries.map(({ key }) => key));
    const board = stepsOf(this.setting, replay(this.#stored).done);
    const taken = new Set([...[...board.given, ...board.own].flatMap(namesOf), ...this.#reserved]);
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
    const last = done.at(-1);
    this.lastFromElsewhere = last && this.#elsewhere.has(last) ? last : null;
    this.canRedo = undone.length > 0;
    this.figure = new Figure(this.book, [...given, ...own]);
  }

  // -- asking -------------------------------------------------------------------------------------

  /** @param {string} id */
  isOwn(id) {
    return this.own.some((step) => step.id === id);
  }

  /** @param {string} id */
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
    return new Set([...figure.ids.flatMap((id) => namesOf(figure.step(id))), ...this.#reserved]);
  }

  // Names that are kept for what the task asks for, and for what else will be drawn.
  get #reserved() {
    const { taken = [], wanted = [], draft } = this.setting;
    return draft && draft.part !== "trial" ? taken : [...taken, ...wanted.map(({ name }) => name)];
  }

  /** @param {string} make @param {Set<string>} [taken] */
  newId(make, taken = this.taken) {
    return nextId(this.book.makes[make].gives === "point", taken);
  }

  get moves() {
    return this.own.reduce((sum, step) => sum + countOf(step, this.book.makes), 0);
  }

  /**
   * How often a tool was used.
   * @param {Tool} tool
   */
  used(tool) {
    const makes = tool.make === "point" ? ["free_point", "point_on"] : [makeOf(tool)];
    return this.own.filter(({ make }) => makes.includes(make)).length;
  }

  /**
   * Whether one of these tools puts points, and may be used once more.
   * @param {Tool[]} tools
   */
  mayPutPoints(tools) {
    const point = tools.find(({ make }) => make === "point");
    return Boolean(point && ((point.most ?? null) === null || this.used(point) < Number(point.most)));
  }

  // Where the points that were moved had first been put, by id.
  get movedFrom() {
    const first = new Map([...this.setting.given, ...this.setting.start].map(({ id, at }) => [id, at]));
    for (const { op, step } of replay(this.#operations()).done)
      if (op === "add" || op === "remake") first.set(step.id, step.at);
    const moved = this.figure.ids.filter((id) => {
      const at = first.get(id);
      return at && this.figure.canDrag(id) && !isAt(this.figure.step(id).at, at);
    });
    return Object.fromEntries(moved.map((id) => [id, first.get(id)]));
  }

  /**
   * What is hidden to leave an object alone with all that it is made from.
   * @param {string} id
   */
  notNeededBy(id) {
    const kept = new Set(this.figure.madeFrom(id));
    return this.own.filter((step) => !kept.has(step.id) && !step.hidden).map((step) => step.id);
  }
}

/** @param {{id: string, label?: string}} step */
function namesOf({ id, label }) {
  return label ? [id, label] : [id];
}

/** @param {Place} a @param {Place} b */
function isAt(a, b) {
  return Math.abs(a[0] - b[0]) < SAME && Math.abs(a[1] - b[1]) < SAME;
}
