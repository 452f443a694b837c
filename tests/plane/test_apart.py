"""How far curves miss each other, in centimetres, in arrays and on tape alike."""

import math

import pytest

from widepin.plane.apart import apart_tapes, beyond_ends, circles_apart, straight_apart
from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.shapes import Circle, Point, Straight
from widepin.plane.tape import play

CASES = {
    "circles outside each other": ("apart circle circle", circles_apart, Circle(0, 0, 4), Circle(5, 0, 4), (1, -5)),
    "one circle inside the other": ("apart circle circle", circles_apart, Circle(0, 0, 25), Circle(1, 0, 4), (-6, 2)),
    "circles that meet": ("apart circle circle", circles_apart, Circle(0, 0, 9), Circle(4, 0, 9), (-2, -4)),
    "a line beside a circle": ("apart straight circle", straight_apart, Straight(0, 5, 2, 0), Circle(0, 0, 9), (2,)),
    "before a segment": ("beyond straight point", beyond_ends, Straight(0, 0, 4, 0), Point(-1, 0), (1, -5)),
    "after a segment": ("beyond straight point", beyond_ends, Straight(0, 0, 4, 0), Point(6, 0), (-6, 2)),
}


@pytest.mark.parametrize(("key", "compute", "a", "b", "expected"), CASES.values(), ids=CASES)
def test_curves_miss_each_other_by_so_much(key, compute, a, b, expected):
    with Arrays.quiet():
        assert [float(value) for value in compute(ARRAYS, a, b)] == pytest.approx(list(expected))
    assert play(apart_tapes()[key], [*a, *b]) == pytest.approx(expected)


def test_what_does_not_exist_is_not_apart():
    nan = math.nan
    with Arrays.quiet():
        assert all(math.isnan(value) for value in circles_apart(ARRAYS, Circle(nan, nan, nan), Circle(0, 0, 1)))
