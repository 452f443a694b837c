// Choices that take effect at once, boxes that tick all others, and buttons that print the page.

import { findAll } from "../look/page.js";

for (const choice of findAll("[data-go]")) choice.addEventListener("change", () => choice.form.requestSubmit());
for (const all of findAll("[data-all]")) {
  all.addEventListener("change", () => {
    for (const box of findAll("input[type=checkbox]", all.closest("fieldset"))) box.checked = all.checked;
  });
}
for (const button of findAll("[data-print]")) button.addEventListener("click", () => print());
