// Keeps what a teacher draws: the whole construction is stored on the task sheet, a moment after each change. It stands
// in the place of Saving, for which single operations count.

import { findAll } from "../../look/page.js";
import { Storing } from "../../look/storing.js";
import { newKey } from "./saving.js";
/** @import { Draft, Entry } from "../types.js" */
/** @import { Operation, Step } from "../../figure/types.js" */

export class Drafting {
  #storing;
  /** @type {Entry[]} */
  pending = [];

  /**
   * draft: {part, url, then}, the last one the name of the page that follows; drawn: the construction as the server has it
   * steps(): as it stands; on: stored(entry), refused(entry, words), state(words, isTrouble, address to sign in again at)
   * @param {{draft: Draft, drawn: Step[], steps: () => Step[], on: any}} fields
   */
  constructor({ draft, drawn, steps, on }) {
    this.draft = draft;
    this.steps = steps;
    this.on = on;
    this.#storing = new Storing({
      url: draft.url,
      part: draft.part,
      server: { [draft.part]: drawn },
      body: (document, was) => ({ document, made_from: was }),
      on: {
        ...on,
        /** @param {string} words */ refused: (words) => on.refused(null, words),
        /** @param {{urls: Record<string, string>, document: Record<string, any>}} fields */
        stored: ({ urls, document }) => this.#stored(urls, document),
      },
    });
    for (const done of findAll("[data-done]"))
      done.addEventListener("click", async (/** @type {Event & {target: any}} */ event) => {
        event.preventDefault();
        const { href } = done;
        if (await this.settled()) location.assign(href);
      });
  }

  // What was drawn last time and not stored, null for nothing; it is stored now.
  unstored() {
    const { [this.draft.part]: drawn = null } = this.#storing.unstored();
    if (drawn) this.#storing.change({ [this.draft.part]: drawn });
    return drawn;
  }

  /** @param {Operation} operation */
  add(operation) {
    this.on.stored({ key: newKey(), operation });
    if (this.draft.part !== "trial") this.#storing.change({ [this.draft.part]: this.steps() });
  }

  flush() {}
  replace() {}

  settled() {
    return this.#storing.store();
  }

  /**
   * The form of a trial holds the construction itself.
   * @param {FormData} body
   */
  fill(body) {
    body.append("steps", JSON.stringify(this.steps()));
  }

  /**
   * An assigned task is never changed: from now on this is its next version.
   * @param {Record<string, string>} urls
   * @param {Record<string, any>} document
   */
  #stored(urls, document) {
    this.#storing.url = urls.save;
    for (const done of findAll("[data-done]")) done.href = urls[this.draft.then];
    return { [this.draft.part]: document[this.draft.part] };
  }
}
