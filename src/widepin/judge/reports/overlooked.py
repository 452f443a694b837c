"""Right answers that a student has overlooked: another object than the one pointed out, an intersection that is not
marked.
"""

from __future__ import annotations

from itertools import combinations

import numpy as np

from ...plane.arrays import ARRAYS, Arrays
from ...plane.shapes import Kind, Point
from ...plane.steps import Step
from ...plane.tolerances import SAME
from ..task import Work
from ..trials.answers import best_exact, best_trial
from ..trials.examination import Examination
from ..trials.search import search
from ..verdict import Outcome

MAX_CURVES, MAX_UNMARKED = 14, 60
"""Curves whose intersections are looked at, the last ones drawn, and how many of these."""

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
    more = Examination(examined.task, (*examined.steps, *extra))
    marked = {more.figure.index[step.id] for step in extra}
    answers = [answer for answer in search(more, exact=True).answers if marked & set(answer.values())]
    answers.sort(key=lambda one: len(marked & set(one.values())))
    best = best_trial(more, answers[:MAX_TRIED])
    if best is None or not best.outcome.is_right_as_drawn:
        return ()
    steps = {step.id: step for step in extra}
    ids = more.ids_of(best.answer)
    return tuple(
        Step(name, "intersection", steps[id_].sources, pick=steps[id_].pick)
        for name, id_ in ids.items()
        if id_ in steps
    )


def _intersections(examined: Examination) -> list[Step]:
    """Intersections of drawn curves where no point lies, as steps."""
    nodes, size = examined.figure.nodes, float(examined.size)
    curves = examined.in_submitted_order(n for n in range(examined.last) if nodes[n].kind is not Kind.POINT)[
        -MAX_CURVES:
    ]
    there = [shape for shape in examined.shapes[: examined.last] if isinstance(shape, Point)]
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
