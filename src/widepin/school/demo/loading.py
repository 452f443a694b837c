"""The demo school: stone carvers who set out window tracery. All people and places in it are invented."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from datetime import datetime, timedelta
from io import BytesIO
from math import cos, sin

from PIL import Image, ImageDraw, ImageFilter
from sqlalchemy.orm import Session

from ...documents.formats.construction import write_step
from ...documents.reading import JsonObject
from ...judge.verdict import Outcome
from ..models import (
    Assignment,
    Operation,
    Person,
    SchoolClass,
    TaskSheet,
    Work,
    now,
)
from ..people.passwords import Passwords
from ..results.entering import add_column, change_column, enter, keep_photo
from ..results.practice import practice_of, set_topics
from ..results.scale import set_scale
from ..states import Release, Role, Showing
from ..tasks.assigning import assign, copy_class
from ..tasks.class_tools import give, read_class_tool, tool_of_sheet
from ..tasks.graded_series import assign_series
from ..tasks.library import LIBRARY
from ..tasks.library.notation import steps
from ..tasks.settings import proposed
from ..tasks.sheets import new_sheet
from ..works import phrases
from ..works.handins import hand_in
from ..works.reviewing import comment, return_work, set_score
from .accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from .tasks import PEOPLE, TASKS, DemoTask

SET_TASKS = (range(6), range(2, 10))
"""Which of the tasks each class has to do."""


REMARKS = (
    "Why did you begin with this one?",
    "Good. Could the radius be another?",
    "Drag A about and watch what this does.",
    "One move could go. Which?",
)
"""What the teacher says on works."""


def load_demo(
    session: Session,
    say: Callable[[str], None] = lambda words: None,
    passwords: Passwords | None = None,
    most_per_class: int | None = None,
) -> None:
    """Fill an empty database with the demo school. ``most_per_class`` makes a smaller one, for tests."""
    password = (passwords or Passwords()).hash(DEMO_PASSWORD)
    teacher = Person(login="corin.hale", name="Master Corin Hale", role=Role.TEACHER, password_hash=password)
    overseer = Person(
        login="oda.finch", name="Oda Finch", role=Role.TEACHER, administrator=True, password_hash=password
    )
    session.add_all([teacher, overseer])
    sheets = [
        TaskSheet(
            owner=teacher, title=task.document()["title"], document=task.document(), family=number, topic="Tracery"
        )
        for number, task in enumerate(TASKS, 1)
    ]
    for sheet in sheets[:2]:
        sheet.shared = True
    session.add_all(sheets)
    classes = []  # held, so that the order of their students is that in which they came
    for number, (name, names) in enumerate(PEOPLE.items()):
        students = [
            Person(login=student.lower().replace(" ", "."), name=student, role=Role.STUDENT, password_hash=password)
            for student in names[:most_per_class]
        ]
        school_class = SchoolClass(name=name, teacher=teacher, students=students)
        set_tasks = SET_TASKS[number]
        school_class.assignments = [
            Assignment(sheet=sheets[task], position=position, due=at_nine(3 * position - 4), hints=3, hint_cost=5)
            for position, task in enumerate(set_tasks)
        ]
        session.add(school_class)
        classes.append(school_class)
        session.flush()
        for index, (assignment, task) in enumerate(zip(school_class.assignments, set_tasks, strict=True)):
            say(f"{name}, {TASKS[task].title}")
            let_them_work(session, assignment, students, TASKS[task], index, len(set_tasks))
        look_through(session, school_class)
    school_class.colleagues = [overseer]
    say("A graded series, and a class of last year")
    altitude = LIBRARY["foot-of-an-altitude"]
    series = new_sheet(session, teacher, altitude.document(), altitude.topic)
    assign_series(session, series, school_class, proposed(due=at_nine(24)))
    allow_a_class_tool(session, school_class)
    for one in classes:
        say(f"{one.name}, marks and practice")
        enter_marks(session, one)
        practise(session, one)
    set_scale(session, overseer, SCALE)
    for sheet in sheets[6:]:
        sheet.folder = "Gables"
    old = new_sheet(session, teacher, LIBRARY["midpoint"].document(), LIBRARY["midpoint"].topic, "midpoint")
    old.archived = now()
    for words in REMARKS:
        phrases.keep(session, teacher, words)
    copy_class(session, school_class, "Second year, last autumn", with_students=False).archived = now()


SCALE = "90 masterly\n75 good\n55 sound\n35 to be mended\n0 to be begun anew"


def enter_marks(session: Session, school_class: SchoolClass) -> None:
    """Other marks, a task that counts twice, work on paper with a photo, somebody absent and somebody excused; and what
    is shown to students besides.
    """
    students = school_class.students
    column = add_column(session, school_class, "Model in stone", "2")
    scores = {student.id: str(55 + 7 * number % 43) for number, student in enumerate(students) if number % 6 != 5}
    change_column(session, column, column.title, "2", scores)
    first, second, *_others, last = school_class.assignments
    last.weight = 2
    first.solution = first.shortest = Release.CORRECT
    second.demonstration, second.solution = Showing.BEFORE, Release.DUE
    lacking = [student for student in students if all(work.student is not student for work in second.works)]
    kinds = (
        ("paper", "80", "Drawn in chalk on the tracing floor."),
        ("absent", "", ""),
        ("excused", "", "In the quarry."),
    )
    for student, (kind, score, note) in zip(lacking or students[-3:], kinds, strict=False):
        enter(session, second, student, kind, score, note)
        if kind == "paper":
            session.flush()
            keep_photo(session, second, student, chalk_drawing())


def chalk_drawing() -> bytes:
    """A photo of a drawing in chalk: a segment, two circles about its ends, and the line through where they meet."""
    image = Image.new("RGB", (640, 480), (58, 62, 60))
    draw = ImageDraw.Draw(image)
    chalk, (left, right, level, radius) = (226, 222, 210), (220, 420, 250, 160)
    for x in (left, right):
        draw.ellipse((x - radius, level - radius, x + radius, level + radius), outline=chalk, width=3)
        draw.ellipse((x - 6, level - 6, x + 6, level + 6), fill=chalk)
    draw.line((left, level, right, level), fill=chalk, width=4)
    draw.line(((left + right) // 2, 60, (left + right) // 2, 440), fill=chalk, width=4)
    made = BytesIO()
    image.filter(ImageFilter.GaussianBlur(0.8)).save(made, "JPEG", quality=70)
    return made.getvalue()


PRACTISED = ("midpoint", "perpendicular-bisector", "perpendicular-through-a-point", "bisect-an-angle")
"""Tasks of the library that students of the demo have practised: the first of them all."""


def practise(session: Session, school_class: SchoolClass) -> None:
    """Topics that are open, and what students have practised so far."""
    tasks = [LIBRARY[key] for key in PRACTISED]
    set_topics(session, school_class, {task.topic for task in tasks})
    for place, task in enumerate(tasks):
        assignment = practice_of(session, school_class, task)
        made = [{"op": "add", "step": step} for step in assignment.sheet.document["model"]]
        for number, student in enumerate(school_class.students[: 9 - 2 * place]):
            at = now() - timedelta(days=1, hours=number)
            work = carry_out(session, assignment, student, made[: len(made) - (number % 4 == 3)], at)
            if number % 4 != 3:
                hand_in(session, work).handed_in = work.touched = at


def allow_a_class_tool(session: Session, school_class: SchoolClass) -> None:
    """What the class has proven may be used for a new task, and the first students have built with it."""
    bisector, sheet = (
        new_sheet(session, school_class.teacher, LIBRARY[key].document(), LIBRARY[key].topic)
        for key in ("perpendicular-bisector", "circumcircle")
    )
    known = give(session, school_class, "Centre line", "one", tool_of_sheet(bisector))
    terms = proposed(due=at_nine(20), class_tools=(known,))
    assignment = assign(session, sheet, school_class, terms)
    class_tool = read_class_tool(known.document)
    made: list[JsonObject] = []
    for name, ends in (("m", "AB"), ("n", "BC")):
        ids = [name if step.id in class_tool.gives else f"{name}_{step.id}" for step in class_tool.steps]
        use = {"op": "use", "class_tool": known.name, "from": [*ends], "gives": [name], "moves": known.moves}
        made.append(use | {"steps": [write_step(step) for step in class_tool.made(ends, ids)]})
    for step in steps("M intersection m n\nk circle M A"):
        made.append({"op": "add", "step": step})
    for number, student in enumerate(school_class.students[2:5]):
        at = now() - timedelta(hours=3 + 2 * number)
        work = carry_out(session, assignment, student, made[: len(made) - number], at)
        if not number:
            hand_in(session, work).handed_in = work.touched = at


def look_through(session: Session, school_class: SchoolClass) -> None:
    """The teacher says something on some works, gives credit by hand once, and hands one back."""
    works = [work for assignment in school_class.assignments for work in assignment.works if work.hand_ins]
    for work, words in zip(works[1::4], REMARKS, strict=False):
        attempt = work.hand_ins[-1]
        comment(session, attempt, school_class.teacher, words, attempt.document["steps"][0]["id"])
    if len(works) > 5:
        comment(session, works[5].hand_ins[-1], works[5].student, "Because the other circle has the same radius.")
    kind = next((work.hand_ins[-1] for work in works if work.hand_ins[-1].outcome is Outcome.EYEBALLED), None)
    if kind is not None:
        set_score(kind, "40", "The plan was right, and told well at the board.")
    wrong = next((work.hand_ins[-1] for work in reversed(works) if work.hand_ins[-1].outcome is Outcome.WRONG), None)
    if wrong is not None:
        return_work(wrong)


def let_them_work(
    session: Session, assignment: Assignment, students: Sequence[Person], task: DemoTask, place: int, tasks: int
) -> None:
    """Students build and hand in; later tasks are done by fewer, and the last stand untouched or half done."""
    logins = [student.login for student in students]
    for number, attempts, half in who_does_what(logins, task, place, tasks):
        for again, (outcome, lines) in enumerate(attempts):
            made = by_this_hand(steps(lines), outcome, number)
            at = evening(assignment, number, again)
            build(session, assignment, students[number], made[: len(made) // 2 + 1] if half else made, at)
            if not half:
                work = next(work for work in assignment.works if work.student is students[number])
                attempt = hand_in(session, work)
                attempt.handed_in = work.touched = at


def by_this_hand(made: list[JsonObject], outcome: str, number: int) -> list[JsonObject]:
    """Steps with free and sliding points a little aside, since no two students put them alike."""
    far = 0.004 if outcome in ("eyeballed", "approximate") else 0.05
    turn = 2.4 * number
    aside = (far * number**0.5 * cos(turn), far * number**0.5 * sin(turn))
    return [
        step | {"at": [round(x + way, 4) for x, way in zip(step["at"], aside, strict=True)]} if "at" in step else step
        for step in made
    ]


def at_nine(days: int) -> datetime:
    """Nine in the morning, so many days from now."""
    return (now() + timedelta(days=days)).replace(hour=9, minute=0, second=0, microsecond=0)


def evening(assignment: Assignment, number: int, again: int) -> datetime:
    """When a student hands in: in the days before the task is due, a few after, nobody in the future."""
    due = assignment.due or now()
    at = (
        due
        - timedelta(hours=(number * 7) % 40 - 3 + 0.4 * number, minutes=11 * number % 60)
        + timedelta(hours=2 * again)
    )
    return min(at, now() - timedelta(minutes=20 + 13 * number - 5 * again)).replace(microsecond=0)


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


def build(session: Session, assignment: Assignment, student: Person, made: list[JsonObject], at: datetime) -> None:
    """A student clears the board and builds a solution step by step until a time."""
    work = next((work for work in assignment.works if work.student is student), None)
    log = work.operations if work else []
    standing = sum({"add": 1, "undo": -1}[operation.document["op"]] for operation in log)
    documents = [{"op": "undo"}] * standing + [{"op": "add", "step": step} for step in made]
    carry_out(session, assignment, student, documents, at)


def carry_out(
    session: Session, assignment: Assignment, student: Person, documents: list[JsonObject], at: datetime
) -> Work:
    """A student does these operations, the last of them at a time."""
    work = next((work for work in assignment.works if work.student is student), None)
    if work is None:
        work = Work(
            assignment=assignment,
            student=student,
            started=at - timedelta(minutes=8 + 5 * ((student.id + assignment.id) % 7)),
            touched=at,
        )
        session.add(work)
        session.flush()
    first = len(work.operations) + 1
    pace = timedelta(seconds=25 + 7 * (student.id % 5))
    work.operation_rows += [
        Operation(
            number=first + number,
            key=f"demo-{first + number}",
            document=document,
            stored=at - pace * (len(documents) - number),
        )
        for number, document in enumerate(documents)
    ]
    session.flush()
    return work
