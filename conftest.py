"""What the examples in docstrings may use without saying where it comes from."""

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.judge.conditions import Finding, Measure, Term
from widepin.judge.task import Allowance, Condition, Task, Wanted, Work
from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.figure import Figure
from widepin.plane.shapes import Circle, Line, Point
from widepin.plane.steps import Step
from widepin.school.tasks.library.notation import steps as from_lines


def plain(values: object) -> object:
    """Numbers of a shape, or one number, rounded, so that an example shows them plainly."""
    if isinstance(values, Point | Line | Circle | tuple | list):
        return tuple(plain(value) for value in values)
    return round(float(values), 6) + 0.0


def found(finding: Finding) -> tuple:
    """The gaps and the margins of a relation."""
    return tuple(finding.gaps), tuple(finding.margins)


def constructed(lines: str) -> tuple[Step, ...]:
    """Steps from lines: ``c circle A B``."""
    return read_steps(from_lines(lines))


SEGMENT = constructed("A free_point at=0,0\nB free_point at=4,0\ns segment A B")

ON_A_SEGMENT = Figure((*SEGMENT, *constructed("P point_on s at=1,0\nc circle A P")))
"""Two given points, their segment, and a sliding point and a circle that a student drew."""

TRIANGLE = Figure(constructed("A free_point at=0,0\nB free_point at=4,0\nC free_point at=1,3"))

APEX = Task("", SEGMENT[:2], (Allowance("circle"),), (Wanted("C", "point"),), (Condition("same", ("C", "C")),))
"""A task on two given points, for what is said of any construction on them."""


@pytest.fixture(autouse=True)
def examples(doctest_namespace):
    """The number system of arrays, shapes, small figures and tasks, and ``plain`` numbers."""
    doctest_namespace.update(ARRAYS=ARRAYS, Point=Point, Line=Line, Circle=Circle, plain=plain)
    doctest_namespace.update(unit_figure=Measure(ARRAYS, 1.0, Point(0, 0)), Term=Term, found=found)
    doctest_namespace.update(on_a_segment=ON_A_SEGMENT, triangle=TRIANGLE, apex=APEX, constructed=constructed)
    doctest_namespace.update(Step=Step, Task=Task, Work=Work, Allowance=Allowance, Wanted=Wanted, Condition=Condition)
    with Arrays.quiet():
        yield
