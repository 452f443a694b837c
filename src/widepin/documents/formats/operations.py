"""A student's operations on a work, as JSON.

The log of a work holds, in order: ``add`` (a step), ``use`` (the steps of a class tool that is a proven
construction, at once), ``remake`` (a step made another way), ``remove`` (steps and all
that is made from them), ``move`` (points put elsewhere), ``dress`` (objects shown another way), ``measure`` and
``stop measuring``, ``mark equal`` and ``unmark equal``, ``locus`` and ``remove locus``, ``position`` (kept to be
compared), ``note`` (words on the paper), ``undo`` and ``redo``. One that is ``joined`` was done by the same action as
the one before it; both are undone and redone together.
Because the log only grows, nothing that was done is ever lost; ``school/works/history.py`` replays it into the board.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictStr, TypeAdapter, ValidationError

from ...judge.task import MAX_WANTED, Use
from ...plane.steps import MAX_STEPS, Step
from ..reading import JsonObject, from_validation
from .construction import Coordinate, StepDocument, write_step

STRICT = ConfigDict(extra="forbid")


Ids = StrictStr | Annotated[list[StrictStr], Field(min_length=1, max_length=2 * MAX_STEPS)]


def each(id_: str | list[str]) -> list[str]:
    """The ids of an operation on one object or on several at once."""
    return [id_] if isinstance(id_, str) else id_


class DoneDocument(BaseModel):
    """What can be undone. ``joined``: done by the same action as the operation before, and undone with it."""

    model_config = STRICT
    joined: StrictBool = False


class AddDocument(DoneDocument):
    """A step made."""

    op: Literal["add"]
    step: StepDocument


class UseDocument(DoneDocument):
    """A class tool used: what it was used on, and all steps that it made; all but its results are hidden at first."""

    model_config = ConfigDict(extra="forbid", populate_by_name=True)
    op: Literal["use"]
    class_tool: StrictStr = Field(min_length=1, max_length=40)
    sources: list[StrictStr] = Field(alias="from", max_length=MAX_WANTED)
    steps: list[StepDocument] = Field(min_length=1, max_length=MAX_STEPS)
    gives: list[StrictStr] = Field(min_length=1, max_length=MAX_WANTED)
    moves: Annotated[int, Field(ge=0, le=MAX_STEPS, strict=True)]

    def made(self) -> tuple[Step, ...]:
        """Its steps."""
        return tuple(step.step() for step in self.steps)

    def use(self) -> Use:
        """What the judge has to know of it."""
        return Use(self.class_tool, tuple(step.id for step in self.steps), tuple(self.gives), self.moves)


class RemakeDocument(DoneDocument):
    """A step made another way: the object keeps its id, its kind and its place in the construction."""

    op: Literal["remake"]
    step: StepDocument


class RemoveDocument(DoneDocument):
    """Steps removed, with all that is made from them."""

    op: Literal["remove"]
    id: Ids


class MoveDocument(DoneDocument):
    """Points put elsewhere: id -> place in centimetres."""

    op: Literal["move"]
    points: dict[str, tuple[Coordinate, Coordinate]] = Field(min_length=1, max_length=2 * MAX_STEPS)


class Dress(BaseModel):
    """How an object is shown. Fields that are left out stay as they were."""

    model_config = STRICT
    hidden: StrictBool | None = None
    label: StrictStr | None = Field(default=None, min_length=1, max_length=24)
    style: Literal["solid", "dashed"] | None = None
    weight: Literal["thin", "thick"] | None = None
    ticks: Annotated[int, Field(ge=0, le=3)] | None = None
    name_at: tuple[Annotated[int, Field(ge=-2000, le=2000)], Annotated[int, Field(ge=-2000, le=2000)]] | None = None
    hue: Literal["grey", "blue", "purple", "green"] | None = None


class DressDocument(DoneDocument):
    """Objects shown another way."""

    op: Literal["dress"]
    id: Ids
    dress: Dress


class MeasureDocument(DoneDocument):
    """Something measured, or no longer.

    A length (two points), a distance (a point and a line), an angle (three points, vertex second), a ratio of two
    lengths (four points) or a radius (a circle). A measure costs no move and makes no object.
    """

    op: Literal["measure", "stop measuring"]
    of: list[StrictStr] = Field(min_length=1, max_length=4)


class NoteDocument(DoneDocument):
    """Words written on the paper, at a place in centimetres; written anew under the same name; gone when empty."""

    op: Literal["note"]
    note: StrictStr = Field(min_length=1, max_length=12)
    text: StrictStr = Field(max_length=200)
    at: tuple[Coordinate, Coordinate]


class EqualDocument(DoneDocument):
    """Two lengths or two angles marked as equal, which is what the student believes, or no longer.

    A length is a segment or two points, an angle three points with the vertex second.
    """

    op: Literal["mark equal", "unmark equal"]
    of: Annotated[
        list[Annotated[list[StrictStr], Field(min_length=1, max_length=3)]], Field(min_length=2, max_length=2)
    ]


class LocusDocument(DoneDocument):
    """The path of a point while another one is dragged along its curve, drawn or no longer. Nothing is built on it."""

    op: Literal["locus", "remove locus"]
    point: StrictStr
    driver: StrictStr


class PositionDocument(DoneDocument):
    """A position of the figure that is kept to be compared: point -> place in centimetres; dropped when empty."""

    op: Literal["position"]
    position: StrictStr = Field(min_length=1, max_length=12)
    points: dict[str, tuple[Coordinate, Coordinate]] = Field(max_length=2 * MAX_STEPS)


class BackDocument(BaseModel):
    """The last operation undone, or the last one undone done again."""

    model_config = STRICT
    op: Literal["undo", "redo"]


DoneOperation = (
    AddDocument
    | UseDocument
    | RemakeDocument
    | RemoveDocument
    | MoveDocument
    | DressDocument
    | MeasureDocument
    | EqualDocument
    | LocusDocument
    | PositionDocument
    | NoteDocument
)
OperationDocument = Annotated[DoneOperation | BackDocument, Field(discriminator="op")]
_ADAPTER: TypeAdapter[OperationDocument] = TypeAdapter(OperationDocument)


def read_operation(value: object) -> OperationDocument:
    """An operation from its JSON value. Raises Unreadable."""
    try:
        return _ADAPTER.validate_python(value)
    except ValidationError as error:
        raise from_validation(error) from None


def read_dress(value: JsonObject) -> JsonObject:
    """How a step is shown, from its fields that are not about how it is made. Raises Unreadable."""
    try:
        Dress.model_validate(value)
    except ValidationError as error:
        raise from_validation(error).inside("step") from None
    return value


def known_dress(value: JsonObject) -> JsonObject:
    """Of the fields of a step from elsewhere those that say how it is shown here; what is not known is left out."""
    found = {}
    for name, shown in value.items():
        try:
            Dress.model_validate({name: shown})
        except ValidationError:
            continue
        found[name] = shown
    return found


def add(step: Step) -> JsonObject:
    """The operation that adds a step, as JSON."""
    return {"op": "add", "step": write_step(step)}


def remake(step: Step) -> JsonObject:
    """The operation that makes a step another way, as JSON."""
    return {"op": "remake", "step": write_step(step)}
