"""A construction as a class tool: its given objects are asked for anew, and all its steps are made at once.

>>> given = (Step("A", "free_point", at=(0, 0)), Step("B", "free_point", at=(6, 0)), Step("s", "segment", ("A", "B")))
>>> steps = (Step("c", "circle", ("A", "B")), Step("d", "circle", ("B", "A")), Step("C", "intersection", ("c", "d")))
>>> apex = class_tool_geometry(given, steps, ("C",))
>>> [blank.name for blank in apex.takes], apex.moves
(['A', 'B'], 2)
>>> apex.made(("P", "Q"), ("e", "f", "R"))[2].sources
('e', 'f')
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from ...plane.errors import CoreError
from ...plane.makes import MAKES
from ...plane.rules import Broken, broken
from ...plane.shapes import LINES
from ...plane.steps import Step
from ..rules import ClassToolRule
from ..task import Work
from ..verdict import Absent, Break, Report, Why
from .counts import moves_of
from .structure import needed_by


class NotATool(CoreError):
    """A construction that cannot be made a class tool, and the rule that says so."""

    def __init__(self, broken: Broken):
        super().__init__(str(broken))
        self.broken = broken


@dataclass(frozen=True)
class Blank:
    """What a class tool asks for, by its name in the constructions; ``kind`` is point, line or circle."""

    name: str
    kind: str


@dataclass(frozen=True)
class ClassToolGeometry:
    """A construction from ``takes`` to the objects ``gives``; ``moves`` is what its steps cost one by one."""

    takes: tuple[Blank, ...]
    steps: tuple[Step, ...]
    gives: tuple[str, ...]
    moves: int

    def made(self, sources: Sequence[str], ids: Sequence[str]) -> tuple[Step, ...]:
        """Its steps, made from these objects and under these ids; ValueError where there are too many or too few."""
        names = dict(zip((blank.name for blank in self.takes), sources, strict=True))
        names |= dict(zip((step.id for step in self.steps), ids, strict=True))
        return tuple(step.renamed(names) for step in self.steps)

    def given_by(self, ids: Sequence[str]) -> tuple[str, ...]:
        """Which of the ids of a use are its results."""
        return tuple(id_ for id_, step in zip(ids, self.steps, strict=True) if step.id in self.gives)


def class_tool_geometry(given: Sequence[Step], steps: Sequence[Step], gives: Collection[str]) -> ClassToolGeometry:
    """The class tool that makes ``gives`` as these steps do, from whatever stands in the place of the given objects.

    It asks for the given objects that the steps use. A given line through points that it asks for anyway is no blank:
    it is drawn along, and costs nothing. Raises NotATool.
    """
    needed = needed_by(steps, gives)
    own = [step for step in steps if step.id in needed]
    if not own or not set(gives) <= needed:
        raise NotATool(broken(ClassToolRule.NOTHING_TO_BUILD))
    for step in own:
        if MAKES[step.make].inputs:
            raise NotATool(broken(ClassToolRule.PLACED_BY_HAND, id=step.id))
    known = {step.id: step for step in given}
    asked, along = asked_for(known, {parent for step in own for parent in step.parents} & known.keys())
    for id_ in along:
        if MAKES[known[id_].make].inputs:
            raise NotATool(broken(ClassToolRule.SLIDES, id=id_, on=known[id_].sources[0]))
    takes = tuple(Blank(id_, _asked_kind(step)) for id_, step in known.items() if id_ in asked)
    again = tuple(step for id_, step in known.items() if id_ in along)
    return ClassToolGeometry(takes, (*again, *own), tuple(gives), moves_of(own))


def asked_for(given: dict[str, Step], used: set[str]) -> tuple[set[str], set[str]]:
    """Of the given objects that are used: which are asked for, and which are made along from those.

    An object whose making shares an object with what is asked for cannot be asked for by itself: a triangle's side
    cannot be another than that between its corners.
    """
    asked, along = set(used), set[str]()
    while True:
        tied = next((id_ for id_ in asked if asked & (needed_by(list(given.values()), [id_]) - {id_})), None)
        if tied is None:
            return asked, along
        asked.remove(tied)
        along.add(tied)
        asked |= set(given[tied].parents) - along


def _asked_kind(step: Step) -> str:
    kind = MAKES[step.make].gives
    return "straight" if kind in LINES else str(kind)


def with_class_tools(report: Report, work: Work) -> Report:
    """A report on a work with class tools: what these made is changed in no other way, and costs what they do."""
    at_once = {id_ for use in work.uses for id_ in use.ids}

    def told(one: Absent) -> Absent:
        use = next((use for use in work.uses if one.first in use.ids), None)
        if use is None or work.hidden_helpers.isdisjoint({one.first, *one.of}):
            return one
        return Absent(one.id, use.gives[0], Why.WITHIN_TOOL, (use.class_tool,))

    return replace(
        report,
        absent=tuple(map(told, report.absent)),
        mends=tuple(mend for mend in report.mends if at_once.isdisjoint(step.id for step in mend.steps)),
        costs=report.costs and replace(report.costs, moves=moves_of(work.steps, work.uses)),
    )


def at_result(found: Break | None, work: Work) -> Break | None:
    """A break told of the result of the class tool within which something vanishes."""
    if found is None or found.object not in work.hidden_helpers:
        return found
    within = next(use for use in work.uses if found.object in use.helpers)
    return replace(found, object=within.gives[0])
