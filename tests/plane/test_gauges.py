"""What is measured on a figure, in arrays and on tape alike."""

import math

import pytest

from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.gauges import angle, beyond_ends, circles_differ, gauge_tapes, line_apart, lines_differ
from widepin.plane.measurement import distance, radius, separation
from widepin.plane.shapes import Circle, Line, Point
from widepin.plane.tape import play

CASES = {
    "circles outside each other": ("apart circle circle", separation, Circle(0, 0, 4), Circle(5, 0, 4), (1, -5)),
    "one circle inside the other": ("apart circle circle", separation, Circle(0, 0, 25), Circle(1, 0, 4), (-6, 2)),
    "circles that meet": ("apart circle circle", separation, Circle(0, 0, 9), Circle(4, 0, 9), (-2, -4)),
    "a line beside a circle": ("apart line circle", line_apart, Line(0, 5, 2, 0), Circle(0, 0, 9), (2,)),
    "one circle twice": ("differ circle circle", circles_differ, Circle(1, 2, 9), Circle(1, 2, 9), (0, 0)),
    "two circles": ("differ circle circle", circles_differ, Circle(0, 0, 9), Circle(3, 4, 4), (5, 1)),
    "one line twice": (
        "differ line line",
        lines_differ,
        Line(0, 0, 2, 0),
        Line(5, 0, 1, 0),
        (0, 0),
    ),
    "two lines": ("differ line line", lines_differ, Line(0, 0, 2, 0), Line(5, 1, 1, 1), (1, 2)),
    "before a segment": ("beyond line point", beyond_ends, Line(0, 0, 4, 0), Point(-1, 0), (1, -5)),
    "after a segment": ("beyond line point", beyond_ends, Line(0, 0, 4, 0), Point(6, 0), (-6, 2)),
    "a length": ("length point point", lambda system, p, q: [distance(system, p, q)], Point(0, 0), Point(3, 4), (5,)),
}


@pytest.mark.parametrize(("key", "compute", "a", "b", "expected"), CASES.values(), ids=CASES)
def test_curves_miss_each_other_by_so_much(key, compute, a, b, expected):
    with Arrays.quiet():
        assert [float(value) for value in compute(ARRAYS, a, b)] == pytest.approx(list(expected))
    assert play(gauge_tapes()[key], [*a, *b]) == pytest.approx(expected)


def test_what_does_not_exist_is_not_apart():
    nan = math.nan
    with Arrays.quiet():
        assert all(math.isnan(value) for value in separation(ARRAYS, Circle(nan, nan, nan), Circle(0, 0, 1)))


def test_an_angle_is_told_by_its_cosine_and_sine():
    corner = [Point(3, 0), Point(0, 0), Point(0, 2)]
    assert play(gauge_tapes()["turn point point point"], [x for p in corner for x in p]) == (0, 6)
    assert angle(ARRAYS, *corner) == (0, 6)


def test_a_radius():
    with Arrays.quiet():
        assert float(radius(ARRAYS, Circle(1, 2, 9))) == 3
    assert play(gauge_tapes()["radius circle"], [1, 2, 9]) == (3,)
