"""What people see of the demo school at a fixed time: its works, marks, progress, lessons, and what is kept of people."""

from __future__ import annotations

import datetime as time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import fields, is_dataclass
from enum import Enum
from pathlib import Path
from unittest.mock import patch

from sqlalchemy import select
from sqlalchemy.orm import Session

from tests.conftest import CHEAP
from widepin.documents.reading import JsonObject
from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import migrate
from widepin.school import models
from widepin.school.database import make_engine, make_sessions
from widepin.school.demo.loading import load_demo
from widepin.school.lessons.lesson import needing_help, timeline
from widepin.school.lessons.overview import GroupedBy, overview_of
from widepin.school.lessons.overview_groups import SortedBy, grouped, ordered
from widepin.school.lessons.today import today_of
from widepin.school.lessons.ways import ways_of
from widepin.school.models import Assignment, Base, HandIn, Person, SchoolClass, Work
from widepin.school.people import directory, personal_data
from widepin.school.results.entering import results_of
from widepin.school.results.marks import as_rows, table_of
from widepin.school.results.practice import attempts_by, class_map, map_of, mastery_of, open_topics, what_comes_next
from widepin.school.results.progress import standings, to_do, what_next
from widepin.school.results.student_page import page_of
from widepin.school.tasks.settings import all_as_typed
from widepin.school.works.autosave import task_of
from widepin.school.works.board_standing import board_standing

AT = time.datetime(2026, 10, 14, 16, 0)
"""When it is looked at: a Wednesday, two hours after the school was made."""

STUDENTS = 8
"""In each class."""


@contextmanager
def at(moment: time.datetime) -> Iterator[None]:
    """The present, for the school, is this moment (UTC)."""

    class Stopped(time.datetime):
        @classmethod
        def now(cls, tz: time.tzinfo | None = None) -> Stopped:
            return cls.combine(moment.date(), moment.time(), tz)

    with patch.object(models, "datetime", Stopped):
        yield


@contextmanager
def demo_school(folder: Path) -> Iterator[Session]:
    """The demo school with few students, made at a fixed time in a database in a folder of its own."""
    server = MariaDB(folder, THROWAWAY)
    try:
        address = server.start()
        migrate(address)
        engine = make_engine(address)
        with at(AT - time.timedelta(hours=2)), make_sessions(engine)() as session:
            load_demo(session, passwords=CHEAP, most_per_class=STUDENTS)
            session.commit()
        with at(AT), make_sessions(engine)() as session:
            yield session
        engine.dispose()
    finally:
        server.stop()


def plain(value: object, depth: int = 0) -> object:
    """Anything in JSON: rows by what they are called, documents left out but for their size."""
    if depth > 8:
        return "..."
    match value:
        case Base():
            called = next((getattr(value, name) for name in ("login", "name", "title") if hasattr(value, name)), None)
            number = getattr(value, "id", "")
            return f"{type(value).__name__} {called or number}"
        case Enum():
            return value.value
        case time.datetime():
            return value.isoformat()
        case time.timedelta():
            return f"{value.total_seconds() / 60:g} min"
        case dict():
            return {str(plain(key)): plain(one, depth + 1) for key, one in value.items() if key not in LEFT_OUT}
        case list() | tuple():
            return [plain(one, depth + 1) for one in value]
        case set() | frozenset():
            return sorted(str(plain(one)) for one in value)
    if is_dataclass(value):
        rows = [row.name for row in fields(value) if row.name not in LEFT_OUT]
        return {name: plain(getattr(value, name), depth + 1) for name in rows}
    return value if isinstance(value, str | int | float | bool | None) else type(value).__name__


LEFT_OUT = ("figure", "figures", "steps", "document", "operations", "password_hash", "task", "given", "photo")
"""Long documents, which other records and tests hold."""


