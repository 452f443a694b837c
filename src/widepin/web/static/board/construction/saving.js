// Keeps every operation: in this browser at once, on the server as soon as it can be reached, once and in order.

import { _, ngettext } from "../../look/language.js";
import { post, renewToken } from "../../look/page.js";
/** @import { Entry, SavingOptions } from "../types.js" */
/** @import { Operation } from "../../figure/types.js" */
/** @import { Store } from "./store.js" */

const LONGEST_WAIT = 10000; // milliseconds between tries
export const SIGNED_OUT = _("you are signed out");
const NO_CONNECTION = _("no connection");

/** @typedef {{why: string, signIn: string | null, isLasting: boolean}} Trouble */

/**
 * The address to sign in at, from where this page is opened again.
 * @param {string} address
 */
export function signInAgain(address) {
  return `${address}?next=${encodeURIComponent(location.pathname)}`;
}

export class Saving {
  #busy = false;
  #tries = 0;
  /** @type {number | undefined} */
  #timer;

  /**
   * on: stored(entry), missed(entries), refused(entry, words), state(words, isTrouble, address to sign in again at or null)
   * stored: the operations that the server has, with their keys.
   * @param {SavingOptions} how
   */
  constructor({ url, place, stored, on }) {
    this.url = url;
    this.place = place; // where this browser keeps what is not stored yet
    this.count = stored.length; // operations that the server has
    this.on = on;
    this.drawer = `${place}:${newKey()}`; // this tab's own part of it
    const keys = new Set(stored.map(({ key }) => key));
    /** @type {Trouble | null} */
    this.trouble = null; // why what waits here is not stored, while it is not
    this.pending = this.#kept().filter(({ key }) => !keys.has(key)); // an answer may have been lost on the way here
    this.#keep();
    addEventListener("online", () => this.flush());
    this.windows = new BroadcastChannel(place); // the windows of this browser that show the same board
    this.windows.onmessage = ({ data }) => this.follow(data);
  }

  /**
   * Another window or device has brought the log to this number of operations: what is missing here is asked for.
   * @param {number} number
   */
  async follow(number) {
    if (number <= this.count || this.#busy) return; // what is being sent now is told of what it missed
    this.#busy = true;
    await this.#catchUp();
    this.#busy = false;
    if (this.pending.length) this.flush();
  }

  // What earlier visits and other tabs have left here. Their keys make sending it twice harmless.
  #kept() {
    const found = [];
    try {
      for (const name of Object.keys(localStorage).filter((one) => one.startsWith(`${this.place}:`))) {
        found.push(...JSON.parse(localStorage.getItem(name) ?? "[]"));
        localStorage.removeItem(name);
      }
    } catch {
      // A browser without storage still sends; only a crash before the answer could lose a step.
    }
    return found;
  }

