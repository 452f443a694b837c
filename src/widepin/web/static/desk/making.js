// Making a task in five steps beside its figure, stored as it grows.

import { _, ngettext } from "../look/language.js";
import { find, post } from "../look/page.js";
import { sayState } from "../look/save-state.js";
import { html, nothing, render } from "../vendor/lit-html/lit-html.js";
import { isSame, Storing } from "../look/storing.js";
import { ToolBook } from "../figure/tape.js";
import { Conditions, isUnfinished } from "./conditions.js";
import { FigureOfTask } from "./figure-of-task.js";
import { MakingSteps } from "./making-steps.js";
import { plainButton } from "./plain-button.js";
import { Proposals } from "./proposals.js";
import { TaskCheck } from "./task-check.js";
import { TaskFields } from "./task-fields.js";
import { WrongSolutions } from "./wrong-solutions.js";
import { nameOf } from "./sentences.js";
/** @import { Allowance, Condition } from "../figure/types.js" */

/** @type {Record<string, string>} */
const PARTS = {
  given: _("the given figure"),
  model: _("the sample solution"),
  wanted: _("the answer"),
  conditions: _("the conditions"),
  tools: _("the tools"),
};

const A_MOMENT = 1200; // milliseconds without a change, after which it is looked at whether all fits

class Making {
  /** @type {number | undefined} */
  looking;

  /** @param {any} page @param {ToolBook} book */
  constructor(page, book) {
    this.page = page;
    this.book = book;
    this.proposing = null; // conditions proposed from the model, while they are on their way
    this.state = JSON.parse(page.dataset.state);
    this.form = page.querySelector("form.parts");
    this.readyMade = JSON.parse(page.dataset.readyMade);
    this.toolSets = JSON.parse(page.dataset.toolSets);
    this.figure = new FigureOfTask(book, page.querySelector(".making-figure svg"), (name, isPoint) =>
      this.conditions.point(this.#nameOf(name), isPoint),
    );
    this.conditions = new Conditions(book.relations, page.querySelector("[data-conditions]"), {
      names: () => this.#names(),
      changed: (conditions) => this.change({ conditions }),
      wrong: (words) => this.#notTaken(words),
    });
    this.fields = new TaskFields(this.form, {
      names: () => this.#names(),
      /** @param {string} id */
      kind: (id) => this.figure.kind(id),
      model: () => this.document.model,
    });
    this.proposals = new Proposals(page.querySelector("[data-suggestions]"), {
      conditions: () => this.document.conditions,
      /** @param {Condition[]} conditions */
      take: (conditions) => this.#takeConditions(conditions),
    });
    this.taskCheck = new TaskCheck(page.querySelector("[data-task-check]"), book, {
      ask: (/** @type {Condition[]} */ conditions) => {
        this.#takeConditions(conditions);
        this.#checkTask();
      },
      keepWrong: (steps) => this.wrongSolutions.keep(steps),
    });
    this.wrongSolutions = new WrongSolutions(page.querySelector("[data-wrong-solutions]"), book, {
      url: () => this.state.urls.keep_wrong,
      given: () => this.document.given,
      changed: () => this.#seeWhatFits(),
    });
    this.checked = _("not checked"); // what the last check of the task found, in a few words
    /** @type {Record<string, string>} */
    this.misfits = {}; // what does not fit, in a few words, by the step of making the task
    this.steps = new MakingSteps(page, this.state.urls.page, () => this.#lacks());
    this.storing = new Storing({
      url: this.state.urls.save,
      server: fieldsOf(this.state),
      body: ({ policy, topic, ...fields }, was) => ({ document: fields, policy, topic, made_from: was }),
      on: {
        state: (words, isTrouble, signIn) => this.#sayState(words, isTrouble, signIn),
        /** @param {any} answer @param {Record<string, any>} newer */
        stored: (answer, newer) => this.#stored(answer, newer),
        /** @param {string} words */
        refused: (words) => {
          this.page.querySelector("[data-trouble]").textContent = words;
        },
      },
    });
    const unstored = this.storing.unstored("given", "model");
    if (Object.keys(unstored).length) this.change(unstored);
    this.#begin();
    this.#listen();
    this.show();
    page.dataset.ready = "yes";
    this.#seeWhatFits();
  }

  get document() {
    return this.state.document;
  }

  // -- showing ------------------------------------------------------------------------------------

  show() {
    const { document: task } = this;
    this.figure.show(task);
    this.conditions.show(task.conditions);
    this.fields.showTools(this.document.tools);
    this.#showWanted();
    this.#showTrouble();
    this.wrongSolutions.show(this.state.wrong);
  }

  // What each step still lacks, in two or three words; null for a check that nobody has asked for.
  #lacks() {
    const { title, given, tools, model, wanted, conditions } = this.document;
    /** @type {Record<string, string>} */
    const wrong = { given: "given", title: "given", tools: "tools", budget: "limits", start: "limits" };
    const { trouble } = this.state;
    /** @type {Record<string, string>} */
    const lacks = {
      given: !title?.trim() ? _("title missing") : given.length === 0 ? _("missing") : "",
      // A new task has a set of tools to begin with, which nobody has chosen.
      tools: tools.length === 0 || given.length + model.length === 0 ? _("not chosen yet") : "",
      wanted:
        model.length === 0
          ? _("sample solution missing")
          : wanted.length === 0
            ? _("answer missing")
            : conditions.length === 0
              ? _("conditions missing")
              : "",
      limits: "",
    };
    const at = trouble && (wrong[trouble.place.match(/^\w+/)?.[0]] ?? "wanted");
    if (at && !Object.values(lacks).some(Boolean)) lacks[at] = _("see the note");
    for (const [step, words] of Object.entries(this.misfits)) lacks[step] ||= words;
    return { ...lacks, check: trouble ? _("what is missing above") : lacks.check || this.checked };
  }

  #showTrouble() {
    this.steps.refresh();
    const { trouble } = this.state;
    this.page.querySelector("[data-trouble]").textContent = trouble ? this.#stillToDo(trouble) : "";
    this.conditions.mark(trouble?.place);
    this.#showStudentsRead();
    this.page.querySelector("[data-version]").textContent = this.state.version;
    for (const [name, selector] of Object.entries({
      given: "[data-draw=given]",
      model: "[data-draw=model]",
      trial: "[data-trial]",
      proof: "[data-proof]",
      assign: "[data-assign]",
    })) {
      const link = this.page.querySelector(selector);
      link.href = this.state.urls[name];
      if (name !== "given" && name !== "model") link.classList.toggle("disabled", Boolean(trouble));
    }
  }

