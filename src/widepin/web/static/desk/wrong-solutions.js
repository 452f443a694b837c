// Solutions of a task that must be rejected, as pictures: whether they are, and removing one.

import { _ } from "../look/language.js";
import { post } from "../look/page.js";
import { Picture } from "../figure/picture.js";
import { html, nothing, render } from "../vendor/lit-html/lit-html.js";
/** @import { ToolBook } from "../figure/tape.js" */

export class WrongSolutions {
  /** @type {{steps: any[], remove: string}[]} */
  #kept = [];
  /** @type {{words: string, is_well: boolean}[]} */
  #outcomes = []; // as the last check found them
  #trouble = "";

  /**
   * url: where one is kept; given(): the given figure; changed(): one was added or removed
   * @param {any} holder
   * @param {ToolBook} book
   * @param {{url: () => string, given: () => any[], changed: () => void}} page
   */
  constructor(holder, book, page) {
    this.holder = holder;
    this.book = book;
    this.page = page;
  }

  /** @param {{steps: any[], remove: string}[]} kept */
  show(kept) {
    this.#kept = kept;
    this.#render();
  }

  /** @param {{words: string, is_well: boolean}[]} outcomes */
  showOutcomes(outcomes) {
    this.#outcomes = outcomes;
    this.#render();
  }

  /** @param {any[]} steps */
  async keep(steps) {
    await this.#change(this.page.url(), { steps });
  }

  /** @param {string} url @param {any} [body] */
  async #change(url, body) {
    const answer = await post(url, body).catch(() => null);
    const said = await answer?.json().catch(() => null);
    this.#trouble = said?.wrong ? "" : (said?.error ?? _("There is no connection. Nothing is lost; try again."));
    if (said?.wrong) {
      this.#outcomes = [];
      this.#kept = said.wrong;
    }
    this.#render();
    if (said?.wrong) this.page.changed();
  }

  #render() {
    render(
      html`${this.#kept.map((one, place) => this.#card(one, this.#outcomes[place], place + 1))}
      ${this.#kept.length ? nothing : html`<p class="quiet-note">${_("None is kept yet.")}</p>`}
      ${this.#trouble ? html`<p class="trouble" role="alert">${this.#trouble}</p>` : nothing}`,
      this.holder,
    );
    this.holder.querySelectorAll("svg").forEach((/** @type {any} */ svg, /** @type {number} */ place) => {
      svg.replaceChildren();
      const { steps } = this.#kept[place];
      new Picture(this.book, { given: this.page.given(), start: [], steps, answer: [] }, svg, false).paint();
    });
  }

  /**
   * @param {{steps: any[], remove: string}} kept
   * @param {{words: string, is_well: boolean} | undefined} outcome
   * @param {number} number
   */
  #card(kept, outcome, number) {
    const name = _("Wrong solution %(n)s", { n: number });
    const remove = () => confirm(_("Remove this wrong solution?")) && this.#change(kept.remove);
    return html`<div class="work-card ${outcome && !outcome.is_well ? "passes" : ""}">
      <div class="picture"><svg role="img" aria-label=${name}></svg></div>
      <small>${name}${outcome ? html`: <b>${outcome.words}</b>` : nothing}</small>
      <button type="button" class="btn btn-plain" @click=${remove}>${_("Remove")}</button>
    </div>`;
  }
}
