"""Every address of the interface for programs, one row each: from it come the routes and the description."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ...school.states import Scope
from . import answers


@dataclass(frozen=True)
class Endpoint:
    """A row. ``name``: of the view; ``takes``: the body, if any; ``gives``: the answer, with ``status``."""

    method: str
    path: str
    name: str
    scope: Scope
    summary: str
    gives: Any
    takes: Any = None
    status: int = 200


ENDPOINTS = (
    Endpoint("GET", "/tasks", "tasks", Scope.TASKS_READ, "Your tasks, the newest first.", list[answers.TaskRow]),
    Endpoint("GET", "/tasks/<int:sheet_id>", "task", Scope.TASKS_READ, "A task of yours.", answers.TaskWhole),
    Endpoint(
        *("POST", "/tasks", "make_task", Scope.TASKS_WRITE, "Keep a new task among yours."),
        answers.TaskRow,
        answers.NewTask,
        201,
    ),
    Endpoint("GET", "/classes", "classes", Scope.CLASSES_READ, "The classes that you teach.", list[answers.ClassRow]),
    Endpoint(
        *("GET", "/classes/<int:class_id>/assignments", "assignments", Scope.CLASSES_READ),
        "The tasks of a class, in order.",
        list[answers.AssignmentRow],
    ),
    Endpoint(
        *("POST", "/classes/<int:class_id>/assignments", "assign", Scope.ASSIGNMENTS_WRITE),
        "Give a class a task of yours.",
        answers.AssignmentRow,
        answers.NewAssignment,
        201,
    ),
    Endpoint(
        *("GET", "/assignments/<int:assignment_id>/works", "works", Scope.WORKS_READ),
        "What the students have made of a task.",
        list[answers.WorkRow],
    ),
    Endpoint(
        *("GET", "/hand-ins/<int:hand_in_id>", "attempt", Scope.WORKS_READ),
        "An attempt with its work and its verdict.",
        answers.AttemptWhole,
    ),
    Endpoint(
        *("GET", "/hand-ins/<int:hand_in_id>/proof", "proof", Scope.WORKS_READ),
        "Why a sound attempt is right.",
        answers.ProofWhole,
    ),
    Endpoint(
        *("POST", "/check", "check", Scope.CHECK, "Judge works; nothing is kept."),
        list[answers.CheckedWork],
        answers.ToCheck,
    ),
)

BY_NAME = {one.name: one for one in ENDPOINTS}
