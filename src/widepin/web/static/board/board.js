// The drawing board: brings the construction, the tool in hand, the paper and everything around it together.

import { _, ngettext } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { sayState } from "../look/save-state.js";
import { labelOf, outlineOf } from "../figure/outlines.js";
import { ToolBook } from "../figure/tape.js";
import { actionsFor } from "./objects/object-actions.js";
import { Building } from "./tools/building.js";
import { Claims } from "./examining/claims.js";
import { Chooser } from "./paper/chooser.js";
import { Commands } from "./commands.js";
import { DragHint } from "./paper/drag-hint.js";
import { Drafting } from "./construction/drafting.js";
import { DragTest } from "./examining/drag-test.js";
import { Elementary } from "./examining/elementary.js";
import { Equalities } from "./examining/equalities.js";
import { Focus } from "./focus.js";
import { Hand } from "./tools/hand.js";
import { HandingIn } from "./task/handing-in.js";
import { Hinting } from "./task/hinting.js";
import { hints } from "./tools/hints.js";
import { Hits } from "../figure/hits.js";
import { described } from "../figure/step-words.js";
import { Keys } from "./keys.js";
import { lociPaths } from "./examining/loci.js";
import { Measures } from "./examining/measures.js";
import { Notes } from "./examining/notes.js";
import { ObjectMenu, whatItIs } from "./objects/object-menu.js";
import { fits, wordsFor } from "./paper/offers.js";
import { OffPaper } from "./paper/off-paper.js";
import { Paper } from "./paper/paper.js";
import { Pointed } from "./paper/pointed.js";
import { Pointing } from "./paper/pointing.js";
import { Positions } from "./examining/positions.js";
import { Presence } from "./task/presence.js";
import { Result } from "./task/result.js";
import { rolesOf } from "./paper/roles.js";
import { Saving } from "./construction/saving.js";
import { Selection } from "./paper/selection.js";
import { SentenceBar } from "./tools/sentence-bar.js";
import { Sheets } from "./sheets.js";
import { StepList } from "./objects/step-list.js";
import { Standing } from "./task/standing.js";
import { Store } from "./construction/store.js";
import { Taking } from "./tools/taking.js";
import { Toolbar } from "./tools/toolbar.js";
import { allowed, inGroups } from "./construction/tools.js";
import { ClassToolFigure, fromClassTool } from "./construction/uses.js";
import { Vanished, whyGone } from "./examining/vanished.js";
/** @import { Draft, Dress, Entry, OnSaving, Saver, Setting } from "./types.js" */
/** @import { Place, Step } from "../figure/types.js" */

// What is said over an empty board, by what is drawn on it.
/** @type {Record<string, string>} */
const WELCOME = {
  given: _("Draw what is given to the students. Start with some points."),
  model: _("Draw one correct construction, with any tools."),
  trial: _("Drag the given points and see how the figure moves."),
};

export class Board {
  /** @type {Place[]} */
  #candidates = []; // intersections that could be marked, while that tool is in hand

