// The bench: the instruments of the task as drawn cards, with what is left of their allowance.

import { element } from "../figure/drawing.js";

export class Bench {
  constructor(bench, instruments, onTake) {
    this.cards = instruments.map((instrument, number) => {
      const card = document.createElement("button");
      card.type = "button";
      card.className = instrument.name.length > 22 || instrument.name.split(" ").some((word) => word.length > 11) ? "card-tool long" : "card-tool";
      card.dataset.make = instrument.make;
      const drawing = element("svg", { viewBox: "0 0 26 28", "aria-hidden": "true" });
      drawing.append(...(instrument.drawing?.() ?? [element("path", { d: instrument.icon })]));
      const name = document.createElement("span");
      name.textContent = instrument.name;
      const left = document.createElement("small");
      card.append(drawing, name, left);
      card.title = number < 9 ? `${instrument.name}, key ${number + 1}` : instrument.name;
      card.addEventListener("click", () => onTake(instrument));
      return { card, instrument, left };
    });
    bench.replaceChildren(...this.cards.map(({ card }) => card));
  }

  // used: how often the instrument was used; inHand: the instrument, or null
  show(used, inHand) {
    for (const { card, instrument, left } of this.cards) {
      const rest = instrument.most === null ? null : Math.max(0, instrument.most - used(instrument));
      left.textContent = rest === null ? instrument.costs ?? "" : `${rest} left`;
      card.disabled = rest === 0;
      card.classList.toggle("in-hand", instrument.make === inHand?.make);
      card.setAttribute("aria-pressed", String(instrument.make === inHand?.make));
    }
  }
}
