// What trying a task found: the headline, what to look at, and pictures of what else would pass.

import { _ } from "../look/language.js";
import { Picture } from "../figure/picture.js";
import { plainButton } from "./plain-button.js";
/** @import { ToolBook } from "../figure/tape.js" */

export class TaskCheck {
  /**
   * ask(conditions): take these instead; keepWrong(steps): this solution must be rejected
   * @param {any} holder
   * @param {ToolBook} book
   * @param {{ask: (conditions: any[]) => void, keepWrong: (steps: any[]) => void}} on
   */
  constructor(holder, book, on) {
    this.holder = holder;
    this.book = book;
    this.on = on;
  }

  wait() {
    this.holder.replaceChildren(...working(_("Checking the sample solution …")));
  }

  // What is known stands there already, while small changes of the sample solution are tried.
  searching() {
    this.holder.append(...working(_("Looking for wrong works that would pass as well …")));
  }

  /** @param {any} found */
  show(found) {
    if (found.error) return this.holder.replaceChildren(paragraph(found.error, "trouble"));
    /** @type {HTMLElement[]} */
    const parts = [paragraph(found.headline, found.solved ? "task-text good" : "task-text trouble")];
    if (found.model) parts.push(...found.model.sentences.map((/** @type {string} */ words) => paragraph(words)));
    if (found.warnings.length) parts.push(list(found.warnings));
    /** @type {any[]} */
    const grids = [];
    /** @param {any[]} works */
    const grid = (works) => {
      const made = document.createElement("div");
      made.className = "work-grid";
      made.append(...works.map(({ words, steps }) => card(words, steps && (() => this.on.keepWrong(steps)))));
      grids.push([made, works]);
      parts.push(made);
    };
    if (found.model) grid([{ figure: found.model.figure, words: _("The sample solution, where it fails") }]);
    if (found.passing.length) {
      parts.push(paragraph(_("These would pass as well. If one should not, add a condition.")));
      grid(found.passing);
    }
    if (found.rejected.length) {
      parts.push(paragraph(_("The mirror image of the answer would be called wrong:")));
      grid(found.rejected);
      parts.push(
        found.looser.length
          ? plainButton(_("Accept the mirror image"), () => this.on.ask(found.looser))
          : paragraph(
              _("If it should count, use conditions that are true of both, not the sample solution’s own objects."),
            ),
      );
    }
    this.holder.replaceChildren(...parts);
    for (const [made, works] of grids)
      made
        .querySelectorAll("svg")
        .forEach((/** @type {any} */ svg, /** @type {number} */ at) => this.#draw(svg, works[at].figure));
  }

  /** @param {any} svg @param {any} figure */
  #draw(svg, figure) {
    const picture = new Picture(this.book, figure, svg, false);
    if (picture.drags.length) picture.dragTo(1);
    else picture.paint();
  }
}

/** @param {string} words */
function working(words) {
  const bar = document.createElement("progress");
  bar.setAttribute("aria-label", words);
  return [paragraph(words, "quiet-note"), bar];
}

/** @param {string} words @param {string} [kind] */
function paragraph(words, kind = "") {
  const made = document.createElement("p");
  made.className = kind;
  made.textContent = words;
  return made;
}

/** @param {string[]} sentences */
function list(sentences) {
  const made = document.createElement("ul");
  made.className = "warnings";
  made.append(
    ...sentences.map((words) => {
      const item = document.createElement("li");
      item.textContent = words;
      return item;
    }),
  );
  return made;
}

/** @param {string} words @param {() => void} [keepWrong] */
function card(words, keepWrong) {
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
  if (keepWrong) made.append(plainButton(_("Must be rejected"), keepWrong));
  return made;
}
