// Steps through a construction, forwards and backwards, with the sentence of each step.

import { _ } from "../look/language.js";
import { inOneLine, sentenceOf } from "./step-words.js";
/** @import { Picture } from "./picture.js" */
/** @import { Step } from "./types.js" */

export class StepPlayer {
  /**
   * controls: an element with two buttons and a slider. say(words): tells the step. begun(): somebody turned to it.
   * @param {Picture} picture
   * @param {any} controls
   * @param {(words: string) => void} say
   * @param {() => void} begun
   */
  constructor(picture, controls, say, begun) {
    this.picture = picture;
    this.slider = controls.querySelector("input");
    this.say = say;
    this.begun = begun;
    controls.querySelector("[data-back]").addEventListener("click", () => this.show(picture.shown - 1));
    controls.querySelector("[data-on]").addEventListener("click", () => this.show(picture.shown + 1));
    this.slider.addEventListener("input", () => this.show(Number(this.slider.value)));
  }

  // All steps again, without a word.
  rest() {
    this.slider.value = this.slider.max;
    this.picture.showSteps(Number(this.slider.max));
  }

  /** @param {number} count */
  show(count) {
    this.begun();
    const { steps } = this.picture.data;
    const shown = Math.max(0, Math.min(steps.length, count));
    this.slider.value = shown;
    this.picture.showSteps(shown);
    this.say(
      shown
        ? _("Step %(number)s of %(all)s: %(sentence)s", {
            number: shown,
            all: steps.length,
            sentence: this.#sentence(steps[shown - 1]),
          })
        : _("Before the first step"),
    );
  }

  /**
   * Up to the step that makes an object.
   * @param {string} id
   */
  showStep(id) {
    this.show(this.picture.data.steps.findIndex((/** @type {Step} */ step) => step.id === id) + 1);
  }

  /** @param {Step} step */
  #sentence(step) {
    const { figure } = this.picture;
    /** @param {string} id */
    const name = (id) => (figure.has(id) ? figure.step(id).label || id : id);
    return `${name(step.id)}: ${inOneLine(sentenceOf(step, figure.book), name)}.`;
  }
}
