// The toolbar: the tools of the task as drawn cards, with what is left of their allowance.

import { _ } from "../../look/language.js";
import { element } from "../../figure/element.js";
import { GROUPS } from "../construction/tools.js";
/** @import { Tool } from "../types.js" */

const WIDEST = 92; // pixels of a card
const FEW = 5; // tools that have room for their names in one row of a phone

export class Toolbar {
  /** @param {any} toolbar @param {Tool[]} tools @param {(tool: Tool) => void} onTake */
  constructor(toolbar, tools, onTake) {
    this.cards = tools.map((tool, number) => {
      const { name = tool.make } = tool;
      const card = document.createElement("button");
      card.type = "button";
      card.tabIndex = number ? -1 : 0;
      card.className =
        name.length > 22 || name.split(" ").some((word) => word.length > 11) ? "card-tool long" : "card-tool";
      card.dataset.make = tool.make;
      const drawing = element("svg", { viewBox: "0 0 26 28", "aria-hidden": "true" });
      drawing.append(...(tool.drawing?.() ?? [element("path", { d: tool.icon })]));
      const label = document.createElement("span");
      label.textContent = name;
      const left = document.createElement("small");
      card.append(drawing, label, left);
      card.title = number < 9 ? _("%(name)s, key %(key)s", { name, key: number + 1 }) : name;
      card.addEventListener("click", () => onTake(tool));
      return { card, tool, left };
    });
    toolbar.classList.toggle("many", tools.length > FEW);
    toolbar.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => this.#walk(event));
    toolbar.addEventListener("focusin", (/** @type {{target: any}} */ { target }) => this.#stopAt(target));
    toolbar.replaceChildren(...GROUPS.flatMap((one) => this.#group(one) ?? []));
  }

  /**
   * The cards of one group under its name; nothing where the task allows none of them.
   * @param {{group: string, name: string}} fields
   */
  #group({ group, name }) {
    const cards = this.cards.filter(({ tool }) => tool.group === group).map(({ card }) => card);
    if (!cards.length) return null;
    const box = document.createElement("div");
    box.className = "tool-group";
    box.dataset.group = group;
    if (group !== "measure") {
      box.style.flexGrow = String(cards.length);
      box.style.maxWidth = `${cards.length * WIDEST}px`;
    }
    box.setAttribute("role", "group");
    box.setAttribute("aria-label", name);
    box.append(...cards);
    return box;
  }

  /**
   * Tab stops at the toolbar once; arrow keys go from tool to tool.
   * @param {KeyboardEvent} event
   */
  #walk(event) {
    const cards = this.cards.map(({ card }) => card).filter((card) => !card.disabled);
    const at = cards.findIndex((card) => card === document.activeElement);
    /** @type {Record<string, number>} */
    const ways = { ArrowRight: at + 1, ArrowDown: at + 1, ArrowLeft: at - 1, ArrowUp: at - 1, Home: 0, End: -1 };
    const to = ways[event.key];
    if (at < 0 || to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    cards.at(to % cards.length)?.focus();
  }

  /** @param {any} target */
  #stopAt(target) {
    for (const { card } of this.cards) card.tabIndex = card === target ? 0 : -1;
  }

  // The tool that was last there, or the first.
  focus() {
    (this.cards.find(({ card }) => card.tabIndex === 0 && !card.disabled) ?? this.cards[0]).card.focus();
  }

  /**
   * used: how often the tool was used; inHand: the tool, or null
   * @param {(tool: Tool) => number} used
   * @param {Tool | null} inHand
   */
  show(used, inHand) {
    for (const { card, tool, left } of this.cards) {
      const rest = (tool.most ?? null) === null ? null : Math.max(0, Number(tool.most) - used(tool));
      left.textContent = rest === null ? (tool.costs ?? "") : _("%(rest)s left", { rest });
      card.disabled = rest === 0;
      card.classList.toggle("in-hand", tool.make === inHand?.make);
      card.setAttribute("aria-pressed", String(tool.make === inHand?.make));
    }
  }
}
