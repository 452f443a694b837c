"""The task document, and the works that answer it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Literal

from pydantic import (
    BaseModel,
    ConfigDict,
    Field,
    GetJsonSchemaHandler,
    StrictBool,
    StrictInt,
    StrictStr,
    ValidationError,
    field_validator,
    model_validator,
)
from pydantic_core import CoreSchema

from ...judge.conditions import RELATIONS
from ...judge.judging import check_task
from ...judge.task import TOOLS, WANTED_KINDS, Allowance, Condition, IllFormedTask, Task, Wanted, Work
from ...plane.makes import MAKES
from ...plane.steps import MAX_STEPS, Step
from ..reading import JsonObject, Unreadable, from_validation
from ..wording.rule_words import worded
from .construction import StepDocument, read_steps
from .uses import read_uses

TASK_FORMAT = "widepin.task/1"

STRICT = ConfigDict(extra="forbid", populate_by_name=True)


class AllowanceDocument(BaseModel):
    """A tool, with or without a bound on its use; without one it is written as its name alone."""

    model_config = STRICT
    tool: StrictStr = Field(json_schema_extra={"enum": list(TOOLS)})
    most: StrictInt | None = Field(default=None, ge=0, description="how often the student may use it")
    opening: tuple[StrictStr, StrictStr] | None = Field(
        default=None, description="of circle_radius: two given points whose distance is its only radius"
    )

    @field_validator("opening", mode="before")
    @classmethod
    def _two_points(cls, value: object) -> Any:
        if value is not None and not (isinstance(value, list) and [type(end) for end in value] == [str, str]):
            raise ValueError("must be two given points whose distance is the only radius")
        return value

    @model_validator(mode="before")
    @classmethod
    def _name_alone(cls, value: object) -> Any:
        return {"tool": value} if isinstance(value, str) else value

    @classmethod
    def __get_pydantic_json_schema__(cls, core: CoreSchema, handler: GetJsonSchemaHandler) -> JsonObject:
        return {"anyOf": [{"type": "string", "enum": list(TOOLS)}, handler(core)]}


class WantedDocument(BaseModel):
    """An object of the answer."""

    model_config = STRICT
    name: StrictStr = Field(min_length=1, max_length=24)
    kind: StrictStr = Field(json_schema_extra={"enum": list(WANTED_KINDS)})
    given: StrictBool = Field(default=False, description="whether a given object may serve too")


TermDocument = StrictStr | list[StrictStr]


class ConditionDocument(BaseModel):
    """A relation that must hold between its terms."""

    model_config = STRICT
    rel: StrictStr = Field(json_schema_extra={"enum": list(RELATIONS)})
    of: list[TermDocument] = Field(description="names, pairs or triples of names")
    ratio: tuple[StrictInt, StrictInt] | None = Field(default=None, alias="is", description="n, d of ratio")

    @field_validator("of", mode="before")
    @classmethod
    def _names(cls, value: object) -> Any:
        terms = value if isinstance(value, list) else [value]
        for term in terms:
            parts = term if isinstance(term, list) else [term]
            if not isinstance(value, list) or not all(isinstance(part, str) for part in parts):
                raise ValueError("must be a list of names, or of lists of names")
        return value

    def condition(self) -> Condition:
        """The condition as the judge knows it."""
        of = tuple(term if isinstance(term, str) else tuple(term) for term in self.of)
        return Condition(self.rel, of, self.ratio)


class BudgetDocument(BaseModel):
    """What a good construction should cost."""

    model_config = STRICT
    moves: StrictInt = Field(ge=0)


class TaskDocument(BaseModel):
    """A task: what is given, allowed and wanted."""

    model_config = ConfigDict(extra="forbid", title="Task")
    format: Literal["widepin.task/1"]
    title: StrictStr = Field(default="", max_length=200)
    text: StrictStr = Field(default="", max_length=10_000)
    given: list[StepDocument]
    start: list[StepDocument] = Field(default_factory=list, max_length=MAX_STEPS)
    tools: list[AllowanceDocument]
    wanted: list[WantedDocument]
    conditions: list[ConditionDocument]
    model: list[StepDocument] = Field(default_factory=list)
    budget: BudgetDocument | None = None


def read_task(value: object) -> Task:
    """A task from its JSON value, checked whole. Raises Unreadable."""
    if isinstance(value, dict) and value.get("format") != TASK_FORMAT:
        found = str(value.get("format", "nothing"))[:40]
        raise Unreadable("format", f"{found} cannot be read; this reads {TASK_FORMAT}")
    try:
        document = TaskDocument.model_validate(value)
    except ValidationError as error:
        raise from_validation(error) from None
    try:
        task = Task(
            title=document.title,
            text=document.text,
            given=steps_of(document.given),
            start=steps_of(document.start),
            tools=tuple(Allowance(tool.tool, tool.most, tool.opening) for tool in document.tools),
            wanted=tuple(Wanted(one.name, one.kind, one.given) for one in document.wanted),
            conditions=tuple(condition.condition() for condition in document.conditions),
            model=steps_of(document.model),
            budget=document.budget.moves if document.budget else None,
        )
        check_task(task)
    except IllFormedTask as wrong:
        raise Unreadable(wrong.place, worded(wrong.broken)) from None
    return task


def to_be_shown(task: Task, documents: Sequence[JsonObject]) -> Task:
    """A task with other conditions, which may name what its sample solution makes besides; itself without any.

    Raises Unreadable for conditions that cannot be read, IllFormedTask for those that do not fit the task.
    """
    if not documents:
        return task
    try:
        conditions = tuple(ConditionDocument.model_validate(document).condition() for document in documents)
    except ValidationError as error:
        raise from_validation(error) from None
    named = set[str]().union(*(condition.names for condition in conditions)) - {one.name for one in task.wanted}
    besides = (Wanted(step.id, MAKES[step.make].gives) for step in task.model if step.id in named)
    return replace(task, wanted=(*task.wanted, *besides), conditions=conditions)


def steps_of(documents: list[StepDocument]) -> tuple[Step, ...]:
    """Steps as the plane knows them."""
    return tuple(document.step() for document in documents)


def write_condition(condition: Condition) -> JsonObject:
    """A condition as JSON."""
    of = [list(term) if isinstance(term, tuple) else term for term in condition.of]
    return {"rel": condition.rel, "of": of} | ({"is": list(condition.ratio)} if condition.ratio else {})


def read_work(value: object) -> Work:
    """A work from its JSON value. Raises Unreadable."""
    if not isinstance(value, dict):
        raise Unreadable("", "must be an object in curly braces")
    if "steps" not in value:
        raise Unreadable("steps", "is missing; add the list of steps")
    if isinstance(value["steps"], list) and len(value["steps"]) > MAX_STEPS:
        raise Unreadable("steps", f"{len(value['steps'])} steps are too many; at most {MAX_STEPS} are judged")
    try:
        steps = read_steps(value["steps"])
    except Unreadable as wrong:
        raise wrong.inside("steps") from None
    answer = value.get("answer")
    if answer is not None and not (isinstance(answer, dict) and all(isinstance(id_, str) for id_ in answer.values())):
        raise Unreadable("answer", "must name one object for each wanted name")
    try:
        uses = read_uses(value.get("uses") or [], steps)
    except Unreadable as wrong:
        raise wrong.inside("uses") from None
    return Work(steps, answer, uses)
