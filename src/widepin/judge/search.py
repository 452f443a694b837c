"""Which of the student's objects are meant as the answer.

A backtracking search binds one wanted name at a time, and tries all objects for it at once, in arrays. A condition is
looked at as soon as its terms are bound; conditions on many terms are split into parts on few for that. Names that
may trade places (three corners of an equilateral triangle) are bound in one order only.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations

import numpy as np

from ..plane.arrays import Arrays
from ..plane.figure import is_defined
from .board import VISUAL, Board, finding, seen_by_floats
from .conditions import RELATIONS, Term
from .task import Condition, Names, Task, Wanted

MOST_LOOKS = 60_000
"""Bound on the effort: how many bindings may be looked at."""

MOST_ANSWERS = 48
"""Bound on how many answers that look right are kept."""


@dataclass
class Search:
    """The answers that look right as drawn, and whether the search came to its end."""

    answers: list[dict[str, int]] = field(default_factory=list)
    stopped: bool = False


def search(board: Board) -> Search:
    """All assignments of made objects to wanted names that are right to the eye as drawn."""
    return _Searching(board).run()


class _Searching:
    def __init__(self, board: Board):
        task = board.task
        self.board = board
        self.found = Search()
        self.looks = 0
        self.measure = board.measure(board.shapes)
        self.candidates = {wanted.name: candidates(board, wanted) for wanted in task.wanted}
        self.order = binding_order(task, {name: len(found) for name, found in self.candidates.items()})
        self.twins = twins(task)
        parts = [part for condition in task.conditions for part in split(condition)]
        wanted_names = set(self.order)
        self.due: dict[str, list[Condition]] = {name: [] for name in self.order}
        for part in parts:
            names = part.names & wanted_names
            if names:
                self.due[max(names, key=self.order.index)].append(part)

    def run(self) -> Search:
        self.bind(0, {})
        return self.found

    def bind(self, depth: int, answer: dict[str, int]) -> None:
        """Bind the name at this depth to every object that fits, and go on with each."""
        if depth == len(self.order):
            if self.board.looks_right(answer):
                self.found.answers.append(dict(answer))
            self.found.stopped |= len(self.found.answers) >= MOST_ANSWERS
            return
        name = self.order[depth]
        taken = set(answer.values())
        floor = max((answer[twin] for twin in self.twins[name] if twin in answer), default=-1)
        numbers = [n for n in self.candidates[name] if n not in taken and n > floor]
        for number in self.fitting(name, numbers, answer):
            self.bind(depth + 1, {**answer, name: number})
            if self.found.stopped:
                return

    def fitting(self, name: str, numbers: Sequence[int], answer: dict[str, int]) -> Iterator[int]:
        """Those of the objects that satisfy what can be looked at once ``name`` is bound to them."""
        self.looks += len(numbers)
        if self.looks > MOST_LOOKS:
            self.found.stopped = True
            return
        nodes = self.board.figure.nodes
        for kind in sorted({nodes[n].kind for n in numbers}):
            alike = [n for n in numbers if nodes[n].kind is kind]
            fits = self.fits(name, alike, answer)
            yield from (n for n, good in zip(alike, fits, strict=True) if good)

    def fits(self, name: str, alike: Sequence[int], answer: dict[str, int]) -> Sequence[bool]:
        """Which objects of one kind satisfy the conditions due at ``name``, to the eye."""
        shapes, nodes = self.board.shapes, self.board.figure.nodes
        stack = type(shapes[alike[0]])(*np.array([shapes[n] for n in alike]).T)
        kind = nodes[alike[0]].kind

        def look_up(other: str) -> Term:
            if other == name:
                return Term(stack, kind)
            number = self.board.number(other, answer)
            return Term(shapes[number], nodes[number].kind)

        with Arrays.quiet():
            found = [finding(self.measure, condition, look_up) for condition in self.due[name]]
            gap, clear = seen_by_floats(found, self.measure.size, (len(alike),))
        return [bool(good) for good in clear & (gap <= VISUAL)]


def candidates(board: Board, wanted: Wanted) -> list[int]:
    """The objects that may serve for a wanted name: made by the student, or given where the task says so."""
    first = 0 if wanted.given else board.given
    return [
        number
        for number in range(first, board.given + board.own)
        if board.figure.nodes[number].kind in wanted.kinds and is_defined(board.shapes[number])
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
    """A condition on many terms as conditions on two of them each; any other as it is."""
    if not RELATIONS[condition.rel].many:
        return [condition]
    return [replace(condition, of=pair) for pair in combinations(condition.of, 2)]


def twins(task: Task) -> dict[str, set[str]]:
    """For each wanted name, those that may trade places with it without changing the task."""
    meaning = canonical(task.conditions)
    found: dict[str, set[str]] = {wanted.name: set() for wanted in task.wanted}
    for a, b in combinations(task.wanted, 2):
        if (a.kind, a.given) != (b.kind, b.given):
            continue
        swap = {a.name: b.name, b.name: a.name}
        if canonical([renamed(condition, swap) for condition in task.conditions]) == meaning:
            found[a.name].add(b.name)
            found[b.name].add(a.name)
    return found


def renamed(condition: Condition, names: dict[str, str]) -> Condition:
    """A condition with names replaced."""

    def change(term: Names) -> Names:
        return names.get(term, term) if isinstance(term, str) else tuple(names.get(n, n) for n in term)

    return replace(condition, of=tuple(change(term) for term in condition.of))


def canonical(conditions: Sequence[Condition]) -> list[str]:
    """Conditions in a form that is equal for conditions of one meaning."""
    return sorted(_canonical(condition) for condition in conditions)


def _canonical(condition: Condition) -> str:
    relation = RELATIONS[condition.rel]
    terms = [_canonical_term(term) for term in condition.of]
    places = tuple(range(len(terms))) if relation.many else relation.symmetric
    free = iter(sorted(terms[place] for place in places))
    terms = [next(free) if place in places else term for place, term in enumerate(terms)]
    return f"{condition.rel} {terms} {condition.ratio}"


def _canonical_term(term: Names) -> str:
    if isinstance(term, str):
        return term
    if len(term) == 3:  # an angle: its legs may trade places
        p, vertex, q = term
        return f"{vertex} {sorted((p, q))}"
    return str(sorted(term))