  /** @param {any} page @param {ToolBook} book @param {Setting} setting */
  constructor(page, book, setting) {
    /** @param {string} selector */
    const at = (selector) => find(selector, page);
    this.page = page;
    this.setting = setting;
    const classTools = (setting.class_tools ?? []).map((one) => fromClassTool(one, book));
    this.tools = inGroups([...allowed(setting.tools, setting.measuring, book), ...classTools]);

    // The construction, what is in hand, and where they are seen.
    this.store = new Store(book, setting);
    this.hand = new Hand();
    this.pointed = new Pointed(() => this.#pointedElsewhere());
    this.bar = new SentenceBar(at(".sentence-bar"), {
      /** @param {string} text */
      typed: (text) => this.building.typed(text, false),
      /** @param {string} text */
      entered: (text) => this.building.typed(text, true),
      /** @param {number} place */
      emptied: (place) => {
        this.hand.emptyAt(place);
        this.show();
        this.bar.focus();
      },
    });
    const outline = () => [...outlineOf(this.store.figure), ...(this.hand.meetings ?? []).map((one) => one.at)];
    this.paper = new Paper(at(".paper"), outline, setting.extent ?? [], () => this.paint());
    this.offPaper = new OffPaper(at(".off-paper"), this.paper);
    this.show = this.show.bind(this);
    this.paint = this.paint.bind(this);
    this.roles = this.roles.bind(this);

    // What changes them.
    this.saving = this.#saving();
    this.taking = new Taking(this);
    const { saving, store } = this;
    this.claims = new Claims({ url: setting.urls.claims, saving, store, changed: this.show });
    this.measures = new Measures(at(".measures"), this.claims, (of) => store.perform({ op: "stop measuring", of }));
    this.equalities = new Equalities(at(".equalities"), this.claims, (of) => store.perform({ op: "unmark equal", of }));
    this.positions = new Positions(at(".positions"), this);
    this.elementary = new Elementary(this, this.show);
    this.dragHint = new DragHint(this);
    this.notes = new Notes(at(".notes"), (note) => this.store.perform({ op: "note", ...note }));
    this.selection = new Selection(at(".selected-objects"), this);
    this.handingIn = new HandingIn(at(".handing-in"), this, {
      closed: () => at("[data-do='hand in']")?.focus(),
      done: (result) => this.#handedIn(result),
    });
    this.building = new Building(this, this);
    this.dragTest = new DragTest(this);
    this.result = new Result(at(".result-strip"), this);
    this.hinting = at(".hint-strip") && new Hinting(at(".hint-strip"), this);
    this.toolbar = new Toolbar(at(".cards"), this.tools, (tool) => this.taking.take(tool));
    this.classTool = at(".class-tool-figure") && new ClassToolFigure(at(".class-tool-figure"), book);
    this.stepList = new StepList(at(".step-list"), this.#onSteps());
    this.sheets = new Sheets(page);
    this.vanished = new Vanished();
    this.objectMenu = new ObjectMenu(at(".object-menu"), this, this.#onObjects());
    this.pointing = new Pointing(this);
    this.chooser = new Chooser(at(".chooser"), (offer) => this.pointing.choose(offer));
    this.commands = new Commands(this);
    new Keys(this);
    this.focus = new Focus(page, () => (this.bar.field.isConnected ? this.bar.field : this.paper.svg));

    this.store.onPerform(() => {
      // What was said is about what was done before; why something is gone is true as long as it is.
      if (!this.vanished.isAny) this.bar.announce("");
      if (this.result.isOpen) this.result.close();
      this.hinting?.putAway();
    });
    this.store.onChange(() => this.#changed());
    this.store.connect(this.saving);
    this.store.refresh();
    this.paper.fit();
    this.saving.flush();
    if (setting.urls.here) this.#hear(at(".standing"));
    if (!this.store.own.length) this.bar.announce(WELCOME[setting.draft?.part ?? "trial"]);
    this.#sayWhatIsLeftOut(setting.left_out ?? []);
  }

  /**
   * Steps that do not fit the task any more are not on the board.
   * @param {string[]} ids
   */
  #sayWhatIsLeftOut(ids) {
    if (!ids.length) return;
    const words = ngettext(
      "The task has changed: %(names)s does not fit it any more, and was left out.",
      "The task has changed: %(names)s do not fit it any more, and were left out.",
      ids.length,
      { names: ids.join(", ") },
    );
    this.bar.announce(words, true);
  }

  /** @returns {Saver} */
  #saving() {
    const { setting, store } = this;
    const on = {
      /** @param {Entry} entry */
      stored: (entry) => store.takeIn([entry]),
      /** @param {Entry[]} entries */
      missed: (entries) => {
        store.takeInMissed(entries);
        this.bar.announce(_("What you did in another window is here now."));
        this.presence?.quicken();
      },
      refused: (/** @type {unknown} */ _entry, /** @type {string} */ words) => {
        store.refresh();
        this.bar.announce(words, true);
      },
      state: sayState,
    };
    if (setting.draft) return this.#drafting(setting.draft, on);
    const place = `widepin-${setting.student}-${setting.urls.operations}`;
    return new Saving({ url: setting.urls.operations, place, stored: setting.log, on });
  }

  /** @param {Draft} draft @param {OnSaving} on */
  #drafting(draft, on) {
    const { setting, store } = this;
    const drawn = setting.log.map(({ operation }) => operation.step);
    const drafting = new Drafting({ draft, drawn, steps: () => store.own, on });
    const unstored = drafting.unstored();
    if (unstored) store.redraw(unstored);
    return drafting;
  }

  #onSteps() {
    const { pointed } = this;
    return {
      ...this.#onDressing(),
      /** @param {string | null} id */
      highlighted: (id) => pointed.at({ highlighted: id }),
      chosen: () => this.show(),
      /** @param {string} id */
      actions: (id) => actionsFor(this, id),
      /** @param {string} id */
      picked: (id) => this.#picked(id),
      /** @param {string} id */
      opened: (id) => {
        this.objectMenu.open([id], this.paper.placeOn(this.store.figure, id));
        this.objectMenu.focus();
      },
      dress: (/** @type {string} */ id, /** @type {Dress} */ dress) => this.#dress(id, dress),
    };
  }

