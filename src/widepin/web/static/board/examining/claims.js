// What the student believes of the figure, and whether the server finds it true in every position.

import { referenceOf } from "../../figure/tape.js";
import { post } from "../../look/page.js";
/** @import { Claim, Saver } from "../types.js" */
/** @import { Step } from "../../figure/types.js" */
/** @import { Store } from "../construction/store.js" */

const MOMENT = 500; // milliseconds without a change before the server is asked

export class Claims {
  #known = new Map(); // construction and claim as text -> whether it holds in every position
  /** @type {Claim[]} */
  #wanted = [];
  /** @type {number | undefined} */
  #timer;
  /** @type {{own: Step[] | null, text: string}} */
  #made = { own: null, text: "" }; // the student's steps as text

  /**
   * url: where claims are looked at, or nothing; changed(): something became known
   * @param {{url: string | null | undefined, saving: Saver, store: Store, changed: () => void}} fields
   */
  constructor({ url, saving, store, changed }) {
    this.url = url;
    this.saving = saving;
    this.store = store;
    this.changed = changed;
  }

  /**
   * claims: [{rel, of}]; those that are not known yet are asked for together.
   * @param {Claim[]} claims
   */
  want(claims) {
    if (!this.url) return;
    this.#wanted = claims.filter((claim) => !this.#known.has(this.#key(claim)));
    clearTimeout(this.#timer);
    if (this.#wanted.length) this.#timer = setTimeout(() => this.#ask(), MOMENT);
  }

  /**
   * True or false; undefined as long as it is not known.
   * @param {Claim} claim
   */
  holds(claim) {
    return this.#known.get(this.#key(claim));
  }

  /**
   * A claim about the construction as it is made, wherever its points lie now. Every frame asks for it.
   * @param {{rel: string, of: string[]}} fields
   */
  #key({ rel, of }) {
    const { own } = this.store;
    if (this.#made.own !== own) {
      const made = own.map((step) => [step.id, step.make, step.from, step.pick, referenceOf(step)]);
      this.#made = { own, text: JSON.stringify(made) };
    }
    return `${rel} ${of.join(" ")} ${this.#made.text}`;
  }

  async #ask() {
    const claims = this.#wanted;
    const keys = claims.map((claim) => this.#key(claim));
    if (!(await this.saving.settled())) return;
    const answer = await post(String(this.url), { claims }).catch(() => null);
    if (!answer?.ok || answer.redirected) return; // it is asked again with the next change
    const { holds } = await answer.json();
    for (const [number, key] of keys.entries()) this.#known.set(key, holds[number]);
    this.changed();
  }
}
