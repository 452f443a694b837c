"""The board in a real browser: by mouse, by keyboard alone, by touch; saved, resumed, handed in."""

import re
from datetime import datetime

import pytest
from playwright.sync_api import expect

from widepin.plane.toolbook import tool_book

TITLE = "Plumb from a boss"  # given: A, B, line g, P


def plumb_by_mouse(desk):
    desk.take("circle")
    for centre in ("A", "B"):
        desk.click(centre)
        desk.click("P")


def test_a_construction_by_mouse_is_sound(desk):
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.page.get_by_role("button", name="Fit").click()  # the far intersection lies below the window
    desk.take("intersection")
    desk.page.mouse.click(*desk.at(5.62, -1.98))  # P mirrored in AB
    desk.page.keyboard.press("Escape")
    desk.take("line")
    desk.click("P")
    desk.click("C")
    assert desk.steps() == [
        "1 c: circle centred A through P",
        "2 d: circle centred B through P",
        "C: intersection of c and d other than P",
        "3 e: line through P and C",
    ]
    desk.hand_in()
    expect(desk.page.locator(".sentence-of-verdict")).to_contain_text("stays right wherever")
    assert desk.page.locator(".big-results .result-item.good").count() == 3


def test_a_construction_by_keyboard_alone_is_sound(desk):
    desk.enter(TITLE)
    press, type_ = desk.page.keyboard.press, desk.page.keyboard.type
    card = desk.page.locator(".card-tool[data-make=circle]")
    press("t")
    for _ in range(30):
        if card.evaluate("card => card === document.activeElement"):
            break
        press("ArrowRight")
    press("Enter")
    type_("APBP", delay=20)
    press("Escape")
    press("9")  # the intersection card
    expect(desk.page.locator(".sentence")).to_contain_text("Intersection of")
    type_("cd", delay=20)
    expect(desk.page.locator(".hint")).to_contain_text("C is marked")
    press("Escape")
    press("3")  # the line card
    type_("PC", delay=20)
    desk.saved()
    assert desk.steps()[2] == "C: intersection of c and d other than P"
    press("Escape")
    button = desk.page.get_by_role("button", name="Hand in")
    button.focus()
    press("Enter")
    press("Enter")  # asked once, with the count of moves
    expect(desk.page.locator(".result-strip .why")).to_contain_text("stays right wherever")


def test_a_construction_by_touch(browser, served, fresh_student):
    from tests.browser.conftest import Desk

    context = browser.new_context(viewport={"width": 1024, "height": 768}, has_touch=True)
    page = context.new_page()
    desk = Desk(page, served, fresh_student("by-touch")).enter(TITLE)
    page.locator(".card-tool[data-make=circle]").tap()
    for id_ in ("A", "P", "B", "P"):
        page.touchscreen.tap(*desk.point(id_))
    expect(page.locator(".step-list li[data-step]")).to_have_count(2)
    assert page.evaluate("document.activeElement.tagName") != "INPUT", "no keyboard pops up under a finger"
    assert desk.errors == []
    context.close()


def test_a_free_point_can_be_dragged_and_everything_follows(desk):
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.page.keyboard.press("Escape")
    before = desk.page.locator(".curve[data-id=c]").get_attribute("r")
    x, y = desk.point("A")
    desk.page.mouse.move(x, y)
    desk.page.mouse.down()
    desk.page.mouse.move(x + 60, y - 90, steps=6)
    during = desk.page.locator(".curve[data-id=c]").get_attribute("r")
    desk.page.mouse.up()
    assert during != before
    assert [one["operation"]["op"] for one in desk.stored()] == ["add", "add", "move"]


def test_dragging_to_extremes_keeps_the_board_alive(desk):
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.page.keyboard.press("Escape")
    px, py = desk.point("P")
    ax, ay = desk.point("A")
    desk.page.mouse.move(px, py)
    desk.page.mouse.down()
    desk.page.mouse.move(ax, ay, steps=4)  # onto A: the circle about A has no radius now
    desk.page.mouse.up()
    expect(desk.page.locator(".step-list li[data-step=c]")).to_contain_text("undefined in this position")
    assert desk.page.locator(".curve[data-id=c]").count() == 0
    desk.page.keyboard.press("Control+z")
    expect(desk.page.locator(".curve[data-id=c]")).to_have_count(1)


