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
