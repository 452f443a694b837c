// Draws every figure of a page: elements with data-figure hold an SVG, and a slider if the figure has a break.

import { Drawing, outlineOf } from "./drawing.js";
import { Figure } from "./figure.js";
import { ToolBook } from "./tape.js";
import { View } from "./view.js";

function roles(picture, broken) {
  const given = new Set(picture.given.map((step) => step.id));
  const answer = new Set(picture.answer ?? []);
  const failed = picture.outcome === "wrong" || picture.outcome === "refused";
  const hidden = new Set(picture.steps.filter((step) => step.hidden).map((step) => step.id));
  return (id) => {
    const role = new Set();
    if (given.has(id)) role.add("given");
    if (hidden.has(id)) role.add("hidden");
    if (answer.has(id)) role.add(broken() || failed ? "broken" : "answer");
    return role;
  };
}

function show(book, holder) {
  const picture = JSON.parse(holder.dataset.figure);
  const figure = new Figure(book, [...picture.given, ...(picture.start ?? []), ...picture.steps]);
  const drawing = new Drawing(holder.querySelector("svg"));
  const slider = holder.querySelector("input[type=range]");
  const drags = picture.breaks?.points ?? [];
  const names = holder.dataset.names !== "no";
  let share = 0;

  const drawn = outlineOf(figure);
  const all = [...drawn];
  if (slider && drags.length) {
    place(1);
    all.push(...outlineOf(figure));
    place(0);
  }
  function place(part) {
    share = part;
    for (const { id, from, to } of drags) figure.put(id, [0, 1].map((axis) => from[axis] + part * (to[axis] - from[axis])));
  }
  function paint() {
    const view = View.fitted(all, ...drawing.size());
    drawing.draw(figure, view, roles(picture, () => share > 0.98), { names });
  }
  slider?.addEventListener("input", () => {
    place(Number(slider.value) / 100);
    paint();
  });
  new ResizeObserver(paint).observe(drawing.svg);
  paint();
}

const holders = [...document.querySelectorAll("[data-figure]")];
if (holders.length) {
  const book = await ToolBook.load(document.body.dataset.toolBook);
  for (const holder of holders) show(book, holder);
}
