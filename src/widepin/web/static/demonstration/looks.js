// How the objects of a frame look: those that are clicked are chosen, and each look has its opposite.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { Hits } from "../figure/hits.js";
import { html, nothing, render } from "../vendor/lit-html/lit-html.js";

const REACH = 14; // pixels

export class Looks {
  /** @type {string[]} */
  #chosen = []; // with Shift several

  /**
   * change(fields): of the frame that is shown
   * @param {any} panel
   * @param {any} show
   * @param {(fields: Record<string, any>) => void} change
   */
  constructor(panel, show, change) {
    this.panel = panel;
    this.show = show;
    this.frames = show.frames;
    this.change = change;
    this.measure = find('[data-act="measure"]', panel);
    this.measure.addEventListener("click", () => this.#measure());
    for (const button of findAll("[data-look]", panel))
      button.addEventListener("click", () => this.#dress(this.#lookOf(button)));
    show.svg.addEventListener("click", (/** @type {any} */ event) => this.#chooseAt(event));
  }

  get chosen() {
    return this.#chosen;
  }

  /**
   * Of what was chosen, that which is still seen.
   * @param {string[]} ids
   */
  chooseAgain(ids) {
    this.#choose(ids.filter((id) => this.frames.figure.has(id) && !this.frames.isHidden(id)));
  }

  clear() {
    this.#choose([]);
  }

  /** @param {{clientX: number, clientY: number, shiftKey: boolean}} fields */
  #chooseAt({ clientX, clientY, shiftKey }) {
    const { figure, view } = this.frames;
    const box = this.show.svg.getBoundingClientRect();
    const hits = new Hits(figure, view, (id) => this.frames.isHidden(id));
    const place = [clientX - box.left, clientY - box.top];
    const [first] = [...hits.points(place, REACH), ...hits.curves(place, REACH)];
    if (!first) return this.#choose([]);
    return this.#choose(shiftKey ? [...this.#chosen.filter((id) => id !== first.id), first.id].slice(-3) : [first.id]);
  }

  /** @param {string[]} ids */
  #choose(ids) {
    this.#chosen = ids;
    find("[data-chosen]", this.panel).textContent = ids.length
      ? _("%(names)s from here on:", { names: ids.join(", ") })
      : _("Click an object of the figure to hide, colour or measure it; with Shift several.");
    for (const button of findAll("[data-look]", this.panel)) {
      button.disabled = ids.length === 0;
      button.setAttribute("aria-pressed", String(ids.length > 0 && ids.every((id) => this.#has(id, button))));
    }
    this.measure.disabled = ids.length === 0 || this.#measurable() === null;
    this.#showHidden();
  }

  // Hidden objects cannot be clicked, so each stands in a list, from which it is shown again.
  #showHidden() {
    const { document: whole, frame, looks } = this.frames;
    const there = [...whole.given, ...whole.steps.slice(0, frame.shown)].map(
      (/** @type {{id: string}} */ { id }) => id,
    );
    const hidden = there.filter((id) => looks.get(id)?.hidden);
    render(
      hidden.length
        ? html`${_("Hidden here:")}
          ${hidden.map(
            (id) =>
              html` <button type="button" class="btn btn-plain" @click=${() => this.#dress({ hidden: false }, [id])}>
                ${_("Show %(name)s", { name: id })}
              </button>`,
          )}`
        : nothing,
      find("[data-hidden-here]", this.panel),
    );
  }

  /** @param {string} id @param {any} button */
  #has(id, button) {
    const [[name, value]] = Object.entries(JSON.parse(button.dataset.look));
    return this.frames.looks.get(id)?.[name] === value;
  }

  /**
   * A look that all of the chosen have is taken away, which its opposite does.
   * @param {any} button
   */
  #lookOf(button) {
    return JSON.parse(button.getAttribute("aria-pressed") === "true" ? button.dataset.opposite : button.dataset.look);
  }

  /** @param {Record<string, any>} look @param {string[]} [ids] */
  #dress(look, ids = this.#chosen) {
    const { frame } = this.frames;
    const dressed = ids.map((id) => [id, { ...frame.dress?.[id], ...look }]);
    this.change({ dress: { ...frame.dress, ...Object.fromEntries(dressed) } });
  }

  // What the chosen objects measure: a segment its length, a circle its radius, two or three points; null for nothing.
  #measurable() {
    const { figure } = this.frames;
    const [first] = this.#chosen;
    if (this.#chosen.length > 1) return this.#chosen.every((id) => figure.isPoint(id)) ? this.#chosen : null;
    if (figure.kind(first) === "circle") return [first];
    const { make, from } = figure.step(first);
    return make === "segment" ? from : null;
  }

  // Measured from here on; once more takes it away again, if it was measured in this frame.
  #measure() {
    const of = this.#measurable();
    const { measures = [] } = this.frames.frame;
    const rest = measures.filter((/** @type {any} */ one) => one.join(" ") !== of.join(" "));
    this.change({ measures: rest.length < measures.length ? rest : [...rest, of] });
  }
}
