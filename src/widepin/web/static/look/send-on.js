// A form that is sent on at once, to where a browser has to bring something; its button is for where scripts do not run.

import { findAll } from "./page.js";

for (const form of findAll("form[data-send-on]")) form.submit();
