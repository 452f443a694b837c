"""Handouts: a construction on paper, a picture and a sentence for every step; and a class overview."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence

from flask import Response, request

from ...documents.reading import JsonObject
from ...school.lessons.overview import Place
from ...school.lessons.overview_groups import Group
from ...school.models import Assignment
from ...school.tasks.sheets import names_given, renamed
from .printing import printed


def handout(
    task: JsonObject,
    figure: JsonObject,
    answer: Collection[str],
    title: str,
    whose: str,
    proved: Mapping[str, str] | None = None,
    elements: bool = True,
    shows: Sequence[JsonObject] | None = None,
) -> Response:
    """A construction step by step. With ``arcs`` in the address, circles are short arcs as drawn by hand.

    ``task``: its document. ``figure``: given, start and steps in JSON, and uses of class tools. ``proved``: wanted
    name -> id where the construction is sound and its proof is to be printed too; ``elements``: with places in the
    Elements; ``shows``: conditions that are proved instead of those of the task, if any, where the construction is its
    sample solution, which nobody has judged yet.
    """
    return printed(
        title,
        "construction",
        {
            "task": task,
            "figure": {part: figure.get(part, []) for part in ("given", "start", "steps", "uses")},
            "answer": list(answer),
            "proved": dict(proved or {}),
            "elements": elements,
            "shows": None if shows is None else list(shows),
            "title": title,
            "whose": whose,
            "arcs": "arcs" in request.args,
        },
    )


def overview_on_paper(assignment: Assignment, budget: int | None, groups: Sequence[Group]) -> Response:
    """The works of a class on paper, in groups, with their results."""
    cards: list[JsonObject] = []
    for group in groups:
        drawn = [card_on_paper(place) for place in group.places if place.figure]
        if drawn:
            drawn[0]["heading"] = f"{group.heading}: {len(drawn)}"
        cards += drawn
    document = assignment.sheet.document
    title, whose = document.get("title", ""), assignment.school_class.name
    return printed(
        f"{whose}, {title}",
        "overview",
        {"title": title, "whose": whose, "given": document["given"], "budget": budget, "cards": cards},
    )


def card_on_paper(place: Place) -> JsonObject:
    """A student's work on the class overview: figure, name, verdict."""
    best, figure = place.standing.best, place.figure
    return {
        "figure": {part: figure[part] for part in ("given", "start", "steps")} | {"answer": figure.get("answer", [])},
        "name": place.student.name,
        "outcome": best.outcome.value if best else None,
        "moves": best.moves if best else None,
        "heading": None,
    }


def under_labels(document: JsonObject) -> tuple[JsonObject, dict[str, str]]:
    """The document of an attempt with the student's objects under the names that the student gave them, and these."""
    every = [step for part in ("given", "start", "steps") for step in document[part]]
    own = {step["id"] for step in document["steps"]}
    names = {id_: label for id_, label in names_given(every).items() if id_ in own}
    uses = [
        use | {part: [names.get(id_, id_) for id_ in use[part]] for part in ("ids", "gives")}
        for use in document.get("uses", [])
    ]
    return {**document, "steps": renamed(document["steps"], names), "uses": uses}, names
