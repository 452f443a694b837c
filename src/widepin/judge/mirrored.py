"""Mirror images of a model's answer: the same figure on the other side, which a student may build with equal right.

They are the model with other intersections, where the answer lies to what the model uses of the given figure as it did
before: all distances, angles and radii are the same.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import product

import numpy as np
from numpy.typing import NDArray

from ..plane.arrays import ARRAYS
from ..plane.figure import Figure, is_defined
from ..plane.measurement import line_coordinates, radius
from ..plane.shapes import Circle, Kind, Line, Point, Shape
from ..plane.steps import Step
from ..plane.tolerances import SAME_IMAGE
from .costs.structure import needed_by
from .reports.measured import angle_between, distance_between
from .task import Task

MAX_INTERSECTIONS = 6
"""Intersections of the model that are tried both ways."""


def mirror_images(task: Task) -> Iterator[tuple[Step, ...]]:
    """The models of other intersections whose answer is a mirror image of the model's, each answer once.

    The model's objects must have the names that are wanted.
    """
    names = [one.name for one in task.wanted]
    used = used_of_given(task)
    here = answer_of(task, task.model, names, used)
    seen = [here]
    for steps in other_intersections(task.model, names):
        there = answer_of(task, steps, names, used)
        if not same(there[0], here[0]) or any(same(there[1], one[1]) for one in seen):
            continue
        seen.append(there)
        yield steps


def used_of_given(task: Task) -> list[str]:
    """The given objects that steps of the model are made from."""
    parents = {parent for step in task.model for parent in step.parents}
    return [step.id for step in task.given if step.id in parents]


def other_intersections(model: Sequence[Step], names: Sequence[str]) -> Iterator[tuple[Step, ...]]:
    """The model with some of the needed intersections picked the other way; those of few first."""
    needed = needed_by(model, names)
    intersections = [n for n, step in enumerate(model) if step.make == "intersection" and step.id in needed]
    intersections = [n for n in intersections if model[n].choice == "pick"][-MAX_INTERSECTIONS:]
    for turned in sorted(product((False, True), repeat=len(intersections)), key=sum):
        steps = list(model)
        for number in (n for n, turn in zip(intersections, turned, strict=True) if turn):
            steps[number] = replace(steps[number], pick=3 - steps[number].pick)
        if any(turned):
            yield tuple(steps)


Measures = NDArray[np.float64]


def answer_of(
    task: Task, steps: Sequence[Step], names: Sequence[str], used: Sequence[str]
) -> tuple[Measures, Measures]:
    """How the answer lies to the used given objects and within itself, and where it lies; NaN where it is gone."""
    figure = Figure([*task.given, *steps])
    _, shapes = figure.drawn()
    objects = [shapes[figure.index[name]] for name in (*used, *names)]
    if not all(is_defined(object) for object in objects):
        return np.array([np.nan]), np.array([np.nan])
    answer = objects[len(used) :]
    measures = [apart(one, other) for one in answer for other in objects]
    radii = [float(radius(ARRAYS, one)) for one in answer if isinstance(one, Circle)]
    kinds = [figure.nodes[figure.index[name]].kind for name in names]
    places = [value for one, kind in zip(answer, kinds, strict=True) for value in place_of(one, kind)]
    return np.array([*measures, *radii]), np.array(places)


def apart(one: Shape[float], other: Shape[float]) -> float:
    """How two objects lie to each other: the distance of points, centres and lines, or the angle of two lines."""
    if isinstance(one, Line) and isinstance(other, Line):
        return angle_between(one, other)
    if isinstance(one, Line):
        one, other = other, one
    return distance_between(at(one), other if isinstance(other, Line) else at(other))


def at(shape: Shape[float]) -> Point[float]:
    """A point, or the centre of a circle."""
    assert isinstance(shape, Point | Circle)
    return Point(shape.x, shape.y)


def place_of(shape: Shape[float], kind: Kind) -> list[float]:
    """Numbers that are equal where two objects of a kind are the same; a line may be spanned by any of its points."""
    if kind is not Kind.LINE or not isinstance(shape, Line):
        return [float(value) for value in shape]
    return [float(value) for value in line_coordinates(ARRAYS, shape)]


def same(one: Measures, other: Measures) -> bool:
    """Whether two lists of measures agree; never where something is gone."""
    return one.shape == other.shape and bool(np.all(np.abs(one - other) < SAME_IMAGE))
