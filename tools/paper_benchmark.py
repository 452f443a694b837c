"""How long a handout takes and how much memory: ``bin/widepin tool paper_benchmark``.

Handouts of 20 to 300 steps are made as the server makes them, in processes forked from one that is ready. Each time is
also given as a ratio to that of the smallest handout in the same run.
"""

from __future__ import annotations

import random
import resource
import tempfile
from pathlib import Path
from statistics import median
from time import perf_counter
from typing import Any

from widepin.school.tasks.library import LIBRARY
from widepin.web.jobs.apart import JobQueue
from widepin.web.printed import paper

STEPS, ROUNDS = (1, 20, 40, 80, 300), 3


def construction(count: int) -> dict[str, Any]:
    """A construction of so many steps, none of which is hidden: points, and lines and circles through earlier ones."""
    task = LIBRARY["midpoint"].document()
    rng, points, steps = random.Random(count), ["A", "B"], []
    for number in range(count):
        make = rng.choice(["circle", "line", "perpendicular_bisector", "free_point"])
        if make == "free_point":
            place = [round(rng.uniform(-2, 8), 2), round(rng.uniform(-2, 6), 2)]
            steps.append({"id": f"P{number}", "make": make, "at": place})
            points.append(f"P{number}")
        else:
            steps.append({"id": f"k{number}", "make": make, "from": rng.sample(points, 2)})
    figure = {"given": task["given"], "start": [], "steps": steps, "uses": []}
    return {
        "task": task,
        "figure": figure,
        "answer": [],
        "title": "Long",
        "whose": "Somebody",
        "arcs": False,
        "proved": {},
    }


def measured(data: dict[str, Any]) -> tuple[float, int, float]:
    """Seconds, bytes of the document, and the most memory that was in use, in megabytes."""
    begun = perf_counter()
    document = paper.typeset("construction", data, lambda *_: None)
    return perf_counter() - begun, len(document), resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def main() -> None:
    queue = JobQueue(Path(tempfile.mkdtemp()), seconds=120, megabytes=1000, waiting=9, waiting_each=9)
    floor = 0.0
    for count in STEPS:
        runs = [queue.do(1, measured, construction(count)) for _ in range(ROUNDS)]
        seconds = median(run[0] for run in runs)
        floor = floor or seconds
        size, memory = runs[0][1] / 1000, max(run[2] for run in runs)
        ratio = f"{seconds / floor:5.1f} times the smallest"
        print(f"{count:4} steps: {seconds:5.2f} s, {ratio}, {size:5.0f} kB, {memory:4.0f} MB", flush=True)


if __name__ == "__main__":
    main()
