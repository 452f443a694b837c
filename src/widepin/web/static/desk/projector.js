// One work after the other, large: dragged, played to its break, stepped through, with another work laid over it.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";
import { BreakPlayer } from "../figure/break-player.js";
import { makeDraggable } from "../figure/dragging.js";
import { Picture } from "../figure/picture.js";
import { StepPlayer } from "../figure/step-player.js";
import { ToolBook } from "../figure/tape.js";
import { hideNames } from "./names-hidden.js";

class Projector {
  #at = 0;
  /** @type {import("../figure/picture.js").Picture | null} */
  #picture = null;

  /** @param {any} page @param {ToolBook} book */
  constructor(page, book) {
    this.page = page;
    this.book = book;
    this.shown = JSON.parse(page.dataset.shown);
    this.overlay = find("[data-overlay-of]", page);
    for (const [number, { student }] of this.shown.entries()) this.overlay.append(new Option(student, String(number)));
    for (const button of page.querySelectorAll("[data-step]"))
      button.addEventListener("click", () => this.go(Number(button.dataset.step)));
    this.overlay.addEventListener("change", () => this.show());
    find("[data-wide]", page).addEventListener("click", () => this.#fill());
    document.addEventListener("keydown", (event) => this.#press(event));
    hideNames(find("[data-hide-names]", page), true);
    this.show();
  }

  /** @param {number} step */
  go(step) {
    this.#at = (this.#at + step + this.shown.length) % this.shown.length;
    this.show();
  }

  show() {
    const one = this.shown[this.#at];
    const { page } = this;
    find("[data-place]", page).textContent = _("%(n)s of %(all)s", { n: this.#at + 1, all: this.shown.length });
    find("[data-student]", page).textContent = one.student;
    find("[data-heading]", page).textContent = one.heading;
    find("[data-sentences]", page).replaceChildren(
      ...one.sentences.map((/** @type {string} */ words) =>
        Object.assign(document.createElement("p"), { textContent: words }),
      ),
    );
    this.#draw({ ...one.figure, model: this.#laidOver(one.figure) });
  }

  /**
   * What is laid over the figure: the sample solution, or what another student built.
   * @param {any} figure
   */
  #laidOver(figure) {
    const { value } = this.overlay;
    if (value === "") return [];
    return value === "model" ? figure.model : this.shown[Number(value)].figure.steps;
  }

  /** @param {any} figure */
  #draw(figure) {
    this.#picture?.end();
    const stage = find("[data-stage]", this.page);
    stage.replaceChildren(find("#stage").content.cloneNode(true));
    const svg = find("svg", stage);
    svg.setAttribute("aria-label", _("The construction, large"));
    this.#picture = new Picture(this.book, figure, svg, true);
    this.#picture.showsModel = figure.model.length > 0;
    makeDraggable(this.#picture, svg);
    /** @param {string} words */
    const say = (words) => {
      find(".caption", stage).textContent = words;
    };
    const [broken, stepped] = ["break", "step"].map((name) => find(`.${name}-player`, stage));
    broken.hidden = this.#picture.drags.length === 0;
    find("input", stepped).max = figure.steps.length;
    find("input", stepped).value = figure.steps.length;
    const breaking = new BreakPlayer(this.#picture, broken, say, () => stepping.rest());
    const stepping = new StepPlayer(this.#picture, stepped, say, () => breaking.rest());
    this.#picture.paint();
  }

  #fill() {
    if (document.fullscreenElement) document.exitFullscreen();
    else this.page.requestFullscreen?.();
  }

  /** @param {KeyboardEvent & {target: any}} event */
  #press(event) {
    if (event.target.matches("input, select, textarea") || event.ctrlKey || event.metaKey || event.altKey) return;
    /** @type {Record<string, () => void>} */
    const actions = {
      ArrowRight: () => this.go(1),
      ArrowLeft: () => this.go(-1),
      n: () => find("[data-hide-names]", this.page).click(),
      f: () => this.#fill(),
    };
    const act = actions[event.key] ?? actions[event.key.toLowerCase()];
    if (!act) return;
    event.preventDefault();
    act();
  }
}

const page = find(".projector");
if (page.querySelector("[data-stage]")) {
  page.projector = new Projector(page, await ToolBook.load(String(document.body.dataset.toolBook)));
  page.dataset.ready = "yes";
}
