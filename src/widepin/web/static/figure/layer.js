// A layer of a drawing whose elements stay from frame to frame: what is drawn again is changed where it differs, and not
// made anew.

import { element } from "./element.js";
/** @import { Place } from "./types.js" */

/** @typedef {{node: any, name: string, attributes: Record<string, any>, like: unknown, x?: number, y?: number}} Kept */

export class Layer {
  /** @type {Map<string, Kept>} */
  #kept = new Map();
  /** @type {Element[]} */
  #shown = []; // the elements in the order in which they are drawn
  /** @type {[string | Element, Element][]} */
  #next = []; // [key, element] each

  /** @param {string} name */
  constructor(name) {
    this.group = element("g", { class: `layer-${name}` });
  }

  /**
   * An element under a key of its own; attributes: numbers where they are lengths; content: its text, or {like,
   * children()}, which are made anew where like differs; at: where it is moved. Numbers are set as such, since writing
   * them as text for the browser to read took most of a frame.
   * @param {string} key
   * @param {string} name
   * @param {Record<string, any>} attributes
   * @param {any} [content]
   * @param {Place | null} [at]
   */
  put(key, name, attributes, content, at = /** @type {Place | null} */ (null)) {
    const like = typeof content === "object" ? content.like : content;
    let kept = this.#kept.get(key);
    if (!kept || kept.name !== name) {
      kept = { node: element(name), name, attributes: {}, like: undefined };
      this.#kept.set(key, kept);
    }
    for (const attribute in attributes) {
      const value = attributes[attribute];
      if (kept.attributes[attribute] === value) continue;
      set(kept.node, attribute, value);
      kept.attributes[attribute] = value;
    }
    if (at && (kept.x !== at[0] || kept.y !== at[1])) {
      move(kept.node, at);
      [kept.x, kept.y] = at;
    }
    if (kept.like !== like) {
      kept.node.replaceChildren(...(typeof content === "object" ? content.children() : [content ?? ""]));
      kept.like = like;
    }
    this.#next.push([key, kept.node]);
    return kept.node;
  }

  /**
   * Elements that are made for this frame alone.
   * @param {...Element} nodes
   */
  add(...nodes) {
    for (const node of nodes) this.#next.push([node, node]); // a key that nothing else has
  }

  // Show what was put since the last time, and nothing else.
  end() {
    const next = this.#next.map(([, node]) => node);
    const isSame = next.length === this.#shown.length && next.every((node, n) => node === this.#shown[n]);
    if (!isSame) {
      this.group.replaceChildren(...next);
      const left = new Set(this.#next.map(([key]) => key));
      for (const key of this.#kept.keys()) if (!left.has(key)) this.#kept.delete(key);
    }
    this.#shown = next;
    this.#next = [];
  }
}

/** @param {any} node @param {string} attribute @param {any} value */
function set(node, attribute, value) {
  const known = node[attribute]?.baseVal;
  if (typeof value !== "number" || !known) node.setAttribute(attribute, value);
  else if (!("numberOfItems" in known)) known.value = value;
  else if (known.numberOfItems) known.getItem(0).value = value;
  else node.setAttribute(attribute, value);
}

/** @param {any} node @param {Place} place */
function move(node, [x, y]) {
  const moves = node.transform.baseVal;
  if (!moves.numberOfItems) node.setAttribute("transform", "translate(0 0)");
  moves.getItem(0).setTranslate(x, y);
}
