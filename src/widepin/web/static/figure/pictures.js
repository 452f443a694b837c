// Draws every figure of a page: elements with data-figure hold an SVG, and players for its break and its steps if any.

import { find } from "../look/page.js";
import { BreakPlayer } from "./break-player.js";
import { makeDraggable } from "./dragging.js";
import { Picture } from "./picture.js";
import { StepPlayer } from "./step-player.js";
import { ToolBook } from "./tape.js";

/** @param {ToolBook} book @param {any} holder */
function show(book, holder) {
  const picture = new Picture(
    book,
    JSON.parse(holder.dataset.figure),
    holder.querySelector("svg"),
    holder.dataset.names !== "no",
  );
  if (holder.classList.contains("large")) makeDraggable(picture, holder.querySelector("svg"));
  const caption = holder.querySelector(".caption");
  /** @param {string} words */
  const say = (words) => {
    caption.textContent = words;
  };
  // Only one of the two is at work at a time: the break is played with all steps, the steps are shown as drawn.
  const controls = ["break", "step"].map((name) => holder.querySelector(`.${name}-player`));
  const breakPlayer = controls[0] && new BreakPlayer(picture, controls[0], say, () => stepPlayer?.rest());
  const stepPlayer = controls[1] && new StepPlayer(picture, controls[1], say, () => breakPlayer?.rest());
  if (breakPlayer && !matchMedia("(prefers-reduced-motion: reduce)").matches) {
    let isUsed = false; // somebody turned to it, and may have put it back
    for (const type of ["pointerdown", "keydown", "input"])
      holder.addEventListener(type, () => (isUsed = true), { capture: true, once: true });
    setTimeout(() => {
      if (!isUsed && picture.isUntouched) breakPlayer.play();
    }, 900);
  }
  holder.querySelector("[data-overlay]")?.addEventListener("change", (/** @type {{target: any}} */ { target }) => {
    picture.showsModel = target.checked;
    picture.paint();
  });
  for (const step of holder.querySelectorAll("[data-step] .on-step")) {
    step.addEventListener("click", () => {
      const id = step.closest("[data-step]").dataset.step;
      const isStep = picture.data.steps.some((/** @type {any} */ one) => one.id === id);
      picture.light(isStep ? null : id); // what is given is no step to go to
      if (isStep) stepPlayer?.showStep(id);
    });
  }
  holder.picture = picture;
  holder.stepPlayer = stepPlayer;
  holder.dataset.shown = "yes"; // its players answer from now on
}

// Keys that links of the page name, where nothing is being typed.
document.addEventListener("keydown", (event) => {
  const { key, ctrlKey, metaKey, altKey } = event;
  /** @type {any} */
  const target = event.target;
  if (ctrlKey || metaKey || altKey || target.matches("input, textarea, select")) return;
  find(`a[data-key="${CSS.escape(key)}"]`)?.click();
});

/** @type {ToolBook | null} */
let book = null;

/**
 * Draws the figures in a part of a page.
 * @param {ParentNode} part
 */
export async function drawAll(part) {
  const holders = [...part.querySelectorAll("[data-figure]")];
  if (!holders.length) return;
  book ??= await ToolBook.load(String(document.body.dataset.toolBook));
  for (const holder of holders) show(book, holder);
}

await drawAll(document);
