// What lies off the paper: said at its edges, by buttons that bring it in.

import { _, ngettext } from "../../look/language.js";
import { labelOf, visiblePart } from "../../figure/outlines.js";
import { listed } from "../../figure/listed.js";
import { html, render } from "../../vendor/lit-html/lit-html.js";
import { isHelper } from "../construction/uses.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Off, Offer, Side, Where } from "../types.js" */
/** @import { Paper } from "./paper.js" */
/** @import { Place, Shape } from "../../figure/types.js" */
/** @import { Store } from "../construction/store.js" */
/** @import { View } from "../../figure/view.js" */

const MOST = 4; // names on one edge
const NEAR = 2; // windows from the middle within which intersections that are not marked are spoken of
const INSET = 0.1; // share of the window left free around what was brought in
/** @type {Side[]} */
const SIDES = ["left", "right", "top", "bottom"];
const ARROWS = { left: "←", right: "→", top: "↑", bottom: "↓" };

export class OffPaper {
  #shown = ""; // what the edges say, as it was rendered last

  /**
   * panel: lies over the paper; paper: whose view is changed
   * @param {any} panel
   * @param {Paper} paper
   */
  constructor(panel, paper) {
    this.panel = panel;
    this.paper = paper;
  }

  /**
   * meetings: intersections that can be chosen between, [{at}]; candidates: places of those that could be marked
   * @param {Store} store
   * @param {Omit<Offer, "far">[]} meetings
   * @param {Place[]} candidates
   */
  show(store, meetings, candidates) {
    const off = [...this.#objectsOff(store), ...this.#meetingsOff(meetings), ...this.#candidatesOff(candidates)];
    const said = off.map(({ name, side }) => name + side).join(" ");
    if (said === this.#shown) return;
    this.#shown = said;
    render(
      html`${SIDES.map((side) =>
        this.#edge(
          side,
          off.filter((one) => one.side === side),
        ),
      )}`,
      this.panel,
    );
  }

  /** @param {Pick<Store, "figure" | "own" | "given">} store */
  #objectsOff({ figure, own, given }) {
    const ids = [...given, ...own.filter((step) => !isHelper(step)).map(({ id }) => id)];
    return ids
      .filter((id) => figure.has(id) && figure.isDefined(id) && !figure.step(id).hidden)
      .flatMap((id) => {
        const at = this.#placeOff(figure, id);
        return at ? [{ name: labelOf(figure, id), at, side: this.#sideOf(at) }] : [];
      });
  }

  /**
   * Where an object is of which nothing is seen; null where some of it is.
   * @param {Figure} figure
   * @param {string} id
   */
  #placeOff(figure, id) {
    const shape = figure.shape(id);
    const { view, size } = this.paper;
    switch (figure.kind(id)) {
      case "point":
        return this.paper.isInView(shape) ? null : shape;
      case "circle":
        return touches(shape, view, size) ? null : [shape[0], shape[1]];
      default:
        return visiblePart(figure.kind(id), shape, view, ...size) ? null : [shape[0], shape[1]];
    }
  }

  /** @param {Omit<Offer, "far">[]} meetings */
  #meetingsOff(meetings) {
    return meetings
      .map(({ at }, number) => ({ name: String(number + 1), at }))
      .filter(({ at }) => !this.paper.isInView(at))
      .map((one) => ({ ...one, side: this.#sideOf(one.at) }));
  }

  /**
   * Only those that a look around would find; parallels meet very far away when they are nearly so.
   * @param {Place[]} candidates
   */
  #candidatesOff(candidates) {
    const [width, height] = this.paper.size;
    return candidates
      .filter((at) => !this.paper.isInView(at))
      .filter((at) => {
        const [x, y] = this.paper.view.toScreen(...at);
        return Math.abs(x - width / 2) < NEAR * width && Math.abs(y - height / 2) < NEAR * height;
      })
      .map((at) => ({ name: "", at, side: this.#sideOf(at) }));
  }

  /**
   * The edge that a place off the paper lies beyond, the one that it is farther from.
   * @param {Place} at
   */
  #sideOf(at) {
    const [x, y] = this.paper.view.toScreen(...at);
    const [width, height] = this.paper.size;
    const beyond = { left: -x, right: x - width, top: -y, bottom: y - height };
    return SIDES.reduce((best, side) => (beyond[side] > beyond[best] ? side : best));
  }

  /** @param {Side} side @param {Off[]} off */
  #edge(side, off) {
    if (!off.length) return "";
    const names = namesOf(off);
    const bring = () =>
      this.paper.bringIn(
        off.map(({ at }) => at),
        INSET,
      );
    return html`<button
      type="button"
      class="${side}-edge"
      aria-label=${_("%(names)s: bring in", { names })}
      @click=${bring}
    >
      ${side === "left" || side === "top" ? `${ARROWS[side]} ${names}` : `${names} ${ARROWS[side]}`}
    </button>`;
  }
}

/** @param {Off[]} off */
function namesOf(off) {
  const named = off.filter(({ name }) => name).map(({ name }) => name);
  const unmarked = off.length - named.length;
  const meetings = unmarked ? [ngettext("%(n)s intersection", "%(n)s intersections", unmarked)] : [];
  return named.length > MOST
    ? listed([_("%(n)s objects", { n: named.length }), ...meetings])
    : listed([...named, ...meetings]);
}

/**
 * Whether some of a circle is seen: its line crosses the window or lies in it.
 * @param {Shape} circle
 * @param {View} view
 * @param {[number, number]} size
 */
function touches([x, y, rr], view, [width, height]) {
  const [cx, cy] = view.toScreen(x, y);
  const r = Math.sqrt(rr) * view.scale;
  const nearest = Math.hypot(cx - Math.min(width, Math.max(0, cx)), cy - Math.min(height, Math.max(0, cy)));
  const farthest = Math.hypot(Math.max(cx, width - cx), Math.max(cy, height - cy));
  return nearest <= r && r <= farthest;
}
