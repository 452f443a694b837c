// Cards of reasons in a dialog: what each says, with its figure.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";

/** Nobody is signed in any more: the answer is the page to sign in. */
class SignedOut extends Error {}

/** @param {unknown} error */
export function whatWentWrong(error) {
  if (error instanceof SignedOut) return _("You are not signed in any more. Load the page again, and sign in.");
  return _("There is no connection. Try again.");
}

/**
 * What an address answers. Throws where nobody is signed in any more.
 * @param {string} address
 * @param {RequestInit} [options]
 */
export async function fetched(address, options) {
  const answer = await fetch(address, options);
  if (answer.redirected) throw new SignedOut();
  return answer;
}

/** @param {string} address */
async function cardAt(address) {
  const answer = await fetched(address);
  if (!answer.ok) throw new Error(answer.statusText);
  return Object.assign(document.createElement("div"), { className: "offered-card", innerHTML: await answer.text() });
}

/**
 * Show the cards at these addresses, each with what ``beside`` puts below it.
 * @param {HTMLDialogElement} dialog
 * @param {string[]} addresses
 * @param {(place: number) => HTMLElement[]} [beside]
 */
export async function showCards(dialog, addresses, beside = () => []) {
  const place = find("[data-card]", dialog);
  try {
    const cards = await Promise.all(addresses.map(cardAt));
    for (const [number, card] of cards.entries()) card.append(...beside(number));
    place.replaceChildren(...cards);
  } catch (error) {
    place.textContent = whatWentWrong(error);
  }
  dialog.showModal();
}
