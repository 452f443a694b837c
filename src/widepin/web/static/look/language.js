// Texts in the reader's language. They are marked as in Python, so that the same command gathers them; English is the
// only language so far, and needs no catalogue.

import { find } from "./page.js";

const catalogue = JSON.parse(find("#catalogue")?.textContent ?? "{}");

/**
 * A text with %(name)s replaced by the value of that name.
 * @param {string} text @param {Record<string, unknown>} [values] @returns {string}
 */
export function _(text, values) {
  const said = catalogue[text] ?? text;
  return values
    ? said.replace(/%\((\w+)\)s|%%/g, (/** @type {string} */ found, /** @type {string} */ name) =>
        name ? String(values[name]) : "%",
      )
    : said;
}

/**
 * The text for one or for several.
 * @param {string} one @param {string} several @param {number} count @param {Record<string, unknown>} [values]
 */
export function ngettext(one, several, count, values) {
  return _(count === 1 ? one : several, { n: count, ...values });
}
