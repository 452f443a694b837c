"""Equalities that know their reasons: classes of things that are equal, and the cheapest chain between two of them.

A link may also say *turned*: of two directions that they stand at right angles. Two turns make none.
"""

from __future__ import annotations

import heapq
from collections import defaultdict
from collections.abc import Callable, Hashable, Iterator
from itertools import count
from typing import Any

from .facts import Fact

Cost = Callable[[Fact], int]


class Equalities:
    """Things that are equal, with the facts that say so. Facts are numbered in the order in which they came."""

    def __init__(self) -> None:
        self._parent: dict[Hashable, tuple[Hashable, int]] = {}
        self._links: dict[Hashable, list[tuple[Hashable, int, Fact, int]]] = defaultdict(list)

    def _find(self, one: Hashable) -> tuple[Hashable, int]:
        turn, at, path = 0, one, []
        while (up := self._parent.get(at)) is not None:
            path.append((at, turn))
            at, turn = up[0], turn ^ up[1]
        for passed, before in path:
            self._parent[passed] = (at, turn ^ before)
        return at, turn

    def __iter__(self) -> Iterator[Any]:
        """Everything that is equal to something."""
        return iter(list(self._links))

    def are(self, one: Hashable, other: Hashable, turned: int = 0) -> bool:
        """Whether two things are known to be equal, or to be turned."""
        (root, turn), (second, other_turn) = self._find(one), self._find(other)
        return root == second and turn ^ other_turn == turned

    def class_of(self, one: Hashable) -> Hashable:
        """What stands for all that is equal to something; not to be asked where things are turned."""
        return self._find(one)[0]

    def link(self, one: Hashable, other: Hashable, fact: Fact, stamp: int, turned: int = 0) -> None:
        """Two things are equal, or turned, because of a fact."""
        self._links[one].append((other, turned, fact, stamp))
        self._links[other].append((one, turned, fact, stamp))
        (root, turn), (second, other_turn) = self._find(one), self._find(other)
        if root != second:
            self._parent[root] = (second, turn ^ other_turn ^ turned)

    def chain(self, one: Hashable, other: Hashable, before: int, cost: Cost, turned: int = 0) -> list[Fact] | None:
        """The cheapest facts from before a stamp by which two things are equal or turned; None where there are none."""
        order = count()
        waiting: list[tuple[int, int, Hashable, int, list[Fact]]] = [(0, next(order), one, 0, [])]
        done: set[tuple[Hashable, int]] = set()
        while waiting:
            spent, _n, at, turn, facts = heapq.heappop(waiting)
            if (at, turn) in done:
                continue
            done.add((at, turn))
            if at == other and turn == turned:
                return facts
            for following, way, fact, stamp in self._links[at]:
                if stamp < before and (following, turn ^ way) not in done:
                    step = 0 if fact in facts else cost(fact)
                    heapq.heappush(waiting, (spent + step, next(order), following, turn ^ way, [*facts, fact]))
        return None
