"""What trying a task found, in words and pictures."""

from __future__ import annotations

from collections.abc import Sequence

from ...documents.construction import write_step
from ...documents.explaining import explained
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject
from ...documents.rule_words import worded
from ...documents.task import write_condition
from ...documents.verdict import write_verdict
from ...documents.words import Words, listed
from ...judge.task import Task
from ...judge.task_check import Mutant, TaskCheck
from ...judge.verdict import Outcome
from ...plane.steps import Step


def task_check_in_words(task: Task, tried: TaskCheck, document: JsonObject) -> JsonObject:
    """Whether the task can be assigned, what to look at, and pictures of what would pass or be shut out."""
    model = {"given": document["given"], "start": [], "steps": document["model"]}
    breaks = write_verdict(tried.model)["breaks"]
    answer = sorted((tried.model.answer or {}).values())
    return {
        "solved": tried.is_solved,
        "moves": tried.attainable,
        "headline": headline(task, tried),
        "well": tried.is_solved and not warnings(task, tried),
        "model": None
        if tried.is_solved
        else {"figure": {**model, "answer": answer, "breaks": breaks}, "sentences": explained(tried.model, task)},
        "warnings": warnings(task, tried),
        "passing": [passing(task, one, document) for one in tried.passing],
        "rejected": [rejected(task, one, document) for one in tried.rejected],
        "looser": [write_condition(one) for one in tried.looser],
    }


def headline(task: Task, tried: TaskCheck) -> str:
    """In one sentence whether all is well."""
    if not tried.is_solved:
        return _("The sample solution does not solve the task, so it cannot be assigned yet.")
    if warnings(task, tried):
        return _("The sample solution solves the task wherever the figure is dragged, but look at this first:")
    if tried.passing:
        return _("The sample solution solves the task wherever the figure is dragged; look at what else would pass.")
    if tried.rejected:
        return _(
            "The sample solution solves the task wherever the figure is dragged; look at what would be called wrong."
        )
    return _(
        "All is well: the sample solution solves the task wherever the figure is dragged, with the tools of the task."
    )


def warnings(task: Task, tried: TaskCheck) -> list[str]:
    """What a teacher should look at before assigning."""
    found = []
    if tried.model.outcome is Outcome.WRONG and tried.model.report is not None:
        clauses = [Words(task).condition(condition) for condition in task.conditions]
        found += [
            _("Not true of the sample solution as drawn: %(clauses)s.", clauses=clauses[condition.place])
            for condition in tried.model.report.conditions
            if condition.holds_as_drawn is False
        ]
    if tried.stands_empty:
        found.append(_("Nothing has to be constructed: the given figure alone is correct. Add a condition."))
    if tried.refusal is not None:
        found.append(
            _("The tools of the task cannot make the sample solution: %(rule)s.", rule=worded(tried.refusal.broken))
        )
    if tried.stopped:
        found.append(_("The sample solution is so long that not all mistakes in it were tried."))
    if task.budget is not None and task.budget < tried.attainable:
        found.append(
            _(
                "The move limit is %(budget)s moves; with the tools of the task the sample solution takes %(moves)s.",
                budget=task.budget,
                moves=tried.attainable,
            )
        )
    return found


def passing(task: Task, mutant: Mutant, document: JsonObject) -> JsonObject:
    """A changed model that would pass, as a figure and a sentence."""
    changed = next(step for step in mutant.steps if step.id == mutant.changed)
    how = _("placed by eye") if mutant.by_eye else _("made otherwise: %(step)s", step=Words(task).step(changed))
    return {"words": f"{mutant.changed} {how}", "figure": drawn(task, mutant.steps, document)}


def rejected(task: Task, image: Sequence[Step], document: JsonObject) -> JsonObject:
    """A mirror image that would be called wrong, as a figure and a sentence."""
    turned = [step.id for step, own in zip(image, task.model, strict=True) if step != own]
    return {
        "words": ngettext(
            "%(points)s at the other intersection",
            "%(points)s at the other intersections",
            len(turned),
            points=listed(turned),
        ),
        "figure": drawn(task, image, document),
    }


def drawn(task: Task, steps: Sequence[Step], document: JsonObject) -> JsonObject:
    """A construction in the place of the model, as a figure."""
    return {
        "given": document["given"],
        "start": [],
        "steps": [write_step(step) for step in steps],
        "answer": [one.name for one in task.wanted],
    }
