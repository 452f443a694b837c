// Free and sliding points of a picture can be dragged; nothing of it is kept.

/** @import { Draggable } from "./types.js" */

/** @type {Record<string, number>} */
const REACH = { mouse: 13, pen: 14, touch: 24 };

/** @param {Draggable} picture @param {any} svg */
export function makeDraggable(picture, svg) {
  /** @type {string | null} */
  let held = null;
  /** @param {{clientX: number, clientY: number}} fields */
  const place = ({ clientX, clientY }) => {
    const box = svg.getBoundingClientRect();
    return [clientX - box.left, clientY - box.top];
  };
  /** @param {PointerEvent & {target: any}} event */
  const near = (event) => {
    const { figure, view } = picture;
    const [px, py] = place(event);
    return (
      figure.ids
        .filter((id) => figure.canDrag(id) && figure.isDefined(id) && !picture.isHidden(id))
        .map((id) => ({
          id,
          far: Math.hypot(...view.toScreen(...figure.shape(id)).map((x, axis) => x - [px, py][axis])),
        }))
        .filter(({ far }) => far <= (REACH[event.pointerType] ?? REACH.mouse))
        .sort((a, b) => a.far - b.far)[0]?.id ?? null
    );
  };
  svg.addEventListener("pointerdown", (/** @type {any} */ event) => {
    held = near(event);
    if (!held) return;
    event.preventDefault();
    svg.setPointerCapture(event.pointerId);
  });
  svg.addEventListener("pointermove", (/** @type {any} */ event) => {
    if (!held) {
      svg.classList.toggle("over-point", near(event) !== null);
      return;
    }
    picture.put(held, picture.view.toPaper(...place(event)));
  });
  for (const end of ["pointerup", "pointercancel"])
    svg.addEventListener(end, () => {
      held = null;
    });
  svg.addEventListener(
    "touchstart",
    (/** @type {any} */ event) => {
      if (held) event.preventDefault();
    },
    { passive: false },
  );
}
