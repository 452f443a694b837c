"""Proofs for screens: found in a process of their own, and kept, since the same structure has the same proof."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from json import dumps, loads

from ..documents.construction import read_steps
from ..documents.language import gettext as _
from ..documents.language import ngettext
from ..documents.proof_words import case_in_words
from ..documents.proofs import explained_proof, said_after
from ..documents.reading import JsonObject
from ..documents.task import read_task, to_be_shown
from ..judge.task import Task
from ..judge.task_check import check_task
from ..judge.trials.examination import Examination
from ..plane.figure import is_defined
from ..plane.steps import Step
from ..reason.checker import check
from ..reason.proof import Proof
from ..reason.proving import prove
from ..reason.rules import RuleName
from ..school.models import HandIn, TaskSheet
from ..school.tasks.library import LIBRARY
from ..school.tasks.library.notation import LibraryTask
from .judging import apart


def why(
    task: JsonObject, steps: list[JsonObject], answer: dict[str, str], shows: Sequence[JsonObject] = ()
) -> JsonObject:
    """The lines of the proof that an answer is right, in words, and what is to be said of them.

    ``task``: a task document; ``steps``: of the work, or of the sample solution. ``shows``: conditions that are proved
    instead of those of the task, if any.
    """
    named = {step["id"]: step["label"] for step in [*task["given"], *steps] if step.get("label")}
    return _found(dumps(task), dumps(steps), *(dumps(one, sort_keys=True) for one in (answer, named, shows)))


def why_known(known: LibraryTask) -> JsonObject:
    """The proof that the sample solution of a task of the library is right."""
    return _of_model(known.document(), known.shows)


def of_sheet(sheet: TaskSheet) -> JsonObject:
    """The proof that the sample solution of a teacher's task is right; of a task of the library as it is there."""
    if not _is_solved(dumps(sheet.document)):
        return {
            "lines": [],
            "said": _("The sample solution does not solve the task, so there is nothing to prove yet."),
        }
    return _of_model(sheet.document, shown_instead(sheet))


def _of_model(task: JsonObject, shows: Sequence[JsonObject]) -> JsonObject:
    return why(task, task["model"], {one["name"]: one["name"] for one in task["wanted"]}, shows)


@lru_cache(maxsize=512)
def _is_solved(task_text: str) -> bool:
    return bool(apart(check_task, read_task(loads(task_text)), 0).is_solved)


def shown_instead(sheet: TaskSheet) -> Sequence[JsonObject]:
    """The conditions that are proved instead of those of a task; none but where it is one of the library, unchanged."""
    known = LIBRARY.get(sheet.library_key or "")
    return known.shows if known is not None and known.document()["model"] == sheet.document["model"] else ()


def of_attempt(attempt: HandIn) -> JsonObject:
    """The proof of a sound attempt, as ``why`` has it."""
    document, answer = attempt.work.assignment.sheet.document, attempt.verdict["answer"] or {}
    return why(document, attempt.document["steps"], answer)


def for_reader(proof: JsonObject, elements: bool) -> JsonObject:
    """A proof as ``why`` has it, with the places in the Elements or without."""
    if elements:
        return proof
    return {**proof, "lines": [{**line, "elements": ""} for line in proof["lines"]]}


def follows(task: JsonObject, steps: list[JsonObject], answer: dict[str, str], number: int, rule: str) -> bool:
    """Whether a line of that proof follows by another rule too: the checker says so."""
    return bool(apart(_follows, read_task(task), read_steps(steps), answer, number, RuleName(rule)))


def _follows(task: Task, steps: tuple[Step, ...], answer: dict[str, str], number: int, rule: RuleName) -> bool:
    lines = list(prove(task, steps, answer).lines)
    lines[number - 1] = replace(lines[number - 1], rule=rule)
    examined = Examination(task, steps)
    numbers = [n for n in range(examined.last) if is_defined(examined.shapes[n])]
    return check(Proof(tuple(lines)), examined, numbers, answer) is None


@lru_cache(maxsize=512)
def _found(task_text: str, steps_text: str, answer_text: str, names_text: str, shows_text: str) -> JsonObject:
    task, names = to_be_shown(read_task(loads(task_text)), loads(shows_text)), loads(names_text)
    steps = read_steps(loads(steps_text))
    proof = apart(prove, task, steps, loads(answer_text))
    lines = explained_proof(proof, task, names)
    for line, after in zip(lines, said_after(lines, [step.id for step in steps]), strict=True):
        line["after"] = after
    if proof.open_case is not None:
        return {
            "lines": lines,
            "said": _(
                "This is a proof in part: %(case)s, none in school terms was found. It was checked exactly there too.",
                case=case_in_words(proof.open_case, names),
            ),
        }
    if not proof.is_whole:
        return {
            "lines": [],
            "said": _(
                "It was checked exactly in many random positions. A proof in school terms was not found;"
                " what stays true is a beginning of one."
            ),
        }
    if proof.trivial:
        made = [line for line in lines if line["rule"] != RuleName.THERE_IS_ONE]
        return {"lines": made, "said": _("There is nothing to prove: it was made just as the task asks for it.")}
    said = ngettext(
        "%(n)s line, which holds in every position.", "%(n)s lines, which hold in every position.", len(lines)
    )
    return {"lines": lines, "said": said}
