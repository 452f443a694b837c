"""What a construction costs with compass and ruler alone: elementary moves, and Lemoine's measures.

*Elementary moves* are lines and circles drawn; every other tool is priced at its shortest construction with these (a
compass keeps its opening). *Geometrography* counts what the hands do:

==  ================================================
R1  put the ruler's edge to a point
R2  draw the line
C1  put a point of the compass to a point
C2  put the compass point anywhere on a line
C3  draw the circle
==  ================================================

Simplicity is the sum of all five, exactitude R1 + C1 + C2. An opening that the compass still has costs nothing, and
neither does a point that may lie anywhere, when an instrument is first put there.

Source: E. Lemoine, Géométrographie ou art des constructions géométriques (1902).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from ..plane.figure import Figure, Node

LINE = "R1 R1 R2"
FREE_CIRCLE = "C1 C3"  # its opening is free, or still set


@dataclass(frozen=True)
class Strokes:
    """How often each of Lemoine's five operations is done."""

    r1: int = 0
    r2: int = 0
    c1: int = 0
    c2: int = 0
    c3: int = 0

    @property
    def simplicity(self) -> int:
        """All operations."""
        return self.r1 + self.r2 + self.c1 + self.c2 + self.c3

    @property
    def exactitude(self) -> int:
        """The operations of aiming: the more there are, the less exact is the drawing."""
        return self.r1 + self.c1 + self.c2

    def __add__(self, other: Strokes) -> Strokes:
        return Strokes(*(a + b for a, b in zip(self.counts, other.counts, strict=True)))

    @property
    def counts(self) -> tuple[int, int, int, int, int]:
        """The five numbers in order."""
        return self.r1, self.r2, self.c1, self.c2, self.c3


def strokes(*names: str) -> Strokes:
    """Strokes from their names.

    >>> strokes("C1 C3", "C1 C3", "R1 R1 R2").simplicity
    7
    """
    done = " ".join(names).split()
    return Strokes(*(done.count(name) for name in ("R1", "R2", "C1", "C2", "C3")))


@dataclass(frozen=True)
class Price:
    """A tool at its shortest construction: how many lines and circles, and at its simplest, which strokes."""

    elementary: int
    strokes: Strokes


PRICES: dict[str, Price] = {
    # Two equal circles about the ends, the line through their crossings (Euclid I.10).
    "perpendicular_bisector": Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, LINE)),
    # The same, and the line through both points, which the first one cuts.
    "midpoint": Price(4, strokes(FREE_CIRCLE, FREE_CIRCLE, LINE, LINE)),
    # A circle about the vertex through the first point; the second leg; equal circles about both of its points on the
    # legs; the ray to where they meet (Euclid I.9, with a rhombus).
    "angle_bisector": Price(5, strokes("C1", FREE_CIRCLE, LINE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
    # Shortest: two circles through the point about points of the straight, and the line through their crossings.
    # Simplest: a free circle about the point, equal circles about where it cuts the straight, the line (Euclid I.12).
    "perpendicular": Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
    # Shortest: a circle about a point of the straight through the point, then the same chord from its other end.
    # Simplest: the rhombus of three equal circles, about the point, about where the first one cuts the straight, and
    # about where the second one does; and the line.
    "parallel": Price(3, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE)),
    # Three equal circles about the points, two bisectors, and the circle about their crossing (Euclid IV.5).
    "circle_through": Price(6, strokes(FREE_CIRCLE, FREE_CIRCLE, FREE_CIRCLE, LINE, LINE, "C1", FREE_CIRCLE)),
}

Way = tuple[int, int]
SameWay = Callable[[Way, Way], bool]

RULER = ("line", "ray", "segment")
COMPASS = ("circle", "circle_radius")


@dataclass(frozen=True)
class Costs:
    """What steps cost: moves as the task counts them, elementary moves, and strokes."""

    moves: int
    elementary: int
    strokes: Strokes


def costs(figure: Figure, numbers: Iterable[int], counts: Callable[[str], bool], same_way: SameWay) -> Costs:
    """The costs of these steps of a figure, in order.

    ``counts``: whether a make is a move. ``same_way``: whether two pairs of points are equally far apart in every
    position.
    """
    numbers = list(numbers)
    hands = _Hands(figure, numbers, same_way)
    moves = elementary = 0
    done = Strokes()
    for number in numbers:
        node = figure.nodes[number]
        moves += counts(node.step.make)
        if node.step.make in RULER:
            elementary += 1
            done += hands.ruled(node)
        elif node.step.make in COMPASS:
            elementary += 1
            done += hands.compassed(node)
        elif node.step.make in PRICES:
            elementary += PRICES[node.step.make].elementary
            done += PRICES[node.step.make].strokes
            hands.opening = None  # the tool's own circles come in between
    return Costs(moves, elementary, done)


class _Hands:
    """The instruments as they are held: the compass's opening, and the points that were aimed at before."""

    def __init__(self, figure: Figure, own: Sequence[int], same_way: SameWay):
        self.figure = figure
        self.same_way = same_way
        self.opening: Way | None = None
        self.fresh = {n for n in own if figure.nodes[n].step.make in ("free_point", "point_on")}

    def ruled(self, node: Node) -> Strokes:
        """A line through two points; a fresh one need not be aimed at."""
        return strokes(*("" if self.is_fresh(n) else "R1" for n in node.sources), "R2")

    def compassed(self, node: Node) -> Strokes:
        """A circle about a point, with the way between two points as its opening unless it is set."""
        centre = node.sources[0]
        way = (centre, node.sources[1]) if node.step.make == "circle" else node.sources[1:]
        taken = ""
        if self.opening is None or not self.same_way(self.opening, (way[0], way[1])):
            # The opening about the centre itself: the needle stands there already.
            taken = " ".join("" if self.is_fresh(n) else "C1" for n in way if n != centre)
        on_curve = self.figure.nodes[centre].step.make == "point_on"
        needle = ("C2" if on_curve else "") if self.is_fresh(centre) else "C1"
        self.fresh -= set(way)
        self.opening = (way[0], way[1])
        return strokes(taken, needle, "C3")

    def is_fresh(self, number: int) -> bool:
        """Whether a point that was put freely is used for the first time, so that it may lie anywhere."""
        fresh = number in self.fresh
        self.fresh.discard(number)
        return fresh
