// What the buttons around the paper do, by the names that they carry; keys run the same.

import { _, ngettext } from "../look/language.js";
import { labelOf } from "../figure/outlines.js";
import { findAll } from "../look/page.js";
import { pngOf, save, svgOf } from "./examining/copies.js";
import { NOTE, SELECT } from "./construction/tools.js";
/** @import { Board } from "./board.js" */
/** @import { Step } from "../figure/types.js" */

const NO_JSON = _("is not JSON; choose one that was exported from a board.");

export class Commands {
  /**
   * parts: page, setting, store, paper, bar, notes, taking, dragTest, result, handingIn, roles()
   * @param {Board} parts
   */
  constructor(parts) {
    this.parts = parts;
    const { store, paper, taking } = parts;
    /** @type {Record<string, () => unknown>} */
    this.actions = {
      undo: () => store.canUndo && this.#undo(),
      redo: () => store.canRedo && store.perform({ op: "redo" }),
      fit: () => paper.fit(),
      closer: () => paper.zoom(1.25),
      farther: () => paper.zoom(0.8),
      arcs: () => this.#toggleArcs(),
      "show all": () => store.perform({ op: "dress", id: store.hidden, dress: { hidden: false } }),
      "reset positions": () => this.#resetPositions(),
      "drag test": () => this.#dragTest(),
      "note position": () => parts.positions.note(),
      compare: () => parts.positions.toggleGhost(),
      steps: () => parts.sheets.toggle("steps"),
      more: () => parts.sheets.toggle("more"),
      note: () => taking.take(NOTE),
      "select several": () => taking.take(SELECT),
      hint: () => {
        if (parts.result.isOpen) parts.result.close();
        parts.hinting?.ask();
      },
      "how far": () => parts.hinting?.howFar(),
      "hand in": () => {
        const why = this.#whyNothingToHandIn();
        if (why) return parts.bar.announce(why, true);
        if (parts.result.isOpen) parts.result.close();
        parts.handingIn.ask();
      },
    };
    for (const button of findAll("[data-do]", parts.page))
      button.addEventListener("click", () => this.run(button.dataset.do));
    for (const button of findAll("[data-copy]", parts.page))
      button.addEventListener("click", () => this.#export(button.dataset.copy));
    for (const file of findAll(".copies input", parts.page))
      file.addEventListener("change", async () => {
        await this.#import(file.files[0]);
        file.value = "";
      });
  }

  /** @param {string} name */
  run(name) {
    this.actions[name]();
  }

  // Whether each can be done now, and what is pressed.
  show() {
    const { page, store, hand, paper, dragTest } = this.parts;
    /** @param {string} name */
    const button = (name) => page.querySelector(`[data-do='${name}']`);
    button("undo").disabled = !store.canUndo;
    button("redo").disabled = !store.canRedo;
    button("show all").hidden = store.hidden.length === 0;
    const why = this.#whyNothingToHandIn();
    for (const one of findAll("[data-do='hand in']", page)) {
      one.setAttribute("aria-disabled", String(why !== null)); // it can be pressed all the same, and says why
      one.title = why ?? "";
    }
    for (const name of ["note", "select several"])
      button(name).setAttribute("aria-pressed", String(hand.tool?.make === name));
    button("compare").setAttribute("aria-pressed", String(this.parts.positions.isComparing));
    button("arcs").setAttribute("aria-pressed", String(paper.showsArcs));
    button("drag test").textContent = dragTest.isOn ? _("Stop") : _("Drag test");
  }

  // Why nothing can be handed in now, null where it can.
  #whyNothingToHandIn() {
    const { standing, store } = this.parts;
    return standing?.notTaken ?? (store.own.length ? null : _("There is nothing on the board to hand in yet."));
  }

