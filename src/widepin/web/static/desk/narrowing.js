// A field that narrows a list to what has its words; what is chosen stays in sight.

import { findAll } from "../look/page.js";

for (const field of findAll("[data-narrows]")) {
  field.addEventListener("input", () => {
    const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    for (const row of findAll(field.dataset.narrows)) {
      const text = row.textContent.toLowerCase();
      row.hidden = !row.querySelector(":checked") && !words.every((/** @type {string} */ word) => text.includes(word));
    }
    for (const part of findAll("fieldset", field.form)) part.hidden = !part.querySelector("li:not([hidden])");
  });
  field.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
    if (event.key === "Enter") event.preventDefault(); // it narrows, and sends nothing
  });
}
