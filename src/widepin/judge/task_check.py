"""Trying a task before students do: whether its model solves it, and which wrong works would pass as right.

*Mutants* are small changes of the model, as students slip: a constructed point placed by eye, another intersection,
another object of the same kind in a step. One that the conditions call sound though its answer lies elsewhere shows
what the conditions leave open. That may be meant (the same on the other side) or not; only the teacher knows.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import islice, takewhile

from ..plane.figure import Figure, is_defined
from ..plane.makes import MAKES
from ..plane.shapes import Kind, Point
from ..plane.steps import Step
from .costs.counts import moves_within
from .judging import judge
from .mirrored import mirror_images
from .misfits import Misfit, misfits
from .suggesting import that_pin, the_same
from .task import TOOLS, Allowance, Condition, Task, Work
from .verdict import Outcome, Refusal, Verdict

MAX_MUTANTS, MAX_SHOWN = 120, 6

MAX_EFFORT = 1500
"""Steps of all the works together that are judged to try one task."""

ALL_TOOLS = tuple(Allowance(tool) for tool in TOOLS)


@dataclass(frozen=True)
class Mutant:
    """The model with one step changed: the whole construction, and the id of the step."""

    steps: tuple[Step, ...]
    changed: str
    by_eye: bool = False


@dataclass(frozen=True)
class TaskCheck:
    """What trying a task found.

    ``model``: the verdict on the model with every tool allowed. ``refusal``: why the task's own tools cannot build it.
    ``attainable``: the moves that the model takes with these tools. ``stands_empty``: whether a work without steps is
    right. ``passing``: mutants that pass. ``rejected``: models whose answer is a mirror image, and wrong by the
    conditions; ``looser``: conditions that these fulfil as the model does, where some are known. ``stopped``: whether
    the model is so long that not all was tried. ``wrong``: what became of the solutions that must be rejected;
    ``misfits``: what of the task does not fit the rest.
    """

    model: Verdict
    refusal: Refusal | None
    stands_empty: bool
    passing: tuple[Mutant, ...] = ()
    rejected: tuple[tuple[Step, ...], ...] = ()
    looser: tuple[Condition, ...] = ()
    stopped: bool = False
    attainable: int = 0
    wrong: tuple[Outcome, ...] = ()
    misfits: tuple[Misfit, ...] = ()

    @property
    def is_solved(self) -> bool:
        """Whether the model solves the task wherever the figure is dragged."""
        return self.model.outcome is Outcome.SOUND


def is_solved(task: Task) -> bool:
    """Whether the model solves a task; only then it can be assigned."""
    return judge_model(task).outcome is Outcome.SOUND


def judge_model(task: Task) -> Verdict:
    """The verdict on a task's model, without a report."""
    free, pointed = unhindered(task)
    return judge(free, Work(task.model, pointed), report=False)


def unhindered(task: Task) -> tuple[Task, dict[str, str] | None]:
    """A task with every tool and nothing done, and the model's answer where the model has objects of those names."""
    own = {one.name: one.name for one in task.wanted}
    pointed = own if set(own) <= {step.id for step in task.model} else None
    return replace(task, tools=ALL_TOOLS, start=()), pointed


class Effort:
    """How much may still be tried, counted in steps that are judged."""

    def __init__(self, most: int = MAX_EFFORT):
        self.left = most
        self.stopped = False

    def allows(self, steps: Sequence[Step]) -> bool:
        """Whether a work of these steps may be judged too; if so, it is counted."""
        if len(steps) > self.left:
            self.stopped = True
            return False
        self.left -= len(steps)
        return True


