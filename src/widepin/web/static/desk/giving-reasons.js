// Give the reason: the cards of the reasons that are offered for a line, or of the one that is given.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { showCards } from "./reason-cards.js";

for (const section of findAll("section.reasons")) {
  const dialog = find("dialog.reason", section);

  /** @param {any} select @param {string} rule */
  const chooses = (select, rule) => {
    const isChosen = select.value === rule;
    const button = Object.assign(document.createElement("button"), {
      type: "button",
      className: "btn btn-plain",
      textContent: isChosen ? _("Chosen") : _("Choose this reason"),
      disabled: isChosen,
    });
    button.addEventListener("click", () => {
      select.value = rule;
      dialog.close();
      select.focus();
    });
    return button;
  };

  for (const button of findAll("[data-reasons]", section)) {
    const cards = Object.entries(JSON.parse(button.dataset.reasons));
    const select = button.closest("li").querySelector("select");
    const isChosenHere = cards.length > 1 && select !== null;
    button.addEventListener("click", () =>
      showCards(
        dialog,
        cards.map(([, anchor]) => `${section.dataset.cards}/${anchor}`),
        (place) => (isChosenHere ? [chooses(select, cards[place][0])] : []),
      ),
    );
  }
}
