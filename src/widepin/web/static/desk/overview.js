// Keeps the class overview as it is: asks every few seconds what changed, puts new cards in the place of the old, and the
// groups anew where a work has moved from one to another. Works that are selected stay selected.

import { _ } from "../look/language.js";
import { listenForHelp } from "./helping.js";
import { find, findAll } from "../look/page.js";
import { drawAll } from "../figure/pictures.js";
import { hideNames } from "./names-hidden.js";

const EVERY = 4000; // milliseconds
const DENSITY = "widepin-density";

const overview = find(".live");
const groups = find(".groups", overview);
const told = find("[data-live]", overview);
const selected = find("#several");
let { since, attempts } = overview.dataset;
listenForHelp(find("[data-help]", overview));

async function ask() {
  if (document.hidden) return;
  try {
    const {
      at,
      cards,
      groups: headings,
      presence,
      attempts: handedIn,
    } = await fetched(`${overview.dataset.changes}?since=${encodeURIComponent(since)}`);
    since = at;
    const hasMoved = Object.keys(cards).some(
      (student) => headingOf(student) !== headings[student][overview.dataset.by],
    );
    if (hasMoved || String(handedIn) !== attempts) await regroup();
    else for (const [student, html] of Object.entries(cards)) replace(student, html);
    for (const [student, [kind, words]] of Object.entries(presence)) {
      const said = cardOf(student)?.querySelector(".presence");
      if (!said) continue;
      said.className = `presence ${kind}`;
      said.textContent = words;
    }
    /** @param {string} kind */
    const count = (kind) => Object.values(presence).filter(([one]) => one === kind).length;
    told.textContent = _("%(working)s at work, %(inactive)s inactive, %(done)s done, %(offline)s offline", {
      working: count("working"),
      inactive: count("inactive"),
      done: count("done"),
      offline: count("offline") + count("new"),
    });
  } catch {
    told.textContent = _("No connection; trying again");
  }
}

/** @param {string} url */
async function fetched(url) {
  const answer = await fetch(url, { headers: { Accept: "application/json" } });
  if (!answer.ok || answer.redirected) throw new Error(`${answer.status}`);
  return answer.json();
}

/** @param {string} student */
function cardOf(student) {
  return groups.querySelector(`[data-student="${student}"]`);
}

/** @param {string} student */
function headingOf(student) {
  return cardOf(student)?.closest("[data-heading]").dataset.heading;
}

async function regroup() {
  const now = await fetched(overview.dataset.groups);
  attempts = String(now.attempts);
  find("[data-numbers]", overview).innerHTML = now.numbers;
  const help = find("[data-help]", overview);
  if (!help.querySelector("[data-send]:not([data-hint])")) help.innerHTML = now.help; // a hint that is being sent stays
  keeping(() => {
    groups.innerHTML = now.groups;
    return groups;
  });
}

/** @param {string} student @param {string} html */
function replace(student, html) {
  keeping(() => {
    const before = cardOf(student);
    const holder = document.createElement("template");
    holder.innerHTML = html.trim();
    const card = holder.content.firstElementChild;
    before.replaceWith(card);
    return card;
  });
}

/**
 * What is selected and what has the focus stay so when cards are put anew.
 * @param {() => any} put
 */
function keeping(put) {
  const ticked = new Set(boxes().flatMap((box) => (box.checked ? [box.value] : [])));
  const focused = document.activeElement?.closest?.("[data-student]")?.getAttribute("data-student");
  drawAll(put());
  for (const box of boxes()) box.checked = ticked.has(box.value);
  if (focused) cardOf(focused)?.querySelector("a")?.focus();
  showSelected();
}

// -- selecting several ------------------------------------------------------------------------------

function boxes() {
  return findAll("input[name=student]", groups);
}

function showSelected() {
  const count = boxes().filter((box) => box.checked).length;
  selected.hidden = count === 0;
  find("[data-count]", selected).textContent = _("%(n)s selected", { n: count });
  for (const all of findAll("[data-all]", groups)) {
    const own = findAll("input[name=student]", all.closest(".group"));
    all.checked = own.length > 0 && own.every((box) => box.checked);
    all.disabled = own.length === 0;
  }
}

groups.addEventListener("change", (/** @type {{target: any}} */ { target }) => {
  if (target.matches("[data-all]"))
    for (const box of findAll("input[name=student]", target.closest(".group"))) box.checked = target.checked;
  showSelected();
});
find("[data-clear]", selected).addEventListener("click", () => {
  for (const box of boxes()) box.checked = false;
  showSelected();
});

// -- how it is shown ----------------------------------------------------------------------------------

const density = find("[data-density]", overview);
density.value = localStorage.getItem(DENSITY) ?? "medium";
function showDensity() {
  groups.dataset.cards = density.value;
  localStorage.setItem(DENSITY, density.value);
}
density.addEventListener("change", showDensity);
showDensity();
find("[data-go]", overview).addEventListener("change", (/** @type {{target: any}} */ { target }) =>
  target.form.submit(),
);
hideNames(find("[data-hide-names]"));

// Arrow keys go from card to card.
overview.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
  /** @type {Record<string, number>} */
  const ways = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };
  const way = ways[event.key];
  const cards = findAll(".work-card a[href]", overview);
  const place = cards.indexOf(document.activeElement);
  if (!way || place < 0) return;
  event.preventDefault();
  cards[Math.max(0, Math.min(cards.length - 1, place + way))].focus();
});

showSelected();
ask();
setInterval(ask, EVERY);
document.addEventListener("visibilitychange", ask);