def test_reloading_resumes_exactly(desk):
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.take("point")
    desk.page.mouse.click(*desk.at(7, 6))
    desk.saved()
    record = desk.steps()
    paths = desk.page.locator(".layer-curves").inner_html()
    desk.page.reload()
    desk.ready()
    assert desk.steps() == record
    assert len(record) == 3 and desk.page.locator(".layer-curves [data-id]").count() == paths.count("data-id")


def test_taking_back_and_bringing_back(desk):
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.page.keyboard.press("Control+z")
    assert len(desk.steps()) == 1
    desk.page.keyboard.press("Control+Shift+Z")
    assert len(desk.steps()) == 2
    desk.page.get_by_role("button", name="Undo").click()
    desk.page.get_by_role("button", name="Undo").click()
    assert desk.steps() == []
    expect(desk.page.get_by_role("button", name="Undo")).to_be_disabled()
    assert len(desk.stored()) == 6


class TestPointing:
    def test_hovering_says_what_a_click_would_take(self, desk):
        desk.enter(TITLE)
        desk.take("circle")
        desk.page.mouse.move(*desk.point("A"))
        field = desk.page.locator("input.blank.next")
        expect(field).to_have_attribute("placeholder", "A")
        desk.page.mouse.move(*desk.at(6, 2.625))
        expect(field).to_have_attribute("placeholder", "new point on g")
        desk.page.mouse.move(*desk.at(6, 5))
        expect(field).to_have_attribute("placeholder", "new point")

    def test_arrow_keys_offer_what_else_lies_there(self, desk):
        desk.enter(TITLE)
        desk.take("segment")
        desk.page.keyboard.type("AB", delay=20)  # a segment on the line g
        desk.page.keyboard.press("Escape")
        desk.take("intersection")
        desk.page.mouse.move(*desk.at(5, 2.5))
        field = desk.page.locator("input.blank.next")
        first = field.get_attribute("placeholder")
        desk.page.keyboard.press("ArrowDown")
        assert {first, field.get_attribute("placeholder")} == {"c, segment", "g, line"}

    def test_two_intersections_are_numbered_and_chosen_by_number(self, desk):
        desk.enter("Stay bar to a roundel")
        desk.take("line")
        desk.page.keyboard.type("OP", delay=20)
        desk.page.keyboard.press("Escape")
        desk.take("intersection")
        desk.page.keyboard.type("kc", delay=20)
        expect(desk.page.locator(".number")).to_have_count(2)
        desk.page.keyboard.type("2")
        assert re.match(r"B: intersection of k and c", desk.steps()[-1])
        assert desk.stored()[-1]["operation"]["step"]["pick"] == 2

    def test_pressing_the_wrong_thing_says_what_is_missing(self, desk):
        desk.enter(TITLE)
        desk.take("intersection")
        desk.page.keyboard.type("Q")
        desk.page.keyboard.press("Enter")
        expect(desk.page.locator(".hint.trouble")).to_contain_text("There is no Q")
        desk.page.locator("input.blank.next").fill("A")
        desk.page.keyboard.press("Enter")
        expect(desk.page.locator(".hint.trouble")).to_contain_text("A is a point")

    def test_a_place_can_be_typed_and_moved_with_the_arrows(self, desk):
        desk.enter(TITLE)
        desk.take("point")
        desk.page.keyboard.type("6, 5")
        desk.page.keyboard.press("Enter")
        desk.page.keyboard.press("Escape")
        desk.take("move")
        desk.page.keyboard.type("C")
        desk.page.keyboard.press("ArrowRight")
        desk.page.keyboard.press("Shift+ArrowUp")
        operations = [one["operation"] for one in desk.stored()]
        assert operations[0]["step"]["at"] == [6, 5]
        assert [one["points"]["C"] for one in operations[1:]] == [[6.1, 5], [6.1, 6]]


