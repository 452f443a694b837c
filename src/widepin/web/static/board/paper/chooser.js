// What lies under the pointer: a list beside it, of which the first is what a click takes. Under a finger its entries are
// buttons.

import { _ } from "../../look/language.js";
import { isTouch } from "../../look/touch.js";
import { byDistance } from "./offers.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
/** @import { Offer } from "../types.js" */
/** @import { Place } from "../../figure/types.js" */

const BESIDE = 18; // pixels between the pointer and the list

export class Chooser {
  /**
   * panel: lies over the paper; taken(offer): one was chosen
   * @param {any} panel
   * @param {(offer: Offer) => void} taken
   */
  constructor(panel, taken) {
    this.panel = panel;
    this.taken = taken;
  }

  /**
   * offers: what lies there; place: of the pointer, in pixels of the paper; words(offer): how it is called
   * @param {Offer[]} offers
   * @param {Place | null} place
   * @param {(offer: Offer) => string} words
   */
  show(offers, place, words) {
    const isShown = offers.length > 0 && place !== null;
    this.panel.hidden = !isShown;
    render(isShown ? this.#list(offers, words) : nothing, this.panel);
    if (isShown) this.#putBeside(place);
  }

  /** @param {Offer[]} offers @param {(offer: Offer) => string} words */
  #list(offers, words) {
    // The order of the list stays while the wheel goes round, so that only the mark moves.
    if (offers.length === 1) return html`<p>${words(offers[0])}</p>`;
    return html`<p>${_("%(n)s lie here", { n: offers.length })}</p>
      ${byDistance(offers).map(
        (offer, place) =>
          html`<button
            type="button"
            tabindex="-1"
            class=${offer === offers[0] ? "first" : ""}
            @click=${() => this.taken(offer)}
          >
            <b>${place + 1}</b> ${words(offer)}
          </button>`,
      )}`;
  }

  /** @param {Place} place */
  #putBeside([x, y]) {
    const { clientWidth: width, clientHeight: height } = this.panel.parentElement;
    const { offsetWidth: own, offsetHeight: high } = this.panel;
    const left = x + BESIDE + own < width ? x + BESIDE : x - BESIDE - own;
    const top = y + BESIDE + high < height ? y + BESIDE : y - BESIDE - high;
    this.panel.style.left = `${Math.max(4, left)}px`;
    this.panel.style.top = `${Math.max(4, top)}px`;
    this.panel.classList.toggle("to-tap", isTouch());
  }
}
