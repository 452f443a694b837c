// A comment is put on the object of the figure that is clicked.

import { _ } from "../look/language.js";
import { find } from "../look/page.js";
import { Hits } from "../figure/hits.js";

const REACH = { mouse: 12, touch: 24 }; // pixels
const STILL = 5; // pixels that a click may wander

const holder = find(".result .picture.large");
const choice = find("#comments select[name=step]");

/** @param {PointerEvent} event */
function objectAt(event) {
  const { picture } = holder;
  const svg = find("svg", holder);
  const box = svg.getBoundingClientRect();
  const place = [event.clientX - box.left, event.clientY - box.top];
  const reach = event.pointerType === "touch" ? REACH.touch : REACH.mouse;
  const hits = new Hits(picture.figure, picture.view, (id) => picture.isHidden(id));
  return [...hits.points(place, reach), ...hits.curves(place, reach)].map(({ id }) => id);
}

if (holder && choice) {
  const svg = find("svg", holder);
  /** @type {{x: number, y: number} | null} */
  let down = null;
  svg.addEventListener("pointerdown", (/** @type {PointerEvent} */ { clientX: x, clientY: y }) => (down = { x, y }));
  svg.addEventListener("pointerup", (/** @type {PointerEvent} */ event) => {
    if (!down || Math.hypot(event.clientX - down.x, event.clientY - down.y) > STILL || !holder.picture) return;
    const can = new Set([...choice.options].map(({ value }) => value));
    const id = objectAt(event).find((/** @type {string} */ one) => can.has(one));
    if (!id) return;
    choice.value = id;
    holder.picture.light(id);
    find(".caption", holder).textContent = _("The comment is on %(name)s.", {
      name: choice.selectedOptions[0].textContent.replace(/^\S+ /, ""),
    });
  });
  choice.addEventListener("change", () => holder.picture?.light(choice.value || null));
}
