"""A class from a file, as ``taking_out`` writes it: all of it, or nothing."""

from __future__ import annotations

import io
import json
import zipfile
from base64 import b64decode
from collections.abc import Mapping, Sequence
from secrets import randbits
from typing import Any, TypeVar

from sqlalchemy import select
from sqlalchemy.exc import DataError, IntegrityError, StatementError
from sqlalchemy.orm import Session

from ...documents.formats.demonstration import read_demonstration
from ...documents.formats.operations import read_operation
from ...documents.formats.roster import LONGEST_NAME
from ...documents.formats.verdict import read_verdict
from ...documents.language import gettext as _
from ...documents.reading import JsonObject, Unreadable, check_plain
from ..models import (
    Assignment,
    ClassTool,
    Comment,
    EnteredResult,
    HandIn,
    HintTaken,
    MarkColumn,
    Operation,
    OtherMark,
    Person,
    SchoolClass,
    TaskSheet,
    Work,
)
from ..people import audit
from ..people.accounts import free_name
from ..people.roster import free_logins, named
from ..refused import Refused
from ..results.photos import made_anew
from ..states import Action, Role
from . import archive
from .rows import values_of

MOST = {"students": 500, "tasks": 2000, "assignments": 2000, "works": 100_000, "class_tools": 500, "mark_columns": 200}


def bring_in(session: Session, teacher: Person, content: bytes) -> SchoolClass:
    """A new class of a teacher's with all that is in a file; its tasks are the teacher's, its students get new codes.

    Raises Unreadable with the place of what is wrong; nothing is kept then.
    """
    data = read(content)
    try:
        with session.begin_nested():
            return _bring_in(session, teacher, data)
    except (IntegrityError, DataError, StatementError):
        raise Unreadable("class.json", _("has something twice, or a number that is too large")) from None


def _bring_in(session: Session, teacher: Person, data: JsonObject) -> SchoolClass:
    made = _class(session, teacher, data)
    students = _students(session, made, data["students"])
    sheets = _sheets(session, teacher, data)
    made.class_tools = [
        ClassTool(**values_of(ClassTool, one, archive.CLASS_TOOL, f"class_tools[{place}]"))
        for place, one in enumerate(data["class_tools"])
    ]
    session.flush()
    assignments = _assignments(session, made, students, sheets, data["assignments"])
    for place, one in enumerate(data["works"]):
        where = f"works[{place}]"
        assignment = _at(assignments, one.get("assignment"), f"{where}.assignment")
        student = _at(students, one.get("student"), f"{where}.student")
        _work(session, teacher, assignment, student, sheets, one, where)
    _mark_columns(session, made, students, data["mark_columns"])
    session.flush()
    audit.record(session, teacher, Action.BROUGHT_IN, whole_class=made.id)
    return made


def read(content: bytes) -> JsonObject:
    """What is in a file. Raises Unreadable for what is none of a class."""
    try:
        packed = zipfile.ZipFile(io.BytesIO(content))
        if sum(one.file_size for one in packed.infolist()) > archive.LARGEST_UNPACKED:
            raise Unreadable("file", _("is too large"))
        manifest, data = (json.loads(packed.read(name)) for name in ("manifest.json", "class.json"))
        documents = {name: json.loads(packed.read(name)) for name in packed.namelist() if name.startswith("tasks/")}
    except (zipfile.BadZipFile, KeyError, ValueError, RuntimeError, NotImplementedError, RecursionError):
        raise Unreadable("file", _("is no class that was taken out of Wide Pin")) from None
    if not isinstance(manifest, dict) or manifest.get("format") != archive.FORMAT or not isinstance(data, dict):
        raise Unreadable("manifest.json", _("does not say %(format)s", format=archive.FORMAT))
    for name, most in MOST.items():
        listed = data.get(name)
        if not isinstance(listed, list) or len(listed) > most or not all(isinstance(one, dict) for one in listed):
            raise Unreadable(name, _("must be a list, of %(most)s at most", most=most))
    for place, sheet in enumerate(data["tasks"]):
        sheet["document"] = documents.get(f"tasks/{place}.json")
        if not isinstance(sheet["document"], dict):
            raise Unreadable(f"tasks/{place}.json", _("is missing"))
    check_plain(data)
    return data


