"""A list of steps, linked once and ready to be evaluated in any number system.

A *position* of the figure is one number per input: two coordinates for a free point, one parameter for a sliding
point, in the order of the steps. Everything else follows from them.
"""

from __future__ import annotations

import math
from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .arrays import ARRAYS, Arrays
from .balls import BALLS, Undecided, at_rising_precision, ball, middle
from .crossings import intersection
from .makes import MAKES, on_circle, on_straight
from .numbers import NumberSystem
from .shapes import SHAPE_OF, Circle, Kind, Point, Shape, Straight
from .steps import Step

LEFT_OUT = Point(math.nan, math.nan)


@dataclass(frozen=True)
class Node:
    """A step with its references resolved: indices of the objects it is made from and of its inputs."""

    step: Step
    kind: Kind
    sources: tuple[int, ...]
    reference: int | None
    inputs: slice


class Figure:
    """Steps that passed ``check_steps``, linked by index.

    ``nodes``: one per step. ``index``: id -> number of the step. ``width``: how many inputs a position has.
    """

    def __init__(self, steps: Sequence[Step], kinds: dict[str, Kind]):
        self.nodes: list[Node] = []
        self.index: dict[str, int] = {}
        self.width = 0
        for number, step in enumerate(steps):
            wide = MAKES[step.make].inputs
            self.nodes.append(
                Node(
                    step,
                    kinds[step.id],
                    tuple(self.index[source] for source in step.sources),
                    None if step.reference is None else self.index[step.reference],
                    slice(self.width, self.width + wide),
                )
            )
            self.width += wide
            self.index[step.id] = number

    def evaluate(
        self,
        system: NumberSystem,
        position: Any,
        picks: Mapping[int, int] | None = None,
        only: Container[int] | None = None,
    ) -> list[Shape]:
        """The shapes of all objects in a position (arrays: shape (width, positions)).

        ``picks`` overrides the choice of crossings: number of the step -> 1 or 2. ``only`` leaves out objects
        (their shapes are undefined points); it must hold all that its objects are made from.
        Balls raise Undecided where a sign cannot be proven.
        """
        shapes: list[Shape] = []
        for number, node in enumerate(self.nodes):
            if only is not None and number not in only:
                shapes.append(LEFT_OUT)
                continue
            pick = picks.get(number) if picks else None
            shapes.append(make_object(system, node, shapes, position[node.inputs], self.nodes, pick))
        return shapes

    def evaluate_batch(
        self,
        positions: NDArray[np.float64],
        picks: Mapping[int, int] | None = None,
        only: Container[int] | None = None,
    ) -> list[Shape]:
        """``evaluate`` in arrays. positions: (width, n), one column per position."""
        with Arrays.quiet():
            return self.evaluate(ARRAYS, positions, picks, only)

    def ancestors(self, numbers: Iterable[int]) -> set[int]:
        """The given objects and all that they are made from."""
        found: set[int] = set()
        waiting = list(numbers)
        while waiting:
            number = waiting.pop()
            if number not in found:
                found.add(number)
                node = self.nodes[number]
                waiting += node.sources
                if node.reference is not None:
                    waiting.append(node.reference)
        return found

    def drawn(self) -> tuple[NDArray[np.float64], list[Shape]]:
        """The position as drawn, and its shapes as floats, each rounded from balls.

        A sliding point's place is taken to the nearest place on its curve. An object whose existence cannot be
        decided counts as undefined here.
        """

        def compute() -> tuple[NDArray[np.float64], list[Shape]]:
            position = np.zeros(self.width)
            shapes: list[Shape] = []
            rounded: list[Shape] = []
            for node in self.nodes:
                if node.step.at is not None and node.inputs.stop > node.inputs.start:
                    position[node.inputs] = self.place(node, rounded)
                own = [ball(value) for value in position[node.inputs]]
                try:
                    shapes.append(make_object(BALLS, node, shapes, own, self.nodes))
                except Undecided:
                    shapes.append(undefined(node.kind))
                rounded.append(as_floats(shapes[-1]))
            return position, rounded

        return at_rising_precision(compute)

    def place(self, node: Node, shapes: Sequence[Shape]) -> Sequence[float]:
        """The inputs of a point put at ``at``: its coordinates, or the parameter of the nearest place."""
        assert node.step.at is not None
        x, y = node.step.at
        if node.step.make == "free_point":
            return (x, y)
        parent = shapes[node.sources[0]]
        if not is_defined(parent):
            return (0.0,)
        if isinstance(parent, Circle):
            return (math.atan2(y - parent.y, x - parent.x),)
        assert isinstance(parent, Straight)
        way = parent.dx**2 + parent.dy**2
        t = ((x - parent.x) * parent.dx + (y - parent.y) * parent.dy) / way
        return (float(clamp(self.nodes[node.sources[0]].kind, t)),)


def make_object(
    system: NumberSystem,
    node: Node,
    shapes: Sequence[Shape],
    own: Sequence[Any],
    nodes: Sequence[Node],
    pick: int | None = None,
) -> Any:
    """The shape that one step makes from those before it and its own inputs."""
    step = node.step
    sources = [shapes[source] for source in node.sources]
    if step.make == "free_point":
        return Point(own[0], own[1])
    if step.make == "point_on":
        curve = sources[0]
        if isinstance(curve, Circle):
            return on_circle(system, curve, own[0])
        assert isinstance(curve, Straight)
        return on_straight(system, curve, own[0])
    if step.make == "intersection":
        a, b = sources
        a_kind, b_kind = (nodes[source].kind for source in node.sources)
        assert not isinstance(a, Point) and not isinstance(b, Point)
        if pick or node.reference is None:
            return intersection(system, a, a_kind, b, b_kind, "pick", pick or step.pick)
        reference = shapes[node.reference]
        assert isinstance(reference, Point)
        return intersection(system, a, a_kind, b, b_kind, step.choice, reference=reference)
    compute = MAKES[step.make].compute
    assert compute is not None
    return compute(system, *sources)


def undefined(kind: Kind) -> Shape:
    """A shape of the kind with undefined coordinates."""
    shape = SHAPE_OF[kind]
    return shape(*[ball(math.nan)] * len(shape._fields))


def as_floats(shape: Shape) -> Any:
    """A shape of balls as a shape of floats; undefined whole if any part is."""
    values = [middle(value) if value.is_finite() else math.nan for value in shape]
    if any(math.isnan(value) for value in values):
        values = [math.nan] * len(values)
    return type(shape)(*values)


def is_defined(shape: Shape) -> Any:
    """Whether all coordinates are defined: a bool, or an array of bools for a batch."""
    total: Any = sum(shape)
    return np.isfinite(total)


def clamp(kind: Kind, t: Any) -> Any:
    """A parameter kept on its curve: 0..1 on a segment, 0 or more on a ray."""
    if kind is Kind.SEGMENT:
        return np.clip(t, 0.0, 1.0)
    return np.maximum(t, 0.0) if kind is Kind.RAY else t
