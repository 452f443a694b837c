"""Classical constructions built on the real board, by keyboard, step by step, and judged sound."""

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Person, SchoolClass
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps
from widepin.school.tasks.sheets import new_sheet

CLASSICS = (
    "perpendicular-bisector",
    "bisect-an-angle",
    "perpendicular-at-a-point",
    "perpendicular-with-one-opening",
    "perpendicular-through-a-point",
    "parallel-through-a-point",
    "third-of-a-segment",
    "circumcircle",
    "incircle",
    "foot-of-an-altitude",
    "orthocentre",
    "equilateral-in-a-circle",
    "hexagon-in-a-circle",
    "hexagon-on-a-side",
    "rectangle",
    "tangent-at-a-point",
    "tangent-from-a-point",
)


@pytest.fixture(params=CLASSICS)
def classic(request):
    return LIBRARY[request.param]


@pytest.fixture
def apprentice(desk, school, classic):
    """A student of a class that has this task to do."""
    with make_sessions(school)() as session:
        teacher = session.scalars(select(Person).where(Person.role == "teacher")).first()
        student = session.scalars(select(Person).where(Person.login == desk.login)).one()
        sheet = new_sheet(session, teacher, classic.document())
        school_class = SchoolClass(name=f"Classics, {desk.login}", teacher=teacher)
        school_class.assignments = [Assignment(sheet=sheet)]
        student.classes = [school_class]
        session.commit()
    yield desk
    with make_sessions(school)() as session:
        session.delete(session.scalars(select(SchoolClass).where(SchoolClass.name == f"Classics, {desk.login}")).one())
        session.commit()


class Hands:
    """Hands on a keyboard: every step is made with its class tool, by the names that the board gave."""

    def __init__(self, desk):
        self.desk, self.keyboard = desk, desk.page.keyboard
        self.names = {}

    def make(self, step):
        before = self.ids()
        point = step["make"] in ("free_point", "point_on")
        self.desk.take("point" if point else step["make"])
        if step["make"] == "free_point":
            self.say(f"{step['at'][0]}, {step['at'][1]}")
        else:
            sources = step["from"]
            if step["make"] == "circle_radius":  # the opening is taken first, unless the compass has only one
                sources = sources[:1] if self.is_locked() else [*sources[1:], sources[0]]
            for source in sources:
                self.say(self.names.get(source, source))
        if self.desk.page.locator(".numbered").count():
            self.keyboard.type(str(step.get("pick", 1)))
        expect(self.desk.page.locator(".step-list li[data-step]")).to_have_count(len(before) + 1)
        (self.names[step["id"]],) = set(self.ids()) - set(before)
        self.keyboard.press("Escape")
        self.keyboard.press("Escape")
        for choice, words in (("nearest_to", "nearer to"), ("farthest_from", "farther from")):
            if choice in step:  # pinned afterwards
                row = self.desk.page.locator(f".step-list li[data-step={self.names[step['id']]}]")
                if not row.is_visible():  # in a small window the steps are a sheet
                    self.desk.page.locator("[data-do=steps]").click()
                row.locator("> button").click()
                reference = self.names.get(step[choice], step[choice])
                row.get_by_role("button", name=f"{words} {reference}", exact=True).click()

    def is_locked(self):
        return self.desk.page.get_by_role("button", name="Fixed compass").count() > 0

    def say(self, name):
        self.keyboard.type(name)
        if self.desk.page.locator("input.blank").count() and self.desk.page.locator("input.blank").input_value():
            self.keyboard.press("Enter")

    def ids(self):
        return self.desk.page.locator(".step-list li[data-step]").evaluate_all(
            "rows => rows.map((row) => row.dataset.step)"
        )


def test_a_classical_construction_is_built_and_sound(apprentice, classic):
    apprentice.enter(classic.title)
    hands = Hands(apprentice)
    for step in steps(classic.model):
        hands.make(step)
    apprentice.saved()
    apprentice.hand_in()
    expect(apprentice.page.locator(".sentence-of-verdict")).to_contain_text("stays right wherever")
