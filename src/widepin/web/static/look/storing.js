// What a teacher changes on a page: stored a moment after the last change, one store at a time, and kept in this browser
// until the server has it, so that no crash, reload or bad network loses any.

import { _ } from "./language.js";
import { post, renewToken } from "./page.js";
/** @import { Where } from "../board/types.js" */

const MOMENT = 400; // milliseconds without a change
const TOO_MANY = 429; // requests at once, which is no fault of what is sent
const AGAIN = 4000; // milliseconds after which what did not arrive is sent again

/**
 * Who is told. stored(answer, waiting) gets the fields that were changed since and returns the fields as the server has
 * them now. elsewhere(answer): the same was changed elsewhere, and what was changed here is to be kept.
 * @typedef {{elsewhere?: (answer: any) => void, stored: (answer: any, waiting: Record<string, any>) => Record<string, any>, refused: (words: string) => void,
 *   state: (words: string, isTrouble: boolean, signIn?: string | null) => void}} StoringListeners
 */

/**
 * url: where fields are posted, as body(fields, as they were found) says. part: of what is stored there, if the page is about a part alone.
 * server: the fields as the server has them.
 * @typedef {{url: string, part?: string, server: Record<string, any>, on: StoringListeners,
 *   body?: (fields: Record<string, any>, was: Record<string, any>) => unknown}} StoringOptions
 */

export class Storing {
  /** @type {number | undefined} */
  #timer;
  /** @type {Record<string, any>} */
  #waiting = {}; // fields that are not sent yet
  /** @type {Record<string, any>} */
  #sent = {}; // fields that are on their way
  /** @type {Promise<boolean>} */
  #running = Promise.resolve(true);
  #isLeaving = false;

  /** @param {StoringOptions} how */
  constructor({ url, part = "", server, on, body = (fields) => fields }) {
    this.url = url;
    this.part = part;
    this.server = structuredClone(server);
    this.on = on;
    this.body = body;
    addEventListener("beforeunload", () => {
      this.#isLeaving = true;
    });
    addEventListener("pagehide", () => this.#leave());
  }

  /** @param {Record<string, any>} fields */
  change(fields) {
    this.#isLeaving = false;
    this.#waiting = { ...this.#waiting, ...structuredClone(fields) };
    this.#keep();
    this.on.state(_("Saving …"), false);
    this.#storeIn(MOMENT);
  }

  // Resolves to whether everything is stored, as soon as that is known.
  store() {
    clearTimeout(this.#timer);
    this.#running = this.#running.then(() => this.#send());
    return this.#running;
  }

  get isDone() {
    return Object.keys({ ...this.#sent, ...this.#waiting }).length === 0;
  }

  /**
   * The fields that an earlier page of this browser changed, or one about some of the parts, and the server does not have;
   * to be changed here now. Where the server has something else than that page had found, the user is asked.
   * @param {...string} parts
   */
  unstored(...parts) {
    /** @type {Record<string, any>} */
    const fields = {};
    /** @type {Record<string, any>} */
    const was = {};
    for (const part of [this.part, ...parts]) {
      const kept = JSON.parse(localStorage.getItem(this.#placeOf(part)) ?? "{}");
      Object.assign(fields, kept.fields);
      Object.assign(was, kept.was);
      localStorage.removeItem(this.#placeOf(part));
    }
    const left = Object.keys(fields).filter((name) => !isSame(fields[name], this.server[name]));
    const words = _("This was changed elsewhere since. Use what this browser had not saved yet?");
    const isWanted = left.every((name) => isSame(was[name], this.server[name])) || confirm(words);
    return isWanted ? Object.fromEntries(left.map((name) => [name, fields[name]])) : {};
  }

  get #place() {
    return this.#placeOf(this.part);
  }

  /** @param {string} part */
  #placeOf(part) {
    return `widepin-unstored-${this.url} ${part}`;
  }

  // The page that follows may have been asked for before what is on its way arrives, so it finds that here as well.
  #keep() {
    const fields = { ...this.#sent, ...this.#waiting };
    const was = this.#found(fields);
    try {
      if (!this.isDone) localStorage.setItem(this.#place, JSON.stringify({ fields, was }));
      else if (!this.#isLeaving) localStorage.removeItem(this.#place);
    } catch {
      // A browser without storage still sends.
    }
  }

  /**
   * Fields as the server had them when they were changed here.
   * @param {Record<string, any>} fields
   * @returns {Record<string, any>}
   */
  #found(fields) {
    return Object.fromEntries(Object.keys(fields).map((name) => [name, this.server[name] ?? null]));
  }

  /** @param {number} milliseconds */
  #storeIn(milliseconds) {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.store(), milliseconds);
  }

  #leave() {
    if (Object.keys(this.#waiting).length)
      post(this.url, this.body(this.#waiting, this.#found(this.#waiting)), { keepalive: true }).catch(() => {}); // it is kept here too
  }

  /** @returns {Promise<boolean>} */
  async #send() {
    if (!Object.keys(this.#waiting).length) return true;
    this.#sent = this.#waiting;
    this.#waiting = {};
    const answer = await post(this.url, this.body(this.#sent, this.#found(this.#sent))).catch(() => null);
    const said = await answer?.json().catch(() => null);
    if (answer?.status === 409 && said?.changed_elsewhere) return this.#decide(said);
    if (!answer?.ok || !said) return this.#failed(answer, said);
    const place = this.#place;
    const sent = this.#sent;
    this.#sent = {};
    this.server = { ...this.server, ...sent, ...this.on.stored(said, this.#waiting) };
    if (this.#place !== place) localStorage.removeItem(place);
    this.#keep();
    if (this.isDone) this.on.state(_("All changes saved"), false);
    return true;
  }

  /**
   * Others have changed the same fields: what was changed here is stored over that, or given up, as the user says.
   * @param {{fields: Record<string, any>}} said
   * @returns {Promise<boolean>}
   */
  async #decide(said) {
    this.#waiting = { ...this.#sent, ...this.#waiting };
    this.#sent = {};
    if (confirm(_("The same was changed elsewhere meanwhile. Keep what was changed here?"))) {
      this.server = { ...this.server, ...said.fields };
      this.on.elsewhere?.(said);
      return this.#send();
    }
    this.#waiting = {};
    this.#keep();
    location.reload();
    return false;
  }

  /**
   * What is wrong is sent again with the next change, which may mend it; anything else after a while.
   * @param {Response | null} answer
   * @param {any} said
   * @returns {Promise<boolean>}
   */
  async #failed(answer, said) {
    this.#waiting = { ...this.#sent, ...this.#waiting };
    this.#sent = {};
    if (said?.expired && (await renewToken())) return this.#send();
    const signIn = answer?.redirected ? new URL(answer.url).pathname : said?.sign_in;
    if (said?.error && !signIn && answer && answer.status < 500 && answer.status !== TOO_MANY) {
      this.on.state(_("Not saved"), true);
      this.on.refused(said.error);
      return false;
    }
    if (signIn)
      this.on.state(
        _("You are signed out; not saved yet"),
        true,
        `${signIn}?next=${encodeURIComponent(location.pathname)}`,
      );
    else this.on.state(_("No connection; not saved yet"), true);
    this.#storeIn(AGAIN);
    return false;
  }
}

/**
 * Whether two values are equal as JSON, in whatever order their fields stand.
 * @param {unknown} a
 * @param {unknown} b
 */
export function isSame(a, b) {
  /** @param {string} _name @param {any} value */
  const sorted = (_name, value) =>
    value && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)))
      : value;
  return JSON.stringify(a ?? null, sorted) === JSON.stringify(b ?? null, sorted);
}
