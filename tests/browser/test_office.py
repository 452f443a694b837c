"""The drawing office: what a student does with steps that are there already."""

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from tests.browser.conftest import Desk
from tests.zoo import JUMPING_GABLE
from widepin.school.database import make_sessions
from widepin.school.demo.tasks import TASKS
from widepin.school.models import Assignment, Person
from widepin.school.tasks.sheets import new_sheet


def row(desk, id_):
    """A row of the record, chosen."""
    line = desk.page.locator(f".step-list li[data-step={id_}]")
    line.locator("> button").click()
    return line


def test_removing_says_what_goes_along_and_offers_hiding_first(gable):
    line = row(gable, "d")
    line.get_by_role("button", name="Remove", exact=True).click()
    asking = gable.page.get_by_role("alertdialog")
    expect(asking).to_contain_text("Removing d also removes F and m.")
    expect(asking.get_by_role("button", name="Hide d only")).to_be_focused()
    asking.get_by_role("button", name="Keep").click()
    expect(gable.page.locator(".step-list li[data-step]")).to_have_count(6)
    line.get_by_role("button", name="Remove", exact=True).click()
    gable.page.get_by_role("button", name="Remove all 3").click()
    assert [step.split()[0] for step in gable.steps()] == ["1", "D:", "2"]
    gable.page.get_by_role("button", name="Undo").click()
    expect(gable.page.locator(".step-list li[data-step]")).to_have_count(6)
    assert [one["operation"]["op"] for one in gable.stored()][-2:] == ["remove", "undo"]


def test_hiding_keeps_the_step_and_what_depends_on_it(gable):
    line = row(gable, "d")
    line.get_by_role("button", name="Remove", exact=True).click()
    gable.page.get_by_role("button", name="Hide d only").click()
    expect(gable.page.locator(".curve[data-id=d]")).to_have_count(0)
    expect(gable.page.locator(".curve[data-id=m]")).to_have_count(1)


def test_what_nothing_depends_on_is_removed_at_once(gable):
    row(gable, "m").get_by_role("button", name="Remove", exact=True).click()
    expect(gable.page.locator(".step-list li[data-step=m]")).to_have_count(0)


def test_which_intersection_is_meant_is_chosen_afterwards(gable):
    line = row(gable, "F")
    choice = line.get_by_role("button", name="farther from A")
    choice.hover()
    expect(gable.page.locator(".offer.intersection")).to_have_count(1)
    choice.click()
    expect(gable.page.locator(".step-list li[data-step=F]")).to_contain_text("farther from A")
    gable.saved()
    gable.hand_in()
    expect(gable.page.locator(".sentence-of-verdict")).to_contain_text("stays right wherever")


def test_a_choice_that_the_server_refuses_is_taken_back(gable):
    """A lies on both circles as drawn here by chance only, so it cannot be the point that is not meant."""
    gable.page.evaluate(
        """() => { const board = document.querySelector('.board-page').board;
          board.store.perform({ op: 'remake', step: { id: 'F', make: 'intersection', from: ['d', 'e'], other_than: 'A' } }); }"""
    )
    expect(gable.page.locator(".hint")).to_contain_text("does not always lie on")
    expect(gable.page.locator(".step-list li[data-step=F]")).not_to_contain_text("not A")


def test_points_are_attached_to_a_curve_and_detached(desk):
    desk.enter("Splitting a gable")
    desk.put([{"id": "P", "make": "free_point", "at": [6, 2.6]}])
    row(desk, "P").get_by_role("button", name="Attach to r").click()
    expect(desk.page.locator(".step-list li[data-step=P]")).to_contain_text("P: point on r")
    expect(desk.page.locator(".point[data-id=P] .bar")).to_have_count(1)
    desk.page.get_by_role("button", name="Detach").click()
    expect(desk.page.locator(".step-list li[data-step=P]")).to_contain_text("P: free point")
    desk.saved()


def test_a_polyline_goes_on_from_its_end(desk):
    desk.enter("Splitting a gable")
    desk.take("polyline")
    for id_ in "ABCA":
        desk.click(id_)
    assert [step.split(maxsplit=2)[2] for step in desk.steps()] == [
        "segment from A to B",
        "segment from B to C",
        "segment from C to A",
    ]


