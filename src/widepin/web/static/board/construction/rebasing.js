// Names for new objects, and operations that wait while another window was quicker.

import { renamed } from "../../figure/renaming.js";
import { freshNames } from "./uses.js";
/** @import { Entry, NewId } from "../types.js" */
/** @import { Step } from "../../figure/types.js" */

/**
 * Operations not stored yet, with ids that others took meanwhile replaced.
 * @param {Entry[]} pending
 * @param {Set<string>} taken
 * @param {NewId} newId
 */
export function rebased(pending, taken, newId) {
  const names = new Map();
  const known = new Set(taken);
  /** @param {string} id */
  const rename = (id) => names.get(id) ?? id;
  /** @param {Step} step */
  const fresh = (step) => {
    if (known.has(step.id)) names.set(step.id, newId(step.make, known));
    known.add(rename(step.id));
  };
  return pending.map((entry, number) => {
    const operation = structuredClone(entry.operation);
    if (number === 0) delete operation.joined; // what it was joined to may not be the last action any more
    if (operation.op === "add") {
      fresh(operation.step);
      operation.step = renamed(operation.step, rename);
    } else if (operation.op === "use") {
      operation.from = operation.from.map(rename);
      if (operation.steps.some((/** @type {{id: string}} */ { id }) => known.has(id))) {
        for (const [id, other] of freshNames(operation.steps, operation.gives, known, newId)) names.set(id, other);
      }
      for (const { id } of operation.steps) known.add(rename(id));
      operation.steps = operation.steps.map((/** @type {Step} */ step) => renamed(step, rename));
      operation.gives = operation.gives.map(rename);
    } else if (operation.op === "remake") {
      operation.step = renamed(operation.step, rename);
    } else if (operation.op === "move" || operation.op === "position") {
      operation.points = Object.fromEntries(Object.entries(operation.points).map(([id, at]) => [rename(id), at]));
    } else if (operation.op === "measure" || operation.op === "stop measuring") {
      operation.of = operation.of.map(rename);
    } else if (operation.op === "mark equal" || operation.op === "unmark equal") {
      operation.of = operation.of.map((/** @type {string[]} */ term) => term.map(rename));
    } else if (operation.op === "locus" || operation.op === "remove locus") {
      operation.point = rename(operation.point);
      operation.driver = rename(operation.driver);
    } else if (operation.op === "dress" || operation.op === "remove") {
      operation.id = Array.isArray(operation.id) ? operation.id.map(rename) : rename(operation.id);
    }
    return { ...entry, operation };
  });
}

/**
 * The next free name: capitals for points, small letters for curves, which leave a and b to what is given; then with
 * numbers.
 * @param {boolean} isPoint
 * @param {Set<string>} taken
 */
export function nextId(isPoint, taken) {
  const letters = isPoint ? "ABCDEFGHIJKLMNPQRSTUVWXYZO" : "cdefghijklmnopqrstuvwxyzab";
  for (let round = 0; ; round++) {
    for (const letter of letters) {
      const id = round ? `${letter}${round}` : letter;
      if (!taken.has(id)) return id;
    }
  }
}
