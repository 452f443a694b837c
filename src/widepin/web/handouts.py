"""Handouts: a construction on paper, a picture and a sentence for every step; and a class wall."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from typing import Any

from flask import Response, request

from ..documents.construction import read_steps
from ..documents.svg import picture
from ..documents.words import Words, instruction, seals
from ..judge.task import Task
from ..plane.steps import Step
from ..school.models import Assignment
from ..school.wall import Place
from .printing import printed

SIGNS = {"good": "✓", "half": "~", "bad": "×"}
"""What stands before a seal in print, where there is no colour."""


def handout(task: Task, steps: Sequence[Step], answer: Collection[str], title: str, whose: str) -> Response:
    """A construction step by step. With ``arcs`` in the address, circles are short arcs as drawn by hand."""
    arcs = "arcs" in request.args
    rows = [
        {
            "picture": picture(task.done, steps[: number + 1], (), step.id, arcs, frame=steps),
            "words": instruction(step),
        }
        for number, step in enumerate(steps)
    ]
    return printed(
        title,
        "handout.html",
        title=title,
        whose=whose,
        text=task.text,
        wanted=Words(task).wanted(),
        conditions=Words(task).conditions(),
        first=picture(task.done, steps, answer, None, arcs),
        steps=rows,
    )


def wall_on_paper(assignment: Assignment, task: Task, places: Sequence[Place]) -> Response:
    """The works of a class on paper, with their seals."""
    rows: list[dict[str, Any]] = []
    for place in places:
        if not place.figure:
            continue
        best = place.standing.best
        given, start, own = (read_steps(place.figure[part]) for part in ("given", "start", "steps"))
        rows.append(
            {
                "picture": picture([*given, *start], own, place.figure.get("answer", ())),
                "words": place.student.name,
                "seals": [
                    f"{SIGNS.get(state, '')} {word}" for word, state, _ in seals(best.outcome, best.moves, task.budget)
                ]
                if best
                else ["begun"],
            }
        )
    return printed(
        f"{assignment.school_class.name}, {task.title}",
        "handout.html",
        title=task.title,
        whose=assignment.school_class.name,
        text="",
        first=picture(task.done, ()),
        steps=rows,
    )
