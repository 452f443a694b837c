"""The variants of each make, and the tape of each.

A make has one variant, but for sliding points and intersections: they are computed differently for different kinds of
curve, and intersections for each way to say which one is meant. Every variant is recorded on a tape once; ``compiling``
turns the tape into functions for arrays and balls, and the tool book carries it to the browser.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache
from itertools import product
from typing import NamedTuple

from .intersections import CHOICES, Choice, intersection
from .makes import MAKES, on_circle, on_line
from .numbers import N, NumberSystem
from .shapes import LINES, SHAPE_OF, Circle, Kind, Line, Point, Shape
from .tape import Recording, Tape


class Variant(NamedTuple):
    """A make from objects of these kinds; for intersections with the choice, and 1 or 2 for a ``pick``."""

    make: str
    kinds: tuple[Kind, ...]
    choice: Choice = Choice.PICK
    pick: int = 1

    @property
    def with_reference(self) -> bool:
        """Whether the choice refers to a point."""
        return self.choice != "pick"

    @property
    def key(self) -> str:
        """Its key in the tool book. Variants of one key are computed alike.

        >>> Variant("intersection", (Kind.SEGMENT, Kind.CIRCLE), "pick", 2).key
        'intersection segment circle pick 2'
        """
        if self.make == "point_on":
            return f"point_on {'circle' if self.kinds[0] is Kind.CIRCLE else 'line'}"
        if self.make != "intersection":
            return self.make
        first, second = self.kinds
        if first in LINES and second in LINES:
            return f"intersection {first} {second}"
        return f"intersection {first} {second} {self.choice}{'' if self.with_reference else f' {self.pick}'}"


def made(system: NumberSystem[N], variant: Variant, parents: Sequence[Shape[N]], own: Sequence[N]) -> Shape[N]:
    """The shape that a step of this variant makes.

    ``parents``: the shapes in ``from``, then that of the point which an intersection refers to. ``own``: the inputs
    that a position gives it.
    """
    if variant.make == "free_point":
        return Point(own[0], own[1])
    if variant.make == "point_on":
        curve = parents[0]
        if isinstance(curve, Circle):
            return on_circle(system, curve, own[0])
        assert isinstance(curve, Line)
        return on_line(system, curve, own[0])
    if variant.make == "intersection":
        a, b, *reference = parents
        assert not isinstance(a, Point) and not isinstance(b, Point)
        return intersection(system, a, variant.kinds[0], b, variant.kinds[1], variant.choice, variant.pick, *reference)  # type: ignore[arg-type]
    compute = MAKES[variant.make].compute
    assert compute is not None
    shape: Shape[N] = compute(system, *parents)
    return shape


def record(variant: Variant) -> Recording:
    """The tape of a variant. Its inputs: the coordinates of the parents, then the step's own inputs."""
    kinds = [*variant.kinds, Kind.POINT] if variant.with_reference else list(variant.kinds)
    own = MAKES[variant.make].inputs
    tape = Tape(sum(len(SHAPE_OF[kind]._fields) for kind in kinds) + own)
    inputs = iter([tape.input(index) for index in range(tape.inputs)])
    parents = [SHAPE_OF[kind](*(next(inputs) for _ in SHAPE_OF[kind]._fields)) for kind in kinds]
    return tape.recording(made(tape, variant, parents, list(inputs)))


def variants() -> Iterator[Variant]:
    """Every variant that there is."""
    for make in MAKES.values():
        for kinds in product(*(sorted(role, key=list(Kind).index) for role in make.sources)):
            if make.name != "intersection" or (kinds[0] in LINES and kinds[1] in LINES):
                yield Variant(make.name, kinds)
                continue
            for choice in CHOICES:
                for pick in (1, 2) if choice == Choice.PICK else (1,):
                    yield Variant(make.name, kinds, choice, pick)


@cache
def tapes() -> dict[str, Recording]:
    """All tapes by key."""
    return {variant.key: record(variant) for variant in variants()}
