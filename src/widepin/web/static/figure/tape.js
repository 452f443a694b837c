// Plays tapes: short lists of arithmetic instructions on numbered registers, recorded in Python.
// The opcodes are described in src/widepin/plane/tape.py; undefined is NaN.

export class ToolBook {
  constructor(document) {
    this.makes = document.makes;
    this.rounding = document.rounding;
    this.slack = document.slack;
    this.tapes = document.tapes;
  }

  static async load(url) {
    const answer = await fetch(url);
    if (!answer.ok) throw new Error(`The tool book cannot be loaded (${answer.status}).`);
    return new ToolBook(await answer.json());
  }

  // The key of the tape for a step; as tape_key in src/widepin/plane/toolbook.py.
  key(step, kinds) {
    if (step.make === "point_on") return `point_on ${kinds[0] === "circle" ? "circle" : "straight"}`;
    if (step.make !== "intersection") return step.make;
    const pair = `intersection ${kinds[0]} ${kinds[1]}`;
    if (kinds[0] !== "circle" && kinds[1] !== "circle") return pair;
    const reference = referenceOf(step);
    return reference ? `${pair} ${reference.choice}` : `${pair} pick ${step.pick ?? 1}`;
  }

  play(key, inputs) {
    const tape = this.tapes[key];
    if (!tape) throw new Error(`The tool book has no tape "${key}".`);
    const registers = Array.from(inputs);
    for (const line of tape.code) registers.push(this.#perform(line, registers));
    return tape.out.map((place) => registers[place]);
  }

  #perform([op, a, b, c, d], r) {
    switch (op) {
      case "const": return a;
      case "add": return r[a] + r[b];
      case "sub": return r[a] - r[b];
      case "mul": return r[a] * r[b];
      case "neg": return -r[a];
      case "abs": return Math.abs(r[a]);
      case "sin": return Math.sin(r[a]);
      case "cos": return Math.cos(r[a]);
      case "over": return Math.abs(r[b]) > this.rounding * r[c] ? r[a] / r[b] : NaN;
      case "root": return Math.abs(r[a]) <= this.rounding * r[b] ? 0 : Math.sqrt(r[a]);
      case "pos": return r[a] > this.rounding * r[b] ? r[c] : NaN;
      case "ext": return r[a] >= -this.slack ? r[b] : NaN;
      case "pick": {
        const margin = this.rounding * r[b];
        return r[a] > margin ? r[c] : r[a] < -margin ? r[d] : NaN;
      }
      default: throw new Error(`${op} is no opcode.`);
    }
  }
}

// How a crossing refers to a point, if it does: {choice, id}.
export function referenceOf(step) {
  for (const choice of ["other_than", "nearest_to", "farthest_from"]) {
    if (step[choice]) return { choice, id: step[choice] };
  }
  return null;
}
