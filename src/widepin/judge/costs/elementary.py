"""What a construction costs with compass and ruler alone: elementary moves, and Lemoine's measures.

*Elementary moves* are lines and circles drawn; every other tool is priced at its shortest construction with these (a
compass keeps its opening). *Geometrography* counts what the hands do (``plane/strokes.py``). An opening that the
compass still has costs nothing, and neither does a point that may lie anywhere, when a class tool is first put there.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import assert_never

from ...plane.figure import Figure, Node
from ...plane.makes import MAKES, By
from ...plane.strokes import Price, Strokes, strokes

Opening = tuple[int, int]
SameOpening = Callable[[Opening, Opening], bool]


@dataclass(frozen=True)
class Costs:
    """What steps cost: moves as the task counts them, elementary moves, and strokes."""

    moves: int
    elementary: int
    strokes: Strokes


def costs(figure: Figure, numbers: Iterable[int], counts: Callable[[str], bool], same_opening: SameOpening) -> Costs:
    """The costs of these steps of a figure, in order.

    ``counts``: whether a make is a move. ``same_opening``: whether two pairs of points are equally far apart in every
    position.
    """
    numbers = list(numbers)
    hands = _Hands(figure, numbers, same_opening)
    moves = elementary = 0
    done = Strokes()
    for number in numbers:
        node = figure.nodes[number]
        moves += counts(node.step.make)
        match MAKES[node.step.make].price:
            case By.RULER:
                elementary += 1
                done += hands.ruled(node)
            case By.COMPASS:
                elementary += 1
                done += hands.compassed(node)
            case Price() as price:
                elementary += price.elementary
                done += price.strokes
                hands.opening = None  # the tool's own circles come in between
            case By.NOTHING:
                pass
            case other:
                assert_never(other)
    return Costs(moves, elementary, done)


class _Hands:
    """The class tools as they are held: the compass's opening, and the points that were aimed at before."""

    def __init__(self, figure: Figure, own: Sequence[int], same_opening: SameOpening):
        self.figure = figure
        self.same_opening = same_opening
        self.opening: Opening | None = None
        self.fresh = {n for n in own if figure.nodes[n].step.make in ("free_point", "point_on")}

    def ruled(self, node: Node) -> Strokes:
        """A line through two points; a fresh one need not be aimed at."""
        return strokes(*("" if self.is_fresh(n) else "R1" for n in node.sources), "R2")

    def compassed(self, node: Node) -> Strokes:
        """A circle about a point, with the way between two points as its opening unless it is set."""
        centre = node.sources[0]
        ends = (centre, node.sources[1]) if node.step.make == "circle" else node.sources[1:]
        taken = ""
        if self.opening is None or not self.same_opening(self.opening, (ends[0], ends[1])):
            # The opening about the centre itself: the needle stands there already.
            taken = " ".join("" if self.is_fresh(n) else "C1" for n in ends if n != centre)
        on_curve = self.figure.nodes[centre].step.make == "point_on"
        needle = ("C2" if on_curve else "") if self.is_fresh(centre) else "C1"
        self.fresh -= set(ends)
        self.opening = (ends[0], ends[1])
        return strokes(taken, needle, "C3")

    def is_fresh(self, number: int) -> bool:
        """Whether a point that was put freely is used for the first time, so that it may lie anywhere."""
        fresh = number in self.fresh
        self.fresh.discard(number)
        return fresh
