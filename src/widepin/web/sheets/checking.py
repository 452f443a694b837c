"""What trying a task found, in words and pictures."""

from __future__ import annotations

from collections.abc import Sequence

from ...documents.formats.construction import write_step
from ...documents.formats.task import write_condition
from ...documents.formats.verdict import write_verdict
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import JsonObject
from ...documents.wording.explaining import explained
from ...documents.wording.misfit_words import at_steps, misfit_in_words
from ...documents.wording.words import Words, listed
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
        "at_steps": at_steps(tried.misfits),
        "wrong": [
            {"words": became_of_wrong(outcome), "is_well": outcome is not Outcome.SOUND} for outcome in tried.wrong
        ],
        "passing": [passing(task, one, document) for one in tried.passing],
        "rejected": [rejected(task, one, document) for one in tried.rejected],
        "looser": [write_condition(one) for one in tried.looser],
    }


def became_of_wrong(outcome: Outcome) -> str:
    """What became of a solution that must be rejected."""
    match outcome:
        case Outcome.SOUND:
            return _("passes as correct")
        case Outcome.REFUSED:
            return _("does not fit the task any more")
        case _other:
            return _("is rejected")


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
    found = [misfit_in_words(task, misfit) for misfit in tried.misfits]
    if tried.stopped:
        found.append(_("The sample solution is so long that not all mistakes in it were tried."))
    return found


def passing(task: Task, mutant: Mutant, document: JsonObject) -> JsonObject:
    """A changed model that would pass, as a figure and a sentence."""
    changed = next(step for step in mutant.steps if step.id == mutant.changed)
    how = _("placed by eye") if mutant.by_eye else _("made otherwise: %(step)s", step=Words(task).step(changed))
    steps = [write_step(step) for step in mutant.steps]
    return {"words": f"{mutant.changed} {how}", "figure": drawn(task, mutant.steps, document), "steps": steps}


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
