"""What the conditions of a task come to: facts about the work, and for "the same as" what the object is.

There is only one perpendicular bisector, one parallel through a point, one point where two curves meet on a side. So an
object that has the defining property of the sample solution's is the same, and the reader meets none of its helpers.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import combinations

from ..judge.conditions import RelationName
from ..judge.task import Condition, Task
from ..plane.makes import MAKES
from ..plane.shapes import LINES
from ..plane.steps import Step
from .drawn import Drawn
from .facts import Fact, Rel, Term, fact
from .rules import with_ratio


@dataclass(frozen=True)
class Goal:
    """A condition of the task, by its place: the fact that it is, and facts from any of which, together, it follows.

    ``ways``: each a tuple of facts; an empty one where nothing has to be proved.
    """

    place: int
    fact: Fact
    ways: tuple[tuple[Fact, ...], ...]


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


READ_OFF = frozenset(
    {RelationName.DISTINCT, RelationName.SAME_SIDE, RelationName.OPPOSITE_SIDE, RelationName.INSIDE_ANGLE}
)
"""Conditions that are read off the figure, in proofs as in textbooks."""


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
                said = fact(Rel(here.rel), *here.of, ratio=here.ratio) if here.rel in list(Rel) else None
                if said is not None:
                    ways = (way for way in self._ways(here) if all(one.names <= self.there for one in way))
                    yield Goal(place, said, tuple(ways))

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
            case RelationName.PARALLEL | RelationName.PERPENDICULAR:
                yield from (
                    (fact(Rel(condition.rel), one, other),)
                    for one in self._as_lines(of[0])
                    for other in self._as_lines(of[1])
                )
            case RelationName.RATIO if condition.ratio is not None:
                yield (with_ratio(fact(Rel.RATIO, *of), condition.ratio),)
            case RelationName.MIDPOINT:
                yield (fact(Rel.MIDPOINT, *of),)
            case RelationName.COLLINEAR:
                yield tuple(fact(Rel.COLLINEAR, *three) for three in combinations(of, 3) if three[:2] == of[:2])
            case RelationName.ON:
                yield from self._on(str(of[0]), of[1])
            case RelationName.TANGENT:
                circle, line = (of[1], of[0]) if str(of[0]) in drawn.lines else of
                if not (isinstance(line, str) and line in drawn.circles):
                    yield from ((fact(Rel.TANGENT, circle, one),) for one in self._as_lines(line))
            case RelationName.SAME:
                yield from self._same(str(of[0]), str(of[1]))

    def _as_lines(self, term: Term) -> list[Term]:
        """A line as it is named, and as pairs of points that are known to lie on it."""
        pairs: list[Term] = []
        if isinstance(term, str):
            pairs = list(combinations(self.drawn.on[term], 2))
        return [term, *pairs[:6]]

    def _on(self, point: str, curve: Term) -> Iterator[tuple[Fact, ...]]:
        drawn = self.drawn
        if isinstance(curve, str) and point in drawn.on[curve]:
            yield ()
        elif isinstance(curve, str) and curve in drawn.circles:
            centre, radius = drawn.centre.get(curve), drawn.radius.get(curve)
            if centre in drawn.points and radius is not None and set(radius) <= set(drawn.points):
                yield (fact(Rel.EQUAL_LENGTH, (str(centre), point), radius),)
            for other in drawn.on[curve]:
                if centre in drawn.points:
                    yield (fact(Rel.EQUAL_LENGTH, (str(centre), point), (str(centre), other)),)
        else:
            for p, q in [curve] if not isinstance(curve, str) else combinations(drawn.on[curve], 2):
                if point in (p, q) or drawn.in_a_row((p, q, point)):
                    yield ()
                else:
                    yield (fact(Rel.COLLINEAR, p, q, point),)
            if isinstance(curve, str):
                yield (fact(Rel.ON, point, curve),)

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
            for way in self._property(one, step.make, sources):
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
        at = self.drawn.model_points.get(source)
        if at is None:
            make = self.model[source].make
            curves = self.drawn.lines if MAKES[make].gives in LINES else self.drawn.circles
            return [curve for curve in curves if " " not in curve][:12]
        return [
            name for name, place in self.drawn.points.items() if bool((abs(place - at) < 1e-7 * self.drawn.size).all())
        ]

    def _lies(self, point: str, curve: str, depth: int) -> Iterator[tuple[Fact, ...]]:
        """Ways to prove that a point lies on a curve of the sample solution."""
        if curve not in self.model:
            yield from self._on(point, curve)
            return
        step = self.model[curve]
        for sources, before in self._sources(step, depth):
            yield from ((*before, *way) for way in self._locus(point, step.make, sources))

    def _locus(self, point: str, make: str, of: list[str]) -> Iterator[tuple[Fact, ...]]:
        """What it means that a point lies on what a make gives."""
        match make:
            case "line" | "ray" | "segment":
                yield () if point in of or self.drawn.in_a_row((*of, point)) else (fact(Rel.COLLINEAR, *of, point),)
            case "circle":
                yield (fact(Rel.EQUAL_LENGTH, (of[0], point), (of[0], of[1])),) if point != of[1] else ()
            case "circle_radius":
                yield (fact(Rel.EQUAL_LENGTH, (of[0], point), (of[1], of[2])),)
            case "perpendicular_bisector":
                yield (fact(Rel.EQUAL_LENGTH, (point, of[0]), (point, of[1])),)
            case "angle_bisector":
                p, vertex, q = of
                yield (fact(Rel.EQUAL_ANGLE, (p, vertex, point), (point, vertex, q)),) if point != vertex else ()
            case "perpendicular":
                yield (fact(Rel.PERPENDICULAR, (point, of[1]), of[0]),) if point != of[1] else ()
            case "parallel":
                yield (fact(Rel.PARALLEL, (point, of[1]), of[0]),) if point != of[1] else ()

    def _property(self, one: str, make: str, of: list[str]) -> Iterator[tuple[Fact, ...]]:
        """What an object must have to be what a make gives."""
        drawn = self.drawn
        if one in drawn.points:
            match make:
                case "midpoint":
                    yield (fact(Rel.MIDPOINT, one, *of),)
                case "reflection":
                    for p, q in combinations(drawn.on[of[1]], 2):
                        yield tuple(fact(Rel.EQUAL_LENGTH, (x, one), (x, of[0])) for x in (p, q))
                case "translation":
                    yield (
                        fact(Rel.PARALLEL, (of[0], one), (of[1], of[2])),
                        fact(Rel.EQUAL_LENGTH, (of[0], one), (of[1], of[2])),
                    )
            return
        if one in drawn.circles:
            on, centre = list(drawn.on[one]), drawn.centre.get(one)
            match make:
                case "circle" if centre == of[0]:
                    yield from self._on(of[1], one)
                case "circle_radius" if centre == of[0]:
                    yield (fact(Rel.EQUAL_LENGTH, drawn.radius[one], (of[1], of[2])),)
                case "circle_through":
                    missing = [point for point in of if point not in on]
                    ways = [list(self._on(point, one)) for point in missing]
                    if all(ways):
                        yield tuple(part for way in ways for part in way[0])
            return
        points = [point for point in drawn.on[one] if point in drawn.points]
        match make:
            case "line" | "ray" | "segment":
                if set(of) <= set(points):
                    yield ()
            case "perpendicular" | "parallel":
                if of[1] in points:
                    yield from ((fact(Rel(make), line, of[0]),) for line in self._as_lines(one))
            case "perpendicular_bisector":
                for p, q in combinations(points, 2):
                    yield tuple(fact(Rel.EQUAL_LENGTH, (x, of[0]), (x, of[1])) for x in (p, q))
                for p in points:
                    yield (fact(Rel.EQUAL_LENGTH, (p, of[0]), (p, of[1])), fact(Rel.PERPENDICULAR, one, (of[0], of[1])))
            case "angle_bisector":
                p, vertex, q = of
                if vertex in points:
                    for point in points:
                        if point != vertex:
                            yield (fact(Rel.EQUAL_ANGLE, (p, vertex, point), (point, vertex, q)),)
