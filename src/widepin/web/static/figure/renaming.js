// A step under other names; rename: id -> id, for its own and for what it is made from.

import { CHOICES } from "./tape.js";

/** @param {any} step @param {(id: string) => string} rename */
export function renamed(step, rename) {
  const made = { ...step, id: rename(step.id) };
  if (step.from) made.from = step.from.map(rename);
  for (const choice of CHOICES) if (step[choice]) made[choice] = rename(step[choice]);
  return made;
}
