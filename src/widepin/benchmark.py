"""How quick a verdict is, as a ratio to its floor, in one run.

The *floor* is what no verdict can do without: the same positions in arrays and as many positions in balls as the
verdict asked for, written by hand for this one construction, without steps, kinds, choices or undefined objects.
Medians of several runs each, in turn, so that all see the same machine.
"""

from __future__ import annotations

import gc
import resource
import time
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any

import numpy as np
from flint import arb, ctx
from numpy.typing import NDArray

from .documents.formats.task import read_task, read_work
from .documents.reading import JsonObject
from .judge.judging import judge
from .judge.task import Task, Work
from .judge.trials.examination import Examination
from .judge.trials.trial import try_answer
from .plane.balls import PRECISIONS
from .plane.steps import MAX_STEPS

RUNS = 25

GIVEN = [
    {"id": "A", "make": "free_point", "at": [2, 3]},
    {"id": "B", "make": "free_point", "at": [8, 4]},
]


@dataclass(frozen=True)
class Timing:
    """Median seconds for one work: its floor, its verdict, the verdict with its whole report; and their ratios.

    A ratio is the median of those of single runs, since a machine's speed swings more from second to second than
    between two runs that follow each other.
    """

    name: str
    steps: int
    outcome: str
    floor: float
    verdict: float
    reported: float
    ratio: float
    reported_ratio: float


def task_with(condition: list[list[str]], wanted: str = "X") -> Task:
    """A task that asks for points at equal distances."""
    return read_task(
        {
            "format": "widepin.task/1",
            "given": GIVEN,
            "tools": ["points", "circle", "circle_radius", "midpoint"],
            "wanted": [{"name": name, "kind": "point"} for name in wanted],
            "conditions": [{"rel": "equal_length", "of": condition}],
        }
    )


def intersection(name: str, c: str, d: str, **choice: Any) -> JsonObject:
    """A step that marks where two circles meet."""
    return {"id": name, "make": "intersection", "from": [c, d], **choice}


def circle(name: str, centre: str, through: str) -> JsonObject:
    """A step that draws a circle."""
    return {"id": name, "make": "circle", "from": [centre, through]}


def filled(steps: list[JsonObject], count: int, answer: str) -> Work:
    """A work of so many steps: these, and midpoints that nothing depends on."""
    idle = [{"id": f"M{n}", "make": "midpoint", "from": ["A", "B"]} for n in range(count - len(steps))]
    return read_work({"steps": steps + idle, "answer": {"X": answer}})


def sound(count: int) -> tuple[Task, Work, int]:
    """A point that walks round B in equilateral triangles; the task, the work, and its rounds."""
    steps, last = [], "A"
    rounds = count // 3
    for n in range(rounds):
        steps += [
            circle(f"c{n}", last, "B"),
            circle(f"d{n}", "B", last),
            intersection(f"P{n}", f"c{n}", f"d{n}", pick=1),
        ]
        last = f"P{n}"
    return task_with([["A", "B"], ["X", "B"]]), filled(steps, count, last), rounds


def mirrored(count: int, first: list[JsonObject]) -> tuple[Task, Work, int]:
    """A first point that is mirrored in AB to and fro."""
    steps, last = list(first), first[-1]["id"]
    rounds = (count - len(first)) // 3
    for n in range(rounds):
        steps += [
            circle(f"c{n}", "A", last),
            circle(f"d{n}", "B", last),
            intersection(f"P{n}", f"c{n}", f"d{n}", other_than=last),
        ]
        last = f"P{n}"
    return task_with([["X", "A"], ["X", "B"]]), filled(steps, count, last), rounds


def fragile(count: int) -> tuple[Task, Work, int]:
    """Two circles whose opening comes from a helper."""
    opening = {"id": "e", "make": "circle_radius", "from": ["B", "A", "H"]}
    helper = {"id": "H", "make": "free_point", "at": [7, 1]}
    return mirrored(count, [helper, circle("h", "A", "H"), opening, intersection("X0", "h", "e", pick=1)])


def eyeballed(count: int) -> tuple[Task, Work, int]:
    """A point put by eye."""
    return mirrored(count, [{"id": "X0", "make": "free_point", "at": [4.5, 6.5]}])


