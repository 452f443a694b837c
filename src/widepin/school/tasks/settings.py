"""The settings of an assignment: one row each, from which forms, changes, copies and what is typed follow.

To add one: its column in ``models.Assignment``, its row here, and its field in ``templates/sheets/terms.html``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field, create_model

from ...documents import clock
from ...documents.forms import ClockTime, Fields, Form
from ...documents.language import gettext as _
from ...documents.reading import Unreadable
from ...documents.wording.explaining import Feedback
from ..models import Assignment, ClassTool, Person, SchoolClass, now
from ..refused import Refused
from ..states import HowFar, Late, Reasons, Release, Showing
from .scoring import HEAVIEST

ANY = "any"
"""What is typed for any number of attempts where an empty field stands for "as it is"."""


@dataclass(frozen=True)
class Setting:
    """A row. ``name``: of the column. ``kind``: what is read, as pydantic says it; ``proposed``: unless something else
    is chosen. ``title``: what the field is called; ``must``: what it must be. ``with_others``: whether it stands in the
    form of the settings, or has one of its own. ``kind_of_several``: what is read where several tasks are changed.
    """

    name: str
    kind: Any
    proposed: Any
    title: str
    must: str | None = None
    with_others: bool = True
    kind_of_several: Any = None

    def typed(self, value: Any) -> str:
        """A value as it stands in a field."""
        if value is None:
            return ""
        return clock.as_typed(value) if isinstance(value, datetime) else str(value)


DAYS = Annotated[int, Field(ge=-366, le=366)]
NUMBER = "must be a number from 1 to 99, or nothing for any number"
ATTEMPTS = Annotated[int, Field(ge=1, le=99)]
WEIGHT = f"must be a whole number from 0 to {HEAVIEST}; 0 does not count"

SETTINGS = (
    Setting("opens", ClockTime | None, None, "Opens"),
    Setting("due", ClockTime | None, None, "Due"),
    Setting("late", Late, Late.TAKEN, "Late works"),
    Setting("feedback", Feedback, Feedback.BREAK, "Feedback", with_others=False),
    Setting("attempts", ATTEMPTS | None, None, "Attempts", NUMBER, kind_of_several=Literal["any"] | ATTEMPTS),
    Setting("weight", Annotated[int, Field(ge=0, le=HEAVIEST)], 1, "Weight", WEIGHT),
    Setting("demonstration", Showing, Showing.NEVER, "Demonstration"),
    Setting("possible", Showing, Showing.NEVER, "Fewest moves known"),
    Setting("how_far", HowFar, HowFar.NO, "How far am I"),
    Setting("solution", Release, Release.NEVER, "Sample solution"),
    Setting("shortest", Release, Release.NEVER, "Shortest work of the class"),
    Setting("reasons", Reasons, Reasons.NONE, "Give the reason"),
    Setting(
        "reasons_share",
        Annotated[int, Field(ge=0, le=100)],
        0,
        "Share of the score",
        "must be a number from 0 to 100",
    ),
    Setting("hints", Annotated[int, Field(ge=0, le=20)], 0, "Hints", "must be a number from 0 to 20"),
    Setting(
        "hint_cost",
        Annotated[int, Field(ge=0, le=100)],
        0,
        "What a hint takes off the score",
        "must be a number from 0 to 100",
    ),
)

BY_NAME = {row.name: row for row in SETTINGS}


@dataclass(frozen=True)
class Settings:
    """When, how and for whom a task is, and with which class tools of the class besides. Times are UTC.

    ``values``: by the names of ``SETTINGS``.
    """

    values: Mapping[str, Any]
    after: Assignment | None = None
    chosen: tuple[Person, ...] = ()
    class_tools: tuple[ClassTool, ...] = ()


def proposed(
    after: Assignment | None = None,
    chosen: tuple[Person, ...] = (),
    class_tools: tuple[ClassTool, ...] = (),
    **values: Any,
) -> Settings:
    """Settings as they are proposed, but for these. Raises TypeError for one that there is not."""
    if foreign := values.keys() - BY_NAME.keys():
        raise TypeError(f"there is no setting {', '.join(sorted(foreign))}")
    return Settings({row.name: values.get(row.name, row.proposed) for row in SETTINGS}, after, chosen, class_tools)


ALONE: dict[str, Any] = {
    "after": (int | None, Field(None, title="Prerequisite")),
    "student": (list[int], Field([], title="Students")),
    "class_tool": (list[int], Field([], title="Class tools")),
    "passed": (bool, Field(False, title="It was due already")),
} | {row.name: (row.kind, Field(row.proposed, title=row.title, description=row.must)) for row in SETTINGS}

SettingsForm: type[Form] = create_model("SettingsForm", __base__=Form, **ALONE)
"""Settings as they are filled in. ``passed``: that the task is due already is meant."""

SEVERAL: dict[str, Any] = {
    "assignment": (list[int], Field([], title="Tasks")),
    "days": (DAYS | None, Field(None, title="Days", description="must be a number from -366 to 366")),
} | {
    row.name: ((row.kind_of_several or row.kind) | None, Field(None, title=row.title, description=row.must))
    for row in SETTINGS
}

SeveralForm: type[Form] = create_model("SeveralForm", __base__=Form, **SEVERAL)
"""Settings that several tasks get; what is left empty stays as it is for each of them.

