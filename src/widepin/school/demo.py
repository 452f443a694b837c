"""The demo school: stone carvers who set out window tracery. All people and places in it are invented."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from datetime import timedelta

from sqlalchemy.orm import Session

from .demo_accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from .demo_tasks import PEOPLE, TASKS, DemoTask
from .handins import hand_in
from .models import Assignment, Operation, Person, SchoolClass, TaskSheet, Work, now
from .people import Passwords
from .shelf.notation import steps

SET_TASKS = (range(6), range(2, 10))
"""Which of the tasks each class has to do."""


def load_demo(
    session: Session,
    say: Callable[[str], None] = lambda words: None,
    passwords: Passwords | None = None,
    most_per_class: int | None = None,
) -> None:
    """Fill an empty database with the demo school. ``most_per_class`` makes a smaller one, for tests."""
    password = (passwords or Passwords()).hash(DEMO_PASSWORD)
    teacher = Person(login="corin.hale", name="Master Corin Hale", role="teacher", password_hash=password)
    session.add(teacher)
    sheets = [
        TaskSheet(owner=teacher, title=task.title, document=task.document(), family=number)
        for number, task in enumerate(TASKS, 1)
    ]
    session.add_all(sheets)
    for number, (name, names) in enumerate(PEOPLE.items()):
        students = [
            Person(login=student.lower().replace(" ", "."), name=student, role="student", password_hash=password)
            for student in names[:most_per_class]
        ]
        school_class = SchoolClass(name=name, teacher=teacher, students=students)
        set_tasks = SET_TASKS[number]
        school_class.assignments = [
            Assignment(sheet=sheets[task], place=place, due=now() + timedelta(days=3 * place - 4, hours=9))
            for place, task in enumerate(set_tasks)
        ]
        session.add(school_class)
        session.flush()
        for place, (assignment, task) in enumerate(zip(school_class.assignments, set_tasks, strict=True)):
            say(f"{name}, {TASKS[task].title}")
            let_them_work(session, assignment, students, TASKS[task], place, len(set_tasks))


def let_them_work(
    session: Session, assignment: Assignment, students: Sequence[Person], task: DemoTask, place: int, tasks: int
) -> None:
    """Students build and hand in; later tasks are done by fewer, and the last stand untouched or half done."""
    logins = [student.login for student in students]
    for number, attempts, half in who_does_what(logins, task, place, tasks):
        for _, lines in attempts:
            build(session, assignment, students[number], lines, half)


def who_does_what(
    logins: Sequence[str], task: DemoTask, place: int, tasks: int
) -> Iterator[tuple[int, list[tuple[str, str]], bool]]:
    """Who of the students makes which attempts at a task, and whether it is left half done.

    ``place``: of the task among so many ``tasks``. An attempt is (expected outcome, steps as lines).
    """
    busy = round(len(logins) * (1 - place / (tasks - 1) * 0.9))
    for number, login in enumerate(logins[:busy]):
        if login == SHOWN_ACCOUNTS[1][0] and place:
            continue  # somebody with tasks left to do
        attempts = [task.solutions[(number + 1 + place // 2) % len(task.solutions)]]
        if number % 5 == 4:  # some mend their work and hand in again
            attempts.append(task.solutions[0])
        yield number, attempts, number == busy - 1 and place > 1


def build(session: Session, assignment: Assignment, student: Person, lines: str, half: bool = False) -> None:
    """A student clears the board, builds a solution step by step and hands it in, or leaves it half done."""
    work = next((one for one in assignment.works if one.student is student), None)
    if work is None:
        work = Work(assignment=assignment, student=student)
        session.add(work)
        session.flush()
    made = steps(lines)
    standing = sum({"add": 1, "take back": -1}[operation.document["op"]] for operation in work.operations)
    documents = [{"op": "take back"}] * standing + [
        {"op": "add", "step": step} for step in (made[: len(made) // 2 + 1] if half else made)
    ]
    first = len(work.operations) + 1
    work.operations += [
        Operation(number=first + number, key=f"demo-{first + number}", document=document)
        for number, document in enumerate(documents)
    ]
    session.flush()
    if not half:
        hand_in(session, work)
