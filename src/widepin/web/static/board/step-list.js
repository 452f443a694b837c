// The list of steps: the construction as numbered sentences. Pointing at one lights up its object; choosing it offers what can
// be done with it.

import { dressing } from "./dressing.js";
import { sentenceOf } from "./tools.js";
import { countOf, isHelper } from "./uses.js";

export class StepList {
  // on: highlighted(id or null), chosen(), and what dressing.js asks for
  constructor(list, count, bar, on) {
    this.list = list;
    this.count = count;
    this.bar = bar;
    this.on = {
      ...on,
      dress: (id, fields) => this.#dress(id, fields, on),
      ask: (id) => this.#ask(id),
    };
    this.chosen = null;
    this.asking = null; // the step that is to be removed, while it is asked whether
    this.unhighlighted = null; // just hidden: not highlighted up again by a pointer that has not moved on
    this.length = 0; // rows shown last time; a new one is scrolled into view
    list.addEventListener("pointerleave", () => {
      this.unhighlighted = null;
      on.highlighted(null);
    });
  }

  // Open the row of a step, as if it had been clicked; null closes whatever is open.
  choose(id) {
    this.chosen = this.own.some((step) => step.id === id) ? id : null;
    this.on.chosen();
    if (this.chosen) this.#rowOf(id).scrollIntoView({ block: "nearest" });
  }

  // Ask to remove a step, in its row.
  askToRemove(id) {
    this.choose(id);
    if (this.chosen) this.#rowOf(id).querySelector("[data-remove]").click();
  }

  #rowOf(id) {
    return this.list.querySelector(`[data-step="${CSS.escape(id)}"]`);
  }

  #typeOn(before) {
    const field = this.list.querySelector(".dressing input");
    if (!field) return;
    field.value = before.value;
    field.focus();
    field.setSelectionRange(before.selectionStart, before.selectionEnd);
  }

  #ask(id) {
    this.asking = id;
    this.on.chosen();
    this.list.querySelector(".asking button")?.focus();
  }

  #dress(id, fields, on) {
    this.asking = null;
    if (fields.hidden) {
      this.unhighlighted = id;
      on.highlighted(null);
    }
    on.dress(id, fields);
  }

  #light(id) {
    if (id === this.unhighlighted) return;
    this.unhighlighted = null;
    this.on.highlighted(id);
  }

  // done: steps that were done for the student; own: the student's
  show(figure, done, own, makes, budget) {
    this.own = own;
    /** @type {any} */
    const active = document.activeElement;
    const focused = active?.closest?.("[data-step]")?.dataset.step;
    let moves = 0;
    const rows = own.flatMap((step) => {
      const before = moves;
      moves += countOf(step, makes);
      return isHelper(step) && step.hidden ? [] : [this.#row(figure, step, numbered(before, moves))];
    });
    if (rows.length === 0) {
      const empty = document.createElement("li");
      empty.className = "empty";
      empty.textContent = "Nothing is drawn yet. Take a tool.";
      rows.push(empty);
    }
    // A save that is answered meanwhile must not take the question away, nor a name that is being typed.
    const typed = active?.matches?.(".dressing input") ? active : null;
    const question = active?.closest?.(".asking");
    const at = question ? [...question.querySelectorAll("button")].indexOf(active) : -1;
    this.list.replaceChildren(...done.map((step) => this.#doneRow(figure, step)), ...rows);
    if (at >= 0) this.list.querySelectorAll(".asking button")[at]?.focus();
    else if (typed) this.#typeOn(typed);
    else if (focused) this.list.querySelector(`[data-step="${CSS.escape(focused)}"] > button`)?.focus();
    else if (own.length > this.length) this.list.lastElementChild.scrollIntoView({ block: "nearest" });
    this.length = own.length;
    this.count.textContent = budget ? `${moves} of ${budget} moves` : `${moves} ${moves === 1 ? "move" : "moves"}`;
    this.count.classList.toggle("over", Boolean(budget) && moves > budget);
    if (this.bar) {
      this.bar.max = budget ?? 1;
      this.bar.value = Math.min(moves, budget ?? 0);
    }
  }

  #doneRow(figure, step) {
    const row = document.createElement("li");
    row.className = "done-already";
    const mark = document.createElement("b");
    mark.textContent = "done";
    row.append(mark, this.#sentence(figure, step, !figure.isDefined(step.id)));
    row.addEventListener("pointerenter", () => this.#light(step.id));
    return row;
  }

  #row(figure, step, number) {
    const row = document.createElement("li");
    row.dataset.step = step.id;
    const gone = !figure.isDefined(step.id);
    row.className = [this.chosen === step.id ? "chosen" : "", gone ? "gone" : "", step.hidden ? "is-hidden" : ""].join(
      " ",
    );
    const line = document.createElement("button");
    line.type = "button";
    line.setAttribute("aria-expanded", String(this.chosen === step.id));
    const place = document.createElement("b");
    place.textContent = number ?? "";
    line.append(place, this.#sentence(figure, step, gone));
    line.addEventListener("pointerenter", () => this.#light(step.id));
    line.addEventListener("focus", () => this.#light(step.id));
    line.addEventListener("blur", () => this.on.highlighted(null));
    line.addEventListener("click", () => {
      this.chosen = this.chosen === step.id ? null : step.id;
      this.on.highlighted(step.id);
      this.on.chosen();
    });
    row.append(line);
    if (this.chosen === step.id) row.append(dressing(figure, this.own, step, this.on, this.asking === step.id));
    return row;
  }

  #sentence(figure, step, gone) {
    const text = document.createElement("span");
    text.append(named(figure, step.id), ":");
    for (const part of sentenceOf(step, figure.book)) {
      if (!part.joined && !`${part}`.startsWith(",")) text.append(" ");
      text.append(typeof part === "string" ? part : named(figure, part.id));
    }
    if (gone) text.append(" (undefined in this position)");
    if (step.hidden) text.append(" (hidden)");
    return text;
  }
}

// Which of all moves a step is: 3, or 3–6 for a tool that counts as several.
function numbered(before, now) {
  if (now === before) return null;
  return now === before + 1 ? now : `${before + 1}–${now}`;
}

function named(figure, id) {
  const name = document.createElement("i");
  name.textContent = figure.has(id) ? figure.step(id).label || id : id;
  return name;
}
