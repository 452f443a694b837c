// The server keeps and says times in UTC; here they become those of the reader's clock.

for (const time of document.querySelectorAll("time[datetime]")) {
  const at = new Date(time.dateTime);
  time.textContent = at.toLocaleString("en-GB", { day: "numeric", month: "long", hour: "2-digit", minute: "2-digit" });
}
