"""Proofs for pages: found in a process of their own, and kept, since the same question has the same answer."""

from __future__ import annotations

from functools import lru_cache
from json import dumps, loads

from ...documents.formats.task import read_task
from ...documents.reading import JsonObject
from ...documents.reasons.shown_proofs import nothing_to_prove_yet, shown
from ...judge.task_check import check_task
from ...reason.proving import follows_by, prove
from ...reason.rules import RuleName
from ...school.models import HandIn, TaskSheet
from ...school.tasks import proofs
from ...school.tasks.library import shipped
from ...school.tasks.library.notation import LibraryTask
from ...school.tasks.proofs import Question
from .judging import apart


def why_known(known: LibraryTask) -> JsonObject:
    """The proof that the sample solution of a task of the library is right, as it is shown."""
    return _found(proofs.of_known(known))


def of_sheet(sheet: TaskSheet) -> JsonObject:
    """The proof that the sample solution of a teacher's task is right, as it is shown."""
    asked = proofs.of_sheet(sheet)
    if shipped.proof_of(asked) is None and not _is_solved(dumps(sheet.document)):
        return nothing_to_prove_yet()
    return _found(asked)


def of_attempt(attempt: HandIn) -> JsonObject:
    """The proof of a sound attempt, as it is shown."""
    return _found(proofs.of_attempt(attempt))


def follows(attempt: HandIn, number: int, rule: str) -> bool:
    """Whether a line of the proof of an attempt follows by another rule too."""
    asked = proofs.of_attempt(attempt)
    return bool(apart(follows_by, asked.task, asked.steps, asked.answer, number, RuleName(rule)))


@lru_cache(maxsize=512)
def _is_solved(task_text: str) -> bool:
    return bool(apart(check_task, read_task(loads(task_text)), 0).is_solved)


@lru_cache(maxsize=512)
def _found(asked: Question) -> JsonObject:
    if (there := shipped.proof_of(asked)) is not None:
        return there
    task, steps = asked.task, asked.steps
    return shown(apart(prove, task, steps, asked.answer), task, steps, asked.names)
