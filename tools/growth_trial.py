"""A school after five years: ``bin/widepin tool growth_trial``.

A database like a school's own gets 10,000 students, 300 classes and 200,000 works, each handed in: a few works of each
task are built and judged, and copied with their logs, documents and verdicts. Printed: what a work takes on the disk,
how quick every page is and how often it asks the database, the ten statements that take longest with their plans, and
how long a backup and its restoring take. ``--small`` makes a hundredth of it.
"""

from __future__ import annotations

import argparse
import shutil
import tempfile
from collections import defaultdict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import timedelta
from pathlib import Path
from time import perf_counter
from typing import Any

from flask import Flask
from sqlalchemy import Connection, event, insert, select, text, update
from sqlalchemy.engine import Engine

from widepin.running.backup import back_up, restore
from widepin.running.mariadb import DURABLE, MariaDB
from widepin.running.migrate import migrate
from widepin.running.settings import Settings, keys
from widepin.school.demo.accounts import DEMO_PASSWORD
from widepin.school.demo.loading import by_this_hand, carry_out
from widepin.school.models import Assignment, HandIn, Membership, Person, SchoolClass, TaskSheet, Work, now
from widepin.school.people.passwords import Passwords
from widepin.school.states import Role
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps
from widepin.school.tasks.sheets import new_sheet
from widepin.school.works import packing
from widepin.school.works.handins import hand_in
from widepin.web.app import create_app

from .desk_benchmark import Pages

TASKS = 20
HANDS = 10
"""Ways in which each task is built; every work is a copy of one of them."""

YEARS = 5
SLOWEST = 10
AT_A_TIME = 20_000


@dataclass(frozen=True)
class Size:
    """How large a school is."""

    teachers: int = 100
    classes: int = 300
    students: int = 10_000


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    asked.add_argument("--small", action="store_true", help="a hundredth of it, to see whether all of it works")
    asked.add_argument("--buffer", default="64M", help="memory in which the database keeps what it has read")
    wanted = asked.parse_args()
    size = Size(3, 3, 100) if wanted.small else Size()
    home = Path(tempfile.mkdtemp(prefix="widepin-growth-"))
    server = MariaDB(home / "db", (*DURABLE, f"--innodb-buffer-pool-size={wanted.buffer}"))
    try:
        url = server.start()
        migrate(url)
        made = {"DATABASE_URL": url, "SECRET_KEY": "bench", "PASSWORDS": Passwords(1, 64), "WTF_CSRF_ENABLED": False}
        app = create_app(made)
        engine: Engine = app.extensions["sessions"].kw["bind"]
        timed("filled", lambda: fill(app, engine, size))
        show_sizes(engine)
        with statements(engine) as found:
            measure(app)
        show_slowest(engine, found)
        timed("packed", lambda: pack(app))
        show_sizes(engine)
        measure(app)
        move(home, url)
    finally:
        server.stop()
        shutil.rmtree(home, ignore_errors=True)


def timed(what: str, deed: Any) -> None:
    """Do it, and print how long it took."""
    begun = perf_counter()
    deed()
    print(f"{what}: {perf_counter() - begun:.1f} s", flush=True)


# Filling


def fill(app: Flask, engine: Engine, size: Size) -> None:
    """The school: its people, their tasks, and their works."""
    originals(app)
    with engine.begin() as connection:
        people_and_classes(connection, size)
    count = 0
    for first in range(0, size.classes, 10):
        with engine.begin() as connection:
            count += works(connection, range(first, min(first + 10, size.classes)), size, count)
        print(f"{count:8,} works", end="\r", flush=True)
    with engine.begin() as connection:
        connection.execute(text("ANALYZE TABLE work, operation, hand_in, assignment, person, membership"))
    print(f"{count:8,} works", flush=True)


