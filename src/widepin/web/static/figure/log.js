// The operations of a work, replayed into its steps: the browser's twin of src/widepin/school/works/history.py.

/** @import { Made, NoteText, Operation, Place, Places, Step } from "./types.js" */

// One that is joined was done by the same action as the one before it: both are undone and redone together.

/** @param {Operation[]} log */
export function replay(log) {
  /** @type {Operation[]} */
  const done = [];
  /** @type {any[]} */
  const undone = [];
  for (const operation of log) {
    if (operation.op === "undo") {
      do if (done.length) undone.push(done.pop());
      while (done.length && undone.at(-1).joined);
    } else if (operation.op === "redo") {
      do if (undone.length) done.push(undone.pop());
      while (undone.at(-1)?.joined);
    } else {
      done.push(operation);
      undone.length = 0;
    }
  }
  return { done, undone };
}

/**
 * All steps of the board, points where they were last put, dressed as last said. Steps that a tool made at once
 * carry that use of it as "within".
 * @param {{given: Step[], start: Step[]}} setting
 * @param {Operation[]} done
 */
export function stepsOf(setting, done) {
  /** @type {OnBoard} */
  const board = {
    made: new Map(),
    places: new Map(),
    dress: new Map(),
    measures: new Map(),
    equals: new Map(),
    loci: new Map(),
    positions: new Map(),
    notes: new Map(),
  };
  for (const operation of done) APPLY[operation.op](board, operation);
  /** @param {Step} step @returns {Step} */
  const dressed = (step) => ({ ...step, ...board.dress.get(step.id) });
  /** @param {any} step */
  const placed = (step) => dressed(board.places.has(step.id) ? { ...step, at: board.places.get(step.id) } : step);
  return {
    given: [...setting.given, ...setting.start].map(placed),
    own: withoutOrphans([...board.made.values()], setting).map(dressed),
    measures: [...board.measures.values()],
    equals: [...board.equals.values()],
    loci: [...board.loci.values()],
    positions: [...board.positions.values()],
    notes: [...board.notes.values()],
  };
}

/**
 * Steps of which all that they are made from is there. Others wait to be refused by the server: what they are made from
 * was refused before.
 * @param {Step[]} steps
 * @param {{given: Step[], start: Step[]}} setting
 */
function withoutOrphans(steps, { given, start }) {
  const there = new Set([...given, ...start].map(({ id }) => id));
  return steps.filter((step) => {
    const isComplete = !there.has(step.id) && parentsOf(step).every((id) => there.has(id));
    if (isComplete) there.add(step.id);
    return isComplete;
  });
}

/**
 * What stands on the board, by ids and other keys.
 * @typedef {{made: Map<string, any>, places: Map<string, Place>, dress: Map<string, Record<string, any>>,
 *   measures: Map<string, string[]>, equals: Map<string, string[][]>,
 *   loci: Map<string, {point: string, driver: string}>, positions: Map<string, {position: string, points: Places}>,
 *   notes: Map<string, NoteText>}} OnBoard
 */

/**
 * What each operation does to what stands on the board.
 * @type {Record<string, (board: OnBoard, operation: any) => void>}
 */
const APPLY = {
  add({ made }, { step }) {
    made.set(step.id, step);
  },
  remake({ made }, { step }) {
    made.set(step.id, step);
    sourcesFirst(made);
  },
  use({ made, dress }, use) {
    for (const step of use.steps) {
      made.set(step.id, { ...step, within: use });
      if (!use.gives.includes(step.id)) dress.set(step.id, { hidden: true });
    }
  },
  remove({ made, dress }, { id }) {
    for (const gone of dependentsOf([...made.values()], ...each(id))) {
      made.delete(gone);
      dress.delete(gone);
    }
  },
  move({ made, places }, { points }) {
    for (const [id, at] of Object.entries(points)) {
      const step = made.get(id);
      if (step) made.set(id, { ...step, at });
      else places.set(id, at);
    }
  },
  dress({ dress }, { id, dress: fields }) {
    for (const one of each(id)) dress.set(one, { ...dress.get(one), ...fields });
  },
  measure({ measures }, { of }) {
    measures.set(of.join(" "), of);
  },
  "stop measuring"({ measures }, { of }) {
    measures.delete(of.join(" "));
  },
  "mark equal"({ equals }, { of }) {
    equals.set(of.flat().join(" "), of);
  },
  "unmark equal"({ equals }, { of }) {
    equals.delete(of.flat().join(" "));
  },
  locus({ loci }, { point, driver }) {
    loci.set(`${point} ${driver}`, { point, driver });
  },
  "remove locus"({ loci }, { point, driver }) {
    loci.delete(`${point} ${driver}`);
  },
  position({ positions }, { position, points }) {
    if (Object.keys(points).length) positions.set(position, { position, points });
    else positions.delete(position);
  },
  note({ notes }, { note, text, at }) {
    if (text) notes.set(note, { note, text, at });
    else notes.delete(note);
  },
};

/**
 * Puts steps in an order in which a step that is made from a later one has that before it; as sources_first in
 * src/widepin/judge/positions/ordering.py.
 * @param {Map<string, Step>} made
 */
function sourcesFirst(made) {
  const left = new Map(made);
  made.clear();
  for (const first of [...left.keys()]) {
    const waiting = [first];
    while (waiting.length) {
      const id = waiting[waiting.length - 1];
      const step = left.get(id);
      const missing = step && parentsOf(step).find((parent) => left.has(parent));
      if (missing) {
        waiting.push(missing);
        continue;
      }
      waiting.pop();
      if (step) made.set(id, step);
      left.delete(id);
    }
  }
}

/**
 * All that a step is made from, the point that an intersection refers to included.
 * @param {Made} step
 */
export function parentsOf({ from = [], other_than, nearest_to, farthest_from }) {
  return [...from, other_than, nearest_to, farthest_from].filter((id) => id !== undefined);
}

/**
 * The ids of an operation on one object or on several at once.
 * @param {string | string[]} id
 */
function each(id) {
  return Array.isArray(id) ? id : [id];
}

/**
 * The ids of these steps and of all that is made from them; what a tool made at once goes at once.
 * @param {Step[]} steps
 * @param {...string} ids
 */
export function dependentsOf(steps, ...ids) {
  const found = new Set(ids);
  for (let known = -1; known < found.size;) {
    known = found.size;
    for (const step of steps) {
      if (parentsOf(step).some((parent) => found.has(parent))) found.add(step.id);
      if (found.has(step.id)) for (const { id } of step.within?.steps ?? []) found.add(id);
    }
  }
  return [...found];
}

/**
 * Places are kept to a thousandth of a millimetre.
 * @param {Place} at
 */
export function rounded(at) {
  return at.map((value) => Math.round(value * 1e4) / 1e4);
}