  /** @param {{place: string, words: string}} trouble */
  #stillToDo({ place, words }) {
    const unfinished = this.document.conditions.findIndex(isUnfinished);
    if (place.startsWith("conditions") && unfinished >= 0)
      return _("Still to do: condition %(n)s has an empty blank.", { n: unfinished + 1 });
    const part = PARTS[place.match(/^\w+/)?.[0] ?? ""] ?? place;
    return _("Still to do in %(part)s: %(words)s.", { part, words: words.replace(/\.$/, "") });
  }

  // What is typed wrongly is not saved, whatever else is.
  #sayState(/** @type {string} */ words, /** @type {boolean} */ isTrouble, /** @type {string | null} */ signIn = null) {
    const wrong = this.form.querySelector("[aria-invalid=true]");
    if (isTrouble || !wrong) return sayState(words, isTrouble, signIn);
    return sayState(_("Not all is saved: see what is marked"), true);
  }

  /** @param {string} words */
  #notTaken(words) {
    sayState(_("Not saved: %(words)s", { words }), true);
  }

  // What the task says to students, and what of it tells how it is done.
  #showStudentsRead() {
    const panel = this.page.querySelector("[data-students-read]");
    const read = this.state.students_read;
    panel.hidden = !read;
    if (!read) return render(nothing, panel);
    render(
      html`<h3>${_("Students read")}</h3>
        <p>${read.asked}</p>
        <ul>
          ${read.conditions.map((/** @type {string} */ clause) => html`<li>${clause}</li>`)}
        </ul>
        ${
          read.foreign.length
            ? html`<p class="trouble">
                ${_("The sample solution is made with tools that students do not have: %(tools)s.", {
                  tools: read.foreign.join(", "),
                })}
              </p>`
            : nothing
        }
        ${
          read.gives_away.length
            ? html`<p class="trouble">
                ${_("This tells how it is done: %(clauses)s. A condition on given objects alone would not.", {
                  clauses: read.gives_away.join("; "),
                })}
              </p>`
            : nothing
        }`,
      panel,
    );
  }

  // Objects of the model that may be the answer; those that nothing else is made from come first.
  #showWanted() {
    const { model, wanted } = this.document;
    const used = new Set(model.flatMap((/** @type {{from?: string[]}} */ { from = [] }) => from));
    const names = new Set(wanted.map((/** @type {{name: string}} */ { name }) => name));
    const sorted = [...model].sort((a, b) => Number(used.has(a.id)) - Number(used.has(b.id)));
    const boxes = sorted.map(({ id }) => {
      const label = document.createElement("label");
      const box = document.createElement("input");
      box.type = "checkbox";
      box.name = "wanted";
      box.value = id;
      box.checked = names.has(id);
      label.append(box, ` ${this.figure.kind(id)} `, Object.assign(document.createElement("i"), { textContent: id }));
      return label;
    });
    this.page.querySelector("[data-wanted]").replaceChildren(...boxes);
    this.page.querySelector("[data-model-words]").textContent = model.length
      ? ngettext("%(n)s step", "%(n)s steps", model.length)
      : _("Nothing is drawn yet.");
  }

  #begin() {
    this.fields.fill(this.state);
    this.page
      .querySelector("[data-figures]")
      .append(...Object.keys(this.readyMade).map((name) => plainButton(name, () => this.#takeFigure(name))));
    this.page
      .querySelector("[data-sets]")
      .append(
        ...Object.keys(this.toolSets).map((name) => plainButton(name, () => this.#takeTools(this.toolSets[name]))),
      );
    this.page
      .querySelector("[data-relation]")
      .append(...Object.entries(this.book.relations).map(([rel, relation]) => new Option(nameOf(relation), rel)));
  }

  /**
   * A set of tools; a compass with one opening gets the distance of the first two given points.
   * @param {Allowance[]} tools
   */
  #takeTools(tools) {
    const points = this.document.given
      .filter((/** @type {{id: string}} */ { id }) => this.figure.kind(id) === "point")
      .map((/** @type {{id: string}} */ { id }) => id);
    const locked = tools.find(({ opening }) => opening);
    if (locked && points.length < 2)
      return sayState(_("Draw two given points first: their distance is the fixed radius"), true);
    this.change({ tools: tools.map((one) => (one === locked ? { ...one, opening: points.slice(0, 2) } : one)) });
    return this.fields.showTools(this.document.tools);
  }

  // -- changing -----------------------------------------------------------------------------------

  /**
   * fields: of the task's document, its policy or its topic
   * @param {Record<string, any>} fields
   */
  change(fields) {
    this.#take(fields);
    this.checked = _("not checked");
    this.misfits = {};
    this.steps.refresh();
    this.storing.change(fields);
  }

  // Whether tools, limit, conditions and wrong solutions fit together, looked at a moment after each change.
  #seeWhatFits() {
    clearTimeout(this.looking);
    if (this.state.trouble) return;
    this.looking = setTimeout(async () => {
      const url = this.state.urls.check_task;
      const answer = await post(`${url}?quick`).catch(() => null);
      const found = answer?.ok ? await answer.json().catch(() => null) : null;
      if (found?.headline && this.storing.isDone && url === this.state.urls.check_task) this.#showWhatFits(found);
    }, A_MOMENT);
  }

  /** @param {any} found */
  #showWhatFits(found) {
    this.misfits = found.at_steps;
    if (!found.solved) this.checked = _("does not solve it");
    this.wrongSolutions.showOutcomes(found.wrong);
    this.steps.refresh();
  }

  /** @param {Record<string, any>} fields */
  #take({ policy, topic, ...fields }) {
    Object.assign(this.document, fields);
    if (policy) this.state.policy = policy;
    if (topic !== undefined) this.state.topic = topic;
  }

  // Back on this page, it may have been drawn or changed in another window meanwhile.
  async #catchUp() {
    if (document.hidden || !this.storing.isDone) return;
    const answer = await fetch(this.state.urls.json).catch(() => null);
    if (answer?.ok && JSON.stringify(await answer.json()) !== JSON.stringify(this.document)) location.reload();
  }

  /**
   * An assigned task is never changed: from now on this is its next version.
   * @param {any} answer
   * @param {Record<string, any>} newer
   */
  #stored(answer, newer) {
    if (answer.urls.page !== this.state.urls.page) history.replaceState(null, "", answer.urls.page);
    this.storing.url = answer.urls.save;
    const before = fieldsOf(this.state);
    this.state = answer;
    const server = fieldsOf(answer);
    this.#take(newer);
    const after = fieldsOf(this.state);
    if (Object.keys({ ...before, ...after }).some((name) => !isSame(before[name], after[name]))) {
      this.fields.fill(this.state); // something was changed in another window too
      this.show();
    }
    this.#showTrouble();
    if (!Object.keys(newer).length) this.#seeWhatFits();
    return server;
  }

  // What may stand in a blank: the answer's names, the given objects, and the model's as the model's.
  #names() {
    const { given, model, wanted } = this.document;
    return new Set([
      ...wanted.map((/** @type {{name: string}} */ { name }) => name),
      ...given.map((/** @type {{id: string}} */ { id }) => id),
      ...model.map((/** @type {{id: string}} */ { id }) => `model:${id}`),
    ]);
  }

  /** @param {string} id */
  #nameOf(id) {
    return this.#names().has(id) ? id : `model:${id}`;
  }

  /** @param {Condition[]} conditions */
  #takeConditions(conditions) {
    this.change({ conditions });
    this.conditions.show(conditions);
    this.proposals.show();
  }

  /** @param {string} name */
  #takeFigure(name) {
    const { given, model } = this.document;
    const isNew = given.length === 0 && model.length === 0;
    if (
      !isNew &&
      !confirm(_("Use this figure? The given figure, the sample solution and the conditions are replaced."))
    )
      return;
    this.change({ given: this.readyMade[name], model: [], wanted: [], conditions: [], start: null });
    this.show();
  }

  // The whole page from a task of the task library. Fields that it does not have go too.
  async #fill() {
    const choice = this.page.querySelector("[data-template]");
    const { given, model } = this.document;
    if (!choice.value) return choice.focus();
    if ((given.length || model.length) && !confirm(_("Start from this task? What is on the page is replaced."))) return;
    let known;
    try {
      known = await (await fetch(choice.value, { headers: { Accept: "application/json" } })).json();
    } catch {
      return sayState(_("No connection; nothing was changed"), true);
    }
    const { format: _format, ...fields } = known.document;
    this.change({ start: null, budget: null, ...fields, topic: known.topic });
    this.fields.fill(this.state);
    this.proposals.hide();
    this.show();
  }

  #listen() {
    const { form } = this;
    form.addEventListener("submit", (/** @type {any} */ event) => event.preventDefault());
    form.addEventListener("change", (/** @type {{target: any}} */ { target }) => {
      const wrong = this.fields.whatIsWrong(target);
      if (wrong) return this.#notTaken(wrong);
      const fields = this.fields.read(target);
      if (fields) this.change(fields);
    });
    form.addEventListener("input", (/** @type {{target: any}} */ { target }) => {
      if (target.name === "title" || target.name === "text") this.change({ [target.name]: target.value });
      else if (target.matches("input:not([type=checkbox])") && this.fields.canBeTaken(target)) {
        const fields = this.fields.read(target);
        if (fields) this.change(fields); // it counts though the field is never left
      }
    });
    const on = (/** @type {string} */ selector, /** @type {(event: any) => void} */ action) =>
      this.page.querySelector(selector).addEventListener("click", action);
    on("[data-add]", () => this.conditions.add(this.page.querySelector("[data-relation]").value));
    on("[data-fill]", () => this.#fill());
    on("[data-propose]", () => {
      this.proposing = this.#propose();
    });
    on("[data-check-task]", () => this.#checkTask());
    on("[data-as-model]", () =>
      this.#checkTask(({ moves }) => {
        if (!moves) return;
        form.elements.moves.value = moves;
        this.change({ budget: { moves } });
      }, this.page.querySelector("[data-limit-said]")),
    );
    on("[data-fewest]", ({ currentTarget }) => this.#searchFewest(currentTarget));
    for (const link of this.page.querySelectorAll("[data-draw], [data-trial], [data-proof], [data-assign]")) {
      link.addEventListener("click", async (/** @type {any} */ event) => {
        event.preventDefault();
        if (!link.classList.contains("disabled") && (await this.storing.store())) location.assign(link.href);
      });
    }
    this.page.querySelector("[data-confirm]").addEventListener("click", (/** @type {any} */ event) => {
      if (!confirm(event.target.dataset.confirm)) event.preventDefault();
    });
    addEventListener("pageshow", (event) => {
      if (event.persisted) location.reload();
    });
    document.addEventListener("visibilitychange", () => this.#catchUp());
  }

  /**
   * The fewest moves that the search finds, offered as the limit.
   * @param {HTMLButtonElement} button
   */
  async #searchFewest(button) {
    const said = this.page.querySelector("[data-limit-said]");
    const offer = this.page.querySelector("[data-take-fewest]");
    button.disabled = true;
    offer.hidden = true;
    said.textContent = _("Searching; this may take some seconds …");
    await this.storing.store();
    const answer = await post(this.state.urls.fewest).catch(() => null);
    const found = await answer?.json().catch(() => null);
    button.disabled = false;
    said.textContent = found?.said ?? found?.error ?? _("There is no connection. Nothing is lost; try again.");
    if (found?.goes_on) button.textContent = _("Go on with the search");
    if (!found?.moves) return;
    offer.hidden = false;
    const [take] = offer.children;
    take.textContent = ngettext("Take %(n)s move as the limit", "Take %(n)s moves as the limit", found.moves);
    take.onclick = () => {
      this.form.elements.moves.value = found.moves;
      this.fields.whatIsWrong(this.form.elements.moves);
      this.change({ budget: { moves: found.moves } });
      offer.hidden = true;
    };
  }

  async #propose() {
    await this.storing.store();
    const said = this.page.querySelector("[data-trouble]");
    said.textContent = _("Looking for conditions that hold …");
    const wanted = this.document.wanted.map((/** @type {{name: string}} */ { name }) => name);
    const error = await this.proposals.ask(this.state.urls.propose, wanted);
    this.#showTrouble();
    if (error) said.textContent = error;
  }

  /**
   * known(found): as soon as the sample solution is judged, while wrong works that would pass are still looked for
   * said: an element where the headline stands too
   * @param {(found: any) => void} [known]
   * @param {HTMLElement | null} [said]
   */
  async #checkTask(known = (_found) => {}, said = /** @type {HTMLElement | null} */ (null)) {
    this.taskCheck.wait();
    if (said) said.textContent = _("Checking the sample solution …");
    await this.proposing; // conditions that are on their way are tried too
    await this.storing.store();
    let found;
    try {
      found = await (await post(`${this.state.urls.check_task}?quick`)).json();
      known(found);
      this.checked = found.solved ? "" : _("does not solve it");
      this.#showWhatFits(found);
      if (said) said.textContent = found.headline ?? found.error;
      if (found.solved) {
        this.taskCheck.show(found);
        this.taskCheck.searching();
        found = await (await post(this.state.urls.check_task)).json();
      }
    } catch {
      found = { error: _("There is no connection. Nothing is lost; try again.") };
      if (said) said.textContent = found.error;
    }
    this.taskCheck.show(found);
    return found;
  }
}

/**
 * What can be changed of a task, as one.
 * @param {Record<string, any>} state
 */
function fieldsOf({ document: task, policy, topic }) {
  return { ...task, policy, topic };
}

const page = find(".making");
page.making = new Making(page, await ToolBook.load(String(document.body.dataset.toolBook)));
