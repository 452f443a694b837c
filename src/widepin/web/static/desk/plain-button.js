// A button among the parts of a page that scripts make.

/** @param {string} words @param {() => void} onClick */
export function plainButton(words, onClick) {
  const button = document.createElement("button");
  button.type = "button";
  button.className = "btn btn-plain";
  button.textContent = words;
  button.addEventListener("click", onClick);
  return button;
}
