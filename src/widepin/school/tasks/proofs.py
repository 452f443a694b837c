"""What is to be proved: of a sample solution or of a student's own work, as documents that say all that it hangs on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from json import dumps, loads

from ...documents.formats.construction import read_steps
from ...documents.formats.task import read_task, to_be_shown
from ...documents.reading import JsonObject
from ...judge.task import Task
from ...plane.steps import Step
from ..models import HandIn, TaskSheet
from .library import LIBRARY
from .library.notation import LibraryTask


@dataclass(frozen=True)
class Question:
    """Why an answer is right. All parts are JSON as text, so that what was asked before is known again.

    ``steps``: of the work, or of the sample solution. ``names``: what objects are called besides their ids. ``shows``:
    conditions that are proved instead of those of the task, if any.
    """

    task_text: str
    steps_text: str
    answer_text: str
    names_text: str
    shows_text: str

    @property
    def task(self) -> Task:
        """The task, with the conditions that are to be proved."""
        return to_be_shown(read_task(loads(self.task_text)), loads(self.shows_text))

    @property
    def steps(self) -> tuple[Step, ...]:
        """The steps of which it is asked."""
        return read_steps(loads(self.steps_text))

    @property
    def answer(self) -> dict[str, str]:
        """Wanted name -> id."""
        return dict(loads(self.answer_text))

    @property
    def names(self) -> dict[str, str]:
        """Id -> what an object is called."""
        return dict(loads(self.names_text))


def question(
    task: JsonObject, steps: list[JsonObject], answer: dict[str, str], shows: Sequence[JsonObject] = ()
) -> Question:
    """Why an answer is right, by documents of task and steps."""
    named = {step["id"]: step["label"] for step in [*task["given"], *steps] if step.get("label")}
    ordered = (dumps(one, sort_keys=True) for one in (answer, named, shows))
    return Question(dumps(task), dumps(steps), *ordered)


def of_known(known: LibraryTask) -> Question:
    """Why the sample solution of a task of the library is right."""
    return _of_model(known.document(), known.shows)


def of_sheet(sheet: TaskSheet) -> Question:
    """Why the sample solution of a teacher's task is right; of a task of the library as it is there."""
    return _of_model(sheet.document, shown_instead(sheet))


def of_attempt(attempt: HandIn) -> Question:
    """Why a sound attempt is right."""
    document, answer = attempt.sheet_judged.document, attempt.verdict["answer"] or {}
    return question(document, attempt.document["steps"], answer)


def shown_instead(sheet: TaskSheet) -> Sequence[JsonObject]:
    """The conditions that are proved instead of those of a task; none but where it is one of the library, unchanged."""
    known = LIBRARY.get(sheet.library_key or "")
    return known.shows if known is not None and known.document()["model"] == sheet.document["model"] else ()


def _of_model(task: JsonObject, shows: Sequence[JsonObject]) -> Question:
    return question(task, task["model"], {one["name"]: one["name"] for one in task["wanted"]}, shows)
