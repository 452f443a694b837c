"""Works of every kind, made from the tasks of the library and the demo; and what must not change their verdicts."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cache

import numpy as np

from tests import zoo
from widepin.documents.formats.task import read_task
from widepin.judge.positions.ordering import sources_first
from widepin.judge.task import Task, Work
from widepin.judge.task_check import ALL_TOOLS, mutants
from widepin.plane.figure import Figure
from widepin.plane.intersections import Choice
from widepin.plane.makes import MAKES
from widepin.plane.shapes import Point
from widepin.plane.steps import IllFormed, Step, check_steps
from widepin.school.demo.tasks import TASKS
from widepin.school.tasks.library import LIBRARY


@dataclass(frozen=True)
class Case:
    """A task with every tool allowed, and a work on it."""

    name: str
    task: Task
    work: Work


LONG = 14
"""Sample solutions with more steps are left out: their mutants take most of the time and show nothing else."""


@cache
def cases() -> tuple[Case, ...]:
    """All works: models, mutants of them, the demo's solutions, and each with small slips of its own."""
    found = []
    for key, one in LIBRARY.items():
        task = replace(read_task(one.document()), tools=ALL_TOOLS, start=())
        if len(task.model) > LONG:
            continue
        found.append(Case(key, task, Work(task.model)))
        found += [Case(f"{key} mutant {n}", task, Work(mutant.steps)) for n, mutant in enumerate(mutants(task))]
    for demo_task in TASKS:
        task = replace(read_task(demo_task.document()), tools=ALL_TOOLS)
        found += [
            Case(f"{demo_task.title} {n} {outcome}", task, Work(zoo.steps(made)))
            for n, (outcome, made) in enumerate(demo_task.solutions)
        ]
    rng = random.Random(4)
    for case in [*found]:
        for number, steps in enumerate(slips(case.task, case.work.steps, rng)):
            found.append(Case(f"{case.name} slip {number}", case.task, Work(steps)))
    return tuple(case for case in found if is_well_formed(case))


