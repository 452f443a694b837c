"""What was meant is taken: the nearest first, said afterwards, and nothing that was not asked for."""

import pytest
from playwright.sync_api import expect


@pytest.fixture
def crossed(desk):
    """Two circles of which one intersection lies 9 px from a free point."""
    desk.enter("Splitting a gable")
    desk.put(
        [
            {"id": "c", "make": "circle", "from": ["A", "B"]},
            {"id": "d", "make": "circle", "from": ["B", "A"]},
            {"id": "I", "make": "intersection", "from": ["c", "d"], "pick": 2},
        ]
    )
    place = desk.point("I")
    desk.page.locator(".step-list li[data-step=I] > button").click()
    desk.page.get_by_role("button", name="Remove", exact=True).click()
    desk.page.keyboard.press("Escape")
    desk.place = place
    return desk


def pointed(desk, dx, dy=0.0):
    x, y = desk.place
    desk.page.mouse.move(x + dx, y + dy)


def test_an_intersection_is_taken_where_only_a_point_on_one_curve_lies_nearer(crossed):
    crossed.take("segment")
    pointed(crossed, 9, 12)
    expect(crossed.page.locator("input.blank")).to_have_attribute("placeholder", "intersection of c, d")
    crossed.page.mouse.down()
    crossed.page.mouse.up()
    expect(crossed.page.locator(".hint")).to_contain_text("is the intersection of c and d")


def test_of_a_point_and_an_intersection_the_nearer_is_taken_and_the_other_offered(crossed):
    page = crossed.page
    crossed.take("point")
    page.keyboard.down("Shift")  # a point that lies on nothing, 9 px away
    x, y = crossed.place
    page.mouse.click(x + 9, y)
    page.keyboard.up("Shift")
    page.keyboard.press("Escape")
    crossed.take("segment")
    pointed(crossed, 1)
    blank = page.locator("input.blank")
    expect(blank).to_have_attribute("placeholder", "intersection of c, d")
    chooser = page.locator(".chooser")
    expect(chooser).to_contain_text("2 lie here")
    page.mouse.wheel(0, 100)
    expect(blank).not_to_have_attribute("placeholder", "intersection of c, d")
    pointed(crossed, 9)
    expect(blank).not_to_have_attribute("placeholder", "intersection of c, d")
    page.mouse.move(5, 300)
    expect(chooser).to_be_hidden()


def test_a_number_takes_what_stands_under_it_in_the_list(desk):
    desk.enter("Splitting a gable")
    desk.put([{"id": "s", "make": "segment", "from": ["A", "B"]}])
    desk.take("intersection")
    desk.page.mouse.move(*desk.at(5.5, 2.25))
    second = desk.page.locator(".chooser button").nth(1).inner_text().split()[1].rstrip(",")
    desk.page.keyboard.press("2")
    expect(desk.page.locator(".blank.filled")).to_have_text(second)


@pytest.fixture
def two_there(desk):
    """A segment on a line, with the tool for intersections in hand and the pointer on both."""
    desk.enter("Splitting a gable")
    desk.put([{"id": "s", "make": "segment", "from": ["A", "B"]}])
    desk.take("intersection")
    desk.page.mouse.move(*desk.at(5.5, 2.25))
    expect(desk.page.locator(".chooser button")).to_have_count(2)
    return desk


def test_going_on_and_back_among_what_lies_there_marks_one_and_keeps_the_order(two_there):
    page = two_there.page
    listed = page.locator(".chooser button").all_inner_texts()
    marked = page.locator(".chooser button.first")
    expect(marked).to_have_text(listed[0])
    for key, place in (("ArrowDown", 1), ("ArrowUp", 0), ("ArrowUp", 1), ("ArrowDown", 0)):  # round and round
        page.keyboard.press(key)
        expect(marked).to_have_text(listed[place])
    assert page.locator(".chooser button").all_inner_texts() == listed


@pytest.mark.parametrize(("digit", "taken"), [("1", 0), ("2", 1), ("3", None)])
def test_a_number_takes_its_own_entry_and_no_other(two_there, digit, taken):
    page = two_there.page
    names = [text.split()[1].rstrip(",") for text in page.locator(".chooser button").all_inner_texts()]
    page.keyboard.press(digit)
    if taken is None:
        expect(page.locator(".blank.filled")).to_have_count(0)
    else:
        expect(page.locator(".blank.filled")).to_have_text(names[taken])