def test_a_compass_keeps_its_radius_for_several_circles(desk):
    desk.enter("Splitting a gable")
    desk.take("circle_radius")
    for id_ in "ABCB":
        desk.click(id_)
    assert [step.split(maxsplit=2)[2] for step in desk.steps()] == [
        "circle centred C with radius AB",
        "circle centred B with radius AB",
    ]
    desk.page.keyboard.press("Escape")
    expect(desk.page.locator(".blank.filled")).to_have_count(0)


def dragged(desk, id_, *cm):
    desk.page.mouse.move(*desk.point(id_))
    desk.page.mouse.down()
    desk.page.mouse.move(*desk.at(*cm), steps=8)


def test_why_something_vanishes_is_said_and_its_ghost_stays(desk):
    desk.enter("Splitting a gable")
    desk.put(
        [
            {"id": "H", "make": "free_point", "at": [7.5, 6]},
            {"id": "c", "make": "circle", "from": ["A", "H"]},
            {"id": "d", "make": "circle_radius", "from": ["B", "A", "H"]},
            {"id": "D", "make": "intersection", "from": ["c", "d"], "pick": 1},
        ]
    )
    dragged(desk, "H", 3, 3)
    hint = desk.page.locator(".hint")
    expect(hint).to_contain_text("Circles c and d no longer meet: they are")
    expect(hint).to_contain_text("cm apart")
    expect(desk.page.locator(".ghost")).to_have_count(1)
    desk.page.mouse.move(*desk.at(8, 6), steps=4)
    expect(hint).to_have_text("Everything is defined again.")
    expect(desk.page.locator(".ghost")).to_have_count(0)
    desk.page.mouse.up()


def test_reset_positions_puts_every_point_where_it_was_first(desk):
    desk.enter("Splitting a gable")
    desk.put([{"id": "P", "make": "free_point", "at": [6, 5]}])
    before = {id_: desk.point(id_) for id_ in "APB"}
    for id_, cm in (("A", (3, 3)), ("P", (8, 7))):
        dragged(desk, id_, *cm)
        desk.page.mouse.up()
    assert desk.point("P") != before["P"]
    desk.page.get_by_role("button", name="Reset positions").click()
    for id_, place in before.items():
        assert desk.point(id_) == pytest.approx(place, abs=1)
    desk.page.get_by_role("button", name="Reset positions").click()
    expect(desk.page.locator(".hint")).to_have_text("No point has been moved.")
    assert [one["operation"]["op"] for one in desk.stored()] == ["add", "move", "move", "move"]


def test_a_drag_test_moves_everything_and_keeps_nothing(gable):
    before = gable.point("A")
    gable.page.get_by_role("button", name="Drag test").click()
    gable.page.wait_for_function(
        """([x, y]) => { const box = document.querySelector('.point[data-id=A] > *').getBoundingClientRect();
          return Math.hypot(box.x + box.width / 2 - x, box.y + box.height / 2 - y) > 5; }""",
        arg=list(before),
    )
    gable.page.get_by_role("button", name="Stop").click()
    assert gable.point("A") == pytest.approx(before, abs=1)
    assert {one["operation"]["op"] for one in gable.stored()} == {"add"}


def test_handing_in_asks_once_with_the_count_of_moves(gable):
    gable.page.get_by_role("button", name="Hand in").click()
    expect(gable.page.locator(".question")).to_have_text("Hand in as it is, with 4 of 4 moves?")
    gable.page.get_by_role("button", name="Cancel").click()
    expect(gable.page.locator(".handing-in")).to_be_hidden()
    expect(gable.page.get_by_role("button", name="Hand in")).to_be_focused()
    gable.page.keyboard.press("Enter")
    gable.page.keyboard.press("Escape")
    expect(gable.page.locator(".handing-in")).to_be_hidden()


def test_arcs_show_only_what_is_used_of_a_helper_circle(gable):
    arcs = gable.page.get_by_role("button", name="Arcs")
    arcs.click()
    expect(arcs).to_have_attribute("aria-pressed", "true")
    path = gable.page.locator("path.curve[data-id=d]").get_attribute("d")
    assert path.count("M") == 2, "about D, which it was drawn through, and about F, which was marked on it"
    expect(gable.page.locator("circle.curve")).to_have_count(0)
    arcs.click()
    expect(gable.page.locator("circle.curve")).to_have_count(3)


