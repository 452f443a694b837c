// The result of a hand-in, on the board itself: what holds, why, and the break played on the figure; then on with it.

import { _ } from "../../look/language.js";
import { BreakPlayer } from "../../figure/break-player.js";
import { along } from "../../figure/picture.js";
import { post } from "../../look/page.js";
import { html, render } from "../../vendor/lit-html/lit-html.js";
/** @import { Board } from "../board.js" */
/** @import { Step } from "../../figure/types.js" */

export class Result {
  /** @type {import("../../figure/break-player.js").BreakPlayer | null} */
  #player = null;

  /**
   * strip: where it stands; parts: store, whose figure is dragged, and paint()
   * @param {any} strip
   * @param {Pick<Board, "store" | "paint" | "building">} parts
   */
  constructor(strip, parts) {
    this.strip = strip;
    this.parts = parts;
    this.data = null; // what the server said, while it is shown
    this.share = 0; // of the way to the break
    strip.querySelector("[data-go-on]").addEventListener("click", () => this.close());
  }

  get isOpen() {
    return this.data !== null;
  }
  get drags() {
    return this.data?.breaks?.points ?? [];
  }
  get isBroken() {
    return this.drags.length > 0 && this.share > 0.98;
  }

  /** @param {any} data */
  show(data) {
    this.data = data;
    this.#offerToKeep(data.keep_wrong);
    this.share = 0;
    render(html`${data.results.map(resultItem)}`, this.strip.querySelector(".big-results"));
    this.strip.querySelector(".why").textContent =
      data.sentences[0] ?? _("The result says what holds; what is behind it is for you to find.");
    this.#showMends(data.mends ?? []);
    const [report, why] = this.strip.querySelectorAll("a");
    report.href = data.url;
    why.href = `${data.url}#why-title`;
    report.hidden = !data.url; // a trial has no report that is kept
    why.hidden = !data.url || !data.has_why;
    const controls = this.strip.querySelector(".break-player");
    controls.hidden = this.drags.length === 0;
    this.strip.hidden = false;
    if (!this.drags.length) return this.strip.querySelector("[data-go-on]").focus();
    this.#player ??= new BreakPlayer(
      this,
      controls,
      () => {},
      () => {},
    );
    this.#player.rest();
    controls.querySelector("[data-play]").focus();
  }

  /**
   * What would mend it, to be made here and now.
   * @param {{words: string, steps: Step[]}[]} mends
   */
  #showMends(mends) {
    const panel = this.strip.querySelector(".mends");
    panel.hidden = mends.length === 0;
    const make = (/** @type {Step[]} */ steps) => {
      this.close();
      this.parts.building.remakeAll(steps);
    };
    render(
      html`${mends.map(
        ({ words, steps }) =>
          html`<p>
            ${words}
            <button type="button" class="btn btn-plain" @click=${() => make(steps)}>${_("Do it")}</button>
          </p>`,
      )}`,
      panel,
    );
  }

  /**
   * In a preview, what was built can be kept as a solution that must be rejected.
   * @param {string | undefined} url
   */
  #offerToKeep(url) {
    const button = this.strip.querySelector("[data-keep-wrong]");
    if (!button) return;
    button.disabled = false;
    button.textContent = _("Keep as a wrong solution");
    button.onclick = async () => {
      button.disabled = true;
      const answer = await post(String(url), { steps: this.parts.store.own }).catch(() => null);
      const said = await answer?.json().catch(() => null);
      button.disabled = Boolean(said?.wrong);
      button.textContent = said?.wrong ? _("Kept as a wrong solution") : _("Not kept; try again");
      if (said?.error) this.strip.querySelector(".why").textContent = said.error;
    };
  }

  close() {
    this.#player?.stop();
    this.data = null;
    this.strip.hidden = true;
    this.parts.store.refresh(); // the figure as it was before it was dragged to the break
  }

  /**
   * What the player asks of a figure.
   * @param {number} share
   */
  dragTo(share) {
    this.share = share;
    for (const { id, from, to, path } of this.drags)
      this.parts.store.figure.put(id, along(path?.length ? path : [from, to], share));
    this.parts.paint();
  }

  /** @param {string} id */
  role(id) {
    if (!this.data?.answer.includes(id)) return null;
    return this.isBroken || ["wrong", "refused"].includes(this.data.outcome) ? "broken" : "answer";
  }
}

/** @param {{word: string, state: string, meaning: string}} part */
function resultItem({ word, state, meaning }) {
  return html`<span class="result-item ${state}" title=${meaning}
    ><span class="sign" aria-hidden="true"></span>${word}<span class="visually-hidden">, ${meaning}</span></span
  >`;
}
