// What is special about an object when it is drawn: given, hidden, in hand, part of the result, pointed at.

import { looksOf } from "../../figure/drawing.js";
/** @import { RolesOf } from "../types.js" */

/**
 * pointed: {highlighted, offer}; isSelected(id); resultRole(id): its role in a result that is shown, or null
 * @param {RolesOf} about
 */
export function rolesOf({ store, hand, pointed, isSelected, resultRole, showsArcs }) {
  const { figure } = store;
  const inHand = new Set(hand.filled);
  const filledAs = hand.tool?.make === "answer" ? "answer" : "highlighted";
  const offered = pointed.offer?.type === "object" ? pointed.offer.id : null;
  return (/** @type {string} */ id) => {
    const role = new Set(looksOf(figure.step(id)));
    if (store.given.has(id)) role.add("given");
    if (store.start.has(id)) role.add("start");
    if (store.isHidden(id)) role.add("hidden");
    if (showsArcs && figure.kind(id) === "circle" && !store.given.has(id) && id !== pointed.highlighted)
      role.add("arcs");
    const result = resultRole(id);
    if (result) role.add(result);
    if (inHand.has(id)) role.add(filledAs);
    if (id === pointed.highlighted || id === offered || isSelected(id)) role.add("highlighted");
    return role;
  };
}
