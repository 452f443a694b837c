"""Bundles: a task with works to judge, as the command line takes them."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ...judge.task import Task
from ..reading import Unreadable, parse_json
from .task import read_task


@dataclass(frozen=True)
class Bundle:
    """A task, and works as JSON values with their names."""

    task: Task
    works: list[tuple[str, Any]]


def read_bundle(path: Path) -> Bundle:
    """A bundle from a file. Raises Unreadable; a work that breaks the format does not, it is judged refused."""
    try:
        text = path.read_bytes()
    except OSError as error:
        raise Unreadable("", f"cannot be opened ({error.strerror}); check the name") from None
    value = parse_json(text)
    if not isinstance(value, dict):
        raise Unreadable("", "must be an object with task and works")
    for part, kind in (("task", dict), ("works", list)):
        if part not in value:
            raise Unreadable(part, "is missing; add it")
        if not isinstance(value[part], kind):
            raise Unreadable(part, f"must be {'an object' if kind is dict else 'a list of works'}")
    try:
        task = read_task(value["task"])
    except Unreadable as wrong:
        raise wrong.inside("task") from None
    return Bundle(task, [named_work(number, work) for number, work in enumerate(value["works"])])


def named_work(number: int, work: object) -> tuple[str, Any]:
    """A work of a bundle with its name. Raises Unreadable."""
    if not isinstance(work, dict):
        raise Unreadable(f"works[{number}]", "must be an object in curly braces")
    if not isinstance(work.get("name"), str):
        raise Unreadable(f"works[{number}].name", "must be a text in quotes; name the work")
    return work["name"], work
