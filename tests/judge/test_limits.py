"""Corners of the batch in which a crossing is gone are found by search where chance misses them."""

import numpy as np
import pytest

from tests import zoo
from tests.judge.test_judging import ALL, task
from widepin.judge.board import Board
from widepin.judge.limits import beyond_limits, room
from widepin.plane.shapes import Circle, Kind, Point, Straight
from widepin.school.shelf.notation import rel

AB = "A free_point at=0,0\nB free_point at=6,0"
ROOMY = {
    # name: steps whose last is a crossing X that some large movements undo
    "circles drawn from a helper": "H free_point at=4,2\nc circle A H\nd circle_radius B A H\nX intersection c d pick=1",
    "a line and a circle": "H free_point at=3,1\nC free_point at=2,5\nD free_point at=7,5\nl line C D\nc circle A H\nX intersection l c pick=2",
    "two segments": "C free_point at=3,3\nD free_point at=3,-3\ns segment A B\nt segment C D\nX intersection s t",
}
STEADY = {
    "equilateral": "c circle A B\nd circle B A\nX intersection c d pick=1",
    "at the end of a segment": "s segment A B\nc circle A B\nX intersection s c pick=2",
    "two lines": "C free_point at=3,3\nl line A C\nm line B C\nX intersection l m",
}


def board(made):
    return Board(task(AB, ["point X"], [rel("distinct", "X", "A")], tools=[*ALL]), zoo.steps(made))


def searched(made, only_where_it_exists=True):
    """What a search finds that has only seen large movements in which X exists."""
    on = board(made)
    number = on.figure.index["X"]
    positions = on.batch.positions[:, on.batch.groups["large all"]]
    if only_where_it_exists:
        there = np.isfinite(on.figure.evaluate_batch(positions)[number].x)
        positions = positions[:, np.flatnonzero(there)]
    shapes = on.figure.evaluate_batch(positions)
    found = beyond_limits(on.figure, [number], positions, shapes, slice(0, positions.shape[1]), float(on.size))
    return on, number, positions, found


@pytest.mark.parametrize("made", ROOMY.values(), ids=ROOMY)
def test_a_limit_that_chance_did_not_cross_is_crossed(made):
    on, number, positions, found = searched(made)
    assert found.shape[1] == 1
    shapes = on.figure.evaluate_batch(found)
    assert np.isnan(shapes[number].x).all()
    assert all(np.isfinite(sum(shapes[source])).all() for source in on.figure.nodes[number].sources)
    assert (found[:, 0] >= positions.min(axis=1)).all() and (found[:, 0] <= positions.max(axis=1)).all()


@pytest.mark.parametrize("made", STEADY.values(), ids=STEADY)
def test_crossings_that_nothing_undoes_are_left_alone(made):
    assert searched(made)[-1].shape[1] == 0
    assert "beyond limits" not in board(made).batch.groups


def test_a_crossing_that_chance_has_undone_needs_no_search():
    assert searched(ROOMY["two segments"], only_where_it_exists=False)[-1].shape[1] == 0


def one(shape):
    return type(shape)(*(np.array([[float(value)]]) for value in shape))


@pytest.mark.parametrize(
    ("kinds", "a", "b", "point", "expected"),
    [
        ((Kind.CIRCLE, Kind.CIRCLE), Circle(0, 0, 9), Circle(5, 0, 9), Point(2.5, 1.66), 1),
        ((Kind.CIRCLE, Kind.CIRCLE), Circle(0, 0, 25), Circle(3, 0, 9), Point(4.17, 2.76), 1),
        ((Kind.LINE, Kind.CIRCLE), Straight(0, 2, 1, 0), Circle(0, 0, 9), Point(2.24, 2), 1),
        ((Kind.SEGMENT, Kind.LINE), Straight(0, 0, 10, 0), Straight(9.5, 0, 0, 1), Point(9.5, 0), 0.5),
        ((Kind.RAY, Kind.LINE), Straight(0, 0, 10, 0), Straight(12, 0, 0, 1), Point(12, 0), 12),
        ((Kind.LINE, Kind.CIRCLE), Straight(0, 4, 1, 0), Circle(0, 0, 9), Point(np.nan, np.nan), np.nan),
    ],
)
def test_room_is_how_far_curves_may_still_part(kinds, a, b, point, expected):
    with np.errstate(all="ignore"):
        assert room(kinds, one(a), one(b), one(point)) == pytest.approx(expected, nan_ok=True)
