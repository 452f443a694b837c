"""Task sheets: tasks as their teachers make them, in versions. An assigned version never changes."""

from __future__ import annotations

from json import dumps
from secrets import randbits
from typing import Any

from pydantic import ValidationError
from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from ...documents.formats.construction import read_step, read_steps, write_step
from ...documents.formats.kept import Policy
from ...documents.formats.task import TASK_FORMAT, read_task
from ...documents.joining import joined
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable, check_plain, from_validation
from ...documents.wording.rule_words import worded
from ...judge.positions.references import check_references
from ...judge.task import MODEL, TOOLS, Task
from ...plane.errors import CoreError
from ...plane.figure import Figure
from ...plane.steps import ID, IllFormed, check_steps
from ..database import WITH_REMOVED
from ..models import Assignment, Person, TaskSheet, now
from . import recordings
from .library import LibraryTask
from .library.notation import (
    ANGLE,
    CIRCLE,
    OBTUSE_TRIANGLE,
    RULER_AND_COMPASS,
    SEGMENT,
    TRIANGLE,
    steps,
)
from .library.shipped import OF_TASK, fewest_of
from .scoring import SCORING

READY_MADE = {
    "Segment": SEGMENT,
    "Angle": ANGLE,
    "Acute triangle": TRIANGLE,
    "Obtuse triangle": OBTUSE_TRIANGLE,
    "Line and point": "A free_point at=1.5,2\nB free_point at=8.5,2.8\ng line A B\nP free_point at=4.5,6",
    "Circle with centre": CIRCLE,
    "Circle without centre": "A free_point at=2,3\nB free_point at=9,4\nC free_point at=5,8\nk circle_through A B C",
}
"""Given figures to begin with."""

TOOL_SETS: dict[str, list[Any]] = {
    "Straightedge and compass": RULER_AND_COMPASS,
    "Compass that collapses": ["points", "line", "ray", "segment", "circle"],
    "Straightedge alone": ["points", "line", "ray", "segment"],
    "Compass alone": ["points", "circle", "circle_radius"],
    "Fixed compass": ["points", "line", "ray", "segment", {"tool": "circle_radius", "opening": []}],
    "With midpoints and perpendiculars": [*RULER_AND_COMPASS, "midpoint", "perpendicular", "parallel"],
    "Everything": [*RULER_AND_COMPASS, *(name for name in TOOLS if name not in RULER_AND_COMPASS)],
}
"""Sets of tools to begin with. An empty opening stands for the first two given points."""

BLANK: JsonObject = {
    "format": TASK_FORMAT,
    "title": "",
    "text": "",
    "given": [],
    "tools": RULER_AND_COMPASS,
    "wanted": [],
    "conditions": [],
    "model": [],
}

LONGEST_TITLE, LARGEST_TASK = 200, 200_000
"""Characters of a title, and of a task as JSON."""

CONSTRUCTIONS = ("given", "model")
"""Parts of a task that are drawn on the board."""


class NotSolved(CoreError):
    """A task that its model does not solve cannot be assigned. The message says what to do."""


def new_sheet(
    session: Session, owner: Person, document: JsonObject, topic: str = "", library_key: str | None = None
) -> TaskSheet:
    """A sheet of a teacher's. ``library_key``: of the task of the library that the document is."""
    # A family is numbered by its first version, whose number is known once it is there.
    sheet = TaskSheet(
        owner=owner,
        title=document.get("title", ""),
        document=document,
        topic=topic,
        family=-randbits(30),
        library_key=library_key,
    )
    session.add(sheet)
    session.flush()
    sheet.family = sheet.id
    return sheet


def from_document(session: Session, owner: Person, value: Any) -> TaskSheet:
    """A teacher's sheet of a task in JSON. Raises Unreadable."""
    check_plain(value)
    task = read_task(value)
    check_title(task.title)
    return new_sheet(session, owner, {"title": task.title or "Task", **value})


def from_library(session: Session, owner: Person, task: LibraryTask) -> TaskSheet:
    """A teacher's sheet of a task of the library as it is: the one that is there already, or a new one."""
    document = task.document()
    same = (one for one in own_sheets(session, owner) if one.document == document and not one.archived)
    return next(same, None) or new_sheet(session, owner, document, task.topic, task.key)


