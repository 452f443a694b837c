// Small faults that can be planted in a module of the page, and notes of which of its functions run.
//
// Of numbers only 0, 1 and 2 are changed, which count and choose: others are pixels and milliseconds.
//
// node tools/script_faults.mjs faults FILE   prints the faults as JSON: where, what is written instead, in which function
// node tools/script_faults.mjs noting FILE   prints the module with a note in each function, `globalThis.ranHere`
import { readFileSync } from "node:fs";
import { parse } from "acorn";

const OTHER = {
  "===": "!==",
  "!==": "===",
  "<": "<=",
  "<=": "<",
  ">": ">=",
  ">=": ">",
  "*": "/",
  "/": "*",
  "-": "+",
  "&&": "||",
  "||": "&&",
};

const [, , what, path] = process.argv;
const text = readFileSync(path, "utf8");
const whole = parse(text, { ecmaVersion: "latest", sourceType: "module" });

/** @type {{start: number, end: number, instead: string, in: number}[]} */
const faults = [];
/** @type {{at: number, text: string}[]} */
const notes = [];

const isFunction = (node) => /Function/.test(node.type);

/** Where the operator of an expression with two sides stands. */
function operatorOf(node) {
  const between = text.slice(node.left.end, node.right.start);
  const start = node.left.end + between.indexOf(node.operator);
  return { start, end: start + node.operator.length };
}

function faultsAt(node, within) {
  const add = (start, end, instead) => faults.push({ start, end, instead, in: within });
  if ((node.type === "BinaryExpression" || node.type === "LogicalExpression") && OTHER[node.operator]) {
    const { start, end } = operatorOf(node);
    add(start, end, OTHER[node.operator]);
  } else if (node.type === "UnaryExpression" && node.operator === "!") add(node.start, node.start + 1, "");
  else if (node.type === "Literal" && [0, 1, 2].includes(node.value)) add(node.start, node.end, `${node.value + 1}`);
  else if (node.type === "Literal" && typeof node.value === "boolean") add(node.start, node.end, `${!node.value}`);
  else if (node.type === "ExpressionStatement" && !node.directive) add(node.start, node.end, ";");
}

function noteIn(node) {
  const note = `(globalThis.ranHere ??= new Set()).add("${path}:${node.start}")`;
  if (node.body.type === "BlockStatement") notes.push({ at: node.body.start + 1, text: `${note};` });
  else notes.push({ at: node.body.start, text: `(${note}, ` }, { at: node.body.end, text: ")" });
}

function walk(node, within) {
  if (!node || typeof node.type !== "string") return;
  const inside = isFunction(node) ? node.start : within;
  if (isFunction(node)) noteIn(node);
  faultsAt(node, inside);
  for (const value of Object.values(node))
    for (const child of Array.isArray(value) ? value : [value]) walk(child, inside);
}

walk(whole, -1);
if (what === "faults") {
  const line = (place) => text.slice(0, place).split("\n").length;
  process.stdout.write(JSON.stringify(faults.map((one) => ({ ...one, line: line(one.start) }))));
} else {
  // From the end, so that places before stay where they are; of two notes at one place the inner one comes first.
  let noted = text;
  for (const { at, text: note } of notes.sort((a, b) => b.at - a.at))
    noted = noted.slice(0, at) + note + noted.slice(at);
  process.stdout.write(noted);
}
