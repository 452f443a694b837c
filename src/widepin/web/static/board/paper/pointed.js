// What is pointed at now, on the paper or in the list of steps, and not taken yet.

/** @import { Offer } from "../types.js" */
/** @import { Step } from "../../figure/types.js" */

export class Pointed {
  /** @type {Offer | null} */
  offer = null; // what a click would take
  /** @type {string | null} */
  highlighted = null; // the object whose row or name is pointed at
  /** @type {Step | null} */
  trial = null; // a step that is thought of in the place of another

  /**
   * changed(): the paper has to be painted again
   * @param {() => void} changed
   */
  constructor(changed) {
    this.changed = changed;
  }

  /** @param {{offer?: Offer | null, highlighted?: string | null, trial?: any}} fields */
  at(fields) {
    Object.assign(this, fields);
    this.changed();
  }
}
