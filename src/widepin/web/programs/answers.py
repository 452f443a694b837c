"""What the interface for programs takes and answers, beside the open documents."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, PlainSerializer

from ...documents.forms import Moment as AnyMoment
from ...documents.reading import JsonObject
from ...judge.verdict import Outcome
from ..reading import JsonBody

MOST_WORKS = 20
"""Works in one request to be checked."""

Moment = Annotated[datetime, PlainSerializer(lambda at: f"{at.isoformat(timespec='seconds')}Z", return_type=str)]
"""A time in UTC, as 2026-05-04T10:00:00Z."""


class Answer(BaseModel):
    """What is answered."""

    model_config = ConfigDict(extra="forbid")


class Named(Answer):
    """Somebody or something with its number."""

    id: int
    name: str


class TaskRow(Answer):
    """A task of one's own, in its latest version."""

    id: int = Field(description="of this version")
    title: str
    version: int
    topic: str
    archived: bool


class TaskWhole(TaskRow):
    """A task with its document."""

    task: JsonObject = Field(description="a task, format widepin.task/1")


class ClassRow(Answer):
    """A class that one teaches."""

    id: int
    name: str
    students: list[Named]


class AssignmentRow(Answer):
    """A task that a class was given."""

    id: int
    title: str
    task: int = Field(description="the number of the version of the task")
    opens: Moment | None
    due: Moment | None


class AttemptRow(Answer):
    """An attempt of a student."""

    id: int
    attempt: int
    handed_in: Moment
    outcome: Outcome
    moves: int
    score: int = Field(description="of 100, as it counts")


class WorkRow(Answer):
    """What a student has made of a task so far. Who has not begun has no attempts."""

    student: Named
    attempts: list[AttemptRow]


class AttemptWhole(AttemptRow):
    """An attempt with its documents."""

    work: JsonObject = Field(description="steps, and the answer if it was pointed out")
    verdict: JsonObject = Field(description="a verdict, format widepin.verdict/1")


class ProofWhole(Answer):
    """Why an attempt is right, as far as that is proved."""

    proof: list[JsonObject] | None = Field(
        description="lines, as the command prove prints them; null where there are none"
    )
    open: list[int] = Field(description="places of the conditions that were not proved")


class CheckedWork(Answer):
    """A work that was checked."""

    name: str
    verdict: JsonObject = Field(description="a verdict, format widepin.verdict/1")


class ErrorAnswer(Answer):
    """What is wrong."""

    error: str


class NewTask(JsonBody):
    """A task to be kept."""

    task: JsonObject = Field(description="a task, format widepin.task/1")


class NewAssignment(JsonBody):
    """A task to be given to a class. Times are read as UTC where they name no zone."""

    task: int = Field(description="the number of a task of one's own")
    opens: AnyMoment | None = None
    due: AnyMoment | None = None


class ToCheck(JsonBody):
    """A task, and works to be judged: a bundle."""

    task: JsonObject = Field(description="a task, format widepin.task/1")
    works: list[JsonObject] = Field(min_length=1, max_length=MOST_WORKS, description="each with its name and steps")
