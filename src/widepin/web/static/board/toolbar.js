// The toolbar: the tools of the task as drawn cards, with what is left of their allowance.

import { _ } from "../look/language.js";
import { element } from "../figure/drawing.js";
import { GROUPS } from "./tools.js";

export class Toolbar {
  constructor(toolbar, tools, onTake) {
    this.cards = tools.map((tool, number) => {
      const card = document.createElement("button");
      card.type = "button";
      card.className =
        tool.name.length > 22 || tool.name.split(" ").some((word) => word.length > 11) ? "card-tool long" : "card-tool";
      card.dataset.make = tool.make;
      const drawing = element("svg", { viewBox: "0 0 26 28", "aria-hidden": "true" });
      drawing.append(...(tool.drawing?.() ?? [element("path", { d: tool.icon })]));
      const name = document.createElement("span");
      name.textContent = tool.name;
      const left = document.createElement("small");
      card.append(drawing, name, left);
      card.title = number < 9 ? _("%(name)s, key %(key)s", { name: tool.name, key: number + 1 }) : tool.name;
      card.addEventListener("click", () => onTake(tool));
      return { card, tool, left };
    });
    toolbar.replaceChildren(...GROUPS.map((one) => this.#group(one)).filter(Boolean));
  }

  // The cards of one group under its name; nothing where the task allows none of them.
  #group({ group, name }) {
    const cards = this.cards.filter(({ tool }) => tool.group === group).map(({ card }) => card);
    if (!cards.length) return null;
    const box = document.createElement("div");
    box.className = "tool-group";
    box.dataset.group = group;
    box.style.setProperty("--cards", String(cards.length));
    box.setAttribute("role", "group");
    box.setAttribute("aria-label", name);
    box.append(...cards);
    return box;
  }

  // used: how often the tool was used; inHand: the tool, or null
  show(used, inHand) {
    for (const { card, tool, left } of this.cards) {
      const rest = tool.most === null ? null : Math.max(0, tool.most - used(tool));
      left.textContent = rest === null ? (tool.costs ?? "") : _("%(rest)s left", { rest });
      card.disabled = rest === 0;
      card.classList.toggle("in-hand", tool.make === inHand?.make);
      card.setAttribute("aria-pressed", String(tool.make === inHand?.make));
    }
  }
}
