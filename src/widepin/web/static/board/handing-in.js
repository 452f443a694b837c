// Handing in: asks once, with the count of moves. The answer fills the blanks of a sentence, or is left to be found.

import { answering } from "./tools.js";
import { countOf } from "./uses.js";

const LOST = { error: "It could not be handed in: there is no connection. Nothing is lost; try again." };

export class HandingIn {
  // form: the question; board: whose hand holds the answer; done(result)
  constructor(form, board, done) {
    this.form = form;
    this.board = board;
    this.sentence = answering(board.setting.wanted);
    this.question = form.querySelector(".question");
    this.button = form.querySelector(".btn-main");
    form.querySelector("[data-not-yet]").addEventListener("click", () => this.close());
    form.addEventListener("submit", async (event) => {
      event.preventDefault();
      if (!this.#isWhole()) return;
      this.#checking(true);
      const result = (await board.saving.settled()) ? await this.#send() : LOST;
      this.#checking(false);
      if (result.error) return this.board.bar.announce(result.error, true);
      this.close();
      done(result);
    });
  }

  get isOn() {
    return this.board.hand.tool === this.sentence;
  }

  ask() {
    const { board } = this;
    board.hand.take(this.sentence);
    board.bar.clear();
    board.bar.announce(
      board.setting.finding
        ? "Point at it or type its name, or hand in as it is and let it be found by the program."
        : "Point at it or type its name.",
    );
    board.show();
    if (board.setting.finding) this.button.focus();
    else board.bar.focus();
  }

  // Open as long as the answer is in hand, and true of the board as it stands.
  show() {
    this.form.hidden = !this.isOn;
    if (!this.isOn) return;
    const { budget } = this.board.setting;
    const moves = this.board.own.reduce((sum, step) => sum + countOf(step, this.board.book.makes), 0);
    const over = budget && moves > budget ? `, ${moves - budget} over the limit` : "";
    this.question.textContent = `Hand in as it is, with ${moves}${budget ? ` of ${budget}` : ""} ${moves === 1 && !budget ? "move" : "moves"}${over}?`;
  }

  answered() {
    this.board.bar.announce("Esc empties the blanks.");
    this.button.focus();
  }

  close() {
    const { board } = this;
    if (this.isOn) board.hand.putDown();
    board.bar.clear();
    board.bar.announce("");
    board.show();
    board.page.querySelector("[data-do='hand in']")?.focus();
  }

  // All of the answer is pointed out, or none of it.
  #isWhole() {
    const { hand, setting, bar } = this.board;
    if (hand.isFull || (!hand.filled.length && setting.finding)) return true;
    bar.announce(
      `Fill every blank${setting.finding ? ", or empty them with Esc and let the answer be found by the program" : ""}.`,
      true,
    );
    bar.focus();
    return false;
  }

  #checking(isOn) {
    this.button.disabled = isOn;
    this.button.textContent = isOn ? "Checking …" : "Hand in now";
  }

  async #send() {
    const body = new FormData(this.form);
    for (const id of this.board.hand.filled) body.append("answer", id);
    this.board.saving.fill?.(body);
    try {
      const answer = await fetch(this.form.action, { method: "POST", headers: { Accept: "application/json" }, body });
      return answer.redirected ? LOST : await answer.json();
    } catch {
      return LOST;
    }
  }
}
