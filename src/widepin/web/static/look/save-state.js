// Says in the head of the page whether everything is stored, and where to sign in again if that is what is missing.

import { _ } from "./language.js";
import { find } from "./page.js";

/** @param {string} words @param {boolean} [isTrouble] @param {string | null} [signIn] the address to sign in again at */
export function sayState(words, isTrouble = false, signIn = null) {
  const state = find(".save-state");
  const link = Object.assign(document.createElement("a"), { href: signIn, textContent: _("Sign in") });
  state.replaceChildren(words, ...(signIn ? [" ", link] : []));
  state.classList.toggle("trouble", isTrouble);
}
