"""A board as it stands: a student's operations on a work, folded."""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import assert_never

from ...documents.formats.construction import write_step
from ...documents.formats.operations import (
    AddDocument,
    BackDocument,
    DoneOperation,
    DressDocument,
    EqualDocument,
    LocusDocument,
    MeasureDocument,
    MoveDocument,
    NoteDocument,
    OperationDocument,
    PositionDocument,
    RemakeDocument,
    RemoveDocument,
    UseDocument,
    each,
    read_operation,
)
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import JsonObject
from ...documents.wording.rule_words import worded
from ...judge.costs.class_tools import ClassToolGeometry
from ...judge.costs.counts import by_hand, refused_tool
from ...judge.positions.ordering import sources_first
from ...judge.positions.references import check_references
from ...judge.task import Task, Use
from ...plane.errors import CoreError
from ...plane.figure import Figure
from ...plane.makes import MAKES
from ...plane.shapes import LINES, Kind
from ...plane.steps import FARTHEST, MAX_STEPS, IllFormed, Step, check_steps

MAX_NOTES = 40
MAX_POSITIONS = 60


class OperationRefused(CoreError):
    """An operation that does not fit the board as it stands; nothing is stored. The message is for the student."""


@dataclass
class BoardState:
    """What operations lead to. ``places``: of points of the given figure that were dragged, in centimetres.

    ``dress``: id -> presentation fields.
    """

    steps: dict[str, Step] = field(default_factory=dict)
    uses: list[Use] = field(default_factory=list)
    places: dict[str, tuple[float, float]] = field(default_factory=dict)
    dress: dict[str, JsonObject] = field(default_factory=dict)
    notes: dict[str, JsonObject] = field(default_factory=dict)

    def apply(self, one: DoneOperation) -> None:
        """Do one more operation. What is only looked at on the board leaves nothing here."""
        match one:
            case AddDocument():
                self.steps[one.step.id] = one.step.step()
            case RemakeDocument():
                # A step may be made from later ones that do not hang on it; these are moved up.
                steps = self.steps | {one.step.id: one.step.step()}
                self.steps = {step.id: step for step in sources_first(steps.values())}
            case UseDocument():
                self.steps |= {step.id: step for step in one.made()}
                self.uses.append(one.use())
                self.dress |= {id_: {"hidden": True} for id_ in one.use().helpers}
            case RemoveDocument():
                self.leave_out(dependents(self.steps.values(), self.uses, *each(one.id)))
            case MoveDocument():
                self._move(one.points)
            case DressDocument():
                for id_ in each(one.id):
                    self.dress.setdefault(id_, {}).update(one.dress.model_dump(exclude_none=True))
            case NoteDocument():
                if one.text:
                    self.notes[one.note] = {"text": one.text, "at": list(one.at)}
                else:
                    self.notes.pop(one.note, None)
            case MeasureDocument() | EqualDocument() | LocusDocument() | PositionDocument():
                pass
            case _ as never:
                assert_never(never)

    def leave_out(self, gone: Container[str]) -> None:
        """Do without these steps, and without the uses of class tools that made them."""
        self.steps = {id_: step for id_, step in self.steps.items() if id_ not in gone}
        self.dress = {id_: dress for id_, dress in self.dress.items() if id_ not in gone}
        self.uses = [use for use in self.uses if use.ids[0] not in gone]

    def _move(self, points: Mapping[str, tuple[float, float]]) -> None:
        for id_, at in points.items():
            if id_ in self.steps:
                self.steps[id_] = replace(self.steps[id_], at=at)
            else:
                self.places[id_] = at


