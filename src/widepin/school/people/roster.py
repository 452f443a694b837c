"""Classes and who is in them: codes to sign in by, and adding, moving, removing and copying."""

from __future__ import annotations

import hashlib
import hmac
import re
import unicodedata
from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ...documents.roster import LONGEST_NAME
from ..models import (
    LETTERS,
    Assignment,
    EnteredResult,
    HandIn,
    MarkColumn,
    Membership,
    OtherMark,
    Person,
    SchoolClass,
    Work,
    now,
)
from ..refused import Refused
from ..states import Role

PERSONAL_CODE = 8
"""Letters in a personal code."""


class NameTaken(Refused):
    """The teacher has a class of this name."""

    def __init__(self, name: str):
        super().__init__(_("You have a class %(name)s already; take another name.", name=name))


def named(text: str, whose: str) -> str:
    """A name as it is kept, its spaces made single. Raises Refused for none, or one that is too long."""
    name = " ".join(text.split())
    if not name:
        raise Refused(_("Write a name for %(whose)s.", whose=whose))
    if len(name) > LONGEST_NAME:
        raise Refused(_("A name has %(most)s characters at most.", most=LONGEST_NAME))
    return name


def rename_student(student: Person, text: str) -> None:
    """Give a student another name. Raises Refused."""
    student.name = named(text, _("the student"))


def archive(school_class: SchoolClass) -> None:
    """Put a class away, or take it out again. Students do not see its tasks meanwhile; nothing is lost."""
    school_class.archived = None if school_class.archived else now()


def personal_code(secret: str, person: Person) -> str:
    """The code by which a student signs in.

    It follows from the server's secret, so it can be printed again at any time and yet is not in the database.
    """
    what = f"personal code {person.id} {person.code_number}".encode()
    number = int.from_bytes(hmac.digest(secret.encode(), what, hashlib.sha256))
    letters = ""
    for _place in range(PERSONAL_CODE):
        number, rest = divmod(number, len(LETTERS))
        letters += LETTERS[rest]
    return f"{letters[:4]}-{letters[4:]}"


def typed(code: str) -> str:
    """A code as it was typed, without what people put between the letters."""
    return re.sub("[^0-9A-Z]", "", code.upper())


def student_with_code(school_class: SchoolClass, secret: str, personal: str) -> Person | None:
    """The student of a class with this personal code, or None; a class that is put away lets nobody in."""
    found = None
    for student in school_class.students if school_class.archived is None else ():
        if hmac.compare_digest(typed(personal_code(secret, student)), typed(personal)):
            found = student
    return found


def new_class(session: Session, teacher: Person, name: str) -> SchoolClass:
    """A class without students. Raises Refused, NameTaken among it."""
    name = named(name, _("the class"))
    made = SchoolClass(name=name, teacher=teacher)
    with _own_name(session, name):
        session.add(made)
    return made


def rename_class(session: Session, school_class: SchoolClass, name: str) -> None:
    """Give a class another name. Raises Refused, NameTaken among it."""
    name = named(name, _("the class"))
    with _own_name(session, name):
        school_class.name = name


@contextmanager
def _own_name(session: Session, name: str) -> Iterator[None]:
    """A change of the name of a class; the database itself says whether another of the teacher's has it already."""
    try:
        with session.begin_nested():
            yield
    except IntegrityError:
        raise NameTaken(name) from None


def add_students(session: Session, school_class: SchoolClass, names: Iterable[str]) -> list[Person]:
    """New students of a class, who sign in by their codes."""
    made = []
    for name in names:
        student = Person(login=free_login(session, name), name=name, role=Role.STUDENT, password_hash="")
        session.add(student)
        session.flush()
        made.append(student)
    school_class.students.extend(made)
    session.flush()
    return made


def free_login(session: Session, name: str) -> str:
    """A login made from a name that nobody has: nell.farrow, nell.farrow2."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    base = ".".join(re.findall("[a-z0-9]+", plain))[:50] or "student"
    taken = set(session.scalars(select(Person.login).where(Person.login.startswith(base, autoescape=True))))
    return next(login for login in (base, *(f"{base}{n}" for n in range(2, len(taken) + 3))) if login not in taken)


def remove_student(session: Session, school_class: SchoolClass, student: Person) -> None:
    """Take a student out of a class, with the works done for it; one who is in no other class is deleted wholly."""
    if len(student.classes) > 1:
        own = select(Assignment.id).where(Assignment.class_id == school_class.id)
        columns = select(MarkColumn.id).where(MarkColumn.class_id == school_class.id)
        for kept in (
            select(Work).where(Work.student_id == student.id, Work.assignment_id.in_(own)),
            select(EnteredResult).where(EnteredResult.student_id == student.id, EnteredResult.assignment_id.in_(own)),
            select(OtherMark).where(OtherMark.student_id == student.id, OtherMark.column_id.in_(columns)),
        ):
            for one in session.scalars(kept):
                session.delete(one)
        school_class.students.remove(student)
    else:
        session.delete(student)
    session.flush()


def move_student(session: Session, student: Person, source: SchoolClass, target: SchoolClass) -> None:
    """Put a student into another class. Works stay with the tasks of the class that they were done in."""
    source.students.remove(student)
    if student not in target.students:
        target.students.append(student)
    session.flush()


def done_by(session: Session, school_class: SchoolClass, student: Person | None = None) -> tuple[int, int]:
    """How many works and how many hand-ins there are in a class, of one student or of all."""
    works = (
        select(func.count(Work.id.distinct()), func.count(HandIn.id))
        .join(Assignment, Work.assignment_id == Assignment.id)
        .outerjoin(HandIn, HandIn.work_id == Work.id)
        .where(Assignment.class_id == school_class.id)
    )
    count, attempts = session.execute(works.where(Work.student_id == student.id) if student else works).one()
    return count, attempts


def remove_class(session: Session, school_class: SchoolClass) -> None:
    """Delete a class with all works done in it, and its students who are in no other class."""
    others = select(Membership.person_id).where(Membership.class_id != school_class.id)
    alone = [student for student in school_class.students if student.id not in set(session.scalars(others))]
    session.delete(school_class)
    session.flush()
    for student in alone:
        session.delete(student)
    session.flush()
