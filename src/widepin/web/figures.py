"""What the browser needs to draw a figure: steps, and what is special about them."""

from __future__ import annotations

from typing import Any

from ..documents.construction import write_step
from ..judge.task import Task
from ..school.models import HandIn


def task_figure(task: Task) -> dict[str, Any]:
    """The given figure of a task."""
    return {
        "given": [write_step(step) for step in task.given],
        "start": [write_step(step) for step in task.start],
        "steps": [],
    }


def hand_in_figure(attempt: HandIn) -> dict[str, Any]:
    """A handed-in work with its answer, and its break where it has one."""
    verdict = attempt.verdict
    return {
        **attempt.document,
        "answer": sorted((verdict["answer"] or {}).values()),
        "outcome": attempt.outcome.value,
        "breaks": verdict["breaks"],
    }