``days``: by how many days dates that are set move, before a date of this form is set. ``attempts``: "any" too.
"""


class DuePassed(Refused):
    """A time that has passed already; it may be meant."""


def read_settings(sent: Fields, school_class: SchoolClass, known: Assignment | None = None) -> Settings:
    """Settings from what was filled in; ``known``: the assignment whose settings they are to be.

    Raises Refused, and DuePassed for a time that has passed unless that is meant.
    """
    form: Any = _read(SettingsForm, sent)
    values = {row.name: getattr(form, row.name) for row in SETTINGS}
    if known is not None:
        values |= {name: _kept(getattr(known, name), values[name]) for name in ("opens", "due")}
    opens, due = values["opens"], values["due"]
    check_order(opens, due)
    if due and due <= now() and not form.passed and (known is None or due != known.due):
        raise DuePassed(_("The task would be due already. Change the time, or say below that this is meant."))
    return Settings(
        values,
        next((assignment for assignment in school_class.assignments if assignment.id == form.after), None),
        tuple(student for student in school_class.students if student.id in form.student),
        tuple(class_tool for class_tool in school_class.class_tools if class_tool.id in form.class_tool),
    )


def check_order(opens: datetime | None, due: datetime | None) -> None:
    """That a task opens before it is due. Raises Refused."""
    if opens and due and due <= opens:
        raise Refused(_("The task is due before it opens; change one of the two."))


def _kept(before: datetime | None, read: datetime | None) -> datetime | None:
    """A time as it was read, or as it was before where that is typed alike: the clock shows an hour twice in autumn."""
    return before if before and read and clock.as_typed(before) == clock.as_typed(read) else read


def _read(form: type[Form], sent: Fields) -> Any:
    try:
        return form.read(sent)
    except Unreadable as wrong:
        raise Refused(f"{wrong}.") from None


def as_typed(assignment: Assignment) -> dict[str, str]:
    """The settings of an assignment as they stand in the fields of the form."""
    fields = {row.name: row.typed(getattr(assignment, row.name)) for row in SETTINGS if row.with_others}
    return {**fields, "after": str(assignment.after_id or "")}


def all_as_typed(assignment: Assignment) -> dict[str, str | list[str]]:
    """As ``as_typed``, with the fields of choices: for whom it is, and which class tools are allowed."""
    return {
        **as_typed(assignment),
        "student": [str(student.id) for student in assignment.chosen],
        "class_tool": [str(class_tool.id) for class_tool in assignment.class_tools],
    }


TITLES = {name: field.title or name for name, field in SettingsForm.model_fields.items()}
"""What the fields of the form are called."""


def change(assignment: Assignment, chosen: Settings) -> None:
    """Change when, how and for whom a task is. Raises Refused for a task that would wait for itself."""
    before: Assignment | None = chosen.after
    while before is not None:
        if before is assignment:
            raise Refused(_("This task would wait for itself; choose another that unlocks it."))
        before = before.after
    for row in SETTINGS:
        if row.with_others:
            setattr(assignment, row.name, chosen.values[row.name])
    assignment.after, assignment.chosen = chosen.after, list(chosen.chosen)
    assignment.class_tools = list(chosen.class_tools)


def change_several(school_class: SchoolClass, sent: Fields) -> list[Assignment]:
    """Change settings of several tasks of a class, of all or of none; those that were changed. Raises Refused."""
    form: Any = _read(SeveralForm, sent)
    chosen = [one for one in school_class.assignments if one.id in form.assignment]
    if not chosen:
        raise Refused(_("Select the tasks that are to be changed."))
    changes = {row.name: value for row in SETTINGS if (value := getattr(form, row.name)) is not None}
    if not changes and form.days is None:
        raise Refused(_("Fill in what is to be changed; what is left empty stays as it is."))
    if changes.get("attempts") == ANY:
        changes["attempts"] = None

    def moved(at: datetime | None) -> datetime | None:
        return at and clock.days_later(at, form.days or 0)

    for one in chosen:
        opens, due = (changes.get(name) or moved(at) for name, at in (("opens", one.opens), ("due", one.due)))
        if opens and due and due <= opens:
            raise Refused(_("“%(title)s” would be due before it opens; nothing was changed.", title=one.sheet.title))
    for one in chosen:
        one.opens, one.due = moved(one.opens), moved(one.due)
        for name, value in changes.items():
            setattr(one, name, value)
    return chosen


COPIED = (*BY_NAME, "position", "scoring", "measuring", "finding", "loci", "level", "levels")
"""What a copy of an assignment has from the one that it is made of."""


def copy_of(assignment: Assignment, **changed: Any) -> Assignment:
    """An assignment of the same task with the same settings, for no class yet, with no prerequisite, for everybody."""
    return Assignment(sheet=assignment.sheet, **({name: getattr(assignment, name) for name in COPIED} | changed))
