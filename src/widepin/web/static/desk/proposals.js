// Conditions that are proposed from the sample solution: those of the answer are taken, what else is true stands beside.

import { _ } from "../look/language.js";
import { post } from "../look/page.js";
import { Conditions } from "./conditions.js";
import { plainButton } from "./plain-button.js";
/** @import { Condition, Relation, Wanted } from "../figure/types.js" */

export class Proposals {
  /**
   * panel: with a list of what else could be asked for; relations: of the tool book
   * task: {names(), conditions(), take(conditions)}, what stands on the page and may stand there
   * @param {any} panel
   * @param {Record<string, Relation>} relations
   * @param {any} task
   */
  constructor(panel, relations, task) {
    this.panel = panel;
    this.relations = relations;
    this.task = task;
  }

  /**
   * Resolves to what went wrong in words, or to nothing. wanted: names of the answer
   * @param {string} url
   * @param {Wanted[]} wanted
   */
  async ask(url, wanted) {
    let found;
    try {
      found = await (await post(url, { wanted })).json();
    } catch {
      return _("There is no connection. Nothing is lost; try again.");
    }
    if (found.error) return found.error;
    this.task.take(found.strict);
    this.panel.hidden = found.others.length === 0;
    this.panel
      .querySelector("ul")
      .replaceChildren(...found.others.map((/** @type {Condition} */ condition) => this.#other(condition)));
    return "";
  }

  /**
   * Asked for with one click, instead of being the same as in the sample solution.
   * @param {Condition} condition
   */
  #other(condition) {
    const item = document.createElement("li");
    const about = new Set(condition.of.flat());
    const take = () => {
      const rest = this.task
        .conditions()
        .filter(
          (/** @type {{rel: string, of: any}} */ { rel, of }) =>
            !(rel === "same" && about.has(of[0]) && of[1] === `model:${of[0]}`),
        );
      this.task.take([...rest, condition]);
      item.remove();
    };
    item.append(plainButton(_("Use instead: %(words)s", { words: this.#inWords(condition) }), take));
    return item;
  }

  /** @param {Condition} condition */
  #inWords(condition) {
    const shown = new Conditions(this.relations, document.createElement("ol"), this.task.names, () => {});
    shown.show([condition]);
    return [...shown.list.firstElementChild.childNodes]
      .filter((part) => !(part instanceof HTMLButtonElement))
      .map((part) => part.value ?? part.textContent)
      .join("");
  }
}
