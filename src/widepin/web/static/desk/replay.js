// A work replayed operation by operation, what was taken back included.

import { find } from "../look/page.js";
import { replay, stepsOf } from "../board/log.js";
import { inOneLine, sentenceOf } from "../board/tools.js";
import { Picture } from "../figure/picture.js";
import { ToolBook } from "../figure/tape.js";

const PACE = 700; // milliseconds an operation

class Replay {
  #timer = null;

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
    this.caption.textContent = this.count ? this.#words(this.log[this.count - 1]) : "Before the first step";
  }

  #words(operation) {
    const at = new Date(operation.stored).toLocaleTimeString("en-GB", {
      hour: "2-digit",
      minute: "2-digit",
      second: "2-digit",
    });
    return `${this.count} of ${this.log.length}, ${at}: ${whatWasDone(operation, this.book)}.`;
  }

  #play() {
    const button = this.page.querySelector("[data-play]");
    if (this.#timer) {
      clearInterval(this.#timer);
      this.#timer = null;
      button.textContent = "Play it";
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

function whatWasDone(operation, book) {
  const names = (id) => [id].flat().join(", ");
  switch (operation.op) {
    case "add":
      return `${operation.step.id}: ${inWords(operation.step, book)}`;
    case "use":
      return `${names(operation.gives)}: ${operation.class_tool} from ${names(operation.from)}`;
    case "remake":
      return `${operation.step.id} made another way: ${inWords(operation.step, book)}`;
    case "remove":
      return `${names(operation.id)} removed`;
    case "move":
      return `${Object.keys(operation.points).join(", ")} dragged`;
    case "dress":
      return `${names(operation.id)} shown another way`;
    case "measure":
      return `${operation.of.join("")} measured`;
    case "note":
      return operation.text ? `a note: ${operation.text}` : "a note removed";
    default:
      return operation.op === "undo" ? "the step before undone" : operation.op;
  }
}

function inWords(step, book) {
  return inOneLine(sentenceOf(step, book), (id) => id);
}

const page = find(".replay");
page.replay = new Replay(page, await ToolBook.load(document.body.dataset.toolBook));
