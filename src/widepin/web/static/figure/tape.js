// Plays tapes: short lists of arithmetic instructions on numbered registers, recorded in Python.
// The opcodes are described in src/widepin/plane/tape.py; undefined is NaN.

/** @import { Made } from "./types.js" */

export class ToolBook {
  /** @param {any} document */
  constructor(document) {
    this.makes = document.makes;
    this.rounding = document.rounding;
    this.slack = document.slack;
    this.tapes = document.tapes;
    this.words = document.words;
    this.relations = document.relations;
  }

  /** @param {string} url */
  static async load(url) {
    const answer = await fetch(url);
    if (!answer.ok) throw new Error(`The tool book cannot be loaded (${answer.status}).`);
    return new ToolBook(await answer.json());
  }

  /**
   * The key of the tape for a step; as Variant.key in src/widepin/plane/variants.py.
   * @param {Made} step
   * @param {string[]} kinds
   */
  key(step, kinds) {
    if (step.make === "point_on") return `point_on ${kinds[0] === "circle" ? "circle" : "line"}`;
    if (step.make !== "intersection") return step.make;
    const pair = `intersection ${kinds[0]} ${kinds[1]}`;
    if (kinds[0] !== "circle" && kinds[1] !== "circle") return pair;
    const reference = referenceOf(step);
    return reference ? `${pair} ${reference.choice}` : `${pair} pick ${step.pick ?? 1}`;
  }

  /**
   * The tape of a key, ready to be played.
   * @param {string} key
   */
  tape(key) {
    const tape = this.tapes[key];
    if (!tape) throw new Error(`The tool book has no tape "${key}".`);
    return (tape.ready ??= new Tape(tape, this.rounding, this.slack));
  }

  /** @param {string} key @param {ArrayLike<number> & Iterable<number>} inputs */
  play(key, inputs) {
    return this.tape(key).play(inputs);
  }
}

/** @type {("other_than" | "nearest_to" | "farthest_from")[]} */
export const CHOICES = ["other_than", "nearest_to", "farthest_from"]; // how an intersection refers to a point

const OPCODES = ["const", "add", "sub", "mul", "neg", "abs", "sin", "cos", "over", "root", "pos", "ext", "pick"];

// A tape with its opcodes as numbers and its registers laid out, since a drag plays it some hundred times a frame.
export class Tape {
  /** @param {{inputs: number, code: any[], out: number[]}} tape @param {number} rounding @param {number} slack */
  constructor({ inputs, code, out }, rounding, slack) {
    this.inputs = inputs;
    this.out = out;
    this.rounding = rounding;
    this.slack = slack;
    this.ops = Uint8Array.from(code, ([op]) => OPCODES.indexOf(op));
    this.operands = Int32Array.from(
      code.flatMap(([op, ...places]) => [0, 1, 2, 3].map((n) => (op === "const" ? 0 : (places[n] ?? 0)))),
    );
    this.registers = new Float64Array(inputs + code.length);
    for (const [n, [op, value]] of code.entries()) {
      if (!OPCODES.includes(op)) throw new Error(`${op} is no opcode.`);
      if (op === "const") this.registers[inputs + n] = value;
    }
  }

  /** @param {ArrayLike<number> & Iterable<number>} inputs */
  play(inputs) {
    const { registers: r, ops, operands, rounding, slack } = this;
    for (let n = 0; n < this.inputs; n++) r[n] = inputs[n];
    for (let n = 0, at = this.inputs, o = 0; n < ops.length; n++, at++, o += 4) {
      const a = r[operands[o]],
        b = r[operands[o + 1]],
        c = r[operands[o + 2]];
      switch (ops[n]) {
        case 0:
          break; // a constant lies in its register already
        case 1:
          r[at] = a + b;
          break;
        case 2:
          r[at] = a - b;
          break;
        case 3:
          r[at] = a * b;
          break;
        case 4:
          r[at] = -a;
          break;
        case 5:
          r[at] = Math.abs(a);
          break;
        case 6:
          r[at] = Math.sin(a);
          break;
        case 7:
          r[at] = Math.cos(a);
          break;
        case 8:
          r[at] = Math.abs(b) > rounding * c ? a / b : NaN;
          break;
        case 9:
          r[at] = Math.abs(a) <= rounding * b ? 0 : Math.sqrt(a);
          break;
        case 10:
          r[at] = a > rounding * b ? c : NaN;
          break;
        case 11:
          r[at] = a >= -slack ? b : NaN;
          break;
        default:
          r[at] = a > rounding * b ? c : a < -rounding * b ? r[operands[o + 3]] : NaN;
      }
    }
    return this.out.map((place) => r[place]);
  }
}

/**
 * How an intersection refers to a point, if it does: {choice, id}.
 * @param {Made} step
 */
export function referenceOf(step) {
  for (const choice of CHOICES) {
    const id = step[choice];
    if (id) return { choice, id };
  }
  return null;
}
