// The fields of the page on which a task is made: filled from the task, and read as what they change of it.

import { _ } from "../look/language.js";
import { termOf, written } from "./sentences.js";
/** @import { Allowance } from "../figure/types.js" */

/**
 * What the fields for numbers take: least, most, and how that is said.
 * @type {Record<string, {least: number, most: number, words: string}>}
 */
const NUMBERS = {
  moves: { least: 1, most: 300, words: _("A move limit is a whole number from 1 to 300, or nothing.") },
  done: { least: 0, most: 300, words: _("Steps given at the start are a whole number, or nothing.") },
  attempts: { least: 1, most: 99, words: _("Attempts are a whole number from 1 to 99, or nothing.") },
  most: { least: 1, most: 99, words: _("How often a tool may be used is a whole number from 1 to 99, or nothing.") },
  scoring: { least: 0, most: 100, words: _("A score is a whole number from 0 to 100, or nothing.") },
};

const POLICY = new Set(["attempts", "feedback", "measuring", "finding", "loci", "scoring"]);

export class TaskFields {
  /**
   * task: {names(), kind(id), model()}: what may stand in a blank, what an object is, and the steps of the sample solution
   * @param {any} form
   * @param {any} task
   */
  constructor(form, task) {
    this.form = form;
    this.task = task;
  }

  /**
   * What is wrong with a number that was typed, said at its field; null where it can be taken. Until it can, the value
   * from before counts.
   * @param {any} field
   * @returns {string | null}
   */
  whatIsWrong(field) {
    const rule = NUMBERS[field.name];
    if (!rule) return null;
    const isRight = this.canBeTaken(field);
    const text = field.value.trim();
    field.setAttribute("aria-invalid", String(!isRight));
    this.#note(field, isRight ? "" : rule.words);
    if (isRight) field.dataset.kept = text;
    return isRight ? null : rule.words;
  }

  /**
   * Whether what stands in a field for a number is one, or nothing.
   * @param {any} field
   */
  canBeTaken(field) {
    const rule = NUMBERS[field.name];
    const text = field.value.trim();
    if (!rule || text === "") return Boolean(rule);
    return /^\d{1,4}$/.test(text) && Number(text) >= rule.least && Number(text) <= rule.most;
  }

  /** @param {any} field @param {string} words */
  #note(field, words) {
    field.parentElement.querySelector(".field-wrong")?.remove();
    if (!words) return;
    const note = Object.assign(document.createElement("small"), {
      className: "field-wrong trouble",
      textContent: words,
    });
    note.setAttribute("role", "alert");
    field.after(note);
  }

  /**
   * What is being typed, or was typed wrongly, stays.
   * @param {Record<string, any>} state
   */
  fill({ document: task, policy, topic }) {
    const { elements } = this.form;
    /** @param {any} field @param {any} value */
    const put = (field, value) => {
      const isWrong = field.getAttribute("aria-invalid") === "true";
      if (field !== document.activeElement && !isWrong) field.value = value;
      field.dataset.kept = String(value ?? "");
    };
    for (const name of ["title", "text"]) put(elements[name], task[name] ?? "");
    put(elements.topic, topic);
    put(elements.moves, task.budget?.moves ?? "");
    put(elements.done, task.start?.length || "");
    put(elements.attempts, policy.attempts ?? "");
    elements.feedback.value = policy.feedback;
    for (const name of ["measuring", "finding", "loci"]) elements[name].checked = policy[name];
    for (const field of elements.scoring) put(field, policy.scoring[field.dataset.outcome] ?? "");
  }

  /** @param {Allowance[]} allowed */
  showTools(allowed) {
    const { elements } = this.form;
    /** @type {Map<string, Partial<Allowance>>} */
    const tools = new Map(allowed.map((one) => (typeof one === "string" ? [one, {}] : [one.tool, one])));
    for (const box of elements.tool) box.checked = tools.has(box.value);
    for (const field of elements.most) {
      const kept = String(tools.get(field.dataset.tool)?.most ?? "");
      if (field.getAttribute("aria-invalid") !== "true") field.value = kept;
      field.dataset.kept = kept;
    }
    elements.opening.value = written(tools.get("circle_radius")?.opening ?? []);
  }

  /**
   * What a field that was changed says: fields of the task's document, its policy or its topic; null for any other field.
   * @param {any} field
   */
  read(field) {
    if (POLICY.has(field.name)) return { policy: this.#policy() };
    switch (field.name) {
      case "tool":
      case "most":
      case "opening":
        this.#tick(field);
        return { tools: this.#tools() };
      case "wanted": {
        const names = [...this.form.querySelectorAll("[name=wanted]:checked")].map(({ value }) => value);
        return { wanted: names.map((name) => ({ kind: this.task.kind(name), name })) };
      }
      case "moves":
        return { budget: numberIn(field) ? { moves: numberIn(field) } : null };
      case "done":
        return { start: numberIn(field) ? this.task.model().slice(0, numberIn(field)) : null };
      case "topic":
        return { topic: field.value };
      default:
        return null;
    }
  }

  /**
   * A tool of which something is said is allowed.
   * @param {any} field
   */
  #tick(field) {
    if (field.name === "tool" || !field.value.trim()) return;
    const about = field.name === "opening" ? "circle_radius" : field.dataset.tool;
    [...this.form.elements.tool].find(({ value }) => value === about).checked = true;
  }

  #tools() {
    const { tool, most, opening } = this.form.elements;
    const bounds = new Map([...most].map((one) => [one.dataset.tool, numberIn(one)]));
    const ends = opening.value.trim() ? [termOf(opening.value, this.task.names())].flat() : null;
    /** @param {string} name */
    const limits = (name) => ({
      ...(bounds.get(name) === null ? {} : { most: bounds.get(name) }),
      ...(name === "circle_radius" && ends ? { opening: ends } : {}),
    });
    return [...tool]
      .filter(({ checked }) => checked)
      .map(({ value }) => (Object.keys(limits(value)).length ? { tool: value, ...limits(value) } : value));
  }

  #policy() {
    const { attempts, feedback, measuring, finding, loci, scoring } = this.form.elements;
    const scores = [...scoring].filter((one) => numberIn(one) !== null);
    return {
      attempts: numberIn(attempts),
      feedback: feedback.value,
      measuring: measuring.checked,
      finding: finding.checked,
      loci: loci.checked,
      scoring: Object.fromEntries(scores.map((one) => [one.dataset.outcome, numberIn(one)])),
    };
  }
}

/**
 * The whole number that stands in a field, or null; where that is wrong, the one from before.
 * @param {any} field
 */
function numberIn(field) {
  const isWrong = field.getAttribute("aria-invalid") === "true";
  const text = (isWrong ? (field.dataset.kept ?? "") : field.value).trim();
  return /^\d+$/.test(text) ? Number(text) : null;
}
