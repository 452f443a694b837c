// What is pressed, typed or chosen before the scripts of a page are there waits for them, and is not lost: this one stands
// in the head, the others come when the page is read, and some of them have to fetch something first.
(() => {
  /** @type {any[]} */
  const kept = [];
  const types = ["click", "input", "change"];
  /** @param {Event & {target: any}} event */
  const keep = (event) => {
    const button = event.target.closest?.("button[type=button]");
    if (event.type === "click" && !button) return;
    event.stopImmediatePropagation();
    const { value, checked } = event.target;
    kept.push({ type: event.type, target: button ?? event.target, value, checked });
  };
  for (const type of types) addEventListener(type, keep, { capture: true });
  addEventListener("DOMContentLoaded", async () => {
    /** @type {NodeListOf<HTMLScriptElement>} */
    const modules = document.querySelectorAll("script[type=module][src]");
    await Promise.allSettled([...modules].map(({ src }) => import(src)));
    for (const type of types) removeEventListener(type, keep, { capture: true });
    for (const { type, target, value, checked } of kept) {
      if (type !== "click" && target.type !== "file") Object.assign(target, { value, checked });
      target.dispatchEvent(new Event(type, { bubbles: true }));
    }
  });
})();
