// The map of what is mastered: a task that is pointed at shows what it builds on, and what builds on it.

import { findAll } from "../look/page.js";

const places = findAll(".map [data-key]");

/** @param {any} place */
function show(place) {
  const needs = new Set(place.dataset.needs.split(" "));
  for (const one of places) {
    one.classList.toggle("before", needs.has(one.dataset.key));
    one.classList.toggle("after", one.dataset.needs.split(" ").includes(place.dataset.key));
  }
}

function clear() {
  for (const one of places) one.classList.remove("before", "after");
}

for (const place of places) {
  place.addEventListener("pointerenter", () => show(place));
  place.addEventListener("focusin", () => show(place));
  place.addEventListener("pointerleave", clear);
  place.addEventListener("focusout", clear);
}
