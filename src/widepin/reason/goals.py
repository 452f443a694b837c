"""What the conditions of a task come to: facts about the work, and for "the same as" what the object is.

There is only one perpendicular bisector, one parallel through a point, one point where two curves meet on a side. So an
object that has the defining property of the sample solution's is the same, and the reader meets none of its helpers.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, product

from ..judge.conditions import RelationName
from ..judge.task import Condition, Task
from ..plane.makes import MAKES
from ..plane.shapes import LINES
from ..plane.steps import Step
from .drawn import Drawn
from .facts import Fact, Rel, Term, fact
from .makings import MAKINGS, as_lines, lies_on
from .rules import with_ratio


@dataclass(frozen=True)
class Goal:
    """A condition of the task, by its place: the fact that it is, and facts from any of which, together, it follows.

    ``ways``: each a tuple of facts; an empty one where nothing has to be proved.
    """

    place: int
    fact: Fact
    ways: tuple[tuple[Fact, ...], ...]


def said_by(condition: Condition) -> Fact:
    """A condition as a fact: a ratio of one to one says that lengths are equal."""
    said = fact(Rel(condition.rel), *condition.of, ratio=condition.ratio)
    if said.ratio is None:
        return said
    n, d = said.ratio
    return fact(Rel.EQUAL_LENGTH, *said.of) if n == d else with_ratio(said, (n, d))


def _made_alike(task: Task, drawn: Drawn) -> dict[str, set[str]]:
    """For each object of the sample solution those of the work that are made in the same way from the same."""
    found: dict[str, set[str]] = {}

    def same(one: str, other: str) -> bool:
        return one == other or one in found.get(other, ())

    for step in task.model_steps:
        found[step.id] = {
            own.id
            for own in drawn.steps
            if own.make == step.make
            and len(own.sources) == len(step.sources)
            and (own.choice, own.pick) == (step.choice, step.pick)
            and all(map(same, own.sources, step.sources))
            and (own.reference is None or same(own.reference, str(step.reference)))
            and step.at is None
        }
    return found


MOST_WAYS = 8
"""Ways to prove a part of a condition that are put together with those of its other parts."""

READ_OFF = frozenset(
    {RelationName.DISTINCT, RelationName.SAME_SIDE, RelationName.OPPOSITE_SIDE, RelationName.INSIDE_ANGLE}
)
"""Conditions that are read off the figure, in proofs as in textbooks."""


def _together(parts: Sequence[Sequence[tuple[Fact, ...]]]) -> Iterator[tuple[Fact, ...]]:
    """Ways to prove several things at once, of at most so many ways for each."""
    for chosen in product(*(ways[:MOST_WAYS] for ways in parts)):
        yield tuple(dict.fromkeys(one for way in chosen for one in way))


def _equally_far(drawn: Drawn, point: str, one: Term, other: Term) -> Iterator[tuple[Fact, ...]]:
    """Ways to prove that a point is as far from one line as from another: it lies on a bisector of their angle, or of
    the one beside it, halfway between parallels, or the perpendiculars to both are drawn and equally long.
    """
    on_one, on_other = ([p for p in drawn.points if drawn.holds(fact(Rel.ON, p, line))] for line in (one, other))
    for vertex in (p for p in on_one if p in on_other and p != point):
        for a, b in product(on_one, on_other):
            if vertex not in (a, b):
                yield (fact(Rel.EQUAL_ANGLE, (a, vertex, point), (point, vertex, b)),)
        for bisector, (a, at, b) in drawn.bisecting.items():
            if at == vertex and {a, b} & {*on_one} and {a, b} & {*on_other}:
                yield (fact(Rel.PERPENDICULAR, (vertex, point), bisector),)
    for a, b in product(on_one, on_other):
        if len({point, a, b}) == 3 and drawn.holds(fact(Rel.MIDPOINT, point, a, b)):
            yield fact(Rel.MIDPOINT, point, a, b), fact(Rel.PARALLEL, one, other)
    for a, b in product(on_one, on_other):
        upright = [fact(Rel.PERPENDICULAR, (point, foot), line) for foot, line in ((a, one), (b, other))]
        if point not in (a, b) and all(map(drawn.holds, upright)):
            yield (*upright, fact(Rel.EQUAL_LENGTH, (point, a), (point, b)))


class Goals:
    """The goals of a task for an answer. ``model_as``: the model's objects as steps made from given ones."""

    def __init__(self, task: Task, drawn: Drawn, answer: Mapping[str, str], model_as: Mapping[str, Step]):
        self.task, self.drawn, self.answer = task, drawn, dict(answer)
        self.model = {step.id: step for step in task.model_steps} | dict(model_as)
        self.there = {*drawn.points, *drawn.lines, *drawn.circles}
        self._alike = _made_alike(task, drawn)

    def all(self) -> Iterator[Goal]:
        """A goal for every condition that is not read off the figure."""
        for place, condition in enumerate(self.task.conditions):
            if condition.rel not in READ_OFF:
                here = condition.renamed(self.answer)
                if here.rel in list(Rel):
                    ways = (way for way in self._ways(here) if all(one.names <= self.there for one in way))
                    yield Goal(place, said_by(here), tuple(ways))

    def _ways(self, condition: Condition) -> Iterator[tuple[Fact, ...]]:
        drawn, of = self.drawn, condition.of
        missing = sorted(name for name in condition.names if name not in self.there)
        if missing and condition.rel != RelationName.SAME:
            # What is said of the sample solution's objects is said of those of the work that they are.
            name = missing[0]
            for twin in self._twins(name):
                for way in self._is(twin, self.model[name], 0):
                    for rest in self._ways(condition.renamed({name: twin})):
                        yield (*way, *rest)
            return
        match condition.rel:
            case RelationName.EQUAL_LENGTH:
                yield (fact(Rel.EQUAL_LENGTH, *of),)
            case RelationName.EQUAL_ANGLE:
                first, *others = of
                yield tuple(fact(Rel.EQUAL_ANGLE, first, other) for other in others if other != first)
            case RelationName.EQUAL_AREA:
                first, *others = of
                pairs = (fact(Rel.EQUAL_AREA, first, other) for other in others)
                yield tuple(one for one in pairs if len(one.of) == 2)  # one triangle may be named twice
            case RelationName.PARALLEL | RelationName.PERPENDICULAR:
                yield from (
                    (fact(Rel(condition.rel), one, other),)
                    for one in as_lines(drawn, of[0])
                    for other in as_lines(drawn, of[1])
                )
            case RelationName.RATIO:
                yield (said_by(condition),)
            case RelationName.MIDPOINT:
                yield (fact(Rel.MIDPOINT, *of),)
            case RelationName.COLLINEAR:
                yield tuple(fact(Rel.COLLINEAR, *three) for three in combinations(of, 3) if three[:2] == of[:2])
            case RelationName.ON:
                yield from lies_on(self.drawn, str(of[0]), of[1])
            case RelationName.TANGENT:
                circle, line = of if of[0] in drawn.circles else of[::-1]
                if line in drawn.circles:
                    yield (fact(Rel.TANGENT, circle, line),)
                else:
                    yield from ((fact(Rel.TANGENT, circle, one),) for one in as_lines(drawn, line))
            case RelationName.CONCURRENT:
                for point in drawn.points:
                    if all(drawn.holds(fact(Rel.ON, point, line)) for line in of):
                        yield from _together([list(lies_on(drawn, point, line)) for line in of])
            case RelationName.EQUIDISTANT:
                for first in of[1:]:  # the others are compared with it
                    others = [line for line in of[1:] if line != first]
                    yield from _together([list(_equally_far(drawn, str(of[0]), first, other)) for other in others])
            case RelationName.SAME:
                yield from self._same(str(of[0]), str(of[1]))

    # -- the same as in the sample solution ---------------------------------------------------------

    def _same(self, one: str, other: str) -> Iterator[tuple[Fact, ...]]:
        if one == other:
            yield ()
        elif other in self.model:
            yield from self._is(one, self.model[other], 0)

    def _is(self, one: str, step: Step, depth: int) -> Iterator[tuple[Fact, ...]]:
        """Ways to prove that an object of the work is what a step makes."""
        drawn = self.drawn
        if depth > 4 or one not in self.there:
            return
        if one in self._alike.get(step.id, ()):
            yield ()  # it is made in the same way from the same
            return
        if step.make == "intersection" and one in drawn.points:
            parts = [list(self._lies(one, source, depth)) for source in step.sources]
            for first in parts[0]:
                for second in parts[1]:
                    yield (*first, *second)
            return
        for sources, before in self._sources(step, depth):
            for way in MAKINGS[step.make].property(self.drawn, one, sources):
                yield (*before, *way)

    def _sources(self, step: Step, depth: int) -> Iterator[tuple[list[str], tuple[Fact, ...]]]:
        """Objects of the work that what a step is made from are, with what is to be proved for that."""
        found: list[list[tuple[str, tuple[Fact, ...]]]] = []
        for source in step.sources:
            if source not in self.model:
                found.append([(source, ())])
                continue
            found.append(
                [(one, way) for one in self._twins(source) for way in self._is(one, self.model[source], depth + 1)][:3]
            )
        combos: list[tuple[list[str], tuple[Fact, ...]]] = [([], ())]
        for options in found:
            combos = [([*names, one], (*facts, *way)) for names, facts in combos for one, way in options][:6]
        yield from combos

    def _twins(self, source: str) -> list[str]:
        """Objects of the work that are where one of the model is, in every position."""
        if source in self.drawn.model_points:
            return self.drawn.twins(source)
        make = self.model[source].make
        curves = self.drawn.lines if MAKES[make].gives in LINES else self.drawn.circles
        return [curve for curve in curves if " " not in curve][:12]

    def _lies(self, point: str, curve: str, depth: int) -> Iterator[tuple[Fact, ...]]:
        """Ways to prove that a point lies on a curve of the sample solution."""
        if curve not in self.model:
            yield from lies_on(self.drawn, point, curve)
            return
        step = self.model[curve]
        for sources, before in self._sources(step, depth):
            yield from ((*before, *way) for way in MAKINGS[step.make].locus(self.drawn, point, sources))
