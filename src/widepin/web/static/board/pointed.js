// What is pointed at now, on the paper or in the list of steps, and not taken yet.

export class Pointed {
  offer = null; // what a click would take
  highlighted = null; // the object whose row or name is pointed at
  trial = null; // a step that is thought of in the place of another

  // changed(): the paper has to be painted again
  constructor(changed) {
    this.changed = changed;
  }

  at(fields) {
    Object.assign(this, fields);
    this.changed();
  }
}
