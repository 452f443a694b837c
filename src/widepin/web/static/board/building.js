// Building: blanks are filled by pointing or typing, and a full sentence becomes a step.

import { labelOf } from "../figure/drawing.js";
import { listed } from "../figure/listed.js";
import { Hits, nearestPlace } from "./hits.js";
import { makeOf } from "./tools.js";
import { rounded } from "./log.js";
import { isHelper, useOf } from "./uses.js";

const HASTE = 900; // milliseconds in which Enter is meant for the name that was taken by itself just now

export class Building {
  constructor(board) {
    this.board = board;
  }

  take(tool) {
    if (this.board.hand.tool?.make === tool.make) return this.putDown();
    this.board.hand.take(tool);
    this.board.bar.clear();
    this.board.bar.announce("");
    this.board.show();
    if (!this.board.pointing.isTouch) this.board.bar.focus();
  }

  putDown() {
    if (this.board.hand.filled.length) this.board.hand.empty();
    else this.board.hand.putDown();
    this.board.bar.clear();
    this.board.bar.announce("");
    this.board.offer = null;
    this.board.show();
  }

  add(step) {
    this.board.perform({ op: "add", step });
    return step.id;
  }

  // Fill the next blank with what was pointed at or named; a place or intersection becomes a point first.
  fill(choice) {
    const { hand } = this.board;
    if (hand.meetings) return this.mark(hand.meetings[choice.which - 1].step);
    if (hand.blank.kind === "place") return this.#point(choice);
    if (hand.blank.kind === "spot") return this.#startNote(choice.at);
    if (hand.tool.make === "select several") {
      this.board.bar.clear();
      return this.board.selection.toggle(choice.id);
    }
    if (hand.tool.make === "intersection" && choice.type === "intersection") return this.mark(choice.step);
    const id = choice.type === "object" ? choice.id : this.#pointFor(choice);
    if (id === null) return;
    hand.filled.push(id);
    this.filledAt = performance.now();
    if (hand.tool.make === "move")
      this.board.bar.announce("Arrow keys move it, with Shift ten times as far. Esc lets go of it.");
    if (hand.isFull) this.#complete();
    this.board.bar.clear();
    this.board.show();
  }

