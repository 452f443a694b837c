// Changes a demonstration: the words of each frame, where points lie, what is hidden or coloured, and what is seen. All of
// it is stored a moment after it is changed.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { Storing } from "../look/storing.js";
import { Hits } from "../figure/hits.js";
import { rounded } from "../figure/log.js";
import "./show.js";

const REACH = 14; // pixels

class Making {
  /** @type {string[]} */
  #chosen = []; // the objects whose look can be changed, or that are measured; with Shift several

  /** @param {any} panel @param {any} show */
  constructor(panel, show) {
    this.panel = panel;
    this.show = show;
    this.frames = show.frames;
    this.words = find("textarea", panel);
    this.state = find("[data-state]", panel);
    this.position = find('[data-act="position"]', panel); // can be pressed where something was dragged
    /** @param {string} words */
    const say = (words) => this.#say(words);
    this.storing = new Storing({
      url: panel.dataset.save,
      server: { frames: this.frames.frames },
      body: (fields) => ({ ...fields, made_from: panel.dataset.mark }),
      on: {
        stored: (/** @type {{mark: string}} */ { mark }) => this.#marked(mark),
        elsewhere: (/** @type {{mark: string}} */ { mark }) => this.#marked(mark),
        refused: say,
        state: say,
      },
    });
    const { frames } = this.storing.unstored();
    if (frames) this.#takeUp(frames);
    this.words.addEventListener("input", () => {
      this.frames.frame.words = this.words.value;
      show.words.textContent = this.words.value;
      this.#store();
    });
    /** @param {string} name @param {() => void} act */
    const on = (name, act) => find(`[data-act="${name}"]`, panel).addEventListener("click", act);
    on("add", () => this.#add());
    on("remove", () => this.#remove());
    on("position", () => this.#change({ points: this.#places() }));
    on("forget", () => this.#change({ points: {}, dress: {}, measures: [], view: undefined }));
    on("measure", () => this.#measure());
    on("closer", () => this.#zoom(0.8));
    on("farther", () => this.#zoom(1.25));
    for (const button of findAll("[data-look]", panel))
      button.addEventListener("click", () => this.#dress(JSON.parse(button.dataset.look)));
    show.svg.addEventListener("click", (/** @type {any} */ event) => this.#chooseAt(event));
    this.frames.dragged = () => {
      this.position.disabled = false;
    };
    show.onGo(() => this.#shown());
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
    this.#choseNothing();
    this.position.disabled = true;
    find('[data-act="remove"]', this.panel).disabled = frames.length === 1;
    find('[data-act="forget"]', this.panel).disabled = !hasLooks(frames[at]);
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
    const chosen = this.#chosen;
    Object.assign(this.frames.frame, fields);
    this.show.go(this.frames.at);
    for (const [id, at] of Object.entries(dragged)) this.frames.put(id, at);
    const seen = chosen.filter((id) => !this.frames.isHidden(id));
    if (seen.length) this.#choose(seen);
    this.#store();
  }

  // Another frame after this one, with the same steps.
  #add() {
    const { frames, at, frame } = this.frames;
    frames.splice(at + 1, 0, { shown: frame.shown, words: "" });
    this.show.go(at + 1);
    this.words.focus();
    this.#store();
  }

  #remove() {
    const { frames, at } = this.frames;
    const removed = frames.splice(at, 1);
    this.show.go(Math.min(at, frames.length - 1));
    this.#store();
    this.#say(_("Removed."), () => {
      frames.splice(at, 0, ...removed);
      this.show.go(at);
      this.#store();
    });
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

  /** @param {{clientX: number, clientY: number, shiftKey: boolean}} fields */
  #chooseAt({ clientX, clientY, shiftKey }) {
    const { figure, view } = this.frames;
    const box = this.show.svg.getBoundingClientRect();
    const hits = new Hits(figure, view, (id) => this.frames.isHidden(id));
    const place = [clientX - box.left, clientY - box.top];
    const [first] = [...hits.points(place, REACH), ...hits.curves(place, REACH)];
    if (!first) return this.#choseNothing();
    this.#choose(shiftKey ? [...this.#chosen.filter((id) => id !== first.id), first.id].slice(-3) : [first.id]);
  }

  /** @param {string[]} ids */
  #choose(ids) {
    this.#chosen = ids;
    find("[data-chosen]", this.panel).textContent = _("%(names)s from here on:", { names: this.#chosen.join(", ") });
    for (const button of findAll("[data-look]", this.panel)) button.disabled = false;
    find('[data-act="measure"]', this.panel).disabled = this.#measurable() === null;
  }

  // What the chosen objects measure: a segment its length, a circle its radius, two or three points; null for nothing.
  #measurable() {
    const { figure } = this.frames;
    const [first] = this.#chosen;
    if (this.#chosen.length > 1) return this.#chosen.every((id) => figure.isPoint(id)) ? this.#chosen : null;
    if (figure.kind(first) === "circle") return [first];
    const { make, from } = figure.step(first);
    return make === "segment" ? from : null;
  }

  // Measured from here on; once more takes it away again, if it was measured in this frame.
  #measure() {
    const of = this.#measurable();
    const { measures = [] } = this.frames.frame;
    const rest = measures.filter((/** @type {any} */ one) => one.join(" ") !== of.join(" "));
    this.#change({ measures: rest.length < measures.length ? rest : [...rest, of] });
  }

  #choseNothing() {
    this.#chosen = [];
    find("[data-chosen]", this.panel).textContent = _(
      "Click an object of the figure to hide, colour or measure it; with Shift several.",
    );
    for (const button of findAll("[data-look], [data-act=measure]", this.panel)) button.disabled = true;
  }

  /** @param {Record<string, any>} look */
  #dress(look) {
    const { frame } = this.frames;
    const dressed = this.#chosen.map((id) => [id, { ...frame.dress?.[id], ...look }]);
    this.#change({ dress: { ...frame.dress, ...Object.fromEntries(dressed) } });
  }

  #store() {
    this.storing.change({ frames: this.frames.frames });
  }

  /**
   * Frames that this browser could not store last time.
   * @param {any[]} frames
   */
  #takeUp(frames) {
    this.frames.document.frames = frames;
    this.show.go(Math.min(this.frames.at, frames.length - 1));
    this.#store();
  }

  /**
   * undo: what a button beside the words does
   * @param {string} words
   * @param {(() => void) | null} [undo]
   */
  #say(words, undo = /** @type {(() => void) | null} */ (null)) {
    const button = Object.assign(document.createElement("button"), { type: "button", textContent: _("Undo") });
    button.addEventListener("click", () => undo?.());
    this.state.replaceChildren(words, ...(undo ? [" ", button] : []));
  }
}

/** @param {any} frame */
function hasLooks({ points, dress, measures, view }) {
  return Boolean(view || measures?.length) || [points, dress].some((one) => one && Object.keys(one).length > 0);
}

/** @type {any} */
const page = find(".demonstration");
page.making = new Making(find(".frame-making"), page.show);
