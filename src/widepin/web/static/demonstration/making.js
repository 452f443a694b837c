// Changes a demonstration: its title, the words of each frame, their order, where points lie, how objects look, what is
// said and what is seen. All of it is stored a moment after it is changed.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";
import { Storing } from "../look/storing.js";
import { rounded } from "../figure/log.js";
import { Looks } from "./looks.js";
import { Recorder } from "./recorder.js";
import "./show.js";

class Making {
  /** @type {any[] | null} */
  #before = null; // the frames before the last action, to be had back

  /** @param {any} panel @param {any} show */
  constructor(panel, show) {
    this.panel = panel;
    this.show = show;
    this.frames = show.frames;
    this.words = find("textarea", panel);
    this.title = find('[name="title"]', panel);
    this.state = find("[data-state]", panel);
    this.undo = find('[data-act="undo"]', panel);
    this.position = find('[data-act="position"]', panel); // can be pressed where something was dragged
    const { frames, title } = this.frames.document;
    /** @param {string} words */
    const say = (words) => {
      this.state.textContent = words;
    };
    this.storing = new Storing({
      url: panel.dataset.save,
      server: { frames, title },
      body: (fields) => ({ frames: this.frames.frames, ...fields, made_from: panel.dataset.mark }),
      on: {
        stored: (/** @type {{mark: string}} */ { mark }) => this.#marked(mark),
        elsewhere: (/** @type {{mark: string}} */ { mark }) => this.#marked(mark),
        refused: say,
        state: say,
      },
    });
    const unstored = this.storing.unstored();
    if (unstored.title) this.title.value = unstored.title;
    if (unstored.frames) this.frames.document.frames = unstored.frames;
    if (Object.keys(unstored).length) this.storing.change(unstored);
    this.looks = new Looks(panel, show, (fields) => this.#change(fields));
    this.recorder = new Recorder(
      panel,
      () => this.#hearer(),
      () => this.#change({ voice: undefined }),
    );
    this.#listen();
    show.mayLeave = () => this.#mayLeave();
    show.onGo(() => this.#shown());
    show.go(Math.min(this.frames.at, this.frames.frames.length - 1));
  }

  #listen() {
    this.words.addEventListener("input", () => {
      Object.assign(this.frames.frame, { words: this.words.value, own: true });
      this.show.words.textContent = this.words.value;
      this.#forgetUndo();
      this.#store();
    });
    this.title.addEventListener("change", () => {
      const title = this.title.value.trim();
      if (title) this.storing.change({ title });
      else this.title.value = this.frames.document.title;
    });
    /** @param {string} name @param {() => void} act */
    const on = (name, act) => find(`[data-act="${name}"]`, this.panel).addEventListener("click", act);
    on("add", () => this.#add());
    on("remove", () => this.#remove());
    on("earlier", () => this.#move(-1));
    on("later", () => this.#move(1));
    on("position", () => this.#change({ points: this.#places() }));
    on("forget", () => this.#change({ points: {}, dress: {}, measures: [], view: undefined }));
    on("closer", () => this.#zoom(0.8));
    on("farther", () => this.#zoom(1.25));
    on("undo", () => this.#takeBack());
    const anew = find("[data-confirm]", this.panel);
    anew.addEventListener("click", (/** @type {Event} */ event) => {
      if (!confirm(anew.dataset.confirm)) event.preventDefault();
    });
    this.frames.dragged = () => {
      this.position.disabled = false;
    };
  }

  /**
   * What is changed from now on is made from this state.
   * @param {string} mark
   */
  #marked(mark) {
    this.panel.dataset.mark = mark;
    return {};
  }

  #shown() {
    const { frame, frames, at } = this.frames;
    this.words.value = frame.words;
    this.looks.clear();
    this.recorder.show(Boolean(frame.voice));
    this.position.disabled = true;
    const disable = (/** @type {string} */ act, /** @type {boolean} */ isOff) => {
      find(`[data-act="${act}"]`, this.panel).disabled = isOff;
    };
    disable("remove", frames.length === 1);
    disable("forget", !hasLooks(frame));
    disable("earlier", at === 0);
    disable("later", at === frames.length - 1);
  }

  // A position that was dragged here and is not kept yet is asked about, while the demonstration is being changed.
  #mayLeave() {
    if (this.panel.open && !this.position.disabled && confirm(_("Keep the position that you dragged in this frame?")))
      this.#change({ points: this.#places() });
    return true;
  }

  #places() {
    return Object.fromEntries(Object.entries(this.frames.places).map(([id, at]) => [id, rounded(at)]));
  }

  /**
   * What was dragged and is not kept yet, and what is chosen, stays.
   * @param {Record<string, any>} fields
   */
  #change(fields) {
    const dragged = "points" in fields || this.position.disabled ? {} : this.#places();
    this.#remember();
    Object.assign(this.frames.frame, fields);
    const { chosen } = this.looks;
    this.show.go(this.frames.at);
    for (const [id, at] of Object.entries(dragged)) this.frames.put(id, at);
    this.looks.chooseAgain(chosen);
    this.#store();
  }

  // What a recording that begins now is for: the frame that is shown, wherever it stands when it is done.
  #hearer() {
    const { frame } = this.frames;
    return (/** @type {string} */ voice) => {
      frame.voice = voice;
      this.show.go(this.frames.at);
      this.#store();
    };
  }

  // Another frame after this one, with the same steps.
  #add() {
    const { frames, at, frame } = this.frames;
    this.#remember();
    frames.splice(at + 1, 0, { shown: frame.shown, words: "", own: true });
    this.show.go(at + 1);
    this.words.focus();
    this.#store();
  }

  #remove() {
    const { frames, at } = this.frames;
    this.#remember();
    frames.splice(at, 1);
    this.show.go(Math.min(at, frames.length - 1));
    this.#store();
  }

  /** @param {number} by */
  #move(by) {
    const { frames, at } = this.frames;
    this.#remember();
    frames.splice(at + by, 0, ...frames.splice(at, 1));
    this.show.go(at + by);
    this.#store();
  }

  /** @param {number} factor */
  #zoom(factor) {
    const [width, height] = this.frames.drawing.size();
    const { view } = this.frames;
    const corners = [view.toPaper(0, height), view.toPaper(width, 0)];
    const middle = [0, 1].map((axis) => (corners[0][axis] + corners[1][axis]) / 2);
    const seen = corners.map((corner) =>
      corner.map(
        (/** @type {number} */ value, /** @type {number} */ axis) => middle[axis] + (value - middle[axis]) * factor,
      ),
    );
    this.#change({ view: seen.map(rounded) });
  }

  // -- undo ---------------------------------------------------------------------------------------

  #remember() {
    this.#before = structuredClone(this.frames.frames);
    this.undo.hidden = false;
  }

  #forgetUndo() {
    this.#before = null;
    this.undo.hidden = true;
  }

  #takeBack() {
    const frames = this.#before;
    if (!frames) return;
    this.frames.document.frames = frames;
    this.#forgetUndo();
    this.show.go(Math.min(this.frames.at, frames.length - 1));
    this.#store();
    this.words.focus();
  }

  #store() {
    this.storing.change({ frames: this.frames.frames });
  }
}

/** @param {any} frame */
function hasLooks({ points, dress, measures, view }) {
  return Boolean(view || measures?.length) || [points, dress].some((one) => one && Object.keys(one).length > 0);
}

/** @type {any} */
const page = find(".demonstration");
page.making = new Making(find(".frame-making"), page.show);
