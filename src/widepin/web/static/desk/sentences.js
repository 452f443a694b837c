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
 * How many points stand in the blank of a term at most.
 * @param {Relation} relation
 * @param {number} at
 */
export function pointsIn({ of }, at) {
  /** @type {Record<string, number>} */
  const sizes = { triple: 3, pair: 2, straight: 2, curve: 2 };
  return sizes[of[Math.min(at, of.length - 1)]] ?? 1;
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

const KIND_BEFORE = /^(?:line|ray|segment|circle|point|angle|length|∠|∡|∢)\s*(?=\S)/i; // "line AB", "∠ABC"

/**
 * The term that a text means, where these names are known: a name, or a list of names, written one after the other or with
 * spaces, commas or dashes between, with or without its kind before it. Capital and small letters are told apart only
 * where both are names. Unknown names stay as they are.
 * @param {string} text
 * @param {Set<string>} names
 * @returns {string | string[]}
 */
export function termOf(text, names) {
  const whole = text.trim().replace(/(?:sample|model)[\s:]+/gi, "model:");
  if (names.has(whole)) return whole;
  const bare = whole.replace(KIND_BEFORE, "");
  const words = bare.split(/[\s,;–-]+/).filter(Boolean);
  if (words.length > 1) return words.map((word) => known(word, names) ?? word);
  return known(bare, names) ?? run(bare, names, (one) => one) ?? run(bare, names, (one) => one.toLowerCase()) ?? whole;
}

/**
 * A name, also in other letters where only one is meant.
 * @param {string} word
 * @param {Set<string>} names
 */
function known(word, names) {
  if (names.has(word)) return word;
  const alike = [...names].filter((one) => one.toLowerCase() === word.toLowerCase());
  return alike.length === 1 ? alike[0] : undefined;
}

/**
 * Several names written one after the other; fold: what tells letters apart.
 * @param {string} text
 * @param {Set<string>} names
 * @param {(name: string) => string} fold
 */
function run(text, names, fold) {
  const parts = [];
  for (let rest = fold(text); rest;) {
    // Of points and curves whose letters are alike, points are written together.
    const next = [...names]
      .filter((one) => rest.startsWith(fold(one)))
      .sort((a, b) => b.length - a.length || Number(/^[a-z]/.test(a)) - Number(/^[a-z]/.test(b)))[0];
    if (!next) return undefined;
    parts.push(next);
    rest = rest.slice(next.length);
  }
  return parts.length > 1 ? parts : undefined;
}
