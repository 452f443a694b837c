// The page as scripts find it: elements with their types, and the token that every change is sent with.

/** @param {string} selector @param {ParentNode} [root] @returns {any} the element, null where there is none */
export function find(selector, root = document) {
  return root.querySelector(selector);
}

/** @param {string} selector @param {ParentNode} [root] @returns {any[]} */
export function findAll(selector, root = document) {
  return [...root.querySelectorAll(selector)];
}

/** @returns {string} the token against forged requests */
export function csrfToken() {
  return find("meta[name=csrf-token]").content;
}
