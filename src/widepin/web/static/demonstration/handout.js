// A demonstration on paper: a picture for every frame.

import { find, findAll } from "../look/page.js";
import { Frames } from "../figure/frames.js";
import { ToolBook } from "../figure/tape.js";

const book = await ToolBook.load(String(document.body.dataset.toolBook));
const shown = JSON.parse(find("#demonstration").textContent);
for (const [number, svg] of findAll(".frames-on-paper svg").entries()) new Frames(book, shown, svg).go(number);
find(".frames-on-paper").dataset.ready = "yes";
