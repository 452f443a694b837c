"""A step, and what makes a list of steps well formed."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .errors import CoreError
from .intersections import CHOICES
from .makes import MAKES, Make
from .shapes import LINES, Kind

MAX_STEPS = 300
FARTHEST = 1e4
"""Largest coordinate, in centimetres."""

ID = re.compile(r"[A-Za-z][A-Za-z0-9_']{0,23}")


@dataclass(frozen=True)
class Step:
    """One step of a construction; makes the object ``id``.

    ``at``: centimetres, for free and sliding points. ``choice`` and ``pick`` or ``reference``: which intersection.
    """

    id: str
    make: str
    sources: tuple[str, ...] = ()
    at: tuple[float, float] | None = None
    choice: str = "pick"
    pick: int = 1
    reference: str | None = None

    @property
    def parents(self) -> tuple[str, ...]:
        """Everything this step is made from, the point that an intersection refers to included."""
        return self.sources if self.reference is None else (*self.sources, self.reference)


class IllFormed(CoreError):
    """A step breaks a rule of the format.

    ``index``: which step, from 0. ``field``: the part of it, as in the JSON document (``from[1]``).
    ``rule``: what is wrong and what to do, one sentence.
    """

    def __init__(self, index: int, field: str, rule: str, step_id: str | None = None):
        super().__init__(f"steps[{index}].{field}: {rule}")
        self.index = index
        self.field = field
        self.rule = rule
        self.step_id = step_id


def check_steps(steps: Sequence[Step], known: Mapping[str, Kind] | None = None) -> dict[str, Kind]:
    """The kind of every object, those of ``known`` (made before) included.

    Raises IllFormed for the first step that breaks a rule.
    """
    kinds = dict(known or {})
    if len(steps) > MAX_STEPS:
        raise IllFormed(MAX_STEPS, "id", f"{len(steps)} steps are too many; keep a construction to {MAX_STEPS}")
    for index, step in enumerate(steps):
        try:
            kinds[step.id] = check_step(step, kinds)
        except IllFormed as wrong:
            raise IllFormed(index, wrong.field, wrong.rule, step.id) from None
    return kinds


def check_step(step: Step, kinds: Mapping[str, Kind]) -> Kind:
    """The kind of the object that a step makes from objects of the given kinds. Raises IllFormed (index 0)."""
    if not ID.fullmatch(step.id):
        raise IllFormed(0, "id", f"{step.id[:30]!r} is no id; use a letter, then letters, digits, _ or ', 24 at most")
    if step.id in kinds:
        raise IllFormed(0, "id", f"{step.id} is already the id of an earlier object; choose another")
    make = MAKES.get(step.make)
    if make is None:
        raise IllFormed(0, "make", f"{step.make[:30]!r} is no make; use one of {', '.join(MAKES)}")
    check_sources(step, make, kinds)
    if make.inputs:
        check_place(step)
    if step.make == "intersection":
        check_choice(step, kinds)
    return make.gives


def check_sources(step: Step, make: Make, kinds: Mapping[str, Kind]) -> None:
    """That ``from`` names the right number of earlier objects of the right kinds."""
    if len(step.sources) != len(make.sources):
        wanted = ", ".join(describe(role) for role in make.sources) or "nothing"
        raise IllFormed(0, "from", f"{step.make} is made from {wanted}; {len(step.sources)} ids are given")
    for place, (source, role) in enumerate(zip(step.sources, make.sources, strict=True)):
        if source not in kinds:
            raise IllFormed(
                0, f"from[{place}]", f"{source[:30]} is not made before; name an object from an earlier step"
            )
        if kinds[source] not in role:
            raise IllFormed(0, f"from[{place}]", f"{source} is a {kinds[source]}, but {describe(role)} is needed here")
    if step.make == "intersection" and step.sources[0] == step.sources[1]:
        raise IllFormed(0, "from[1]", f"{step.sources[0]} cannot meet itself; name two different curves")


def check_place(step: Step) -> None:
    """That a point put by hand says where it lies."""
    if step.at is None:
        raise IllFormed(0, "at", f"{step.make} needs its place, at: [x, y] in centimetres")
    for axis, value in enumerate(step.at):
        if not math.isfinite(value) or abs(value) > FARTHEST:
            raise IllFormed(
                0, f"at[{axis}]", f"{value:g} is not within {FARTHEST:.0f} cm of the origin; move the point"
            )


def check_choice(step: Step, kinds: Mapping[str, Kind]) -> None:
    """That the choice of an intersection is one there is, and refers to an earlier point."""
    if step.choice not in CHOICES:
        raise IllFormed(0, step.choice, f"an intersection is chosen by one of {', '.join(CHOICES)}")
    if step.choice == "pick":
        if step.pick not in (1, 2):
            raise IllFormed(0, "pick", f"{step.pick} is no intersection; pick 1 or 2")
        return
    reference = step.reference or ""
    if reference not in kinds:
        raise IllFormed(0, step.choice, f"{reference[:30]} is not made before; name an earlier point")
    if kinds[reference] is not Kind.POINT:
        raise IllFormed(0, step.choice, f"{reference} is a {kinds[reference]}; name a point")
    if step.choice == "other_than" and all(kinds[source] in LINES for source in step.sources):
        raise IllFormed(0, "other_than", "two lines meet only once; leave the choice out")


def describe(role: frozenset[Kind]) -> str:
    """A role in words: a point, a line, a curve."""
    if role == {Kind.POINT}:
        return "a point"
    return "a line" if role == LINES else "a curve"
