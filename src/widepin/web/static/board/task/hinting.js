// Hints: the next one in a strip below the paper, a level at a time; its objects are lit, its step is a dashed ghost.

import { _, ngettext } from "../../look/language.js";
import { find, post } from "../../look/page.js";
/** @import { Board } from "../board.js" */

const LEVELS = 3;
const MANY = 50; // hints from which on they are not counted

export class Hinting {
  /** @type {any} */
  #shown = null; // what the server said last, while it is shown
  #received = ""; // what the teacher sent last

  /**
   * strip: where it stands; parts: setting, saving, store, bar, show()
   * @param {any} strip
   * @param {Pick<Board, "page" | "setting" | "saving" | "store" | "bar" | "show">} parts
   */
  constructor(strip, parts) {
    this.strip = strip;
    this.parts = parts;
    this.left = parts.setting.hints?.left ?? 0;
    this.button = find("[data-do=hint]", parts.page); // null where no hints may be taken
    this.further = find("[data-further]", strip);
    this.further.addEventListener("click", () => this.ask());
    find("[data-put-away]", strip).addEventListener("click", () => this.putAway());
    this.#label();
  }

  get isOpen() {
    return this.#shown !== null;
  }

  // The step that is shown, at the last level.
  get ghost() {
    return this.#shown?.step ?? null;
  }

  /** @param {string} id */
  isLit(id) {
    return Boolean(this.#shown?.lit.includes(id));
  }

  // The first level, or the next one of what is shown.
  async ask() {
    const { setting, saving, store, bar, show } = this.parts;
    const { cost = 0 } = setting.hints ?? {};
    if (!this.isOpen && this.left === 0) return bar.announce(_("All hints of this task are taken."), true);
    if (!this.isOpen && cost > 0 && !confirm(_("A hint takes %(cost)s points off the score. Take one?", { cost })))
      return;
    this.#looking(true);
    bar.announce(_("Looking for a way on …"));
    const before = JSON.stringify(store.own);
    const answer = (await saving.settled()) ? await post(setting.urls.hint).catch(() => null) : null;
    const said = await answer?.json().catch(() => null);
    this.#looking(false);
    if (!answer?.ok || !said)
      return bar.announce(said?.error ?? _("No hint could be had: no connection. Try again."), true);
    bar.announce("");
    this.left = said.left;
    this.#label();
    if (JSON.stringify(store.own) !== before)
      return bar.announce(_("The board was changed while a hint was looked for. Ask again."));
    this.#show(said);
    show();
    (this.further.hidden ? find("[data-put-away]", this.strip) : this.further).focus();
  }

  /** @param {boolean} isOn */
  #looking(isOn) {
    this.further.disabled = isOn;
    if (this.button) this.button.disabled = isOn;
  }

  /**
   * What the teacher has sent for the board as it stands; the same is shown once, and not over a higher level of it. It
   * takes no focus from what the student is at.
   * @param {any} sent
   */
  receive(sent) {
    const { bar, show } = this.parts;
    if (!sent || sent.words === this.#received) return;
    this.#received = sent.words;
    if (this.isOpen && this.#shown.level >= sent.level) return;
    bar.announce(_("Your teacher sends you a hint."));
    this.#show(sent);
    show();
  }

  // On a way that is known, how many moves are left.
  async howFar() {
    const { setting, saving, bar } = this.parts;
    bar.announce(_("Looking for a way on …"));
    const answer = (await saving.settled()) ? await post(setting.urls.how_far).catch(() => null) : null;
    const said = await answer?.json().catch(() => null);
    bar.announce(said?.said ?? said?.error ?? _("There is no connection. Try again."), !said?.said);
  }

  /** @param {any} said */
  #show(said) {
    this.#shown = said;
    this.strip.hidden = false;
    find(".why", this.strip).textContent = said.words;
    const level = find("[data-level]", this.strip);
    level.textContent = "●".repeat(said.level) + "○".repeat(LEVELS - said.level);
    level.setAttribute("role", "img");
    level.setAttribute("aria-label", _("level %(level)s of %(levels)s", { level: said.level, levels: LEVELS }));
    this.further.hidden =
      !this.button || said.level === LEVELS || said.moves_left === null || said.moves_left === undefined;
    this.further.textContent = said.level === 1 ? _("Which tool?") : _("Show the next step");
  }

  // To be called when the board is changed, too: what was said is about the board as it was.
  putAway() {
    if (!this.isOpen) return;
    this.#shown = null;
    this.strip.hidden = true;
    this.parts.show();
  }

  #label() {
    if (!this.button) return;
    const left = Object.assign(document.createElement("span"), { className: "how-many" });
    left.textContent = this.left > MANY ? "" : ngettext("· %(n)s left", "· %(n)s left", this.left);
    this.button.replaceChildren(_("Hint"), " ", left);
    this.button.setAttribute("aria-disabled", String(this.left === 0));
  }
}
