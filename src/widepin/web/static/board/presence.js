// Says that somebody is before this board, which the teacher's class overview shows, and hears how the task stands.

import { post } from "../look/page.js";

const EVERY = 30000; // milliseconds

export class Presence {
  /**
   * heard(standing): what the server answers
   * @param {string} url
   * @param {(standing: any) => void} heard
   */
  constructor(url, heard) {
    this.url = url;
    this.heard = heard;
    setInterval(() => this.say(), EVERY);
    document.addEventListener("visibilitychange", () => this.say());
    this.say();
  }

  // Now, rather than with the next turn.
  async say() {
    if (document.hidden) return;
    const answer = await post(this.url).catch(() => null); // it is said again soon
    if (answer?.ok && !answer.redirected) this.heard(await answer.json());
  }
}
