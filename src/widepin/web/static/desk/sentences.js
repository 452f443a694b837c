// Conditions as sentences with blanks, by the templates of the tool book. A blank holds a name, or points one after the
// other: AB, or A-B.

import { listed } from "../figure/listed.js";
import { partsOf } from "../figure/template.js";
/** @import { Relation } from "../figure/types.js" */

/**
 * The parts of a relation's sentence: words, a number for the blank of a term, "all", "n" and "d".
 * @param {Relation} relation
 */
export function blanksIn({ sentence }) {
  return partsOf(sentence, (blank) => ({ blank }));
}

/**
 * What stands in the list of relations to choose from.
 * @param {Relation} relation
 */
export function nameOf(relation) {
  const all = Array(Math.max(2, relation.many)).fill("…");
  return blanksIn(relation)
    .map((part) => (typeof part === "string" ? part : part.blank === "all" ? listed(all) : "…"))
    .join("");
}

/**
 * How many terms stand before those that there may be many of.
 * @param {Relation} relation
 */
export function fixedIn({ of, many }) {
  return many ? of.length - 1 : of.length;
}

/** @param {Relation} relation */
export function blanksOf(relation) {
  return fixedIn(relation) + relation.many;
}

/**
 * Whether points come together in the blank of a term.
 * @param {Relation} relation
 * @param {number} at
 */
export function joins({ of }, at) {
  return ["pair", "triple", "straight", "curve"].includes(of[Math.min(at, of.length - 1)]);
}

/**
 * A term as it stands in a blank.
 * @param {string | string[]} term
 */
export function written(term) {
  const names = Array.isArray(term) ? term : [term];
  const text = names.map((name) => name.replace(/^model:/, "sample "));
  return text.every((name) => /^[A-Z]\d*'?$/.test(name)) ? text.join("") : text.join("-");
}

/**
 * The term that a text means, where these names are known: a name, or a list of names. Unknown ones stay as they are.
 * @param {string} text
 * @param {Set<string>} names
 */
export function termOf(text, names) {
  /** @param {string} word */
  const name = (word) => word.trim().replace(/^(?:sample|model)[\s:]+/, "model:");
  const whole = name(text);
  if (names.has(whole)) return whole;
  if (whole.includes("-")) return whole.split("-").map(name);
  const parts = [];
  for (let rest = whole; rest;) {
    const next = [...names].filter((one) => rest.startsWith(one)).sort((a, b) => b.length - a.length)[0];
    if (!next) return whole;
    parts.push(next);
    rest = rest.slice(next.length);
  }
  return parts.length > 1 ? parts : whole;
}
