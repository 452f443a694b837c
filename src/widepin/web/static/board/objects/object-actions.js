// What the menu of an object offers besides its look: to measure it, to draw the path of a point.

import { _ } from "../../look/language.js";
import { labelOf } from "../../figure/outlines.js";
import { html, nothing } from "../../vendor/lit-html/lit-html.js";
import { driversOf } from "../examining/loci.js";
/** @import { Board } from "../board.js" */

/**
 * parts: store, tools, setting, taking, building, bar
 * @param {Board} parts
 * @param {string} id
 */
export function actionsFor(parts, id) {
  return html`${measuring(parts, id)} ${loci(parts, id)}`;
}

/** @param {string} words @param {() => void} onClick */
function button(words, onClick) {
  return html`<button type="button" @click=${onClick}>${words}</button>`;
}

/** @param {Pick<Board, "store" | "tools" | "taking" | "building">} parts @param {string} id */
function measuring({ store, tools, taking, building }, id) {
  const { figure } = store;
  if (!tools.some(({ gauge }) => gauge)) return nothing;
  if (figure.isPoint(id)) {
    const length = tools.find(({ make }) => make === "length") ?? null;
    return button(_("Length from %(name)s …", { name: labelOf(figure, id) }), () => {
      taking.take(length);
      building.fill({ type: "object", id });
    });
  }
  const { make, from } = figure.step(id);
  const of = figure.kind(id) === "circle" ? [id] : make === "segment" ? from : null;
  if (!of) return nothing;
  const equal = () => {
    taking.take(tools.find((tool) => tool.make === "equal_lengths") ?? null);
    for (const point of from) building.fill({ type: "object", id: point });
  };
  const isMeasured = store.measures.some((one) => one.join(" ") === of.join(" "));
  const words = figure.kind(id) === "circle" ? _("Radius") : _("Length");
  return html`${
    isMeasured
      ? button(_("Remove the measure"), () => store.perform({ op: "stop measuring", of }))
      : button(words, () => store.perform({ op: "measure", of }))
  }
  ${make === "segment" ? button(_("Equal to …"), equal) : nothing}`;
}

/** @param {Pick<Board, "store" | "setting" | "bar">} parts @param {string} id */
function loci({ store, setting, bar }, id) {
  const { figure } = store;
  if (setting.loci === false || !figure.isPoint(id)) return nothing;
  return driversOf(figure, id).map((driver) => {
    const names = { name: labelOf(figure, id), driver: labelOf(figure, driver) };
    const isDrawn = store.loci.some((one) => one.point === id && one.driver === driver);
    if (isDrawn) return button(_("Remove the locus"), () => store.perform({ op: "remove locus", point: id, driver }));
    return button(_("Locus as %(driver)s slides", names), () => {
      store.perform({ op: "locus", point: id, driver });
      bar.announce(
        _("The path of %(name)s while %(driver)s slides along its curve. Nothing can be built on it.", names),
      );
    });
  });
}