def originals(app: Flask) -> None:
    """A class of its own, whose works the others are copies of: every task built by so many hands."""
    with app.extensions["sessions"]() as session:
        hashed = app.extensions["passwords"].hash(DEMO_PASSWORD)
        teacher = Person(login="teacher0", name="Teacher 0", role="teacher", password_hash=hashed, administrator=True)
        hands = [Person(login=f"hand{n}", name=f"Hand {n}", role="student", password_hash=hashed) for n in range(HANDS)]
        school_class = SchoolClass(name="Originals", teacher=teacher, students=hands)
        session.add(school_class)
        for place, task in enumerate(list(LIBRARY.values())[:TASKS]):
            sheet = new_sheet(session, teacher, task.document())
            assignment = Assignment(sheet=sheet, position=place, school_class=school_class)
            session.add(assignment)
            session.flush()
            for number, hand in enumerate(hands):
                made = by_this_hand(steps(task.model), "sound", number)[: -1 if number % 5 == 4 else None]
                documents: list[Any] = [{"op": "add", "step": step} for step in made]
                documents[1:1] = [{"op": "undo"}, {"op": "redo"}] * (number % 3)
                work = carry_out(session, assignment, hand, documents, now() - timedelta(days=1))
                session.expire(assignment, ["works"])
                hand_in(session, work)
        session.commit()


def people_and_classes(connection: Connection, size: Size) -> None:
    """Teachers with tasks of their own, classes with tasks, students in them."""
    hashed = connection.scalar(select(Person.password_hash).limit(1))
    people: Any = Person.__table__
    named = {"password_hash": hashed, "code_number": 1, "stamp": 1}
    teachers = [
        {"id": 1000 + n, "login": f"teacher{n + 1}", "name": f"Teacher {n + 1}", "role": Role.TEACHER, **named}
        for n in range(size.teachers)
    ]
    students = [
        {"id": 10_000 + n, "login": f"student{n}", "name": f"Student {n}", "family_name": f"Family{n % 997}", **named}
        for n in range(size.students)
    ]
    for one in students:
        one["role"] = Role.STUDENT
    for rows in (teachers, students):
        for first in range(0, len(rows), AT_A_TIME):
            connection.execute(insert(people), rows[first : first + AT_A_TIME])
    ended = now() - timedelta(days=800)
    classes = [
        {
            "id": 1000 + n,
            "name": f"Class {n}",
            "teacher_id": 1000 + n % size.teachers,
            "code": f"C{n:04}",
            "archived": ended if n % 10 == 9 else None,
        }
        for n in range(size.classes)
    ]
    connection.execute(insert(SchoolClass.__table__), classes)  # type: ignore[arg-type]
    members = [{"class_id": 1000 + n % size.classes, "person_id": 10_000 + n} for n in range(size.students)]
    connection.execute(insert(Membership.__table__), members)  # type: ignore[arg-type]
    sheets: Any = TaskSheet.__table__
    theirs = [column.name for column in sheets.columns if column.name not in ("id", "owner_id", "family")]
    for n in range(size.teachers):
        first = 10_000 + n * TASKS
        own = select(sheets.c.id + first, text(f"{1000 + n}"), sheets.c.id + first, *(sheets.c[one] for one in theirs))
        chosen = own.where(sheets.c.id <= TASKS)
        connection.execute(insert(sheets).from_select(["id", "owner_id", "family", *theirs], chosen))
    assignments: Any = Assignment.__table__
    of_class = [column.name for column in assignments.columns if column.name not in ("id", "class_id", "sheet_id")]
    for n in range(size.classes):
        sheet = 10_000 + (n % size.teachers) * TASKS
        given = select(
            assignments.c.id + 10_000 + n * TASKS,
            text(f"{1000 + n}"),
            assignments.c.sheet_id + sheet,
            *(assignments.c[one] for one in of_class),
        ).where(assignments.c.id <= TASKS)
        connection.execute(insert(assignments).from_select(["id", "class_id", "sheet_id", *of_class], given))


COPIES = """CREATE TEMPORARY TABLE copies (
    work_id INT PRIMARY KEY, original INT, assignment_id INT, student_id INT, sheet_id INT, at DATETIME)"""

