"""The values that a condition is about, in centimetres and degrees."""

import pytest

from widepin.judge.conditions import RELATIONS, Term
from widepin.judge.reports.measured import measured
from widepin.judge.task import Condition
from widepin.plane.shapes import Circle, Kind, Line, Point

NAMES = {
    "A": Term(Point(0.0, 0.0), Kind.POINT),
    "B": Term(Point(4.0, 0.0), Kind.POINT),
    "C": Term(Point(0.0, 3.0), Kind.POINT),
    "g": Term(Line(0.0, 0.0, 2.0, 0.0), Kind.LINE),
    "h": Term(Line(0.0, 1.0, 1.0, 1.0), Kind.LINE),
    "r": Term(Line(0.0, 0.0, 1.0, 0.0), Kind.RAY),
    "q": Term(Line(0.0, 0.0, -5.0, 0.0), Kind.RAY),
    "k": Term(Circle(0.0, 3.0, 4.0), Kind.CIRCLE),
    "j": Term(Circle(4.0, 0.0, 9.0), Kind.CIRCLE),
    "gone": Term(Point(float("nan"), float("nan")), Kind.POINT),
}
VALUES = {
    "equal_length": ((("A", "B"), ("B", "C")), [("length", 4), ("length", 5)]),
    "ratio": ((("A", "B"), ("A", "C")), [("length", 4), ("length", 3)]),
    "midpoint": (("A", "B", "C"), [("length", 4), ("length", 3)]),
    "equal_angle": ((("B", "A", "C"), ("A", "C", "B")), [("angle", 90), ("angle", 53.1301)]),
    "perpendicular": (("g", "h"), [("angle", 45)]),
    "parallel": (("g", ("B", "C")), [("angle", 36.8699)]),
    "on": (("C", "g"), [("distance", 3)]),
    "tangent": (("g", "k"), [("distance of centre", 3), ("radius", 2)]),
    "same": (("A", "C"), [("distance", 3)]),
    "collinear": (("A", "B", "C"), [("distance", 3)]),
    "concurrent": (("g", ("A", "C"), "h"), [("distance of intersection", 0.7071)]),
    "equidistant": (("C", "g", "h"), [("distance", 3), ("distance", 1.4142)]),
    "equal_area": ((("A", "B", "C"), ("A", "A", "B")), [("area", 6), ("area", 0)]),
}


@pytest.mark.parametrize("rel", VALUES)
def test_values_of_a_relation(rel):
    of, expected = VALUES[rel]
    found = measured(Condition(rel, of, (4, 3) if rel == "ratio" else None), NAMES.__getitem__, None)
    assert [(one.what, pytest.approx(one.drawn, abs=1e-4)) for one in found] == expected
    assert all(one.at_break is None for one in found)


@pytest.mark.parametrize(
    ("rel", "of", "expected"),
    [
        ("same", ("k", "j"), [("radius", 2), ("radius", 3)]),
        ("same", ("g", "h"), [("angle", 45), ("distance", 0.7071)]),
        ("same", ("r", "q"), [("angle", 180), ("distance", 0)]),
        ("on", ("A", "k"), [("distance", 1)]),
        ("tangent", ("k", "j"), [("distance of centres", 5), ("radius", 2), ("radius", 3)]),
    ],
)
def test_values_by_kind_of_object(rel, of, expected):
    found = measured(Condition(rel, of), NAMES.__getitem__, NAMES.__getitem__)
    assert [(one.what, pytest.approx(one.at_break, abs=1e-4)) for one in found] == expected


def test_what_does_not_exist_has_no_value():
    (one,) = measured(Condition("same", ("A", "gone")), NAMES.__getitem__, None)
    assert one.drawn is None


def test_every_relation_either_has_values_or_is_about_order():
    assert set(RELATIONS) - set(VALUES) == {"distinct", "same_side", "opposite_side", "inside_angle"}
