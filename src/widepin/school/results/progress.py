"""Where students stand with an assignment."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import bindparam, exists, or_, select
from sqlalchemy.orm import Session, contains_eager, defer, joinedload, selectinload

from ...documents import clock
from ...documents.language import gettext as _
from ..database import WITH_REMOVED
from ..models import (
    Assignment,
    ChosenStudent,
    Comment,
    EnteredResult,
    HandIn,
    Membership,
    Person,
    PracticeTopic,
    SchoolClass,
    TaskSheet,
    Work,
    now,
)
from ..works.handins import is_late
from .news import News, state_of, unseen
from .release import is_solved


@dataclass(frozen=True)
class Standing:
    """A student's best and latest attempt at an assignment, or the work begun, if any."""

    student: Person
    work: Work | None
    best: HandIn | None
    latest: HandIn | None

    @property
    def state(self) -> str:
        """ "new", "begun" or "handed in"."""
        if self.latest is not None:
            return _("handed in")
        return "begun" if self.work is not None else "new"


@dataclass(frozen=True)
class ToDo:
    """An assignment of a student's, with the standing, and why it is closed if it is."""

    assignment: Assignment
    standing: Standing
    closed: str | None
    comments: int = 0  # on the latest attempt, by others
    said: str = ""  # the last of them
    waits: bool = False  # whether it is closed because it is not open yet
    entered: EnteredResult | None = None  # what the teacher entered instead of what is handed in
    news: Sequence[News] = ()  # what the student has not seen yet

    @property
    def solved(self) -> int:
        """How many levels of its series are solved, seen from this one."""
        if self.assignment.level is None or self.closed:
            return 0
        return self.assignment.level - (not is_solved(self.standing.best))

    @property
    def is_late(self) -> bool:
        """Whether the latest attempt was handed in after it was due."""
        return self.standing.latest is not None and is_late(self.standing.latest)

    @property
    def is_done(self) -> bool:
        """Whether nothing is left to do: it is solved, or counts by what the teacher entered."""
        return self.entered is not None or is_solved(self.standing.best)


def in_order_of_work(rows: Iterable[ToDo]) -> list[ToDo]:
    """What has news first, then what is open, by when it is due, then what is done, then what is closed."""

    def place(row: ToDo) -> tuple[bool, bool, bool, bool, float]:
        due = row.assignment.due
        return (not row.news, bool(row.closed), row.is_done, due is None, due.timestamp() if due else 0)

    return sorted(rows, key=place)


def best_of(attempts: list[HandIn]) -> HandIn | None:
    """The attempt with the best outcome, of those the one with the fewest moves, of those the first."""
    return min(attempts, key=lambda one: (one.outcome.rank, one.moves, one.attempt), default=None)


def standings(session: Session, assignment: Assignment) -> list[Standing]:
    """One standing per student of the class, by name; then those of students who left it."""
    works = {
        work.student_id: work
        for work in session.scalars(
            select(Work)
            .where(Work.assignment_id == assignment.id)
            .options(selectinload(Work.hand_ins), joinedload(Work.student))
        )
    }
    own = who_has(assignment)
    return [standing(student, works.get(student.id)) for student in [*own, *who_had(works.values(), own)]]


def who_had(works: Iterable[Work], own: Collection[Person]) -> list[Person]:
    """Students with works who are none of those who have to do the task now, since they left the class; by name."""
    there = {student.id for student in own}
    begun = {work.student_id: work.student for work in works if work.student_id not in there and is_begun(work)}
    return sorted(begun.values(), key=lambda one: (one.family_name or one.name, one.name, one.id))


def is_begun(work: Work) -> bool:
    """Whether anything was done in a work; a board that was only opened is no work yet."""
    return bool(work.hand_ins) or work.touched > work.started


def who_has(assignment: Assignment) -> list[Person]:
    """The students who have to do an assignment: those chosen, or else the class."""
    chosen = {student.id for student in assignment.chosen}
    return [student for student in assignment.school_class.students if not chosen or student.id in chosen]


def why_closed(assignment: Assignment, solved: set[int], at: datetime) -> str | None:
    """Why a student cannot work at an assignment at a time (UTC); ``solved``: ids of the assignments solved so far."""
    if assignment.opens and at < assignment.opens:
        return _("It opens on %(opens)s.", opens=clock.in_words(assignment.opens))
    if assignment.after_id and assignment.after_id not in solved:
        return _("Solve “%(title)s” first.", title=assignment.after.sheet.title) if assignment.after else None
    return None


_IN_CLASS = exists().where(Membership.class_id == SchoolClass.id, Membership.person_id == bindparam("student"))
_CHOSEN = exists().where(ChosenStudent.assignment_id == bindparam("assignment")).correlate(None)
_ASSIGNMENT_OF = (  # made once, since every save asks
    select(Assignment)
    .join(Assignment.school_class)
    .where(Assignment.id == bindparam("assignment"), SchoolClass.archived.is_(None), _IN_CLASS)
    .where(or_(~_CHOSEN, _CHOSEN.where(ChosenStudent.person_id == bindparam("student"))))
    .options(
        contains_eager(Assignment.school_class),
        joinedload(Assignment.sheet).options(defer(TaskSheet.demonstration), defer(TaskSheet.wrong)),
    )
)


def assignment_of(session: Session, assignment_id: int, student_id: int) -> Assignment | None:
    """An assignment that a student has to do, in one query; None for anything else."""
    return session.scalar(_ASSIGNMENT_OF, {"assignment": assignment_id, "student": student_id})


