"""Classical constructions built on the real board, by keyboard, step by step, and judged sound."""

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from widepin.school.demo_tasks import TASKS, steps
from widepin.school.models import Assignment, Person, SchoolClass, TaskSheet
from widepin.school.store import make_sessions

SOUND = {one.title: next(lines for outcome, lines in one.solutions if outcome == "sound") for one in TASKS}


@pytest.fixture(params=SOUND)
def title(request):
    return request.param


@pytest.fixture
def apprentice(desk, school, title):
    """A student of one class that has this task to do."""
    with make_sessions(school)() as session:
        student = session.scalars(select(Person).where(Person.login == desk.login)).one()
        has_task = select(SchoolClass).join(Assignment).join(TaskSheet).where(TaskSheet.title == title)
        student.classes = [session.scalars(has_task).first()]
        session.commit()
    return desk


class Hands:
    """Hands on a keyboard: every step is made with its instrument, by the names that the board gave."""

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
            if step["make"] == "circle_radius":  # the opening is taken first
                sources = [*sources[1:], sources[0]]
            for source in sources:
                self.say(self.names.get(source, source))
        if self.desk.page.locator(".numbered").count():
            self.keyboard.type(str(step.get("pick", 1)))
        expect(self.desk.page.locator(".record li[data-step]")).to_have_count(len(before) + 1)
        (self.names[step["id"]],) = set(self.ids()) - set(before)
        self.keyboard.press("Escape")
        self.keyboard.press("Escape")
        for choice, words in (("nearest_to", "nearer to"), ("farthest_from", "farther from")):
            if choice in step:  # pinned afterwards
                row = self.desk.page.locator(f".record li[data-step={self.names[step['id']]}]")
                row.locator("> button").click()
                reference = self.names.get(step[choice], step[choice])
                row.get_by_role("button", name=f"{words} {reference}", exact=True).click()

    def say(self, name):
        self.keyboard.type(name)
        if self.desk.page.locator("input.blank").count() and self.desk.page.locator("input.blank").input_value():
            self.keyboard.press("Enter")

    def ids(self):
        return self.desk.page.locator(".record li[data-step]").evaluate_all(
            "rows => rows.map((row) => row.dataset.step)"
        )


def test_a_classical_construction_is_built_and_sound(apprentice, title):
    apprentice.enter(title)
    hands = Hands(apprentice)
    for step in steps(SOUND[title]):
        hands.make(step)
    apprentice.saved()
    apprentice.hand_in()
    expect(apprentice.page.locator(".sentence-of-verdict")).to_contain_text("stays right wherever")
