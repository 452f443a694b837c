// Says that somebody is before this board; the teacher's class overview shows it.

import { csrfToken } from "../look/page.js";

const EVERY = 30000; // milliseconds

export function sayHere(url) {
  const say = () => {
    if (document.hidden) return;
    fetch(url, { method: "POST", headers: { "X-CSRFToken": csrfToken() } }).catch(() => {}); // it is said again soon
  };
  say();
  setInterval(say, EVERY);
}
