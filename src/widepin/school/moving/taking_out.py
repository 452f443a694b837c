"""A class as one file: its students, tasks, settings, works with every step, attempts, comments and marks."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from base64 import b64encode
from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload, undefer

from ...documents.formats.demonstration import voices, without_voices
from ...documents.reading import JsonObject
from ..models import WITH_LOG, Assignment, EnteredResult, HandIn, Person, SchoolClass, TaskSheet, Work, now
from ..people.roster import former_students
from ..results.progress import best_of
from . import archive
from .rows import as_json


def class_file(session: Session, school_class: SchoolClass, version: str) -> bytes:
    """The file of a class, as a ZIP. What was removed is not in it, nor are codes, passwords and spoken words.

    ``version``: of the program, for who reads it later.
    """
    students = [*school_class.students, *former_students(session, school_class)]
    number = {student.id: place for place, student in enumerate(students)}
    assignments = list(
        session.scalars(
            select(Assignment)
            .where(Assignment.class_id == school_class.id)
            .options(
                selectinload(Assignment.sheet), selectinload(Assignment.chosen), selectinload(Assignment.class_tools)
            )
            .order_by(Assignment.position, Assignment.id)
        )
    )
    works = list(
        session.scalars(
            select(Work)
            .where(Work.assignment_id.in_([one.id for one in assignments]))
            .options(
                *WITH_LOG,
                selectinload(Work.hints),
                selectinload(Work.hand_ins).selectinload(HandIn.comments),
                selectinload(Work.hand_ins).selectinload(HandIn.sheet),
            )
            .order_by(Work.id)
        )
    )
    sheets = {one.sheet_id: one.sheet for one in assignments}
    sheets |= {one.sheet_id: one.sheet for work in works for one in work.hand_ins if one.sheet_id and one.sheet}
    sheet_number = {id_: place for place, id_ in enumerate(sheets)}
    tool_number = {tool.id: place for place, tool in enumerate(school_class.class_tools)}
    families = {family: place for place, family in enumerate(dict.fromkeys(one.family for one in sheets.values()))}
    place_of = {one.id: place for place, one in enumerate(assignments)}
    data: JsonObject = {
        "name": school_class.name,
        "scoring": school_class.scoring,
        "time_zone": school_class.time_zone,
        "students": [_student(student, student in school_class.students) for student in students],
        "tasks": [_sheet(one, families[one.family]) for one in sheets.values()],
        "class_tools": [as_json(one, archive.CLASS_TOOL) for one in school_class.class_tools],
        "assignments": [
            as_json(one, archive.ASSIGNMENT)
            | {
                "task": sheet_number[one.sheet_id],
                "after": place_of.get(one.after_id or 0),
                "chosen": [number[student.id] for student in one.chosen if student.id in number],
                "class_tools": [tool_number[tool.id] for tool in one.class_tools if tool.id in tool_number],
                "entered": list(_entered(session, one, number)),
            }
            for one in assignments
        ],
        "works": [
            _work(one, sheet_number) | {"assignment": place_of[one.assignment_id], "student": number[one.student_id]}
            for one in works
            if one.student_id in number
        ],
        "mark_columns": [
            as_json(column, archive.MARK_COLUMN)
            | {
                "marks": {
                    str(number[mark.student_id]): mark.score for mark in column.marks if mark.student_id in number
                }
            }
            for column in school_class.mark_columns
        ],
    }
    manifest = {"format": archive.FORMAT, "made": now().isoformat(), "version": version, "class": school_class.name}
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("manifest.json", json.dumps(manifest, indent=1))
        packed.writestr("class.json", json.dumps(data))
        for place, sheet in enumerate(sheets.values()):
            packed.writestr(f"tasks/{place}.json", json.dumps(sheet.document, indent=1))
        packed.writestr("roster.csv", _csv(["family name", "given name"], _names(school_class.students)))
        packed.writestr("scores.csv", _scores(students, assignments, works))
    return content.getvalue()


def _student(student: Person, is_there: bool) -> JsonObject:
    return {"name": student.name, "family_name": student.family_name, "there": is_there}


def _sheet(sheet: TaskSheet, family: int) -> JsonObject:
    said = as_json(sheet, archive.SHEET) | {"family": family}
    if sheet.demonstration is not None and voices(sheet.demonstration):
        said["demonstration"] = without_voices(sheet.demonstration)
    return said


def _entered(session: Session, assignment: Assignment, number: dict[int, int]) -> Iterable[JsonObject]:
    wanted = select(EnteredResult).where(EnteredResult.assignment_id == assignment.id)
    for one in session.scalars(wanted.options(undefer(EnteredResult.photo))):
        if one.student_id in number:
            photo = b64encode(one.photo).decode() if one.photo else None
            yield as_json(one, archive.ENTERED) | {"student": number[one.student_id], "photo": photo}


def _work(work: Work, sheet_number: dict[int, int]) -> JsonObject:
    return as_json(work, archive.WORK) | {
        "operations": [as_json(one, archive.OPERATION) for one in work.operations],
        "hints": [as_json(one, archive.HINT) for one in work.hints],
        "hand_ins": [
            as_json(one, archive.HAND_IN)
            | {
                "task": sheet_number.get(one.sheet_id or 0),
                "comments": [
                    as_json(said, archive.COMMENT) | {"by_student": said.author_id == work.student_id}
                    for said in one.comments
                ],
            }
            for one in work.hand_ins
        ],
    }


def _names(students: Iterable[Person]) -> Iterable[list[str]]:
    return ([student.family_name, student.given_name] for student in students)


def _scores(students: list[Person], assignments: list[Assignment], works: list[Work]) -> str:
    """The score that counts of each student's best attempt, a column for each task."""
    best = {(one.student_id, one.assignment_id): best_of(list(one.hand_ins)) for one in works}
    set_ones = [one for one in assignments if one.practice_key is None]
    head = ["family name", "given name", *(one.sheet.title for one in set_ones)]
    rows = (
        [student.family_name, student.given_name]
        + [str(found.score_that_counts) if (found := best.get((student.id, one.id))) else "" for one in set_ones]
        for student in students
    )
    return _csv(head, rows)


def _csv(head: list[str], rows: Iterable[list[str]]) -> str:
    text = io.StringIO(newline="")
    writer = csv.writer(text)
    writer.writerow(head)
    writer.writerows(rows)
    return text.getvalue()
