// The menu of an object, on the paper beside it: what it is, what else lies there, and what can be done with it.

import { _ } from "../../look/language.js";
import { described } from "../../figure/step-words.js";
import { labelOf } from "../../figure/outlines.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
import { dressing } from "./dressing.js";
/** @import { Board } from "../board.js" */
/** @import { Dress, OnDressing, OnObjects } from "../types.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Place } from "../../figure/types.js" */
/** @import { Store } from "../construction/store.js" */

const BESIDE = 22; // pixels between the place that was pointed at and the menu

export class ObjectMenu {
  /** @type {string | null} */
  id = null; // of the object, while its menu is open
  /** @type {string[]} */
  #others = []; // what else lies there
  /** @type {Place | null} */
  #place = null; // that was pointed at, in pixels of the paper
  #isAsking = false; // whether what hangs on it may be removed

  /**
   * panel: lies over the paper; parts: store, pointed, setting; on: what dressing.js asks for; dressed(id, fields), closed(); first(id) and last(id): what stands before and after that; isTold(id): whether the last stands alone, so that the figure is
   * seen
   * @param {any} panel
   * @param {Board} parts
   * @param {OnObjects} on
   */
  constructor(panel, parts, on) {
    this.panel = panel;
    this.parts = parts;
    /** @type {OnObjects & OnDressing} */
    this.on = { ...on, dress: (id, fields) => this.#dress(id, fields), ask: (id) => this.#ask(id) };
    panel.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
      if (event.key === "Escape" && this.isOpen) this.close();
    });
  }

  get isOpen() {
    return this.id !== null;
  }

  /**
   * ids: what lies there, the one that is meant first
   * @param {string[]} ids
   * @param {Place} place
   */
  open([id, ...others], place) {
    Object.assign(this, { id });
    this.#others = others;
    this.#place = place;
    this.#isAsking = false;
    this.parts.pointed.at({ highlighted: id });
    this.show();
  }

  // With the keyboard: the name is written anew, or the first button has the focus.
  focus(isRenaming = false) {
    const field = this.panel.querySelector("input");
    const target = (isRenaming && field) || this.panel.querySelector("button:not(.close-menu)");
    target?.focus();
    if (target === field) field?.select();
  }

  // Asks to remove the object, where others hang on it.
  askToRemove() {
    this.panel.querySelector("[data-remove]")?.click();
  }

  close() {
    if (!this.isOpen) return;
    this.id = null;
    this.on.closed();
    this.parts.pointed.at({ highlighted: null, trial: null });
    this.show();
  }

  show() {
    const { figure } = this.parts.store;
    if (this.id !== null && !figure.has(this.id)) this.id = null;
    this.panel.hidden = !this.isOpen;
    render(this.id !== null ? this.#content(figure, this.id) : nothing, this.panel);
    if (this.isOpen && this.#place) this.#putBeside(this.#place);
  }

  /** @param {Figure} figure @param {string} id */
  #content(figure, id) {
    const { store } = this.parts;
    const step = figure.step(id);
    const others = this.#others.filter((one) => figure.has(one));
    return html`<header>
        <p>${whatItIs(store, id)}</p>
        <button type="button" class="close-menu" aria-label=${_("Close")} @click=${() => this.close()}>×</button>
      </header>
      ${
        others.length
          ? html`<p class="also-here">
              ${_("Also here:")}
              ${others.map((one) => html`<button type="button" @click=${() => this.#turnTo(one)}>${labelOf(figure, one)}</button>`)}
            </p>`
          : nothing
      }
      ${
        this.on.isTold(id)
          ? html`<div class="dressing">${this.on.last(id)}</div>`
          : dressing(figure, store.own, step, this.on, {
              isAsking: this.#isAsking,
              isOwn: store.isOwn(id),
              first: this.on.first(id),
              last: this.on.last(id),
            })
      }`;
  }

  /** @param {string} id */
  #turnTo(id) {
    const others = [this.id, ...this.#others].filter((one) => one !== null && one !== id);
    this.open([id, .../** @type {string[]} */ (others)], this.#place ?? this.parts.paper.middle);
    this.focus();
  }

  /** @param {string} id @param {Dress} fields */
  #dress(id, fields) {
    this.#isAsking = false;
    if (fields.hidden) this.close();
    return this.on.dressed(id, fields);
  }

  /** @param {string | null} id */
  #ask(id) {
    this.#isAsking = id !== null;
    this.show();
    this.panel.querySelector(".asking button")?.focus();
  }

  /**
   * Beside the place, wherever there is room for it.
   * @param {Place} place
   */
  #putBeside([x, y]) {
    const { clientWidth: width, clientHeight: height } = this.panel.parentElement;
    const { offsetWidth: own, offsetHeight: high } = this.panel;
    const left = x + BESIDE + own < width ? x + BESIDE : x - BESIDE - own;
    this.panel.style.left = `${Math.max(4, Math.min(left, width - own - 4))}px`;
    this.panel.style.top = `${Math.max(4, Math.min(y - BESIDE, height - high - 4))}px`;
  }
}

/**
 * An object in words; of what is given it is said.
 * @param {Pick<Store, "figure" | "given">} store
 * @param {string} id
 */
export function whatItIs({ figure, given }, id) {
  if (!given.has(id)) return described(figure, id);
  if (figure.step(id).make === "free_point") return _("%(name)s: given point", { name: labelOf(figure, id) });
  return _("%(object)s, given", { object: described(figure, id) });
}
