"""What hands do with compass and ruler: Lemoine's five operations, and the price of a tool in them.

==  ================================================
R1  put the ruler's edge to a point
R2  draw the line
C1  put a point of the compass to a point
C2  put the compass point anywhere on a line
C3  draw the circle
==  ================================================

Simplicity is the sum of all five, exactitude R1 + C1 + C2.

Source: E. Lemoine, Géométrographie ou art des constructions géométriques (1902).
"""

from __future__ import annotations

from dataclasses import dataclass

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