def own_sheets(session: Session, owner: Person) -> list[TaskSheet]:
    """The latest version of each task of a teacher's, the newest task first, those in the archive among them.

    Levels of graded series are not, nor tasks that are for practice only.
    """
    library_task = select(TaskSheet).where(
        TaskSheet.owner_id == owner.id, TaskSheet.series_of.is_(None), ~TaskSheet.practice
    )
    every = session.scalars(library_task.order_by(TaskSheet.version))
    latest = {sheet.family: sheet for sheet in every}
    return sorted(latest.values(), key=lambda sheet: -sheet.family)


def shared(session: Session) -> list[TaskSheet]:
    """Every version of a task that is shared with the school, by title."""
    return list(session.scalars(select(TaskSheet).where(TaskSheet.shared).order_by(TaskSheet.title)))


def shared_by_others(session: Session, person: Person) -> list[TaskSheet]:
    """What colleagues share with the school: of each task the latest version that is shared."""
    wanted = select(TaskSheet).where(TaskSheet.shared, TaskSheet.owner_id != person.id, TaskSheet.series_of.is_(None))
    latest = {sheet.family: sheet for sheet in session.scalars(wanted.order_by(TaskSheet.version))}
    return sorted(latest.values(), key=lambda sheet: sheet.title)


def is_assigned(session: Session, sheet: TaskSheet) -> bool:
    """Whether this version is before students."""
    return session.scalar(select(Assignment.id).where(Assignment.sheet_id == sheet.id).limit(1)) is not None


