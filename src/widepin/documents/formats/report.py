"""The report in a verdict document: what can be said beyond the outcome."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator

from ...judge.costs.elementary import Costs
from ...judge.task import Condition, Names
from ...judge.trials.certifying import TRUTHS
from ...judge.verdict import Absent, ConditionReport, Fate, Measured, Mend, Quantity, Report, Why
from ...plane.steps import Step
from ...plane.strokes import Strokes
from .construction import StepDocument, write_step

STROKES: tuple[Literal["R1", "R2", "C1", "C2", "C3"], ...] = ("R1", "R2", "C1", "C2", "C3")


class MeasuredDocument(BaseModel):
    """A value that a condition is about; null where it does not exist."""

    what: Quantity = Field(description="length, distance or radius in centimetres, angle in degrees")
    of: list[str | list[str]] = Field(description="the terms that it is measured on")
    drawn: float | None
    at_break: float | None


class ConditionDocument(BaseModel):
    """A condition of the task, looked at as drawn and in the break. Gaps in centimetres, null where undefined."""

    place: int = Field(description="its place in the task's conditions, from 0")
    holds_as_drawn: bool
    gap_as_drawn: float | None
    holds_at_break: bool | None
    gap_at_break: float | None
    measured: list[MeasuredDocument] = []


class MendDocument(BaseModel):
    """Steps that would make the work sound in the places of those with the same ids."""

    steps: list[StepDocument]


class ProvisoDocument(BaseModel):
    """What must be true of a point of the student's own for the work to hold."""

    rel: Literal[
        "longer_than_half",
        "longer",
        "shorter",
        "farther_than_line",
        "nearer",
        "same_side",
        "opposite_side",
        "meet",
    ]
    of: list[str | list[str]] = Field(
        description="two pairs of points; nearer: a point, to one, than to another; farther_than_line: a pair, a line;"
        " meet: two curves"
    )


def _truth(rel: str) -> str:
    """A relation that truths are about. Raises ValueError for any other."""
    if rel not in TRUTHS:
        raise ValueError(f"must be one of {', '.join(TRUTHS)}")
    return rel


class TruthDocument(BaseModel):
    """A relation among the student's objects that holds wherever these exist."""

    model_config = ConfigDict(populate_by_name=True)
    rel: Annotated[str, AfterValidator(_truth), Field(json_schema_extra={"enum": list(TRUTHS)})]
    of: list[str | list[str]] = Field(description="as in the conditions of a task; concyclic: points on one circle")
    ratio: tuple[int, int] | None = Field(default=None, alias="is", description="n, d of ratio")


class AbsentDocument(BaseModel):
    """An object that does not exist as drawn, the first that does not among those it is made from, and why."""

    id: str
    first: str
    why: Why
    of: list[str] = Field(description="ids of what makes it so")


class CostsDocument(BaseModel):
    """What a construction costs. Lemoine's five operations are counted as R1, R2, C1, C2 and C3."""

    moves: int
    elementary: int = Field(description="lines and circles, other tools at the price of their shortest construction")
    strokes: dict[Literal["R1", "R2", "C1", "C2", "C3"], int]
    simplicity: int = Field(description="all strokes")
    exactitude: int = Field(description="R1 + C1 + C2")


class ReportDocument(BaseModel):
    """What can be said beyond the outcome."""

    @model_validator(mode="before")
    @classmethod
    def _as_it_was_once(cls, value: Any) -> Any:
        """Reports were kept once with one proviso at most."""
        if isinstance(value, dict) and "proviso" in value:
            value = {**value, "provisos": [one] if (one := value["proviso"]) else []}
            del value["proviso"]
        return value

    conditions: list[ConditionDocument]
    shapes: dict[str, Fate] = Field(description="by shape of the given triangle")
    by_eye: list[str] = Field(description="ids of the student's own points that the answer hangs on")
    slides: dict[str, str] = Field(default={}, description="of these, id -> the curve that it slides on")
    ties: dict[str, StepDocument] = Field(default={}, description="of these, id -> what it lies next to, as a step")
    closest: dict[str, str] | None = Field(
        default=None, description="what comes closest to being right, where nothing is"
    )
    repeated: dict[str, str] = Field(description="id -> id of the earlier object that it is")
    mends: list[MendDocument]
    truths: list[TruthDocument] = Field(default=[], description="what stays true, the most telling first")
    costs: CostsDocument | None = None
    model_costs: CostsDocument | None = None
    instead: dict[str, str] = Field(
        default={}, description="wanted name -> id that would be right, where another was pointed out"
    )
    absent: list[AbsentDocument] = Field(
        default=[], description="objects that were pointed out and do not exist as drawn"
    )
    unmarked: list[StepDocument] = Field(
        default=[], description="intersections that would be right if they were marked, under the wanted names"
    )
    provisos: list[ProvisoDocument] = Field(
        default=[],
        description="where it is by points of the student's own that the work is fragile: what must be true of them",
    )


