// Choices that take effect at once, boxes that tick all others, and buttons that print the page or copy a part of it.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";

for (const choice of findAll("[data-go]")) choice.addEventListener("change", () => choice.form.requestSubmit());
for (const all of findAll("[data-all]")) {
  all.addEventListener("change", () => {
    for (const box of findAll("input[type=checkbox]", all.closest("fieldset"))) box.checked = all.checked;
  });
}
for (const button of findAll("[data-copy-of]"))
  button.addEventListener("click", async () => {
    const part = find(button.dataset.copyOf);
    const text = part.value ?? [...part.children].map(({ textContent }) => textContent).join("\n");
    const isCopied = await navigator.clipboard?.writeText(text).then(
      () => true,
      () => false,
    );
    button.textContent = isCopied ? _("Copied") : _("Select it and copy it by hand");
  });
for (const button of findAll("[data-print]")) button.addEventListener("click", () => print());
