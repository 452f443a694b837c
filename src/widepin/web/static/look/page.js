// The page as scripts find it: elements with their types, and the requests that change something.

/** @param {string} selector @param {ParentNode} [root] @returns {any} the element, null where there is none */
export function find(selector, root = document) {
  return root.querySelector(selector);
}

/** @param {string} selector @param {ParentNode} [root] @returns {any[]} */
export function findAll(selector, root = document) {
  return [...root.querySelectorAll(selector)];
}

/**
 * @param {string} url @param {any} [body] a form's data, or what is sent as JSON
 * @param {RequestInit} [options] @returns {Promise<Response>} rejected where there is no connection
 */
export function post(url, body, options = {}) {
  const isForm = body === undefined || body instanceof FormData;
  const headers = { Accept: "application/json", "X-CSRFToken": tokenPlace().content };
  return fetch(url, {
    method: "POST",
    headers: isForm ? headers : { ...headers, "Content-Type": "application/json" },
    body: isForm ? body : JSON.stringify(body),
    ...options,
  });
}

/**
 * Somebody has signed in anew in this browser: the page as it is now has the token that fits.
 * @returns {Promise<boolean>} whether there is another one
 */
export async function renewToken() {
  const answer = await fetch(location.href).catch(() => null);
  if (!answer?.ok || answer.redirected) return false;
  const fresh = find("meta[name=csrf-token]", new DOMParser().parseFromString(await answer.text(), "text/html"));
  if (!fresh || fresh.content === tokenPlace().content) return false;
  tokenPlace().content = fresh.content;
  return true;
}

// The token against forged requests.
function tokenPlace() {
  return find("meta[name=csrf-token]");
}
