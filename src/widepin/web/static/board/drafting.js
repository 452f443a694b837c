// Keeps what a teacher draws: the whole construction is stored on the task sheet, a moment after each change. It stands
// in the place of Saving, for which single operations count.

import { _ } from "../look/language.js";
import { findAll } from "../look/page.js";
import { newKey } from "./saving.js";

const MOMENT = 400; // milliseconds without a change

export class Drafting {
  #timer = null;
  #running = null;
  pending = [];

  // draft: {part, url, then}, the last one the name of the page that follows; steps(): the construction as it stands; on: stored(entry), refused(entry, words), state(words, isTrouble)
  constructor({ draft, token, steps, on }) {
    this.draft = draft;
    this.token = token;
    this.steps = steps;
    this.on = on;
    addEventListener("pagehide", () => {
      if (this.#timer) this.#store(true);
    });
    for (const done of findAll("[data-done]"))
      done.addEventListener("click", async (event) => {
        event.preventDefault();
        const { href } = done;
        if (await this.settled()) location.assign(href);
      });
  }

  add(operation) {
    this.on.stored({ key: newKey(), operation });
    if (this.draft.part === "trial") return;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.#store(), MOMENT);
    this.on.state(_("Saving …"), false);
  }

  flush() {}
  replace() {}

  async settled() {
    if (this.#timer) {
      clearTimeout(this.#timer);
      this.#store();
    }
    return (await this.#running) ?? true;
  }

  // The form of a trial holds the construction itself.
  fill(body) {
    body.append("steps", JSON.stringify(this.steps()));
  }

  #store(isLeaving = false) {
    this.#timer = null;
    this.#running = this.#send(isLeaving);
  }

  async #send(keepalive) {
    try {
      const answer = await fetch(this.draft.url, {
        method: "POST",
        headers: { "Content-Type": "application/json", Accept: "application/json", "X-CSRFToken": this.token },
        body: JSON.stringify({ document: { [this.draft.part]: this.steps() } }),
        keepalive,
      });
      const told = await answer.json();
      if (!answer.ok) {
        this.on.refused(null, told.error);
        this.on.state(_("Not saved"), true);
        return false;
      }
      // An assigned task is never changed: from now on this is its next version.
      this.draft.url = told.urls.save;
      for (const done of findAll("[data-done]")) done.href = told.urls[this.draft.then];
      this.on.state("Saved", false);
      return true;
    } catch {
      this.on.state(_("No connection; not saved yet"), true);
      this.#timer = setTimeout(() => this.#store(), 10 * MOMENT);
      return false;
    }
  }
}
