// Handing in: asks once, with the count of moves. The answer fills the blanks of a sentence, or is left to be found.

import { _, ngettext } from "../look/language.js";
import { HASTE } from "./building.js";
import { newKey } from "./saving.js";
import { answering } from "./tools.js";
import { html, nothing, render } from "../vendor/lit-html/lit-html.js";
/** @import { Step } from "../figure/types.js" */
/** @import { Board } from "./board.js" */

const LOST = { error: _("It could not be handed in: there is no connection. Nothing is lost; try again.") };

export class HandingIn {
  /**
   * form: the question; parts: setting, store, hand, bar, saving, show(); closed(): back to the paper; done(result)
   * @param {any} form
   * @param {Board} parts
   * @param {{closed: () => void, done: (result: any) => void}} fields
   */
  constructor(form, parts, { closed, done }) {
    this.form = form;
    this.parts = parts;
    this.closed = closed;
    this.sentence = answering(parts.setting.wanted);
    this.question = form.querySelector(".question");
    this.button = form.querySelector(".btn-main");
    form.querySelector("[data-not-yet]").addEventListener("click", () => this.close());
    /** @type {{words: string, fix: string, steps: Step[]} | null} */
    this.offer = null; // another choice of an intersection, while it is offered
    this.answeredAt = -HASTE;
    this.key = newKey(); // of this hand-in, until its result is here: sent twice, it is handed in once
    this.button.addEventListener("keydown", (/** @type {any} */ event) => {
      // Enter that was meant for the name typed just now hands nothing in.
      if (event.key === "Enter" && performance.now() - this.answeredAt < HASTE) event.preventDefault();
    });
    form.addEventListener("submit", async (/** @type {any} */ event) => {
      event.preventDefault();
      if (!this.#isWhole()) return;
      this.#checking(true);
      const result = (await parts.saving.settled()) ? await this.#send() : LOST;
      this.#checking(false);
      if (result !== LOST) this.key = newKey();
      if (result.error) return this.parts.bar.announce(result.error, true);
      if (result.offer) return this.#propose(result.offer);
      this.close();
      done(result);
    });
  }

  get isOn() {
    return this.parts.hand.tool === this.sentence;
  }

  /**
   * Only the choice of an intersection makes it fail: another one can be taken first, or it is handed in as it is.
   * @param {{words: string, fix: string, steps: Step[]} | null} offer
   */
  #propose(offer) {
    this.offer = offer;
    const panel = this.form.querySelector(".fix-offered");
    panel.hidden = !offer;
    const fix = () => {
      if (!offer) return;
      this.parts.building.remakeAll(offer.steps);
      this.#propose(null);
      this.button.focus();
    };
    render(
      offer
        ? html`<p>${offer.words}</p>
            <button type="button" class="btn btn-main" @click=${fix}>${offer.fix}</button>`
        : nothing,
      panel,
    );
    this.#checking(false);
    panel.querySelector("button")?.focus();
  }

  ask() {
    const { setting, hand, bar, show } = this.parts;
    hand.take(this.sentence);
    bar.clear();
    bar.announce(
      setting.finding
        ? _("Point at it or type its name, or hand in as it is and let it be found by the program.")
        : _("Point at it or type its name."),
    );
    show();
    if (setting.finding) this.button.focus();
    else bar.focus();
  }

  // Open as long as the answer is in hand, and true of the board as it stands.
  show() {
    this.form.hidden = !this.isOn;
    if (!this.isOn) return;
    const { budget } = this.parts.setting;
    const { moves } = this.parts.store;
    const over = budget && moves > budget ? _(", %(n)s over the limit", { n: moves - budget }) : "";
    this.question.textContent = budget
      ? _("Hand in as it is, with %(moves)s of %(budget)s moves%(over)s?", { moves, budget, over })
      : ngettext("Hand in as it is, with %(n)s move?", "Hand in as it is, with %(n)s moves?", moves);
  }

  answered() {
    this.answeredAt = performance.now();
    this.parts.bar.announce(_("Esc empties the blanks."));
    this.button.focus();
  }

  close() {
    const { hand, bar, show } = this.parts;
    if (this.isOn) hand.putDown();
    this.#propose(null);
    bar.clear();
    bar.announce("");
    show();
    this.closed();
  }

  // All of the answer is pointed out, or none of it.
  #isWhole() {
    const { hand, setting, bar } = this.parts;
    if (hand.isFull || (!hand.filled.length && setting.finding)) return true;
    bar.announce(
      setting.finding
        ? _("Fill every blank, or empty them with Esc and let the answer be found by the program.")
        : _("Fill every blank."),
      true,
    );
    bar.focus();
    return false;
  }

  /** @param {boolean} isOn */
  #checking(isOn) {
    this.button.disabled = isOn;
    this.button.textContent = isOn ? _("Checking …") : this.offer ? _("Hand in as it is") : _("Hand in now");
    this.button.classList.toggle("btn-main", !this.offer);
    this.button.classList.toggle("btn-plain", Boolean(this.offer));
  }

  async #send() {
    const body = new FormData(this.form);
    for (const id of this.parts.hand.filled) body.append("answer", id);
    if (this.offer) body.append("as_it_is", "yes");
    body.append("key", this.key);
    this.parts.saving.fill?.(body);
    try {
      const answer = await fetch(this.form.action, { method: "POST", headers: { Accept: "application/json" }, body });
      return answer.redirected ? LOST : await answer.json();
    } catch {
      return LOST;
    }
  }
}
