"""The verdict document."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import AliasChoices, BaseModel, ConfigDict, Field, ValidationError

from ...judge.costs.counts import is_move
from ...judge.judging import judge
from ...judge.rules import WorkRule
from ...judge.task import Task
from ...judge.verdict import Break, Certificate, Counts, Drag, Failure, Outcome, Refusal, Verdict, Whose
from ...plane.rules import broken
from ..reading import JsonObject, Unreadable, from_validation
from ..wording.rule_words import worded
from .report import ReportDocument, read_report, write_report
from .task import read_work

Place = tuple[float, float]


class StepCounts(BaseModel):
    """Moves of the student."""

    moves: int = Field(description="lines and circles drawn, and other tools used")
    needed: int = Field(description="the moves that the answer depends on")
    idle: list[str] = Field(description="ids of the other moves")


class DragDocument(BaseModel):
    """A point dragged from one place to another, in centimetres."""

    model_config = ConfigDict(populate_by_name=True)
    id: str
    start: Place = Field(alias="from")
    end: Place = Field(alias="to")
    by: Whose
    path: list[Place] = Field(default=[], description="places at equal shares of the drag, from the first to the last")


class BreakDocument(BaseModel):
    """The simplest position found where the answer fails."""

    points: list[DragDocument]
    by: Whose = Field(description="own: a point of the student's had to be dragged")
    then: Failure
    object: str = Field(description="id of what vanishes first, or is wrong")


class CertificateDocument(BaseModel):
    """What balls proved."""

    positions: int
    digits: int


class RefusalDocument(BaseModel):
    """Why a work was not judged."""

    step: str | None = Field(description="id of the step, where it is one step's fault")
    rule: str


class VerdictDocument(BaseModel):
    """What the judge says of a work."""

    model_config = ConfigDict(title="Verdict")
    format: Literal["widepin.verdict/1"]
    outcome: Outcome
    answer: dict[str, str] | None
    steps: StepCounts
    breaks: BreakDocument | None
    method_holds: bool | None
    certificate: CertificateDocument | None
    refusal: RefusalDocument | None
    report: ReportDocument | None = None
    stopped: bool = Field(
        validation_alias=AliasChoices("stopped", "search_stopped"),  # as it was called first
        description="the answer was not found within bounds; it should be pointed out",
    )


def write_verdict(verdict: Verdict) -> JsonObject:
    """A verdict as JSON."""
    return VerdictDocument(
        format="widepin.verdict/1",
        outcome=verdict.outcome,
        answer=verdict.answer,
        steps=StepCounts(moves=verdict.counts.moves, needed=verdict.counts.needed, idle=list(verdict.counts.idle)),
        breaks=_write_break(verdict.breaks) if verdict.breaks else None,
        method_holds=verdict.method_holds,
        certificate=CertificateDocument(**vars(verdict.certificate)) if verdict.certificate else None,
        refusal=_write_refusal(verdict.refusal) if verdict.refusal else None,
        report=write_report(verdict.report) if verdict.report else None,
        stopped=verdict.stopped,
    ).model_dump(mode="json", by_alias=True)


def _write_refusal(refusal: Refusal) -> RefusalDocument:
    return RefusalDocument(step=refusal.step, rule=worded(refusal.broken))


def _write_break(found: Break) -> BreakDocument:
    points = [
        DragDocument.model_validate(
            {"id": drag.id, "from": drag.start, "to": drag.end, "by": drag.by, "path": drag.path}
        )
        for drag in found.drags
    ]
    return BreakDocument(points=points, by=found.by, then=found.happens, object=found.object)


def judge_document(task: Task, value: object) -> Verdict:
    """The verdict on a work in JSON. A work that cannot be read is refused, with the place in the rule."""
    try:
        return judge(task, read_work(value))
    except Unreadable as wrong:
        return Verdict(Outcome.REFUSED, _raw_counts(value), refusal=refused(_step_at(value, wrong.place), str(wrong)))


def refused(step: str | None, words: str) -> Refusal:
    """A refusal whose words are known already."""
    return Refusal(step, broken(WorkRule.AS_WORDED, words=words))


def _raw_steps(value: object) -> list[Any]:
    steps = value.get("steps") if isinstance(value, dict) else None
    return steps if isinstance(steps, list) else []


def _raw_counts(value: object) -> Counts:
    """Counts of steps that could not be read, as far as their makes are plain."""
    idle = tuple(
        str(step.get("id"))[:24]
        for step in _raw_steps(value)
        if isinstance(step, dict) and isinstance(step.get("make"), str) and is_move(step["make"])
    )
    return Counts(len(idle), 0, idle)


def _step_at(value: object, place: str) -> str | None:
    """The id of the step that a place like steps[3].at points into."""
    number, _, _ = place.removeprefix("steps[").partition("]")
    if not (place.startswith("steps[") and number.isdigit()):
        return None
    step = _raw_steps(value)[int(number)]
    id_ = step.get("id") if isinstance(step, dict) else None
    return id_ if isinstance(id_, str) else None


def read_verdict(value: object) -> Verdict:
    """A verdict from its JSON value. Raises Unreadable."""
    try:
        document = VerdictDocument.model_validate(value)
    except ValidationError as error:
        raise from_validation(error) from None
    return Verdict(
        document.outcome,
        Counts(document.steps.moves, document.steps.needed, tuple(document.steps.idle)),
        document.answer,
        _read_break(document.breaks) if document.breaks else None,
        document.method_holds,
        Certificate(**document.certificate.model_dump()) if document.certificate else None,
        refused(document.refusal.step, document.refusal.rule) if document.refusal else None,
        read_report(document.report) if document.report else None,
        document.stopped,
    )


def _read_break(found: BreakDocument) -> Break:
    drags = tuple(Drag(point.id, point.start, point.end, point.by, tuple(point.path)) for point in found.points)
    return Break(drags, found.then, found.object)