def test_the_rest_is_hidden_and_shown_again(gable):
    row(gable, "e").get_by_role("button", name="Hide the rest").click()
    assert {path.get_attribute("data-id") for path in gable.page.locator(".curve:not(.given)").all()} == {"c", "e"}
    gable.page.get_by_role("button", name="Show all").click()
    expect(gable.page.locator(".curve:not(.given)")).to_have_count(4)
    gable.saved()


def test_shift_puts_a_point_beside_a_curve_and_not_on_it(gable):
    gable.take("point")
    x, y = gable.at(6, 2.32)  # a hair above the rafter r
    gable.page.mouse.move(x, y)
    expect(gable.page.locator("input.blank")).to_have_attribute("placeholder", "new point on r")
    gable.page.keyboard.down("Shift")
    gable.page.mouse.move(x + 1, y)
    expect(gable.page.locator("input.blank")).to_have_attribute("placeholder", "new point")
    gable.page.mouse.click(x + 1, y)
    gable.page.keyboard.up("Shift")
    assert gable.steps()[-1].endswith("free point")


def test_curves_under_one_pointer_are_told_apart_by_kind_and_taken_in_turn(desk):
    desk.enter("Splitting a gable")
    desk.put([{"id": "s", "make": "segment", "from": ["A", "B"]}])
    desk.take("intersection")
    desk.page.mouse.move(*desk.at(5.5, 2.25))
    blank = desk.page.locator("input.blank")
    first = blank.get_attribute("placeholder")
    desk.page.keyboard.press("ArrowDown")
    second = blank.get_attribute("placeholder")
    assert {first, second} == {"r, ray", "s, segment"}
    desk.page.mouse.wheel(0, 100)
    expect(blank).to_have_attribute("placeholder", first)


def test_keys_are_shown_on_demand_and_move_the_view(gable):
    gable.page.keyboard.press("?")
    expect(gable.page.get_by_text("take a tool; go to the tools, from where arrows lead on")).to_be_visible()
    gable.page.keyboard.press("Escape")
    expect(gable.page.get_by_text("take a tool; go to the tools, from where arrows lead on")).to_be_hidden()
    radius = gable.page.locator(".curve[data-id=d]").get_attribute
    before = float(radius("r"))
    gable.page.keyboard.press("+")
    assert float(radius("r")) > before * 1.2
    gable.page.keyboard.press("0")
    assert float(radius("r")) == pytest.approx(before, rel=0.01)


def test_all_intersections_show_while_that_class_tool_is_in_hand(gable):
    assert gable.page.locator(".candidate").count() == 0
    gable.take("intersection")
    assert gable.page.locator(".candidate").count() > 5
    gable.page.keyboard.press("Escape")
    assert gable.page.locator(".candidate").count() == 0


def test_an_intersection_off_the_paper_is_said_and_brought_in(desk):
    desk.enter("Splitting a gable")
    flat = [
        {"id": "P", "make": "free_point", "at": [2, 7]},
        {"id": "Q", "make": "free_point", "at": [9, 6.6]},
        {"id": "l", "make": "line", "from": ["P", "Q"]},
        {"id": "n", "make": "line", "from": ["A", "B"]},
    ]
    desk.put(flat)
    desk.take("intersection")
    desk.page.keyboard.type("ln", delay=30)
    expect(desk.page.locator(".hint")).to_contain_text("off the paper: Fit brings it in")
    desk.page.get_by_role("button", name="Fit").click()
    x, y = desk.point("D")
    assert 0 < x < 960 and 100 < y < 700


def test_lines_take_weight_and_colour_and_names_low_digits(gable):
    line = row(gable, "d")
    line.get_by_role("button", name="Draw it in blue").click()
    gable.page.get_by_role("button", name="Thick").click()
    name = gable.page.get_by_label("Name of d")
    name.fill("d12")
    name.press("Tab")
    gable.page.mouse.move(*gable.at(3, 8))  # a pointer on its row would light it up
    expect(gable.page.locator(".curve[data-id=d]")).to_have_class("curve thick hue-blue")
    expect(gable.page.locator(".label tspan.low")).to_have_text("12")
    gable.saved()
    gable.page.reload()
    gable.ready()
    expect(gable.page.locator(".curve[data-id=d]")).to_have_class("curve thick hue-blue")


