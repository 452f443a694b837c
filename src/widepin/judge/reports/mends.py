"""Small changes that would make a work sound, each verified by judging the changed work.

For a work whose intersection jumps or vanishes: another way to say which one is meant. For a point placed by eye: the
intersection that it should have been.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations, groupby, islice, product
from operator import itemgetter

import numpy as np

from ...plane.arrays import ARRAYS, Arrays, Floats
from ...plane.figure import is_defined
from ...plane.intersections import Choice, other_intersection
from ...plane.measurement import distance, off_curve
from ...plane.shapes import Circle, Kind, Line, Point, Shape
from ...plane.steps import IllFormed, Step
from ...plane.tolerances import NEAR_BY_EYE, SAME
from ..positions.ordering import sources_first
from ..positions.references import check_references, passes_through
from ..trials.changes import Change, Changes, Tried
from ..trials.examination import Examination, spread
from ..trials.method import needed_intersections, that_may_help
from ..trials.trial import Trial, try_answer
from ..verdict import Mend, Outcome

MAX_STEPS, MAX_CHANGES = 8, 12
"""Steps that are changed, and ways in which each is."""

WAYS_IN_PAIRS, MAX_PAIRS = 4, 64
"""Ways of each step, and pairs in all, that are looked at where no change of one step is enough."""

MAX_JUDGED, MAX_LOOKS = 4, 24
"""Changed works that are judged at most for one work, and times that floats look at changes of the same steps."""

FIRST, MAX_FAILING, MAX_OTHER = 3, 24, 72
"""Failing positions in which floats look at a change, first in a few of them; and others in which it must not spoil the
answer.
"""


def mends(examined: Examination, trial: Trial) -> tuple[Mend, ...]:
    """Changes that make this answer sound: of one step if there are any, else of two at once.

    For each step the change that comes first: the one that says the same most plainly.
    """
    if not trial.failing:
        return ()
    failing = spread(np.array(trial.failing), MAX_FAILING)
    others = spread(np.flatnonzero(trial.look.exact), MAX_OTHER)
    few = Changes(examined, trial.answer, trial.batch.positions[:, failing[:: -(-len(failing) // FIRST)]])
    changes = Changes(examined, trial.answer, trial.batch.positions[:, [*failing, *others]])
    bound = Bound()
    if trial.outcome in (Outcome.SWITCHING, Outcome.FRAGILE):
        proposed = intersections_said_otherwise(examined, trial, few)
    elif trial.outcome in (Outcome.EYEBALLED, Outcome.APPROXIMATE):
        proposed = points_tied_down(examined, trial, few)
    else:
        return ()
    by_step = [list(islice(changes, MAX_CHANGES)) for _, changes in groupby(proposed, key=itemgetter(0))][:MAX_STEPS]
    singles = [(change,) for changes in by_step for change in changes]
    # The first changes of all steps before the second ones of any.
    pairs = [
        pair
        for i, j in sorted(product(range(WAYS_IN_PAIRS), repeat=2), key=sum)
        for a, b in combinations(by_step, 2)
        for pair in product(a[i : i + 1], b[j : j + 1])
    ]
    return (
        sound_ones(examined, trial, (few, changes), singles, bound)
        or sound_ones(examined, trial, (few, changes), pairs[:MAX_PAIRS], bound)[:1]
    )


@dataclass
class Bound:
    """How much may still be tried for a work, whatever is tried."""

    judged: int = MAX_JUDGED
    looks: int = MAX_LOOKS


def sound_ones(
    examined: Examination, trial: Trial, stages: Sequence[Changes], tries: Sequence[Tried], bound: Bound
) -> tuple[Mend, ...]:
    """Those of the changes with which the work is sound; of several that change the same steps the first.

    ``stages``: where floats look at them, few positions first.
    """
    found: dict[tuple[int, ...], Mend] = {}
    for changed in that_stand(stages, tries, bound):
        numbers = tuple(number for number, _ in changed)
        if numbers not in found and bound.judged:
            bound.judged -= 1
            if is_sound(examined, trial, changed):
                found[numbers] = Mend(
                    tuple(sorted((step for _, step in changed), key=lambda step: examined.submitted[step.id]))
                )
    return tuple(found.values())


def that_stand(stages: Sequence[Changes], tries: Sequence[Tried], bound: Bound) -> list[Tried]:
    """Those of the changes with which floats see the work right where it failed, and where it did not; much quicker
    than judging it.
    """
    in_order = [ordered for attempt_made in tries if (ordered := stages[0].in_order(attempt_made)) is not None]
    by_steps: dict[tuple[int, ...], list[Tried]] = {}
    for one in in_order:
        by_steps.setdefault(tuple(number for number, _ in one), []).append(one)
    standing: set[Tried] = set()
    for alike in by_steps.values():
        if not bound.looks:
            break
        bound.looks -= 1
        for stage in stages:
            alike = stage.that_stand(alike) if alike else []
        standing.update(alike)
    return [one for one in in_order if one in standing]


def is_sound(examined: Examination, trial: Trial, changes: Sequence[Change]) -> bool:
    """Whether the work with these steps replaced is sound, with the same answer."""
    steps = list(examined.steps)
    for number, step in changes:
        steps[number - len(examined.task.done)] = step
    steps = sources_first(steps)
    try:
        check_references(examined.task.figure(steps), len(examined.task.done))
    except IllFormed:
        return False
    changed = Examination(examined.task, steps, examined.hidden)
    answer = {name: changed.figure.index[id_] for name, id_ in examined.ids_of(trial.answer).items()}
    return changed.looks_right(answer) and try_answer(changed, answer).outcome is Outcome.SOUND


def intersections_said_otherwise(examined: Examination, trial: Trial, changes: Changes) -> Iterator[Change]:
    """The needed intersections, each by another choice that means the same point as drawn."""
    intersections = needed_intersections(examined, trial)
    helping = that_may_help(examined, trial.answer, changes.evaluation.positions, intersections)
    for number in (number for number in intersections if any(number in of_position for of_position in helping)):
        node, here = examined.figure.nodes[number], examined.shapes[number]
        assert isinstance(here, Point)
        a, b = (examined.shapes[source] for source in node.sources)
        other = other_intersection(ARRAYS, a, b, here)
        points = [
            n
            for n in usable(examined, changes, number)
            if examined.figure.nodes[n].kind is Kind.POINT and is_defined(examined.shapes[n]) and n != node.reference
        ]
        on_both = [n for n in points if all(passes_through(examined.figure, curve, n) for curve in node.sources)]
        far = {n: _distance(examined, n, here) - _distance(examined, n, other) for n in points}
        size = SAME * float(examined.size)
        means_this = {
            Choice.OTHER_THAN: [n for n in on_both if _distance(examined, n, other) < size],
            Choice.FARTHEST_FROM: [n for n in points if far[n] > size],
            Choice.NEAREST_TO: [n for n in points if far[n] < -size],
        }
        for choice, references in means_this.items():
            for reference in references:
                name = examined.figure.nodes[reference].step.id
                changed = replace(node.step, choice=choice, reference=name, pick=1)
                if changed != node.step:
                    yield number, changed


def _distance(examined: Examination, number: int, point: Point[float]) -> float:
    """How far a point of the board lies from another as drawn, in centimetres."""
    there = examined.shapes[number]
    assert isinstance(there, Point)
    return float(distance(ARRAYS, there, point))


def usable(examined: Examination, changes: Changes, number: int) -> list[int]:
    """The objects from which a step may be made: all that are given or the student's, but what is made from it."""
    dependents = changes.dependents(number)
    return [n for n in examined.spoken_of if n not in dependents]


