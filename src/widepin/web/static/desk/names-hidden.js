// Hides the names of students, for showing a page to the class; the browser remembers it.

const KEY = "widepin-names-hidden";

/**
 * button: pressed while names are hidden; isHidden: at first, where nothing is remembered
 * @param {any} button
 * @param {boolean} [isHidden]
 */
export function hideNames(button, isHidden = false) {
  /** @param {boolean} isOn */
  const show = (isOn) => {
    document.body.classList.toggle("names-hidden", isOn);
    button.setAttribute("aria-pressed", String(isOn));
  };
  const remembered = sessionStorage.getItem(KEY);
  show(remembered === null ? isHidden : remembered === "yes");
  button.addEventListener("click", () => {
    const isOn = !document.body.classList.contains("names-hidden");
    sessionStorage.setItem(KEY, isOn ? "yes" : "no");
    show(isOn);
  });
}