COPY = (
    """INSERT INTO work (id, assignment_id, student_id, started, touched, looked, removal)
       SELECT c.work_id, c.assignment_id, c.student_id, c.at, c.at, w.looked, 0
       FROM copies c JOIN work w ON w.id = c.original""",
    """INSERT INTO operation (work_id, number, `key`, document, stored)
       SELECT c.work_id, o.number, UUID(), o.document, c.at
       FROM copies c JOIN operation o ON o.work_id = c.original""",
    """INSERT INTO hand_in (work_id, attempt, `key`, sheet_id, outcome, moves, document, verdict, handed_in, hints,
                            score, reason)
       SELECT c.work_id, h.attempt, UUID(), c.sheet_id, h.outcome, h.moves, h.document, h.verdict, c.at, h.hints,
              h.score, h.reason
       FROM copies c JOIN hand_in h ON h.work_id = c.original""",
)


def works(connection: Connection, classes: range, size: Size, count: int) -> int:
    """The works of some classes, over all the years; how many. ``count``: how many there are."""
    every: Any = Work.__table__
    found = connection.execute(select(every.c.id, every.c.assignment_id).where(every.c.assignment_id <= TASKS))
    originals = defaultdict(list)
    for row in found:
        originals[row.assignment_id].append(row.id)
    rows: list[dict[str, object]] = []
    for n in classes:
        members = [10_000 + k for k in range(n, size.students, size.classes)]
        for task in range(1, TASKS + 1):
            at = now() - timedelta(days=365 * YEARS * (1 - task / TASKS), hours=n % 50)
            for place, student in enumerate(members):
                rows.append(
                    {
                        "work_id": 100_000 + count + len(rows),
                        "original": originals[task][(place + n) % HANDS],
                        "assignment_id": 10_000 + n * TASKS + task,
                        "student_id": student,
                        "sheet_id": 10_000 + (n % size.teachers) * TASKS + task,
                        "at": at + timedelta(minutes=place),
                    }
                )
    connection.execute(text(COPIES))
    into = "INSERT INTO copies VALUES (:work_id, :original, :assignment_id, :student_id, :sheet_id, :at)"
    connection.execute(text(into), rows)
    for statement in COPY:
        connection.execute(text(statement))
    connection.execute(text("DROP TEMPORARY TABLE copies"))
    return len(rows)


# Measuring


def show_sizes(engine: Engine) -> None:
    """What the works take on the disk, by table."""
    asked = text(
        "SELECT table_name, table_rows, data_length, index_length FROM information_schema.tables"
        " WHERE table_schema = DATABASE() ORDER BY data_length + index_length DESC LIMIT 8"
    )
    with engine.connect() as connection:
        count = connection.scalar(text("SELECT COUNT(*) FROM work")) or 1
        whole = 0
        print(f"{'table':16} {'rows':>10} {'data':>8} {'indexes':>8} {'bytes a work':>13}")
        for name, rows, data, indexes in connection.execute(asked):
            whole += data + indexes
            print(f"{name:16} {rows:10,} {data >> 20:5} MB {indexes >> 20:5} MB {(data + indexes) / count:13.0f}")
        print(f"{whole / count:.0f} bytes for each work, {count:,} works")


def pack(app: Flask) -> None:
    """Pack all logs that are old enough, as the server does bit by bit."""
    sessions = app.extensions["sessions"]
    looked = 0
    while (found := packing.pack_old(sessions)) == packing.MOST:
        looked += found
        print(f"{looked:8,} works looked at", end="\r", flush=True)
    with sessions() as session:
        # What the rows took is taken by new ones; given back to the disk, it can be measured.
        session.execute(text("OPTIMIZE TABLE operation"))


