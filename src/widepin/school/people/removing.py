"""Removing and having back: what a teacher removes lies in a bin for 30 days, with all that hangs on it.

Rows that are removed carry the number of their removal (``models.Removable``) and are in no query; restoring takes it
off again. Nothing is erased before the time is over, or somebody says so, and then a few works at a time, so that
nobody waits for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta

from sqlalchemy import ColumnElement, delete, exists, func, or_, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, joinedload

from ...documents.language import gettext as _
from ...plane.errors import CoreError
from .. import turns
from ..database import WITH_REMOVED
from ..models import (
    Assignment,
    Comment,
    HandIn,
    Membership,
    Person,
    Removable,
    Removal,
    SchoolClass,
    TaskSheet,
    Work,
    now,
)
from ..refused import Refused
from ..states import Action, Removed
from . import audit
from .teaching import taught_by

KEPT = timedelta(days=30)
"""For how long what is removed can be had back."""

AT_ONCE = datetime(2000, 1, 1)
"""When what is to be erased without delay counts as removed."""

REMOVABLE: tuple[type[Removable], ...] = (Comment, Work, Assignment, SchoolClass, Person, TaskSheet)
"""Each kind, those that hang on others before these."""


class Gone(CoreError):
    """It is not in the bin any more."""


def remove_class(session: Session, by: Person, school_class: SchoolClass) -> Removal:
    """Remove a class with its tasks, all works on them, and its students who are in no other class."""
    made = _removal(session, by, Removed.CLASS, school_class.id, school_class.name, school_class)
    _mark_classes(session, made, [school_class.id])
    return made


def remove_old(session: Session, by: Person, classes: Sequence[SchoolClass], students: Sequence[Person]) -> None:
    """Erase classes that are older than the school keeps, and students with all that is theirs."""
    numbers, people = [one.id for one in classes], [one.id for one in students]  # before marking makes them stale
    made = _removal(session, by, Removed.OLD_DATA, 0, "")
    made.at = AT_ONCE
    _mark_classes(session, made, numbers)
    _mark_students(session, made, people)


def _mark_classes(session: Session, made: Removal, numbers: Sequence[int]) -> None:
    tasks = select(Assignment.id).where(Assignment.class_id.in_(numbers))
    elsewhere = select(Membership.person_id).where(
        Membership.class_id.not_in(numbers),
        Membership.class_id.in_(select(SchoolClass.id).where(SchoolClass.removal == 0)),
    )
    here = select(Membership.person_id).where(Membership.class_id.in_(numbers))
    own = session.scalars(select(Person.id).where(Person.id.in_(here), Person.id.not_in(elsewhere))).all()
    # Whoever is in no other class any more, but has works in one, is kept for these.
    works_elsewhere = select(Work.student_id).join(Assignment).where(Assignment.class_id.not_in(numbers))
    kept = set(session.scalars(works_elsewhere.where(Work.student_id.in_(own)).distinct())) if own else set()
    _mark(session, made, Work, Work.assignment_id.in_(tasks))
    _mark(session, made, Assignment, Assignment.class_id.in_(numbers))
    _mark(session, made, SchoolClass, SchoolClass.id.in_(numbers))
    _mark(session, made, Person, Person.id.in_(set(own) - kept))


def take_out(session: Session, by: Person, school_class: SchoolClass, student: Person) -> Removal:
    """Take a student out of a class. Nothing is erased: works stay in the class that they were made in."""
    made = _removal(session, by, Removed.MEMBER, student.id, student.name, school_class)
    school_class.students.remove(student)
    session.flush()
    return made


def remove_student(session: Session, by: Person, school_class: SchoolClass, student: Person) -> Removal:
    """Remove a student with all works, wherever they were made. ``school_class``: whose teachers may restore them."""
    made = _removal(session, by, Removed.STUDENT, student.id, student.name, school_class)
    _mark_students(session, made, [student.id])
    return made


def _mark_students(session: Session, made: Removal, numbers: Sequence[int]) -> None:
    _mark(session, made, Work, Work.student_id.in_(numbers))
    _mark(session, made, Person, Person.id.in_(numbers))


def remove_assignment(session: Session, by: Person, assignment: Assignment) -> Removal:
    """Take a task away from its class, with all works on it."""
    made = _removal(session, by, Removed.ASSIGNMENT, assignment.id, assignment.sheet.title, assignment.school_class)
    _mark(session, made, Work, Work.assignment_id == assignment.id)
    _mark(session, made, Assignment, Assignment.id == assignment.id)
    return made


def remove_task(session: Session, by: Person, sheet: TaskSheet) -> Removal:
    """Remove the versions of a task, and the levels made of it, that no class has."""
    made = _removal(session, by, Removed.TASK, sheet.id, sheet.title or _("A task without a title"))
    of_task = or_(TaskSheet.family == sheet.family, TaskSheet.series_of == sheet.family)
    in_use = exists().where(Assignment.sheet_id == TaskSheet.id, Assignment.removal == 0)
    _mark(session, made, TaskSheet, of_task & ~in_use)
    return made


def remove_demonstration(session: Session, by: Person, sheet: TaskSheet) -> Removal | None:
    """Do without what a teacher has made of the demonstration of a task; None where that is nothing."""
    if sheet.demonstration is None:
        return None
    made = _removal(session, by, Removed.DEMONSTRATION, sheet.id, sheet.title)
    made.kept = {"demonstration": sheet.demonstration}
    sheet.demonstration = None
    session.flush()
    return made


def remove_comment(session: Session, by: Person, comment: Comment) -> Removal:
    """Take a comment back."""
    school_class = comment.attempt.work.assignment.school_class
    name = comment.text if len(comment.text) <= 60 else f"{comment.text[:59]} …"
    made = _removal(session, by, Removed.COMMENT, comment.id, name, school_class)
    _mark(session, made, Comment, Comment.id == comment.id)
    return made


def _removal(
    session: Session, by: Person, kind: Removed, about: int, name: str, school_class: SchoolClass | None = None
) -> Removal:
    made = Removal(
        kind=kind,
        about=about,
        name=name[:240],
        actor_id=by.id,
        class_id=school_class.id if school_class else None,
        kept={},
    )
    session.add(made)
    session.flush()
    audit.record(session, by, Action.REMOVED, about, kind=kind.value)
    return made


def _mark(session: Session, made: Removal, kind: type[Removable], which: ColumnElement[bool]) -> None:
    """Let what is there now, and is meant, carry the number of a removal."""
    meant = update(kind).where(kind.removal == 0, which).values(removal=made.id)
    session.execute(meant.execution_options(synchronize_session=False))
    session.expire_all()


def listed(session: Session, person: Person) -> list[Removal]:
    """What somebody may have back: what they removed, or was removed in a class that they teach; the last first."""
    taught = select(SchoolClass.id).where(taught_by(person))
    wanted = (
        select(Removal)
        .where(
            or_(Removal.actor_id == person.id, Removal.class_id.in_(taught)),
            Removal.at > now() - KEPT,
            Removal.kind != Removed.OLD_DATA,
        )
        .order_by(Removal.id.desc())
        .execution_options(**WITH_REMOVED)
    )
    return list(session.scalars(wanted))


def in_bin(session: Session, person: Person, number: int) -> Removal:
    """One of ``listed``, locked. Raises Gone."""
    found = next((one for one in listed(session, person) if one.id == number), None)
    locked = turns.locked_by_key(session, Removal, number) if found else None
    if locked is None or locked.at <= now() - KEPT:
        raise Gone
    return locked


def restore(session: Session, by: Person, found: Removal) -> None:
    """Have something back as it was. Raises Refused where something else is in its place now."""
    match found.kind:
        case Removed.MEMBER:
            school_class = session.get(SchoolClass, found.class_id)
            student = session.get(Person, found.about)
            if school_class is None or student is None:
                raise Refused(_("The class or the student is removed too; restore that first."))
            if student not in school_class.students:
                school_class.students.append(student)
        case Removed.DEMONSTRATION:
            sheet = session.get(TaskSheet, found.about)
            if sheet is None:
                raise Refused(_("The task is removed too; restore that first."))
            if sheet.demonstration is not None:
                raise Refused(_("The demonstration was changed since; start it over first."))
            sheet.demonstration = found.kept["demonstration"]
        case _:
            _unmark(session, found)
    audit.record(session, by, Action.RESTORED, found.about, kind=found.kind.value)
    session.delete(found)
    session.flush()
    session.expire_all()


def _unmark(session: Session, found: Removal) -> None:
    try:
        with session.begin_nested():
            for kind in REMOVABLE:
                again = update(kind).where(kind.removal == found.id).values(removal=0)
                session.execute(again.execution_options(synchronize_session=False))
    except IntegrityError:
        raise Refused(
            _("There is another “%(name)s” in its place now; rename or remove that first.", name=found.name)
            if found.kind is Removed.CLASS
            else _("The class has “%(name)s” again; remove that first.", name=found.name)
        ) from None


def erase_soon(session: Session, by: Person, found: Removal) -> None:
    """Give something up for good before its time is over; ``erase_outdated`` does it."""
    found.at = AT_ONCE
    audit.record(session, by, Action.ERASED, found.about, kind=found.kind.value)


WORKS_AT_A_TIME = 40


def is_any_outdated(session: Session) -> bool:
    """Whether something was removed long enough ago to be erased."""
    return session.scalar(select(Removal.id).where(Removal.at <= now() - KEPT).limit(1)) is not None


def erase_outdated(session: Session) -> int:
    """Erase what was removed long enough ago, a few works at a time, each of them committed; how many removals."""
    outdated = list(session.scalars(select(Removal).where(Removal.at <= now() - KEPT).order_by(Removal.id)))
    for found in outdated:
        works = select(Work.id).where(Work.removal == found.id).limit(WORKS_AT_A_TIME)
        while numbers := list(session.scalars(works.execution_options(**WITH_REMOVED))):
            session.execute(delete(Work).where(Work.id.in_(numbers)))
            session.commit()
        for kind in REMOVABLE:
            if kind is not TaskSheet:
                gone = delete(kind).where(kind.removal == found.id)
                session.execute(gone.execution_options(synchronize_session=False))
        session.execute(delete(Removal).where(Removal.id == found.id))
        session.commit()
    _erase_sheets(session)
    return len(outdated)


def _erase_sheets(session: Session) -> None:
    """Erase tasks whose removal is over, once no removed assignment needs them any more."""
    used = select(Assignment.sheet_id)
    there = select(Removal.id)
    session.execute(
        delete(TaskSheet)
        .where(TaskSheet.removal != 0, TaskSheet.removal.not_in(there), TaskSheet.id.not_in(used))
        .execution_options(synchronize_session=False)
    )
    session.commit()


def what_hangs_on(session: Session, student: Person) -> list[tuple[SchoolClass, int, int]]:
    """The classes in which a student has works, with how many works and hand-ins, by name."""
    counted = (
        select(SchoolClass, func.count(Work.id.distinct()), func.count(HandIn.id))
        .join(Assignment, Assignment.class_id == SchoolClass.id)
        .join(Work, Work.assignment_id == Assignment.id)
        .outerjoin(HandIn, HandIn.work_id == Work.id)
        .where(Work.student_id == student.id)
        .group_by(SchoolClass.id)
        .order_by(SchoolClass.name)
        .options(joinedload(SchoolClass.teacher))
    )
    return [(row[0], row[1], row[2]) for row in session.execute(counted)]