def _as_drawn(examined: Examination, step: Step) -> Point[float]:
    """Where an intersection of objects on the board lies as drawn."""
    with Arrays.quiet():
        place = examined.figure.link(step).made(ARRAYS, examined.shapes, ())
    return Point(float(place.x), float(place.y))


def placed_by_eye(examined: Examination, trial: Trial) -> list[int]:
    """The student's free and sliding points that the answer depends on, the last one first."""
    needed = examined.figure.ancestors(trial.answer.values())
    return [handle.number for handle in reversed(examined.handles) if not handle.given and handle.number in needed]


def points_tied_down(examined: Examination, trial: Trial, changes: Changes) -> Iterator[Change]:
    """Points placed by eye, each as an intersection of curves that pass close by, the closest first."""
    for number in placed_by_eye(examined, trial):
        curves = [n for n in curves_for(examined, changes, number) if _close(examined, number, n)]
        near: list[tuple[float, Step]] = []
        for pair in combinations(curves, 2):
            near += _intersections_near(examined, number, pair)
        for _, step in sorted(near, key=itemgetter(0)):
            yield number, step


def curves_for(examined: Examination, changes: Changes, number: int) -> list[int]:
    """The curves that a point may be attached to."""
    return [n for n in usable(examined, changes, number) if examined.figure.nodes[n].kind is not Kind.POINT]


def ties(examined: Examination, trial: Trial, by_eye: Sequence[str]) -> dict[str, Step]:
    """For points placed by eye, what they lie next to: an intersection of curves, or else a curve."""
    changes = Changes(examined, trial.answer, examined.drawn[:, None])
    numbers = {examined.figure.index[id_] for id_ in by_eye}
    found: dict[str, Step] = {}
    for number, step in points_tied_down(examined, trial, changes):
        if number in numbers:
            found.setdefault(step.id, step)
    for number in sorted(numbers):
        node, point = examined.figure.nodes[number], examined.shapes[number]
        assert isinstance(point, Point)
        apart = {curve: _apart(point, examined.shapes[curve]) for curve in curves_for(examined, changes, number)}
        near = [curve for curve, far in apart.items() if far <= NEAR_BY_EYE * float(examined.size)]
        if near and node.step.make == "free_point":
            closest = min(near, key=apart.__getitem__)
            found.setdefault(
                node.step.id, Step(node.step.id, "point_on", (examined.figure.nodes[closest].step.id,), node.step.at)
            )
    return found


def _apart(point: Point[float], curve: Shape[Floats]) -> float:
    """How far a point lies from a circle, or from a whole line, in centimetres; infinite if it is gone."""
    if not is_defined(curve):
        return math.inf
    assert isinstance(curve, Line | Circle)
    with Arrays.quiet():
        return abs(float(off_curve(ARRAYS, point, curve)))


def _close(examined: Examination, number: int, curve: int) -> bool:
    point = examined.shapes[number]
    assert isinstance(point, Point)
    return _apart(point, examined.shapes[curve]) <= NEAR_BY_EYE * float(examined.size)


def _intersections_near(examined: Examination, number: int, pair: tuple[int, int]) -> list[tuple[float, Step]]:
    node = examined.figure.nodes[number]
    names = tuple(examined.figure.nodes[curve].step.id for curve in pair)
    round_ = any(examined.figure.nodes[curve].kind is Kind.CIRCLE for curve in pair)
    place = examined.shapes[number]
    assert isinstance(place, Point)
    found = []
    for pick in (1, 2) if round_ else (1,):
        step = Step(node.step.id, "intersection", names, pick=pick)
        shape = _as_drawn(examined, step)
        far = float(distance(ARRAYS, shape, place)) / float(examined.size)
        if far <= NEAR_BY_EYE:
            found.append((far, step))
    return found
