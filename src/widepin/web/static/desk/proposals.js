// Conditions that are suggested from the sample solution, each as students will read it, to choose from.

import { _ } from "../look/language.js";
import { post } from "../look/page.js";
import { html, nothing, render } from "../vendor/lit-html/lit-html.js";
/** @import { Condition } from "../figure/types.js" */

/**
 * What the server suggests. pins: whether it alone holds the answer fast.
 * @typedef {{conditions: Condition[], words: string[], pins: boolean}} Suggestion
 */

export class Proposals {
  /** @type {Suggestion[]} */
  #all = [];

  /**
   * panel: where they stand; task: {conditions(), take(conditions)}, what stands on the page
   * @param {any} panel
   * @param {{conditions: () => Condition[], take: (conditions: Condition[]) => void}} task
   */
  constructor(panel, task) {
    this.panel = panel;
    this.task = task;
  }

  /**
   * Resolves to what went wrong in words, or to nothing. wanted: names of the answer
   * @param {string} url
   * @param {string[]} wanted
   */
  async ask(url, wanted) {
    let found;
    try {
      found = await (await post(url, { wanted })).json();
    } catch {
      return _("There is no connection. Nothing is lost; try again.");
    }
    if (found.error) return found.error;
    this.#all = found.suggestions;
    this.show();
    this.panel.querySelector("button")?.focus();
    return "";
  }

  // To be called when the conditions of the task have changed: what is asked for already is not to be added.
  show() {
    this.panel.hidden = this.#all.length === 0;
    render(this.#all.length ? this.#list() : nothing, this.panel);
  }

  hide() {
    this.#all = [];
    this.show();
  }

  #list() {
    return html`<p>${_("True of the sample solution, however the figure is dragged. Students read just this:")}</p>
      <ul>
        ${this.#all.map((one) => this.#row(one))}
      </ul>`;
  }

  /** @param {Suggestion} one */
  #row(one) {
    const there = new Set(this.task.conditions().map((condition) => JSON.stringify(condition)));
    const missing = one.conditions.filter((condition) => !there.has(JSON.stringify(condition)));
    const add = () => {
      this.task.take([...this.task.conditions(), ...missing]);
      this.show();
    };
    return html`<li>
      <button type="button" class="btn btn-plain" ?disabled=${missing.length === 0} @click=${add}>
        ${missing.length ? _("Use") : _("used")}
      </button>
      <span>${one.words.join("; ")}</span>
      <small class=${one.pins ? "good" : ""}>
        ${one.pins ? _("says all by itself") : _("leaves something open by itself")}
      </small>
    </li>`;
  }
}
