// What is said in a frame: heard with it, as long as that is wanted, or when it is asked for.

import { find } from "../look/page.js";

const IN_ADDRESS = "0".repeat(64); // stands for the digest of a recording in the page's address of them

export class Voice {
  #digest = "";

  /** @param {any} page */
  constructor(page) {
    this.address = page.dataset.voices ?? "";
    this.spoken = JSON.parse(document.querySelector("#spoken")?.textContent ?? "{}"); // in a file of its own
    this.panel = find("[data-voice]", page);
    this.audio = find("audio", this.panel);
    this.isWanted = find("[data-speak]", this.panel);
    this.audio.addEventListener("error", () => {
      this.panel.hidden = true; // it is there no more
    });
  }

  /** @param {string | undefined} digest */
  show(digest) {
    if (digest === this.#digest) return;
    this.#digest = digest ?? "";
    this.audio.pause();
    this.panel.hidden = !digest;
    if (digest) this.audio.src = this.spoken[digest] ?? this.address.replace(IN_ADDRESS, digest);
    else this.audio.removeAttribute("src");
  }

  // Browsers play sound once somebody has pressed something; before, it waits for its button.
  speak() {
    if (this.#digest && this.isWanted.checked) this.audio.play().catch(() => {});
  }
}
