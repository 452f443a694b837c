// The steps of making a task: one is shown at a time, beside the figure, and each says what it still lacks.

import { _ } from "../look/language.js";

export class MakingSteps {
  /**
   * lacks(): what each step still lacks, by its name; "" where nothing is missing
   * @param {any} page
   * @param {string} key
   * @param {() => Record<string, string | null>} lacks
   */
  constructor(page, key, lacks) {
    this.page = page;
    this.key = `widepin-making-step-${key}`;
    this.lacks = lacks;
    this.buttons = [...page.querySelectorAll("[data-to-step]")];
    this.panels = new Map([...page.querySelectorAll("[data-step]")].map((panel) => [panel.dataset.step, panel]));
    this.names = [...this.panels.keys()];
    this.back = page.querySelector("[data-step-back]");
    this.on = page.querySelector("[data-step-on]");
    for (const button of this.buttons) button.addEventListener("click", () => this.go(button.dataset.toStep));
    this.back.addEventListener("click", () => this.#goBy(-1));
    this.on.addEventListener("click", () => this.#goBy(1));
    const known = sessionStorage.getItem(this.key);
    this.current = this.panels.has(known) ? known : this.names[0];
    this.refresh();
  }

  /** @param {number} way */
  #goBy(way) {
    this.go(this.names[this.names.indexOf(this.current) + way]);
    const heading = this.panels.get(this.current).querySelector("h2");
    heading.tabIndex = -1;
    heading.focus();
  }

  /** @param {string} name */
  go(name) {
    this.current = name;
    sessionStorage.setItem(this.key, name);
    this.refresh();
  }

  refresh() {
    const lacks = this.lacks();
    for (const [name, panel] of this.panels) panel.hidden = name !== this.current;
    for (const button of this.buttons) {
      const name = button.dataset.toStep;
      button.toggleAttribute("aria-current", false);
      if (name === this.current) button.setAttribute("aria-current", "step");
      button.classList.toggle("done", lacks[name] === "");
      button.querySelector("[data-lacks]").textContent = lacks[name] || (lacks[name] === "" ? _("done") : "");
    }
    const at = this.names.indexOf(this.current);
    this.back.disabled = at === 0;
    const next = this.buttons[at + 1];
    this.on.hidden = !next;
    if (next) this.on.textContent = _("Next: %(step)s", { step: next.querySelector("span").textContent });
  }
}
