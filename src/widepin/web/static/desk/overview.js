// Keeps the class overview as it is: asks every few seconds what changed, and puts the new cards in the place of the old.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";
import { drawAll } from "../figure/pictures.js";

const EVERY = 4000; // milliseconds

const overview = find(".live");
const told = overview.querySelector("[data-live]");
let { since } = overview.dataset;

async function ask() {
  if (document.hidden) return;
  try {
    const answer = await fetch(`${overview.dataset.changes}?since=${encodeURIComponent(since)}`, {
      headers: { Accept: "application/json" },
    });
    if (!answer.ok || answer.redirected) throw new Error(`${answer.status}`);
    const { at, cards, presence } = await answer.json();
    since = at;
    for (const [student, html] of Object.entries(cards)) replace(student, html);
    for (const [student, [kind, words]] of Object.entries(presence)) {
      const said = cardOf(student)?.querySelector(".presence");
      if (!said) continue;
      said.className = `presence ${kind}`;
      said.textContent = words;
    }
    const count = (kind) => Object.values(presence).filter(([one]) => one === kind).length;
    told.textContent = _("%(working)s at work, %(inactive)s inactive, %(offline)s offline", {
      working: count("working"),
      inactive: count("inactive"),
      offline: count("offline") + count("new"),
    });
  } catch {
    told.textContent = _("No connection; trying again");
  }
}

function cardOf(student) {
  return overview.querySelector(`[data-student="${student}"]`);
}

// A card that somebody is reading keeps the focus.
function replace(student, html) {
  const before = cardOf(student);
  if (!before) return;
  const hadFocus = before === document.activeElement;
  const holder = document.createElement("template");
  holder.innerHTML = html.trim();
  /** @type {any} */
  const card = holder.content.firstElementChild;
  before.replaceWith(card);
  drawAll(card);
  if (hadFocus) card.focus();
}

// Arrow keys go from card to card.
overview.addEventListener("keydown", (event) => {
  const way = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
  const cards = findAll("a.work-card[href]", overview);
  const place = cards.indexOf(document.activeElement);
  if (!way || place < 0) return;
  event.preventDefault();
  cards[Math.max(0, Math.min(cards.length - 1, place + way))].focus();
});

ask();
setInterval(ask, EVERY);
document.addEventListener("visibilitychange", ask);
