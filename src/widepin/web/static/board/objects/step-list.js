// The list of steps: the construction as numbered sentences. Pointing at one highlights its object; choosing it offers
// what can be done with it.

import { _, ngettext } from "../../look/language.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
import { repeat } from "../../vendor/lit-html/directives/repeat.js";
import { dressing } from "./dressing.js";
import { sentenceOf } from "../../figure/step-words.js";
import { countOf, isHelper } from "../construction/uses.js";
/** @import { Dress, OnDressing, OnSteps } from "../types.js" */
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Step } from "../../figure/types.js" */
/** @import { Store } from "../construction/store.js" */

export class StepList {
  /**
   * panel: with the list, the count of moves and, where there is a limit, a bar
   * on: highlighted(id or null), chosen(), and what dressing.js asks for
   * @param {any} panel
   * @param {OnSteps} on
   */
  constructor(panel, on) {
    this.list = panel.querySelector("ol");
    this.count = panel.querySelector(".count");
    this.bar = panel.querySelector("progress");
    /** @type {OnSteps & OnDressing} */
    this.on = { ...on, dress: (id, fields) => this.#dress(id, fields, on), ask: (id) => this.#ask(id) };
    /** @type {string | null} */
    this.chosen = null;
    /** @type {Step[]} */
    this.own = [];
    /** @type {string | null} */
    this.asking = null; // the step that is to be removed, while it is asked whether
    this.length = 0; // rows shown last time; a new one is scrolled into view
    this.list.addEventListener("pointerleave", () => on.highlighted(null));
    for (const given of panel.querySelectorAll("[data-given]")) {
      const { given: id } = given.dataset;
      for (const comes of ["pointerenter", "focus"]) given.addEventListener(comes, () => on.highlighted(id));
      for (const goes of ["pointerleave", "blur"]) given.addEventListener(goes, () => on.highlighted(null));
      given.addEventListener("click", () => on.picked(id) || on.opened(id));
    }
  }

  /** @param {string | null} id */
  #ask(id) {
    this.asking = id;
    this.on.chosen();
    this.list.querySelector(".asking button")?.focus();
  }

  /** @param {string} id @param {Dress} fields @param {OnSteps} on */
  #dress(id, fields, on) {
    this.asking = null;
    if (fields.hidden) on.highlighted(null);
    return on.dress(id, fields);
  }

  /**
   * store: the construction; budget: the move limit, if there is one
   * @param {Store} store
   * @param {number | null} budget
   */
  show(store, budget) {
    const { figure, own, moves } = store;
    this.own = own;
    const done = figure.ids.filter((id) => store.start.has(id)).map((id) => figure.step(id));
    render(this.#rows(figure, done), this.list);
    if (own.length > this.length) this.list.lastElementChild.scrollIntoView({ block: "nearest" });
    this.length = own.length;
    this.count.textContent = budget
      ? _("%(moves)s of %(budget)s moves", { moves, budget })
      : ngettext("%(n)s move", "%(n)s moves", moves);
    this.count.classList.toggle("over", Boolean(budget && moves > budget));
    if (this.bar) {
      this.bar.max = budget ?? 1;
      this.bar.value = Math.min(moves, budget ?? 0);
    }
  }

  /** @param {Figure} figure @param {Step[]} done */
  #rows(figure, done) {
    const shown = numbered(this.own, figure.book.makes).filter(({ step }) => !isHelper(step) || !step.hidden);
    return html`${done.map((step) => this.#doneRow(figure, step))}
    ${repeat(
      shown,
      (/** @type {{step: Step}} */ { step }) => step.id,
      (/** @type {{step: Step, number: number}} */ { step, number }) => this.#row(figure, step, number),
    )}
    ${shown.length ? nothing : html`<li class="empty">${_("Nothing is drawn yet. Take a tool.")}</li>`}`;
  }

  /** @param {Figure} figure @param {Step} step */
  #doneRow(figure, step) {
    const highlight = () => this.on.highlighted(step.id);
    const pick = () => this.on.picked(step.id) || this.on.opened(step.id);
    return html`<li class="done-already">
      <button type="button" @pointerenter=${highlight} @focus=${highlight} @click=${pick}>
        <b>${_("done")}</b>${sentence(figure, step)}
      </button>
    </li>`;
  }

  /** @param {Figure} figure @param {Step} step @param {number} number */
  #row(figure, step, number) {
    const isChosen = this.chosen === step.id;
    const highlight = () => this.on.highlighted(step.id);
    const choose = () => {
      if (this.on.picked(step.id)) return;
      this.chosen = this.chosen === step.id ? null : step.id;
      this.on.highlighted(step.id);
      this.on.chosen();
    };
    const looks = [isChosen && "chosen", !figure.isDefined(step.id) && "gone", step.hidden && "is-hidden"];
    return html`<li data-step=${step.id} class=${looks.filter(Boolean).join(" ")}>
      <button
        type="button"
        aria-expanded=${String(isChosen)}
        @pointerenter=${highlight}
        @focus=${highlight}
        @blur=${() => this.on.highlighted(null)}
        @click=${choose}
      >
        <b>${number}</b>${sentence(figure, step)}
      </button>
      ${isChosen ? this.#dressing(figure, step) : nothing}
    </li>`;
  }

  /** @param {Figure} figure @param {Step} step */
  #dressing(figure, step) {
    const last = figure.isDefined(step.id) ? this.on.actions(step.id) : nothing;
    return dressing(figure, this.own, step, this.on, { isAsking: this.asking === step.id, last });
  }
}

/**
 * A step as a sentence that names objects in italics.
 * @param {Figure} figure
 * @param {Step} step
 */
function sentence(figure, step) {
  const parts = sentenceOf(step, figure.book).flatMap((part) => {
    const text = typeof part === "string" ? part : named(figure, part.id);
    return part.joined || `${part}`.startsWith(",") ? [text] : [" ", text];
  });
  const state = [!figure.isDefined(step.id) && _(" (undefined in this position)"), step.hidden && _(" (hidden)")];
  return html`<span>${named(figure, step.id)}:${parts}${state.filter(Boolean)}</span>`;
}

/**
 * Steps with which of all moves each is: 3, or 3–6 for a tool that counts as several, empty for none.
 * @param {Step[]} steps
 * @param {Record<string, any>} makes
 */
export function numbered(steps, makes) {
  let moves = 0;
  return steps.map((step) => {
    const before = moves;
    moves += countOf(step, makes);
    const first = before + 1;
    return { step, number: moves === before ? "" : moves === first ? `${first}` : `${first}–${moves}` };
  });
}

/** @param {Figure} figure @param {string} id */
function named(figure, id) {
  return html`<i>${figure.has(id) ? figure.step(id).label || id : id}</i>`;
}