  #onObjects() {
    return {
      ...this.#onDressing(),
      dressed: (/** @type {string} */ id, /** @type {Dress} */ dress) => this.#dress(id, dress),
      /** @param {string} id */
      first: (id) => actionsFor(this, id),
      /** @param {string} id */
      last: (id) => this.elementary.offer(id),
      /** @param {string} id */
      isTold: (id) => this.elementary.isShown(id),
      closed: () => this.elementary.hide(),
    };
  }

  // What can be done with an object, from its row or its menu.
  #onDressing() {
    const { store, pointed } = this;
    return {
      /** @param {Step} step */
      tryOut: (step) => pointed.at({ trial: step }),
      /** @param {string} id */
      hideRest: (id) => this.commands.hideRest(id),
      /** @param {Step} step */
      remake: (step) => {
        pointed.trial = null;
        store.perform({ op: "remake", step });
      },
      /** @param {string} id */
      remove: (id) => {
        store.perform({ op: "remove", id });
        this.bar.announce(_("Removed. Undo brings it back."));
      },
    };
  }

  /** @param {any} panel */
  #hear(panel) {
    const { bar, setting } = this;
    const standing = new Standing(panel, setting.standing, { bar, now: () => this.presence?.say() });
    this.standing = standing;
    this.presence = new Presence(setting.urls.here, {
      heard: (now) => {
        standing.show(now);
        this.hinting?.receive(now.hint);
        this.saving.follow?.(now.operations);
        this.commands.show();
      },
      closed: (words, signIn) => {
        standing.close(words, signIn);
        this.commands.show();
      },
    });
    this.commands.show();
  }

  /**
   * An object of the list fills the next blank, if it fits there.
   * @param {string} id
   */
  #picked(id) {
    if (!this.hand.blank || !fits(this, id)) return false;
    this.building.fill({ type: "object", id });
    return true;
  }

  // False where a name is asked for that another object has.
  #dress(/** @type {string} */ id, /** @type {Dress} */ dress) {
    const { store, bar } = this;
    const { figure } = store;
    const other = dress.label && figure.ids.find((one) => one !== id && labelOf(figure, one) === dress.label);
    if (other) bar.announce(_("Another object is called %(label)s; choose another name.", dress), true);
    else store.perform({ op: "dress", id, dress });
    return !other;
  }

  #handedIn(/** @type {any} */ result) {
    this.result.show(result);
    for (const last of findAll(".last-result", this.page)) {
      last.href = result.url;
      last.hidden = !result.url; // a preview has no page of its own
    }
    this.presence?.say();
    this.paint();
  }

  // -- showing ------------------------------------------------------------------------------------

  #changed() {
    const { store, hand, pointing } = this;
    /** @param {string} id */
    const isGone = (id) => !store.figure.has(id);
    pointing.forget(isGone);
    hand.forget(isGone);
    this.measures.show(store.figure, store.measures);
    this.positions.show();
    this.notes.show(store.notes);
    pointing.holdOn();
    this.show();
    this.claims.want([...this.equalities.wanted, ...this.measures.wanted(store.figure)]);
  }

  #pointedElsewhere() {
    this.#showSentence();
    this.paint();
  }

  #showSentence() {
    const { figure } = this.store;
    const { isAmbiguous, ambiguous, near, place } = this.pointing;
    const offer = wordsFor(figure, this.pointed.offer, isAmbiguous);
    if (this.hand.tool) {
      const several = this.pointed.offer && isAmbiguous ? ambiguous : [];
      this.chooser.show(several, place, (one) => wordsFor(figure, one, true));
    } else {
      this.chooser.show(this.objectMenu.isOpen ? [] : near, place, ({ id }) => whatItIs(this.store, id));
    }
    this.bar.show(this.hand.parts((id) => labelOf(figure, id), offer));
  }

  // The last step in words, or nothing.
  #lastStep() {
    const { figure, own } = this.store;
    const last = own.at(-1);
    return last ? described(figure, last.id) : "";
  }

  show() {
    const { store, hand, paper } = this;
    this.#showSentence();
    this.objectMenu.show();
    this.selection.show();
    this.handingIn.show();
    this.commands.show();
    this.classTool?.show(hand.tool?.classTool ?? null);
    this.equalities.show(store.figure, store.equals);
    this.toolbar.show((tool) => store.used(tool), hand.tool);
    const marks = hand.tool?.make === "intersection" && !hand.meetings;
    this.#candidates = marks ? new Hits(store.figure, paper.view, (id) => store.isHidden(id)).allIntersections() : [];
    this.stepList.show(store, this.setting.budget);
    this.sheets.show(this.#lastStep());
    this.paint();
    this.focus?.keep();
  }

  roles() {
    return rolesOf({
      store: this.store,
      hand: this.hand,
      pointed: this.pointed,
      /** @param {string} id */
      isSelected: (id) => this.selection.has(id) || Boolean(this.hinting?.isLit(id)),
      /** @param {string} id */
      resultRole: (id) => this.result.role(id),
      showsArcs: this.paper.showsArcs,
    });
  }

  paint() {
    const { store, paper } = this;
    if (!paper.view) return;
    paper.draw(store.figure, this.roles(), [
      ...this.positions.marks(paper.view, paper.size),
      ...lociPaths(store.figure, store.loci, paper.view, paper.size[0]),
      ...this.measures.marks(store.figure, paper.view),
      ...this.equalities.marks(store.figure, paper.view),
      ...this.#whatVanished(),
      ...this.notes.marks(paper.view),
      ...hints(this, this.#candidates),
      ...this.selection.marks(),
      ...this.elementary.marks(paper.view, paper.size),
      ...this.dragHint.marks(paper.view),
    ]);
    this.offPaper.show(store, this.hand.meetings ?? [], this.#candidates);
  }

  // Ghosts of what is gone, and a sentence that says why when it goes.
  #whatVanished() {
    const { vanished, store, paper, bar } = this;
    const { fresh, isBack } = vanished.note(store.figure);
    if (fresh.length) bar.announce(whyGone(store.figure, fresh[0]), true);
    else if (isBack) bar.announce(_("Everything is defined again."));
    return vanished.ghosts(store.figure, paper.view, ...paper.size);
  }
}

// A page that the browser kept is not what is stored.
addEventListener("pageshow", (event) => {
  if (event.persisted) location.reload();
});

const page = find(".board-page");
try {
  const book = await ToolBook.load(String(document.body.dataset.toolBook));
  page.board = new Board(page, book, JSON.parse(find("#setting").textContent));
  page.dataset.ready = "yes";
} catch (error) {
  find(".sentence", page).textContent = _("The board could not be opened. Load the page again.");
  throw error;
}
