"""Practice: tasks of the library that a class may work at as often as it likes, and who has mastered what.

A task that is practised is an assignment with a ``practice_key``, made when the first student of a class opens it. It
is judged as any other, and counts nowhere. A task is mastered by who has solved it, in practice or where it was set.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy import delete, func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ...judge.verdict import Outcome
from ..models import (
    Assignment,
    HandIn,
    Membership,
    Person,
    PracticeTopic,
    SchoolClass,
    TaskSheet,
    Work,
)
from ..refused import Refused
from ..tasks.library import LIBRARY, TOPICS, LibraryTask
from ..tasks.sheets import new_sheet
from .release import SOLVED


class Mastery(StrEnum):
    """Where a student stands with a task of the library."""

    MASTERED = "mastered"
    TRIED = "tried"
    NEXT = "next"  # everything that it builds on is mastered
    LATER = "later"


@dataclass(frozen=True)
class Place:
    """A task on the map: how it stands with a student, and how many moves the best attempt took, if any."""

    task: LibraryTask
    mastery: Mastery
    moves: int | None = None


@dataclass(frozen=True)
class Topic:
    """A topic of the library with its tasks, the easiest first. ``is_open``: may be practised."""

    name: str
    places: list[Place]
    is_open: bool

    @property
    def mastered(self) -> int:
        """How many of its tasks are mastered."""
        return sum(place.mastery is Mastery.MASTERED for place in self.places)


def open_topics(session: Session, *classes: SchoolClass) -> set[str]:
    """The topics that one of these classes may practise."""
    numbers = [school_class.id for school_class in classes]
    return set(session.scalars(select(PracticeTopic.topic).where(PracticeTopic.class_id.in_(numbers))))


def set_topics(session: Session, school_class: SchoolClass, topics: Collection[str]) -> None:
    """Open these topics of the library for practice, and no others. What was practised is kept. Raises Refused."""
    if not set(topics) <= set(TOPICS):
        raise Refused(_("Choose topics of the library: %(topics)s.", topics=", ".join(TOPICS)))
    session.execute(delete(PracticeTopic).where(PracticeTopic.class_id == school_class.id))
    session.add_all(PracticeTopic(class_id=school_class.id, topic=topic) for topic in topics)
    session.flush()


def attempts_by(session: Session, students: Iterable[int]) -> dict[int, dict[str, list[tuple[Outcome, int]]]]:
    """Outcomes and moves of all attempts of students at tasks of the library: student -> key -> attempts.

    A task that was set counts as the library's where it began as that and still is it.
    """
    key = func.coalesce(Assignment.practice_key, TaskSheet.library_key)
    rows = session.execute(
        select(Work.student_id, key, HandIn.outcome, HandIn.moves)
        .join(Work, HandIn.work_id == Work.id)
        .join(Assignment, Work.assignment_id == Assignment.id)
        .join(TaskSheet, Assignment.sheet_id == TaskSheet.id)
        .where(Work.student_id.in_(list(students)), key.is_not(None))
    )
    found: dict[int, dict[str, list[tuple[Outcome, int]]]] = defaultdict(lambda: defaultdict(list))
    for student, task, outcome, moves in rows:
        found[student][task].append((outcome, moves))
    return found


def mastery_of(attempts: Mapping[str, list[tuple[Outcome, int]]]) -> dict[str, Place]:
    """Where somebody with these attempts stands with every task of the library."""
    mastered = {key for key, made in attempts.items() if any(outcome in SOLVED for outcome, _moves in made)}

    def place(task: LibraryTask) -> Place:
        made = attempts.get(task.key, [])
        if task.key in mastered:
            return Place(task, Mastery.MASTERED, min(moves for outcome, moves in made if outcome in SOLVED))
        if made:
            return Place(task, Mastery.TRIED)
        return Place(task, Mastery.NEXT if set(task.prerequisites) <= mastered else Mastery.LATER)

    return {key: place(task) for key, task in LIBRARY.items()}


def map_of(places: Mapping[str, Place], opened: Collection[str]) -> list[Topic]:
    """The tasks by topic, the easiest first."""
    return [
        Topic(
            topic,
            sorted((one for one in places.values() if one.task.topic == topic), key=lambda one: one.task.level),
            topic in opened,
        )
        for topic in TOPICS
    ]


def what_comes_next(topics: Iterable[Topic]) -> LibraryTask | None:
    """What somebody best practises next: what was tried, then what is open and easiest; None where all is mastered."""
    ready = [
        place
        for topic in topics
        if topic.is_open
        for place in topic.places
        if place.mastery in (Mastery.TRIED, Mastery.NEXT)
    ]
    ready.sort(key=lambda place: (place.mastery is not Mastery.TRIED, place.task.level))
    return ready[0].task if ready else None


@dataclass(frozen=True)
class ClassPlace:
    """A task on the map of a class: how many have mastered and tried it, and who of them has only tried it."""

    task: LibraryTask
    mastered: int
    trying: list[Person]


def class_map(session: Session, school_class: SchoolClass) -> list[tuple[str, list[ClassPlace]]]:
    """For every topic its tasks, with how many of a class stand where."""
    attempts = attempts_by(session, [student.id for student in school_class.students])
    standing = {student: mastery_of(attempts.get(student.id, {})) for student in school_class.students}

    def place(task: LibraryTask) -> ClassPlace:
        at = {student: places[task.key].mastery for student, places in standing.items()}
        return ClassPlace(
            task,
            sum(one is Mastery.MASTERED for one in at.values()),
            [student for student, one in at.items() if one is Mastery.TRIED],
        )

    by_level = sorted(LIBRARY.values(), key=lambda task: task.level)
    return [(topic, [place(task) for task in by_level if task.topic == topic]) for topic in TOPICS]


def class_to_practise_in(session: Session, student: Person, task: LibraryTask) -> SchoolClass | None:
    """The first class of a student's in which a task may be practised."""
    return session.scalar(
        select(SchoolClass)
        .join(PracticeTopic, PracticeTopic.class_id == SchoolClass.id)
        .join(Membership, Membership.class_id == SchoolClass.id)
        .where(Membership.person_id == student.id, PracticeTopic.topic == task.topic, SchoolClass.archived.is_(None))
        .order_by(SchoolClass.name)
        .limit(1)
    )


def assignment_of(session: Session, school_class: SchoolClass, task: LibraryTask) -> Assignment | None:
    """The assignment by which a class practises a task, if anybody has begun to."""
    known = select(Assignment).where(Assignment.class_id == school_class.id, Assignment.practice_key == task.key)
    return session.scalar(known)


def practice_of(session: Session, school_class: SchoolClass, task: LibraryTask) -> Assignment:
    """The assignment by which a class practises a task, made if there is none; two who begin at once get the same."""
    found = assignment_of(session, school_class, task)
    if found is None:
        try:
            with session.begin_nested():
                sheet = new_sheet(session, school_class.teacher, task.document(), task.topic, task.key)
                sheet.practice = True
                session.add(Assignment(class_id=school_class.id, sheet=sheet, practice_key=task.key))
        except IntegrityError:
            session.expire_all()
        found = assignment_of(session, school_class, task)
        assert found is not None
    return found
