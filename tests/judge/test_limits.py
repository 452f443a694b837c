"""Corners of the batch in which an answer fails are found by search where chance misses them."""

import numpy as np
import pytest

from tests import zoo
from tests.judge.test_judging import ALL, task
from widepin.judge.positions.limits import beyond_limits, clearances, slack
from widepin.judge.trials.examination import Examination
from widepin.plane.arrays import ARRAYS
from widepin.plane.figure import Evaluation
from widepin.plane.intersections import other_intersection
from widepin.plane.shapes import Circle, Kind, Line, Point
from widepin.school.tasks.library.notation import rel

AB = "A free_point at=0,0\nB free_point at=6,0"
ROOMY = {
    # name: steps whose last is an intersection X that some large movements undo
    "circles drawn from a helper": "H free_point at=4,2\nc circle A H\nd circle_radius B A H\nX intersection c d pick=1",
    "a line and a circle": "H free_point at=3,1\nC free_point at=2,5\nD free_point at=7,5\nl line C D\nc circle A H\nX intersection l c pick=2",
    "two segments": "C free_point at=3,3\nD free_point at=3,-3\ns segment A B\nt segment C D\nX intersection s t",
}
STEADY = {
    "equilateral": "c circle A B\nd circle B A\nX intersection c d pick=1",
    "at the end of a segment": "s segment A B\nc circle A B\nX intersection s c pick=2",
    "two lines": "C free_point at=3,3\nl line A C\nm line B C\nX intersection l m",
}


def examined(made):
    return Examination(task(AB, ["point X"], [rel("distinct", "X", "A")], tools=[*ALL]), zoo.steps(made))


def searched(made):
    """What a search finds that has only seen large movements in which X exists."""
    on = examined(made)
    number = on.figure.index["X"]
    needed = sorted(on.figure.ancestors([number]))
    positions = on.batch.positions[:, on.batch.groups["large all"]]
    there = np.isfinite(Evaluation(on.figure, positions).shapes(needed)[number].x)
    positions = positions[:, np.flatnonzero(there)]
    shapes = Evaluation(on.figure, positions).shapes(needed)

    def gone(tries):
        return np.isnan(Evaluation(on.figure, tries).shapes(needed)[number].x)

    found = beyond_limits(on.figure, needed, on.handles, positions, shapes, float(on.size), gone)
    return on, number, positions, found


@pytest.mark.parametrize("made", ROOMY.values(), ids=ROOMY)
def test_a_limit_that_chance_did_not_cross_is_crossed(made):
    on, number, positions, found = searched(made)
    assert found.shape[1] >= 1
    shapes = on.figure.evaluate_batch(found)
    assert np.isnan(shapes[number].x).all()
    assert (found.min(axis=1) >= positions.min(axis=1)).all() and (found.max(axis=1) <= positions.max(axis=1)).all()


@pytest.mark.parametrize("made", STEADY.values(), ids=STEADY)
def test_intersections_that_nothing_undoes_are_left_alone(made):
    assert searched(made)[-1].shape[1] == 0


def of(shape):
    return type(shape)(*(np.array([float(value)]) for value in shape))


@pytest.mark.parametrize(
    ("kinds", "a", "b", "point", "expected"),
    [
        ((Kind.CIRCLE, Kind.CIRCLE), Circle(0, 0, 9), Circle(5, 0, 9), Point(2.5, 1.66), [1, 5]),
        ((Kind.CIRCLE, Kind.CIRCLE), Circle(0, 0, 25), Circle(3, 0, 9), Point(4.17, 2.76), [5, 1]),
        ((Kind.LINE, Kind.CIRCLE), Line(0, 2, 1, 0), Circle(0, 0, 9), Point(2.24, 2), [1]),
        ((Kind.SEGMENT, Kind.LINE), Line(0, 0, 10, 0), Line(9.5, 0, 0, 1), Point(9.5, 0), [1, 9.5, 0.5]),
        ((Kind.RAY, Kind.LINE), Line(0, 0, 10, 0), Line(12, 0, 0, 1), Point(12, 0), [1, 12]),
    ],
)
def test_room_is_how_far_curves_may_still_part(kinds, a, b, point, expected):
    assert [float(one[0]) for one in slack(kinds, of(a), of(b), of(point))] == pytest.approx(expected)


def test_what_has_two_intersections_is_as_far_from_its_limit_as_the_choice_is_from_a_tie():
    on = examined("c circle A B\nd circle B A\nQ free_point at=3,1\nX intersection c d nearest_to=Q")
    number = on.figure.index["X"]
    shapes = on.figure.evaluate_batch(on.drawn[:, None])
    tie = clearances(on.figure, number, shapes)[-1]
    height = 6 * np.sqrt(3) / 2
    assert tie == pytest.approx([(height + 1) - (height - 1)])


@pytest.mark.parametrize(
    ("a", "b", "point", "other"),
    [
        (Circle(0, 0, 25), Circle(6, 0, 25), Point(3, 4), Point(3, -4)),
        (Line(0, 3, 2, 0), Circle(1, 0, 25), Point(5, 3), Point(-3, 3)),
        (Circle(1, 0, 25), Line(0, 3, 2, 0), Point(5, 3), Point(-3, 3)),
    ],
)
def test_the_other_intersection_is_mirrored(a, b, point, other):
    found = other_intersection(ARRAYS, of(a), of(b), of(point))
    assert (float(found.x[0]), float(found.y[0])) == pytest.approx(other)
