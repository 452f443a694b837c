// Names in a row: "A, B and C".

import { _ } from "../look/language.js";
/** @param {string[]} names */
export function listed(names) {
  return names.length > 1
    ? _("%(names)s and %(last)s", { names: names.slice(0, -1).join(", "), last: names.at(-1) })
    : names[0];
}

/**
 * What stands before a part of such a row that is not the first.
 * @param {number} place
 * @param {number} count
 */
export function joiner(place, count) {
  return place === count - 1 ? _("and") : ",";
}
