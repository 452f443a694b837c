"""Moves, needed and idle ones, and which tools are refused."""

import pytest

from tests import zoo
from widepin.documents.formats.construction import read_steps
from widepin.documents.wording.rule_words import worded
from widepin.judge.costs.counts import counted, counted_alone, is_move, moves_within, refused_tool
from widepin.judge.task import Allowance, Work
from widepin.plane.makes import MAKES
from widepin.plane.steps import Step
from widepin.school.tasks.library.notation import steps as from_lines

GIVEN = "A free_point at=0,0\nB free_point at=6,1\n"
OWN = "c circle A B\nd circle B A\nD intersection c d\nP free_point at=2,2\nl line A D\nx segment B P\nM midpoint A B"


@pytest.mark.parametrize("make", MAKES)
def test_points_and_intersections_are_free_and_all_else_is_a_move(make):
    assert is_move(make) == (make not in ("free_point", "point_on", "intersection"))


def test_needed_are_the_moves_that_the_answer_is_made_from():
    figure, steps = zoo.figure(GIVEN + OWN), zoo.steps(OWN)
    counts = counted(Work(steps), figure, [figure.index["l"]])
    assert (counts.moves, counts.needed, counts.idle) == (5, 3, ("x", "M"))


def test_nothing_is_known_to_be_needed_of_what_was_not_judged():
    counts = counted_alone(Work(zoo.steps(OWN)))
    assert (counts.moves, counts.needed, counts.idle) == (5, 0, ("c", "d", "l", "x", "M"))


@pytest.mark.parametrize(("sources", "refused"), [("C A B", None), ("C B A", None), ("C A C", "k"), ("A B C", "k")])
def test_a_compass_with_one_opening_draws_no_other_circle(sources, refused):
    locked = [Allowance("circle_radius", None, ("A", "B"))]
    found = refused_tool(zoo.steps(f"k circle_radius {sources}"), locked)
    assert (found.step if found else None) == refused and (
        found is None or "the distance of A and B" in worded(found.broken)
    )


@pytest.mark.parametrize(
    ("tools", "refused"),
    [
        (["points", "circle", "line", "segment", "midpoint"], None),
        (["points", "circle", "line", "segment"], "M"),
        (["circle", "line", "segment", "midpoint"], "P"),
        (["free_point", "circle", "line", "segment", "midpoint"], None),
        (["points", ("circle", 1), "line", "segment", "midpoint"], "d"),
        (["points", ("circle", 2), "line", "segment", ("midpoint", 0)], "M"),
    ],
)
def test_the_first_step_with_a_tool_that_is_not_allowed_is_named(tools, refused):
    allowances = [Allowance(one) if isinstance(one, str) else Allowance(*one) for one in tools]
    found = refused_tool(zoo.steps(OWN), allowances)
    assert (found.step if found else None) == refused


def test_a_tool_that_is_used_up_costs_what_ruler_and_compass_need():
    points = read_steps(from_lines("A free_point at=0,0\nB free_point at=4,0"))
    halves = [Step(f"M{number}", "midpoint", ("A", "B")) for number in range(4)]
    by_hand = moves_within(halves[:1], [])
    assert by_hand > 1
    found = [moves_within([*points, *halves[:count]], [Allowance("midpoint", 2)]) for count in range(5)]
    assert found == [0, 1, 2, 2 + by_hand, 2 + 2 * by_hand]
