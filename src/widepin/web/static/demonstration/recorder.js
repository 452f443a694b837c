// Records what a teacher says to a frame, in an open format, and keeps it with the demonstration.

import { _ } from "../look/language.js";
import { find, post } from "../look/page.js";

const FORMATS = ["audio/webm;codecs=opus", "audio/ogg;codecs=opus"];
const LONGEST = 110; // seconds
const BITS_PER_SECOND = 32000;

export class Recorder {
  /** @type {MediaRecorder | null} */
  #running = null;
  /** @type {{sound: Blob, done: (digest: string) => void} | null} */
  #unsaved = null; // a recording that the server has not taken yet

  /**
   * panel: with the buttons; taken(): what to do with the digest of what is recorded from now on
   * @param {any} panel
   * @param {() => (digest: string) => void} taken
   * @param {() => void} removed
   */
  constructor(panel, taken, removed) {
    this.url = panel.dataset.record;
    this.said = find("[data-recording]", panel);
    this.record = find('[data-act="record"]', panel);
    this.drop = find('[data-act="drop voice"]', panel);
    this.taken = taken;
    this.record.addEventListener("click", () => this.#press());
    this.drop.addEventListener("click", removed);
    addEventListener("beforeunload", (event) => {
      if (this.#running || this.#unsaved) event.preventDefault();
    });
  }

  // Another frame is shown: what was being recorded belongs to the one before, and is kept there.
  /** @param {boolean} hasVoice */
  show(hasVoice) {
    this.#running?.stop();
    this.drop.hidden = !hasVoice;
    if (!this.#unsaved) this.record.textContent = hasVoice ? _("Record anew") : _("Record what is said");
  }

  #press() {
    if (this.#running) return this.#running.stop();
    return this.#unsaved ? this.#save() : this.#begin();
  }

  async #begin() {
    const format = FORMATS.find((one) => globalThis.MediaRecorder?.isTypeSupported(one));
    if (!format || !navigator.mediaDevices) return this.#say(_("This browser cannot record in an open format."));
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true }).catch(() => null);
    if (!stream) return this.#say(_("The browser may not use the microphone; allow it beside the address."));
    const recorder = new MediaRecorder(stream, { mimeType: format, audioBitsPerSecond: BITS_PER_SECOND });
    /** @type {Blob[]} */
    const parts = [];
    const done = this.taken();
    recorder.addEventListener("dataavailable", ({ data }) => parts.push(data));
    recorder.addEventListener("stop", () => {
      clearInterval(timer);
      for (const track of stream.getTracks()) track.stop();
      this.#running = null;
      this.#unsaved = { sound: new Blob(parts, { type: format }), done };
      this.#save();
    });
    const start = performance.now();
    const timer = setInterval(() => {
      const seconds = Math.round((performance.now() - start) / 1000);
      this.record.textContent = _("Stop (%(seconds)s s)", { seconds });
      if (seconds >= LONGEST) recorder.stop();
    }, 250);
    recorder.start();
    this.#running = recorder;
    this.record.textContent = _("Stop (%(seconds)s s)", { seconds: 0 });
    this.#say(_("Recording …"));
  }

  async #save() {
    if (!this.#unsaved) return;
    const { sound, done } = this.#unsaved;
    this.#say(_("Saving the recording …"));
    const body = new FormData();
    body.append("sound", sound);
    const answer = await post(this.url, body).catch(() => null);
    const said = await answer?.json().catch(() => null);
    if (said?.voice) {
      this.#unsaved = null;
      this.#say("");
      done(said.voice);
      return;
    }
    if (said?.error) this.#unsaved = null;
    this.record.textContent = this.#unsaved ? _("Save the recording") : _("Record anew");
    this.#say(said?.error ?? _("The recording is not saved yet: there is no connection. It is still here."));
  }

  /** @param {string} words */
  #say(words) {
    this.said.textContent = words;
  }
}