def walk(ax: Any, ay: Any, bx: Any, by: Any, rounds: int, root: Callable[[Any], Any]) -> Any:
    """By hand: rounds of two circles of one radius and their left intersection; how far |XB| is from |AB|."""
    px, py = ax, ay
    for _ in range(rounds):
        dx, dy = bx - px, by - py
        rr = dx * dx + dy * dy
        ss = dx * dx + dy * dy
        along = (rr - ss + rr) / (rr + rr)
        up = root(rr / ss - along * along)
        px, py = px + along * dx - up * dy, py + along * dy + up * dx
    return root((px - bx) * (px - bx) + (py - by) * (py - by)) - root((ax - bx) * (ax - bx) + (ay - by) * (ay - by))


def floor_of(task: Task, work: Work, rounds: int) -> Callable[[], Any]:
    """The floor for a work of so many rounds: the positions that its verdict looks at, and the probes by balls."""
    examined = Examination(task, work.steps)
    trial = try_answer(examined, {name: examined.figure.index[id_] for name, id_ in (work.answer or {}).items()})
    positions = trial.batch.positions
    a, b = positions[0:2], positions[2:4]
    picked = positions[:4, :: positions.shape[1] // trial.probed][:, : trial.probed].T.tolist()

    def run() -> None:
        walk(a[0], a[1], b[0], b[1], rounds, np.sqrt)
        with ctx.workprec(PRECISIONS[0]):
            for position in picked:
                ax, ay, bx, by = map(arb, position)
                walk(ax, ay, bx, by, rounds, lambda x: x.sqrt())

    return run


def timed(*runs: Callable[[], Any]) -> NDArray[np.float64]:
    """Seconds of each run, done in turn: shape (RUNS, how many)."""
    seconds = np.zeros((RUNS, len(runs)))
    for turn in range(RUNS):
        for number, run in enumerate(runs):
            gc.collect()
            started = time.perf_counter()
            run()
            seconds[turn, number] = time.perf_counter() - started
    return seconds


def measured() -> list[Timing]:
    """Works of 5, 40 and 200 steps, sound, fragile and by eye."""
    rows = []
    for name, make in (("sound", sound), ("fragile", fragile), ("eyeballed", eyeballed)):
        for count in (5, 40, 200):
            task, work, rounds = make(count)
            outcome = judge(task, work).outcome.value
            floor = floor_of(task, work, max(rounds, 1))
            seconds = timed(floor, partial(judge, task, work, report=False), partial(judge, task, work))
            ratios = np.median(seconds / seconds[:, :1], axis=0)
            rows.append(Timing(name, count, outcome, *np.median(seconds, axis=0).tolist(), *ratios[1:].tolist()))
    return rows


def hostile() -> tuple[Task, Work]:
    """As many steps as there may be, each a candidate for each of three points tied by lengths, none pointed out."""
    points = [{"id": f"H{n}", "make": "free_point", "at": [n * 0.05, n % 17]} for n in range(MAX_STEPS)]
    task = task_with([["A", "X"], ["X", "Y"], ["Y", "Z"]], "XYZ")
    return task, read_work({"steps": points})


def sympy_for_one_position() -> float:
    """Seconds that SymPy's geometry takes for two circles, where they meet, the line and a check, in one position."""
    from sympy import Circle, Line, Point, Segment

    def run() -> None:
        a, b = Point(2, 3), Point(8, 4)
        meets = Circle(a, a.distance(b)).intersection(Circle(b, a.distance(b)))
        line = Line(*meets)
        assert line.is_perpendicular(Segment(a, b)) and line.distance(a).equals(line.distance(b))

    return float(np.median(timed(run)))


def run_benchmark(say: Callable[[str], None]) -> None:
    """Measure and say it, a line a row."""
    say(
        f"{'work':<10} {'steps':>5}  {'outcome':<10} {'floor':>9} {'verdict':>9} {'ratio':>6} "
        f"{'with report':>12} {'ratio':>6}"
    )
    rows = measured()
    for row in rows:
        say(
            f"{row.name:<10} {row.steps:>5}  {row.outcome:<10} {row.floor * 1e3:>6.2f} ms {row.verdict * 1e3:>6.2f} ms "
            f"{row.ratio:>6.1f} {row.reported * 1e3:>9.2f} ms {row.reported_ratio:>6.1f}"
        )
    five = rows[0].verdict
    task, work = hostile()
    seconds = float(np.median(timed(partial(judge, task, work))))
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    say(f"hostile, {len(work.steps)} steps: {seconds * 1e3:.0f} ms with report; the process used {peak:.0f} MB at most")
    other = sympy_for_one_position()
    say(f"SymPy's geometry, five steps, one position: {other * 1e3:.1f} ms, {other / five:.1f} times our whole verdict")
