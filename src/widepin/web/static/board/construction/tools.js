// The tools: each a sentence with blanks, and a card with a drawing. Those that make an object are rows of the tool
// book; here stand only those that make none, or several at once.

import { _ } from "../../look/language.js";
import { spoken } from "../../figure/template.js";
/** @import { Allowance, Wanted } from "../../figure/types.js" */
/** @import { Tool } from "../types.js" */
/** @import { ToolBook } from "../../figure/tape.js" */

const POINT = { kind: "point" };
const MARKED = { kind: "point", there: true }; // no new point is put for it
const AGAIN = { kind: "point", again: true, there: true }; // may be one that is in the sentence already

// group: of its card. say: words and blanks in reading order. order: which blank is which entry of "from", where it is not the same.
// draws: the make of its steps, where that is not its own name. inTasks: what tasks call it, where that is not its make. keeps: blanks that stay filled for the next step.
const DRAG = {
  make: "move",
  group: "draw",
  name: _("Drag"),
  say: [_("Drag"), { kind: "draggable" }],
  icon: "M6 18l14-8M20 10l-6 0M20 10l-3 5M6 18a2.5 2.5 0 1 0 .1 0",
};
const FREE = {
  make: "point",
  group: "draw",
  inTasks: "points",
  name: _("Point"),
  say: [_("Point at"), { kind: "place" }],
  icon: "M13 14a4 4 0 1 0 .1 0M13 4v4M13 20v4M3 14h4M19 14h4",
};
const POLYLINE = {
  make: "polyline",
  group: "draw",
  draws: "segment",
  inTasks: "segment",
  name: _("Polyline"),
  say: [_("Polyline from"), POINT, _("on to"), POINT],
  keeps: [1],
  icon: "M4 22L10 8L17 18L23 5M4 20.4a1.6 1.6 0 1 0 .1 0M10 6.4a1.6 1.6 0 1 0 .1 0M17 16.4a1.6 1.6 0 1 0 .1 0",
};

// The groups of tools, in the order of their cards; measuring stands apart from what makes moves.
export const GROUPS = [
  { group: "draw", name: _("Draw") },
  { group: "mark", name: _("Mark") },
  { group: "construct", name: _("Construct") },
  { group: "measure", name: _("Measure") },
];

// Gauges make no object and cost no move.
const GAUGES = [
  {
    make: "length",
    gauge: true,
    name: _("Length"),
    say: [_("Length from"), MARKED, "to", { kind: "point or line" }],
    icon: "M3 19L23 9M2 15l3 8M21 5l3 8M9 13l1 3M14 10.5l1 3",
  },
  {
    make: "angle",
    gauge: true,
    name: _("Angle"),
    say: [_("Angle from"), MARKED, "at", MARKED, "to", MARKED],
    icon: "M4 22L24 22M4 22L17 5M13 22a9 9 0 0 0-3.5-7",
  },
  {
    make: "radius",
    gauge: true,
    name: _("Radius"),
    say: [_("Radius of"), { kind: "circle" }],
    icon: "M13 5a9 9 0 1 0 .1 0M13 14L19.5 8M12 13l2 2M12 15l2-2",
  },
  {
    make: "ratio",
    gauge: true,
    name: _("Ratio"),
    say: [_("Ratio of the length from"), AGAIN, "to", AGAIN, _("to that from"), AGAIN, "to", AGAIN],
    icon: "M4 9h18M4 6v6M22 6v6M4 20h9M4 17v6M13 17v6",
  },
];

// What is believed to be equal is marked.
const EQUALITIES = [
  {
    make: "equal_lengths",
    pairs: 2,
    name: _("Equal lengths"),
    say: [_("Equal lengths: from"), AGAIN, "to", AGAIN, _("and from"), AGAIN, "to", AGAIN],
    icon: "M3 9h20M12 5.5v7M3 19h20M12 15.5v7",
  },
  {
    make: "equal_angles",
    pairs: 3,
    name: _("Equal angles"),
    say: [_("Equal angles: from"), AGAIN, "at", AGAIN, "to", AGAIN, _("and from"), AGAIN, "at", AGAIN, "to", AGAIN],
    icon: "M3 12L14 12M3 12L12 4M10 12a7 7 0 0 0-2-4.6M11 24L22 24M11 24L20 16M18 24a7 7 0 0 0-2-4.6",
  },
];

/**
 * The tool that makes an object in one step, as the tool book has it.
 * @param {string} make
 * @param {ToolBook} book
 */