  #pointFor(choice) {
    if (choice.type === "intersection") return this.add({ id: this.board.newId("intersection"), ...choice.step });
    if (!this.board.mayPutPoints) {
      this.board.bar.announce("This task has no free points; take an intersection or a point that is there.", true);
      return null;
    }
    if (choice.type === "slide" && !choice.at.every(Number.isFinite)) {
      this.board.bar.announce(
        `${labelOf(this.board.figure, choice.id)} is undefined in this position; put the point when it is there.`,
        true,
      );
      return null;
    }
    if (choice.type === "slide")
      return this.add({
        id: this.board.newId("point_on"),
        make: "point_on",
        from: [choice.id],
        at: rounded(choice.at),
      });
    return this.add({ id: this.board.newId("free_point"), make: "free_point", at: rounded(choice.at) });
  }

  #point(choice) {
    const id = this.#pointFor(
      choice.type === "object" ? { type: "slide", id: choice.id, at: choice.at ?? this.#middleOf(choice.id) } : choice,
    );
    if (id !== null) this.board.bar.announce(`${id} is there.`);
    this.board.bar.clear();
    this.board.show();
  }

  #middleOf(id) {
    const [width, height] = this.board.drawing.size();
    return nearestPlace(
      this.board.figure.kind(id),
      this.board.figure.shape(id),
      this.board.view.toPaper(width / 2, height / 2),
    );
  }

  #complete() {
    const { hand } = this.board;
    const { make } = hand.tool;
    if (make === "move") return;
    if (make === "answer") return this.board.handingIn.answered();
    if (make === "intersection") return this.#cross();
    if (hand.tool.gauge) return this.#measure();
    if (hand.tool.proven) return this.#use();
    const step = { id: this.board.newId(makeOf(hand.tool)), make: makeOf(hand.tool), from: hand.sources };
    hand.next();
    this.add(step);
    this.#announceDrawn([step.id]);
    if (hand.tool.most !== null && this.board.used(hand.tool) >= hand.tool.most) hand.putDown();
  }

  #use() {
    const { hand, figure } = this.board;
    const operation = useOf(hand.tool.proven, hand.sources, figure.ids, (make, taken) => this.board.newId(make, taken));
    hand.next();
    this.board.perform(operation);
    this.#announceDrawn(operation.gives);
  }

  #announceDrawn(ids) {
    const gone = ids.find((id) => !this.board.figure.isDefined(id));
    this.board.bar.announce(
      gone ? `${gone} is undefined in this position.` : `${listed(ids)} ${ids.length > 1 ? "are" : "is"} drawn.`,
      Boolean(gone),
    );
  }

  #measure() {
    const { hand } = this.board;
    const of = [...hand.filled];
    hand.empty();
    this.board.perform({ op: "measure", of });
    this.board.bar.announce("It is measured. A measure costs no move.");
  }

  #startNote(at) {
    this.board.hand.filled.push({ at: rounded(at) });
    this.board.offer = null;
    this.board.bar.clear();
    this.board.bar.announce("Type the note, then Enter.");
    this.board.show();
    this.board.bar.focus();
  }

  #write(text) {
    const [{ at }] = this.board.hand.filled;
    this.board.hand.putDown();
    this.board.bar.clear();
    this.board.perform({ op: "note", note: crypto.getRandomValues(new Uint32Array(1))[0].toString(36), text, at });
    this.board.bar.announce("The note is on the paper; drag it where you like.");
  }

  #cross() {
    const { hand } = this.board;
    const marked = (at) =>
      this.board.figure.ids.find(
        (id) =>
          this.board.figure.isPoint(id) &&
          this.board.figure.isDefined(id) &&
          !isHelper(this.board.figure.step(id)) &&
          Math.hypot(this.board.figure.shape(id)[0] - at[0], this.board.figure.shape(id)[1] - at[1]) < 1e-6,
      );
    const all = new Hits(this.board.figure, this.board.view, () => false).meetings([...hand.filled]);
    const meetings = all.filter(({ at }) => !marked(at));
    if (meetings.length === 2) {
      hand.meetings = meetings;
      const off = meetings.findIndex(({ at }) => !this.board.isInView(at));
      this.board.bar.announce(
        off < 0
          ? "Both intersections are numbered on the board: type 1 or 2, or point at one."
          : `Intersection ${off + 1} lies off the paper: Fit brings it in. Type 1 or 2, or point at one.`,
      );
    } else if (meetings.length === 1) {
      this.mark(meetings[0].step);
    } else {
      hand.empty();
      this.board.bar.announce(
        all.length ? `${marked(all[0].at)} is marked there already.` : "These two do not meet in this position.",
        true,
      );
    }
  }

  mark(step) {
    const id = this.add({ id: this.board.newId("intersection"), ...step });
    this.board.hand.empty();
    const isHere = this.board.isInView(this.board.figure.shape(id));
    this.board.bar.announce(isHere ? `${id} is marked.` : `${id} is marked, off the paper: Fit brings it in.`);
    this.board.bar.clear();
    this.board.show();
  }

  typed(text, isFinal) {
    const { hand, figure } = this.board;
    const name = text.trim();
    if (hand.meetings) {
      if (name === "1" || name === "2") this.fill({ which: Number(name) });
      return;
    }
    const place = name.match(/^\(?\s*(-?\d+(?:\.\d+)?)\s*[,; ]\s*(-?\d+(?:\.\d+)?)\s*\)?$/);
    if (hand.blank?.kind === "words") {
      if (isFinal && name) this.#write(name);
      return;
    }
    if (place && isFinal && ["point", "place", "spot"].includes(hand.blank?.kind)) {
      return this.fill({ type: "free", at: [Number(place[1]), Number(place[2])] });
    }
    const ids = figure.ids.filter((id) => this.board.fits(id));
    const exact = ids.find((id) => labelOf(figure, id) === name || id === name);
    const longer = ids.some(
      (id) => id !== exact && !this.board.isHidden(id) && (id.startsWith(name) || labelOf(figure, id).startsWith(name)),
    );
    if (exact && (isFinal || !longer)) return this.fill({ type: "object", id: exact });
    if (isFinal && !name && this.board.offer) return this.fill(this.board.offer);
    if (isFinal && !name && performance.now() - this.filledAt < HASTE) return;
    if (isFinal) this.board.bar.announce(name ? this.#misnamed(name) : "Type the name of what is meant.", true);
    this.board.highlighted = exact ?? null;
    this.board.paint();
  }

  #misnamed(name) {
    if (!this.board.figure.has(name)) return `There is no ${name} on the board.`;
    return `${name} is a ${this.board.figure.kind(name)}; it does not fit here.`;
  }

  nudge(dx, dy) {
    const [id] = this.board.hand.filled;
    const [x, y] = this.board.figure.shape(id);
    this.board.perform({ op: "move", points: { [id]: rounded([x + dx, y + dy]) } });
  }
}