def change(
    session: Session,
    sheet: TaskSheet,
    fields: JsonObject,
    policy: JsonObject | None,
    topic: str | None,
    made_from: JsonObject | None = None,
) -> TaskSheet:
    """Change fields of a sheet's document; the sheet itself, or its next version where it is assigned.

    The document may be unfinished, but what is there must be of the right form. ``made_from``: the fields as they were
    found, with "policy" and "topic" among them; what others have changed meanwhile is joined with the change. Where
    they have made the next version, the change goes there. Raises Unreadable and ChangedElsewhere.
    """
    sheet = _newest_unassigned(session, sheet)
    if made_from is not None:
        sent = {
            **fields,
            **({} if policy is None else {"policy": policy}),
            **({} if topic is None else {"topic": topic}),
        }
        fields = joined(sent, made_from, fields_of(sheet))
        policy, topic = fields.pop("policy", None), fields.pop("topic", None)
    allowed = set(BLANK) - {"format"} | {"budget", "start"}
    for name in fields:
        if name not in allowed:
            raise Unreadable(name[:30], _("is not a field of this document; remove it"))
        check_list(name, fields[name])
    document = {**sheet.document, **fields}
    document = {name: value for name, value in document.items() if value is not None}
    wrong = sheet.wrong
    for part in CONSTRUCTIONS:
        if part in fields:
            names = names_given(fields[part])
            document[part] = renamed(fields[part], names)
            check_construction(part, document)
            follow(document, part, names)
            if part == "given":
                wrong = [renamed(steps_of_one, names) for steps_of_one in wrong]
    title = document.get("title", "")
    check_title(title)
    if len(dumps(document)) > LARGEST_TASK:
        raise Unreadable("", _("the task is larger than %(size)s kB; shorten it", size=LARGEST_TASK // 1000))
    checked = read_policy(policy) if policy is not None else sheet.policy
    if is_assigned(session, sheet):
        versions = select(func.max(TaskSheet.version)).where(TaskSheet.family == sheet.family)
        newest = session.scalar(versions.execution_options(**WITH_REMOVED)) or 1
        sheet = next_version(sheet, newest + 1)
        session.add(sheet)
    if any(document.get(part) != sheet.document.get(part) for part in ("given", "wanted", "conditions")):
        sheet.library_key = None  # it is another task now
    if any(document.get(part) != sheet.document.get(part) for part in OF_TASK):
        sheet.fewest = None
    sheet.title, sheet.document, sheet.policy, sheet.wrong = title, document, checked, wrong
    sheet.topic = sheet.topic if topic is None else topic[:60]
    sheet.changed = now()
    session.flush()
    return sheet


STAYS = (
    "title",
    "topic",
    "policy",
    "document",
    "wrong",
    "demonstration",
    "owner_id",
    "family",
    "series_of",
    "folder",
    "library_key",
    "shared",
    "practice",
    "copied_from",
    "copied",
)
"""What stays from one version of a task to the next; what a search found of its moves is of the old one alone."""


def next_version(sheet: TaskSheet, version: int) -> TaskSheet:
    """A further version of a task, so far as the one before, with all that belongs to it."""
    return TaskSheet(version=version, **{name: getattr(sheet, name) for name in STAYS})


def copy_of(session: Session, owner: Person, sheet: TaskSheet, title: str | None = None) -> TaskSheet:
    """A task of a teacher's own that begins as another one stands, with all that belongs to it."""
    made = new_sheet(session, owner, {**sheet.document, "title": title or sheet.title}, sheet.topic, sheet.library_key)
    made.policy, made.wrong, made.demonstration = sheet.policy, sheet.wrong, sheet.demonstration
    if sheet.owner_id != owner.id:
        made.copied_from, made.copied = sheet.id, now()
        recordings.take_along(session, sheet, owner)
    return made


def from_colleague(session: Session, owner: Person, sheet: TaskSheet) -> TaskSheet:
    """A teacher's own copy of a colleague's task as it is: the one that is there already, or a new one."""
    same = (one for one in own_sheets(session, owner) if one.document == sheet.document and not one.archived)
    return next((one for one in same if one.copied_from == sheet.id), None) or copy_of(session, owner, sheet)


def changed_original(session: Session, sheet: TaskSheet) -> TaskSheet | None:
    """The colleague's task of which a task is a copy, as it is shared now, where it was changed since its owner looked
    there last.
    """
    original = session.get(TaskSheet, sheet.copied_from) if sheet.copied_from is not None else None
    if original is None or sheet.copied is None:
        return None
    shared_now = select(TaskSheet).where(TaskSheet.family == original.family, TaskSheet.shared)
    latest = session.scalars(shared_now.order_by(TaskSheet.version.desc()).limit(1)).first()
    return latest if latest is not None and latest.changed is not None and latest.changed > sheet.copied else None


def fewest_known(sheet: TaskSheet) -> JsonObject | None:
    """What a search found of the fewest moves of a task: moves, excluded, arbitrary; None where nobody has searched."""
    return sheet.fewest or fewest_of(sheet.document)


def fields_of(sheet: TaskSheet) -> JsonObject:
    """The fields of a sheet that can be changed, by the names under which they are."""
    policy = Policy.model_validate(sheet.policy).model_dump(mode="json")
    return {**sheet.document, "policy": policy, "topic": sheet.topic}


def _newest_unassigned(session: Session, sheet: TaskSheet) -> TaskSheet:
    """The sheet, locked with its versions; where it is assigned, a later version that is not, if there is one."""
    versions = select(TaskSheet).where(TaskSheet.family == sheet.family).order_by(TaskSheet.version.desc())
    locked = list(session.scalars(versions.with_for_update().execution_options(populate_existing=True)))
    newest = locked[0] if locked else sheet
    if newest.version > sheet.version and is_assigned(session, sheet) and not is_assigned(session, newest):
        return newest
    return sheet


def check_title(title: object) -> None:
    """That a title can be kept. Raises Unreadable."""
    if not isinstance(title, str) or len(title) > LONGEST_TITLE:
        raise Unreadable("title", _("must be a text of at most %(most)s characters", most=LONGEST_TITLE))


def read_policy(value: object) -> JsonObject:
    """A policy as it is kept. Raises Unreadable."""
    try:
        policy = Policy.model_validate(value)
    except ValidationError as error:
        raise from_validation(error).inside("policy") from None
    if not policy.scoring.keys() <= SCORING.keys() or not all(0 <= worth <= 100 for worth in policy.scoring.values()):
        raise Unreadable("policy.scoring", _("must give each outcome 0 to 100"))
    return policy.model_dump(mode="json")


LISTS: dict[str, dict[str, type]] = {"tools": {}, "wanted": {"name": str}, "conditions": {"of": list}}
"""Fields that are lists, and what each of their entries has at least, even while a task is unfinished."""


def check_list(name: str, value: object) -> None:
    """That a field which is a list is one, with entries of the right form. Raises Unreadable."""
    if name not in LISTS:
        return
    if not isinstance(value, list):
        raise Unreadable(name, _("must be a list in square brackets"))
    for index, one in enumerate(value):
        for field, kind in LISTS[name].items():
            if not isinstance(one, dict) or not isinstance(one.get(field), kind):
                words = _("must be a text") if kind is str else _("must be a list")
                raise Unreadable(f"{name}[{index}].{field}", words)


def check_construction(part: str, document: JsonObject) -> None:
    """That the given figure, or the model after it, is well formed. Raises Unreadable."""
    given = read_steps(document["given"])
    own = read_steps(document["model"]) if part == "model" else ()
    try:
        check_steps([*given, *own])
        check_references(Figure([*given, *own]), 0)
    except IllFormed as wrong:
        raise Unreadable(f"{part}, {wrong.step_id}", worded(wrong.broken)) from None


def names_given(documents: list[JsonObject]) -> dict[str, str]:
    """The ids that objects should have, by the names that a teacher gave them. Raises Unreadable."""
    read_steps(documents)
    taken = {step["id"] for step in documents}
    names: dict[str, str] = {}
    for step in documents:
        label = step.get("label")
        if label and ID.fullmatch(label) and (label not in taken or label == step["id"]):
            names[step["id"]] = label
            taken.add(label)
    return names


def renamed(documents: list[JsonObject], names: dict[str, str]) -> list[JsonObject]:
    """Steps in which objects have other ids, so that conditions can speak of them by the names on the board."""
    return [
        {name: value for name, value in document.items() if name != "label" or document["id"] not in names}
        | write_step(read_step(document).renamed(names))
        for document in documents
    ]


def follow(document: JsonObject, part: str, names: dict[str, str]) -> None:
    """Let the rest of a document follow a construction: names elsewhere, and what is done already."""
    if part == "given":
        document["model"] = renamed(document["model"], names)
        document["tools"] = [_renamed_tool(one, names) for one in document["tools"]]
    else:
        document["wanted"] = [one | {"name": names.get(one["name"], one["name"])} for one in document["wanted"]]
    names = names | ({MODEL + old: MODEL + new for old, new in names.items()} if part == "model" else {})
    document["conditions"] = [one | {"of": _renamed_terms(one["of"], names)} for one in document["conditions"]]
    if document.get("start"):
        document["start"] = document["model"][: len(document["start"])]


def _renamed_tool(tool: object, names: dict[str, str]) -> Any:
    if not isinstance(tool, dict) or not isinstance(tool.get("opening"), list):
        return tool
    return tool | {"opening": _renamed_terms(tool["opening"], names)}


def _renamed_terms(terms: object, names: dict[str, str]) -> Any:
    if isinstance(terms, list):
        return [_renamed_terms(term, names) for term in terms]
    return names.get(terms, terms) if isinstance(terms, str) else terms


def task_in(sheet: TaskSheet) -> Task:
    """The task on a sheet. Raises Unreadable with what is still missing or wrong."""
    if not sheet.document["given"]:
        raise Unreadable("given", _("is empty; draw what the students get"))
    if not sheet.document["model"]:
        raise Unreadable("model", _("is empty; build one right construction"))
    if not sheet.document["wanted"]:
        raise Unreadable("wanted", _("is empty; tick what the answer consists of"))
    if not sheet.document["conditions"]:
        raise Unreadable("conditions", _("are missing; say what must be true of the answer"))
    return read_task(sheet.document)


LONGEST_FOLDER = 60


def set_folder(session: Session, sheet: TaskSheet, folder: str) -> None:
    """Put a task, in all its versions, into a folder; none for no name. Raises Unreadable."""
    folder = " ".join(folder.split())
    if len(folder) > LONGEST_FOLDER:
        raise Unreadable("folder", _("must have %(most)s characters at most", most=LONGEST_FOLDER))
    session.execute(update(TaskSheet).where(TaskSheet.family == sheet.family).values(folder=folder))


def set_archived(session: Session, sheet: TaskSheet, archived: bool) -> None:
    """Put a task away, or take it out again. Classes that have it keep it."""
    session.execute(
        update(TaskSheet).where(TaskSheet.family == sheet.family).values(archived=now() if archived else None)
    )


def figure_named(name: str) -> list[JsonObject]:
    """A ready-made given figure."""
    return steps(READY_MADE[name])
