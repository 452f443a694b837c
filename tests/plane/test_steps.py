"""What makes a list of steps well formed."""

import pytest

from tests import zoo
from widepin.documents.wording.rule_words import worded
from widepin.plane.intersections import Choice
from widepin.plane.steps import FARTHEST, MAX_STEPS, IllFormed, Step, check_steps

A, B = Step("A", "free_point", at=(0, 0)), Step("B", "free_point", at=(4, 0))
LINE = Step("l", "line", ("A", "B"))


@pytest.mark.parametrize(
    ("step", "field", "said"),
    [
        (Step("A", "free_point", at=(1, 1)), "id", "already"),
        (Step("1x", "free_point", at=(1, 1)), "id", "letter"),
        (Step("x" * 25, "free_point", at=(1, 1)), "id", "24"),
        (Step("x", "trisector", ("A",)), "make", "no make"),
        (Step("x", "line", ("A",)), "from", "1 ids"),
        (Step("x", "line", ("A", "Z")), "from[1]", "not made before"),
        (Step("x", "line", ("A", "l")), "from[1]", "a point is needed"),
        (Step("x", "intersection", ("l", "l")), "from[1]", "itself"),
        (Step("x", "free_point"), "at", "needs its place"),
        (Step("x", "free_point", at=(0, 2e4)), "at[1]", "10000"),
        (Step("x", "free_point", at=(float("nan"), 0)), "at[0]", "nan"),
        (Step("x", "intersection", ("l", "c"), pick=3), "pick", "1 or 2"),
        (Step("x", "intersection", ("l", "c"), choice=Choice.OTHER_THAN, reference="Q"), "other_than", "not made"),
        (Step("x", "intersection", ("l", "c"), choice=Choice.NEAREST_TO, reference="l"), "nearest_to", "name a point"),
        (Step("x", "intersection", ("l", "m"), choice=Choice.OTHER_THAN, reference="A"), "other_than", "only once"),
    ],
)
def test_a_broken_rule_is_said_with_its_place(step, field, said):
    before = [A, B, LINE, Step("c", "circle", ("A", "B")), Step("m", "perpendicular", ("l", "A"))]
    with pytest.raises(IllFormed) as caught:
        check_steps([*before, step])
    assert (caught.value.index, caught.value.field) == (5, field)
    assert said in worded(caught.value.broken)


def test_too_many_steps_are_refused():
    with pytest.raises(IllFormed, match="too many steps"):
        check_steps([Step(f"P{n}", "free_point", at=(n % 9, 1)) for n in range(MAX_STEPS + 1)])


def test_an_object_can_only_be_made_from_earlier_ones():
    with pytest.raises(IllFormed, match="source not before"):
        check_steps([A, LINE, B])


def test_every_named_configuration_is_well_formed():
    for lines, _ in zoo.INTERSECTIONS.values():
        zoo.figure(lines)


def test_a_place_may_lie_as_far_as_the_bound_but_no_farther():
    check_steps([Step("A", "free_point", at=(FARTHEST, -FARTHEST))])
    with pytest.raises(IllFormed):
        check_steps([Step("A", "free_point", at=(0, -FARTHEST - 1))])
