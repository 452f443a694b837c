"""Whether the point that an intersection names with other_than lies on both curves in every position."""

import pytest

from tests import zoo
from widepin.documents.wording.rule_words import worded
from widepin.judge.positions.references import Watch, check_references, passes_through
from widepin.plane.steps import IllFormed

BASE = (
    "A free_point at=0,0\nB free_point at=6,1\nM midpoint A B\nk circle M A\nl line A B\ns segment M B\n"
    "E free_point at=3,3.6\nS point_on k at=3,4\nT intersection l k pick=1\nu perpendicular_bisector A B\n"
)


@pytest.fixture(scope="module")
def figure():
    return zoo.figure(BASE)


@pytest.mark.parametrize(
    ("point", "curve", "by_making", "always"),
    [
        ("A", "k", True, True),  # the circle was drawn through it
        ("S", "k", True, True),  # it slides on the circle
        ("T", "l", True, True),  # it is where the line meets something
        ("B", "k", False, True),  # by theorem: the other end of the diameter
        ("M", "u", False, True),
        ("A", "s", False, True),  # on the line of a segment that ends before it
        ("E", "k", False, False),  # close to it, by eye
        ("M", "k", False, False),
    ],
)
def test_plain_from_the_making_or_found_in_random_positions(figure, point, curve, by_making, always):
    p, c = figure.index[point], figure.index[curve]
    assert passes_through(figure, c, p) == by_making
    assert Watch(figure).stays_on(p, c) == always


@pytest.mark.parametrize(("reference", "good"), [("A", True), ("B", True), ("E", False), ("M", False)])
def test_only_common_points_are_accepted(reference, good):
    lines = f"{BASE}X intersection l k other_than={reference}"
    figure = zoo.figure(lines)
    if good:
        check_references(figure, 0)
        return
    with pytest.raises(IllFormed) as caught:
        check_references(figure, 0)
    assert (caught.value.field, caught.value.step_id) == ("other_than", "X")
    assert reference in worded(caught.value.broken)
