"""What a verdict can say beyond its outcome: the raw material that is worded and drawn elsewhere."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import cache

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import Floats
from ...plane.figure import Evaluation
from ...plane.shapes import Shape, mapped
from ...plane.tolerances import ALWAYS_EQUAL, UNCHANGED, VISUAL
from ..conditions import Term
from ..costs.counts import is_move
from ..costs.elementary import Costs, Opening, costs
from ..positions.drags import TRIANGLES
from ..task import Work
from ..trials.examination import Examination, spread
from ..trials.findings import finding, seen_by_floats
from ..trials.search import candidates
from ..trials.trial import Trial
from ..verdict import Break, ConditionReport, Fate, Outcome, Report
from .absent import absent
from .measured import measured
from .mends import mends, placed_by_eye, ties
from .overlooked import right_instead, unmarked
from .provisos import provisos
from .sameness import repeated
from .truths import what_stays_true

FAILING = 3
"""Failing positions in which what is said of objects is looked at as well."""

MOVED = 8
"""Small moves of a point by which it is seen whether the answer hangs on it."""


def report_on(
    examined: Examination,
    work: Work,
    trial: Trial | None,
    found: Break | None,
    declared: Mapping[str, int] | None = None,
) -> Report:
    """Everything worth saying about a work: of its answer where it has one that looks right, else of what was declared
    or comes closest.
    """
    first, last, every = len(examined.task.done), examined.given + examined.own, len(examined.figure.nodes)
    failing = failing_positions(trial)
    again = repeated(examined, failing)
    answer = sorted(trial.answer.values()) if trial else []
    outcome = trial.outcome if trial else Outcome.WRONG
    common = Report(
        instead=right_instead(examined, work, outcome),
        absent=absent(examined, list((work.answer or {}).values())),
        unmarked=unmarked(examined, outcome),
        repeated=again,
        truths=what_stays_true(examined, answer, list(again), failing),
        costs=costs_of(examined, examined.in_submitted_order(range(first, last))),
        model_costs=costs_of(examined, range(last, every)) if every > last else None,
    )
    if trial is None:
        closest = declared or closest_object(examined)
        if closest is None:
            return common
        ids = {name: examined.figure.nodes[number].step.id for name, number in closest.items()}
        return replace(common, closest=ids, conditions=conditions(examined, closest, None))
    guilty = by_eye(examined, trial)
    return replace(
        common,
        conditions=conditions(examined, trial.answer, found),
        shapes=by_shape(examined, trial),
        by_eye=guilty,
        slides={id_: node.step.sources[0] for id_ in guilty if (node := examined.node(id_)).step.make == "point_on"},
        ties=ties(examined, trial, guilty),
        mends=mends(examined, trial),
        provisos=provisos(examined, trial),
    )


def failing_positions(trial: Trial | None) -> list[list[float]]:
    """A few positions in which an answer fails."""
    if trial is None or not trial.failing:
        return []
    return [trial.batch.positions[:, column].tolist() for column in spread(np.array(trial.failing), FAILING)]


def closest_object(examined: Examination) -> dict[str, int] | None:
    """The object that fulfils the most conditions as drawn, with the smallest gaps; where a single one is wanted."""
    if len(examined.task.wanted) != 1:
        return None
    (wanted,) = examined.task.wanted
    best: tuple[float, int] | None = None
    for number in candidates(examined, wanted):
        looks = [
            _look_at(examined, {wanted.name: number}, index, examined.shapes)
            for index in range(len(examined.task.conditions))
        ]
        miss = sum(2.0 * (not holds) + min(1.0, (gap or 0.0) / float(examined.size)) for gap, holds in looks)
        best = min(best or (miss, number), (miss, number))
    return {wanted.name: best[1]} if best else None


def conditions(examined: Examination, answer: Mapping[str, int], found: Break | None) -> tuple[ConditionReport, ...]:
    """For each condition, its largest gap in centimetres as drawn and in the break, and whether it looks fulfilled."""
    at_break = examined.rounded_at(found.position, answer) if found else None
    reports = []
    for index in range(len(examined.task.conditions)):
        drawn_gap, drawn_holds = _look_at(examined, answer, index, examined.shapes)
        break_gap, break_holds = _look_at(examined, answer, index, at_break) if at_break else (None, None)
        values = measured(
            examined.task.conditions[index],
            _one_position(examined, answer, examined.shapes),
            _one_position(examined, answer, at_break) if at_break else None,
        )
        reports.append(ConditionReport(index, bool(drawn_holds), drawn_gap, break_holds, break_gap, values))
    return tuple(reports)


def _one_position(
    examined: Examination, answer: Mapping[str, int], shapes: list[Shape[Floats]]
) -> Callable[[str], Term[float]]:
    """What names stand for in one position, in plain floats."""

    def look(name: str) -> Term[float]:
        number = examined.number(name, answer)
        return Term(mapped(shapes[number], lambda value: float(np.ravel(value)[0])), examined.figure.nodes[number].kind)

    return look


def _look_at(
    examined: Examination, answer: Mapping[str, int], place: int, shapes: list[Shape[Floats]]
) -> tuple[float | None, bool]:
    def look_up(name: str) -> Term[Floats]:
        number = examined.number(name, answer)
        return Term(shapes[number], examined.figure.nodes[number].kind)

    with np.errstate(all="ignore"):
        measure = examined.measure(shapes)
        found = finding(measure, examined.task.conditions[place], look_up)
        gaps, clear = seen_by_floats([found], measure.size, (1,))
        gap, size = float(gaps[0]), float(np.ravel(measure.size)[0])
    return (None, False) if np.isnan(gap) else (gap * size, bool(clear[0]) and gap <= VISUAL)


def by_shape(examined: Examination, trial: Trial) -> dict[str, Fate]:
    """What becomes of the answer in each named shape of the given triangle."""
    found = {}
    for name in TRIANGLES:
        group = trial.look.counts & trial.batch.in_group(f"shape {name}")
        if not group.any():
            continue
        if (trial.look.wrong & group).any():
            found[name] = Fate.GOES_WRONG
        else:
            found[name] = Fate.VANISHES if (trial.look.undefined & group).any() else Fate.HOLDS
    return found


def by_eye(examined: Examination, trial: Trial) -> tuple[str, ...]:
    """The student's own points, free or sliding, that the answer hangs on.

    A point is by eye where moving it alone spoils the answer; a helper that may lie anywhere does not.
    """
    own = examined.in_submitted_order(placed_by_eye(examined, trial))
    if trial.outcome not in (Outcome.EYEBALLED, Outcome.APPROXIMATE) or not own:
        return ()
    group = "small own" if "small own" in trial.batch.groups else "small all"
    alone = trial.look.gap[trial.batch.in_group(group) & trial.look.counts]
    if len(own) == 1 and len(alone):
        # Small movements of the student's own points are movements of this one, and have been looked at.
        return () if np.allclose(alone, trial.gap, atol=UNCHANGED) else (examined.figure.nodes[own[0]].step.id,)
    rng = np.random.default_rng(11)
    moved = np.repeat(examined.drawn[:, None], MOVED * len(own), axis=1)
    for index, number in enumerate(own):
        inputs = examined.figure.nodes[number].inputs
        reach = 0.05 * float(examined.size) if inputs.stop - inputs.start == 2 else 0.05
        columns = slice(index * MOVED, (index + 1) * MOVED)
        moved[inputs, columns] += rng.uniform(-reach, reach, (inputs.stop - inputs.start, MOVED))
    gaps = examined.evaluate(Evaluation(examined.figure, moved).shapes(examined.needs(trial.answer)), trial.answer).gap
    spoilt = [not np.allclose(of_point, trial.gap, atol=UNCHANGED) for of_point in gaps.reshape(len(own), -1)]
    return tuple(examined.figure.nodes[number].step.id for number, bad in zip(own, spoilt, strict=True) if bad)


def costs_of(examined: Examination, numbers: Sequence[int]) -> Costs:
    """What these objects cost, made in this order."""

    @cache
    def length(opening: Opening) -> NDArray[np.float64]:
        (px, py), (qx, qy) = (examined.sample(point) for point in opening)
        return np.asarray(np.hypot(px - qx, py - qy) / float(examined.size))

    def same_opening(a: Opening, b: Opening) -> bool:
        return bool(np.nanmax(np.abs(length(a) - length(b)), initial=0.0) < ALWAYS_EQUAL)

    return costs(examined.figure, numbers, is_move, same_opening)