  #keep() {
    try {
      if (this.pending.length) localStorage.setItem(this.drawer, JSON.stringify(this.pending));
      else localStorage.removeItem(this.drawer);
    } catch {
      // As above.
    }
  }

  /** @param {Operation} operation */
  add(operation) {
    this.pending.push({ key: newKey(), operation });
    this.#keep();
    this.flush();
  }

  /** @param {Entry[]} pending */
  replace(pending) {
    this.pending = pending;
    this.#keep();
  }

  // Whether everything is stored; resolves as soon as it is, or false after so many milliseconds, or where trying again
  // alone will not help: ``trouble`` says why.
  async settled(within = 8000) {
    const until = Date.now() + within;
    this.trouble = null;
    while (this.pending.length) {
      const trouble = /** @type {Trouble | null} */ (this.trouble);
      if (Date.now() > until || trouble?.isLasting) return false;
      this.flush();
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return true;
  }

  async flush() {
    if (this.#busy) return;
    this.#busy = true;
    clearTimeout(this.#timer);
    try {
      while (this.pending.length) {
        this.on.state(_("Saving …"), false);
        if (!(await this.#send(this.pending[0]))) return;
        this.#tries = 0;
      }
      this.trouble = null;
      this.on.state(_("All changes saved"), false);
    } finally {
      this.#busy = false;
    }
  }

  /**
   * Store many steps at once: {operations} that are stored now, or {error}.
   * @param {string} url
   * @param {unknown} work
   * @returns {Promise<{operations?: Entry[], error?: string}>}
   */
  async importSteps(url, work) {
    if (!(await this.settled()))
      return { error: _("It could not be stored: %(why)s.", { why: this.trouble?.why ?? NO_CONNECTION }) };
    const answer = await this.#post(url, { after: this.count, work }).catch(() => null);
    const said = await answer?.json().catch(() => null);
    if (!answer || !said || answer.redirected) return { error: _("There is no connection; try again.") };
    if (!said.operations) return said;
    this.count += said.operations.length;
    if (answer.ok) return said;
    this.on.missed(said.operations); // another window was quicker
    return this.importSteps(url, work);
  }

  /** @param {string} url @param {unknown} body */
  #post(url, body) {
    return post(url, body, { signal: AbortSignal.timeout(15000) });
  }

  /** @param {Entry} entry */
  async #send(entry) {
    let answer;
    try {
      answer = await this.#post(this.url, { key: entry.key, after: this.count, operation: entry.operation });
    } catch {
      return this.#wait(NO_CONNECTION);
    }
    if (answer.redirected) return this.#wait(SIGNED_OUT, signInAgain(new URL(answer.url).pathname));
    if (answer.status >= 500 || answer.status === 429) return this.#wait(_("the server does not answer"));
    const said = await answer.json().catch(() => null);
    if (said === null) return this.#wait(_("the server does not answer"));
    if (answer.status === 401) return this.#wait(SIGNED_OUT, signInAgain(said.sign_in));
    if (said.expired) return (await renewToken()) || this.#wait(_("the server does not answer"));
    if (answer.status === 409) {
      this.count += said.operations.length;
      this.on.missed(said.operations);
    } else if (answer.ok) {
      if (said.number > this.count + 1) return this.#catchUp(); // the operation stays until it comes with the others
      this.#done(entry);
      if (said.number <= this.count) return true;
      this.count = said.number;
      this.on.stored(said);
      this.windows.postMessage(said.number);
    } else if (answer.status === 422) {
      this.#done(entry);
      delete this.pending[0]?.operation.joined; // what it was joined to is none
      this.on.refused(entry, said.error);
    } else {
      return this.#wait(said.error ?? _("the server does not answer"), null, Boolean(said.error));
    }
    return true;
  }

  // The server knew the operation already, and others besides.
  async #catchUp() {
    const answer = await fetch(`${this.url}?after=${this.count}`).catch(() => null);
    if (!answer?.ok || answer.redirected) return this.#wait(NO_CONNECTION);
    const { operations } = await answer.json();
    this.count += operations.length;
    this.on.missed(operations);
    return true;
  }

  /** @param {Entry} entry */
  #done(entry) {
    this.pending = this.pending.filter(({ key }) => key !== entry.key);
    this.#keep();
  }

  /**
   * signIn: where to sign in again, if that is what is missing; this page is opened afterwards, and goes on.
   * isLasting: trying again alone will not help
   * @param {string} why
   * @param {string | null} [signIn]
   * @param {boolean} [isLasting]
   */
  #wait(why, signIn = null, isLasting = signIn !== null) {
    const steps = this.pending.length;
    this.trouble = { why, signIn, isLasting };
    this.on.state(
      ngettext(
        "Not saved yet, %(why)s: %(n)s step waits here. Trying again.",
        "Not saved yet, %(why)s: %(n)s steps wait here. Trying again.",
        steps,
        { why: why.replace(/\.$/, "") },
      ),
      true,
      signIn,
    );
    this.#timer = setTimeout(() => this.flush(), Math.min(LONGEST_WAIT, 500 * 2 ** this.#tries++));
    return false;
  }
}

// Works on plain http too, where crypto.randomUUID is missing.
export function newKey() {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
