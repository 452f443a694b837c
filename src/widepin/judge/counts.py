"""What a work cost, and whether its tools were allowed."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence

from ..plane.figure import Figure
from ..plane.makes import MAKES
from ..plane.steps import Step
from .task import Allowance
from .verdict import Counts, Refusal

POINTS = ("free_point", "point_on")


def is_move(make: str) -> bool:
    """Whether a step of this make counts: straights, circles and all other tools do; points and crossings do not."""
    return make in MAKES and MAKES[make].counts


def counted(steps: Sequence[Step], figure: Figure, answer: Iterable[int]) -> Counts:
    """The counts of a student's steps; ``answer`` holds the numbers of its objects in the figure."""
    needed = figure.ancestors(answer)
    moves = [step for step in steps if is_move(step.make)]
    idle = tuple(step.id for step in moves if figure.index[step.id] not in needed)
    return Counts(len(moves), len(moves) - len(idle), idle)


def counted_alone(steps: Sequence[Step]) -> Counts:
    """The counts of steps that were not judged: nothing is known to be needed."""
    idle = tuple(step.id for step in steps if is_move(step.make))
    return Counts(len(idle), 0, idle)


def refused_tool(steps: Sequence[Step], tools: Sequence[Allowance]) -> Refusal | None:
    """The first step whose tool is not allowed, or used too often."""
    allowed = {allowance.tool: allowance.most for allowance in tools}
    used: Counter[str] = Counter()
    for step in steps:
        if step.make == "intersection":
            continue
        tool = "points" if step.make in POINTS and step.make not in allowed else step.make
        if tool not in allowed:
            return Refusal(step.id, f"{step.make.replace('_', ' ')} is not among the tools of this task")
        used[tool] += 1
        most = allowed[tool]
        if most is not None and used[tool] > most:
            return Refusal(step.id, f"{tool.replace('_', ' ')} may be used {most} times, and this is time {used[tool]}")
    return None