def write_report(report: Report) -> ReportDocument:
    """A report as a document."""
    return ReportDocument(
        conditions=[_write_condition(condition) for condition in report.conditions],
        shapes=report.shapes,  # type: ignore[arg-type]
        by_eye=list(report.by_eye),
        slides=report.slides,
        ties={id_: _step_document(step) for id_, step in report.ties.items()},
        closest=report.closest,
        repeated=report.repeated,
        mends=[MendDocument(steps=[_step_document(step) for step in mend.steps]) for mend in report.mends],
        truths=[
            TruthDocument.model_validate({"rel": truth.rel, "of": _write_names(truth.of), "is": truth.ratio})
            for truth in report.truths
        ],
        costs=_write_costs(report.costs) if report.costs else None,
        model_costs=_write_costs(report.model_costs) if report.model_costs else None,
        instead=report.instead,
        absent=[AbsentDocument(**{**vars(one), "of": list(one.of)}) for one in report.absent],
        unmarked=[_step_document(step) for step in report.unmarked],
        provisos=[
            ProvisoDocument(rel=one.rel, of=_write_names(one.of))  # type: ignore[arg-type]
            for one in report.provisos
        ],
    )


def _step_document(step: Step) -> StepDocument:
    return StepDocument.model_validate(write_step(step))


def _write_condition(one: ConditionReport) -> ConditionDocument:
    values = [MeasuredDocument(**{**vars(value), "of": _write_names(value.of)}) for value in one.measured]
    return ConditionDocument(**{**vars(one), "measured": values})


def _write_names(terms: Sequence[Names]) -> list[str | list[str]]:
    return [term if isinstance(term, str) else list(term) for term in terms]


def _read_names(terms: Sequence[str | list[str]]) -> tuple[Names, ...]:
    return tuple(term if isinstance(term, str) else tuple(term) for term in terms)


def _write_costs(costs: Costs) -> CostsDocument:
    strokes = costs.strokes
    return CostsDocument(
        moves=costs.moves,
        elementary=costs.elementary,
        strokes=dict(zip(STROKES, strokes.counts, strict=True)),
        simplicity=strokes.simplicity,
        exactitude=strokes.exactitude,
    )


def _read_costs(document: CostsDocument) -> Costs:
    return Costs(document.moves, document.elementary, Strokes(*(document.strokes[name] for name in STROKES)))


def _read_condition(document: ConditionDocument) -> ConditionReport:
    values = (Measured(one.what, _read_names(one.of), one.drawn, one.at_break) for one in document.measured)
    return ConditionReport(**{**document.model_dump(), "measured": tuple(values)})


def read_report(document: ReportDocument) -> Report:
    """The report that a document holds."""
    return Report(
        conditions=tuple(map(_read_condition, document.conditions)),
        shapes=dict(document.shapes),
        by_eye=tuple(document.by_eye),
        slides=dict(document.slides),
        ties={id_: step.step() for id_, step in document.ties.items()},
        closest=document.closest,
        repeated=document.repeated,
        mends=tuple(Mend(tuple(step.step() for step in mend.steps)) for mend in document.mends),
        truths=tuple(Condition(truth.rel, _read_names(truth.of), truth.ratio) for truth in document.truths),
        costs=_read_costs(document.costs) if document.costs else None,
        model_costs=_read_costs(document.model_costs) if document.model_costs else None,
        instead=dict(document.instead),
        absent=tuple(Absent(one.id, one.first, one.why, tuple(one.of)) for one in document.absent),
        unmarked=tuple(step.step() for step in document.unmarked),
        provisos=tuple(Condition(one.rel, _read_names(one.of)) for one in document.provisos),
    )
