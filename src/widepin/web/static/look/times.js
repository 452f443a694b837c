// The server keeps times in UTC; here they are said and typed on the school's clock, whatever the reader's own says.

import { findAll } from "./page.js";

const timeZone = document.body.dataset.timeZone || "UTC";
const DAY = 24 * 60 * 60_000; // milliseconds

// A time in UTC in words, on the school's clock; with the time zone where the reader's clock is another.
export function inWords(time) {
  const at = new Date(time);
  /** @type {Intl.DateTimeFormatOptions} */
  const form = { weekday: "long", day: "numeric", month: "long", hour: "2-digit", minute: "2-digit" };
  const said = at.toLocaleString("en-GB", { ...form, timeZone });
  return said === at.toLocaleString("en-GB", form) ? said : `${said} (${timeZone})`;
}

// A time in UTC as it stands in a field, on the school's clock: 2031-05-06T12:00.
function onTheClock(at) {
  const parts = new Intl.DateTimeFormat("en-CA", {
    timeZone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  }).formatToParts(at);
  const { year, month, day, hour, minute } = Object.fromEntries(parts.map(({ type, value }) => [type, value]));
  return `${year}-${month}-${day}T${hour}:${minute}`;
}

// The time in UTC that a field says. Of the two that a clock shows twice in autumn it is the first; one that it skips in
// spring becomes an hour later.
function inUtc(typed) {
  const naive = Date.parse(`${typed}Z`);
  const offset = (at) => Date.parse(`${onTheClock(new Date(at))}Z`) - at;
  const [before, after] = [-DAY, DAY].map((away) => new Date(naive - offset(naive + away)));
  return onTheClock(before) !== typed && onTheClock(after) === typed ? after : before;
}

for (const time of findAll("time[datetime]")) time.textContent = inWords(time.dateTime);

// Times that are typed on the school's clock go to the server in UTC, through the hidden field of that name.
for (const field of findAll("input[data-time]")) {
  const hidden = field.form.querySelector(`input[type=hidden][name=${field.dataset.time}]`);
  if (hidden.value) field.value = onTheClock(new Date(`${hidden.value}Z`));
  field.addEventListener("change", () => {
    hidden.value = field.value ? inUtc(field.value).toISOString().slice(0, 16) : "";
  });
}
