"""Under which conditions on points of the student's own a fragile work holds.

The method is right then, and the points may lie anywhere but for some places. Plain conditions on them are looked for
that say exactly where the work holds, one or two; else it is that two curves meet.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, permutations

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import ARRAYS, Arrays, Mask
from ...plane.figure import Evaluation, is_defined
from ...plane.measurement import distance, off_curve
from ...plane.predicates import side
from ...plane.shapes import LINES, Line, Point, Shape
from ..task import Condition, Names
from ..trials.examination import Examination, spread
from ..trials.trial import Trial
from ..verdict import Outcome

MAX_POINTS, MAX_OWN = 5, 3
"""Given points that the student's are compared with, and points of the student's that are looked at."""

LOOKED_AT = 800
"""Positions in which conditions must say where the work holds."""

AGREES = 0.995
"""Share of them in which they must; on the very limit floats may see either."""

Shapes = Sequence[Shape[NDArray[np.float64]]]


@dataclass(frozen=True)
class _Tried:
    """A condition, and in which of the positions it holds."""

    condition: Condition
    holds: Mask


def provisos(examined: Examination, trial: Trial) -> tuple[Condition, ...]:
    """What must be true of the student's own points for a fragile work to hold: at most two conditions that must both
    be true. None where the work fails in other places too, or where no point of the student's has to do with it.

    Relations are ``longer_than_half``, ``longer`` and ``shorter`` (of two pairs of points), ``farther_than_line`` (a
    pair of points, a line: the first is farther from the second than that is from the line), ``nearer`` (a point, to
    one, than to another), ``same_side`` and ``opposite_side``, ``meet`` (of two curves).
    """
    if trial.outcome is not Outcome.FRAGILE:
        return ()
    needed = examined.figure.ancestors(trial.answer.values())
    own = [handle.number for handle in examined.handles if not handle.given and handle.number in needed]
    if not own or len(own) > MAX_OWN or not _hangs_on_own(trial):
        return ()
    columns = spread(np.flatnonzero(trial.look.counts & trial.batch.in_group("large")), LOOKED_AT)
    right = trial.look.exact[columns]
    positions = trial.batch.positions[:, columns]
    plain = [_Tried(condition, holds) for condition, holds in conditions_on(examined, own, positions)]
    meeting = [_Tried(condition, holds) for condition, holds in meetings(examined, own, sorted(needed), positions)]
    for tried in (plain, meeting, [*plain, *meeting]):
        found = _that_say_all(tried, right)
        if found:
            return tuple(one.condition for one in found)
    return ()


def _hangs_on_own(trial: Trial) -> bool:
    """Whether it is by the student's own points alone that the work holds in some positions and fails in others."""
    columns = np.flatnonzero(trial.look.counts & trial.batch.in_group("large own"))
    right = trial.look.exact[columns]
    return bool(right.any() and not right.all())


def _that_say_all(tried: Sequence[_Tried], right: Mask) -> tuple[_Tried, ...]:
    """The one condition, or two, that hold just where the work is right; those that come first."""
    may_fail = 1 - AGREES
    needed = [one for one in tried if not one.holds.all() and np.mean(right & ~one.holds) <= may_fail]
    for one in needed:
        if np.mean(one.holds != right) <= may_fail:
            return (one,)
    for one, other in combinations(needed, 2):
        if np.mean((one.holds & other.holds) != right) <= may_fail:
            return one, other
    return ()


def conditions_on(
    examined: Examination, own: Sequence[int], positions: NDArray[np.float64]
) -> Iterator[tuple[Condition, Mask]]:
    """Conditions on points of the student's, the plainest first, and in which of the positions each holds."""
    nodes = examined.figure.nodes
    given = examined.given_points[:MAX_POINTS]
    lines = [n for n in range(examined.given) if nodes[n].kind in LINES]
    shapes = Evaluation(examined.figure, positions).shapes(examined.figure.ancestors([*own, *given, *lines]))

    def name(n: int) -> str:
        return nodes[n].step.id

    for number in own:
        for a, b in permutations(given, 2):
            mine, between = _far(shapes, number, a), _far(shapes, a, b)
            pairs: tuple[Names, Names] = ((name(number), name(a)), (name(a), name(b)))
            yield Condition("longer_than_half", pairs), mine > between / 2
            yield Condition("longer", pairs), mine > between
            yield Condition("shorter", pairs), mine < between
            yield Condition("nearer", (name(number), name(a), name(b))), mine < _far(shapes, number, b)
        for line in lines:
            yield from _beside_a_line(shapes, name, number, line, given)
    for u, v in permutations(own, 2):
        for p in given:
            pairs = ((name(u), name(p)), (name(p), name(v)))
            yield Condition("longer_than_half", pairs), _far(shapes, u, p) > _far(shapes, v, p) / 2
            yield Condition("longer", pairs), _far(shapes, u, p) > _far(shapes, v, p)
    for u, v in combinations(own, 2):
        for a, b in combinations(given, 2):
            mine, between = _far(shapes, u, v), _far(shapes, a, b)
            pairs = ((name(u), name(v)), (name(a), name(b)))
            yield Condition("longer_than_half", pairs), mine > between / 2
            yield Condition("longer", pairs), mine > between
            yield Condition("shorter", pairs), mine < between


def _beside_a_line(
    shapes: Shapes, name: Callable[[int], str], number: int, line: int, given: Sequence[int]
) -> Iterator[tuple[Condition, Mask]]:
    drawn, own = shapes[line], shapes[number]
    assert isinstance(drawn, Line) and isinstance(own, Point)
    for p in given:
        other = shapes[p]
        assert isinstance(other, Point)
        with Arrays.quiet():
            off = np.abs(off_curve(ARRAYS, other, drawn))
        yield (
            Condition("farther_than_line", ((name(number), name(p)), name(line))),
            _far(shapes, number, p) > off,
        )
        sides = side(drawn, own) * side(drawn, other)
        yield Condition("same_side", (name(line), name(number), name(p))), sides > 0
        yield Condition("opposite_side", (name(line), name(number), name(p))), sides < 0


def _far(shapes: Shapes, p: int, q: int) -> NDArray[np.float64]:
    a, b = shapes[p], shapes[q]
    assert isinstance(a, Point) and isinstance(b, Point)
    return np.asarray(distance(ARRAYS, a, b))


def meetings(
    examined: Examination, own: Sequence[int], needed: Sequence[int], positions: NDArray[np.float64]
) -> Iterator[tuple[Condition, Mask]]:
    """That the curves of an intersection meet which hangs on the student's points, and in which positions they do."""
    nodes, count = examined.figure.nodes, positions.shape[1]
    shapes = Evaluation(examined.figure, positions).shapes(needed)
    seen: set[frozenset[str]] = set()
    for number in needed:
        node = nodes[number]
        is_named = examined.hidden.isdisjoint(node.step.sources)
        hangs = not examined.figure.ancestors([number]).isdisjoint(own)
        if node.step.make == "intersection" and is_named and hangs and frozenset(node.step.sources) not in seen:
            seen.add(frozenset(node.step.sources))
            yield Condition("meet", node.step.sources), np.broadcast_to(is_defined(shapes[number]), (count,))
