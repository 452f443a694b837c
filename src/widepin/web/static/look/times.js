// The server keeps and says times in UTC; here they become those of the reader's clock.

import { findAll } from "./page.js";

// A time in UTC in the reader's words.
export function inWords(time) {
  return new Date(time).toLocaleString("en-GB", {
    weekday: "long",
    day: "numeric",
    month: "long",
    hour: "2-digit",
    minute: "2-digit",
  });
}

for (const time of findAll("time[datetime]")) time.textContent = inWords(time.dateTime);

// Times that are typed in the reader's clock go to the server in UTC, through the hidden field of that name.
for (const field of findAll("input[data-time]")) {
  const hidden = field.form.querySelector(`input[type=hidden][name=${field.dataset.time}]`);
  if (hidden.value) {
    const at = new Date(`${hidden.value}Z`);
    field.value = new Date(at.getTime() - at.getTimezoneOffset() * 60000).toISOString().slice(0, 16);
  }
  field.addEventListener("change", () => {
    hidden.value = field.value ? new Date(field.value).toISOString().slice(0, 16) : "";
  });
}
