// What can be done with an object: hide it, name it, draw it dashed, make it another way, remove it. Of what is given only
// its look can be changed.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { listed } from "../../figure/listed.js";
import { html, nothing } from "../../vendor/lit-html/lit-html.js";
import { choicesFor } from "./choices.js";
import { dependentsOf } from "../../figure/log.js";
import { isHelper } from "../construction/uses.js";
/** @import { Figure } from "../../figure/figure.js" */
/** @import { Made, Step, Use } from "../../figure/types.js" */
/** @import { OnDressing } from "../types.js" */

const HUES = ["grey", "blue", "purple", "green"]; // told apart by colour-blind eyes too, and by their darkness

/**
 * on: dress(id, fields), remake(step), remove(id), hideRest(id), tryOut(step or null), ask(id or null).
 * isAsking: whether it was asked what removing would take along; first, last: what stands before and after the others.
 * @param {Figure} figure
 * @param {Step[]} own
 * @param {Step} step
 * @param {OnDressing} on
 * @param {{isAsking?: boolean, isOwn?: boolean, first?: any, last?: any}} [fields]
 */
export function dressing(
  figure,
  own,
  step,
  on,
  { isAsking = false, isOwn = true, first = nothing, last = nothing } = {},
) {
  const together = step.within?.steps.map(({ id }) => id) ?? [step.id];
  const along = dependentsOf(own, step.id).filter((id) => !together.includes(id));
  const choices = step.within || !isOwn ? [] : choicesFor(figure, step);
  const rename = (/** @type {{target: any}} */ { target }) => {
    if (!on.dress(step.id, { label: target.value.trim() || step.id })) target.value = step.label ?? step.id;
  };
  return html`<div class="dressing">
    ${first} ${choice(step.hidden ? _("Show") : _("Hide"), () => on.dress(step.id, { hidden: !step.hidden }))}
    ${figure.isPoint(step.id) ? nothing : lineLooks(figure, step, on)}
    ${choice(_("Hide the rest"), () => on.hideRest(step.id))}
    ${step.within && together.length > step.within.gives.length ? unfolding(own, step.within, on) : nothing}
    ${
      isOwn
        ? html`<input
              .value=${step.label ?? step.id}
              maxlength="24"
              aria-label=${_("Name of %(id)s", step)}
              @change=${rename}
            />
            <button type="button" data-remove @click=${() => (along.length ? on.ask(step.id) : on.remove(step.id))}>
              ${_("Remove")}
            </button>`
        : nothing
    }
    ${isAsking && along.length ? question(figure, [step.id], along, on) : nothing}
    ${choices.length ? otherChoices(step, choices, on) : nothing} ${last}
  </div>`;
}

/** @param {Figure} figure @param {Step} step @param {OnDressing} on */
function lineLooks(figure, step, on) {
  const dashed = step.style === "dashed",
    thick = step.weight === "thick";
  return html`${choice(dashed ? _("Solid") : _("Dashed"), () => on.dress(step.id, { style: dashed ? "solid" : "dashed" }))}
  ${choice(thick ? _("Thin") : _("Thick"), () => on.dress(step.id, { weight: thick ? "thin" : "thick" }))}
  ${HUES.map((hue) => swatch(hue, step, on))}`;
}

/**
 * How a tool built its result, shown or hidden.
 * @param {Step[]} own
 * @param {Use} within
 * @param {OnDressing} on
 */
function unfolding(own, within, on) {
  const helpers = own.filter((step) => step.within === within && isHelper(step)).map(({ id }) => id);
  const isOpen = own.some(({ id, hidden }) => helpers.includes(id) && !hidden);
  return choice(isOpen ? _("Hide steps") : _("Show steps"), () => on.dress(helpers, { hidden: isOpen }));
}

/** @param {string} hue @param {Step} step @param {OnDressing} on */
function swatch(hue, step, on) {
  return html`<button
    type="button"
    class="swatch hue-${hue}"
    aria-label=${_("Draw it in %(hue)s", { hue })}
    aria-pressed=${String((step.hue ?? "grey") === hue)}
    @click=${() => on.dress(step.id, { hue })}
  ></button>`;
}

/** @param {Step} step @param {{words: string, step: Made}[]} choices @param {OnDressing} on */
function otherChoices(step, choices, on) {
  return html`<div class="other-choices">
    <p>${step.make === "intersection" ? _("Choose the intersection that is") : _("This point")}</p>
    ${choices.map(
      ({ words, step: other }) =>
        html`<button
          type="button"
          @click=${() => on.remake(other)}
          @pointerenter=${() => on.tryOut(other)}
          @focus=${() => on.tryOut(other)}
          @pointerleave=${() => on.tryOut(null)}
          @blur=${() => on.tryOut(null)}
        >
          ${words}
        </button>`,
    )}
  </div>`;
}

/**
 * Removing asks only where something depends on these steps, says what would go, and offers hiding first.
 * @param {Figure} figure
 * @param {string[]} ids
 * @param {string[]} along
 * @param {OnDressing} on
 */
export function question(figure, ids, along, on) {
  const named = ids.length > 3 ? _("these %(n)s", { n: ids.length }) : listed(ids.map((id) => labelOf(figure, id)));
  const which = ids.length === 1 ? ids[0] : ids;
  const others = listed(along.map((id) => labelOf(figure, id)));
  return html`<div class="asking" role="alertdialog">
    <p>${_("Removing %(names)s also removes %(others)s.", { names: named, others })}</p>
    ${choice(_("Hide %(named)s only", { named }), () => on.dress(which, { hidden: true }))}
    ${choice(_("Remove all %(n)s", { n: along.length + ids.length }), () => on.remove(which))}
    ${choice(_("Keep"), () => on.ask(null))}
  </div>`;
}

/** @param {string} words @param {() => void} onClick */
function choice(words, onClick) {
  return html`<button type="button" @click=${onClick}>${words}</button>`;
}
