"""How ruler and compass do what a tool does in one move: the constructions behind the makes that have a price.

Each is written as steps, a line each, ``name make sources... choice``; 0, 1 and 2 are what the tool is used on, and
the last step gives what the tool gives. ``start`` and ``end`` of a line are any two points of it; here those at its
parameters 0 and 1. Where an intersection has to lie on the side to which an angle turns, a construction begins with
that: ``left 2 3 4``. Of several the first is taken whose steps all exist in the position at hand.
"""

from __future__ import annotations

from dataclasses import dataclass

from .makes import MAKES, MakeName
from .strokes import Price


@dataclass(frozen=True)
class ElementaryStep:
    """A step of such a construction. ``parameter``: of a point on a line; ``choice``: how an intersection is chosen,
    and which number or name.
    """

    name: str
    make: MakeName
    sources: tuple[str, ...]
    parameter: float | None = None
    choice: tuple[str, str | int] | None = None


@dataclass(frozen=True)
class Construction:
    """Steps, the last of which gives what the tool gives.

    ``turn``: three of what the tool is used on, between which the way has to turn left (1) or right (-1); None where
    either will do.
    """

    steps: tuple[ElementaryStep, ...]
    turn: tuple[tuple[str, str, str], int] | None = None


M = MakeName

ENDS = "start point_on 0 0\nend point_on 0 1"
EQUAL_CIRCLES = "c circle 0 1\nd circle 1 0\np intersection c d pick=1\nq intersection c d pick=2"

WRITTEN: dict[MakeName, tuple[str, ...]] = {
    M.MIDPOINT: (f"{EQUAL_CIRCLES}\nl line p q\ns line 0 1\nm intersection l s",),
    M.PERPENDICULAR_BISECTOR: (f"{EQUAL_CIRCLES}\nl line p q",),
    M.ANGLE_BISECTOR: (
        "c circle 1 0\nr ray 1 2\np intersection r c pick=2\nd circle 0 1\ne circle p 1\n"
        "q intersection d e other_than=1\nl ray 1 q",
    ),
    M.PERPENDICULAR: (
        f"{ENDS}\nc circle start 1\nd circle end 1\np intersection c d other_than=1\nl line 1 p",
        # For a point on the line: a circle about it, and equal circles where that cuts the line (I.11).
        *(
            f"{ENDS}\nh line start end\nc circle 1 {end}\np intersection h c other_than={end}\nd circle {end} p\n"
            f"e circle p {end}\nq intersection d e pick=1\nl line 1 q"
            for end in ("start", "end")
        ),
    ),
    M.PARALLEL: (
        f"{ENDS}\nc circle_radius 1 start end\nd circle_radius end start 1\n"
        "p intersection c d farthest_from=start\nl line 1 p",
    ),
    M.CIRCLE_THROUGH: (
        f"{EQUAL_CIRCLES}\nl line p q\ne circle 1 2\nf circle 2 1\nr intersection e f pick=1\n"
        "s intersection e f pick=2\nh line r s\no intersection l h\nk circle o 0",
    ),
    M.REFLECTION: (
        "start point_on 1 0\nend point_on 1 1\nc circle start 0\nd circle end 0\np intersection c d other_than=0",
    ),
    M.TRANSLATION: ("c circle_radius 0 1 2\nd circle_radius 2 1 0\np intersection c d farthest_from=1",),
    M.ROTATION: tuple(
        f"{side} 2 3 4\nr ray 3 2\ns ray 3 4\nc circle_radius 3 1 0\np intersection r c pick=2\n"
        f"q intersection s c pick=2\nd circle 1 0\ne circle_radius 0 p q\nx intersection d e pick={pick}"
        for side, pick in (("left", 1), ("right", 2))
    ),
}

TURNS = {"left": 1, "right": -1}


def read(line: str) -> ElementaryStep:
    """A step as it is written above.

    >>> read("p intersection c d pick=1").choice
    ('pick', 1)
    """
    name, make, *rest = line.split()
    choice = None
    if rest and "=" in rest[-1]:
        how, which = rest.pop().split("=")
        choice = (how, int(which) if how == "pick" else which)
    parameter = float(rest.pop()) if make == M.POINT_ON else None
    return ElementaryStep(name, MakeName(make), tuple(rest), parameter, choice)


def construction(written: str) -> Construction:
    """A construction as it is written above.

    >>> construction("left 2 3 4\\nr ray 3 2").turn
    (('2', '3', '4'), 1)
    """
    first, *lines = written.splitlines()
    side, *of = first.split()
    if side not in TURNS:
        return Construction(tuple(map(read, (first, *lines))))
    a, vertex, b = of
    return Construction(tuple(map(read, lines)), ((a, vertex, b), TURNS[side]))


ELEMENTARY: dict[MakeName, tuple[Construction, ...]] = {
    make: tuple(map(construction, variants)) for make, variants in WRITTEN.items()
}
"""For every make with a price its constructions, the one to be preferred first."""

if missing := {name for name, row in MAKES.items() if isinstance(row.price, Price)} ^ set(ELEMENTARY):
    raise LookupError(f"ELEMENTARY: makes with a price and constructions do not fit: {', '.join(sorted(missing))}")
