"""A zoo of named configurations, and random constructions; shared by the tests of plane, judge and browser."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from typing import Any

from widepin.documents.formats.construction import read_steps
from widepin.plane.figure import Figure
from widepin.plane.makes import MAKES, Make
from widepin.plane.shapes import CURVES, Kind
from widepin.plane.steps import Step, check_steps
from widepin.school.tasks.library.notation import steps as from_lines


def steps(lines: str) -> tuple[Step, ...]:
    """Steps written a line each, as in the demo's tasks."""
    return read_steps(from_lines(lines))


def figure(lines: str) -> Figure:
    """A figure from such lines, checked."""
    return linked(from_lines(lines))


def linked(document: list[dict[str, Any]]) -> Figure:
    """A figure from its steps as JSON, checked."""
    made = read_steps(document)
    check_steps(made)
    return Figure(made)


JUMPING_GABLE = [
    # the bisector of the angle in "Splitting a gable", with an intersection F that jumps when the rafters open wide
    {"id": "c", "make": "circle", "from": ["A", "B"]},
    {"id": "D", "make": "intersection", "from": ["q", "c"], "pick": 2},
    {"id": "d", "make": "circle", "from": ["B", "D"]},
    {"id": "e", "make": "circle", "from": ["D", "B"]},
    {"id": "F", "make": "intersection", "from": ["d", "e"], "pick": 2},
    {"id": "m", "make": "ray", "from": ["A", "F"]},
]


def alike(coordinates: Sequence[float], others: Sequence[float]) -> bool:
    """Whether two shapes are equal up to the rounding of doubles, or both undefined."""
    if not math.isfinite(sum(coordinates)) or not math.isfinite(sum(others)):
        return not math.isfinite(sum(coordinates)) and not math.isfinite(sum(others))
    size = max(1.0, *(abs(x) for x in others))
    return all(abs(x - y) <= 1e-6 * size for x, y in zip(coordinates, others, strict=True))


INTERSECTIONS: dict[str, tuple[str, bool]] = {
    # name: (lines whose last step is an intersection X, whether X exists)
    "lines that cross": (
        "A free_point at=0,0\nB free_point at=4,4\nC free_point at=0,4\nD free_point at=4,0\n"
        "a line A B\nb line C D\nX intersection a b",
        True,
    ),
    "parallel lines": (
        "A free_point at=0,0\nB free_point at=4,1\nC free_point at=0,4\na line A B\nb parallel a C\nX intersection a b",
        False,
    ),
    "one line twice": ("A free_point at=0,0\nB free_point at=4,1\na line A B\nb line B A\nX intersection a b", False),
    "intersection beyond a segment": (
        "A free_point at=0,0\nB free_point at=1,1\nC free_point at=0,4\nD free_point at=4,0\n"
        "a segment A B\nb line C D\nX intersection a b",
        False,
    ),
    "intersection behind a ray": (
        "A free_point at=3,3\nB free_point at=4,4\nC free_point at=0,4\nD free_point at=4,0\n"
        "a ray A B\nb line C D\nX intersection a b",
        False,
    ),
    "intersection at a segment's end": (
        "A free_point at=0,0\nB free_point at=2,2\nC free_point at=4,0\na segment A B\nb line C B\nX intersection a b",
        True,
    ),
    "tangent line": (
        "A free_point at=0,0\nB free_point at=3,1\nc circle A B\nr line A B\nt perpendicular r B\nX intersection t c",
        True,
    ),
    "line past a circle": (
        "A free_point at=0,0\nB free_point at=1,0\nC free_point at=3,0\nc circle A B\nr line A B\n"
        "t perpendicular r C\nX intersection t c",
        False,
    ),
    "circles that cross": (
        "A free_point at=0,0\nB free_point at=3,1\nc circle A B\nd circle B A\nX intersection c d",
        True,
    ),
    "circles that touch": (
        "A free_point at=0,0\nB free_point at=4,2\nM midpoint A B\nc circle A M\nd circle B M\nX intersection c d",
        True,
    ),
    "circles apart": (
        "A free_point at=0,0\nB free_point at=1,0\nC free_point at=9,0\nD free_point at=8,0\nc circle A B\n"
        "d circle C D\nX intersection c d",
        False,
    ),
    "concentric circles": (
        "A free_point at=0,0\nB free_point at=1,0\nC free_point at=2,0\nc circle A B\nd circle A C\nX intersection c d",
        False,
    ),
    "one circle twice": (
        "A free_point at=0,0\nB free_point at=1,0\nc circle A B\nd circle_radius A A B\nX intersection c d",
        False,
    ),
    "the other common point": (
        "A free_point at=0,0\nB free_point at=5,1\nP free_point at=2,3\nc circle A P\nd circle B P\n"
        "X intersection c d other_than=P",
        True,
    ),
    "nearest of a tie": (
        "A free_point at=0,0\nB free_point at=4,0\nc circle A B\nd circle B A\nX intersection c d nearest_to=A",
        False,
    ),
    "farthest": (
        "A free_point at=0,0\nB free_point at=4,0\nQ free_point at=1,3\nc circle A B\nd circle B A\n"
        "X intersection c d farthest_from=Q",
        True,
    ),
}