  // What another window did is named when it is taken back.
  #undo() {
    const { store, bar } = this.parts;
    const undone = store.lastFromElsewhere;
    store.perform({ op: "undo" });
    if (!undone) return;
    const { step } = undone;
    bar.announce(
      step
        ? _("%(name)s, from another window, is undone. Redo brings it back.", { name: step.label ?? step.id })
        : _("What another window did last is undone. Redo brings it back."),
    );
  }

  // Esc: out of what is open, the last opened first.
  stepBack() {
    const { page, dragTest, result, sheets, taking, objectMenu } = this.parts;
    const open = page.querySelector("details.keys[open], details.copies[open]");
    if (open) open.open = false;
    else if (objectMenu.isOpen) objectMenu.close();
    else if (sheets.closeAny()) return;
    else if (dragTest.isOn) dragTest.stop();
    else if (result.isOpen) result.close();
    else if (this.parts.hinting?.isOpen) this.parts.hinting.putAway();
    else taking.putDown();
  }

  toggleHelp() {
    const help = this.parts.page.querySelector("details.keys");
    help.open = !help.open;
  }

  #toggleArcs() {
    const { paper, show } = this.parts;
    paper.showsArcs = !paper.showsArcs;
    show();
  }

  #dragTest() {
    const { dragTest, bar, show } = this.parts;
    if (dragTest.isOn) return dragTest.stop();
    dragTest.start();
    bar.announce(
      dragTest.isOn ? _("Drag test: watch whether it holds.") : _("There is no point that could be dragged."),
    );
    show();
  }

  // Every point back where the task or the student first put it.
  #resetPositions() {
    const { store, bar } = this.parts;
    const points = store.movedFrom;
    const isMoved = Object.keys(points).length > 0;
    if (isMoved) store.perform({ op: "move", points });
    bar.announce(isMoved ? _("Every point is where it was first put.") : _("No point has been moved."));
  }

  /**
   * Hides what a step is not made from; what is hidden is still there.
   * @param {string} id
   */
  hideRest(id) {
    const { store, bar } = this.parts;
    const rest = store.notNeededBy(id);
    if (rest.length) store.perform({ op: "dress", id: rest, dress: { hidden: true } });
    bar.announce(
      _("What %(name)s does not need is hidden. Show all brings it back.", { name: labelOf(store.figure, id) }),
    );
  }

  // -- files ----------------------------------------------------------------------------------------

  /**
   * Steps from a file; the server takes all of them or says what is wrong with one.
   * @param {File | undefined} file
   */
  async #import(file) {
    if (!file) return;
    const { setting, saving, store, paper, bar } = this.parts;
    let work;
    try {
      work = JSON.parse(await file.text());
    } catch {
      return bar.announce(`${file.name} ${NO_JSON}`, true);
    }
    const { operations, error } = (await saving.importSteps?.(setting.urls.import, work)) ?? {};
    if (!operations) return bar.announce(`${file.name}: ${error}`, true);
    store.takeIn(operations);
    this.parts.page.querySelector(".copies").open = false;
    paper.fit();
    bar.announce(ngettext("%(n)s step imported.", "%(n)s steps imported.", operations.length));
  }

  /** @param {string} kind */
  async #export(kind) {
    const { page, store, notes, roles, bar } = this.parts;
    const name = document.title.split(" · ")[0];
    switch (kind) {
      case "svg":
        save((await svgOf(store.figure, roles(), notes.all)).text, `${name}.svg`, "image/svg+xml");
        break;
      case "png":
        save(await pngOf(store.figure, roles(), notes.all), `${name}.png`);
        break;
      case "json":
        save(JSON.stringify(constructionOf(store.own), null, 1), `${name}.json`, "application/json");
        break;
      default:
        throw new Error(`${kind} is no kind of file`);
    }
    page.querySelector(".copies").open = false;
    bar.announce(_("Exported to your downloads."));
  }
}

/** @param {Step[]} own */
function constructionOf(own) {
  return { steps: own.map(({ within: _within, ...step }) => step) };
}