def check_task(task: Task, most_effort: int = MAX_EFFORT, must_fail: Sequence[Sequence[Step]] = ()) -> TaskCheck:
    """Try a task that has a model. ``must_fail``: solutions that are wrong, and must not be sound by the conditions."""
    free, pointed = unhindered(task)
    effort = Effort(most_effort)
    model = judge(free, Work(task.model, pointed))
    within = judge(replace(task, start=()), Work(task.model), report=False)
    empty = judge(free, Work(()), report=False)
    is_solved = model.outcome is Outcome.SOUND
    passing = tuple(islice(standing(free, effort), MAX_SHOWN)) if is_solved else ()
    shut = rejected(free, effort) if is_solved and pointed else ()
    looser = looser_conditions(free, shut) if shut else ()
    wrong = tuple(judge(replace(task, tools=ALL_TOOLS), Work(tuple(one)), report=False).outcome for one in must_fail)
    attainable = moves_within(task.model, task.tools)
    stands_empty = empty.outcome is not Outcome.WRONG
    return TaskCheck(
        model,
        within.refusal,
        stands_empty,
        passing,
        shut,
        looser,
        effort.stopped,
        attainable,
        wrong,
        misfits(task, model, within.refusal, attainable, stands_empty, wrong),
    )


def rejected(task: Task, effort: Effort) -> tuple[tuple[Step, ...], ...]:
    """Mirror images of the model that are wrong by the task's conditions."""
    images = takewhile(effort.allows, mirror_images(task))
    wrong = (image for image in images if judge(task, Work(image), report=False).outcome is Outcome.WRONG)
    return tuple(islice(wrong, MAX_SHOWN))


def standing(task: Task, effort: Effort) -> Iterator[Mutant]:
    """Mutants of the model that are sound by the conditions, though their answer is not the model's."""
    names = {step.id for step in task.model}
    if not all(one.name in names for one in task.wanted):
        return
    strict = replace(task, conditions=tuple(the_same(one) for one in task.wanted))
    for mutant in islice(mutants(task), MAX_MUTANTS):
        if not effort.allows(mutant.steps):
            return
        work = Work(mutant.steps)
        passes = judge(task, work, report=False).outcome is Outcome.SOUND
        if passes and judge(strict, work, report=False).outcome is Outcome.WRONG:
            yield mutant


def looser_conditions(task: Task, images: Sequence[tuple[Step, ...]]) -> tuple[Condition, ...]:
    """Conditions that hold of the model and of its mirror images: what is true of the model in the place of "the same".

    None where nothing is asked for so, or where not enough is known to hold the answer fast.
    """
    names = [one.name for one in task.wanted]
    rest = tuple(condition for condition in task.conditions if condition not in map(the_same, task.wanted))
    if len(rest) == len(task.conditions):
        return ()
    looser = tuple(dict.fromkeys((*rest, *that_pin(task.given, task.model, names))))
    if looser == rest:
        return ()
    loose = replace(task, conditions=looser)
    sound = all(judge(loose, Work(image), report=False).outcome is Outcome.SOUND for image in images)
    return looser if sound else ()


def mutants(task: Task) -> Iterator[Mutant]:
    """The model with one step changed, in every way in which a student slips."""
    there = [*task.given]
    figure = Figure([*task.given, *task.model])
    _, places = figure.drawn()
    for number, step in enumerate(task.model):
        place = places[figure.index[step.id]]
        for other in slips(step, there, place if MAKES[step.make].gives is Kind.POINT else None):
            steps = (*task.model[:number], other, *task.model[number + 1 :])
            yield Mutant(steps, step.id, other.make == "free_point" and step.make != "free_point")
        there.append(step)


def slips(step: Step, before: Sequence[Step], place: object) -> Iterator[Step]:
    """A step as it may go wrong. ``place``: where its point lies as drawn, if it makes one."""
    if isinstance(place, Point) and step.sources and is_defined(place):
        yield Step(step.id, "free_point", at=(float(place.x), float(place.y)))
    if step.make == "intersection" and step.choice == "pick":
        yield replace(step, pick=3 - (step.pick or 1))
    kinds = {one.id: MAKES[one.make].gives for one in before}
    for entry, source in enumerate(step.sources):
        for other, kind in kinds.items():
            if kind is kinds.get(source) and other not in step.sources and step.choice != "other_than":
                yield replace(step, sources=(*step.sources[:entry], other, *step.sources[entry + 1 :]))
