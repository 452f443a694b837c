"""From a board of the judge to the figure of a proof: positions, objects, and what their making says by itself.

Steps say which points lie on which lines and circles, which lengths are radii of one circle, and what each tool
guarantees.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from itertools import combinations, permutations

import numpy as np

from ..judge.trials.examination import Examination
from ..plane.figure import is_defined
from ..plane.shapes import LINES, Kind
from .drawn import Drawn
from .facts import Fact
from .makings import MAKINGS

POSITIONS = 10
"""In which facts are looked at before they are derived; the checker looks at others."""


def drawn_in(examined: Examination, numbers: Iterable[int], columns: Sequence[int], further: bool = False) -> Drawn:
    """Objects of a board by their numbers, in some columns of its first batch of positions, or of the further ones."""
    evaluation = examined.further_evaluation if further else examined.evaluation
    wanted = sorted(numbers)
    shapes = evaluation.shapes(examined.figure.ancestors(wanted))
    at = np.array(columns)
    found = Drawn({}, {}, {}, float(examined.size))
    count = evaluation.positions.shape[1]
    for number in sorted(wanted, key=lambda n: examined.submitted.get(examined.figure.nodes[n].step.id, n)):
        node = examined.figure.nodes[number]
        values = [np.broadcast_to(np.asarray(value, dtype=float), (count,))[at] for value in shapes[number]]
        id_ = node.step.id
        found.steps.append(node.step)
        if len(examined.task.done) <= number < examined.last:
            found.own.add(id_)
        if node.kind is Kind.POINT:
            found.points[id_] = values[0] + 1j * values[1]
        elif node.kind in LINES:
            if node.kind is not Kind.LINE:
                found.bounded.add(id_)
            found.lines[id_] = (values[0] + 1j * values[1], values[2] + 1j * values[3])
        else:
            found.circles[id_] = (values[0] + 1j * values[1], np.sqrt(values[2]))
    for number in wanted:
        step = examined.figure.nodes[number].step
        MAKINGS[step.make].says(found, step.id, step.sources)
    _unite_lines(found)
    _radii(found)
    return found


def columns_where_all_is(examined: Examination, numbers: Iterable[int], further: bool = False) -> list[int]:
    """Columns of large movements in which all these objects exist, spread over the batch."""
    evaluation = examined.further_evaluation if further else examined.evaluation
    batch = examined.further if further else examined.batch
    wanted = list(numbers)
    shapes = evaluation.shapes(examined.figure.ancestors(wanted))
    count = batch.positions.shape[1]
    there = np.ones(count, dtype=bool)
    for number in wanted:
        there &= np.broadcast_to(is_defined(shapes[number]), (count,))
    large = np.flatnonzero(there & batch.in_group("large"))
    every = large if len(large) >= POSITIONS else np.flatnonzero(there)
    step = max(1, len(every) // POSITIONS)
    return [int(column) for column in every[::step][:POSITIONS]]


def put_model(found: Drawn, examined: Examination, columns: Sequence[int], further: bool = False) -> None:
    """Where the points of the sample solution lie, so that the work's own can be told to be these."""
    figure = examined.figure
    evaluation = examined.further_evaluation if further else examined.evaluation
    numbers = [n for n in range(examined.last, len(figure.nodes)) if figure.nodes[n].kind is Kind.POINT]
    shapes = evaluation.shapes(figure.ancestors(numbers))
    count = evaluation.positions.shape[1]
    for number in numbers:
        x, y = (np.broadcast_to(np.asarray(value, dtype=float), (count,))[list(columns)] for value in shapes[number])
        found.model_points[figure.nodes[number].step.id] = x + 1j * y


def _unite_lines(found: Drawn) -> None:
    """Lines that share two points are one: a segment, the line through its ends, a ray along it."""
    united = True
    while united:
        united = False
        for one, other in permutations(found.lines, 2):
            shared = sorted(found.on[one].keys() & found.on[other].keys())
            if any(found.seen("distinct", pair) for pair in combinations(shared, 2)):
                for point in found.on[other].keys() - found.on[one].keys():
                    found.put(one, point, found.on[other][point])
                    united = True


def _radii(found: Drawn) -> None:
    """Radii of one circle, and of circles that were drawn with one radius, are equal."""
    by_radius: dict[tuple[str, str], list[tuple[tuple[str, str], frozenset[str]]]] = defaultdict(list)
    for circle in found.circles:
        if circle not in found.centre:
            continue
        centre = found.centre[circle]
        group = by_radius[found.radius[circle]]
        if centre in found.points:
            for point, steps in found.on[circle].items():
                pair = (min(centre, point), max(centre, point))
                group.append((pair, frozenset({circle}) | (steps & found.own)))
        pair = found.radius[circle]
        if all(point in found.points for point in pair):
            group.append((pair, frozenset({circle})))
    for group in by_radius.values():
        seen: dict[tuple[str, str], frozenset[str]] = {}
        for pair, steps in group:
            seen[pair] = min(seen.get(pair, steps), steps, key=len)
        if len(seen) > 1:
            found.radii.append(seen)


def after_making(found: Drawn, examined: Examination, numbers: Iterable[int]) -> Iterator[tuple[Fact, frozenset[str]]]:
    """What tools say of points that came to lie on what they gave: bisectors, reflections."""
    for number in sorted(numbers):
        step = examined.figure.nodes[number].step
        yield from MAKINGS[step.make].says_later(found, step.id, step.sources)
