// What trying a task found: the headline, what to look at, and pictures of what else would pass.

import { Picture } from "../figure/picture.js";

export class Rehearsal {
  constructor(holder, book) {
    this.holder = holder;
    this.book = book;
  }

  wait() { this.holder.replaceChildren(paragraph("Trying …")); }

  show(found) {
    if (found.error) return this.holder.replaceChildren(paragraph(found.error, "trouble"));
    const parts = [paragraph(found.headline, found.solved ? "task-text good" : "task-text trouble")];
    if (found.model) parts.push(...found.model.sentences.map((words) => paragraph(words)));
    if (found.warnings.length) parts.push(list(found.warnings));
    const pictures = [];
    if (found.model) pictures.push([found.model.figure, "The model, as it breaks"]);
    if (found.passing.length) parts.push(paragraph("These would pass as well. If one should not, ask for more."));
    pictures.push(...found.passing.map(({ figure, words }) => [figure, words]));
    const wall = document.createElement("div");
    wall.className = "wall";
    wall.append(...pictures.map(([figure, words]) => card(words)));
    this.holder.replaceChildren(...parts, wall);
    wall.querySelectorAll("svg").forEach((svg, at) => {
      const picture = new Picture(this.book, pictures[at][0], svg, false);
      if (picture.drags.length) picture.dragTo(1);
      else picture.paint();
    });
  }
}

function paragraph(words, kind = "") {
  const made = document.createElement("p");
  made.className = kind;
  made.textContent = words;
  return made;
}

function list(sentences) {
  const made = document.createElement("ul");
  made.className = "warnings";
  made.append(...sentences.map((words) => {
    const item = document.createElement("li");
    item.textContent = words;
    return item;
  }));
  return made;
}

function card(words) {
  const made = document.createElement("div");
  made.className = "work-card";
  const holder = document.createElement("div");
  holder.className = "picture";
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("role", "img");
  svg.setAttribute("aria-label", words);
  holder.append(svg);
  const caption = document.createElement("small");
  caption.textContent = words;
  made.append(holder, caption);
  return made;
}
