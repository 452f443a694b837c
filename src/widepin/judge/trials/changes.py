"""Changes of a work, many of them tried in floats at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from operator import itemgetter

import numpy as np

from ...plane.arrays import ARRAYS, Arrays, Floats
from ...plane.figure import Evaluation, Link
from ...plane.shapes import Shape, mapped
from ...plane.steps import Step
from .examination import Examination
from .findings import Look

Change = tuple[int, Step]
"""A step in the place of the one with this number. It may be made from any object that is not made from it."""


Tried = tuple[Change, ...]
"""Changes of one step or several that are made together."""


class Changes:
    """Tries changes of the steps that an answer is made from, in some positions (width, n) of the figure."""

    def __init__(self, examined: Examination, answer: Mapping[str, int], positions: Floats):
        self.examined = examined
        self.answer = answer
        self.count = positions.shape[1]
        self.needed = examined.needs(answer)
        self.evaluation = Evaluation(examined.figure, positions)
        self.children: dict[int, list[int]] = {}
        for number, node in enumerate(examined.figure.nodes):
            for parent in node.parents:
                self.children.setdefault(parent, []).append(number)

    def dependents(self, number: int) -> set[int]:
        """The objects that are made from this one, itself included."""
        found: set[int] = set()
        waiting = [number]
        while waiting:
            one = waiting.pop()
            if one not in found:
                found.add(one)
                waiting += self.children.get(one, [])
        return found

    def in_order(self, changes: Sequence[Change]) -> tuple[Change, ...] | None:
        """The changes in an order in which each is made from what is there; None where each needs the other."""
        if len(changes) < 2:
            return tuple(changes)
        first, second = changes
        for one, other in ((first, second), (second, first)):
            # Made from what hangs on the other, a step has to wait for it.
            if not self._parents(one) & self.dependents(other[0]):
                return one, other
        return None

    def _parents(self, change: Change) -> set[int]:
        return self.examined.figure.ancestors(self.examined.figure.index[parent] for parent in change[1].parents)

    def that_stand(self, tries: Sequence[Tried]) -> list[Tried]:
        """Those of the tries with which floats see the answer right in all the positions.

        All must change the same steps in the same order, as ``in_order`` gives it.
        """
        look = self.evaluate(tries)
        fails = np.any((look.undefined | look.wrong).reshape(len(tries), -1), axis=1)
        return [one for one, failed in zip(tries, fails.tolist(), strict=True) if not failed]

    def evaluate(self, tries: Sequence[Tried]) -> Look:
        """What floats see of the answer with each of these in turn: one look, try by try."""
        figure = self.examined.figure
        numbers = [number for number, _ in tries[0]]
        hanging = [self.dependents(number) for number in numbers]
        links = [[figure.link(step) for _, step in changes] for changes in tries]
        parents = [parent for of_try in links for link in of_try for parent in link.parents]
        relevant = self.needed | figure.ancestors(parents)
        tiled = list(self.evaluation.shapes(relevant))
        for number in relevant:
            tiled[number] = self._tiled(tiled[number], len(tries))
        positions = np.tile(self.evaluation.positions, len(tries))
        with Arrays.quiet():
            for index, number in enumerate(numbers):
                tiled[number] = self._in_each_try([of_try[index] for of_try in links], tiled)
                # What the next change is made into, and all that hangs on it, waits for it.
                waiting = set().union(*hanging[index + 1 :]) | set(numbers)
                for other in sorted((hanging[index] & relevant) - waiting):
                    tiled[other] = figure.nodes[other].link.made(ARRAYS, tiled, positions)
        return self.examined.evaluate(tiled, self.answer)

    def _in_each_try(self, links: Sequence[Link], shapes: Sequence[Shape[Floats]]) -> Shape[Floats]:
        """An object that each try makes in its own way, in the columns of all tries."""
        made = []
        for at, link in enumerate(links):
            columns = slice(at * self.count, (at + 1) * self.count)
            sources = [mapped(shapes[n], itemgetter(columns)) for n in link.parents]
            made.append(link.functions.in_arrays(sources, tuple(range(len(sources))), ()))
        rows = ([np.broadcast_to(value, (self.count,)) for value in shape] for shape in made)
        whole: Shape[Floats] = type(made[0])(*map(np.concatenate, zip(*rows, strict=True)))
        return whole

    def _tiled(self, shape: Shape[Floats], times: int) -> Shape[Floats]:
        return mapped(shape, lambda value: np.tile(np.broadcast_to(value, (self.count,)), times))