def why_gone(session: Session, assignment_id: int, student_id: int) -> str | None:
    """Why an assignment that a student has worked at is not there to be done any more; None for one never begun."""
    begun = select(Work.id).where(Work.assignment_id == assignment_id, Work.student_id == student_id)
    if session.scalar(begun.execution_options(**WITH_REMOVED)) is None:
        return None
    archived = select(SchoolClass.archived).join(Assignment).where(Assignment.id == assignment_id)
    if session.scalar(archived) is not None:
        return _("This class is closed. What you built is kept; ask your teacher.")
    return _("This task is not among yours any more. What you built is kept; ask your teacher.")


def closed_now(session: Session, assignment: Assignment, student: Person) -> str | None:
    """Why a student cannot work at an assignment at present; None if nothing is in the way."""
    if assignment.practice_key is not None:
        topic = select(PracticeTopic).where(
            PracticeTopic.class_id == assignment.class_id, PracticeTopic.topic == assignment.sheet.topic
        )
        if session.scalar(topic) is None:
            return _("Your teacher has closed this topic for practice. What you built is kept.")
    solved = set()
    if assignment.after_id:
        before = select(Work).where(Work.assignment_id == assignment.after_id, Work.student_id == student.id)
        if is_solved(standing(student, session.scalar(before.options(selectinload(Work.hand_ins)))).best):
            solved.add(assignment.after_id)
    return why_closed(assignment, solved, now())


def standing(student: Person, work: Work | None) -> Standing:
    """The standing of one student with this work. A board that was only opened is no work yet."""
    attempts = list(work.hand_ins) if work else []
    begun = work if work is not None and is_begun(work) else None
    return Standing(student, begun, best_of(attempts), attempts[-1] if attempts else None)


def to_do(session: Session, student: Person, at: datetime | None = None) -> list[ToDo]:
    """All assignments of a student's classes, in order, with the student's standing."""
    works = {
        work.assignment_id: work
        for work in session.scalars(
            select(Work).where(Work.student_id == student.id).options(selectinload(Work.hand_ins))
        )
    }
    classes = session.scalars(
        select(SchoolClass)
        .join(Membership, Membership.class_id == SchoolClass.id)
        .where(Membership.person_id == student.id, SchoolClass.archived.is_(None))
        .options(
            selectinload(SchoolClass.assignments).selectinload(Assignment.sheet),
            selectinload(SchoolClass.assignments).selectinload(Assignment.chosen),
        )
        .order_by(SchoolClass.name)
    )
    own = [
        assignment
        for school_class in classes
        for assignment in school_class.assignments
        if not assignment.chosen or student in assignment.chosen
    ]
    rows = [(assignment, standing(student, works.get(assignment.id))) for assignment in own]
    solved = {assignment.id for assignment, one in rows if is_solved(one.best)}
    at = at or now()
    said = said_to(session, student)
    entered = {
        one.assignment_id: one
        for one in session.scalars(select(EnteredResult).where(EnteredResult.student_id == student.id))
    }
    found = []
    for assignment, one in rows:
        comments = said.get(one.latest.id, []) if one.latest else []
        news: list[News] = []
        if one.work is not None:
            numbers = (number for attempt in one.work.hand_ins for number, _text in said.get(attempt.id, ()))
            last = max(numbers, default=0)
            news = unseen(one.work, state_of(assignment, one.work, one.best, last, at))
        found.append(
            ToDo(
                assignment,
                one,
                why_closed(assignment, solved, at),
                len(comments),
                comments[-1][1] if comments else "",
                assignment.opens is not None and at < assignment.opens,
                entered.get(assignment.id),
                news,
            )
        )
    return found


def said_to(session: Session, student: Person) -> dict[int, list[tuple[int, str]]]:
    """The comments that others wrote on each attempt of a student's, with their numbers, in their order."""
    wanted = (
        select(Comment.hand_in_id, Comment.id, Comment.text)
        .join(HandIn, HandIn.id == Comment.hand_in_id)
        .join(Work, Work.id == HandIn.work_id)
        .where(Work.student_id == student.id, Comment.author_id != student.id)
        .order_by(Comment.id)
    )
    found: dict[int, list[tuple[int, str]]] = {}
    for attempt, number, text in session.execute(wanted):
        found.setdefault(attempt, []).append((number, text))
    return found


def what_next(rows: Sequence[ToDo], at: datetime) -> tuple[ToDo, str] | None:
    """What a student best turns to at a time (UTC), and why; None where all of it is solved or closed.

    What was returned comes first, then what is due next, then what does not hold yet or is begun, then what is new.
    """

    def reason(row: ToDo) -> tuple[int, float, str] | None:
        one, due = row.standing, row.assignment.due
        if row.closed or row.entered:
            return None
        if one.work is not None and one.work.returned is not None:
            return 0, 0, _("your teacher has returned it for revision")
        if is_solved(one.best):
            return None
        if due is not None and due >= at:
            return 1, due.timestamp(), _("it is due next")
        if one.best is not None:
            return 2, 0, _("it does not hold in every position yet")
        if one.work is not None:
            return 3, 0, _("you have begun it")
        return 4, 0, _("it is new")

    open_rows = [(why, row) for row in rows if (why := reason(row)) is not None]
    if not open_rows:
        return None
    (_rank, _time, words), row = min(open_rows, key=lambda one: one[0][:2])
    return row, words
