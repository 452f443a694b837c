// Whether a finger was the last to point: no keyboard should pop up under it.

let isFinger = false;

document.addEventListener(
  "pointerdown",
  ({ pointerType }) => {
    isFinger = pointerType === "touch";
  },
  true,
);

export function isTouch() {
  return isFinger;
}

/**
 * What is said to who points with a mouse and types, or with a finger.
 * @param {string} words
 * @param {string} forFingers
 */
export function byHand(words, forFingers) {
  return isFinger ? forFingers : words;
}
