// What the student believes of the figure, and whether the server finds it true in every position.

const MOMENT = 500; // milliseconds without a change before the server is asked

export class Claims {
  #known = new Map(); // construction and claim as text -> whether it holds in every position
  #wanted = [];
  #timer = null;

  // url: where claims are looked at, or nothing; changed(): something became known
  constructor({ url, saving, store, changed }) {
    this.url = url;
    this.saving = saving;
    this.store = store;
    this.changed = changed;
  }

  // claims: [{rel, of}]; those that are not known yet are asked for together.
  want(claims) {
    if (!this.url) return;
    this.#wanted = claims.filter((claim) => !this.#known.has(this.#key(claim)));
    clearTimeout(this.#timer);
    if (this.#wanted.length) this.#timer = setTimeout(() => this.#ask(), MOMENT);
  }

  // True or false; undefined as long as it is not known.
  holds(claim) {
    return this.#known.get(this.#key(claim));
  }

  // Where a claim holds in every position, it does so wherever the points lie now.
  #key({ rel, of }) {
    const made = this.store.own.map(({ at: _at, label: _label, ...step }) => [
      step.id,
      step.make,
      step.from,
      step.pick,
      step.other_than ?? step.nearest_to ?? step.farthest_from,
    ]);
    return JSON.stringify([rel, of, made]);
  }

  async #ask() {
    const claims = this.#wanted;
    const keys = claims.map((claim) => this.#key(claim));
    if (!(await this.saving.settled())) return;
    const answer = await fetch(this.url, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json", "X-CSRFToken": this.saving.token },
      body: JSON.stringify({ claims }),
    }).catch(() => null);
    if (!answer?.ok || answer.redirected) return; // it is asked again with the next change
    const { holds } = await answer.json();
    for (const [number, key] of keys.entries()) this.#known.set(key, holds[number]);
    this.changed();
  }
}
