// Goes through a demonstration: next, back, keys, drag at any frame, large. On a file of its own it finds all it needs there.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";
import { makeDraggable } from "../figure/dragging.js";
import { Frames } from "../figure/frames.js";
import { ToolBook } from "../figure/tape.js";
import { Voice } from "./voice.js";

export class Show {
  /** @type {(() => void)[]} */
  #listeners = [];
  mayLeave = () => true; // to be asked before another frame is shown

  /** @param {any} page @param {ToolBook} book */
  constructor(page, book) {
    this.page = page;
    this.svg = find("svg", page);
    this.frames = new Frames(book, JSON.parse(find("#demonstration").textContent), this.svg);
    this.words = find("[data-words]", page);
    this.slider = find("input[type=range]", page);
    this.voice = new Voice(page);
    makeDraggable(this.frames, this.svg);
    find("[data-back]", page).addEventListener("click", () => this.leaveFor(this.frames.at - 1));
    find("[data-on]", page).addEventListener("click", () => this.leaveFor(this.frames.at + 1));
    this.slider.addEventListener("input", () => this.leaveFor(Number(this.slider.value)));
    find("[data-wide]", page).addEventListener("click", () => this.#fill());
    const beside = page.matches(".beside"); // then only the keys that are pressed in it are for it
    (beside ? page : document).addEventListener("keydown", (/** @type {any} */ event) => {
      if (beside && event.key === "Escape") return;
      this.#press(event);
      if (beside) event.stopPropagation();
    });
    this.go(0);
  }

  /**
   * To be told when another frame is shown.
   * @param {() => void} listener
   */
  onGo(listener) {
    this.#listeners.push(listener);
    listener();
  }

  /**
   * Somebody goes to another frame; what is said in it is heard.
   * @param {number} number
   */
  leaveFor(number) {
    const { at, frames } = this.frames;
    const wanted = Math.max(0, Math.min(frames.length - 1, number));
    if (wanted === at || !this.mayLeave()) {
      this.slider.value = this.frames.at;
      return;
    }
    this.go(wanted);
    this.voice.speak();
  }

  /** @param {number} number */
  go(number) {
    const { frames } = this;
    frames.go(number);
    this.slider.max = frames.frames.length - 1;
    this.slider.value = frames.at;
    this.words.textContent = frames.frame.words;
    this.voice.show(frames.frame.voice);
    find("[data-place]", this.page).textContent = _("%(n)s of %(all)s", {
      n: frames.at + 1,
      all: frames.frames.length,
    });
    find("[data-back]", this.page).disabled = frames.at === 0;
    find("[data-on]", this.page).disabled = frames.isLast;
    for (const listener of this.#listeners) listener();
  }

  #fill() {
    if (document.fullscreenElement) document.exitFullscreen();
    else this.page.requestFullscreen?.();
  }

  /** @param {KeyboardEvent & {target: any}} event */
  #press(event) {
    if (event.target.matches?.("input, textarea, select, audio") || event.ctrlKey || event.metaKey || event.altKey)
      return;
    /** @type {Record<string, () => void>} */
    const actions = {
      ArrowRight: () => this.leaveFor(this.frames.at + 1),
      " ": () => this.leaveFor(this.frames.at + 1),
      ArrowLeft: () => this.leaveFor(this.frames.at - 1),
      Home: () => this.leaveFor(0),
      End: () => this.leaveFor(this.frames.frames.length - 1),
      f: () => this.#fill(),
    };
    if (!actions[event.key] || (event.key === " " && event.target.matches?.("button, a, summary"))) return;
    event.preventDefault();
    actions[event.key]();
  }
}

const page = find(".demonstration");
const kept = document.querySelector("#tool-book");
const book = kept
  ? new ToolBook(JSON.parse(kept.textContent))
  : await ToolBook.load(String(document.body.dataset.toolBook));
page.show = new Show(page, book);
page.dataset.ready = "yes";
