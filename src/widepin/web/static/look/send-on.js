// A form that is sent on at once, to where a browser has to bring something, or a link that is followed at once; buttons
// and links are for where scripts do not run.

import { findAll } from "./page.js";

for (const form of findAll("form[data-send-on]")) form.submit();
for (const link of findAll("a[data-go-on]")) location.replace(link.href);
