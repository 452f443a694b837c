// The server keeps times in UTC; here they are said on the school's clock, whatever the reader's own says.

import { findAll } from "./page.js";

const timeZone = document.body.dataset.timeZone || "UTC";

/**
 * A time in UTC in words, on the school's clock; with the time zone where the reader's clock is another.
 * @param {string} time
 */
export function inWords(time) {
  const at = new Date(time);
  /** @type {Intl.DateTimeFormatOptions} */
  const form = { weekday: "long", day: "numeric", month: "long", hour: "2-digit", minute: "2-digit" };
  const said = at.toLocaleString("en-GB", { ...form, timeZone });
  return said === at.toLocaleString("en-GB", form) ? said : `${said} (${timeZone})`;
}

for (const time of findAll("time[datetime]")) time.textContent = inWords(time.dateTime);
