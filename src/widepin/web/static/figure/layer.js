// A layer of a drawing whose elements stay from frame to frame: what is drawn again is changed where it differs, and not
// made anew.

import { element } from "./element.js";

export class Layer {
  #kept = new Map(); // key -> {node, attributes, content}
  #keys = []; // in the order in which they are drawn
  #next = [];

  constructor(name) {
    this.group = element("g", { class: `layer-${name}` });
  }

  // An element under a key of its own; content: its text, or {like, children()}, which are made anew where like differs.
  put(key, name, attributes, content) {
    this.#next.push(key);
    const like = typeof content === "object" ? content.like : content;
    let kept = this.#kept.get(key);
    if (!kept || kept.name !== name) {
      kept = { node: element(name), name, attributes: {}, like: undefined };
      this.#kept.set(key, kept);
    }
    for (const [attribute, value] of Object.entries(attributes)) {
      if (kept.attributes[attribute] === value) continue;
      kept.node.setAttribute(attribute, value);
      kept.attributes[attribute] = value;
    }
    if (kept.like !== like) {
      kept.node.replaceChildren(...(typeof content === "object" ? content.children() : [content ?? ""]));
      kept.like = like;
    }
    return kept.node;
  }

  // Elements that are made for this frame alone.
  add(...nodes) {
    for (const node of nodes) {
      const key = node; // a key that nothing else has
      this.#next.push(key);
      this.#kept.set(key, { node });
    }
  }

  // Show what was put since the last time, and nothing else.
  end() {
    const isSame = this.#next.length === this.#keys.length && this.#next.every((key, n) => key === this.#keys[n]);
    if (!isSame) {
      const nodes = this.#next.map((key) => this.#kept.get(key).node);
      this.group.replaceChildren(...nodes);
      const left = new Set(this.#next);
      for (const key of this.#kept.keys()) if (!left.has(key)) this.#kept.delete(key);
    }
    this.#keys = this.#next;
    this.#next = [];
  }
}
