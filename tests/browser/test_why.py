"""Why a work is right: lines of a proof that light up what they are about."""

import re
from contextlib import contextmanager
from typing import Any

from playwright.sync_api import expect
from sqlalchemy import select

from tests.browser.conftest import Desk
from widepin.school.database import make_sessions
from widepin.school.models import Assignment, SchoolClass, TaskSheet
from widepin.school.states import Reasons

PARALLEL: list[dict[str, Any]] = [
    {"id": "c", "make": "circle", "from": ["P", "A"]},
    {"id": "d", "make": "circle_radius", "from": ["A", "P", "A"]},
    {"id": "C", "make": "intersection", "from": ["d", "g"], "pick": 2},
    {"id": "e", "make": "circle_radius", "from": ["C", "P", "A"]},
    {"id": "D", "make": "intersection", "from": ["c", "e"], "other_than": "A"},
    {"id": "n", "make": "line", "from": ["P", "D"]},
]
"""A parallel through P to g by a rhombus."""


def test_a_line_that_is_reached_lights_up_its_objects_and_what_it_rests_on(teacher, served):
    teacher.goto(f"{served}/library/circumcircle")
    teacher.wait_for_selector(".brief .picture[data-shown]")
    teacher.get_by_role("button", name="Show the proof").click()
    lines = teacher.locator(".proof li")
    expect(lines.first).to_be_focused()
    expect(lines.first).to_contain_text("A lies on k")
    for _ in range(2):
        teacher.keyboard.press("ArrowDown")
    expect(lines.nth(2)).to_have_class("shown")
    expect(lines.nth(2)).to_contain_text("AO = BO")
    expect(lines.nth(2)).to_contain_text("O lies on the perpendicular bisector of AB (2)")
    expect(teacher.locator(".proof .rests-on")).to_have_count(1)
    expect(teacher.locator(".brief svg .told-length")).to_have_count(2)
    expect(teacher.locator(".brief svg .tick.told")).to_have_count(2)
    lines.nth(1).hover()
    expect(lines.nth(1)).to_have_class("shown")
    for number in range(2, 6):  # the list is scrolled under the pointer, which points at nothing by that
        teacher.keyboard.press("ArrowDown")
        expect(lines.nth(number)).to_have_class(re.compile("shown"))
        teacher.wait_for_timeout(200)
        expect(lines.nth(number)).to_have_class(re.compile("shown"))


def test_the_proof_goes_on_with_the_construction(teacher, served):
    teacher.goto(f"{served}/library/copy-an-angle")
    teacher.get_by_role("button", name="Show the proof").click()
    lines = teacher.locator(".proof li")
    expect(teacher.locator("[data-why-said]")).to_have_text("4 lines, which hold in every position.")
    teacher.mouse.move(2, 2)
    teacher.get_by_role("button", name="Next line").click()
    expect(lines.nth(1)).to_have_class("shown")
    teacher.get_by_role("button", name="Next line").click()
    expect(teacher.locator(".brief svg .told-triangle")).to_have_count(2)
    teacher.get_by_role("button", name="Previous line").click()
    expect(teacher.locator(".brief svg .told-triangle")).to_have_count(0)

    # Played, it begins with the given figure; a point that is dragged meanwhile takes the marks along.
    teacher.get_by_role("button", name="Play with the construction").click()
    expect(teacher.locator(".brief .caption")).to_have_text("Before the first step")
    expect(teacher.locator(".brief svg .point:not(.given)")).to_have_count(0)
    teacher.get_by_role("button", name="Stop").click()
    expect(teacher.get_by_role("button", name="Play with the construction")).to_be_visible()


def test_on_a_phone_the_figure_stays_on_top_while_the_proof_is_read(teacher, served):
    teacher.set_viewport_size({"width": 390, "height": 844})
    teacher.goto(f"{served}/library/copy-an-angle")
    teacher.get_by_role("button", name="Show the proof").click()
    last = teacher.locator(".proof li").last
    last.click()
    figure = teacher.locator(".brief .picture svg").bounding_box()
    assert figure and figure["y"] <= 1 and figure["height"] < 844 * 0.4
    assert last.bounding_box()["y"] > figure["y"] + figure["height"]
    assert teacher.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_task_that_is_done_as_it_is_asked_has_nothing_to_prove(teacher, served):
    teacher.goto(f"{served}/library/nine-point-circle")
    teacher.get_by_role("button", name="Show the proof").click()
    expect(teacher.locator("[data-why-said]")).to_contain_text("nothing to prove")
    expect(teacher.locator(".proof")).to_be_hidden()


def test_what_has_no_proof_says_so(teacher, served):
    teacher.goto(f"{served}/library/harmonic-conjugate")
    teacher.get_by_role("button", name="Show the proof").click()
    expect(teacher.locator("[data-why-said]")).to_contain_text("was not found")
    expect(teacher.locator(".proof li")).to_have_count(0)


def test_a_student_sees_why_the_own_work_is_right(page, served, fresh_student):
    desk = Desk(page, served, fresh_student("asks-why")).enter("A course through a mark")
    desk.put(PARALLEL)
    desk.hand_in()
    expect(page.locator(".sentence-of-verdict")).to_contain_text("right")
    page.get_by_role("button", name="Show the proof").click()
    expect(page.locator(".proof li.reached").first).to_be_visible()
    assert desk.errors == []