UNDEFINED: dict[str, str] = {
    # lines whose last step makes something that cannot exist
    "line through one point": "A free_point at=1,1\nB midpoint A A\nx line A B",
    "circle of radius 0": "A free_point at=1,1\nB midpoint A A\nx circle A B",
    "circle through points in a row": "A free_point at=0,0\nB free_point at=4,2\nC midpoint A B\nx circle_through A B C",
    "bisector of a straight angle": "A free_point at=0,0\nB free_point at=4,2\nC midpoint A B\nx angle_bisector A C B",
    "made from what is gone": "A free_point at=1,1\nB midpoint A A\nl line A B\nx perpendicular l A",
}


def random_construction(seed: int, length: int = 14) -> list[dict[str, Any]]:
    """A random well-formed construction as JSON, of every make and every choice of intersection but other_than."""
    rng = random.Random(seed)
    made: list[dict[str, Any]] = []
    kinds: dict[str, Kind] = {}
    for number in range(length):
        makes = list(MAKES.values()) if number >= 4 else [MAKES["free_point"]]
        made.append(random_step(rng, rng.choice(makes) if number >= 4 else makes[0], kinds, str(number)))
    assert set(kinds.values()) <= CURVES | {Kind.POINT}
    return made


def random_continuation(rng: random.Random, before: Sequence[Step], length: int, name: str) -> tuple[Step, ...]:
    """Random steps after others, of every make; their names are ``name``, a letter for their kind and a number."""
    kinds = {step.id: MAKES[step.make].gives for step in before}
    makes = list(MAKES.values())
    return read_steps([random_step(rng, rng.choice(makes), kinds, str(n), name) for n in range(length)])


def random_step(rng: random.Random, make: Make, kinds: dict[str, Kind], number: str, name: str = "") -> dict[str, Any]:
    """A random step as JSON made from some of the objects, whose kinds it adds to; a free point where it cannot be."""
    sources: list[str] = []
    for role in make.sources:
        fitting = [id_ for id_, kind in kinds.items() if kind in role and id_ not in sources]
        if not fitting:
            break
        sources.append(rng.choice(fitting))
    if len(sources) < len(make.sources):
        make, sources = MAKES["free_point"], []
    step: dict[str, Any] = {"id": f"{name}{'P' if make.gives is Kind.POINT else 'c'}{number}", "make": make.name}
    if sources:
        step["from"] = sources
    if make.inputs:
        step["at"] = [round(rng.uniform(-5, 5), 3), round(rng.uniform(-5, 5), 3)]
    if make.name == "intersection" and any(kinds[source] is Kind.CIRCLE for source in sources):
        choice = rng.choice(("pick", "nearest_to", "farthest_from"))
        points = [id_ for id_, kind in kinds.items() if kind is Kind.POINT]
        step[choice] = rng.choice((1, 2)) if choice == "pick" else rng.choice(points)
    kinds[step["id"]] = make.gives
    return step
