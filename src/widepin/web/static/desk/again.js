// Checking all works of a task again: the server does it, whether or not this page stays open; here is how far it is.

import { _ } from "../look/language.js";
import { find, post } from "../look/page.js";

const MOMENT = 1000; // milliseconds between two looks

/** @typedef {{is_on: boolean, done: number, total: number}} Going */

const button = find("[data-again]");
const bar = find("progress", button.parentElement);
const words = find("[data-again-words]", button.parentElement);
const stop = find("[data-stop-again]", button.parentElement);

const begin = () => post(button.dataset.again);
const look = () => fetch(button.dataset.again, { headers: { Accept: "application/json" } });

/** @param {() => Promise<Response>} ask */
async function follow(ask) {
  button.disabled = true;
  bar.hidden = stop.hidden = false;
  for (let isOn = true; isOn;) {
    const answer = await ask().catch(() => null);
    ask = look;
    const going = answer?.ok && !answer.redirected ? await answer.json().catch(() => null) : null;
    if (going) show(going);
    else words.textContent = _("There is no connection; checking goes on all the same.");
    isOn = going?.is_on ?? true;
    if (isOn) await new Promise((done) => setTimeout(done, MOMENT));
  }
  location.assign(location.pathname);
}

/** @param {Going} going */
function show({ done, total }) {
  bar.max = total || 1;
  bar.value = done;
  words.textContent = _("%(done)s of %(total)s checked; you may leave this page", { done, total });
}

button.addEventListener("click", () => follow(begin));
stop.addEventListener("click", async () => {
  stop.disabled = true;
  await post(button.dataset.stop).catch(() => null);
  stop.disabled = false;
});
if ("now" in button.dataset) follow(begin);
else if ("going" in button.dataset) follow(look);
