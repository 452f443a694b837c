"""What is meant is what is pointed at: points before curves, an answer that can be changed, names that are kept."""

import pytest
from playwright.sync_api import expect

ADD = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"


@pytest.fixture
def gable(desk):
    """A board on which two circles cross in a marked point C, and a line runs through it."""
    desk.enter("Plumb from a boss")
    for step in (
        {"id": "c", "make": "circle", "from": ["A", "P"]},
        {"id": "d", "make": "circle", "from": ["B", "P"]},
        {"id": "Q", "make": "intersection", "from": ["c", "d"], "other_than": "P"},
        {"id": "m", "make": "line", "from": ["P", "Q"]},
        {"id": "n", "make": "line", "from": ["A", "Q"]},
    ):
        desk.page.evaluate(ADD, step)
    return desk


def on_line(desk, line, share):
    """A place on a line, so much of the way from its first point to its second."""
    return desk.at(
        *desk.page.evaluate(
            """([id, share]) => {
              const [x, y, dx, dy] = document.querySelector('.board-page').board.store.figure.shape(id);
              return [x + share * dx, y + share * dy];
            }""",
            [line, share],
        )
    )


def lit(desk):
    return desk.page.evaluate("document.querySelector('.board-page').board.pointing.near[0]?.id")


@pytest.mark.parametrize("way", [(60, 0), (-60, 8), (14, -60), (-20, 60)])
def test_a_slow_mouse_that_brushes_a_curve_means_the_point_where_it_stops(gable, way):
    x, y = gable.point("Q")
    gable.page.mouse.move(x + way[0], y + way[1])
    for share in range(1, 31):
        gable.page.mouse.move(x + way[0] * (1 - share / 30), y + way[1] * (1 - share / 30))
    assert lit(gable) == "Q"
    gable.page.keyboard.press("ArrowDown")
    chosen = lit(gable)
    assert chosen != "Q"
    gable.page.mouse.move(x + 1, y + 1)
    assert lit(gable) == chosen, "what the arrow keys chose stays chosen"


def test_an_answer_that_was_pointed_out_wrongly_is_changed_by_a_click_or_by_its_cross(gable):
    page = gable.page
    page.get_by_role("button", name="Hand in", exact=True).click()
    page.keyboard.type("n")
    filled = page.locator(".sentence .blank.filled")
    expect(filled).to_have_text("n")
    page.mouse.click(*on_line(gable, "m", 0.2))
    expect(filled).to_have_text("m")
    expect(gable.page.locator(".hint")).to_contain_text("m is pointed out instead")
    page.get_by_role("button", name="Empty this blank: m").click()
    expect(filled).to_have_count(0)
    page.keyboard.type("n")
    expect(filled).to_have_text("n")


def test_names_of_what_is_asked_for_are_kept_and_point_it_out(gable):
    page = gable.page
    wanted = page.evaluate("document.querySelector('.board-page').board.setting.wanted[0].name")
    taken = page.evaluate("[...document.querySelector('.board-page').board.store.taken]")
    assert wanted in taken
    page.evaluate(
        "([id, label]) => document.querySelector('.board-page').board.store.perform({op: 'dress', id, dress: {label}})",
        ["m", wanted],
    )
    page.get_by_role("button", name="Hand in", exact=True).click()
    expect(page.locator(".sentence .blank.filled")).to_have_text(wanted)
    expect(page.locator(".hint")).to_contain_text("pointed out by its name")


def test_points_that_are_one_in_every_position_span_nothing(gable):
    page = gable.page
    page.evaluate(ADD, {"id": "R", "make": "intersection", "from": ["m", "n"]})  # where Q lies, always
    page.locator(".card-tool[data-make=line]").click()
    for name in ("Q", "R"):
        page.keyboard.type(name)
        page.keyboard.press("Enter")
    expect(page.locator(".hint")).to_contain_text("Q and R lie in one place in every position")
    assert page.evaluate("document.querySelector('.board-page').board.store.own.at(-1).id") == "R"


def test_taking_hold_of_the_figure_ends_the_drag_test_and_its_end_says_what_it_saw(gable):
    page = gable.page
    page.get_by_role("button", name="Drag test").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.mouse.move(*gable.at(5, 5))
    page.mouse.down()
    expect(page.get_by_role("button", name="Drag test")).to_be_visible()
    page.mouse.up()
    page.get_by_role("button", name="Drag test").click()
    expect(page.locator(".hint")).to_contain_text("position", timeout=20_000)