CHOOSER = """
  const paper = Object.assign(document.createElement("div"), { innerHTML: "<div></div>" });
  paper.style.cssText = "position: absolute; left: 0; top: 0; width: 300px; height: 200px";
  const panel = paper.firstChild;
  panel.style.cssText = "position: absolute; width: 80px; height: 40px; overflow: hidden";
  document.body.append(paper);
  const taken = [], offers = [{ name: "far", far: 9 }, { name: "near", far: 1 }];
  const chooser = new m.Chooser(panel, (offer) => taken.push(offer.name));
  chooser.show(offers, x, (offer) => offer.name);
  const entries = [...panel.querySelectorAll("button")];
  const [texts, first] = [entries.map((one) => one.textContent.replace(/\\s+/g, " ").trim()), entries.findIndex((one) => one.className === "first")];
  entries[0].click();
  const at = [panel.style.left, panel.style.top];
  chooser.show([], x, () => "");
  const isHidden = panel.hidden;
  paper.remove();
  return { texts, first, taken, at, isHidden };
"""


@pytest.mark.parametrize(
    ("place", "at"),
    [
        ([100, 100], ["118px", "118px"]),  # right of the pointer and below it
        ([250, 100], ["152px", "118px"]),  # it would reach over the right edge
        ([100, 180], ["118px", "122px"]),  # and over the lower one
        ([250, 180], ["152px", "122px"]),
        ([202, 142], ["104px", "84px"]),  # just not: it would end at the edge itself
        ([201, 141], ["219px", "159px"]),
    ],
)
def test_the_list_stands_beside_the_pointer_and_within_the_paper(run, place, at):
    found = run("board/paper/chooser.js", CHOOSER, place)
    assert found == {"texts": ["1 near", "2 far"], "first": 1, "taken": ["near"], "at": at, "isHidden": True}


def test_the_list_of_steps_and_the_given_objects_fill_blanks(crossed):
    page = crossed.page
    crossed.take("segment")
    page.get_by_role("button", name="A", exact=True).click()
    page.get_by_role("button", name="B", exact=True).click()
    expect(page.locator(".step-list li[data-step]")).to_have_count(3)
    crossed.take("intersection")
    page.locator(".step-list li[data-step=c] > button").click()
    page.locator(".step-list li[data-step=d] > button").click()
    expect(page.locator(".numbered")).to_have_count(2)


def test_what_is_there_already_is_not_drawn_again(crossed):
    page = crossed.page
    crossed.take("circle")
    page.keyboard.type("AB", delay=20)
    expect(page.locator(".hint")).to_have_text("That is c, which is there already.")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    crossed.take("segment")
    page.keyboard.type("AB", delay=20)
    page.keyboard.type("BA", delay=20)
    expect(page.locator(".hint")).to_contain_text("which is there already.")
    expect(page.locator(".step-list li[data-step]")).to_have_count(3)


def test_a_second_click_on_the_same_point_makes_nothing(crossed):
    page = crossed.page
    crossed.take("circle")
    x, y = crossed.point("A")
    page.mouse.dblclick(x, y)
    expect(page.locator(".hint")).to_have_text("A lies here already.")
    crossed.take("point")
    page.mouse.click(*crossed.point("B"))
    expect(page.locator(".hint")).to_have_text("B lies here already.")
    page.mouse.move(*crossed.at(2, 8))
    page.keyboard.press("Enter")
    expect(page.locator(".step-list li[data-step]")).to_have_count(2)


def test_two_objects_have_two_names(crossed):
    crossed.page.locator(".step-list li[data-step=d] > button").click()
    name = crossed.page.get_by_label("Name of d")
    name.fill("c")
    name.press("Enter")
    expect(crossed.page.locator(".hint")).to_contain_text("Another object is called c")
    expect(name).to_have_value("d")


def test_the_enter_of_a_typed_answer_hands_nothing_in(crossed):
    page = crossed.page
    crossed.put([{"id": "m", "make": "angle_bisector", "from": ["B", "A", "C"]}])
    page.get_by_role("button", name="Hand in").click()
    page.locator("input.blank").fill("m")
    page.keyboard.press("Enter")
    expect(page.locator(".handing-in")).to_be_visible()
    page.wait_for_timeout(1000)
    expect(page.locator(".result-strip")).to_be_hidden()


def test_what_was_offered_to_a_tool_is_not_taken_once_another_or_none_is_in_hand(desk):
    desk.enter("Splitting a gable")
    faults = []
    desk.page.on("pageerror", lambda fault: faults.append(fault))
    place = desk.point("A")
    desk.page.mouse.move(*place)
    desk.page.keyboard.press("Escape")
    hinted = desk.page.locator(".hint")
    for key in "34":  # a tool, then another one, while the pointer rests on a point
        desk.page.keyboard.press(key)
    desk.page.mouse.down()
    desk.page.mouse.up()
    expect(desk.page.locator(".blank.filled")).to_have_text("A")
    desk.page.mouse.move(*desk.point("B"))
    desk.page.keyboard.press("Escape")
    desk.page.keyboard.press("Escape")  # and put down
    desk.page.mouse.down()
    desk.page.mouse.up()
    expect(desk.page.locator(".object-menu")).to_be_visible()
    expect(hinted).not_to_have_class("hint trouble")
    assert not faults