def _listed(said: Mapping[str, Any], name: str, place: str) -> list[JsonObject]:
    """A list of objects inside another; an empty one where it is not said. Raises Unreadable."""
    found = said.get(name, [])
    if not isinstance(found, list) or not all(isinstance(one, dict) for one in found):
        raise Unreadable(f"{place}.{name}", _("must be a list of objects"))
    return found


def _numbers(said: Mapping[str, Any], name: str, place: str) -> list[object]:
    found = said.get(name, [])
    if not isinstance(found, list):
        raise Unreadable(f"{place}.{name}", _("must be a list of numbers"))
    return found


def _class(session: Session, teacher: Person, data: JsonObject) -> SchoolClass:
    name = data.get("name")
    if not isinstance(name, str) or not name.strip():
        raise Unreadable("name", _("is missing"))
    taken = {one for (one,) in session.execute(select(SchoolClass.name).where(SchoolClass.teacher_id == teacher.id))}
    values = values_of(SchoolClass, data, ("scoring", "time_zone"), "class")
    made = SchoolClass(name=free_name(named(name[:LONGEST_NAME], _("the class")), taken), teacher=teacher, **values)
    session.add(made)
    session.flush()
    return made


def _students(session: Session, made: SchoolClass, listed: Sequence[Mapping[str, Any]]) -> list[Person]:
    names = []
    for place, one in enumerate(listed):
        name = one.get("name")
        if not isinstance(name, str) or not name.strip() or len(name) > LONGEST_NAME:
            raise Unreadable(f"students[{place}].name", _("must be a name"))
        names.append(" ".join(name.split()))
    students = []
    for one, name, login in zip(listed, names, free_logins(session, names), strict=True):
        student = Person(login=login, name=name, role=Role.STUDENT, password_hash="")
        family = one.get("family_name")
        if isinstance(family, str) and family and family in name:
            student.family_name = family
        students.append(student)
        if one.get("there", True) is True:
            made.students.append(student)
    session.add_all(students)
    session.flush()
    return students


def _sheets(session: Session, teacher: Person, data: JsonObject) -> list[TaskSheet]:
    families: dict[Any, int] = {}
    found = []
    for place, one in enumerate(data["tasks"]):
        where = f"tasks[{place}]"
        values = values_of(TaskSheet, one, archive.SHEET, where)
        if values.get("demonstration") is not None:
            values["demonstration"] = read_demonstration(values["demonstration"])
        values.pop("series_of", None)  # a number of the place that it comes from
        made = TaskSheet(owner=teacher, document=one["document"], family=-randbits(30), **values)
        session.add(made)
        session.flush()
        made.family = families.setdefault(one.get("family"), made.id)
        found.append(made)
    session.flush()
    return found


def _assignments(
    session: Session,
    made: SchoolClass,
    students: Sequence[Person],
    sheets: Sequence[TaskSheet],
    listed: Sequence[Mapping[str, Any]],
) -> list[Assignment]:
    found = []
    for place, one in enumerate(listed):
        where = f"assignments[{place}]"
        values = values_of(Assignment, one, archive.ASSIGNMENT, where)
        assignment = Assignment(class_id=made.id, sheet=_at(sheets, one.get("task"), f"{where}.task"), **values)
        assignment.chosen = [_at(students, number, f"{where}.chosen") for number in _numbers(one, "chosen", where)]
        tools = _numbers(one, "class_tools", where)
        assignment.class_tools = [_at(made.class_tools, number, f"{where}.class_tools") for number in tools]
        session.add(assignment)
        found.append(assignment)
    session.flush()
    for place, one in enumerate(listed):
        if one.get("after") is not None:
            found[place].after_id = _at(found, one["after"], f"assignments[{place}].after").id
        for entered in _listed(one, "entered", f"assignments[{place}]"):
            where = f"assignments[{place}].entered"
            student = _at(students, entered.get("student"), f"{where}.student")
            values = values_of(EnteredResult, entered, archive.ENTERED, where)
            photo = _photo(entered.get("photo"), where)
            key = {"assignment_id": found[place].id, "student_id": student.id}
            session.add(EnteredResult(photo=photo, **key, **values))
    return found