def test_lengths_angles_and_radii_are_measured_live_and_cost_nothing(gable):
    for make, names in (("length", "AB"), ("angle", "BAC"), ("radius", "c")):
        gable.take(make)
        gable.page.keyboard.type(names, delay=30)
        gable.page.keyboard.press("Escape")
    measures = gable.page.locator(".measures li")
    expect(measures).to_have_count(3)
    assert [text.split("Remove")[0].split() for text in measures.all_inner_texts()] == [
        ["AB", "7.02", "cm"],
        ["angle", "BAC", "53.4°"],
        ["radius", "of", "c", "7.02", "cm"],
    ]
    expect(gable.page.locator(".step-list .count")).to_have_text("4 of 4 moves")
    gable.page.keyboard.press("Escape")
    dragged(gable, "B", 11, 2.5)
    expect(measures.first).to_contain_text("9.01 cm")
    gable.page.mouse.up()
    gable.page.get_by_role("button", name="Remove the measure of angle BAC").click()
    expect(measures).to_have_count(2)
    gable.saved()
    gable.page.reload()
    gable.ready()
    expect(measures).to_have_count(2)
    expect(gable.page.locator("text.measure")).to_have_count(2)


def test_with_shift_the_whole_figure_is_dragged(gable):
    before = {id_: gable.point(id_) for id_ in "ABCF"}
    x, y = gable.at(2.5, 7)
    gable.page.keyboard.down("Shift")
    gable.page.mouse.move(x, y)
    gable.page.mouse.down()
    gable.page.mouse.move(x + 40, y + 30, steps=4)
    gable.page.mouse.up()
    gable.page.keyboard.up("Shift")
    for id_, (px, py) in before.items():
        assert gable.point(id_) == pytest.approx((px + 40, py + 30), abs=1)
    assert set(gable.stored()[-1]["operation"]["points"]) == {"A", "B", "C"}


def test_a_name_is_dragged_aside_and_stays_there(gable):
    name = gable.page.locator("[data-names=F]")
    box = name.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    gable.page.mouse.move(x, y)
    gable.page.mouse.down()
    gable.page.mouse.move(x + 45, y + 20, steps=5)
    gable.page.mouse.up()
    assert gable.stored()[-1]["operation"].keys() == {"op", "id", "dress"}
    for _before_and_after_a_reload in range(2):
        moved = gable.page.locator("[data-names=F]").bounding_box()
        assert (moved["x"] - box["x"], moved["y"] - box["y"]) == pytest.approx((45, 20), abs=2)
        gable.page.reload()
        gable.ready()


def test_what_is_done_already_is_marked_as_such_and_costs_nothing(desk, school):
    with make_sessions(school)() as session:
        veteran = session.scalars(select(Person).where(Person.login == "ilse.marran")).one()
        task = next(one for one in TASKS if one.title == "Splitting a gable")
        document = {**task.document(), "title": f"Half a gable {veteran.id}", "start": JUMPING_GABLE[:4]}
        sheet = new_sheet(session, veteran.classes[0].teacher, document)
        session.add(Assignment(school_class=veteran.classes[0], sheet=sheet, position=90))
        session.commit()
    desk.enter(document["title"])
    done = desk.page.locator(".step-list li.done-already")
    expect(done).to_have_count(4)
    expect(done.first).to_contain_text("c: circle centred A through B")
    expect(desk.page.locator(".curve.start")).to_have_count(3)
    far = {"id": "F", "make": "intersection", "from": ["d", "e"], "farthest_from": "A"}
    desk.put([far, JUMPING_GABLE[5]])
    expect(desk.page.locator(".step-list .count")).to_have_text("1 of 4 moves")
    desk.hand_in()
    expect(desk.page.locator(".sentence-of-verdict")).to_contain_text("stays right wherever")


