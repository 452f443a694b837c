// What can be done with a step of the list: hide it, name it, draw it dashed, make it another way, remove it.

import { labelOf } from "../figure/drawing.js";
import { listed } from "../figure/listed.js";
import { choicesFor } from "./choices.js";
import { dependentsOf } from "./log.js";
import { isHelper } from "./uses.js";

const HUES = ["grey", "blue", "purple", "green"]; // told apart by colour-blind eyes too, and by their darkness

// on: dress(id, fields), remake(step), remove(id), hideRest(id), tryOut(step or null), ask(id or null).
// isAsking: whether it was asked what removing would take along.
export function dressing(figure, own, step, on, isAsking) {
  const tools = document.createElement("div");
  tools.className = "dressing";
  const name = document.createElement("input");
  name.value = step.label ?? step.id;
  name.maxLength = 24;
  name.setAttribute("aria-label", `Name of ${step.id}`);
  name.addEventListener("change", () => on.dress(step.id, { label: name.value.trim() || step.id }));
  tools.append(choice(step.hidden ? "Show" : "Hide", () => on.dress(step.id, { hidden: !step.hidden })));
  if (!figure.isPoint(step.id)) {
    const dashed = step.style === "dashed",
      thick = step.weight === "thick";
    tools.append(
      choice(dashed ? "Full line" : "Dashed", () => on.dress(step.id, { style: dashed ? "solid" : "dashed" })),
    );
    tools.append(choice(thick ? "Thin" : "Thick", () => on.dress(step.id, { weight: thick ? "thin" : "thick" })));
    if (figure.kind(step.id) === "segment") {
      tools.append(choice("Ticks", () => on.dress(step.id, { ticks: ((step.ticks ?? 0) + 1) % 4 })));
    }
    tools.append(...HUES.map((hue) => swatch(hue, step, on)));
  }
  tools.append(choice("Hide the rest", () => on.hideRest(step.id)));
  const together = step.within?.steps.map(({ id }) => id) ?? [step.id];
  const along = dependentsOf(own, step.id).filter((id) => !together.includes(id));
  if (together.length > step.within?.gives.length) tools.append(unfolding(own, step, on));
  const remove = choice("Remove", () => (along.length ? on.ask(step.id) : on.remove(step.id)));
  remove.dataset.remove = "";
  tools.append(name, remove);
  if (isAsking && along.length) tools.append(question(figure, [step.id], along, on));
  const ways = step.within ? [] : choicesFor(figure, step);
  if (ways.length) tools.append(otherWays(figure, step, ways, on));
  return tools;
}

// How a tool built its result, shown or hidden.
function unfolding(own, { within }, on) {
  const helpers = own.filter((step) => step.within === within && isHelper(step)).map(({ id }) => id);
  const isOpen = own.some(({ id, hidden }) => helpers.includes(id) && !hidden);
  return choice(isOpen ? "Hide steps" : "Show steps", () => on.dress(helpers, { hidden: isOpen }));
}

function swatch(hue, step, on) {
  const button = choice("", () => on.dress(step.id, { hue }));
  button.className = `swatch hue-${hue}`;
  button.setAttribute("aria-label", `Draw it in ${hue}`);
  button.setAttribute("aria-pressed", String((step.hue ?? "grey") === hue));
  return button;
}

function otherWays(figure, step, ways, on) {
  const list = document.createElement("div");
  list.className = "other-ways";
  const title = document.createElement("p");
  title.textContent = step.make === "intersection" ? "Choose the intersection that is" : "This point";
  list.append(title);
  for (const { words, step: other } of ways) {
    const button = choice(words, () => on.remake(other));
    for (const event of ["pointerenter", "focus"]) button.addEventListener(event, () => on.tryOut(other));
    for (const event of ["pointerleave", "blur"]) button.addEventListener(event, () => on.tryOut(null));
    list.append(button);
  }
  return list;
}

// Removing asks only where something hangs on these steps, says what would go, and offers hiding first.
export function question(figure, ids, along, on) {
  const named = ids.length > 3 ? `these ${ids.length}` : listed(ids.map((id) => labelOf(figure, id)));
  const one = ids.length === 1 ? ids[0] : ids;
  const ask = document.createElement("div");
  ask.className = "asking";
  ask.setAttribute("role", "alertdialog");
  const words = document.createElement("p");
  words.textContent = `Removing ${named} also removes ${listed(along.map((id) => labelOf(figure, id)))}.`;
  ask.append(
    words,
    choice(`Hide ${named} only`, () => on.dress(one, { hidden: true })),
    choice(`Remove all ${along.length + ids.length}`, () => on.remove(one)),
    choice("Keep", () => on.ask(null)),
  );
  return ask;
}

function choice(words, onClick) {
  const button = document.createElement("button");
  button.type = "button";
  button.textContent = words;
  button.addEventListener("click", onClick);
  return button;
}
