"""A student's operations on a work, folded into its steps.

The log of a work holds, in order: ``add`` (a step), ``remake`` (a step made another way), ``remove`` (steps and all
that is made from them), ``move`` (points put elsewhere), ``dress`` (objects shown another way), ``measure`` and
``stop measuring``, ``note`` (words on the paper), ``take back`` and ``bring back``.
Folding it gives the state of the board. Because the log only grows, nothing that was done is ever lost.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictStr, TypeAdapter, ValidationError

from ..documents.construction import Coordinate, StepDocument, write_step
from ..documents.reading import from_validation
from ..judge.counts import refused_tool
from ..judge.references import check_references
from ..judge.task import Task
from ..plane.figure import Figure
from ..plane.makes import MAKES
from ..plane.shapes import STRAIGHTS, Kind
from ..plane.steps import FARTHEST, MOST_STEPS, IllFormed, Step, check_step

STRICT = ConfigDict(extra="forbid")

MOST_NOTES = 40


class OperationRefused(Exception):
    """An operation that does not fit the board as it stands; nothing is stored. The message is for the student."""


Ids = StrictStr | Annotated[list[StrictStr], Field(min_length=1, max_length=2 * MOST_STEPS)]


def each(id_: str | list[str]) -> list[str]:
    """The ids of an operation on one object or on several at once."""
    return [id_] if isinstance(id_, str) else id_


class AddDocument(BaseModel):
    """A step made."""

    model_config = STRICT
    op: Literal["add"]
    step: StepDocument


class RemakeDocument(BaseModel):
    """A step made another way: the object keeps its id, its kind and its place in the construction."""

    model_config = STRICT
    op: Literal["remake"]
    step: StepDocument


class RemoveDocument(BaseModel):
    """Steps removed, with all that is made from them."""

    model_config = STRICT
    op: Literal["remove"]
    id: Ids


class MoveDocument(BaseModel):
    """Points put elsewhere: id -> place in centimetres."""

    model_config = STRICT
    op: Literal["move"]
    points: dict[str, tuple[Coordinate, Coordinate]] = Field(min_length=1, max_length=2 * MOST_STEPS)


class Dress(BaseModel):
    """How an object is shown. Fields that are left out stay as they were."""

    model_config = STRICT
    hidden: StrictBool | None = None
    label: StrictStr | None = Field(default=None, min_length=1, max_length=24)
    style: Literal["solid", "dashed"] | None = None
    weight: Literal["thin", "heavy"] | None = None
    ticks: Annotated[int, Field(ge=0, le=3)] | None = None
    name_at: tuple[Annotated[int, Field(ge=-2000, le=2000)], Annotated[int, Field(ge=-2000, le=2000)]] | None = None
    hue: Literal["graphite", "sea", "plum", "pine"] | None = None


class DressDocument(BaseModel):
    """Objects shown another way."""

    model_config = STRICT
    op: Literal["dress"]
    id: Ids
    dress: Dress


class MeasureDocument(BaseModel):
    """Something measured, or no longer.

    A length (two points), a distance (a point and a straight), an angle (three points, vertex second), a ratio of two
    lengths (four points) or a radius (a circle). A measure costs no move and makes no object.
    """

    model_config = STRICT
    op: Literal["measure", "stop measuring"]
    of: list[StrictStr] = Field(min_length=1, max_length=4)


class NoteDocument(BaseModel):
    """Words written on the paper, at a place in centimetres; written anew under the same name; gone when empty."""

    model_config = STRICT
    op: Literal["note"]
    note: StrictStr = Field(min_length=1, max_length=12)
    text: StrictStr = Field(max_length=200)
    at: tuple[Coordinate, Coordinate]


class BackDocument(BaseModel):
    """The last operation taken back, or the last one taken back done again."""

    model_config = STRICT
    op: Literal["take back", "bring back"]


OperationDocument = Annotated[
    AddDocument
    | RemakeDocument
    | RemoveDocument
    | MoveDocument
    | DressDocument
    | MeasureDocument
    | NoteDocument
    | BackDocument,
    Field(discriminator="op"),
]
_ADAPTER: TypeAdapter[OperationDocument] = TypeAdapter(OperationDocument)


def read_operation(value: Any) -> OperationDocument:
    """An operation from its JSON value. Raises Unreadable."""
    try:
        return _ADAPTER.validate_python(value)
    except ValidationError as error:
        raise from_validation(error) from None


@dataclass
class State:
    """A board as it stands: operations that are in force, and those taken back that can be brought back."""

    task: Task
    done: list[OperationDocument] = field(default_factory=list)
    undone: list[OperationDocument] = field(default_factory=list)

    @property
    def steps(self) -> list[Step]:
        """The student's own steps, every point where it was last put."""
        steps: dict[str, Step] = {}
        for one in self.done:
            if isinstance(one, AddDocument | RemakeDocument):
                steps[one.step.id] = one.step.step()
            elif isinstance(one, RemoveDocument):
                for id_ in hanging_on(steps.values(), *each(one.id)):
                    steps.pop(id_, None)
        return self._placed(list(steps.values()))

    @property
    def given(self) -> list[Step]:
        """The given steps, every point where the student last put it."""
        return self._placed(self.task.given)

    @property
    def start(self) -> list[Step]:
        """The steps done for the student, every point where the student last put it."""
        return self._placed(self.task.start)

    @property
    def as_it_stands(self) -> Task:
        """The task with its given figure as dragged; what a work is judged by as drawn."""
        return replace(self.task, given=tuple(self.given), start=tuple(self.start))

    @property
    def dress(self) -> dict[str, dict[str, Any]]:
        """How objects are shown: id -> presentation fields."""
        shown: dict[str, dict[str, Any]] = {}
        for one in self.done:
            if isinstance(one, DressDocument):
                for id_ in each(one.id):
                    shown.setdefault(id_, {}).update(one.dress.model_dump(exclude_none=True))
        return shown

    @property
    def notes(self) -> dict[str, dict[str, Any]]:
        """The notes on the paper by their names, each with its text and its place."""
        notes = {one.note: {"text": one.text, "at": list(one.at)} for one in self.done if isinstance(one, NoteDocument)}
        return {name: note for name, note in notes.items() if note["text"]}

    def documents(self, steps: Sequence[Step]) -> list[dict[str, Any]]:
        """Steps as JSON, with how they are shown."""
        dress = self.dress
        return [write_step(step) | dress.get(step.id, {}) for step in steps]

    @property
    def figure(self) -> dict[str, list[dict[str, Any]]]:
        """The board as JSON: given, done already, and the student's own steps, as they lie and are shown."""
        parts = {"given": self.given, "start": self.start, "steps": self.steps}
        return {name: self.documents(steps) for name, steps in parts.items()}

    def kinds(self) -> dict[str, Kind]:
        """The kind of every object on the board."""
        return {step.id: MAKES[step.make].gives for step in (*self.task.done, *self.steps)}

    def _placed(self, steps: Sequence[Step]) -> list[Step]:
        places: dict[str, tuple[float, float]] = {}
        for one in self.done:
            if isinstance(one, MoveDocument):
                places |= one.points
        # A point that was dragged and then made a crossing has no place of its own any more.
        return [replace(step, at=places[step.id]) if step.id in places and step.at else step for step in steps]

    def apply(self, operation: OperationDocument) -> None:
        """Put an operation that was accepted into force."""
        if isinstance(operation, BackDocument):
            source, target = (self.done, self.undone) if operation.op == "take back" else (self.undone, self.done)
            if source:
                target.append(source.pop())
            return
        self.done.append(operation)
        self.undone.clear()

    def check(self, operation: OperationDocument) -> None:
        """That an operation fits the board as it stands. Raises OperationRefused."""
        if isinstance(operation, AddDocument):
            self._check_add(operation.step.step())
        elif isinstance(operation, RemakeDocument):
            self._check_remake(operation.step.step())
        elif isinstance(operation, MoveDocument):
            self._check_move(operation)
        elif isinstance(operation, RemoveDocument):
            self._check_there(
                operation.id, {step.id for step in self.steps}, "is no step of yours that could be removed"
            )
        elif isinstance(operation, DressDocument):
            self._check_there(operation.id, self.kinds(), "is not on the board")
        elif isinstance(operation, MeasureDocument):
            self._check_measure(operation)
        elif isinstance(operation, NoteDocument):
            if operation.note not in self.notes and len(self.notes) >= MOST_NOTES:
                raise OperationRefused(f"There are {MOST_NOTES} notes on the paper already; remove one.")
        elif operation.op == "take back" and not self.done:
            raise OperationRefused("There is nothing to take back.")
        elif operation.op == "bring back" and not self.undone:
            raise OperationRefused("There is nothing to bring back.")

    def _check_there(self, ids: str | list[str], there: Container[str], otherwise: str) -> None:
        for id_ in each(ids):
            if id_ not in there:
                raise OperationRefused(f"{id_[:24]} {otherwise}.")

    def _check_add(self, step: Step) -> None:
        own = self.steps
        if len(own) >= MOST_STEPS:
            raise OperationRefused(f"A construction has {MOST_STEPS} steps at most; take some back.")
        self._check_step(step, own)
        self._check_tools([*own, step])

    def _check_step(self, step: Step, before: Sequence[Step]) -> None:
        """That a step is well formed after these of the student's."""
        there = (*self.task.done, *before)
        try:
            check_step(step, {one.id: MAKES[one.make].gives for one in there})
            if step.choice == "other_than":
                check_references(Figure([*there, step]), len(there))
        except IllFormed as wrong:
            raise OperationRefused(f"{wrong.rule}.") from None

    def _check_tools(self, steps: Sequence[Step]) -> None:
        """That the task allows the tools of these steps."""
        refusal = refused_tool(steps, self.task.tools)
        if refusal is not None:
            raise OperationRefused(f"{refusal.rule}.")

    def _check_remake(self, step: Step) -> None:
        own = self.steps
        place = next((n for n, one in enumerate(own) if one.id == step.id), None)
        if place is None:
            raise OperationRefused(f"{step.id[:24]} is no step of yours that could be made another way.")
        kind = MAKES[own[place].make].gives
        self._check_step(step, own[:place])
        if MAKES[step.make].gives is not kind:
            raise OperationRefused(f"{step.id} is a {kind} and must stay one.")
        self._check_tools([*own[:place], step, *own[place + 1 :]])

    def _check_measure(self, operation: MeasureDocument) -> None:
        if operation.op == "stop measuring":
            return
        there = self.kinds()
        kinds = [there.get(id_) for id_ in operation.of]
        points = len(kinds) > 1 and set(kinds) == {Kind.POINT}
        distance = len(kinds) == 2 and kinds[0] is Kind.POINT and kinds[1] in STRAIGHTS
        if not (points or distance or kinds == [Kind.CIRCLE]):
            raise OperationRefused("Two, three or four points, a point and a straight, or a circle can be measured.")

    def _check_move(self, operation: MoveDocument) -> None:
        steps = {step.id: step for step in (*self.task.done, *self.steps)}
        for id_, place in operation.points.items():
            if id_ not in steps or not MAKES[steps[id_].make].inputs:
                raise OperationRefused(f"{id_[:24]} is not a point that can be dragged.")
            if any(abs(value) > FARTHEST for value in place):
                raise OperationRefused(f"{id_} cannot go farther than {FARTHEST:.0f} cm.")


def hanging_on(steps: Iterable[Step], *ids: str) -> list[str]:
    """The ids of these steps and of all that is made from them, the last first."""
    found = list(ids)
    for step in steps:
        if step.id not in found and set(step.parents) & set(found):
            found.insert(0, step.id)
    return found


def fold(task: Task, log: Iterable[dict[str, Any]]) -> State:
    """The state that a log of stored operations leads to."""
    state = State(task)
    for document in log:
        state.apply(read_operation(document))
    return state


def add(step: Step) -> dict[str, Any]:
    """The operation that adds a step, as JSON."""
    return {"op": "add", "step": write_step(step)}


def remake(step: Step) -> dict[str, Any]:
    """The operation that makes a step another way, as JSON."""
    return {"op": "remake", "step": write_step(step)}
