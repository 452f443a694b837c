// Focus never falls to the page: where what had it is gone or cannot be used any more, it goes on to where work goes on.

export class Focus {
  /** @type {HTMLButtonElement | null} */
  #last = null;

  /**
   * fallback(): what has the focus then
   * @param {any} page
   * @param {() => HTMLElement} fallback
   */
  constructor(page, fallback) {
    this.fallback = fallback;
    page.addEventListener("focusin", (/** @type {{target: any}} */ { target }) => {
      this.#last = target;
    });
    // A click beside everything lets go of it; that is meant.
    page.addEventListener("pointerdown", () => {
      this.#last = null;
    });
  }

  // To be called when the board was shown anew.
  keep() {
    const last = this.#last;
    if (!last || (document.activeElement !== document.body && document.activeElement !== last)) return;
    if (last.isConnected && !last.disabled && last.getClientRects().length) return;
    this.#last = null;
    this.fallback().focus({ preventScroll: true });
  }
}
