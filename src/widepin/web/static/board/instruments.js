// The instruments: each a sentence with blanks, and a card with a drawing. Words and pictures only; what an instrument
// makes from what is said by the tool book.

import { joiner } from "../figure/listed.js";

const POINT = { kind: "point" };
const STRAIGHT = { kind: "straight" };
const CURVE = { kind: "curve" };
const AGAIN = { kind: "point", again: true }; // may be one that is in the sentence already

// say: words and blanks in reading order. order: which blank is which entry of "from", where it is not the same.
// draws: the make of its steps, where that is not its own name. keeps: blanks that stay filled for the next step.
export const INSTRUMENTS = [
  { make: "move", name: "Move", say: ["Move", { kind: "draggable" }], icon: "M6 18l14-8M20 10l-6 0M20 10l-3 5M6 18a2.5 2.5 0 1 0 .1 0" },
  { make: "point", tool: "points", name: "Point", say: ["Point at", { kind: "place" }], icon: "M13 14a4 4 0 1 0 .1 0M13 4v4M13 20v4M3 14h4M19 14h4" },
  { make: "line", name: "Line", say: ["Line through", POINT, "and", POINT], icon: "M2 23L24 5M9 17.3a1.6 1.6 0 1 0 .1 0M17 10.7a1.6 1.6 0 1 0 .1 0" },
  { make: "ray", name: "Ray", say: ["Ray from", POINT, "through", POINT], icon: "M5 21L24 5M5 19.4a1.6 1.6 0 1 0 .1 0M15 11a1.6 1.6 0 1 0 .1 0" },
  { make: "segment", name: "Segment", say: ["Segment from", POINT, "to", POINT], icon: "M5 21L21 7M5 19.4a1.6 1.6 0 1 0 .1 0M21 5.4a1.6 1.6 0 1 0 .1 0" },
  { make: "run", draws: "segment", tool: "segment", name: "Run", say: ["Run of segments from", POINT, "on to", POINT], keeps: [1], icon: "M4 22L10 8L17 18L23 5M4 20.4a1.6 1.6 0 1 0 .1 0M10 6.4a1.6 1.6 0 1 0 .1 0M17 16.4a1.6 1.6 0 1 0 .1 0" },
  { make: "circle", name: "Circle", say: ["Circle centred", POINT, "through", POINT], icon: "M13 5a9 9 0 1 0 .1 0M13 12.6a1.4 1.4 0 1 0 .1 0M19.4 6.2a1.4 1.4 0 1 0 .1 0" },
  { make: "circle_radius", name: "Kept opening", say: ["Opening from", POINT, "to", POINT, "kept for a circle centred", POINT], order: [2, 0, 1], keeps: [0, 1], icon: "M13 3L6 24M13 3l7 21M8.5 15a8 8 0 0 0 9 0" },
  { make: "intersection", tool: "intersection", name: "Crossing", say: ["Crossing of", CURVE, "and", CURVE], icon: "M3 22L23 6M4 7l18 14M10 11l6 6M16 11l-6 6" },
  { make: "midpoint", name: "Midpoint", say: ["Midpoint of", POINT, "and", POINT], icon: "M3 14h20M3 12.4a1.6 1.6 0 1 0 .1 0M23 12.4a1.6 1.6 0 1 0 .1 0M10 11l6 6M16 11l-6 6" },
  { make: "perpendicular", name: "Perpendicular", say: ["Perpendicular to", STRAIGHT, "through", POINT], icon: "M3 21h20M13 21V4M13 16h5v5" },
  { make: "parallel", name: "Parallel", say: ["Parallel to", STRAIGHT, "through", POINT], icon: "M3 18L23 9M3 24L23 15" },
  { make: "perpendicular_bisector", name: "Middle upright", say: ["Perpendicular bisector of", POINT, "and", POINT], icon: "M3 17h20M13 4v20M7 15v4M19 15v4" },
  { make: "angle_bisector", name: "Angle bisector", say: ["Bisector of the angle from", POINT, "at", POINT, "to", POINT], icon: "M4 22L23 22M4 22L16 5M4 22L22 12" },
  { make: "circle_through", name: "Circle by three", say: ["Circle through", POINT, "and", POINT, "and", POINT], icon: "M13 5a9 9 0 1 0 .1 0M5 12a1.4 1.4 0 1 0 .1 0M20 9a1.4 1.4 0 1 0 .1 0M15 21.5a1.4 1.4 0 1 0 .1 0" },
  // Gauges make no object and cost no move.
  { make: "length", gauge: true, name: "Length", say: ["Length from", POINT, "to", { kind: "point or straight" }], icon: "M3 19L23 9M2 15l3 8M21 5l3 8M9 13l1 3M14 10.5l1 3" },
  { make: "angle", gauge: true, name: "Angle", say: ["Angle from", POINT, "at", POINT, "to", POINT], icon: "M4 22L24 22M4 22L17 5M13 22a9 9 0 0 0-3.5-7" },
  { make: "radius", gauge: true, name: "Radius", say: ["Radius of", { kind: "circle" }], icon: "M13 5a9 9 0 1 0 .1 0M13 14L19.5 8M12 13l2 2M12 15l2-2" },
  { make: "ratio", gauge: true, name: "Ratio", say: ["Ratio of the length from", AGAIN, "to", AGAIN, "to that from", AGAIN, "to", AGAIN], icon: "M4 9h18M4 6v6M22 6v6M4 20h9M4 17v6M13 17v6" },
];

