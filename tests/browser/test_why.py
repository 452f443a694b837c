"""Why a work is right: lines of a proof that light up what they are about."""

from playwright.sync_api import expect

from tests.browser.conftest import Desk


def test_a_line_that_is_reached_lights_up_its_objects_and_what_it_rests_on(teacher, served):
    teacher.goto(f"{served}/library/circumcircle")
    teacher.wait_for_selector(".brief .picture[data-shown]")
    teacher.get_by_role("button", name="Show the proof").click()
    lines = teacher.locator(".proof li")
    expect(lines.first).to_be_focused()
    expect(lines.first).to_contain_text("A lies on k")
    for _ in range(3):
        teacher.keyboard.press("ArrowDown")
    expect(lines.nth(3)).to_have_class("shown")
    expect(lines.nth(3)).to_contain_text("AO = BO")
    expect(teacher.locator(".proof .rests-on")).to_have_count(2)
    expect(teacher.locator(".brief svg .told-length")).to_have_count(2)
    expect(teacher.locator(".brief svg .tick.told")).to_have_count(2)
    lines.nth(1).hover()
    expect(lines.nth(1)).to_have_class("shown")
    teacher.get_by_role("button", name="Play the proof").click()
    expect(teacher.get_by_role("button", name="Stop")).to_be_visible()
    expect(lines.nth(2)).to_have_class("shown")
    teacher.get_by_role("button", name="Stop").click()


def test_what_has_no_proof_says_so(teacher, served):
    teacher.goto(f"{served}/library/harmonic-conjugate")
    teacher.get_by_role("button", name="Show the proof").click()
    expect(teacher.locator("[data-why-said]")).to_contain_text("was not found")
    expect(teacher.locator(".proof li")).to_have_count(0)


def test_a_student_sees_why_the_own_work_is_right(page, served, fresh_student):
    desk = Desk(page, served, fresh_student("asks-why")).enter("A course through a mark")
    desk.put(
        [
            {"id": "c", "make": "circle", "from": ["P", "A"]},
            {"id": "d", "make": "circle_radius", "from": ["A", "P", "A"]},
            {"id": "C", "make": "intersection", "from": ["d", "g"], "pick": 2},
            {"id": "e", "make": "circle_radius", "from": ["C", "P", "A"]},
            {"id": "D", "make": "intersection", "from": ["c", "e"], "other_than": "A"},
            {"id": "n", "make": "line", "from": ["P", "D"]},
        ]
    )
    desk.hand_in()
    expect(page.locator(".sentence-of-verdict")).to_contain_text("right")
    page.get_by_role("button", name="Show the proof").click()
    expect(page.locator(".proof li.reached").first).to_be_visible()
    assert desk.errors == []
