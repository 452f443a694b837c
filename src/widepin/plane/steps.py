"""A step, and what makes a list of steps well formed."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from .errors import CoreError
from .intersections import CHOICES, Choice
from .makes import MAKES, Make
from .rules import Broken, StepRule, broken
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
    choice: Choice = Choice.PICK
    pick: int = 1
    reference: str | None = None

    @property
    def parents(self) -> tuple[str, ...]:
        """Everything this step is made from, the point that an intersection refers to included."""
        return self.sources if self.reference is None else (*self.sources, self.reference)

    def renamed(self, names: Mapping[str, str]) -> Step:
        """The step with other ids, for itself and for what it is made from; what is not named keeps its id."""
        return replace(
            self,
            id=names.get(self.id, self.id),
            sources=tuple(names.get(source, source) for source in self.sources),
            reference=self.reference and names.get(self.reference, self.reference),
        )


class IllFormed(CoreError):
    """A step breaks a rule of the format.

    ``index``: which step, from 0. ``field``: the part of it, as in the JSON document (``from[1]``).
    """

    def __init__(self, index: int, field: str, broken: Broken, step_id: str | None = None):
        super().__init__(f"steps[{index}].{field}: {broken}")
        self.index = index
        self.field = field
        self.broken = broken
        self.step_id = step_id


def check_steps(steps: Sequence[Step], known: Mapping[str, Kind] | None = None) -> dict[str, Kind]:
    """The kind of every object, those of ``known`` (made before) included.

    Raises IllFormed for the first step that breaks a rule.
    """
    kinds = dict(known or {})
    if len(steps) > MAX_STEPS:
        raise IllFormed(MAX_STEPS, "id", broken(StepRule.TOO_MANY_STEPS, count=len(steps), most=MAX_STEPS))
    for index, step in enumerate(steps):
        try:
            kinds[step.id] = check_step(step, kinds)
        except IllFormed as wrong:
            raise IllFormed(index, wrong.field, wrong.broken, step.id) from None
    return kinds


def check_step(step: Step, kinds: Mapping[str, Kind]) -> Kind:
    """The kind of the object that a step makes from objects of the given kinds. Raises IllFormed (index 0)."""
    if not ID.fullmatch(step.id):
        raise IllFormed(0, "id", broken(StepRule.NO_ID, id=step.id))
    if step.id in kinds:
        raise IllFormed(0, "id", broken(StepRule.ID_TAKEN, id=step.id))
    make = MAKES.get(step.make)
    if make is None:
        raise IllFormed(0, "make", broken(StepRule.NO_MAKE, make=step.make, makes=tuple(MAKES)))
    check_sources(step, make, kinds)
    if make.inputs:
        check_place(step)
    if step.make == "intersection":
        check_choice(step, kinds)
    return make.gives


def check_sources(step: Step, make: Make, kinds: Mapping[str, Kind]) -> None:
    """That ``from`` names the right number of earlier objects of the right kinds."""
    if len(step.sources) != len(make.sources):
        count = len(step.sources)
        raise IllFormed(0, "from", broken(StepRule.HOW_MANY_SOURCES, make=step.make, roles=make.sources, count=count))
    for index, (source, role) in enumerate(zip(step.sources, make.sources, strict=True)):
        if source not in kinds:
            raise IllFormed(0, f"from[{index}]", broken(StepRule.SOURCE_NOT_BEFORE, source=source))
        if kinds[source] not in role:
            wrong = broken(StepRule.KIND_OF_SOURCE, source=source, kind=kinds[source], role=role)
            raise IllFormed(0, f"from[{index}]", wrong)
    if step.make == "intersection" and step.sources[0] == step.sources[1]:
        raise IllFormed(0, "from[1]", broken(StepRule.MEETS_ITSELF, source=step.sources[0]))


def check_place(step: Step) -> None:
    """That a point put by hand says where it lies."""
    if step.at is None:
        raise IllFormed(0, "at", broken(StepRule.NO_PLACE, make=step.make))
    for axis, value in enumerate(step.at):
        if not math.isfinite(value) or abs(value) > FARTHEST:
            raise IllFormed(0, f"at[{axis}]", broken(StepRule.TOO_FAR, value=float(value), most=round(FARTHEST)))


def check_choice(step: Step, kinds: Mapping[str, Kind]) -> None:
    """That the choice of an intersection is one there is, and refers to an earlier point."""
    if step.choice not in CHOICES:
        raise IllFormed(0, step.choice, broken(StepRule.NO_CHOICE, choices=CHOICES))
    if step.choice == Choice.PICK:
        if step.pick not in (1, 2):
            raise IllFormed(0, "pick", broken(StepRule.PICK, pick=step.pick))
        return
    reference = step.reference or ""
    if reference not in kinds:
        raise IllFormed(0, step.choice, broken(StepRule.REFERENCE_NOT_BEFORE, reference=reference))
    if kinds[reference] is not Kind.POINT:
        raise IllFormed(0, step.choice, broken(StepRule.REFERENCE_NO_POINT, reference=reference, kind=kinds[reference]))
    if step.choice == Choice.OTHER_THAN and all(kinds[source] in LINES for source in step.sources):
        raise IllFormed(0, "other_than", broken(StepRule.MEET_ONCE))
