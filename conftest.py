"""What the examples in docstrings may use without saying where it comes from."""

import pytest

from widepin.judge.conditions import Finding, Measure, Term
from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.shapes import Circle, Line, Point


def plain(values: object) -> object:
    """Numbers of a shape, or one number, rounded, so that an example shows them plainly."""
    if isinstance(values, Point | Line | Circle | tuple | list):
        return tuple(plain(value) for value in values)
    return round(float(values), 6) + 0.0


def found(finding: Finding) -> tuple:
    """The gaps and the margins of a relation."""
    return tuple(finding.gaps), tuple(finding.margins)


@pytest.fixture(autouse=True)
def examples(doctest_namespace):
    """The number system of arrays, shapes, and ``plain`` numbers."""
    doctest_namespace.update(ARRAYS=ARRAYS, Point=Point, Line=Line, Circle=Circle, plain=plain)
    doctest_namespace.update(unit_figure=Measure(ARRAYS, 1.0, Point(0, 0)), Term=Term, found=found)
    with Arrays.quiet():
        yield
