"""However large a class grows, its teacher's pages ask the database as often as before."""

from functools import partial

import pytest
from sqlalchemy import select

from tests.counting import queries
from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.operations import add
from widepin.documents.formats.roster import Name
from widepin.school.models import Person, SchoolClass
from widepin.school.people import roster
from widepin.school.tasks import assigning, class_tools, settings, sheets
from widepin.school.tasks.library import LIBRARY
from widepin.school.works import autosave, handins

TASKS = [key for key, task in LIBRARY.items() if "free_point" not in task.model and "point_on" not in task.model]


class LargeClass:
    """A class of a teacher's own that can grow."""

    def __init__(self, app, login):
        self.app = app
        self.sessions = app.extensions["sessions"]
        with self.sessions() as session:
            known = session.scalars(select(Person).where(Person.role == "teacher")).first()
            teacher = Person(login=login, name="Grower", role="teacher", password_hash=known.password_hash)
            session.add(teacher)
            session.flush()
            self.id = roster.new_class(session, teacher, "Growing").id
            session.commit()
        self.ids = {}

    def grow(self, students, tasks):
        """More students, and more tasks, each handed in by everybody and given as a class tool."""
        with self.sessions() as session:
            found = session.get(SchoolClass, self.id)
            roster.add_students(session, found, [Name("Student", str(number)) for number in range(students)])
            for key in TASKS[len(found.assignments) : len(found.assignments) + tasks]:
                sheet = sheets.new_sheet(session, found.teacher, LIBRARY[key].document())
                terms = settings.proposed(class_tools=tuple(found.class_tools))
                made = assigning.assign(session, sheet, found, terms)
                class_tools.give(session, found, key, "one", class_tools.tool_of_sheet(sheet))
                session.refresh(found)
                self.ids |= {"assignment": made.id, "sheet": sheet.id}
            for assignment in found.assignments:
                for student in found.students:
                    self._hand_in(session, assignment, student)
            session.commit()

    def _hand_in(self, session, assignment, student):
        work = autosave.work_of(session, assignment, student)
        if work.hand_ins:
            return
        for after, step in enumerate(read_steps(assignment.sheet.document["model"])):
            autosave.store(session, work, f"key-{after:06}", after, add(step))
        session.refresh(work)
        self.ids |= {"hand_in": handins.hand_in(session, work).id, "work": work.id, "student": student.id}

    def pages(self):
        ids = self.ids
        return {
            "classes": "/classes",
            "class": f"/classes/{self.id}",
            "roster": f"/classes/{self.id}/roster",
            "class_tools": f"/classes/{self.id}/tools",
            "student": f"/classes/{self.id}/students/{ids['student']}",
            "marks": f"/classes/{self.id}/marks.csv",
            "overview": f"/assignments/{ids['assignment']}",
            "changes": f"/assignments/{ids['assignment']}/changes?since=2026-01-01",
            "work": f"/hand-ins/{ids['hand_in']}",
            "replay": f"/works/{ids['work']}",
            "library": "/library",
            "making": f"/sheets/{ids['sheet']}",
            "assign": f"/sheets/{ids['sheet']}/assign",
        }


@pytest.fixture(scope="module")
def counts(app):
    """For each page, how many queries it takes with a small class and with a larger one."""
    grown = LargeClass(app, "grower")
    client = app.test_client()
    engine = app.extensions["sessions"].kw["bind"]
    found: dict = {}
    for students, tasks in ((2, 2), (4, 4)):
        grown.grow(students, tasks)
        client.post("/sign-in", data={"login": "grower", "password": "tracery"})
        for name, path in grown.pages().items():
            found.setdefault(name, []).append(queries(engine, partial(show, client, path)))
    return found


def show(client, path):
    assert client.get(path).status_code == 200


@pytest.mark.parametrize(
    "page",
    [
        "classes",
        "class",
        "roster",
        "class_tools",
        "student",
        "marks",
        "overview",
        "changes",
        "work",
        "replay",
        "library",
        "making",
        "assign",
    ],
)
def test_a_page_takes_no_more_queries_with_more_students_and_tasks(counts, page):
    small, large = counts[page]
    assert large <= small <= 25, (small, large)
