"""Conditions that are suggested for a task: what is true of its sample solution in every position, told by the given
figure, and whether it holds the answer fast.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations

import numpy as np

from ..plane.arrays import ARRAYS, Arrays, Floats
from ..plane.makes import MAKES
from ..plane.measurement import off_curve
from ..plane.shapes import LINES, Kind, Line, Point, Shape
from ..plane.steps import Step
from .conditions import RELATIONS, Term
from .positions.alike import alike
from .task import MODEL, TOOLS, Allowance, Condition, IllFormedTask, Names, Task, Wanted, check_condition, names_of
from .trials.certifying import Certifier
from .trials.examination import Examination
from .trials.findings import finding

MAX_NAMES, MAX_SUGGESTED = 8, 10
"""Given points that the answer is related to, and conditions that are suggested."""

MAX_LOOKED_AT = 1500
"""Conditions at which floats look."""

FREEDOM = {Kind.POINT: 2, Kind.LINE: 2, Kind.RAY: 3, Kind.SEGMENT: 4, Kind.CIRCLE: 3}
"""How many numbers say where an object lies."""

STEP, RANK = 1e-3, 1e-4
"""The change of a coordinate, in sizes of the figure, by which it is seen what a condition holds fast; and how small an
eigenvalue, as a share of the largest, says that something is not."""


@dataclass(frozen=True)
class Suggestion:
    """Conditions that are suggested together, and whether they alone hold the answer fast: it cannot be moved by a
    little without breaking one.
    """

    conditions: tuple[Condition, ...]
    pins: bool


def suggestions(given: Sequence[Step], model: Sequence[Step], wanted: Sequence[str]) -> tuple[Suggestion, ...]:
    """What may be asked of wanted objects of a model: first a few conditions that hold the answer fast together, where
    there are such; then each by itself, the most telling first; at last that they are what the model makes.
    """
    task = strict_task(given, model, wanted)
    looking = _Looking(task)
    found = looking.true_conditions()
    one_by_one = [Suggestion((one,), looking.pins((one,))) for one in found]
    together = looking.fewest_that_pin(found)
    alone = {one.conditions for one in one_by_one if one.pins}
    first = [Suggestion(together, True)] if together and together not in alone else []
    ordered = [*(one for one in one_by_one if one.pins), *(one for one in one_by_one if not one.pins)]
    return (*first, *ordered[:MAX_SUGGESTED], Suggestion(task.conditions, True))


def that_pin(given: Sequence[Step], model: Sequence[Step], wanted: Sequence[str]) -> tuple[Condition, ...]:
    """Conditions that hold wanted objects of a model fast together, other than that they are the model's; () where none
    are known.
    """
    looking = _Looking(strict_task(given, model, wanted))
    return looking.fewest_that_pin(looking.true_conditions())


def strict_task(given: Sequence[Step], model: Sequence[Step], wanted: Sequence[str]) -> Task:
    """The task of making what a model makes, with every tool."""
    kinds = {step.id: str(MAKES[step.make].gives) for step in model}
    answer = tuple(Wanted(name, kinds[name]) for name in wanted)
    strict = tuple(the_same(one) for one in answer)
    return Task("", tuple(given), tuple(map(Allowance, TOOLS)), answer, strict, model=tuple(model))


def the_same(wanted: Wanted) -> Condition:
    """That a wanted object is the model's object of its name."""
    return Condition("same", (wanted.name, MODEL + wanted.name))


