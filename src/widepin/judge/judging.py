"""A verdict on a work: everything the judge does, in order.

>>> from widepin.plane.steps import Step
>>> from widepin.judge.task import Allowance, Condition, Task, Wanted
>>> task = Task("Middle of a sill", (Step("A", "free_point", at=(0, 0)), Step("B", "free_point", at=(6, 0))),
...     (Allowance("midpoint"),), (Wanted("M", "point"),), (Condition("midpoint", ("M", "A", "B")),))
>>> judge(task, Work((Step("C", "midpoint", ("A", "B")),))).outcome.value
'sound'
"""

from __future__ import annotations

from ..plane.rules import broken
from ..plane.steps import IllFormed, check_steps
from ..plane.tolerances import DIGITS
from .costs.class_tools import at_result, with_class_tools
from .costs.counts import by_hand, counted, counted_alone, refused_tool
from .positions.references import check_references
from .reports.report import report_on
from .rules import WorkRule
from .task import IllFormedTask, Task, Work
from .trials.answers import best_found, pointed_out
from .trials.breaks import simplest_break
from .trials.examination import Examination
from .trials.method import method_holds
from .verdict import Certificate, Outcome, Refusal, Verdict


def judge(task: Task, work: Work, report: bool = True) -> Verdict:
    """The verdict on a work, with a report or without.

    A work that breaks a rule is refused; nothing is raised for it.
    """
    refusal = refused_tool(by_hand(work.steps, work.uses), task.tools) or ill_formed(task, work)
    if refusal is not None:
        return Verdict(Outcome.REFUSED, counted_alone(work), refusal=refusal)
    examined = Examination(task, work.steps, work.hidden_helpers)
    found = pointed_out(examined, work) if work.answer is not None else best_found(examined, work)
    best = found.trial
    if best is None:
        answer = work.answer
        numbers = {name: examined.figure.index[id_] for name, id_ in (answer or {}).items()}
        counts = counted(work, examined.figure, numbers.values()) if answer else counted_alone(work)
        said = with_class_tools(report_on(examined, work, None, None, numbers), work) if report else None
        return Verdict(Outcome.WRONG, counts, answer, report=said, stopped=found.stopped)
    found_break = simplest_break(examined, best)
    return Verdict(
        best.outcome,
        counted(work, examined.figure, best.answer.values()),
        examined.ids_of(best.answer),
        at_result(found_break, work),
        method_holds(examined, best),
        Certificate(best.certified, DIGITS) if best.outcome is Outcome.SOUND else None,
        report=with_class_tools(report_on(examined, work, best, found_break), work) if report else None,
        stopped=found.stopped,
    )


def check_task(task: Task) -> None:
    """What only evaluation can tell of a task: that its intersections refer to common points. Raises IllFormedTask.

    The rest was checked when the task was made.
    """
    try:
        check_references(task.figure(), 0)
    except IllFormed as wrong:
        parts = (("given", task.given), ("start", task.start), ("model", task.model))
        number = wrong.index
        for part, steps in parts:
            if number < len(steps):
                raise IllFormedTask(f"{part}[{number}].{wrong.field}", wrong.broken) from None
            number -= len(steps)


def ill_formed(task: Task, work: Work) -> Refusal | None:
    """The first rule of the format that a work breaks: its steps, then its answer."""
    known = check_steps(task.done)
    try:
        kinds = check_steps(work.steps, known)
        if any(step.choice == "other_than" for step in work.steps):
            check_references(task.figure(work.steps), len(task.done))
    except IllFormed as wrong:
        return Refusal(wrong.step_id, wrong.broken)
    if work.answer is None:
        return None
    wanted = {one.name: one for one in task.wanted}
    given = {step.id for step in task.given}
    for name, id_ in work.answer.items():
        if name not in wanted:
            return Refusal(None, broken(WorkRule.NOT_ASKED_FOR, name=name))
        if id_ not in kinds:
            return Refusal(None, broken(WorkRule.NOT_ON_THE_BOARD, name=name, id=id_))
        if kinds[id_] not in wanted[name].kinds:
            kind = wanted[name].kind
            return Refusal(None, broken(WorkRule.KIND_OF_ANSWER, name=name, wanted=kind, id=id_, kind=kinds[id_]))
        if id_ in work.hidden_helpers:
            return Refusal(None, broken(WorkRule.ANSWER_IS_HELPER, id=id_, name=name, class_tool=work.tool_of(id_)))
        if id_ in given and not wanted[name].given:
            return Refusal(None, broken(WorkRule.ANSWER_IS_GIVEN, id=id_, name=name))
    for name in wanted:
        if name not in work.answer:
            return Refusal(None, broken(WorkRule.ANSWER_LACKS, name=name))
    return None
