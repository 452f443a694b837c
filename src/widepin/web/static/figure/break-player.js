// Plays the drag from the drawing to the position where a construction breaks.

import { _ } from "../look/language.js";
import { listed } from "./listed.js";

const SECONDS = 3;

export class BreakPlayer {
  /**
   * controls: an element with a button and a slider. say(words): tells what is seen. begun(): somebody turned to it.
   * @param {any} picture
   * @param {any} controls
   * @param {(words: string) => void} say
   * @param {() => void} begun
   */
  constructor(picture, controls, say, begun) {
    this.picture = picture;
    this.button = controls.querySelector("[data-play]");
    this.slider = controls.querySelector("input");
    this.say = say;
    this.begun = begun;
    /** @type {number | null} */
    this.frame = null;
    this.button.addEventListener("click", () => (this.frame ? this.stop() : this.play()));
    this.slider.addEventListener("input", () => {
      this.begun();
      this.stop();
      this.#show(Number(this.slider.value) / 100);
    });
  }

  play() {
    this.begun();
    if (this.frame !== null) cancelAnimationFrame(this.frame); // one play at a time
    const from = this.picture.share > 0.99 ? 0 : this.picture.share;
    let begun = NaN;
    /** @param {number} now */
    const step = (now) => {
      if (Number.isNaN(begun)) begun = now;
      // A frame may be told an earlier time than the one before it.
      const share = Math.min(1, from + Math.max(0, now - begun) / (1000 * SECONDS));
      this.#show(share);
      if (share < 1) this.frame = requestAnimationFrame(step);
      else this.stop();
    };
    this.button.textContent = "Stop";
    this.say(
      _("Dragging %(points)s.", { points: listed(this.picture.drags.map((/** @type {{id: string}} */ { id }) => id)) }),
    );
    this.frame = requestAnimationFrame(step);
  }

  stop() {
    if (this.frame !== null) cancelAnimationFrame(this.frame);
    this.frame = null;
    this.button.textContent = this.picture.isBroken ? _("Show it again") : _("Show the counterexample");
  }

  // Back to the figure as drawn, without a word.
  rest() {
    this.stop();
    this.picture.dragTo(0);
    this.slider.value = 0;
    this.button.textContent = _("Show the counterexample");
  }

  /** @param {number} share */
  #show(share) {
    this.picture.dragTo(share);
    this.slider.value = Math.round(share * 100);
    if (this.picture.isBroken) this.say(this.#what());
    else if (!this.frame) this.say("");
  }

  #what() {
    const { then, object } = this.picture.data.breaks;
    return then === "undefined"
      ? _("Here %(object)s does not exist any more.", { object })
      : _("Here %(object)s is not what it should be.", { object });
  }
}
