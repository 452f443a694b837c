// Handing in: asks once, with the count of moves. The answer fills the blanks of a sentence, or is left to be found.

import { _, ngettext } from "../../look/language.js";
import { HASTE } from "../tools/building.js";
import { newKey, signInAgain, SIGNED_OUT } from "../construction/saving.js";
import { post, renewToken } from "../../look/page.js";
import { answering } from "../construction/tools.js";
import { byHand } from "../../look/touch.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
/** @import { Step } from "../../figure/types.js" */
/** @import { Board } from "../board.js" */

const NO_CONNECTION = _("there is no connection");

/**
 * @param {string} why
 * @param {string | null} [signIn]  where to sign in again
 */
function notHandedIn(why, signIn = null) {
  const error = _("It could not be handed in: %(why)s. Nothing is lost; try again.", { why: why.replace(/\.$/, "") });
  return { error, signIn, isLost: true };
}

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
      const result = (await parts.saving.settled()) ? await this.#send() : this.#notSaved();
      this.#checking(false);
      if (!result.isLost) this.key = newKey();
      if (result.error) return this.parts.bar.announce(result.error, true, toSignIn(result.signIn));
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
    hand.fillAll(setting.wanted.map((one) => this.#named(one)));
    bar.clear();
    bar.announce(this.#howToAnswer());
    show();
    if (setting.finding || hand.isFull) this.button.focus();
    else bar.focus();
  }

  #howToAnswer() {
    const { setting, hand } = this.parts;
    if (hand.isFull) return _("It is pointed out by its name. Point at another object to change it.");
    const how = byHand(_("Point at it or type its name."), _("Tap it."));
    return setting.finding ? _("%(how)s Or hand in as it is: the program looks for it.", { how }) : how;
  }

  /**
   * The object to which the student has given the name of what is asked for; null where there is none.
   * @param {import("../../figure/types.js").Wanted} wanted
   */
  #named({ name, kinds = [] }) {
    const { figure, own } = this.parts.store;
    return own.find(({ id, label }) => label === name && kinds.includes(figure.kind(id)))?.id ?? null;
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
    this.parts.bar.announce(_("Point at another object to change it."));
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
    if (hand.isFull || (hand.isEmpty && setting.finding)) return true;
    bar.announce(
      setting.finding
        ? _("Fill every blank, or empty all of them: then the program looks for the answer.")
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

  #notSaved() {
    const { why, signIn } = this.parts.saving.trouble ?? { why: NO_CONNECTION, signIn: null };
    return notHandedIn(why, signIn);
  }

  /** @returns {Promise<any>} */
  async #send() {
    const body = new FormData(this.form);
    for (const id of this.parts.hand.filled) body.append("answer", id);
    if (this.offer) body.append("as_it_is", "yes");
    body.append("key", this.key);
    this.parts.saving.fill?.(body);
    body.delete("csrf_token"); // the page's own, which is renewed, goes along
    const answer = await post(this.form.action, body).catch(() => null);
    const said = await answer?.json().catch(() => null);
    if (!answer) return notHandedIn(NO_CONNECTION);
    if (answer.status === 401) return notHandedIn(SIGNED_OUT, signInAgain(said.sign_in));
    if (answer.redirected) return notHandedIn(SIGNED_OUT, signInAgain(new URL(answer.url).pathname));
    if (said?.expired && (await renewToken())) return this.#send();
    return said ?? notHandedIn(_("the server does not answer"));
  }
}

/**
 * The button that leads to signing in again.
 * @param {string | null | undefined} address
 */
function toSignIn(address) {
  return address ? { words: _("Sign in"), run: () => location.assign(address) } : null;
}