def some(count: int, seed: int = 0) -> list[Case]:
    """A random choice of the works, the same for the same seed.

    Up to half of them are of the demo's tasks, which have works of every outcome; most mutants are just wrong.
    """
    rng = random.Random(seed)
    titles = tuple(one.title for one in TASKS)
    demo = [case for case in cases() if case.name.startswith(titles)]
    library = [case for case in cases() if not case.name.startswith(titles)]
    from_demo = rng.sample(demo, min(len(demo), count // 2))
    return [*from_demo, *rng.sample(library, count - len(from_demo))]


def is_well_formed(case: Case) -> bool:
    try:
        check_steps((*case.task.done, *case.work.steps))
    except IllFormed:
        return False
    return True


def slips(task: Task, steps: Sequence[Step], rng: random.Random) -> Iterator[tuple[Step, ...]]:
    """Other ways to say which intersection is meant, segments for lines, helpers put by hand: two random ones of them."""
    others: list[tuple[int, tuple[Step, ...]]] = []
    points = [step.id for step in task.given if MAKES[step.make].gives == "point"]
    for number, step in enumerate(steps):
        if step.make == "intersection" and points:
            choice = rng.choice([Choice.NEAREST_TO, Choice.FARTHEST_FROM])
            others.append((number, (replace(step, choice=choice, reference=rng.choice(points), pick=1),)))
        if step.make == "line":
            others.append((number, (replace(step, make=rng.choice(["segment", "ray"])),)))
        if step.make == "circle":
            helper = Step("H99", "free_point", at=(rng.uniform(0, 9), rng.uniform(0, 9)))
            others.append(
                (
                    number,
                    (helper, replace(step, make="circle_radius", sources=(step.sources[0], step.sources[0], "H99"))),
                )
            )
    for number, changed in rng.sample(others, min(2, len(others))):
        yield (*steps[:number], *changed, *steps[number + 1 :])


# -- what must not change a verdict --------------------------------------------------------------------


def transformed(case: Case, rng: random.Random, mirror: bool = False) -> Case:
    """The whole figure moved, turned and scaled, or mirrored; intersections that are picked are picked where they lie then."""
    turn, scale = rng.uniform(0, 2 * math.pi), rng.uniform(0.3, 3)
    x, y = rng.uniform(-20, 20), rng.uniform(-20, 20)

    def place(at: tuple[float, float]) -> tuple[float, float]:
        u, v = at[0], -at[1] if mirror else at[1]
        c, s = scale * math.cos(turn), scale * math.sin(turn)
        return (x + c * u - s * v, y + s * u + c * v)

    def changed(steps: Sequence[Step]) -> tuple[Step, ...]:
        return tuple(replace(step, at=place(step.at)) if step.at is not None else step for step in steps)

    task = case.task
    given = changed(task.given)
    model = repicked(task.given, task.model, given, changed(task.model), place)
    start = repicked(task.given, task.start, given, changed(task.start), place)
    moved = replace(task, given=given, model=model, start=start)
    own = repicked(task.done, case.work.steps, moved.done, changed(case.work.steps), place)
    return Case(case.name, moved, replace(case.work, steps=own))


def repicked(before, steps, before_now, steps_now, place) -> tuple[Step, ...]:
    """The steps with picks that mean the same points after a change of what they are made from."""
    there = drawn([*before, *steps])
    found = list(steps_now)
    for number, step in enumerate(found):
        if step.make != "intersection" or step.choice != "pick" or there[step.id] is None:
            continue
        wanted = place(there[step.id])
        size = max(1.0, *(math.hypot(*point) for point in there.values() if point))
        for pick in (1, 2):
            found[number] = replace(step, pick=pick)
            now = drawn([*before_now, *found[: number + 1]])[step.id]
            if now is not None and math.dist(now, wanted) < 1e-6 * size:
                break
        else:
            found[number] = step
    return tuple(found)


def drawn(steps: Sequence[Step]) -> dict[str, tuple[float, float] | None]:
    """Where points lie as drawn; None for those that are gone."""
    figure = Figure(steps)
    _, shapes = figure.drawn()
    found = {}
    for node, shape in zip(figure.nodes, shapes, strict=True):
        if isinstance(shape, Point):
            found[node.step.id] = (float(shape.x), float(shape.y)) if np.isfinite(shape.x) else None
    return found


def renamed(case: Case, rng: random.Random) -> Case:
    """Every step of the student's under another id."""
    ids = [step.id for step in case.work.steps]
    fresh = [f"z{n}'" for n in range(len(ids))]
    rng.shuffle(fresh)
    names = dict(zip(ids, fresh, strict=True))

    def new(step: Step) -> Step:
        reference = None if step.reference is None else names.get(step.reference, step.reference)
        sources = tuple(names.get(source, source) for source in step.sources)
        return replace(step, id=names[step.id], sources=sources, reference=reference)

    return replace(case, work=Work(tuple(map(new, case.work.steps))))


def reordered(case: Case, rng: random.Random) -> Case:
    """Independent steps in another order."""
    steps = list(case.work.steps)
    rng.shuffle(steps)
    return replace(case, work=replace(case.work, steps=tuple(sources_first(steps))))


def with_sources_swapped(case: Case, rng: random.Random) -> Case:
    """Lines, midpoints, intersections from the same sources the other way round, picked where they lay."""
    symmetric = ("line", "segment", "midpoint", "perpendicular_bisector", "intersection", "circle_through")

    def swapped(step: Step) -> Step:
        if step.make not in symmetric or rng.random() < 0.5:
            return step
        return replace(step, sources=step.sources[::-1])

    steps = tuple(map(swapped, case.work.steps))
    own = repicked(case.task.done, case.work.steps, case.task.done, steps, lambda at: at)
    return replace(case, work=replace(case.work, steps=own))


def with_idle_steps(case: Case, rng: random.Random) -> Case:
    """Objects that nothing depends on, put between the others, and some that are there already."""
    points = [step.id for step in case.task.done if MAKES[step.make].gives == "point"]
    if len(points) < 2:
        return case
    steps = list(case.work.steps)
    p, q = rng.sample(points, 2)
    idle = [
        Step("i1", "free_point", at=(rng.uniform(-5, 15), rng.uniform(-5, 15))),
        Step("i2", "circle", (p, "i1")),
        Step("i3", "line", (p, q)),
        Step("i4", "point_on", ("i3",), at=(rng.uniform(0, 9), rng.uniform(0, 9))),
    ]
    if steps and steps[-1].make not in ("free_point", "point_on"):
        idle.append(replace(steps[-1], id="i5"))
    place = rng.randint(0, len(steps))
    moved = [*steps[:place], *idle, *steps[place:]]
    return replace(case, work=replace(case.work, steps=tuple(sources_first(moved))))
