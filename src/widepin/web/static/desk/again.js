// Checking all works of a task again, some at a time, with a bar that shows how far it has come.

import { _ } from "../look/language.js";
import { find, post } from "../look/page.js";

const button = find("[data-again]");
const bar = find("progress", button.parentElement);
const words = find("[data-again-words]", button.parentElement);

async function checkAll() {
  button.disabled = true;
  bar.hidden = false;
  try {
    for (let last = 0, done = -1, total = 0; done < total;) {
      const body = new FormData();
      body.append("after", String(last));
      const answer = await post(button.dataset.again, body);
      if (!answer.ok) throw new Error(`${answer.status}`);
      ({ last, done, total } = await answer.json());
      bar.max = total || 1;
      bar.value = done;
      words.textContent = _("%(done)s of %(total)s checked", { done, total });
    }
    location.assign(location.pathname);
  } catch {
    words.textContent = _("It was interrupted. Check again to continue; nothing is lost.");
    button.disabled = false;
  }
}

button.addEventListener("click", checkAll);
if ("now" in button.dataset) checkAll();