def _photo(said: object, place: str) -> bytes | None:
    """A photo in base64, made anew as one that is brought by hand. Raises Unreadable."""
    if said is None:
        return None
    try:
        return made_anew(b64decode(str(said), validate=True))
    except (ValueError, Refused):
        raise Unreadable(f"{place}.photo", _("must be a picture in base64")) from None


def _work(
    session: Session,
    teacher: Person,
    assignment: Assignment,
    student: Person,
    sheets: Sequence[TaskSheet],
    said: Mapping[str, Any],
    where: str,
) -> None:
    work = Work(assignment_id=assignment.id, student_id=student.id, **values_of(Work, said, archive.WORK, where))
    session.add(work)
    session.flush()
    for place, one in enumerate(_listed(said, "operations", where)):
        values = values_of(Operation, one, archive.OPERATION, f"{where}.operations[{place}]")
        read_operation(values["document"])
        if values["number"] != place + 1:
            raise Unreadable(f"{where}.operations[{place}].number", _("must be %(number)s", number=place + 1))
        session.add(Operation(work_id=work.id, **values))
    for place, one in enumerate(_listed(said, "hints", where)):
        session.add(HintTaken(work_id=work.id, **values_of(HintTaken, one, archive.HINT, f"{where}.hints[{place}]")))
    for place, one in enumerate(_listed(said, "hand_ins", where)):
        here = f"{where}.hand_ins[{place}]"
        values = values_of(HandIn, one, archive.HAND_IN, here)
        read_verdict(values["verdict"])
        sheet = _at(sheets, one["task"], f"{here}.task") if one.get("task") is not None else None
        attempt = HandIn(work_id=work.id, sheet_id=sheet.id if sheet else None, **values)
        session.add(attempt)
        session.flush()
        for number, comment in enumerate(_listed(one, "comments", here)):
            author = student if comment.get("by_student") is True else teacher
            said_here = values_of(Comment, comment, archive.COMMENT, f"{here}.comments[{number}]")
            session.add(Comment(hand_in_id=attempt.id, author_id=author.id, **said_here))


def _mark_columns(
    session: Session, made: SchoolClass, students: Sequence[Person], listed: Sequence[Mapping[str, Any]]
) -> None:
    for place, one in enumerate(listed):
        where = f"mark_columns[{place}]"
        column = MarkColumn(class_id=made.id, **values_of(MarkColumn, one, archive.MARK_COLUMN, where))
        session.add(column)
        session.flush()
        marks = one.get("marks", {})
        if not isinstance(marks, dict):
            raise Unreadable(f"{where}.marks", _("must be scores by student"))
        for number, score in marks.items():
            student = _at(students, int(number) if str(number).isdecimal() else None, f"{where}.marks")
            if not isinstance(score, int) or not 0 <= score <= 100:
                raise Unreadable(f"{where}.marks", _("must be scores from 0 to 100"))
            session.add(OtherMark(column_id=column.id, student_id=student.id, score=score))


Row = TypeVar("Row")


def _at(rows: Sequence[Row], number: object, place: str) -> Row:
    """The row that a number of the file stands for."""
    if not isinstance(number, int) or isinstance(number, bool) or not 0 <= number < len(rows):
        raise Unreadable(place, _("must be the number of one that is in the file"))
    return rows[number]
