// The button that assigns says to whom.

import { _, ngettext } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { listed } from "../figure/listed.js";

const form = find("form[data-assigning]");
const button = form && find(".onward button", form);

function say() {
  const classes = findAll("[name=class]:checked", form).map((one) => one.parentElement.textContent.trim());
  const students = findAll("[name=student]:checked", form).length;
  const names = listed(classes);
  if (!classes.length) button.textContent = _("Assign");
  else if (!students) button.textContent = _("Assign to %(names)s", { names });
  else
    button.textContent = ngettext(
      "Assign to %(n)s student of %(names)s",
      "Assign to %(n)s students of %(names)s",
      students,
      {
        names,
      },
    );
}

if (form) {
  form.addEventListener("change", say);
  say();
}
