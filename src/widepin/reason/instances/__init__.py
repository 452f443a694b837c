"""Instances of rules that the figure proposes: what holds in every position, and may follow from what is known."""

from __future__ import annotations

from collections.abc import Iterator

from ..knowledge import Knowledge
from .angles import angles
from .areas import areas
from .bisectors import at_right_angles, bisectors, drawn_bisectors, halves
from .circles import circles, tangents
from .hexagons import hexagons
from .instance import Instance, Rows
from .lines import altitudes, around_points, equal_strips, midlines, on_lines, parallels, trapezium_midlines, trapeziums
from .ratios import ratios
from .sizes import sizes
from .theorems import theorems
from .triangles import Triangles

__all__ = ["Proposals", "Rows"]


class Proposals:
    """The instances for a figure and its triangles; new ones come as more is known."""

    def __init__(self, known: Knowledge, rows: Rows):
        self.known = known
        self.triangles = Triangles(known, rows)

    def __iter__(self) -> Iterator[Instance]:
        known = self.known
        yield from halves(known)
        yield from hexagons(known)
        yield from bisectors(known)
        yield from drawn_bisectors(known)
        yield from at_right_angles(known)
        yield from self.triangles.isosceles()
        yield from self.triangles.congruences()
        yield from parallels(known)
        yield from on_lines(known)
        yield from altitudes(known)
        yield from midlines(known)
        yield from trapezium_midlines(known)
        yield from equal_strips(known)
        yield from trapeziums(known)
        yield from circles(known)
        yield from around_points(known)
        yield from angles(known)
        yield from sizes(known)
        yield from tangents(known)
        yield from ratios(known)
        yield from theorems(known)
        yield from areas(known)
