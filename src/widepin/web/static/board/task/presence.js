// Says that somebody is before this board, which the teacher's class overview shows, and hears how the task and the work
// stand: also whether another window or device has done something to it.

import { _ } from "../../look/language.js";
import { post } from "../../look/page.js";
import { signInAgain } from "../construction/saving.js";

const EVERY = 15000; // milliseconds
const AT_WORK = 3000; // the same while another device is at work too
const STILL_AT_WORK = 120000; // milliseconds after what it did last

export class Presence {
  /** @type {number | undefined} */
  #timer;
  #heardAt = -Infinity; // when another device did something

  /**
   * on: heard(standing), what the server answers; closed(words, address to sign in again at or null), that there is
   * nothing to be done any more
   * @param {string} url
   * @param {{heard: (standing: any) => void, closed: (words: string, signIn: string | null) => void}} on
   */
  constructor(url, on) {
    this.url = url;
    this.on = on;
    document.addEventListener("visibilitychange", () => this.say());
    this.say();
  }

  // To be called when something came from another window or device.
  quicken() {
    this.#heardAt = performance.now();
    this.#wait();
  }

  #wait() {
    clearTimeout(this.#timer);
    const isQuick = performance.now() - this.#heardAt < STILL_AT_WORK;
    this.#timer = setTimeout(() => this.say(), isQuick ? AT_WORK : EVERY);
  }

  // Now, rather than with the next turn.
  async say() {
    this.#wait();
    if (document.hidden) return;
    const answer = await post(this.url).catch(() => null);
    const said = await answer?.json().catch(() => null);
    if (!answer) return; // it is said again soon
    if (answer.redirected || answer.status === 401)
      this.on.closed(_("You are signed out."), signInAgain(said?.sign_in ?? new URL(answer.url).pathname));
    else if (answer.status === 403 && said?.error) this.on.closed(said.error, null);
    else if (answer.ok && said) this.on.heard(said);
  }
}