def measure(app: Flask) -> None:
    """Every page of a teacher, an administrator and a student."""
    with app.extensions["sessions"]() as session:
        assignment = session.scalars(select(Assignment).where(Assignment.class_id == 1000)).all()[-1]
        attempt = session.scalars(
            select(HandIn).join(Work).where(Work.assignment_id == assignment.id).order_by(HandIn.id)
        ).first()
        assert attempt is not None
        student, work, sheet = attempt.work.student_id, attempt.work_id, assignment.sheet_id
        of_student = session.get_one(Person, student).login
        of_teacher = assignment.school_class.teacher.login
        session.execute(update(Person).where(Person.login == of_teacher).values(visited=now() - timedelta(days=30)))
        session.commit()
    Pages(app, of_teacher).measure(
        "/today",
        "/classes",
        "/classes/1000",
        "/classes/1000/roster",
        f"/classes/1000/students/{student}",
        "/classes/1000/marks.csv",
        f"/assignments/{assignment.id}",
        f"/assignments/{assignment.id}/changes?since={now().isoformat()}",
        f"/assignments/{assignment.id}/projector",
        f"/assignments/{assignment.id}/results",
        "/classes/1000/terms",
        "/classes/1000/practice",
        f"/hand-ins/{attempt.id}",
        f"/works/{work}",
        "/library",
        f"/sheets/{sheet}",
        f"/sheets/{sheet}/assign",
    )
    Pages(app, of_student).measure("/tasks", f"/tasks/{assignment.id}", f"/hand-ins/{attempt.id}", "/practice")
    school = ("people", "people?q=Student+77", "classes", "library", "log", "sign-ins", "retention", "status")
    Pages(app, "teacher0").measure(*(f"/administration/{page}" for page in school))


@dataclass
class Asked:
    """A statement: how often it was asked, how long that took, and how long at most, with what it was asked for."""

    count: int = 0
    seconds: float = 0.0
    longest: float = 0.0
    parameters: Any = None


@contextmanager
def statements(engine: Engine) -> Iterator[dict[str, Asked]]:
    """What is asked meanwhile, by statement."""
    found: dict[str, Asked] = defaultdict(Asked)

    def before(connection: Any, *_: object) -> None:
        connection.info["asked"] = perf_counter()

    def after(connection: Any, _cursor: object, statement: str, parameters: Any, *_: object) -> None:
        took, one = perf_counter() - connection.info["asked"], found[statement]
        one.count, one.seconds = one.count + 1, one.seconds + took
        if took > one.longest:
            one.longest, one.parameters = took, parameters

    event.listen(engine, "before_cursor_execute", before)
    event.listen(engine, "after_cursor_execute", after)
    yield found
    event.remove(engine, "before_cursor_execute", before)
    event.remove(engine, "after_cursor_execute", after)


def show_slowest(engine: Engine, found: dict[str, Asked]) -> None:
    """The statements that took longest each time, with their plans."""
    ours = [pair for pair in found.items() if pair[0].lstrip().upper().startswith("SELECT")]
    print(f"\nThe {SLOWEST} statements that take longest:")
    for statement, one in sorted(ours, key=lambda pair: -pair[1].seconds / pair[1].count)[:SLOWEST]:
        mean, short = 1000 * one.seconds / one.count, " ".join(statement.split())
        beginning, _, rest = short.partition(" FROM ")
        print(f"\n{mean:6.1f} ms, {one.count} times: {beginning[:60]} ... FROM {rest[:260]}")
        with engine.connect() as connection:
            for row in connection.exec_driver_sql(f"EXPLAIN {statement}", one.parameters).mappings():
                told = (row["table"], row["type"], row["key"], row["rows"], row["Extra"])
                print("          ", *(part for part in told if part is not None))


def move(home: Path, url: str) -> None:
    """A backup, and its restoring into another database."""
    settings = replace(Settings("A school", "https://school.example", str(home / "data")), time_zone="UTC")
    settings.folder.mkdir()
    keys(settings.folder)
    file = home / "school.widepin"
    say = lambda words: None  # noqa: E731
    timed("backed up and read back", lambda: back_up(settings, url, file, say))
    print(f"the backup has {file.stat().st_size >> 20} MB")
    other = MariaDB(home / "other")
    try:
        there = other.start()
        timed("restored", lambda: restore(settings, there, file, say))
    finally:
        other.stop()


if __name__ == "__main__":
    main()
