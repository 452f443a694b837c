"""How far proofs go: of the library, and of the demo's works and those of bundles, which no rule was written with.

Lines are counted strictly: every inference is one. Works with nothing to prove, because each condition is given or met
by making the very same, are counted apart.
"""

from __future__ import annotations

import resource
import time
from collections.abc import Callable, Sequence
from pathlib import Path
from statistics import median

from .documents.formats.bundle import read_bundle
from .documents.formats.construction import read_steps
from .documents.formats.task import read_task, read_work, to_be_shown
from .documents.formats.verdict import judge_document
from .documents.reasons.proofs import how_far
from .judge.judging import judge
from .judge.task import Task, Work
from .judge.verdict import Outcome
from .reason.proof import Proof
from .reason.proving import prove
from .school.demo.tasks import TASKS
from .school.tasks.library import LIBRARY
from .school.tasks.library.notation import steps

MEGABYTE = 1 << 10
"""Of what the system reports, which is kilobytes."""


def run_proofs(bundles: Sequence[str], aside: Sequence[str], say: Callable[[str], None]) -> None:
    """Prove everything, and say for each how many lines it takes, or which conditions are open; then the sums.

    ``aside``: bundles, or folders of them, of works that were kept aside while rules were written.
    """
    known: list[tuple[str, Proof | None]] = []
    times: list[float] = []
    for task in LIBRARY.values():
        read = read_task(task.document())
        shown = to_be_shown(read, task.shows)
        known.append((task.key, timed(read, Work(read.model), task.key, times, say, f"level {task.level}", shown)))
    summed("library", known, times, say)
    others: list[tuple[str, Proof | None]] = []
    times = []
    for demo in TASKS:
        read = read_task(demo.document())
        for number, (outcome, lines) in enumerate(demo.solutions):
            if outcome == Outcome.SOUND:
                label = f"{demo.title}, way {number + 1}"
                others.append((label, timed(read, Work(read_steps(steps(lines))), label, times, say)))
    others += in_bundles(bundles, times, say)
    summed("other works", others, times, say)
    if aside:
        times = []
        summed("kept aside", in_bundles(aside, times, say), times, say)


def in_bundles(paths: Sequence[str], times: list[float], say: Callable[[str], None]) -> list[tuple[str, Proof | None]]:
    """The proofs of the sound works of bundles; a path may be a folder of them."""
    found = []
    for path in map(Path, paths):
        for file in sorted(path.glob("*.json")) if path.is_dir() else [path]:
            bundle = read_bundle(file)
            for name, value in bundle.works:
                if judge_document(bundle.task, value).outcome is Outcome.SOUND:
                    label = f"{file.stem}: {name}"
                    found.append((label, timed(bundle.task, read_work(value), label, times, say)))
    return found


def timed(
    task: Task,
    work: Work,
    label: str,
    times: list[float],
    say: Callable[[str], None],
    more: str = "",
    shown: Task | None = None,
) -> Proof | None:
    """The proof of a work, said with its processor time; None where it is not whole.

    ``shown``: what is proved of it instead.
    """
    verdict = judge(task, work, report=False)
    if verdict.outcome is not Outcome.SOUND or verdict.answer is None:
        say(f"{label:48} {verdict.outcome.value}")
        return None
    begun = time.process_time()
    proof = prove(shown or task, work.steps, verdict.answer)
    times.append(time.process_time() - begun)
    state = f"{len(proof.lines)} lines" if proof.is_whole else f"open: conditions {list(proof.open)}"
    if proof.trivial:
        state = "nothing to prove"
    if proof.missing:
        more = f"{more}  missing: {', '.join(map(str, proof.missing))}"
    say(f"{label:48} {state:24} {times[-1]:6.2f} s  {more}")
    return proof if proof.is_whole else None


def summed(
    name: str, works: Sequence[tuple[str, Proof | None]], times: Sequence[float], say: Callable[[str], None]
) -> None:
    """The sums of some works."""
    sums = how_far(works)
    lines = sums["lines"] or [0]
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / MEGABYTE
    say(
        f"{name}: {sums['proved']} of {sums['works']} proved, {sums['nothing to prove']} of them with nothing to prove;"
        f" lines: median {median(lines):g}, most {max(lines)}; most cited {sums['most cited']};"
        f" {median(times or [0]):.2f} s at the median, {max(times or [0]):.2f} s at most; {memory:.0f} MB"
    )
