// An element of SVG.

const SVG = "http://www.w3.org/2000/svg";

/** @param {string} name @param {Record<string, any>} [attributes] @param {unknown} [text] */
export function element(name, attributes = {}, text) {
  const made = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  if (text !== undefined) made.textContent = String(text);
  return made;
}
