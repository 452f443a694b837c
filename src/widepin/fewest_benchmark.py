"""How quick the search for the fewest moves is: against plain Python, and how far it gets in the library.

Both on the same states in one run: the kernel compiled, and the same functions as plain Python.
"""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Callable
from time import process_time

from .documents.formats.task import read_task
from .economy import kernel
from .economy.fewest import compiled, fewest
from .economy.goal import goal_of
from .economy.search import Search
from .school.tasks.library import LIBRARY

COMPARED, DEPTH = "circumcircle", 5
"""A task of the library, and how many moves are looked at."""

TIMES_FASTER, EXCLUDED, SECONDS = 50, 5, 10.0
"""The aims: times as many states a second as plain Python; moves excluded of every task unless fewer do, in so long."""


def counted() -> tuple[int, float]:
    """States that are looked at in a fixed search, without arbitrary points, and the seconds that takes."""
    document = LIBRARY[COMPARED].document()
    document["tools"] = [tool for tool in document["tools"] if tool != "points"]
    task = read_task(document)
    running = compiled(Search(task), goal_of(task))
    list(running.branches(0, 0))  # what is loaded once is not counted
    begun = process_time()
    for moves in range(DEPTH + 1):
        list(running.branches(moves, 0))
    return running.states, process_time() - begun


def counted_plainly() -> tuple[int, float]:
    """The same by plain Python, in a process of its own."""
    script = "from widepin.fewest_benchmark import counted; print(*counted())"
    done = subprocess.run(
        [sys.executable, "-W", "ignore", "-c", script],
        env=os.environ | {"NUMBA_DISABLE_JIT": "1"},
        capture_output=True,
        text=True,
        check=True,
    )
    states, seconds = done.stdout.split()
    return int(states), float(seconds)


def run_fewest(say: Callable[[str], None]) -> None:
    """Print all of it against its aims."""
    kernel.compile_all()
    states, seconds = counted()
    say(f"compiled: {states:,} states in {seconds:.2f} s, {states / seconds:,.0f} a second")
    plain_states, plain_seconds = counted_plainly()
    assert plain_states == states
    ratio = plain_seconds / seconds
    say(f"plain Python: the same in {plain_seconds:.1f} s; {ratio:.0f} times as long (aim {TIMES_FASTER})")
    reached = total = 0
    for key, known in LIBRARY.items():
        task = read_task(known.document())
        if not Search(task).is_elementary:
            continue
        begun = process_time()
        found = fewest(task, EXCLUDED, SECONDS)
        total += 1
        reached += found.moves is not None or found.excluded == EXCLUDED
        points = f"with {found.arbitrary} arbitrary" if found.arbitrary else "without arbitrary points"
        what = f"{found.moves} moves, " if found.moves is not None else ""
        took = process_time() - begun
        say(f"  {key}: {what}{found.excluded} excluded {points}, {found.states:,} states, {took:.1f} s")
    say(f"{reached} of {total} tasks solved or excluded up to {EXCLUDED} moves in {SECONDS:.0f} s each")