class _Looking:
    """A model with its wanted objects, in the positions in which conditions are looked at."""

    def __init__(self, task: Task):
        self.task = task
        self.examined = Examination(task, task.model)
        nodes = self.examined.figure.nodes
        self.kind = {node.step.id: node.kind for node in nodes[: self.examined.last]}
        given = [step.id for step in task.given]
        self.wanted = [one.name for one in task.wanted]
        points = [name for name in given if self.kind[name] is Kind.POINT][:MAX_NAMES]
        self.given_points = points
        self.points = [*points, *(name for name in self.wanted if self.kind[name] is Kind.POINT)]
        self.lines = [name for name in (*given, *self.wanted) if self.kind[name] in LINES]
        self.circles = [name for name in (*given, *self.wanted) if self.kind[name] is Kind.CIRCLE]

    # -- what is true --------------------------------------------------------------------------------

    def true_conditions(self) -> list[Condition]:
        """Conditions on the wanted objects that hold in every position, the most telling first; none that only follows
        from how the given figure is made.
        """
        certifier = Certifier(self.examined, RELATIONS)
        found: list[Condition] = []
        for place, condition in enumerate(self.candidates()):
            if place >= MAX_LOOKED_AT or len(found) > 2 * MAX_SUGGESTED:
                break
            names = condition.names
            if names.isdisjoint(self.wanted) or any(self.says_no_more(condition, other) for other in found):
                continue
            try:
                check_condition("", condition, self.task.kinds_in_conditions)
            except IllFormedTask:
                continue
            if certifier.is_proven(condition):
                found.append(condition)
        return found

    def says_no_more(self, condition: Condition, other: Condition) -> bool:
        """Whether a condition is a part of another one that was found."""
        if condition.rel != other.rel or condition == other:
            return condition == other
        if condition.rel == "on" and condition.of[0] == other.of[0] and isinstance(other.of[1], str):
            return condition.of[1] == tuple(self.examined.node(other.of[1]).step.sources)
        relation = RELATIONS[condition.rel]
        if not relation.many:
            return False
        return condition.of[: relation.fixed] == other.of[: relation.fixed] and set(condition.of) <= set(other.of)

    def candidates(self) -> Iterator[Condition]:
        """Conditions that may hold, the most telling kinds first; of those on many terms the ones that floats group."""
        yield from self._midpoints()
        yield from self._on_curves()
        yield from self._equal_lengths()
        yield from self._equally_far()
        yield from self._directions()
        yield from self._touching()
        yield from self._angles()
        yield from self._ratios()

    def _midpoints(self) -> Iterator[Condition]:
        for middle in self.points:
            for ends in combinations([name for name in self.points if name != middle], 2):
                yield Condition("midpoint", (middle, *ends))

    def _on_curves(self) -> Iterator[Condition]:
        for point in self.points:
            for curve in (*self.lines, *self.circles):
                yield Condition("on", (point, curve))
                ends = self.examined.node(curve).step.sources
                if self.kind[curve] in (Kind.RAY, Kind.SEGMENT) and len(ends) == 2:
                    yield Condition("on", (point, ends))
            for pair in self._pairs_without_a_line(point):
                yield Condition("on", (point, pair))

    def _pairs_without_a_line(self, point: str) -> Iterator[tuple[str, str]]:
        """Pairs of given points that no given line passes through."""
        drawn = [set(node.step.sources) for node in self.examined.figure.nodes if node.kind in LINES]
        for pair in combinations(self.given_points, 2):
            if point not in pair and not any(set(pair) <= sources for sources in drawn):
                yield pair

    def _equal_lengths(self) -> Iterator[Condition]:
        pairs = list(combinations(self.points, 2))
        rows = np.array([self._length(*pair) for pair in pairs]) if pairs else np.zeros((0, 1))
        for group in sorted(alike(rows), key=len, reverse=True):
            terms = sorted((pairs[at] for at in group), key=lambda pair: set(pair).isdisjoint(self.wanted))
            yield Condition("equal_length", tuple(self._wanted_first(pair) for pair in terms))

    def _wanted_first(self, pair: tuple[str, str]) -> tuple[str, str]:
        p, q = pair
        return (q, p) if q in self.wanted and p not in self.wanted else pair

    def _length(self, p: str, q: str) -> Floats:
        (px, py), (qx, qy) = (self.examined.sample(self.examined.figure.index[name]) for name in (p, q))
        return np.asarray(np.hypot(px - qx, py - qy) / float(self.examined.size))

    def _equally_far(self) -> Iterator[Condition]:
        size = float(self.examined.size)
        if len(self.lines) < 2:
            return
        for point in self.points:
            rows = np.array([self._far(point, line) / size for line in self.lines])
            for group in sorted(alike(rows), key=len, reverse=True):
                if np.nanmax(rows[group[0]]) > RANK:
                    yield Condition("equidistant", (point, *(self.lines[at] for at in group)))

    def _far(self, point: str, line: str) -> Floats:
        index = self.examined.figure.index
        p, g = (self.examined.sample(index[name]) for name in (point, line))
        with Arrays.quiet():
            off: Floats = np.abs(np.asarray(off_curve(ARRAYS, Point(*p), Line(*g))))
        return off

    def _directions(self) -> Iterator[Condition]:
        drawn = {name: set(self.examined.node(name).step.sources) for name in self.lines}
        pairs = [pair for pair in combinations(self.points, 2) if not any(set(pair) <= on for on in drawn.values())]
        terms: list[Names] = [*self.lines, *(self._wanted_first(pair) for pair in pairs)]
        for rel in ("perpendicular", "parallel"):
            for one, other in combinations(terms, 2):
                ends = [drawn[term] if isinstance(term, str) else set(term) for term in (one, other)]
                # That lines through one point are parallel says that a point lies on a line, which is said so.
                if rel == "perpendicular" or not ends[0] & ends[1]:
                    yield Condition(rel, (one, other) if self._is_wanted(one) else (other, one))

    def _is_wanted(self, term: Names) -> bool:
        return any(name in self.wanted for name in names_of(term))

    def _touching(self) -> Iterator[Condition]:
        for circle in self.circles:
            for other in (*self.lines, *self.circles):
                if other != circle:
                    yield Condition("tangent", (circle, other))

    def _angles(self) -> Iterator[Condition]:
        for point in (name for name in self.wanted if self.kind[name] is Kind.POINT):
            for vertex in self.given_points:
                for p, q in combinations([name for name in self.given_points if name != vertex], 2):
                    yield Condition("equal_angle", ((p, vertex, point), (point, vertex, q)))

    def _ratios(self) -> Iterator[Condition]:
        for point in (name for name in self.wanted if self.kind[name] is Kind.POINT):
            for a, b in combinations(self.given_points, 2):
                for first, second in (((a, point), (point, b)), ((point, b), (a, point)), ((a, point), (a, b))):
                    for ratio in ((1, 2), (1, 3), (2, 3)):
                        yield Condition("ratio", (first, second), ratio)

    # -- what holds the answer fast ------------------------------------------------------------------

    def fewest_that_pin(self, found: Sequence[Condition]) -> tuple[Condition, ...]:
        """The first of these conditions that hold the answer fast together, without any that adds nothing; () if all of
        them together do not.
        """
        chosen: list[Condition] = []
        held = 0
        for condition in found:
            now = self.held_by((*chosen, condition))
            if now > held:
                chosen.append(condition)
                held = now
            if held == self.freedom:
                return tuple(chosen)
        return ()

    def pins(self, conditions: Sequence[Condition]) -> bool:
        """Whether conditions hold the answer fast: none of its coordinates can change by a little."""
        return self.held_by(conditions) == self.freedom

    @property
    def freedom(self) -> int:
        """How many numbers the answer is."""
        return sum(FREEDOM[self.kind[name]] for name in self.wanted)

    def held_by(self, conditions: Sequence[Condition]) -> int:
        """How many of the numbers of the answer conditions hold fast, as drawn.

        That is the rank of the quadratic form that the squares of their gaps are near the answer: some gaps are
        distances, which have no derivative where they vanish.
        """
        places = [(name, place) for name in self.wanted for place in range(len(self._here[name]))]

        def square(*moved: tuple[str, int]) -> float:
            gaps = [self._gaps(conditions, moved, way) / STEP for way in (STEP, -STEP)]
            return float(np.sum(np.square(gaps))) / 2

        alone = [square(one) for one in places]
        form = np.diag(alone)
        for i, j in combinations(range(len(places)), 2):
            form[i, j] = form[j, i] = (square(places[i], places[j]) - alone[i] - alone[j]) / 2
        if not np.isfinite(form).all():
            return 0
        values = np.linalg.eigvalsh(form)
        return int((values > RANK * max(values[-1], RANK)).sum())

    @cached_property
    def _here(self) -> dict[str, Shape[Floats]]:
        """The objects as drawn."""
        examined = self.examined
        return {node.step.id: examined.shapes[number] for number, node in enumerate(examined.figure.nodes)}

    def _gaps(self, conditions: Sequence[Condition], moved: Sequence[tuple[str, int]], by: float) -> Floats:
        """The gaps of conditions where some coordinates are changed by so many sizes of the figure, in such sizes."""
        shapes = dict(self._here)
        for name, place in moved:
            values = [float(np.ravel(value)[0]) for value in shapes[name]]
            values[place] += by * float(self.examined.size)
            shapes[name] = type(shapes[name])(*map(np.float64, values))  # type: ignore[arg-type]

        def look(name: str) -> Term[Floats]:
            kinds = {f"{MODEL}{step.id}": MAKES[step.make].gives for step in self.task.model}
            return Term(shapes[name], self.kind.get(name) or kinds[name])

        with Arrays.quiet():
            measure = self.examined.measure(self.examined.shapes)
            gaps = [gap for one in conditions for gap in finding(measure, one, look).gaps]
        return np.array([float(np.ravel(gap)[0]) for gap in gaps]) / float(self.examined.size)
