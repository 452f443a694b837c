"""What the school keeps as JSON: figures, hand-ins, class tools, and how a task is to be set."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from ..reading import JsonObject
from ..wording.explaining import Feedback
from .construction import StepDocument


class FigureDocument(BaseModel):
    """A figure as it lies and is shown: given, steps given at the start, and the student's own."""

    given: list[StepDocument]
    start: list[StepDocument] = []
    steps: list[StepDocument] = []


class ToolUseDocument(BaseModel):
    """The use of a class tool: the ids of its steps in their order, its results, and what it counts."""

    class_tool: str
    ids: list[str]
    gives: list[str]
    moves: int = Field(ge=0)


class HandInDocument(FigureDocument):
    """A work as it was handed in. ``answer``: wanted name -> id, where the student pointed it out."""

    answer: dict[str, str] | None = None
    uses: list[ToolUseDocument] = []
    notes: list[JsonObject] = []


class ClassToolDocument(BaseModel):
    """The construction that a class tool is made of: from given objects, by steps, to the objects it gives."""

    given: list[StepDocument]
    steps: list[StepDocument]
    gives: list[str] = Field(min_length=1)


class Policy(BaseModel):
    """How a task is to be set unless its assignment says otherwise.

    ``scoring``: percent by outcome, where it is not the usual.
    """

    model_config = ConfigDict(extra="forbid")
    feedback: Feedback = Feedback.BREAK
    measuring: bool = True
    finding: bool = True
    loci: bool = True
    attempts: int | None = Field(default=None, ge=1, le=99)
    scoring: dict[str, int] = Field(default_factory=dict)
