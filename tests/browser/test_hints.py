"""Hints on the board: a whole task solved by following them, on a laptop and on a phone, from several beginnings."""

import pytest
from playwright.sync_api import expect

from tests.browser.teaching import begin_task, build_model, making_step, suggest
from widepin.school.database import make_sessions
from widepin.school.models import Assignment, SchoolClass, TaskSheet

TITLE = "Plumb from a boss"


@pytest.fixture
def allowing(school):
    """The task with hints enough, or as many as it is set to, for as long as a test."""

    def set_to(hints, cost=0):
        with make_sessions(school)() as session:
            found = session.query(Assignment).join(TaskSheet).join(SchoolClass)
            for one in found.filter(TaskSheet.title.startswith(TITLE)):
                one.hints, one.hint_cost = hints, cost
            session.commit()

    set_to(12)
    yield set_to
    set_to(3, 5)


def follow(page):
    """Take hints, and make their steps, until there is nothing more to do."""
    words = page.locator(".hint-strip .why")
    make = """() => { const { board } = document.querySelector('.board-page');
      const step = board.hinting.ghost; board.store.perform({ op: 'add', step }); }"""
    for _ in range(9):
        page.locator("[data-do=hint]").click()
        expect(page.locator(".hint-strip")).to_be_visible(timeout=30_000)
        if "hand it in" in words.inner_text():
            return
        page.get_by_role("button", name="Which tool?").click()
        expect(words).to_contain_text("Take the tool")
        page.get_by_role("button", name="Show the next step").click()
        expect(words).to_contain_text("Next:")
        expect(page.locator(".paper .preview, .paper .offer.intersection")).not_to_have_count(0)
        page.evaluate(make)
        expect(page.locator(".hint-strip")).to_be_hidden()
    raise AssertionError(words.inner_text())


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)], ids=["laptop", "phone"])
@pytest.mark.parametrize(
    "begun",
    [[], [{"id": "c", "make": "circle", "from": ["B", "P"]}], [{"id": "c", "make": "circle", "from": ["P", "A"]}]],
    ids=["nothing", "a part", "another way"],
)
def test_a_task_is_solved_by_following_hints_alone(desk, allowing, size, begun):
    desk.page.set_viewport_size({"width": size[0], "height": size[1]})
    desk.enter(TITLE)
    if begun:
        desk.put(begun)
    follow(desk.page)
    desk.page.get_by_role("button", name="Put away").click()
    desk.page.get_by_role("button", name="Hand in", exact=True).click()
    desk.page.get_by_role("button", name="Hand in now").click()
    expect(desk.page.locator(".result-item.good").first).to_be_visible()
    expect(desk.page.locator(".result-item.bad")).to_have_count(0)


def test_a_hint_that_costs_is_asked_for_and_not_taken_where_that_is_declined(desk, allowing):
    allowing(3, 20)
    page, asked = desk.enter(TITLE).page, []

    def answer(accepts):
        def hear(dialog):
            asked.append(dialog.message)
            if accepts:
                dialog.accept()
            else:
                dialog.dismiss()

        page.once("dialog", hear)
        page.locator("[data-do=hint]").click()

    answer(accepts=False)
    expect(page.locator(".hint-strip")).to_be_hidden()
    expect(page.locator("[data-do=hint]")).to_contain_text("3")
    answer(accepts=True)
    expect(page.locator(".hint-strip")).to_be_visible(timeout=30_000)
    expect(page.locator("[data-do=hint]")).to_contain_text("2")
    assert len(asked) == 2 and all("20 points" in words for words in asked)


def test_without_hints_there_is_no_button(desk, allowing):
    allowing(0)
    desk.enter(TITLE)
    expect(desk.page.locator("[data-do=hint]")).to_have_count(0)


def test_a_teacher_has_the_fewest_moves_searched_for_and_takes_them_as_the_limit(teacher):
    begin_task(teacher, "Segment")
    build_model(teacher, ("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"))
    teacher.get_by_label("line e").check()
    suggest(teacher)
    making_step(teacher, "Move limit")
    teacher.get_by_role("button", name="Search for the fewest").click()
    expect(teacher.locator("[data-limit-said]")).to_contain_text("It can be done in 3 moves", timeout=60_000)
    teacher.get_by_role("button", name="Take 3 moves as the limit").click()
    expect(teacher.locator("[name=moves]")).to_have_value("3")
    expect(teacher.locator(".save-state")).to_have_text("All changes saved")
