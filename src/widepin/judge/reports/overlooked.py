"""Right answers that a student has overlooked: another object than the one pointed out, an intersection that is not
marked.
"""

from __future__ import annotations

from itertools import combinations

import numpy as np

from ...plane.arrays import ARRAYS, Arrays
from ...plane.intersections import Choice
from ...plane.shapes import Kind, Point
from ...plane.steps import Step
from ...plane.tolerances import SAME
from ..positions.references import passes_through
from ..task import Work
from ..trials.answers import best_exact, best_trial
from ..trials.examination import Examination
from ..trials.search import search
from ..verdict import Outcome

MAX_CURVES, MAX_UNMARKED = 14, 60
"""Curves whose intersections are looked at, those that are made of the most, and how many of these."""

MAX_TRIED = 4
"""Answers with unmarked intersections that are tried."""


def right_instead(examined: Examination, work: Work, outcome: Outcome) -> dict[str, str]:
    """Wanted name -> the object that would be right, for those where the student pointed out another one; {} if there
    is none.
    """
    if work.answer is None or outcome.is_right_as_drawn:
        return {}
    found, *_ = best_exact(examined, work)
    if found is None or not found.outcome.is_right_as_drawn:
        return {}
    return {name: id_ for name, id_ in examined.ids_of(found.answer).items() if work.answer[name] != id_}


def unmarked(examined: Examination, outcome: Outcome) -> tuple[Step, ...]:
    """Intersections that would be right if they were marked, under the wanted names, where nothing on the board is
    right.
    """
    points = [wanted.name for wanted in examined.task.wanted if wanted.kind == Kind.POINT]
    if outcome is not Outcome.WRONG or not points:
        return ()
    extra = _intersections(examined)
    if not extra:
        return ()
    more = Examination(examined.task, (*examined.steps, *extra), examined.hidden)
    marked = {more.figure.index[step.id] for step in extra}
    answers = [answer for answer in search(more, exact=True).answers if marked & set(answer.values())]
    answers.sort(key=lambda one: len(marked & set(one.values())))
    best = best_trial(more, answers[:MAX_TRIED])
    if best is None or not best.outcome.is_right_as_drawn:
        return ()
    steps = {step.id: step for step in extra}
    ids = more.ids_of(best.answer)
    return tuple(_named(examined, name, steps[id_]) for name, id_ in ids.items() if id_ in steps)


def _named(examined: Examination, name: str, step: Step) -> Step:
    """An intersection under the name that is asked for: the other one than a point that is marked on both curves, or by
    its number.
    """
    figure = examined.figure
    curves = [figure.index[source] for source in step.sources]
    if any(figure.nodes[curve].kind is Kind.CIRCLE for curve in curves):
        for n in examined.spoken_of:
            if figure.nodes[n].kind is Kind.POINT and all(passes_through(figure, curve, n) for curve in curves):
                reference = figure.nodes[n].step.id
                return Step(name, "intersection", step.sources, choice=Choice.OTHER_THAN, reference=reference)
    return Step(name, "intersection", step.sources, pick=step.pick)


def _intersections(examined: Examination) -> list[Step]:
    """Intersections of drawn curves where no point lies, as steps."""
    nodes, size = examined.figure.nodes, float(examined.size)
    curves = [n for n in examined.spoken_of if nodes[n].kind is not Kind.POINT][-MAX_CURVES:]
    there = [shape for n in examined.spoken_of if isinstance(shape := examined.shapes[n], Point)]
    found: list[Step] = []
    for a, b in combinations(curves, 2):
        for pick in (1, 2) if Kind.CIRCLE in (nodes[a].kind, nodes[b].kind) else (1,):
            step = Step(f"unmarked{len(found)}", "intersection", (nodes[a].step.id, nodes[b].step.id), pick=pick)
            with Arrays.quiet():
                place = examined.figure.link(step).made(ARRAYS, examined.shapes, ())
            x, y = float(place.x), float(place.y)
            if np.isfinite(x) and all(np.hypot(x - p.x, y - p.y) > SAME * size for p in there if np.isfinite(p.x)):
                found.append(step)
            if len(found) >= MAX_UNMARKED:
                return found
    return found