def of_school(session: Session) -> Iterator[tuple[str, JsonObject]]:
    """Everything, by whose page it is."""
    teachers = session.scalars(select(Person).where(Person.role == "teacher").order_by(Person.id)).all()
    classes = session.scalars(select(SchoolClass).order_by(SchoolClass.id)).all()
    yield "made", {str(work.id): of_work(work) for work in session.scalars(select(Work).order_by(Work.id))}
    for teacher in teachers:
        yield (
            teacher.login,
            {
                "today": plain(today_of(session, teacher, AT)),
                "classes": plain(directory.classes_of(session, teacher)),
                "present": plain(directory.present_classes_of(session, teacher)),
                "belongings": plain(directory.belongings_of(session, teacher)),
                "kept": plain(personal_data.of_teacher(session, teacher)),
            },
        )
    yield (
        "everybody",
        {
            "counts": plain(directory.counts(session)),
            "classes": plain(directory.all_classes(session)),
            "teachers": plain(directory.all_teachers(session)),
        },
    )
    for school_class in classes:
        yield school_class.name, of_class(session, school_class)
        for student in school_class.students:
            yield f"{school_class.name}: {student.login}", of_student(session, school_class, student)
    for assignment in session.scalars(
        select(Assignment).where(Assignment.practice_key.is_(None)).order_by(Assignment.id)
    ):
        yield f"{assignment.school_class.name}: {assignment.id} {assignment.sheet.title}", of_task(session, assignment)


def of_work(work: Work) -> JsonObject:
    """When a work was done, what came of it, and what was said."""
    log = work.operations
    return {
        "whose": plain([work.student, work.assignment, work.assignment.sheet]),
        "when": plain([work.started, work.touched, work.returned]),
        "steps": plain([len(log), log[0].stored, log[-1].stored] if log else []),
        "attempts": [of_attempt(one) for one in work.hand_ins],
    }


def of_attempt(attempt: HandIn) -> object:
    said = [[plain(one.author), one.text, one.step] for one in attempt.comments]
    return plain([attempt.outcome, attempt.moves, attempt.score, attempt.score_override, attempt.handed_in]) + [said]  # type: ignore[operator]


def of_class(session: Session, school_class: SchoolClass) -> JsonObject:
    """The pages of a class."""
    table = table_of(session, school_class)
    return {
        "marks": plain(as_rows(table)),
        "map": plain([[topic, [[p.task.key, p.mastered, plain(p.trying)] for p in row]] for topic, row in class_map(session, school_class)]),
        "kept": plain(personal_data.of_class(session, school_class)),
        "topics": plain(open_topics(session, school_class)),
    }  # fmt: skip


def of_student(session: Session, school_class: SchoolClass, student: Person) -> JsonObject:
    """What a student sees at home and in practice, and the teacher of the student."""
    rows = to_do(session, student, AT)
    topics = map_of(
        mastery_of(attempts_by(session, [student.id]).get(student.id, {})), open_topics(session, school_class)
    )
    page = page_of(session, school_class, student)
    following, why = what_next(rows, AT) or (None, "")
    after = what_comes_next(topics)
    return {
        "to do": plain(rows),
        "next": [following.assignment.id if following else None, why],
        "practice": [[topic.name, topic.is_open, [[p.task.key, plain(p.mastery)] for p in topic.places]] for topic in topics],
        "then": after.key if after else None,
        "topics": plain(page.topics),
        "mistakes": [[one.words, len(one.attempts)] for one in page.mistakes],
        "solved": page.solved,
        "scored": [one.id for one in page.scored],
        "kept": plain(personal_data.of_student(session, student)),
    }  # fmt: skip


def of_task(session: Session, assignment: Assignment) -> JsonObject:
    """The overview of a task, and what a student's board says of the task."""
    places = overview_of(session, assignment)
    task = task_of(assignment)
    found = ways_of(places, task, assignment.sheet)
    student = assignment.school_class.students[0] if assignment.school_class.students else None
    return {
        "terms": all_as_typed(assignment),
        "places": [plain([one.student, one.moves, one.group, one.method, one.same_as, one.took, one.presence(AT)]) for one in places],
        "standings": plain(standings(session, assignment)),
        "groups": {by: [[one.heading, [p.student.login for p in one.places]] for one in grouped(places, by)] for by in GroupedBy},
        "order": {by: [p.student.login for p in ordered(places, by)] for by in SortedBy},
        "ways": [[moves, [p.student.login for p in row]] for moves, row in found.columns] + [found.possible, found.is_least, found.of_model] if found else [],
        "help": [[place.student.login, why] for place, why in needing_help(places, AT)],
        "moments": plain(timeline(places)),
        "entered": plain({number: [one.kind, one.score, one.note] for number, one in results_of(session, assignment).items()}),
        "board": plain(board_standing(session, assignment, student)) if student else None,
    }  # fmt: skip
