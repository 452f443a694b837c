// Handing in: asks once, with the count of moves; the answer can be pointed out or left to be found.

import { labelOf } from "../figure/drawing.js";

const LOST = { error: "It could not be handed in: there is no connection. Nothing is lost; try again." };
const FIND = "found for me", CHOOSE = "point it out";

export class HandingIn {
  // form: the question; setting: with wanted and budget; saving: everything must be stored first; done(result)
  constructor(form, setting, saving, done) {
    this.form = form;
    this.setting = setting;
    this.question = form.querySelector(".question");
    this.answer = form.querySelector(".answer");
    form.querySelector("[data-not-yet]").addEventListener("click", () => this.close());
    form.addEventListener("keydown", (event) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      this.close();
    });
    form.addEventListener("submit", async (event) => {
      event.preventDefault();
      if (!this.#isWhole()) return;
      const button = form.querySelector(".btn-main");
      button.disabled = true;
      button.textContent = "Checking …";
      const result = (await saving.settled()) ? await this.#send() : LOST;
      button.disabled = false;
      button.textContent = "Hand it in";
      if (result.error) this.question.textContent = result.error;
      else {
        form.hidden = true;
        done(result);
      }
    });
  }

  async #send() {
    try {
      const answer = await fetch(this.form.action, {
        method: "POST", headers: { Accept: "application/json" }, body: new FormData(this.form),
      });
      return answer.redirected ? LOST : await answer.json();
    } catch {
      return LOST;
    }
  }

  ask(figure, own, moves) {
    const { budget, wanted } = this.setting;
    const over = budget && moves > budget ? `, ${moves - budget} more than asked` : "";
    this.question.textContent = `Hand in as it stands, with ${moves}${budget ? ` of ${budget}` : ""} ${moves === 1 && !budget ? "move" : "moves"}${over}?`;
    this.answer.replaceChildren(...wanted.map((one) => blank(figure, own, one, this.setting.finding)));
    this.form.hidden = false;
    this.form.querySelector(".btn-main").focus();
  }

  close() {
    this.form.hidden = true;
    document.querySelector("[data-do='hand in']").focus();
  }

  // All of the answer is pointed out, or none of it.
  #isWhole() {
    const named = [...this.answer.querySelectorAll("select")].filter(({ value }) => value);
    if ((!named.length && this.setting.finding) || named.length === this.setting.wanted.length) return true;
    this.question.textContent = `Point out every part of the answer${this.setting.finding ? ", or leave all of it to be found" : ""}.`;
    return false;
  }
}

// "The ray m is [ ... ]"
function blank(figure, own, { name, kind, kinds, given }, finding) {
  const label = document.createElement("label");
  const select = document.createElement("select");
  select.name = "answer";
  select.append(new Option(finding ? FIND : CHOOSE, ""));
  const ids = given ? figure.ids : own.map(({ id }) => id);
  for (const id of ids.filter((one) => kinds.includes(figure.kind(one)))) select.append(new Option(labelOf(figure, id), id));
  const word = document.createElement("i");
  word.textContent = name;
  label.append(`The ${kind} `, word, " is ", select);
  return label;
}
