// A work replayed operation by operation, what was taken back included.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";
import { replay, stepsOf } from "../figure/log.js";
import { inOneLine, sentenceOf } from "../figure/step-words.js";
import { Picture } from "../figure/picture.js";
import { ToolBook } from "../figure/tape.js";
/** @import { Operation, Step } from "../figure/types.js" */

const PACE = 700; // milliseconds an operation

class Replay {
  /** @type {number | null} */
  #timer = null;
  count = 0; // of the operations that are shown

  /** @param {any} page @param {ToolBook} book */
  constructor(page, book) {
    this.page = page;
    this.book = book;
    this.setting = JSON.parse(page.dataset.setting);
    this.log = JSON.parse(page.dataset.log);
    this.slider = page.querySelector("input");
    this.caption = page.querySelector(".caption");
    this.show(this.log.length);
    if (!this.slider) return;
    this.slider.addEventListener("input", () => this.show(Number(this.slider.value)));
    page.querySelector("[data-back]").addEventListener("click", () => this.show(this.count - 1));
    page.querySelector("[data-on]").addEventListener("click", () => this.show(this.count + 1));
    page.querySelector("[data-play]").addEventListener("click", () => this.#play());
    page.dataset.shown = "yes";
  }

  /** @param {number} count */
  show(count) {
    this.count = Math.max(0, Math.min(this.log.length, count));
    const { given, own, notes } = stepsOf(this.setting, replay(this.log.slice(0, this.count)).done);
    this.picture?.end();
    this.picture = new Picture(
      this.book,
      { given, start: [], steps: own, notes },
      this.page.querySelector("svg"),
      true,
    );
    this.picture.paint();
    if (!this.slider) return;
    this.slider.value = this.count;
    this.caption.textContent = this.count ? this.#words(this.log[this.count - 1]) : _("Before the first step");
  }

  /** @param {Operation} operation */
  #words(operation) {
    const at = new Date(operation.stored).toLocaleTimeString("en-GB", {
      hour: "2-digit",
      minute: "2-digit",
      second: "2-digit",
    });
    return _("%(count)s of %(all)s, %(time)s: %(done)s.", {
      count: this.count,
      all: this.log.length,
      time: at,
      done: whatWasDone(operation, this.book),
    });
  }

  #play() {
    const button = this.page.querySelector("[data-play]");
    if (this.#timer) {
      clearInterval(this.#timer);
      this.#timer = null;
      button.textContent = _("Play it");
      return;
    }
    if (this.count === this.log.length) this.show(0);
    button.textContent = "Stop";
    this.#timer = setInterval(() => {
      this.show(this.count + 1);
      if (this.count === this.log.length) this.#play();
    }, PACE);
  }
}

/** @param {Operation} operation @param {ToolBook} book */
function whatWasDone(operation, book) {
  /** @param {string} id */
  const names = (id) => [id].flat().join(", ");
  switch (operation.op) {
    case "add":
      return `${operation.step.id}: ${inWords(operation.step, book)}`;
    case "use":
      return _("%(results)s: %(tool)s from %(sources)s", {
        results: names(operation.gives),
        tool: operation.class_tool,
        sources: names(operation.from),
      });
    case "remake":
      return _("%(id)s made another way: %(step)s", { id: operation.step.id, step: inWords(operation.step, book) });
    case "remove":
      return _("%(names)s removed", { names: names(operation.id) });
    case "move":
      return _("%(points)s dragged", { points: Object.keys(operation.points).join(", ") });
    case "dress":
      return _("%(names)s shown another way", { names: names(operation.id) });
    case "measure":
      return _("%(names)s measured", { names: operation.of.join("") });
    case "note":
      return operation.text ? _("a note: %(text)s", { text: operation.text }) : _("a note removed");
    default:
      return operation.op === "undo" ? _("the step before undone") : operation.op;
  }
}

/** @param {Step} step @param {ToolBook} book */
function inWords(step, book) {
  return inOneLine(sentenceOf(step, book), (id) => id);
}

const page = find(".replay");
page.replay = new Replay(page, await ToolBook.load(String(document.body.dataset.toolBook)));