function toolOf(make, { makes, words }) {
  const { card, sentence, icon, keeps } = words.makes[make];
  const entries = [...sentence.matchAll(/\{(\d)\}/g)].map(([, entry]) => Number(entry));
  const { constructions, counts, different } = makes[make];
  const inOrder = entries.every((entry, blank) => entry === blank);
  return {
    make,
    group: constructions.length ? "construct" : counts ? "draw" : "mark",
    name: card,
    icon,
    keeps: keeps.length ? keeps : undefined,
    different: different.map((/** @type {number[]} */ pair) =>
      pair.map((/** @type {number} */ entry) => entries.indexOf(entry)),
    ),
    order: inOrder ? undefined : entries.map((_blank, entry) => entries.indexOf(entry)),
    say: spoken(sentence, (entry) => ({ kind: blankFor(makes[make].from[Number(entry)]) })),
  };
}

/** @param {string[]} kinds */
function blankFor(kinds) {
  if (kinds.length === 1) return kinds[0];
  return kinds.includes("circle") ? "curve" : "straight";
}

/**
 * All tools, in the order of their cards.
 * @param {ToolBook} book
 */
function toolsOf(book) {
  /** @type {any[]} */
  const making = Object.keys(book.words.makes)
    .filter((make) => book.words.makes[make].card)
    .map((make) => toolOf(make, book));
  making.splice(making.findIndex(({ make }) => make === "segment") + 1, 0, POLYLINE);
  const measuring = [...GAUGES, ...EQUALITIES].map((tool) => ({ ...tool, group: "measure" }));
  const all = [DRAG, FREE, ...making, ...measuring];
  return inGroups(all);
}

/**
 * Tools by their groups, otherwise in the order that they have.
 * @param {Tool[]} tools
 */
export function inGroups(tools) {
  return GROUPS.flatMap(({ group }) => tools.filter((tool) => tool.group === group));
}

// What is in hand to write on the paper, and to select several objects. Neither makes an object.
export const NOTE = { make: "note", say: [_("Note"), { kind: "spot" }, _("saying"), { kind: "words" }] };
export const SELECT = { make: "select several", say: [_("Select what is framed, or"), { kind: "any", own: true }] };

/**
 * The tools that the task allows: with how often, null for any number. measuring: whether gauges are among them.
 * @param {Allowance[]} tools
 * @param {boolean} measuring
 * @param {ToolBook} book
 */
export function allowed(tools, measuring, book) {
  const most = new Map(tools.map(({ tool, most: count }) => [tool, count]));
  const foreign = new Set(tools.filter((one) => one.foreign).map(({ tool }) => tool));
  const { opening } = tools.find(({ tool }) => tool === "circle_radius") ?? {};
  return toolsOf(book)
    .filter(
      ({ make, inTasks, group }) =>
        (group === "measure" && measuring) ||
        make === "move" ||
        make === "intersection" ||
        most.has(inTasks ?? make) ||
        (make === "point" && (most.has("free_point") || most.has("point_on"))),
    )
    .map((tool) => ({
      ...tool,
      most: most.get(tool.inTasks ?? tool.make) ?? null,
      isForeign: foreign.has(tool.inTasks ?? tool.make),
    }))
    .map((tool) => (opening && tool.make === "circle_radius" ? locked(tool, opening) : tool));
}

/**
 * A fixed compass, whose one radius is the distance of two given points: nothing but the centre is asked for.
 * @param {Tool} tool
 * @param {string[]} opening
 */
function locked(tool, opening) {
  return {
    ...tool,
    name: _("Fixed compass"),
    say: [_("Circle with radius %(radius)s centred", { radius: opening.join("") }), POINT],
    order: null,
    keeps: [],
    opening,
  };
}

/** @param {Tool} tool */
export function makeOf(tool) {
  return tool.draws ?? tool.make;
}

/** @param {Tool} tool */
export function blanksOf(tool) {
  return tool.say.filter((part) => typeof part !== "string");
}

/**
 * The answer as a sentence with blanks: "The ray m is [ ]".
 * @param {Wanted[]} wanted
 */
export function answering(wanted) {
  return {
    make: "answer",
    say: wanted.flatMap(({ name, kind, kinds, given }, place) => [
      place ? _("the %(kind)s %(name)s is", { kind, name }) : _("The %(kind)s %(name)s is", { kind, name }),
      { kind: "wanted", kinds, own: !given },
    ]),
  };
}
