"""Handouts: a construction on paper, a picture and a sentence for every step; and a class wall."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from typing import Any

from flask import Response, request

from ..documents.construction import read_steps
from ..documents.svg import picture
from ..documents.words import Words, instruction, instruction_to_use, seals
from ..judge.task import Task, Use
from ..plane.steps import Step
from ..school.models import Assignment
from ..school.sheets import names_given, renamed
from ..school.wall import Group, Place
from .printing import printed

SIGNS = {"good": "✓", "half": "~", "bad": "×"}
"""What stands before a seal in print, where there is no colour."""


def handout(
    task: Task,
    steps: Sequence[Step],
    answer: Collection[str],
    title: str,
    whose: str,
    hidden: Collection[str] = (),
    uses: Sequence[Use] = (),
) -> Response:
    """A construction step by step. With ``arcs`` in the address, circles are short arcs as drawn by hand.

    ``hidden``: steps that are not drawn but when they are told of. What an instrument made at once is one step.
    """
    arcs = "arcs" in request.args
    within = {id_: use for use in uses for id_ in use.ids}
    rows = [
        {
            "picture": picture(task.done, steps[: number + 1], (), step.id, arcs, frame=steps, hidden=hidden),
            "words": instruction_to_use(within[step.id], steps) if step.id in within else instruction(step),
        }
        for number, step in enumerate(steps)
        if step.id not in within or step.id == within[step.id].gives[-1]
    ]
    return printed(
        title,
        "handout.html",
        title=title,
        whose=whose,
        text=task.text,
        wanted=Words(task).wanted(),
        conditions=Words(task).conditions(),
        first=picture(task.done, steps, answer, None, arcs, hidden=hidden),
        steps=rows,
    )


def wall_on_paper(assignment: Assignment, task: Task, groups: Sequence[Group]) -> Response:
    """The works of a class on paper, in groups, with their seals."""
    rows: list[dict[str, Any]] = []
    for group in groups:
        cards = [card_on_paper(place, task.budget) for place in group.places if place.figure]
        if cards:
            cards[0]["heading"] = f"{group.heading}: {len(cards)}"
        rows += cards
    return printed(
        f"{assignment.school_class.name}, {task.title}",
        "handout.html",
        title=task.title,
        whose=assignment.school_class.name,
        text="",
        first=picture(task.done, ()),
        steps=rows,
    )


def card_on_paper(place: Place, budget: int | None) -> dict[str, Any]:
    """A student's work on the wall: picture, name, seals."""
    best, figure = place.standing.best, place.figure
    given, start, own = (read_steps(figure[part]) for part in ("given", "start", "steps"))
    shown = [
        f"{SIGNS.get(state, '')} {word}" for word, state, _ in (seals(best.outcome, best.moves, budget) if best else ())
    ]
    return {
        "picture": picture([*given, *start], own, figure.get("answer", ()), hidden=hidden_in(figure)),
        "words": place.student.name,
        "seals": shown or ["begun"],
    }


def under_labels(document: dict[str, Any]) -> tuple[dict[str, Any], dict[str, str]]:
    """The document of an attempt with the student's objects under the names that the student gave them, and these."""
    every = [step for part in ("given", "start", "steps") for step in document[part]]
    own = {step["id"] for step in document["steps"]}
    names = {id_: label for id_, label in names_given(every).items() if id_ in own}
    uses = [
        use | {part: [names.get(id_, id_) for id_ in use[part]] for part in ("ids", "gives")}
        for use in document.get("uses", [])
    ]
    return {**document, "steps": renamed(document["steps"], names), "uses": uses}, names


def hidden_in(figure: dict[str, Any]) -> set[str]:
    """The ids of the hidden objects of a figure in JSON."""
    return {step["id"] for part in ("given", "start", "steps") for step in figure[part] if step.get("hidden")}