// What is in hand to write on the paper, and to gather several objects. Neither makes an object.
export const NOTE = { make: "note", say: ["Note", { kind: "spot" }, "saying", { kind: "words" }] };
export const GATHER = { make: "gather", say: ["Gather what is framed, or", { kind: "any", own: true }] };

// The instruments that the task allows: with how often, null for any number. measuring: whether gauges are among them.
export function allowed(tools, measuring) {
  const most = new Map(tools.map(({ tool, most: count }) => [tool, count]));
  const { opening } = tools.find(({ tool }) => tool === "circle_radius") ?? {};
  return INSTRUMENTS.filter(({ make, tool, gauge }) => (gauge && measuring) || make === "move" || make === "intersection" || most.has(tool ?? make)
    || (make === "point" && (most.has("free_point") || most.has("point_on"))))
    .map((instrument) => ({ ...instrument, most: most.get(instrument.tool ?? instrument.make) ?? null }))
    .map((instrument) => (opening && instrument.make === "circle_radius" ? locked(instrument, opening) : instrument));
}

// A compass with one opening only, the distance of two given points: nothing but the centre is asked for.
function locked(instrument, opening) {
  return { ...instrument, name: "One opening", say: [`Circle with the opening ${opening.join("")} centred`, POINT], order: null, keeps: [], opening };
}

export function makeOf(instrument) {
  return instrument.draws ?? instrument.make;
}

export function blanksOf(instrument) {
  return instrument.say.filter((part) => typeof part !== "string");
}

// The answer as a sentence with blanks: "The ray m is [ ]".
export function answering(wanted) {
  return {
    make: "answer",
    say: wanted.flatMap(({ name, kind, kinds, given }, place) => [
      `${place ? "the" : "The"} ${kind} ${name} is`, { kind: "wanted", kinds, own: !given },
    ]),
  };
}

// A step as parts of a sentence: words, and {id} for objects. The first result of an instrument that made several steps at
// once is told by what the instrument was used on.
export function sentenceOf(step) {
  if (step.within?.gives.includes(step.id)) {
    const { instrument, from, gives: [first] } = step.within;
    if (step.id !== first) return ["with", { id: first }];
    return [instrument, "from", ...from.flatMap((id, place) => [...(place ? [joiner(place, from.length)] : []), { id }])];
  }
  const from = (step.from ?? []).map((id) => ({ id }));
  switch (step.make) {
    case "free_point": return [{ id: step.id }, "put freely"];
    case "point_on": return [{ id: step.id }, "put on", from[0]];
    case "intersection": return crossingOf(step, from);
    default: {
      const { say, order } = INSTRUMENTS.find(({ make }) => make === step.make);
      let blank = 0;
      return say.map((part) => (typeof part === "string" ? part : from[entryOf(order, blank++)]));
    }
  }
}

// The entry of "from" that a blank holds; order[entry] is the blank of an entry.
function entryOf(order, blank) {
  return order ? order.indexOf(blank) : blank;
}

function crossingOf(step, from) {
  const parts = [{ id: step.id }, "where", from[0], "meets", from[1]];
  if (step.other_than) return [...parts, "again, not", { id: step.other_than }];
  if (step.nearest_to) return [...parts, "nearer to", { id: step.nearest_to }];
  if (step.farthest_from) return [...parts, "farther from", { id: step.farthest_from }];
  return parts;
}
