// The fields of the page on which a task is made: filled from the task, and read as what they change of it.

import { termOf, written } from "./sentences.js";
/** @import { Allowance } from "../figure/types.js" */

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
   * What is being typed stays.
   * @param {Record<string, any>} state
   */
  fill({ document: task, policy, topic }) {
    const { elements } = this.form;
    /** @param {any} field @param {any} value */
    const put = (field, value) => {
      if (field !== document.activeElement) field.value = value;
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
    for (const field of elements.most) field.value = tools.get(field.dataset.tool)?.most ?? "";
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
 * A whole number that stands in a field, or null.
 * @param {{value: string}} field
 */
function numberIn({ value }) {
  return /^\d+$/.test(value.trim()) ? Number(value) : null;
}