def test_a_click_with_an_empty_hand_opens_the_menu(gable):
    gable.click("F")
    menu = gable.page.locator(".object-menu")
    expect(menu).to_contain_text("F: intersection of")
    gable.page.mouse.click(140, 650)
    expect(menu).to_be_hidden()


def test_keys_hide_and_remove_what_is_under_the_pointer(gable):
    gable.page.mouse.move(*gable.point("F"))
    gable.page.keyboard.press("h")
    expect(gable.page.locator(".point[data-id=F]")).to_have_count(0)
    gable.page.keyboard.press("Control+z")
    gable.page.mouse.move(*gable.point("F"))
    gable.page.keyboard.press("Delete")
    expect(gable.page.get_by_role("alertdialog")).to_contain_text("Removing F also removes m.")


def test_a_measured_angle_has_its_mark(desk):
    desk.enter("Splitting a gable")
    desk.take("angle")
    desk.page.keyboard.type("BAC", delay=30)
    expect(desk.page.locator(".tick")).to_have_count(1)
    assert "A30 30" in desk.page.locator(".tick").get_attribute("d")
    desk.page.keyboard.press("Escape")
    desk.page.keyboard.press("Escape")
    move = "document.querySelector('.board-page').board.store.perform({op: 'move', points: {B: [8, 2], C: [2, 7]}})"
    desk.page.evaluate(move)
    expect(desk.page.locator(".measures").first).to_contain_text("90°")
    assert "A30" not in desk.page.locator(".tick").get_attribute("d"), "a square in a right angle"


def test_a_finger_goes_round_what_lies_under_it(browser, served, fresh_student):
    context = browser.new_context(viewport={"width": 1024, "height": 768}, has_touch=True)
    desk = Desk(context.new_page(), served, fresh_student("finger")).enter("Splitting a gable")
    desk.put([{"id": "s", "make": "segment", "from": ["A", "B"]}, {"id": "t", "make": "segment", "from": ["B", "C"]}])
    desk.page.locator(".card-tool[data-make=intersection]").tap()
    place = desk.at(5.5, 2.25)
    take = desk.page.get_by_role("button", name="Select", exact=True)
    desk.page.touchscreen.tap(*place)
    expect(take).to_be_visible()
    first = desk.page.locator("input.blank").get_attribute("placeholder")
    desk.page.touchscreen.tap(*place)
    second = desk.page.locator("input.blank").get_attribute("placeholder")
    assert {first, second} == {"r, ray", "s, segment"}
    take.tap()
    expect(take).to_be_hidden()
    expect(desk.page.locator(".blank.filled")).to_have_text(second.split(",")[0])
    assert desk.errors == []
    context.close()


def test_names_stand_clear_of_points_and_of_each_other(gable):
    boxes = gable.page.locator(".paper .label").evaluate_all(
        "all => all.map((one) => { const b = one.getBoundingClientRect(); return [b.left + 3, b.top + 7, b.right - 3, b.bottom - 7]; })"
    )
    points = gable.page.locator(".paper .point").evaluate_all(
        "all => all.map((one) => { const b = one.getBoundingClientRect(); return [b.left + 3, b.top + 3, b.right - 3, b.bottom - 3]; })"
    )
    assert len(boxes) == 11
    for number, one in enumerate(boxes):
        for other in [*boxes[:number], *points]:
            apart = one[0] >= other[2] or one[2] <= other[0] or one[1] >= other[3] or one[3] <= other[1]
            assert apart, (one, other)


def test_an_answer_from_the_server_leaves_question_and_typing_alone(gable):
    answered = "document.querySelector('.board-page').board.store.refresh()"
    line = row(gable, "d")
    line.get_by_role("button", name="Remove", exact=True).click()
    gable.page.evaluate(answered)
    expect(gable.page.get_by_role("button", name="Hide d only")).to_be_focused()
    gable.page.get_by_role("button", name="Keep").click()
    name = gable.page.get_by_label("Name of d")
    name.fill("rim")
    gable.page.evaluate(answered)
    expect(name).to_have_value("rim")
    expect(name).to_be_focused()
    name.press("Enter")
    expect(gable.page.locator(".step-list li[data-step=F]")).to_contain_text("rim")
