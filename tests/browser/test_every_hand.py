"""Classical constructions in every hand: by mouse, by keyboard and by touch, on a desk, a tablet and a phone.

Some of them always; all twelve on all sizes with WIDEPIN_EVERY_HAND=1.
"""

import itertools
import os
import re

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from tests.browser.conftest import Desk
from tests.browser.test_classics import CLASSICS, Hands
from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Person, SchoolClass
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps
from widepin.school.tasks.sheets import new_sheet

SIZES = {"desk": (1280, 800), "tablet": (768, 1024), "phone": (390, 844)}
EVERY = [(key, hand, size) for key in CLASSICS[:12] for hand in ("mouse", "keyboard", "touch") for size in SIZES]
SOME = [
    ("perpendicular-bisector", "mouse", "desk"),
    ("incircle", "mouse", "desk"),
    ("bisect-an-angle", "touch", "phone"),
    ("parallel-through-a-point", "touch", "tablet"),
    ("orthocentre", "keyboard", "phone"),
]
numbers = itertools.count()

# Where to point at an object so that nothing else lies as near: [x, y] in the window.
PLACE = """async (id) => {
  const { nearestPlace } = await import('/static/figure/figure.js');
  const { store: { figure }, paper } = document.querySelector('.board-page').board;
  const { x: left, y: top, width, height } = paper.svg.getBoundingClientRect();
  const onPage = ([x, y]) => [left + x, top + y];
  const shape = figure.shape(id), kind = figure.kind(id);
  if (kind === 'point') return onPage(paper.view.toScreen(...shape));
  const at = (t) => kind === 'circle'
    ? [shape[0] + Math.sqrt(shape[2]) * Math.cos(t), shape[1] + Math.sqrt(shape[2]) * Math.sin(t)]
    : [shape[0] + t * shape[2], shape[1] + t * shape[3]];
  const range = { circle: [0, 6.28], segment: [0.02, 0.98], ray: [0.02, 3], line: [-3, 4] }[kind];
  const others = figure.ids.filter((one) => one !== id && figure.isDefined(one) && !figure.step(one).hidden);
  const places = Array.from({ length: 400 }, (_, n) => at(range[0] + (n / 399) * (range[1] - range[0])))
    .map((one) => ({ one, on: paper.view.toScreen(...one) }))
    .filter(({ on: [x, y] }) => x > 12 && y > 12 && x < width - 12 && y < height - 12);
  const free = ({ one, on }) => Math.min(999, ...others.map((other) => {
    const near = figure.isPoint(other) ? figure.shape(other) : nearestPlace(figure.kind(other), figure.shape(other), one);
    const [x, y] = paper.view.toScreen(...near);
    return Math.hypot(x - on[0], y - on[1]);
  }));
  return onPage(places.reduce((best, next) => (free(next) > free(best) ? next : best)).on);
}"""

# Where a step would put its point.
PREVIEW = """(step) => {
  const { store: { figure }, paper } = document.querySelector('.board-page').board;
  const { x, y } = paper.svg.getBoundingClientRect();
  const [px, py] = paper.view.toScreen(...(step.make === 'free_point' ? step.at : figure.preview(step)));
  return [x + px, y + py];
}"""


