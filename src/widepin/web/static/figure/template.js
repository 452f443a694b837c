// Templates of the tool book: "Line through {0} and {1}".

/**
 * The words of a template and what stands in its braces, in order; inBraces(name) gives a part, or several.
 * @param {string} template
 * @param {(name: string) => any} inBraces
 */
export function partsOf(template, inBraces) {
  return template
    .split(/\{(\w+)\}/)
    .flatMap((part, at) => (at % 2 ? inBraces(part) : part))
    .filter((part) => part !== "");
}

/**
 * A template as words without spaces around them, and what stands in its braces.
 * @param {string} template
 * @param {(name: string) => any} inBraces
 */
export function spoken(template, inBraces) {
  return partsOf(template, inBraces)
    .map((part) => (typeof part === "string" ? part.trim() : part))
    .filter((part) => part !== "");
}
