// Who needs help on the class overview: the hint that the program would give, sent with one click.

import { _ } from "../look/language.js";
import { find, post } from "../look/page.js";

/** @param {HTMLElement} panel where who needs help stands; what is within it comes anew */
export function listenForHelp(panel) {
  panel.addEventListener("click", async (event) => {
    const button = /** @type {HTMLElement} */ (event.target).closest("button[data-hint], button[data-send]");
    if (!(button instanceof HTMLButtonElement)) return;
    button.disabled = true;
    const holder = find("[data-hint-said]", panel);
    const { hint, send } = button.dataset;
    const answer = await (hint ? fetch(hint, { headers: { Accept: "application/json" } }) : post(String(send))).catch(
      () => null,
    );
    const said = await answer?.json().catch(() => null);
    button.disabled = false;
    if (send || !said?.levels) {
      holder.textContent = said?.said ?? said?.error ?? _("There is no connection. Nothing is lost; try again.");
      return;
    }
    holder.replaceChildren(said.levels[0], " ");
    if (!said.can_be_sent) return;
    const sending = document.createElement("button");
    sending.type = "button";
    sending.className = "btn btn-plain";
    sending.dataset.send = button.dataset.sendTo;
    sending.textContent = _("Send to %(name)s", { name: button.dataset.name });
    holder.append(sending);
    sending.focus();
  });
}
