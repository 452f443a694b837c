// Conditions as sentences with blanks. A blank holds a name, or points one after the other: AB, or A-B.

// parts: words and blanks in the order of "of"; order: which blank is which entry, where it is not the same.
// many: how the blanks of any number of terms are joined. size: points that make a term, where it is not one name.
export const RELATIONS = {
  same: { parts: ["", " is the same as ", ""] },
  on: { parts: ["", " lies on ", ""] },
  perpendicular: { parts: ["", " is perpendicular to ", ""] },
  parallel: { parts: ["", " is parallel to ", ""] },
  tangent: { parts: ["", " touches ", ""] },
  midpoint: { parts: ["", " is the midpoint of ", " and ", ""] },
  equal_length: { many: " and ", after: " are equally long" },
  equal_angle: { many: " and ", after: " are equal angles" },
  ratio: { parts: ["", " is to ", ""], ratio: true },
  distinct: { many: " and ", after: " all differ" },
  same_side: { parts: ["on one side of ", " lie ", " and ", ""] },
  opposite_side: { parts: ["on opposite sides of ", " lie ", " and ", ""] },
  inside_angle: { parts: ["", " lies inside the angle ", ""] },
};

// What stands in the list of relations to choose from.
export const NAMES = {
  same: "… is the same as …", on: "… lies on …", perpendicular: "… is perpendicular to …", parallel: "… is parallel to …",
  tangent: "… touches …", midpoint: "… is the midpoint of … and …", equal_length: "… and … are equally long",
  equal_angle: "… and … are equal angles", ratio: "… is to … as a number to a number", distinct: "… and … differ",
  same_side: "on one side of … lie … and …", opposite_side: "on opposite sides of … lie … and …",
  inside_angle: "… lies inside the angle …",
};

export function blanksOf(rel) {
  const { parts, many } = RELATIONS[rel];
  return many ? 2 : parts.length - 1;
}

// A term as it stands in a blank.
export function written(term) {
  const names = Array.isArray(term) ? term : [term];
  const text = names.map((name) => name.replace(/^model:/, "model "));
  return text.every((name) => /^[A-Z]\d*'?$/.test(name)) ? text.join("") : text.join("-");
}

// The term that a text means, where these names are known: a name, or a list of names. Unknown ones stay as they are.
export function termOf(text, names) {
  const name = (word) => word.trim().replace(/^model[\s:]+/, "model:");
  const whole = name(text);
  if (names.has(whole)) return whole;
  if (whole.includes("-")) return whole.split("-").map(name);
  const parts = [];
  for (let rest = whole; rest;) {
    const next = [...names].filter((one) => rest.startsWith(one)).sort((a, b) => b.length - a.length)[0];
    if (!next) return whole;
    parts.push(next);
    rest = rest.slice(next.length);
  }
  return parts.length > 1 ? parts : whole;
}
