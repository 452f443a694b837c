// On the page of a work: what is asked before something is lost, and phrases. A phrase that is chosen is put into the field of comments beside it, after what stands there.

import { find, findAll } from "../look/page.js";

for (const button of findAll("[data-confirm]")) {
  button.addEventListener("click", (/** @type {any} */ event) => {
    if (!confirm(button.dataset.confirm)) event.preventDefault();
  });
}

for (const choice of findAll("[data-phrases]")) {
  choice.addEventListener("change", () => {
    const field = find("textarea[name=text]", choice.form);
    if (choice.value) field.value = [field.value.trim(), choice.value].filter(Boolean).join(" ");
    choice.value = "";
    field.focus();
  });
}
