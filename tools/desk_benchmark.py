"""How quick the teacher's pages are with a large class: ``bin/widepin tool desk_benchmark``.

A throw-away database gets one class of 35 students with 20 tasks, every student with a handed-in work on each. For
every page: the median of nine answers, as a ratio to the page that only says that nothing is there, and its queries.
Then every work is judged again.
"""

from __future__ import annotations

import gc
import tempfile
from pathlib import Path
from statistics import median
from time import perf_counter

from flask import Flask
from sqlalchemy import event, select
from sqlalchemy.orm import Session

from widepin.documents.formats.roster import Name
from widepin.running.mariadb import THROWAWAY, MariaDB
from widepin.running.migrate import migrate
from widepin.school.demo.accounts import DEMO_PASSWORD
from widepin.school.demo.loading import build, by_this_hand
from widepin.school.models import Assignment, HandIn, Person, SchoolClass, now
from widepin.school.people.passwords import Passwords
from widepin.school.people.roster import add_students
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps
from widepin.school.tasks.sheets import new_sheet
from widepin.school.works.again import judge_again
from widepin.school.works.handins import hand_in
from widepin.web.app import create_app

STUDENTS, TASKS, ROUNDS = 35, 20, 9


def main() -> None:
    server = MariaDB(Path(tempfile.mkdtemp()), THROWAWAY)
    try:
        url = server.start()
        migrate(url)
        app = create_app(
            {"DATABASE_URL": url, "SECRET_KEY": "bench", "PASSWORDS": Passwords(1, 64), "WTF_CSRF_ENABLED": False}
        )
        ids = fill(app)
        measure(app, ids)
        with app.extensions["sessions"]() as session:
            again(session)
    finally:
        server.stop()


def fill(app: Flask) -> dict[str, int]:
    """One large class; the numbers of what its pages are about."""
    with app.extensions["sessions"]() as session:
        hashed = app.extensions["passwords"].hash(DEMO_PASSWORD)
        teacher = Person(login="bench", name="Bench", role="teacher", password_hash=hashed)
        school_class = SchoolClass(name="Large", teacher=teacher)
        session.add(school_class)
        students = add_students(session, school_class, [Name("Student", str(number)) for number in range(STUDENTS)])
        for place, task in enumerate(list(LIBRARY.values())[:TASKS]):
            sheet = new_sheet(session, teacher, task.document())
            assignment = Assignment(sheet=sheet, position=place, school_class=school_class)
            session.add(assignment)
            session.flush()
            print(f"{place + 1:3} of {TASKS}: {task.title}", flush=True)
            for number, student in enumerate(students):
                model = steps(task.model)
                build(session, assignment, student, by_this_hand(model, "sound", number), now())
                session.expire(assignment, ["works"])
                hand_in(session, next(work for work in assignment.works if work.student_id == student.id))
        session.commit()
        first = session.scalars(select(HandIn)).first()
        assert first
        return {
            "class": school_class.id,
            "assignment": school_class.assignments[3].id,
            "hand_in": first.id,
            "work": first.work_id,
            "student": students[0].id,
            "sheet": sheet.id,
        }


def measure(app: Flask, ids: dict[str, int]) -> None:
    """Every page of the desk."""
    Pages(app, "bench").measure(
        "/today",
        "/classes",
        f"/classes/{ids['class']}",
        f"/classes/{ids['class']}/roster",
        f"/classes/{ids['class']}/students/{ids['student']}",
        f"/classes/{ids['class']}/marks.csv",
        f"/assignments/{ids['assignment']}",
        f"/assignments/{ids['assignment']}/changes?since={now().isoformat()}",
        f"/assignments/{ids['assignment']}/projector",
        f"/assignments/{ids['assignment']}/results",
        f"/classes/{ids['class']}/terms",
        f"/classes/{ids['class']}/practice",
        f"/hand-ins/{ids['hand_in']}",
        f"/works/{ids['work']}",
        f"/classes/{ids['class']}/tools",
        "/library",
        f"/sheets/{ids['sheet']}",
        f"/sheets/{ids['sheet']}/assign",
        f"/sheets/{ids['sheet']}/demonstration",
        "/guide",
    )


class Pages:
    """Pages as somebody gets them, timed in turn with the smallest one, and how often each asks the database."""

    def __init__(self, app: Flask, login: str):
        self.client, self.count = app.test_client(), 0
        self.client.post("/sign-in", data={"login": login, "password": DEMO_PASSWORD})
        self.engine = app.extensions["sessions"].kw["bind"]

    def measure(self, *pages: str) -> None:
        """Print what was measured of each."""
        gc.collect()
        gc.freeze()  # as the server does once it is loaded
        event.listen(self.engine, "before_cursor_execute", self._counted)
        print(f"{'page':44} {'median':>9} {'ratio':>7} {'queries':>8}")
        for path in pages:
            assert self.client.get(path).status_code == 200, path
            times, floor = [], []
            for _ in range(ROUNDS):
                begun = perf_counter()
                self.client.get("/nowhere")
                middle = perf_counter()
                self.count = 0
                self.client.get(path)
                times.append(perf_counter() - middle)
                floor.append(middle - begun)
            took, smallest = median(times), median(floor)
            print(f"{path[:44]:44} {took * 1e3:6.0f} ms {took / smallest:7.1f} {self.count:8}", flush=True)
        event.remove(self.engine, "before_cursor_execute", self._counted)

    def _counted(self, *_: object) -> None:
        self.count += 1


def again(session: Session) -> None:
    """Judging every attempt again, on one core."""
    begun, total = perf_counter(), 0
    for assignment in session.scalars(select(Assignment)).all():
        total += judge_again(session, assignment, 0, 1e9).done
    took = perf_counter() - begun
    print(f"judged again: {total} works in {took:.1f} s on one core, {1000 * took / total:.1f} s for a thousand")


if __name__ == "__main__":
    main()