class Pointer(Hands):
    """Hands on a mouse or a finger: every step is made by pointing at the paper."""

    def __init__(self, desk, is_touch):
        super().__init__(desk)
        self.is_touch, self.page = is_touch, desk.page

    def make(self, step):
        before = self.ids()
        point = step["make"] in ("free_point", "point_on")
        self.card("point" if point else step["make"])
        renamed = {
            **step,
            "from": [self.names.get(one, one) for one in step.get("from", [])],
            **{
                how: self.names.get(step[how], step[how])
                for how in ("other_than", "nearest_to", "farthest_from")
                if how in step
            },
        }
        if point or step["make"] == "intersection":
            self.point_at(self.seen(renamed), *renamed.get("from", []))
        else:
            sources = renamed["from"]
            if step["make"] == "circle_radius":
                sources = sources[:1] if self.is_locked() else [*sources[1:], sources[0]]
            for source in sources:
                self.point_at(self.page.evaluate(PLACE, source), source)
        hint = self.page.locator(".hint").inner_text
        try:
            expect(self.page.locator(".step-list li[data-step]")).to_have_count(len(before) + 1)
        except AssertionError:
            raise AssertionError(f"{step} was not made: {hint()}") from None
        (self.names[step["id"]],) = set(self.ids()) - set(before)
        made = self.page.evaluate("document.querySelector('.board-page').board.store.own.at(-1).make")
        assert made == step["make"], f"{made} was made, not {step['make']}"
        for _ in range(2):
            self.put_down()
        for choice, words in (("nearest_to", "nearer to"), ("farthest_from", "farther from")):
            if choice in step:
                self.choose(step, f"{words} {self.names.get(step[choice], step[choice])}")

    def seen(self, step):
        """Where a step would put its point, once the arrow at the edge has brought it in."""
        box = self.page.locator(".paper").bounding_box()
        for _turn in range(3):
            x, y = self.page.evaluate(PREVIEW, step)
            if box["x"] < x < box["x"] + box["width"] and box["y"] < y < box["y"] + box["height"]:
                break
            self.press(self.page.locator(".off-paper button").first)
        return x, y

    def choose(self, step, words):
        self.point_at(self.page.evaluate(PLACE, self.names[step["id"]]))
        button = self.page.locator(".object-menu").get_by_role("button", name=words, exact=True)
        self.press(button)
        close = self.page.locator(".object-menu .close-menu")
        self.press(close)

    def card(self, make):
        card = self.page.locator(f".card-tool[data-make={make}]")
        card.scroll_into_view_if_needed()
        self.press(card)

    def put_down(self):
        held = self.page.locator(".card-tool.in-hand")
        if held.count():
            self.press(held)

    def press(self, button):
        if self.is_touch:
            button.tap()
        else:
            button.click()

    def point_at(self, place, *names):
        """Point at a place; where several lie there, what these are the names of is chosen."""
        if not self.is_touch:
            self.page.mouse.move(*place)
            self.page.mouse.click(*place)
            return
        self.page.touchscreen.tap(*place)
        if not self.page.evaluate("document.querySelector('.board-page').board.pointing.isAmbiguous"):
            return
        chosen = self.page.locator(".chooser.to-tap button")
        for name in names:
            chosen = chosen.filter(has_text=re.compile(rf"\b{name}\b"))
        self.press(chosen.first)


@pytest.fixture
def hand(browser, served, fresh_student, school):
    """Opens a task of the library, of a class of its own, in a window of some size, in some hand."""
    opened = []

    def open_task(key, way, size):
        width, height = SIZES[size]
        context = browser.new_context(viewport={"width": width, "height": height}, has_touch=way == "touch")
        login = fresh_student(f"hand-{next(numbers)}")
        desk = Desk(context.new_page(), served, login)
        with make_sessions(school)() as session:
            teacher = session.scalars(select(Person).where(Person.role == "teacher")).first()
            student = session.scalars(select(Person).where(Person.login == login)).one()
            school_class = SchoolClass(name=f"Hands, {login}", teacher=teacher)
            school_class.assignments = [Assignment(sheet=new_sheet(session, teacher, LIBRARY[key].document()))]
            student.classes = [school_class]
            session.commit()
        opened.append((context, login, desk))
        desk.enter(LIBRARY[key].title)
        return desk, Hands(desk) if way == "keyboard" else Pointer(desk, way == "touch")

    yield open_task
    for context, login, desk in opened:
        context.close()
        assert desk.errors == []
        with make_sessions(school)() as session:
            session.delete(session.scalars(select(SchoolClass).where(SchoolClass.name == f"Hands, {login}")).one())
            session.commit()


@pytest.mark.parametrize(("key", "way", "size"), EVERY if os.environ.get("WIDEPIN_EVERY_HAND") else SOME)
def test_it_is_built_without_a_miss_or_a_scroll(hand, key, way, size):
    desk, hands = hand(key, way, size)
    for step in steps(LIBRARY[key].model):
        hands.make(step)
    scrolled = desk.page.evaluate("[scrollX, scrollY, document.documentElement.scrollHeight <= innerHeight]")
    assert scrolled == [0, 0, True]
    desk.saved()
    desk.page.get_by_role("button", name="Hand in").click()
    desk.page.get_by_role("button", name="Hand in now").click()
    expect(desk.page.locator(".result-strip .why")).to_contain_text("stays right wherever")
