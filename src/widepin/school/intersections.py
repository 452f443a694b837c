"""How the mark at an intersection is stored.

A student marks the intersection that is meant by pointing at it. If a point is known to lie on both curves whatever is
dragged, the second intersection is meant as "the other one", and that is what is stored: so it does not jump
when the figure is dragged.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from ..judge.references import Watch, off, passes_through
from ..plane.figure import Figure, is_defined
from ..plane.shapes import Kind, Point, Shape
from ..plane.steps import Step
from .history import History

NEAR = 1e-6
"""Distance, in centimetres, below which two points as drawn are one."""


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
            return replace(step, choice="other_than", reference=every[number].id, pick=1)
    return step


def is_another_meeting(point: Point, shapes: Sequence[Shape], curves: Sequence[int]) -> bool:
    """Whether a point lies, as drawn, on both curves and away from the intersection, which is the last shape."""
    here = shapes[-1]
    assert isinstance(here, Point)
    if not is_defined(point) or math.hypot(here.x - point.x, here.y - point.y) < NEAR:
        return False
    for curve in curves:
        distance, size = off(point, shapes[curve])
        if not abs(distance) <= NEAR * size:
            return False
    return True
