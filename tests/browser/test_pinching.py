"""Two fingers on the paper: apart, and it grows about the place between them; together to the side, and it moves along."""

import math

import pytest

from tests.browser.conftest import Desk, numbers


@pytest.fixture
def fingers(browser, served, fresh_student):
    """A board on a tablet, and a function that puts fingers on it, moves them and takes them off."""
    context = browser.new_context(viewport={"width": 1024, "height": 768}, has_touch=True)
    desk = Desk(context.new_page(), served, fresh_student(f"pinching-{next(numbers)}")).enter("Splitting a gable")
    session = context.new_cdp_session(desk.page)

    def touch(kind, *places):
        points = [{"x": x, "y": y, "id": number} for number, (x, y) in enumerate(places)]
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    yield desk, touch
    assert desk.errors == []
    context.close()


def pinched(desk, touch, before, after):
    """Where A and B are once two fingers went from these places to those."""
    touch("touchStart", before[0])
    touch("touchStart", *before)
    for share in (0.25, 0.5, 0.75, 1):
        places = [
            tuple(a + (b - a) * share for a, b in zip(start, end, strict=True))
            for start, end in zip(before, after, strict=True)
        ]
        touch("touchMove", *places)
    touch("touchEnd")
    return desk.point("A"), desk.point("B")


def test_fingers_that_go_apart_make_the_figure_larger_about_their_middle(fingers):
    desk, touch = fingers
    box = desk.page.locator(".paper").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    before = desk.point("A"), desk.point("B")
    after = pinched(desk, touch, [(x - 80, y), (x + 80, y)], [(x - 160, y), (x + 160, y)])
    assert math.dist(*after) == pytest.approx(2 * math.dist(*before), rel=0.03)
    for old, new in zip(before, after, strict=True):
        assert (new[0] - x, new[1] - y) == pytest.approx((2 * (old[0] - x), 2 * (old[1] - y)), abs=4)
    assert desk.stored() == []


def test_fingers_that_go_to_the_side_take_the_figure_along(fingers):
    desk, touch = fingers
    box = desk.page.locator(".paper").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    before = desk.point("A"), desk.point("B")
    after = pinched(desk, touch, [(x - 80, y), (x + 80, y)], [(x - 20, y + 40), (x + 140, y + 40)])
    for old, new in zip(before, after, strict=True):
        assert (new[0] - old[0], new[1] - old[1]) == pytest.approx((60, 40), abs=4)
    assert desk.stored() == []