@contextmanager
def reasons_asked(school, kind):
    """The task asks for reasons in some way, for half of the score."""

    def ask(session, kind, share):
        found = session.scalars(
            select(Assignment)
            .join(Assignment.sheet)
            .join(Assignment.school_class)
            .where(TaskSheet.title.contains("A course through a mark"), SchoolClass.name == "Second year")
        ).one()
        found.reasons, found.reasons_share = kind, share
        session.commit()

    with make_sessions(school)() as session:
        ask(session, kind, 50)
    try:
        yield
    finally:
        with make_sessions(school)() as session:
            ask(session, Reasons.NONE, 0)


def test_a_student_gives_the_reasons_in_order_and_then_sees_the_proof(page, served, fresh_student, school):
    with reasons_asked(school, Reasons.ORDER):
        desk = Desk(page, served, fresh_student("gives-reasons")).enter("A course through a mark")
        desk.put(PARALLEL)
        desk.hand_in()
        expect(page.locator(".score")).to_contain_text("50 of 100")
        expect(page.locator(".why-panel")).to_have_count(0)
        rows = page.locator(".reasons form li")
        wanted = rows.evaluate_all("rows => rows.map((row) => Number(row.querySelector('[name=line]').value))")
        for place, number in enumerate(sorted(wanted)):  # the order of the proof, by keys alone
            row = page.locator(".reasons form li", has=page.locator(f"[name=line][value='{number}']"))
            for _ in range(wanted.index(number) - place):
                row.locator("[data-up]").focus()
                page.keyboard.press("Enter")
            wanted.remove(number)
            wanted.insert(place, number)
        page.locator(".reasons").get_by_role("button", name="Check").click()
        expect(page.locator(".notice")).to_contain_text("All of it is right")
        expect(page.locator(".score")).to_contain_text("100 of 100")
        expect(page.get_by_role("button", name="Show the proof")).to_be_visible()
        assert desk.errors == []


def test_reasons_are_chosen_by_their_cards(page, served, fresh_student, school):
    with reasons_asked(school, Reasons.CHOOSE):
        desk = Desk(page, served, fresh_student("chooses-reasons")).enter("A course through a mark")
        desk.put(PARALLEL)
        desk.hand_in()
        row = page.locator(".reasons form li").last
        offered = row.locator("option").evaluate_all("options => options.map((one) => one.textContent).slice(1)")
        asks = row.get_by_role("button", name="What do the reasons for")
        asks.focus()
        page.keyboard.press("Enter")
        dialog = page.get_by_role("dialog", name="Reason")
        expect(dialog.locator(".reason-card")).to_have_count(len(offered))
        dialog.get_by_role("button", name="Choose this reason").nth(1).click()
        expect(dialog).to_be_hidden()
        expect(row.locator("select")).to_be_focused()
        assert row.locator("option:checked").text_content() == offered[1]
        asks.click()
        expect(dialog.get_by_role("button", name="Chosen")).to_be_disabled()
        page.keyboard.press("Escape")
        assert row.locator("option:checked").text_content() == offered[1]
        assert desk.errors == []


def test_a_reason_is_explained_beside_the_proof_and_on_a_page_of_its_own(teacher, served):
    teacher.goto(f"{served}/library/circumcircle")
    teacher.get_by_role("button", name="Show the proof").click()
    teacher.get_by_role("button", name="What does the reason of “AO = BO” say?").click()
    dialog = teacher.get_by_role("dialog", name="Reason")
    expect(dialog).to_contain_text("A third point of the perpendicular bisector")
    expect(dialog.locator("svg.reason-figure text")).to_have_count(5)
    teacher.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    teacher.get_by_role("button", name="What does the reason of “AO = BO” say?").click()
    dialog.get_by_role("link", name="All reasons").click()
    expect(teacher.get_by_role("heading", name="Reasons")).to_be_visible()
    expect(teacher.locator(".reason-card:target")).to_be_in_viewport()
    teacher.get_by_role("link", name="Isosceles triangles").click()
    teacher.locator(".reason-card", has_text="Base angles of an isosceles").get_by_role("link", name="Converse").click()
    expect(teacher.locator(".reason-card:target")).to_contain_text("A triangle with two equal angles is isosceles")


def test_whoever_is_signed_out_meanwhile_is_told_so_in_its_place(teacher, served):
    page = teacher.context.new_page()
    for one in (teacher, page):
        one.goto(f"{served}/library/circumcircle")
        one.wait_for_selector(".brief .picture[data-shown]")
    teacher.get_by_role("button", name="Show the proof").click()
    expect(teacher.locator(".proof li").first).to_be_visible()
    teacher.context.clear_cookies()
    teacher.locator(".proof li .explain").first.click()
    expect(teacher.locator("dialog.reason")).to_contain_text("You are not signed in any more")
    expect(teacher.locator("dialog.reason")).not_to_contain_text("Password")
    page.get_by_role("button", name="Show the proof").click()
    expect(page.locator("[data-why-said]")).to_contain_text("You are not signed in any more")