@dataclass
class History:
    """A board: operations that are in force, and those taken back that can be brought back.

    ``class_tools``: those constructions that may be used on it, by name, with what one use counts.
    """

    task: Task
    class_tools: Mapping[str, tuple[ClassToolGeometry, int]] = field(default_factory=dict)
    done: list[DoneOperation] = field(default_factory=list)
    undone: list[DoneOperation] = field(default_factory=list)
    _board: BoardState | None = None
    _left_out: tuple[str, ...] = ()

    @property
    def board(self) -> BoardState:
        """What the operations in force lead to, but for steps that do not fit the task, which has changed since."""
        if self._board is None:
            self._board = BoardState()
            for one in self.done:
                self._board.apply(one)
            self._left_out = self._that_do_not_fit(self._board.steps.values())
            self._board.leave_out(self._left_out)
        return self._board

    @property
    def left_out(self) -> tuple[str, ...]:
        """The ids of steps that do not fit the task any more, nor what is made from them."""
        return self._left_out if self.board else ()

    def _that_do_not_fit(self, steps: Iterable[Step]) -> tuple[str, ...]:
        there = {step.id: MAKES[step.make].gives for step in self.task.done}
        found = []
        for step in steps:
            try:
                check_steps([step], there)
                there[step.id] = MAKES[step.make].gives
            except IllFormed:
                found.append(step.id)
        return tuple(found)

    @property
    def steps(self) -> list[Step]:
        """The student's own steps, every point where it was last put."""
        return list(self.board.steps.values())

    @property
    def uses(self) -> tuple[Use, ...]:
        """Which of these steps class tools made at once."""
        return tuple(self.board.uses)

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

    def documents(self, steps: Sequence[Step]) -> list[JsonObject]:
        """Steps as JSON, with how they are shown."""
        return [write_step(step) | self.board.dress.get(step.id, {}) for step in steps]

    @property
    def figure(self) -> dict[str, list[JsonObject]]:
        """The board as JSON: given, done already, and the student's own steps, as they lie and are shown."""
        parts = {"given": self.given, "start": self.start, "steps": self.steps}
        return {name: self.documents(steps) for name, steps in parts.items()}

    def kinds(self) -> dict[str, Kind]:
        """The kind of every object on the board."""
        return {step.id: MAKES[step.make].gives for step in (*self.task.done, *self.steps)}

    def _placed(self, steps: Sequence[Step]) -> list[Step]:
        places = self.board.places
        return [replace(step, at=places[step.id]) if step.id in places else step for step in steps]

    def apply(self, operation: OperationDocument) -> None:
        """Put an operation that was accepted into force."""
        if isinstance(operation, BackDocument):
            if operation.op == "undo":
                self._undo()
            else:
                self._redo()
            self._board = None
            return
        self.done.append(operation)
        self.undone.clear()
        if self._board is not None:
            self._board.apply(operation)

    def _undo(self) -> None:
        """Take back the last action: the last operation, and those before it that it is joined to."""
        while self.done:
            self.undone.append(self.done.pop())
            if not self.undone[-1].joined:
                return

    def _redo(self) -> None:
        """Bring back the action taken back last: an operation, and those after it that are joined to it."""
        while self.undone:
            self.done.append(self.undone.pop())
            if not (self.undone and self.undone[-1].joined):
                return

    def check(self, operation: OperationDocument) -> None:
        """That an operation fits the board as it stands. Raises OperationRefused."""
        match operation:
            case AddDocument():
                self._check_add([operation.step.step()])
            case UseDocument():
                self._check_use(operation)
            case RemakeDocument():
                self._check_remake(operation.step.step())
            case MoveDocument():
                self._check_places(operation.points)
            case RemoveDocument():
                own = {step.id for step in self.steps}
                self._check_there(operation.id, own, marked("%(id)s is no step of yours that could be removed."))
            case DressDocument():
                self._check_there(operation.id, self.kinds(), marked("%(id)s is not on the board."))
                self._check_label(operation)
            case MeasureDocument():
                self._check_measure(operation)
            case EqualDocument():
                self._check_equal(operation)
            case LocusDocument():
                self._check_locus(operation)
            case PositionDocument():
                self._check_position(operation)
            case NoteDocument():
                if operation.note not in self.board.notes and len(self.board.notes) >= MAX_NOTES:
                    raise OperationRefused(
                        _("There are %(most)s notes on the paper already; remove one.", most=MAX_NOTES)
                    )
            case BackDocument():
                if operation.op == "undo" and not self.done:
                    raise OperationRefused(_("There is nothing to undo."))
                if operation.op == "redo" and not self.undone:
                    raise OperationRefused(_("There is nothing to redo."))
            case _ as never:
                assert_never(never)

    def _check_there(self, ids: str | list[str], there: Container[str], otherwise: str) -> None:
        for id_ in each(ids):
            if id_ not in there:
                raise OperationRefused(_(otherwise, id=id_[:24]))

    def _check_label(self, operation: DressDocument) -> None:
        """That no two objects are called the same."""
        label = operation.dress.label
        if label is None:
            return
        ids = each(operation.id)
        names = {self.board.dress.get(id_, {}).get("label") or id_ for id_ in self.kinds() if id_ not in ids}
        if len(ids) > 1 or label in names:
            raise OperationRefused(_("Another object is called %(label)s; choose another name.", label=label))

    def _check_add(self, steps: Sequence[Step], uses: Sequence[Use] = ()) -> None:
        own = self.steps
        if len(own) + len(steps) > MAX_STEPS:
            raise OperationRefused(_("A construction has %(most)s steps at most; take some back.", most=MAX_STEPS))
        self._check_steps(steps, own)
        self._check_tools([*own, *steps], uses)
        labels = {dress.get("label") for dress in self.board.dress.values()}
        for step in steps:
            if step.id in labels:
                raise OperationRefused(_("Another object is called %(label)s; choose another name.", label=step.id))

    def _check_use(self, operation: UseDocument) -> None:
        name = operation.class_tool
        if name not in self.class_tools:
            raise OperationRefused(_("%(name)s is not among the class tools of this task.", name=name))
        class_tool, moves = self.class_tools[name]
        kinds, steps = self.kinds(), operation.made()
        ids = [step.id for step in steps]
        if (
            len(set(operation.sources)) != len(class_tool.takes)
            or len(ids) != len(class_tool.steps)
            or steps != class_tool.made(operation.sources, ids)
            or tuple(operation.gives) != class_tool.given_by(ids)
            or operation.moves != moves
        ):
            raise OperationRefused(_("This is not what %(name)s makes. Load the page again.", name=name))
        for blank, source in zip(class_tool.takes, operation.sources, strict=True):
            kind = kinds.get(source)
            if kind is None or (kind not in LINES if blank.kind == "straight" else kind != blank.kind):
                raise OperationRefused(
                    _(
                        "%(source)s is no %(kind)s that is there; %(name)s needs one.",
                        source=source[:24],
                        kind=blank.kind,
                        name=name,
                    )
                )
        self._check_add(steps, [operation.use()])

    def _check_steps(self, steps: Sequence[Step], before: Sequence[Step]) -> None:
        """That steps are well formed after these of the student's."""
        there = (*self.task.done, *before)
        try:
            check_steps(steps, {one.id: MAKES[one.make].gives for one in there})
            if any(step.choice == "other_than" for step in steps):
                check_references(Figure([*there, *steps]), len(there))
        except IllFormed as wrong:
            raise OperationRefused(f"{worded(wrong.broken)}.") from None

    def _check_tools(self, steps: Sequence[Step], uses: Sequence[Use] = ()) -> None:
        """That the task allows the tools of these steps, with these uses besides those that are there."""
        refusal = refused_tool(by_hand(steps, [*self.uses, *uses]), self.task.tools)
        if refusal is not None:
            raise OperationRefused(f"{worded(refusal.broken)}.")

    def _check_remake(self, step: Step) -> None:
        own = self.steps
        place = next((n for n, one in enumerate(own) if one.id == step.id), None)
        if place is None:
            raise OperationRefused(_("%(id)s is no step of yours that could be made another way.", id=step.id[:24]))
        maker = next((use.class_tool for use in self.uses if step.id in use.ids), None)
        if maker is not None:
            raise OperationRefused(
                _("%(id)s is made by %(maker)s; remove it and use it anew.", id=step.id, maker=maker)
            )
        kind = MAKES[own[place].make].gives
        later = dependents(own, self.uses, step.id)
        if not later.isdisjoint(step.parents):
            raise OperationRefused(_("%(id)s cannot be made from what is made from it.", id=step.id))
        self._check_steps([step], [one for one in own if one.id not in later])
        if MAKES[step.make].gives is not kind:
            raise OperationRefused(_("%(id)s is a %(kind)s and must stay one.", id=step.id, kind=kind))
        self._check_tools([*own[:place], step, *own[place + 1 :]])

    def _check_measure(self, operation: MeasureDocument) -> None:
        if operation.op == "stop measuring":
            return
        there = self.kinds()
        kinds = [there.get(id_) for id_ in operation.of]
        points = len(kinds) > 1 and set(kinds) == {Kind.POINT}
        distance = len(kinds) == 2 and kinds[0] is Kind.POINT and kinds[1] in LINES
        if not (points or distance or kinds == [Kind.CIRCLE]):
            raise OperationRefused(_("Two, three or four points, a point and a line, or a circle can be measured."))

    def _check_equal(self, operation: EqualDocument) -> None:
        if operation.op == "unmark equal":
            return
        there = self.kinds()
        forms = {tuple(there.get(id_) for id_ in term) for term in operation.of}
        lengths = forms <= {(Kind.SEGMENT,), (Kind.POINT, Kind.POINT)}
        if not (lengths or forms == {(Kind.POINT, Kind.POINT, Kind.POINT)}):
            raise OperationRefused(_("Two lengths or two angles can be marked as equal."))

    def _check_locus(self, operation: LocusDocument) -> None:
        if operation.op == "remove locus":
            return
        steps = {step.id: step for step in (*self.task.done, *self.steps)}
        driver = steps.get(operation.driver)
        if driver is None or driver.make != "point_on":
            raise OperationRefused(
                _("%(id)s is no point on a curve that could slide along it.", id=operation.driver[:24])
            )
        if self.kinds().get(operation.point) is not Kind.POINT:
            raise OperationRefused(_("%(id)s is no point on the board.", id=operation.point[:24]))

    def _check_position(self, operation: PositionDocument) -> None:
        noted = {one.position: bool(one.points) for one in self.done if isinstance(one, PositionDocument)}
        kept = {position for position, is_kept in noted.items() if is_kept}
        if operation.position not in kept and len(kept) >= MAX_POSITIONS:
            raise OperationRefused(_("%(most)s positions are kept already; remove one.", most=MAX_POSITIONS))
        self._check_places(operation.points)

    def _check_places(self, points: Mapping[str, tuple[float, float]]) -> None:
        steps = {step.id: step for step in (*self.task.done, *self.steps)}
        for id_, place in points.items():
            if id_ not in steps or not MAKES[steps[id_].make].inputs:
                raise OperationRefused(_("%(id)s is not a point that can be dragged.", id=id_[:24]))
            if any(abs(value) > FARTHEST for value in place):
                raise OperationRefused(_("%(id)s cannot go farther than %(most)s cm.", id=id_, most=f"{FARTHEST:.0f}"))


def dependents(steps: Iterable[Step], uses: Iterable[Use], *ids: str) -> set[str]:
    """The ids of these steps and of all that is made from them; what a class tool made at once goes at once."""
    together = {id_: use.ids for use in uses for id_ in use.ids}
    every, found = list(steps), set(ids)
    while True:
        more = found.union(*(together.get(id_, ()) for id_ in found))
        more |= {step.id for step in every if not more.isdisjoint(step.parents)}
        if more == found:
            return found
        found = more


def replay(
    task: Task, log: Iterable[JsonObject], class_tools: Mapping[str, tuple[ClassToolGeometry, int]] | None = None
) -> History:
    """The state that a log of stored operations leads to."""
    state = History(task, class_tools or {})
    for document in log:
        state.apply(read_operation(document))
    return state
