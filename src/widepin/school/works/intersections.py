"""How the mark at an intersection is stored.

A student marks the intersection that is meant by pointing at it. If a point is known to lie on both curves whatever is
dragged, the second intersection is meant as "the other one", and that is what is stored: so it does not jump
when the figure is dragged.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ...judge.positions.references import Watch, passes_through
from ...plane.arrays import ARRAYS
from ...plane.figure import Figure, is_defined
from ...plane.intersections import Choice
from ...plane.measurement import distance
from ...plane.predicates import incidence
from ...plane.shapes import Kind, Point, Shape
from ...plane.steps import Step
from ...plane.tolerances import DRAWN_AS_ONE
from .history import History


def settled(state: History, step: Step) -> Step:
    """The step as it is to be stored: a picked intersection becomes the other one than a known common point."""
    if step.make != "intersection" or step.choice != "pick":
        return step
    every = [*state.given, *state.start, *state.steps, step]
    figure = Figure(every)
    if not any(figure.nodes[curve].kind is Kind.CIRCLE for curve in figure.nodes[-1].sources):
        return step
    _, shapes = figure.drawn()
    curves, watch = figure.nodes[-1].sources, Watch(figure)
    for number, shape in enumerate(shapes[:-1]):
        if (
            isinstance(shape, Point)
            and is_another_meeting(shape, shapes, curves)
            and all(passes_through(figure, curve, number) or watch.stays_on(number, curve) for curve in curves)
        ):
            return replace(step, choice=Choice.OTHER_THAN, reference=every[number].id, pick=1)
    return step


def is_another_meeting(point: Point[float], shapes: Sequence[Shape[float]], curves: Sequence[int]) -> bool:
    """Whether a point lies, as drawn, on both curves and away from the intersection, which is the last shape."""
    here = shapes[-1]
    assert isinstance(here, Point)
    if not is_defined(point) or distance(ARRAYS, here, point) < DRAWN_AS_ONE:
        return False
    for curve in curves:
        residual, size = incidence(point, shapes[curve])
        if not abs(residual) <= DRAWN_AS_ONE * size:
            return False
    return True
