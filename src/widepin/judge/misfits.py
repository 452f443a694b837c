"""What of a task does not fit together: tools or a limit that its model cannot meet, conditions that ask for nothing,
an answer that is there already, wrong solutions that would pass.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from ..plane.arrays import Arrays, Floats
from ..plane.rules import Broken
from ..plane.shapes import Circle, Shape
from .conditions import RelationName, Term
from .task import Condition, Task
from .trials.examination import Examination
from .trials.findings import finding, seen_by_floats
from .verdict import Outcome, Refusal, Verdict

SEED = 28
"""Of the answers that are put in the place of the model's."""

ALIKE = 1e-9
"""How far two objects may be apart that count as one, and how far off a condition may be that counts as fulfilled, in
sizes of the figure."""

OPEN = frozenset({RelationName.DISTINCT})
"""Relations that hold of nearly every answer by their nature, and are asked for to leave the others out."""


class MisfitKind(StrEnum):
    """What does not fit."""

    TOOLS = "the tools cannot make the model"
    LIMIT = "the model needs more moves"
    NEVER_TRUE = "a condition that is not true of the model"
    ALWAYS_TRUE = "a condition that any answer fulfils"
    ANSWER_GIVEN = "a wanted object that is a given one"
    NOTHING_TO_DO = "the given figure alone is right"
    WRONG_PASSES = "a wrong solution that is right by the conditions"


@dataclass(frozen=True)
class Misfit:
    """Something of a task that does not fit the rest.

    ``place``: of the condition, or of the wrong solution; ``names``: of the wanted object and the given one that it is;
    ``broken``: the rule of the task's tools that the model breaks; ``moves``: that the model takes.
    """

    kind: MisfitKind
    place: int | None = None
    names: tuple[str, ...] = ()
    broken: Broken | None = None
    moves: int = 0


class Substituted:
    """A model in sampled positions; ``answer``: which of its objects are the wanted ones, by their names."""

    def __init__(self, task: Task, answer: Mapping[str, str]):
        self.task = task
        self.examined = Examination(task, task.model)
        self.answer = {name: self.examined.figure.index[id_] for name, id_ in answer.items()}
        self.columns = self.examined.sampled_positions.shape[1]

    def always_true(self) -> Iterator[int]:
        """The places of conditions that hold whatever the answer is: with other objects of the wanted kinds in the
        place of the model's. A condition on given objects alone that holds is one.
        """
        others = {name: self._moved(number) for name, number in self.answer.items()}
        for place, condition in enumerate(self.task.conditions):
            is_open = condition.rel in OPEN and not condition.names.isdisjoint(self.answer)
            if not is_open and self._holds(condition, others):
                yield place

    def answers_given(self) -> Iterator[tuple[str, str]]:
        """Wanted objects that have to be made though they are given ones, each with that one's name."""
        nodes = self.examined.figure.nodes
        for wanted in self.task.wanted:
            kind = nodes[self.answer[wanted.name]].kind
            alike = [node.step.id for node in nodes[: self.examined.given] if node.kind is kind]
            same = (id_ for id_ in alike if self._holds(Condition("same", (wanted.name, id_)), {}))
            if not wanted.given and (id_ := next(same, None)):
                yield wanted.name, id_

    def _holds(self, condition: Condition, others: Mapping[str, Shape[Floats]]) -> bool:
        """Whether a condition holds wherever its objects exist; ``others``: by wanted name, in the model's place."""

        def look_up(name: str) -> Term[Floats]:
            number = self.examined.number(name, self.answer)
            return Term(others.get(name, self.examined.sampled[number]), self.examined.figure.nodes[number].kind)

        with Arrays.quiet():
            measure = self.examined.measure(self.examined.sampled)
            found = finding(measure, condition, look_up)
            gap, clear = seen_by_floats([found], measure.size, (self.columns,))
        there = np.isfinite(gap)
        return bool(there.any() and (clear & (gap < ALIKE))[there].all())

    def _moved(self, number: int) -> Shape[Floats]:
        """Other objects in the place of one, all over the figure, an object a position."""
        rng = np.random.default_rng([SEED, number])
        size = float(self.examined.size)
        shape = self.examined.sampled[number]
        moved = type(shape)(*(value + rng.normal(scale=size, size=self.columns) for value in shape))
        return moved._replace(rr=np.abs(moved.rr)) if isinstance(moved, Circle) else moved


def misfits(
    task: Task, model: Verdict, refusal: Refusal | None, attainable: int, empty: bool, wrong: Sequence[Outcome]
) -> tuple[Misfit, ...]:
    """What does not fit, the gravest first.

    ``model``: the verdict on the task's model with every tool; ``refusal``: that of its own tools; ``attainable``: the
    moves that the model takes with these; ``empty``: whether the given figure alone is right; ``wrong``: what became of
    the solutions that must be rejected.
    """
    found = []
    if model.outcome is Outcome.SOUND:
        looking = Substituted(task, model.answer or {})
        found += [Misfit(MisfitKind.ANSWER_GIVEN, names=pair) for pair in looking.answers_given()]
        found += [Misfit(MisfitKind.ALWAYS_TRUE, place) for place in looking.always_true()]
    elif model.report is not None:
        off = (one.place for one in model.report.conditions if one.holds_as_drawn is False)
        found += [Misfit(MisfitKind.NEVER_TRUE, place) for place in off]
    if empty:
        found.append(Misfit(MisfitKind.NOTHING_TO_DO))
    if refusal is not None:
        found.append(Misfit(MisfitKind.TOOLS, broken=refusal.broken))
    if task.budget is not None and task.budget < attainable:
        found.append(Misfit(MisfitKind.LIMIT, moves=attainable))
    passing = (place for place, outcome in enumerate(wrong) if outcome is Outcome.SOUND)
    found += [Misfit(MisfitKind.WRONG_PASSES, place) for place in passing]
    return tuple(found)