class TestStepsAndToolbar:
    def test_only_the_tools_of_the_task_are_in_the_toolbar(self, desk):
        desk.enter("Hub of a broken wheel")
        makes = desk.page.locator(".card-tool").evaluate_all("cards => cards.map((card) => card.dataset.make)")
        assert makes == [
            "move",
            "point",
            "line",
            "segment",
            "polyline",
            "circle",
            "intersection",
            "perpendicular_bisector",
            "length",
            "angle",
            "radius",
            "ratio",
            "equal_lengths",
            "equal_angles",
        ]

    def test_an_allowance_runs_out(self, desk):
        desk.enter("Hub of a broken wheel")
        card = desk.page.locator(".card-tool[data-make=perpendicular_bisector]")
        expect(card).to_contain_text("2 left")
        desk.take("perpendicular_bisector")
        desk.page.keyboard.type("ABBC", delay=20)
        expect(card).to_contain_text("0 left")
        expect(card).to_be_disabled()

    def test_hiding_naming_and_dashing_are_kept(self, desk):
        desk.enter(TITLE)
        plumb_by_mouse(desk)
        desk.page.keyboard.press("Escape")
        row = desk.page.locator(".step-list li[data-step=c]")
        row.locator("> button").click()
        row.get_by_role("button", name="Dashed").click()
        row.get_by_label("Name of c").fill("rim")
        row.get_by_label("Name of c").press("Enter")
        row.get_by_role("button", name="Hide", exact=True).click()
        desk.saved()
        desk.page.reload()
        desk.ready()
        assert "rim" in desk.steps()[0] and "hidden" in desk.steps()[0]
        assert desk.page.locator(".curve[data-id=c]").count() == 0

    def test_pointing_at_a_sentence_lights_up_its_object(self, desk):
        desk.enter(TITLE)
        plumb_by_mouse(desk)
        desk.page.locator(".step-list li[data-step=d] > button").hover()
        expect(desk.page.locator(".curve.highlighted[data-id=d]")).to_have_count(1)


def test_what_the_student_hands_in_the_teacher_sees(desk):
    desk.enter(TITLE)
    desk.take("line")
    desk.page.keyboard.type("PA", delay=20)
    desk.hand_in()
    expect(desk.page.locator(".sentence-of-verdict")).to_contain_text("it is not true that")
    page = desk.page
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("button", name="Corin Hale").click()
    page.get_by_role("link", name="Second year").click()
    row = page.get_by_role("row").filter(has_text=desk.login.title())
    row.get_by_role("link", name="not correct").click()
    expect(page.get_by_role("heading", name=TITLE)).to_be_visible()
    expect(page.locator(".heading")).to_contain_text(desk.login.title())
    expect(page.locator(".picture .curve.given")).to_have_count(1)


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (640, 400)])
def test_nothing_runs_over_the_side_of_laptop_tablet_or_200_percent(desk, width, height):
    desk.page.set_viewport_size({"width": width, "height": height})
    desk.enter(TITLE)
    overflow = "document.documentElement.scrollWidth - window.innerWidth"
    assert desk.page.evaluate(overflow) <= 0
    targets = desk.page.locator("button:visible, summary:visible").evaluate_all(
        "all => all.map((one) => one.getBoundingClientRect()).filter((box) => box.height < 38).length"
    )
    assert targets == 0
    desk.page.get_by_role("link", name="Tasks").first.click()
    desk.page.wait_for_url("**/tasks")  # and until it is loaded: a page without its styles is wider
    assert desk.page.evaluate(overflow) <= 0


def test_times_are_those_of_the_school_and_say_so_where_the_reader_has_others(browser, served):
    context = browser.new_context(timezone_id="Asia/Tokyo")
    page = context.new_page()
    page.goto(f"{served}/sign-in")
    page.get_by_role("button", name="Bram Idris").click()
    page.get_by_role("link", name="Centre line of a sill").click()
    page.get_by_role("link", name="Last result").click()
    time = page.locator(".heading time")
    kept = datetime.fromisoformat(time.get_attribute("datetime").removesuffix("Z"))
    expect(time).to_contain_text(kept.strftime("%H:%M (UTC)"))
    context.close()


@pytest.mark.parametrize("seed", range(6))
def test_the_browser_plays_tapes_as_python_evaluates_figures(page, served, seed):
    from tests import zoo

    documents = [zoo.random_construction(100 * seed + n) for n in range(12)]
    page.goto(f"{served}/sign-in")
    played = page.evaluate(
        """async ([book, documents]) => {
          const { ToolBook } = await import('/static/figure/tape.js');
          const { Figure } = await import('/static/figure/figure.js');
          const loaded = new ToolBook(book);
          return documents.map((steps) => {
            const figure = new Figure(loaded, steps);
            return figure.ids.map((id) => figure.shape(id).map((x) => Number.isFinite(x) ? x : null));
          });
        }""",
        [tool_book(), documents],
    )
    for document, shapes in zip(documents, played, strict=True):
        figure = zoo.linked(document)
        _, expected = figure.drawn()
        for node, mine, theirs in zip(figure.nodes, expected, shapes, strict=True):
            assert zoo.alike([float("nan") if x is None else x for x in theirs], mine), node.step
