// Steps in words, as the tool book has them.

import { joiner } from "./listed.js";
import { spoken } from "./template.js";
/** @import { Figure } from "./figure.js" */
/** @import { Step } from "./types.js" */
/** @import { ToolBook } from "./tape.js" */

/**
 * A step as parts of a sentence that follows its name and a colon: words, and {id} for objects. The first result of a
 * tool that made several steps at once is told by what the tool was used on.
 * @param {Step} step
 * @param {Pick<ToolBook, "words">} book
 */
export function sentenceOf(step, { words }) {
  if (step.within?.gives.includes(step.id)) {
    const {
      class_tool: tool,
      from,
      gives: [first],
    } = step.within;
    if (step.id !== first) return ["with", { id: first }];
    return [tool, "from", ...from.flatMap((id, place) => [...(place ? [joiner(place, from.length)] : []), { id }])];
  }
  const [choice, reference] = Object.keys(words.which)
    .map((one) => [one, Reflect.get(step, one)])
    .find(([one, id]) => id && one !== "pick") ?? ["pick"];
  return spoken(words.makes[step.make].told, (inBraces) => {
    if (inBraces === "which") return spoken(words.which[choice], () => ({ id: reference }));
    return [...inBraces].map((entry, place) => ({ id: step.from[Number(entry)], joined: place > 0 }));
  });
}

/**
 * An object as a line: "c: circle centred A through B".
 * @param {Figure} figure
 * @param {string} id
 */
export function described(figure, id) {
  /** @param {string} one */
  const name = (one) => figure.step(one).label || one;
  return `${name(id)}: ${inOneLine(sentenceOf(figure.step(id), figure.book), name)}`;
}

/**
 * The parts in one line. A name that is joined, as B in AB, and a comma follow without a space.
 * @param {any[]} parts
 * @param {(id: string) => string} name
 */
export function inOneLine(parts, name) {
  return parts.reduce((line, part) => {
    const text = typeof part === "string" ? part : name(part.id);
    return line + (line && !part.joined && !text.startsWith(",") ? " " : "") + text;
  }, "");
}
