"""Class tools, constructions: given by the teacher, used by students on the board."""

import pytest
from playwright.sync_api import expect

STEPS = ".step-list li[data-step]"


@pytest.fixture
def round_a_gable(desk):
    """The board of a task for which the class tool Centre line is allowed."""
    return desk.enter("Circumcircle of a triangle")


def take(desk):
    desk.page.get_by_role("button", name="Centre line 1 move").click()


def test_a_whole_task_is_built_with_a_class_tool_by_keyboard(round_a_gable):
    desk, page = round_a_gable, round_a_gable.page
    take(desk)
    expect(page.locator(".class-tool-figure .point")).to_have_count(2)
    page.keyboard.type("ABBC")
    desk.take("intersection")
    page.keyboard.type("de")
    desk.take("circle")
    page.keyboard.type("DA")
    assert desk.steps() == [
        "1 d: Centre line from A and B",
        "2 e: Centre line from B and C",
        "D: intersection of d and e",
        "3 f: circle centred D through A",
    ]
    expect(page.locator(".step-list .count")).to_have_text("3 of 7 moves")
    expect(page.locator(".class-tool-figure")).to_be_hidden()
    assert [one["operation"]["op"] for one in desk.stored()] == ["use", "use", "add", "add"]
    desk.hand_in()
    expect(page.locator(".big-results .result-item.good")).to_have_count(3)
    expect(page.locator(".facts")).to_contain_text("3 of 7 allowed, 3 needed")


def test_by_pointing_what_it_would_draw_is_shown_before(round_a_gable):
    desk, page = round_a_gable, round_a_gable.page
    take(desk)
    desk.click("A")
    page.mouse.move(*desk.point("B"))
    expect(page.locator(".preview")).to_have_count(1)
    desk.click("B")
    assert desk.steps() == ["1 d: Centre line from A and B"]
    before = page.locator(".curve[data-id=d]").evaluate("line => [line.x1.baseVal.value, line.x2.baseVal.value]")
    page.keyboard.press("Escape")
    x, y = desk.point("B")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 80, y - 60, steps=4)
    page.mouse.up()
    assert before != page.locator(".curve[data-id=d]").evaluate(
        "line => [line.x1.baseVal.value, line.x2.baseVal.value]"
    )


def test_it_shows_how_it_is_built_and_goes_as_it_came(round_a_gable):
    desk, page = round_a_gable, round_a_gable.page
    take(desk)
    page.keyboard.type("AB")
    page.keyboard.press("Escape")
    page.locator("[data-step=d] > button").click()
    page.get_by_role("button", name="Show steps").click()
    assert desk.steps()[:2] == ["d1: circle centred A through B", "d2: circle centred B through A"]
    expect(page.locator(".step-list .count")).to_have_text("1 of 7 moves")
    desk.take("circle")
    page.keyboard.type("d3")
    page.keyboard.press("Enter")
    page.keyboard.type("A")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Hide steps").click()
    expect(page.locator(STEPS)).to_have_count(2)
    page.get_by_role("button", name="Remove", exact=True).click()
    expect(page.locator(".asking")).to_contain_text("Removing d also removes e.")
    page.get_by_role("button", name="Remove all 2").click()
    expect(page.locator(STEPS)).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(STEPS)).to_have_count(2)
    page.reload()
    desk.ready()
    expect(page.locator(STEPS)).to_have_count(2)


def test_two_windows_give_what_a_class_tool_makes_names_of_its_own(round_a_gable):
    desk, page = round_a_gable, round_a_gable.page
    other = page.context.new_page()
    other.goto(page.url)
    other.wait_for_selector("[data-ready]")
    for one in (page, other):
        one.get_by_role("button", name="Centre line 1 move").click()
        one.keyboard.type("AB" if one is page else "BC")
        expect(one.locator(".save-state")).to_have_text("All changes saved")
    expect(other.locator(".step-list li[data-step]")).to_have_count(2)
    page.reload()
    desk.ready()
    assert desk.steps() == ["1 d: Centre line from A and B", "2 e: Centre line from B and C"]
    ids = [step["id"] for one in desk.stored() for step in one["operation"]["steps"]]
    assert len(ids) == len(set(ids)) == 10


def test_a_teacher_gives_a_students_work_to_the_class_and_lends_it(page, served):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(served)
    page.get_by_role("button", name="Corin Hale").click()
    page.get_by_role("link", name="Second year").click()
    page.get_by_role("link", name="Circumcircle of a triangle").click()
    page.locator(".work-card", has=page.locator(".result-item.good")).first.click()
    page.get_by_role("link", name="Make it a class tool").click()
    expect(page.get_by_text("From the points A, B and C it makes the circle")).to_be_visible()
    page.get_by_label("Name").fill("Centre line")
    page.get_by_label("as many as its steps, 7 moves").check()
    page.get_by_role("button", name="Make it a class tool").click()
    expect(page.get_by_role("alert")).to_contain_text("has a class tool Centre line already")
    expect(page.get_by_label("as many as its steps, 7 moves")).to_be_checked()
    page.get_by_label("Name").fill("Ring round three")
    page.get_by_role("button", name="Make it a class tool").click()
    card = page.locator(".work-card", has_text="Ring round three")
    expect(card).to_contain_text("A use counts 7 moves. Not allowed for a task yet")

    page.get_by_role("link", name="Tasks and marks").click()
    page.get_by_role("link", name="Circumcircle of a triangle").click()
    page.get_by_text("Dates, attempts, students").click()
    expect(page.get_by_label("Centre line, 1 move")).to_be_checked()
    page.get_by_label("Ring round three, 7 moves").check()
    page.locator(".terms").get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("link", name="Second year").click()
    page.get_by_role("link", name="Class tools", exact=True).click()
    expect(card).to_contain_text("Allowed for Circumcircle of a triangle")
    card.get_by_role("link", name="Delete").click()
    expect(page.get_by_text("What students have built with it stays")).to_be_visible()
    page.get_by_role("button", name="Remove from the class").click()
    expect(card).to_have_count(0)
