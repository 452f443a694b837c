"""The board looks and says what it did, after every action of two works: each control, each text, each thing drawn.

Where something is to look or to be said otherwise, the record is made anew and its difference read:
``python -m pytest tests/browser/test_recorded_board.py`` with ``WIDEPIN_RECORD=1``.
"""

import json
import os
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.zoo import JUMPING_GABLE

RECORD = Path(__file__).parents[1] / "recorded" / "board.json"

NEAR = 2.5
"""Pixels by which a place may differ: letters are a little wider from one version of a browser to the next."""

LOOK = """async () => {
  await document.fonts.ready;
  for (let n = 0; n < 3; n++) await new Promise(requestAnimationFrame);
  const isSeen = (one) => one.checkVisibility({ visibilityProperty: true });
  const words = (one) => one.innerText.replace(/\\s+/g, " ").trim();
  const flags = ["aria-pressed", "aria-expanded", "aria-current", "aria-disabled", "aria-checked"];
  const controls = [...document.querySelectorAll(
    ".board-page :is(button, a, input, summary, select, progress)")].filter(isSeen).map((one) => [
      one.getAttribute("aria-label") || words(one) || one.name || one.type,
      ...[...one.classList].filter((name) => !name.startsWith("btn")).sort(),
      ...(one.disabled ? ["disabled"] : []),
      ...(one === document.activeElement ? ["focus"] : []),
      ...(one.value && one.type !== "hidden" ? [`value ${one.value}`] : []),
      ...flags.filter((flag) => one.hasAttribute(flag)).map((flag) => `${flag} ${one.getAttribute(flag)}`),
    ].join(" · "));
  const texts = [...document.querySelectorAll(
    `.sentence, .hint, .off-paper, .chooser, .object-menu, .selected-objects, .standing, .step-list ol, .count, .measures,
     .positions, .notes, .result-strip, .hint-strip, .handing-in, .save-state`)].filter(isSeen).map(words)
     .map((text) => text.replace(/[A-Z][a-z]+day \\d+ [A-Z][a-z]+/g, "some day"));  // it counts from today
  const numbers = (text) => (text.match(/-?\\d+(\\.\\d+)?(e-?\\d+)?/g) ?? []).map((one) => Math.round(Number(one) * 10) / 10);
  const drawn = [...document.querySelectorAll("svg.paper *")].filter((one) => one.tagName !== "title").map((one) => [
    [one.tagName, ...[...one.classList].sort(), one.dataset.id ?? "",
      one.children.length ? "" : one.textContent].filter(Boolean).join(" "),
    ["d", "x", "y", "x1", "y1", "x2", "y2", "cx", "cy", "r", "points", "transform"].flatMap(
      (name) => numbers(one.getAttribute(name) ?? "")),
  ]);
  return { controls, texts, drawn };
}"""


class Watched:
    """A board of which everything that is seen is written down after each action."""

    def __init__(self, desk):
        self.desk, self.page = desk, desk.page
        self.seen = {}

    def after(self, action):
        """Write down how it looks after an action."""
        self.desk.saved()
        expect(self.page.locator(".equalities li", has_text="believed")).to_have_count(0)  # the server has looked at it
        self.seen[action] = self.page.evaluate(LOOK)

    def press(self, *keys):
        for key in keys:
            self.page.keyboard.press(key)

    def button(self, name):
        self.page.get_by_role("button", name=name, exact=True).click()

    def drag(self, id_, dx, dy):
        x, y = self.desk.point(id_)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx / 2, y + dy / 2, steps=3)
        self.page.mouse.move(x + dx, y + dy, steps=3)
        self.page.mouse.up()


def built(watched):
    """A work from nothing: pointing, a tool, undo and redo, typing, a name, a note."""
    desk, page = watched.desk, watched.page
    watched.after("opened")
    page.mouse.move(*desk.point("A"))
    watched.after("pointed at")
    desk.take("circle")
    watched.after("a tool in hand")
    desk.click("A")
    page.mouse.move(*desk.point("B"))
    watched.after("all but drawn")
    desk.click("B")
    watched.after("drawn")
    watched.press("Escape", "Control+z")
    watched.after("undone")
    watched.press("Control+Shift+z")
    watched.after("redone")
    desk.take("point")
    page.keyboard.type("2, 3")
    watched.press("Enter", "Escape")
    watched.after("a point typed")
    desk.take("line")
    page.keyboard.type("A")
    watched.after("a line half typed")
    watched.press("Escape", "Escape")
    watched.drag("B", -60, -40)
    watched.after("a given point dragged")
    watched.button("Reset positions")
    watched.after("positions reset")
    watched.button("Larger")
    watched.after("larger")
    watched.button("Fit")
    watched.button("Arcs")
    watched.after("arcs")


def mended(watched):
    """A work that breaks: menus, measures, positions, hiding, selecting, hints, the result."""
    desk, page = watched.desk, watched.page
    desk.put(JUMPING_GABLE)
    watched.after("put")
    desk.click("F")
    watched.after("its menu")
    watched.press("Escape")
    page.locator(".step-list li[data-step=F] > button").click()
    watched.after("chosen in the list")
    watched.press("Escape")
    for make, names in (("equal_lengths", "ABAD"), ("length", "AF"), ("angle", "BAF")):
        desk.take(make)
        page.keyboard.type(names, delay=20)
        watched.press("Escape")
    watched.after("measured")
    watched.button("Note position")
    watched.drag("B", -90, 30)
    watched.button("Note position")
    watched.button("Compare")
    watched.after("positions compared")
    watched.button("Compare")
    watched.button("Reset positions")
    page.mouse.move(*desk.point("D"))
    watched.press("h")
    watched.after("hidden")
    watched.button("Show all")
    watched.button("Select several")
    desk.click("D")
    desk.click("F")
    watched.after("two selected")
    watched.button("Clear selection")
    watched.press("Escape")
    watched.after("none selected")
    watched.button("Hand in")
    watched.after("asked before handing in")
    watched.button("Hand in now")
    page.get_by_role("button", name="Hand in as it is").wait_for()
    watched.after("a fix offered")
    watched.button("Hand in as it is")
    page.locator(".result-strip").wait_for()
    watched.after("the result")


WORKS = {one.__name__: one for one in (built, mended)}


def differences(before, after, where=""):
    """Where two records differ, as far as more than a few pixels."""
    if isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        pairs = enumerate(zip(before, after, strict=True))
        return [line for n, pair in pairs for line in differences(*pair, f"{where}[{n}]")]
    if isinstance(before, dict) and isinstance(after, dict) and before.keys() == after.keys():
        return [line for key in before for line in differences(before[key], after[key], f"{where} {key}")]
    if isinstance(before, float | int) and isinstance(after, float | int):
        return [] if abs(before - after) <= NEAR else [f"{where}: {before} was, {after} is"]
    return [] if before == after else [f"{where}: {str(before)[:300]!r} was, {str(after)[:300]!r} is"]


@pytest.mark.parametrize("work", WORKS)
def test_the_board_looks_and_says_what_it_did(desk, work):
    desk.page.emulate_media(reduced_motion="reduce")
    watched = Watched(desk.enter("Splitting a gable"))
    WORKS[work](watched)
    records = json.loads(RECORD.read_text()) if RECORD.exists() else {}
    if os.environ.get("WIDEPIN_RECORD") == "1":
        RECORD.write_text(json.dumps(records | {work: watched.seen}, indent=0, sort_keys=True) + "\n")
        return
    found = differences(records[work], watched.seen)
    assert not found, "\n".join(found[:20])
