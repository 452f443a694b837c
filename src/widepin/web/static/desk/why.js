// Why it is true: the lines of a proof beside the figure. A line that is pointed at, or reached by arrow keys, lights up what
// it is about and the lines that it rests on. Line by line, or played, the construction grows along with them.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { fetched, showCards, whatWentWrong } from "./reason-cards.js";

const PACE = 2600; // milliseconds a line, or a step of the construction

class Why {
  /** @type {number | null} */
  #playing = null;
  #current = 0; // the line that is shown, from 1

  /** @param {any} panel @param {any} holder */
  constructor(panel, holder) {
    this.panel = panel;
    this.holder = holder;
    this.opener = find("[data-why-open]", panel);
    this.said = find("[data-why-said]", panel);
    this.list = find("ol", panel);
    this.player = find("[data-why-play]", panel);
    this.opener.addEventListener("click", () => this.#open());
    this.player.addEventListener("click", () => (this.#playing ? this.#stop() : this.#play()));
    find("[data-why-before]", panel).addEventListener("click", () => this.#turn(-1));
    find("[data-why-next]", panel).addEventListener("click", () => this.#turn(1));
    this.list.addEventListener("keydown", (/** @type {any} */ event) => this.#press(event));
  }

  async #open() {
    this.opener.disabled = true;
    this.said.textContent = _("Looking for a proof …");
    let answer;
    try {
      const got = await fetched(this.panel.dataset.why, { headers: { Accept: "application/json" } });
      answer = await got.json();
    } catch (error) {
      this.said.textContent = whatWentWrong(error);
      this.opener.disabled = false;
      return;
    }
    this.said.textContent = answer.said ?? "";
    if (!answer.lines?.length) return;
    this.lines = answer.lines;
    const rows = answer.lines.map((/** @type {any} */ line, /** @type {number} */ place) =>
      this.#row(line, answer.lines[place - 1]?.case ?? ""),
    );
    this.list.replaceChildren(...rows);
    for (const part of [this.list, ...findAll("[data-why-turn]", this.panel)]) part.hidden = false;
    this.opener.hidden = true;
    this.list.firstElementChild.focus();
  }

  /**
   * before: the case of the line before it.
   * @param {any} line
   * @param {any} before
   */
  #row(line, before) {
    const row = document.createElement("li");
    row.tabIndex = -1;
    /** @param {string} name @param {string} textContent */
    const part = (name, textContent) => row.append(Object.assign(document.createElement(name), { textContent }), " ");
    if (line.case !== before) part("i", line.case);
    part("b", line.words);
    part("span", line.reason);
    row.append(this.#opensCard(line), " ");
    if (line.elements) part("small", _("Elements %(place)s", { place: line.elements }));
    row.classList.toggle("reached", line.condition !== null);
    const show = () => this.#playing || this.#show(line.n);
    row.addEventListener("pointermove", ({ movementX, movementY }) => {
      const isMoved = movementX || movementY; // a line that comes to lie under a pointer at rest is not pointed at
      if (isMoved && this.#current !== line.n) show();
    });
    row.addEventListener("focus", show);
    return row;
  }

  /**
   * A button that shows what the reason of a line says, with its figure.
   * @param {{card: string, words: string}} line
   */
  #opensCard({ card, words }) {
    const label = _("What does the reason of “%(line)s” say?", { line: words });
    const button = Object.assign(document.createElement("button"), {
      type: "button",
      className: "explain",
      textContent: "?",
    });
    button.setAttribute("aria-label", label);
    button.addEventListener("click", () =>
      showCards(find("dialog.reason", this.panel), [`${this.panel.dataset.cards}/${card}`]),
    );
    return button;
  }

  /**
   * Light up a line: its objects on the figure, and the lines that it rests on.
   * @param {number} number
   */
  #show(number) {
    const line = this.lines[number - 1];
    for (const [place, row] of [...this.list.children].entries()) {
      row.classList.toggle("shown", place + 1 === number);
      row.classList.toggle("rests-on", line.because.includes(place + 1));
      row.tabIndex = place + 1 === number ? 0 : -1;
    }
    this.#current = number;
    this.list.children[number - 1].scrollIntoView({ block: "nearest" });
    this.holder.picture?.tell([...line.objects, ...line.steps], line);
  }

  /**
   * The line before or after, with as much of the construction as it needs.
   * @param {number} way
   */
  #turn(way) {
    this.#stop();
    const number = Math.max(1, Math.min(this.lines.length, this.#current + way));
    this.holder.stepPlayer?.show(
      Math.max(...this.lines.slice(0, number).map((/** @type {{after: number}} */ { after }) => after)),
    );
    this.#show(number);
  }

  /** @param {KeyboardEvent & {target: any}} event */
  #press(event) {
    const way = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    this.#stop();
    const next = Math.max(1, Math.min(this.lines.length, this.#current + way));
    this.list.children[next - 1].focus();
    this.#show(next); // it may have had the focus already, while another was pointed at
  }

  // Step by step, with the lines that become true with each.
  #play() {
    const steps = this.holder.picture?.data.steps.length ?? 0;
    /** @type {(() => void)[]} */
    const acts = [];
    for (let shown = 0; shown <= steps; shown++) {
      acts.push(() => this.#build(shown));
      for (const { n, after } of this.lines) if (after === shown) acts.push(() => this.#show(n));
    }
    const go = () => {
      acts.shift()?.();
      if (!acts.length) this.#stop();
    };
    this.player.textContent = _("Stop");
    this.#playing = setInterval(go, PACE);
    go();
  }

  /** @param {number} shown */
  #build(shown) {
    this.holder.stepPlayer?.show(shown);
    this.holder.picture?.tell([]);
  }

  #stop() {
    if (!this.#playing) return;
    clearInterval(this.#playing);
    this.#playing = null;
    this.player.textContent = _("Play with the construction");
  }
}

for (const panel of findAll("[data-why]")) new Why(panel, find(panel.dataset.of));
// Who comes from the result to ask why sees the proof at once.
if (location.hash === "#why-title") find("[data-why-open]")?.click();
