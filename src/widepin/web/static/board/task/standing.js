// How the task stands, beside the board: when it is due, attempts left, the comments on the last attempt and an answer to
// them; and that there is a new version of it.

import { _, ngettext } from "../../look/language.js";
import { inWords } from "../../look/times.js";
import { post } from "../../look/page.js";
import { newKey } from "../construction/saving.js";
import { html, nothing, render } from "../../vendor/lit-html/lit-html.js";
/** @import { SentenceBar } from "../tools/sentence-bar.js" */

export class Standing {
  #closed = ""; // why nothing can be done at this board any more
  /** @type {string | null} */
  #signIn = null; // where to sign in again, if that is what is missing
  #failed = ""; // why the last answer was not taken
  #key = newKey(); // of the next answer

  /**
   * panel: where it stands; standing: as the page came; now(): ask the server anew
   * @param {any} panel
   * @param {any} standing
   * @param {{bar: SentenceBar, now: () => void}} fields
   */
  constructor(panel, standing, { bar, now }) {
    this.panel = panel;
    this.opened = standing.version;
    /** @type {string[]} */
    this.tools = standing.class_tools;
    this.seen = standing.comments.length;
    this.bar = bar;
    this.now = now;
    this.standing = standing;
    this.#render();
  }

  // Why nothing can be handed in, null where it can.
  get notTaken() {
    return this.#closed || this.standing.not_taken || null;
  }

  /** @param {string} words @param {string | null} signIn */
  close(words, signIn) {
    if (this.#closed !== words) this.bar.announce(words, true);
    this.#closed = words;
    this.#signIn = signIn;
    this.#render();
  }

  /** @param {any} standing */
  show(standing) {
    this.#closed = "";
    const before = this.standing.not_taken;
    if (standing.not_taken && standing.not_taken !== before) this.bar.announce(standing.not_taken, true);
    const fresh = standing.comments.slice(this.seen).filter((/** @type {any} */ one) => !one.is_own);
    this.seen = standing.comments.length;
    if (fresh.length) this.bar.announce(_("%(name)s has commented on your last attempt.", { name: fresh[0].by }));
    this.standing = standing;
    this.#render();
  }

  #render() {
    const { due, is_over: isOver, attempts_left: left, comments, version } = this.standing;
    const { is_closed: isClosed, is_late: isLate } = this.standing;
    const over = isClosed ? _("closed on %(at)s", { at: inWords(due) }) : _("was due %(at)s", { at: inWords(due) });
    const when = due && (isOver ? over : _("due %(at)s", { at: inWords(due) }));
    const attempts = left === null ? null : ngettext("%(n)s attempt left", "%(n)s attempts left", left);
    const late = isLate ? _("your last attempt was handed in late") : null;
    const said = [when, late, attempts].filter(Boolean).join(" · ");
    render(
      html`${version === this.opened ? nothing : newVersion(this.#taken())} ${this.#closed ? this.#isClosed() : nothing}
      ${said ? html`<p class="terms ${isOver || left === 0 ? "over" : ""}">${said}</p>` : nothing}
      ${comments.length ? this.#comments(comments) : nothing}`,
      this.panel,
    );
  }

  // Class tools that were there when the board was opened, and may not be used any more.
  #taken() {
    return this.tools.filter((name) => !this.standing.class_tools.includes(name));
  }

  #isClosed() {
    const signIn = this.#signIn && html` <a class="btn btn-main" href=${this.#signIn}>${_("Sign in")}</a>`;
    return html`<p class="terms over">${this.#closed}${signIn ?? nothing}</p>`;
  }

  /** @param {any[]} comments */
  #comments(comments) {
    return html`<details class="said" ?open=${comments.some((one) => !one.is_own)}>
      <summary>${ngettext("%(n)s comment", "%(n)s comments", comments.length)}</summary>
      ${comments.map(
        ({ by, step, text, is_own: isOwn }) =>
          html`<p><b>${isOwn ? _("You") : by}</b>${step ? html` ${_("on")} <i>${step}</i>` : nothing}: ${text}</p>`,
      )}
      <form @submit=${(/** @type {any} */ event) => this.#reply(event)}>
        <textarea name="text" rows="2" maxlength="1000" required aria-label=${_("Your answer")}></textarea>
        <p class="trouble" role="alert">${this.#failed}</p>
        <button class="btn btn-plain">${_("Answer")}</button>
      </form>
    </details>`;
  }

  /** @param {SubmitEvent & {target: any}} event */
  async #reply(event) {
    event.preventDefault();
    const form = event.target;
    const body = new FormData(form);
    body.append("key", this.#key); // an answer that did not come leaves it as it is, so that it is not written twice
    const answer = await post(this.standing.comment_url, body).catch(() => null);
    const said = await answer?.json().catch(() => null);
    this.#failed = answer?.ok ? "" : (said?.error ?? _("There is no connection; what you typed is still here."));
    if (answer?.ok) {
      this.#key = newKey();
      form.reset();
      this.now();
    }
    this.#render();
  }
}

/** @param {string[]} taken */
function newVersion(taken) {
  return html`<p class="new-version" role="status">
    ${_("Your teacher has changed this task. What you built is kept.")}
    ${taken.length ? _("No longer among the tools: %(tools)s.", { tools: taken.join(", ") }) : nothing}
    <button type="button" class="btn btn-main" @click=${() => location.reload()}>${_("Open the new version")}</button>
  </p>`;
}
