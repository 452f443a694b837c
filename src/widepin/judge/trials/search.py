"""Which of the student's objects are meant as the answer.

A backtracking search binds one wanted name at a time, and tries all objects for it with many partial answers at once,
in arrays. A condition is looked at as soon as its terms are bound; conditions on many terms are split into parts on
few for that. Names that may trade places (three corners of an equilateral triangle) are bound in one order only. An
object may serve for several names; where it must not, the task says that they are distinct.

The search is made twice: for answers that are exact in small movements too, of which there are few, and only if none
of those is right in every position, for all that look right as drawn.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Arrays, Floats
from ...plane.figure import is_defined
from ...plane.shapes import SHAPE_OF, Kind, Shape, mapped
from ...plane.tolerances import EXACT_IN_FLOATS, VISUAL
from ..conditions import RELATIONS, Finding, Measure, Term
from ..positions.alike import alike
from ..task import Condition, Names, Task, Wanted
from .examination import Examination
from .findings import finding, seen_by_floats

MAX_LOOKS = 60_000
"""Bound on the effort: how many bindings may be looked at."""

MAX_ANSWERS, MAX_EXACT_ANSWERS = 48, 400
"""Bounds on how many answers are kept that look right, and that are exact nearby."""

AT_ONCE = 4096
"""Bindings that are looked at in one array operation, at most."""

NEARBY = 6
"""Small movements in which an answer must be exact."""

Bound = NDArray[np.intp]
"""Partial answers (n, k): the numbers of the objects that the first k names are bound to."""


@dataclass
class Search:
    """The answers that were found, and whether the search came to its end."""

    answers: list[dict[str, int]] = field(default_factory=list)
    stopped: bool = False


def search(examined: Examination, exact: bool = False, cost: Callable[[int], int] | None = None) -> Search:
    """Assignments of made objects to wanted names: all that are right to the eye as drawn, or those that are exact
    nearby.

    With a ``cost``, of objects that are one and the same only the cheapest is tried.
    """
    return _Searching(examined, exact, cost).run()


class _Searching:
    def __init__(self, examined: Examination, exact: bool, cost: Callable[[int], int] | None):
        task = examined.task
        self.examined = examined
        self.exact = exact
        self.found = Search()
        self.looks = 0
        self.candidates = {wanted.name: candidates(examined, wanted) for wanted in task.wanted}
        if cost is not None:
            self.candidates = {name: self.nearby.once_each(found, cost) for name, found in self.candidates.items()}
        self.order = binding_order(task, {name: len(found) for name, found in self.candidates.items()})
        self.twins = twins(task)
        self.drawn = _Stacks(examined, examined.shapes)
        self.due: dict[str, list[Condition]] = {name: [] for name in self.order}
        for part in (part for condition in task.conditions for part in split(condition)):
            names = part.names & set(self.order)
            if names:
                self.due[max(names, key=self.order.index)].append(part)

    def run(self) -> Search:
        self.bind(np.zeros((1, 0), dtype=np.intp))
        return self.found

    def bind(self, bound: Bound) -> None:
        """Bind the next name of these partial answers to every object that fits, and go on with each."""
        depth = bound.shape[1]
        if depth == len(self.order):
            self.keep(bound)
            return
        name = self.order[depth]
        for numbers in self.by_kind(name):
            rows = max(1, AT_ONCE // len(numbers))
            for first in range(0, len(bound), rows):
                block = bound[first : first + rows]
                longer = np.column_stack([np.repeat(block, len(numbers), axis=0), np.tile(numbers, len(block))])
                self.looks += len(longer)
                if self.looks > MAX_LOOKS:
                    self.found.stopped = True
                    return
                self.bind_on(self.fitting(name, self.in_order(name, longer)))
                if self.found.stopped:
                    return

    def bind_on(self, bound: Bound) -> None:
        """Go on with partial answers, those whose objects are of the same kinds together."""
        if not len(bound):
            return
        kinds = self.drawn.kinds[bound]
        for of_row in np.unique(kinds, axis=0):
            self.bind(bound[(kinds == of_row).all(axis=1)])
            if self.found.stopped:
                return

    def keep(self, bound: Bound) -> None:
        """Keep whole answers that look right as drawn."""
        for row in bound:
            answer = dict(zip(self.order, map(int, row), strict=True))
            if self.examined.looks_right(answer):
                self.found.answers.append(answer)
            if len(self.found.answers) >= (MAX_EXACT_ANSWERS if self.exact else MAX_ANSWERS):
                self.found.stopped = True
                return

    def by_kind(self, name: str) -> Iterator[list[int]]:
        """The objects that may serve for a name, those of one kind together."""
        nodes = self.examined.figure.nodes
        for kind in sorted({nodes[n].kind for n in self.candidates[name]}):
            yield [n for n in self.candidates[name] if nodes[n].kind is kind]

    def in_order(self, name: str, bound: Bound) -> Bound:
        """Those of the partial answers whose last name comes no sooner than names that it may trade places with."""
        at = [index for index in range(bound.shape[1] - 1) if self.order[index] in self.twins[name]]
        return bound[(bound[:, at] <= bound[:, -1:]).all(axis=1)] if at else bound

    def fitting(self, name: str, bound: Bound) -> Bound:
        """Those of the partial answers, of objects of the same kinds, that satisfy the conditions due at their last
        name.
        """
        if not len(bound) or not self.due[name]:
            return bound
        gap, clear = self.drawn.seen(self.due[name], self.order, bound)
        bound = bound[(clear & (gap <= VISUAL))[:, 0]]
        if not self.exact or not len(bound):
            return bound
        gap, clear = self.nearby.seen(self.due[name], self.order, bound)
        # What is undefined in a small movement is no failure here; an answer that never exists has another fate.
        return bound[((gap < EXACT_IN_FLOATS) & clear | np.isnan(gap)).all(axis=1)]

    @cached_property
    def nearby(self) -> _Stacks:
        """The objects in a few small movements."""
        first = self.examined.batch.groups["small all"].start
        return _Stacks(self.examined, self.examined.in_batch(slice(first, first + NEARBY)))


class _Stacks:
    """All objects in some positions, so laid out that many can be taken at once."""

    def __init__(self, examined: Examination, shapes: Sequence[Shape[Floats]]):
        nodes = examined.figure.nodes
        self.examined = examined
        self.measure: Measure[Floats] = examined.measure(shapes)
        self.kinds = np.array([list(Kind).index(node.kind) for node in nodes])
        self.count = max((np.size(shape[0]) for shape in shapes), default=1)
        self.coordinates: dict[type[Shape[Floats]], NDArray[np.float64]] = {}
        for shape in set(SHAPE_OF.values()):
            numbers = [number for number, node in enumerate(nodes) if SHAPE_OF[node.kind] is shape]
            stack = np.full((len(nodes), len(shape._fields), self.count), np.nan)
            if numbers:
                stack[numbers] = self._stacked([shapes[number] for number in numbers])
            self.coordinates[shape] = stack

    def _stacked(self, shapes: Sequence[Shape[Floats]]) -> NDArray[np.float64]:
        """Shapes of one kind as (n, fields, positions); what nothing moves is one number for all positions."""
        if any(np.ndim(shape[0]) == 0 for shape in shapes):
            shapes = [mapped(shape, lambda value: np.broadcast_to(value, (self.count,))) for shape in shapes]
        return np.array(shapes)

    def once_each(self, numbers: Sequence[int], cost: Callable[[int], int]) -> list[int]:
        """These objects without those that are the same as a cheaper one in all the positions."""
        left = set(numbers)
        kinds = {n: self.examined.figure.nodes[n].kind for n in numbers}
        for kind in set(kinds.values()):
            of_kind = [n for n in numbers if kinds[n] is kind]
            rows = self.coordinates[SHAPE_OF[kind]][of_kind].reshape(len(of_kind), -1)
            for group in alike(rows):
                same = [of_kind[place] for place in group]
                left -= set(same) - {min(same, key=lambda n: (cost(n), n))}
        return [n for n in numbers if n in left]

    def term(self, numbers: int | NDArray[np.intp], kind: Kind) -> Term[Floats]:
        """Objects of one kind as one term: coordinates (n, positions), or (positions,) for a single number."""
        shape = SHAPE_OF[kind]
        values = self.coordinates[shape][numbers]
        return Term(shape(*np.moveaxis(values, -2, 0)), kind)

    def seen(
        self, conditions: Sequence[Condition], order: Sequence[str], bound: Bound
    ) -> tuple[NDArray[np.float64], NDArray[np.bool_]]:
        """Gaps and whether margins are positive, (n, positions), for partial answers whose objects are of the same
        kinds.
        """
        columns = {name: bound[:, index] for index, name in enumerate(order[: bound.shape[1]])}
        nodes, index = self.examined.figure.nodes, self.examined.figure.index

        def look_up(name: str) -> Term[Floats]:
            numbers = columns[name] if name in columns else index[name]
            return self.term(numbers, nodes[int(np.ravel(numbers)[0])].kind)

        with Arrays.quiet():
            found: list[Finding[Floats]] = [finding(self.measure, condition, look_up) for condition in conditions]
            return seen_by_floats(found, self.measure.size, (len(bound), self.count))


def candidates(examined: Examination, wanted: Wanted) -> list[int]:
    """The objects that may serve for a wanted name: made by the student, or given where the task says so. No helper
    within a class tool does.
    """
    first = 0 if wanted.given else examined.given
    return [
        number
        for number in examined.spoken_of
        if number >= first
        and examined.figure.nodes[number].kind in wanted.kinds
        and is_defined(examined.shapes[number])
    ]


def binding_order(task: Task, choices: dict[str, int]) -> list[str]:
    """Wanted names in an order that makes conditions due early: few choices first, then what they are tied to."""
    order: list[str] = []
    left = [wanted.name for wanted in task.wanted]
    parts = [part.names & set(left) for condition in task.conditions for part in split(condition)]
    while left:
        bound = set(order)
        name = min(left, key=lambda n: (-sum(n in part and part <= bound | {n} for part in parts), choices[n]))
        order.append(name)
        left.remove(name)
    return order


def split(condition: Condition) -> list[Condition]:
    """A condition on many terms as conditions on as few of them as it can be about; any other as it is."""
    relation = RELATIONS[condition.rel]
    if not relation.many:
        return [condition]
    first, several = condition.of[: relation.fixed], condition.of[relation.fixed :]
    return [replace(condition, of=(*first, *terms)) for terms in combinations(several, relation.many)]


def twins(task: Task) -> dict[str, set[str]]:
    """For each wanted name, those that may trade places with it without changing the task."""
    meaning = canonical(task.conditions)
    found: dict[str, set[str]] = {wanted.name: set() for wanted in task.wanted}
    for a, b in combinations(task.wanted, 2):
        if (a.kind, a.given) != (b.kind, b.given):
            continue
        swap = {a.name: b.name, b.name: a.name}
        if canonical([condition.renamed(swap) for condition in task.conditions]) == meaning:
            found[a.name].add(b.name)
            found[b.name].add(a.name)
    return found


def canonical(conditions: Sequence[Condition]) -> list[str]:
    """Conditions in a form that is equal for conditions of one meaning."""
    return sorted(_canonical(condition) for condition in conditions)


def _canonical(condition: Condition) -> str:
    relation = RELATIONS[condition.rel]
    terms = [_canonical_term(term) for term in condition.of]
    places = relation.exchangeable(len(terms))
    free = iter(sorted(terms[place] for place in places))
    terms = [next(free) if index in places else term for index, term in enumerate(terms)]
    return f"{condition.rel} {terms} {condition.ratio}"


def _canonical_term(term: Names) -> str:
    if isinstance(term, str):
        return term
    if len(term) == 3:  # an angle: its legs may trade places
        p, vertex, q = term
        return f"{vertex} {sorted((p, q))}"
    return str(sorted(term))
