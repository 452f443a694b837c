// Why it is true: the lines of a proof beside the figure. A line that is pointed at, or reached by arrow keys, lights up what
// it is about and the lines that it rests on; all of them play one after the other.

import { _ } from "../look/language.js";
import { find, findAll } from "../look/page.js";

const PACE = 2600; // milliseconds a line

class Why {
  #playing = null;

  constructor(panel, holder) {
    this.panel = panel;
    this.holder = holder;
    this.opener = find("[data-why-open]", panel);
    this.said = find("[data-why-said]", panel);
    this.list = find("ol", panel);
    this.player = find("[data-why-play]", panel);
    this.opener.addEventListener("click", () => this.#open());
    this.player.addEventListener("click", () => (this.#playing ? this.#stop() : this.#play()));
    this.list.addEventListener("keydown", (event) => this.#press(event));
  }

  async #open() {
    this.opener.disabled = true;
    this.said.textContent = _("Looking for a proof …");
    let answer;
    try {
      answer = await (await fetch(this.panel.dataset.why, { headers: { Accept: "application/json" } })).json();
    } catch {
      this.said.textContent = _("There is no connection. Try again.");
      this.opener.disabled = false;
      return;
    }
    this.said.textContent = answer.said ?? "";
    if (!answer.lines?.length) return;
    this.lines = answer.lines;
    const rows = answer.lines.map((line, place) => this.#row(line, answer.lines[place - 1]?.case ?? ""));
    this.list.replaceChildren(...rows);
    this.list.hidden = this.player.hidden = false;
    this.opener.hidden = true;
    this.list.firstElementChild.focus();
  }

  // before: the case of the line before it.
  #row(line, before) {
    const row = document.createElement("li");
    row.tabIndex = -1;
    const words = Object.assign(document.createElement("b"), { textContent: line.words });
    const reason = Object.assign(document.createElement("span"), { textContent: line.reason });
    if (line.case !== before) row.append(Object.assign(document.createElement("i"), { textContent: line.case }));
    row.append(words, " ", reason);
    if (line.elements) {
      const place = _("Elements %(place)s", { place: line.elements });
      row.append(" ", Object.assign(document.createElement("small"), { textContent: place }));
    }
    row.classList.toggle("reached", line.condition !== null);
    const show = () => this.show(line.n);
    row.addEventListener("pointerenter", show);
    row.addEventListener("focus", show);
    return row;
  }

  // Light up a line: its objects on the figure, and the lines that it rests on.
  show(number) {
    const line = this.lines[number - 1];
    for (const [place, row] of [...this.list.children].entries()) {
      row.classList.toggle("shown", place + 1 === number);
      row.classList.toggle("rests-on", line.because.includes(place + 1));
      row.tabIndex = place + 1 === number ? 0 : -1;
    }
    this.current = number;
    this.holder.picture?.tell([...line.objects, ...line.steps], line);
  }

  #press(event) {
    const way = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    this.#stop();
    const next = Math.max(1, Math.min(this.lines.length, this.current + way));
    this.list.children[next - 1].focus();
  }

  #play() {
    let number = this.current >= this.lines.length ? 0 : (this.current ?? 0);
    const go = () => {
      number += 1;
      if (number > this.lines.length) return this.#stop();
      this.list.children[number - 1].scrollIntoView({ block: "nearest" });
      this.show(number);
    };
    this.player.textContent = _("Stop");
    this.#playing = setInterval(go, PACE);
    go();
  }

  #stop() {
    clearInterval(this.#playing);
    this.#playing = null;
    this.player.textContent = _("Play the proof");
  }
}

for (const panel of findAll("[data-why]")) panel.proof = new Why(panel, find(panel.dataset.of));
