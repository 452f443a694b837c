"""Hints followed blindly: ``bin/widepin tool hint_trial``.

For every task of the library, from nothing, from parts of its sample solution, and with idle and free steps in the way,
each hint's step is made until the work is right. Printed: where that did not come about within the moves that the first
hint promised, where nothing was known, and how long a hint took.
"""

from __future__ import annotations

import argparse
from collections import Counter
from time import process_time

from widepin.documents.formats.task import read_task
from widepin.documents.wording.hint_words import hint_for
from widepin.judge.costs.counts import is_move
from widepin.judge.task import Task, Work
from widepin.plane.steps import Step
from widepin.school.tasks.library import LIBRARY

MOST_STEPS = 60


def beginnings(task: Task) -> list[tuple[str, tuple[Step, ...]]]:
    """What somebody may have drawn before asking."""
    found: list[tuple[str, tuple[Step, ...]]] = [("nothing", ())]
    allowed = {one.tool for one in task.tools}
    if all(step.make in allowed or step.make in ("intersection", "free_point", "point_on") for step in task.model):
        found.append(("a part", task.model[: len(task.model) // 2]))
    points = [step.id for step in task.done if step.make in ("free_point", "point_on")][:2]
    if "circle" in allowed and len(points) == 2:
        found.append(("an idle circle", (Step("zz", "circle", (points[1], points[0])),)))
    return found


def follow(task: Task, steps: tuple[Step, ...]) -> tuple[str, int, float]:
    """What came of following hints, how many moves it took, and the processor time of the slowest hint."""
    moves, slowest, promised = 0, 0.0, None
    for _ in range(MOST_STEPS):
        begun = process_time()
        hint = hint_for(task, Work(steps), [Work(task.model)])
        slowest = max(slowest, process_time() - begun)
        if hint.moves_left is None:
            return "nothing known", moves, slowest
        promised = hint.moves_left if promised is None else promised
        if hint.step is None:
            return ("right" if moves <= promised else "more moves than promised"), moves, slowest
        steps = (*steps, hint.step)
        moves += is_move(hint.step.make)
    return "no end", moves, slowest


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--only", default="", help="tasks whose key holds this")
    wanted = asked.parse_args()
    ends, times = Counter[str](), []
    for key, one in LIBRARY.items():
        if wanted.only not in key:
            continue
        task = read_task(one.document())
        for name, steps in beginnings(task):
            end, moves, slowest = follow(task, steps)
            ends[end] += 1
            times.append(slowest)
            if end != "right" or slowest > 1:
                print(f"{key} from {name}: {end}, {moves} moves, {slowest:.1f} s", flush=True)
    times.sort()
    print(dict(ends), f"slowest hint {times[-1]:.1f} s, median of the slowest {times[len(times) // 2]:.1f} s")


if __name__ == "__main__":
    main()
