// What is pressed or chosen before the scripts of a page are there waits for them, and is not lost: this one stands in the
// head, the others come when the page is read.
(() => {
  const kept = [];
  const keep = (event) => {
    const button = event.target.closest?.("button[type=button]");
    if (event.type === "click" && !button) return;
    event.stopImmediatePropagation();
    kept.push([event.type, button ?? event.target]);
  };
  for (const type of ["click", "change"]) addEventListener(type, keep, { capture: true });
  addEventListener("DOMContentLoaded", () => {
    for (const type of ["click", "change"]) removeEventListener(type, keep, { capture: true });
    for (const [type, target] of kept) target.dispatchEvent(new Event(type, { bubbles: true }));
  });
})();
