"""A list of steps, linked once and ready to be evaluated in any number system.

A *position* of the figure is one number per input: two coordinates for a free point, one parameter for a sliding
point, in the order of the steps. Everything else follows from them.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Container, Iterable, Mapping, Sequence
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from .arrays import ARRAYS, Arrays
from .balls import BALLS, Ball, Undecided, at_rising_precision, ball, middle
from .compiling import Compiled, compiled
from .makes import MAKES
from .numbers import NumberSystem
from .shapes import SHAPE_OF, Circle, Kind, Line, Point, Shape, mapped
from .steps import Step
from .variants import Variant

LEFT_OUT = Point(math.nan, math.nan)

EVERYTHING = slice(None)


class Link(NamedTuple):
    """A way to compute an object: the functions of its variant, what they take, and the inputs of its own, if any."""

    functions: Compiled
    parents: tuple[int, ...]
    inputs: slice | None = None

    def plan(self, system: NumberSystem[Any]) -> tuple[Callable[..., Any], tuple[int, ...], slice | None]:
        """The function that makes the object, the parents it takes, and the inputs of its own."""
        return self.functions.in_balls if system is BALLS else self.functions.in_arrays, self.parents, self.inputs

    def made(self, system: NumberSystem[Any], shapes: Sequence[Shape[Any]], position: Any) -> Any:
        """The shape of the object, from those before it and a position."""
        make, parents, inputs = self.plan(system)
        return make(shapes, parents, position[inputs] if inputs else ())


class Mixed(NamedTuple):
    """Several ways to compute one object in a batch: the usual one, and others each in the positions of a mask."""

    usual: Link
    others: Sequence[tuple[NDArray[np.bool_], Link]]

    def plan(self, system: NumberSystem[Any]) -> tuple[Callable[..., Any], tuple[int, ...], slice | None]:
        """As for ``Link``. Each way knows its own parents and inputs, so that the whole position is passed on."""
        return lambda shapes, _, position: self.made(system, shapes, position), (), EVERYTHING

    def made(self, system: NumberSystem[Any], shapes: Sequence[Shape[Any]], position: Any) -> Any:
        """The shape of the object, as for ``Link``; only in arrays."""
        shape = self.usual.made(system, shapes, position)
        for mask, link in self.others:
            other = link.made(system, shapes, position)
            shape = type(shape)(*(np.where(mask, new, old) for new, old in zip(other, shape, strict=True)))
        return shape


class Node(NamedTuple):
    """A step with its references resolved: numbers of the objects it is made from, its inputs, and how it is computed.

    ``parents``: everything it is made from, the point that an intersection refers to included.
    """

    step: Step
    kind: Kind
    parents: tuple[int, ...]
    inputs: slice
    link: Link

    @property
    def sources(self) -> tuple[int, ...]:
        """What it is made from, as in ``from``."""
        return self.parents[: len(self.step.sources)]

    @property
    def reference(self) -> int | None:
        """The point that an intersection refers to."""
        return None if self.step.reference is None else self.parents[-1]


class Figure:
    """Steps that passed ``check_steps``, linked by number.

    ``nodes``: one per step. ``index``: id -> number of the step. ``width``: how many inputs a position has.
    """

    def __init__(self, steps: Sequence[Step]):
        self.nodes: list[Node] = []
        self.index: dict[str, int] = {}
        self.width = 0
        for number, step in enumerate(steps):
            make = MAKES[step.make]
            inputs = slice(self.width, self.width + make.inputs)
            link = self.link(step, inputs)
            self.nodes.append(Node(step, make.gives, link.parents, inputs, link))
            self.width += make.inputs
            self.index[step.id] = number

    def link(self, step: Step, inputs: slice | None = None) -> Link:
        """How a step would be computed that is made from objects of this figure."""
        parents = tuple([self.index[parent] for parent in step.parents])
        kinds = tuple([self.nodes[parent].kind for parent in parents[: len(step.sources)]])
        variant = Variant(step.make, kinds, step.choice, step.pick)
        return Link(compiled(variant), parents, inputs if MAKES[step.make].inputs else None)

    def evaluate(
        self,
        system: NumberSystem[Any],
        position: Any,
        swaps: Mapping[int, Link | Mixed] | None = None,
        only: Container[int] | None = None,
    ) -> list[Shape[Any]]:
        """The shapes of all objects in a position (arrays: shape (width, positions)).

        ``swaps``: objects, by number, that are computed in another way. ``only`` leaves out objects (their shapes are
        undefined points); it must hold all that its objects are made from.
        Balls raise Undecided where a sign cannot be proven.
        """
        return self.plan(system, only, swaps)(position)

    def plan(
        self,
        system: NumberSystem[Any],
        only: Container[int] | None = None,
        swaps: Mapping[int, Link | Mixed] | None = None,
    ) -> Callable[[Any], list[Shape[Any]]]:
        """``evaluate`` with everything decided but the position, for many of them."""
        links = [
            (number, node.link if not swaps or number not in swaps else swaps[number])
            for number, node in enumerate(self.nodes)
            if only is None or number in only
        ]
        rows = [(number, *link.plan(system)) for number, link in links]
        count = len(self.nodes)

        def evaluate(position: Any) -> list[Shape[Any]]:
            shapes: list[Shape[Any]] = [LEFT_OUT] * count
            for number, make, parents, inputs in rows:
                shapes[number] = make(shapes, parents, position[inputs] if inputs else ())
            return shapes

        return evaluate

    def evaluate_batch(
        self,
        positions: NDArray[np.float64],
        swaps: Mapping[int, Link | Mixed] | None = None,
        only: Container[int] | None = None,
    ) -> list[Shape[Any]]:
        """``evaluate`` in arrays. positions: (width, n), one column per position."""
        with Arrays.quiet():
            return self.evaluate(ARRAYS, positions, swaps, only)

    def ancestors(self, numbers: Iterable[int]) -> set[int]:
        """The given objects and all that they are made from."""
        found: set[int] = set()
        waiting = list(numbers)
        while waiting:
            number = waiting.pop()
            if number not in found:
                found.add(number)
                waiting += self.nodes[number].parents
        return found

    def drawn(self) -> tuple[NDArray[np.float64], list[Shape[Any]]]:
        """The position as drawn, and its shapes as floats, each rounded from balls.

        A sliding point's place is taken to the nearest place on its curve. An object whose existence cannot be
        decided counts as undefined here.
        """

        def compute() -> tuple[NDArray[np.float64], list[Shape[Any]]]:
            position = np.zeros(self.width)
            own = [ball(0)] * self.width
            shapes: list[Shape[Any]] = []
            rounded: list[Shape[Any]] = []
            for node in self.nodes:
                if node.step.at is not None and node.inputs.stop > node.inputs.start:
                    position[node.inputs] = self.place(node, rounded)
                    own[node.inputs] = map(ball, position[node.inputs])
                try:
                    shapes.append(node.link.made(BALLS, shapes, own))
                except Undecided:
                    shapes.append(undefined(node.kind))
                rounded.append(as_floats(shapes[-1]))
            return position, rounded

        return at_rising_precision(compute)

    def place(self, node: Node, shapes: Sequence[Shape[Any]]) -> Sequence[float]:
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
        assert isinstance(parent, Line)
        way = parent.dx**2 + parent.dy**2
        t = ((x - parent.x) * parent.dx + (y - parent.y) * parent.dy) / way
        return (float(clamp(self.nodes[node.sources[0]].kind, t)),)


class Evaluation:
    """A figure in a batch of positions, in arrays. An object is computed when it is first asked for.

    ``positions``: (width, n), one column per position.
    """

    def __init__(self, figure: Figure, positions: NDArray[np.float64]):
        self.figure = figure
        self.positions = positions
        self._shapes: list[Shape[Any]] = [LEFT_OUT] * len(figure.nodes)
        self._made: set[int] = set()

    def shapes(self, numbers: Iterable[int]) -> list[Shape[Any]]:
        """The shapes of all objects, of which those with these numbers are computed; the others may be left out.

        ``numbers`` must hold all that its objects are made from.
        """
        missing = sorted(set(numbers) - self._made)
        with Arrays.quiet():
            for number in missing:
                self._shapes[number] = self.figure.nodes[number].link.made(ARRAYS, self._shapes, self.positions)
        self._made.update(missing)
        return self._shapes


def undefined(kind: Kind) -> Shape[Any]:
    """A shape of the kind with undefined coordinates."""
    shape = SHAPE_OF[kind]
    return shape(*[ball(math.nan)] * len(shape._fields))


def as_floats(shape: Shape[Ball]) -> Shape[float]:
    """A shape of balls as a shape of floats; undefined whole if any part is."""
    if not all(value.is_finite() for value in shape):
        return mapped(shape, lambda _: math.nan)
    return mapped(shape, middle)


def is_defined(shape: Shape[Any]) -> Any:
    """Whether all coordinates are defined: a bool, or an array of bools for a batch."""
    total: Any = sum(shape)
    return np.isfinite(total)


def clamp(kind: Kind, t: Any) -> Any:
    """A parameter kept on its curve: 0..1 on a segment, 0 or more on a ray."""
    if kind is Kind.SEGMENT:
        return np.clip(t, 0.0, 1.0)
    return np.maximum(t, 0.0) if kind is Kind.RAY else t
