"""What the browser needs to draw a figure: steps, and what is special about them."""

from __future__ import annotations

from dataclasses import asdict
from math import ceil, floor

import numpy as np

from ..documents.formats.construction import write_step
from ..documents.pictures.svg import extent_of
from ..documents.reading import JsonObject
from ..documents.wording.words import kind_in_words
from ..judge.positions.drags import TRIANGLES, shaped_triangle
from ..judge.task import Task
from ..judge.verdict import Fate
from ..plane.figure import Figure, is_defined
from ..plane.shapes import Kind
from ..school.models import Assignment, HandIn
from ..school.tasks.class_tools import read_class_tool
from ..school.works.handins import figure_of


def task_figure(task: Task) -> JsonObject:
    """The given figure of a task."""
    return {
        "given": [write_step(step) for step in task.given],
        "start": [write_step(step) for step in task.start],
        "steps": [],
    }


def board_setting(task: Task) -> JsonObject:
    """What the board needs to know of a task."""
    return {
        **task_figure(task),
        "tools": [asdict(allowance) for allowance in task.tools],
        "budget": task.budget,
        "extent": extent_needed(task),
        "finding": True,
        "wanted": [
            {
                "name": wanted.name,
                "kind": kind_in_words(wanted.kind),
                "kinds": sorted(wanted.kinds),
                "given": wanted.given,
            }
            for wanted in task.wanted
        ],
    }


def extent_needed(task: Task) -> list[tuple[int, int]]:
    """Two opposite corners between which the given figure, the points of a solution and the circles of its answer lie,
    in whole centimetres; empty where there is no solution. They say no more than how much paper is wanted.
    """
    if not task.model:
        return []
    figure = Figure([*task.done, *task.model])
    answer = {wanted.name for wanted in task.wanted}
    places = [
        place
        for node, shape in zip(figure.nodes, figure.drawn()[1], strict=True)
        if is_defined(shape) and (node.kind is Kind.POINT or node.step.id in answer)
        for place in extent_of(shape)
    ]
    if not places:
        return []
    xs, ys = zip(*places, strict=True)
    return [(floor(min(xs)), floor(min(ys))), (ceil(max(xs)), ceil(max(ys)))]


def class_tools_setting(assignment: Assignment) -> list[JsonObject]:
    """What the board needs to know of the class tools of the class that may be used for a task."""
    found = []
    for one in assignment.class_tools:
        class_tool = read_class_tool(one.document)
        found.append(
            {
                "name": one.name,
                "takes": [asdict(blank) for blank in class_tool.takes],
                "steps": [write_step(step) for step in class_tool.steps],
                "gives": list(class_tool.gives),
                "moves": one.moves,
                "figure": class_tool_figure(one.document),
            }
        )
    return found


def class_tool_figure(document: JsonObject) -> JsonObject:
    """What a class tool takes and gives, as it is drawn; its other steps are hidden."""
    gives = document["gives"]
    steps = [step if step["id"] in gives else step | {"hidden": True} for step in document["steps"]]
    return {"given": document["given"], "start": [], "steps": steps, "answer": gives}


def told_figure(attempt: HandIn, level: str) -> JsonObject:
    """A handed-in work as it is shown at a level of help: the break only at the last."""
    figure = figure_of(attempt)
    return figure if level == "break" else figure | {"breaks": None}


def shape_pictures(shapes: dict[str, Fate]) -> list[tuple[str, Fate, str]]:
    """For each named shape of the given triangle: its name, what happens there, and its corners for an SVG polygon.

    Corners are in a box of 60 by 40 units.
    """
    pictures = []
    for name, what in shapes.items():
        corners = shaped_triangle(*TRIANGLES[name])
        low, high = corners.min(axis=0), corners.max(axis=0)
        scale = min(*(np.array([52, 32]) / (high - low)))
        places = (corners - (low + high) / 2) * scale * [1, -1] + [30, 20]
        pictures.append((name, what, " ".join(f"{x:.1f},{y:.1f}" for x, y in places)))
    return pictures


def draft_figure(document: JsonObject) -> JsonObject:
    """A task's given figure with its model, as far as they are made."""
    return {
        "given": document["given"],
        "start": [],
        "steps": document.get("model", []),
        "answer": [one.get("name") for one in document.get("wanted", [])],
    }
