"""Classes and who is in them: codes to sign in by, and adding, moving, removing and copying."""

from __future__ import annotations

import hashlib
import hmac
import re
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager

from slugify import slugify
from slugify.special import GERMAN
from sqlalchemy import exists, false, func, or_, select, union
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from ...documents import clock
from ...documents.formats.roster import LONGEST_NAME, Name
from ...documents.language import gettext as _
from ..database import WITH_REMOVED
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
    in_name_order,
    now,
)
from ..refused import Refused
from ..states import Role

PERSONAL_CODE = 8
"""Letters in a personal code."""


LATIN = [*GERMAN, ("Å", "Aa"), ("å", "aa"), ("Ø", "Oe"), ("ø", "oe"), ("Đ", "Dj"), ("đ", "dj")]
"""Letters that their countries write as two where they have to; others become the plain letter that is nearest."""


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


def rename_student(student: Person, name: Name) -> None:
    """Give a student another name. Raises Refused."""
    student.name = named(str(name), _("the student"))
    student.family_name = " ".join(name.family.split())


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
    """The student of a class with this personal code, or None."""
    found = None
    for student in school_class.students:
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


def set_time_zone(school_class: SchoolClass, name: str) -> None:
    """Give a class a time zone of its own; nothing: the school's. Raises Refused for one that there is not."""
    wanted = clock.like(name) if name.strip() else None
    if name.strip() and (wanted is None or wanted.casefold() != name.strip().casefold().replace(" ", "_")):
        advice = (
            _("Did you mean %(zone)s?", zone=wanted) if wanted else _("Write continent and city, as in Europe/Lisbon.")
        )
        raise Refused(_("There is no time zone %(name)s. %(advice)s", name=name.strip()[:60], advice=advice))
    school_class.time_zone = None if wanted == clock.school_zone() else wanted


@contextmanager
def _own_name(session: Session, name: str) -> Iterator[None]:
    """A change of the name of a class; the database itself says whether another of the teacher's has it already."""
    try:
        with session.begin_nested():
            yield
    except IntegrityError:
        raise NameTaken(name) from None


def add_students(session: Session, school_class: SchoolClass, names: Iterable[Name]) -> list[Person]:
    """New students of a class, who sign in by their codes."""
    names = list(names)
    made = []
    for name, login in zip(names, free_logins(session, [str(name) for name in names]), strict=True):
        student = Person(login=login, name=str(name), role=Role.STUDENT, password_hash="")
        student.family_name = name.family
        made.append(student)
    session.add_all(made)
    session.flush()
    school_class.students.extend(made)
    session.flush()
    return made


def free_logins(session: Session, names: Sequence[str]) -> list[str]:
    """A login for each name that nobody has: nell.farrow, nell.farrow2."""
    bases = [login_base(name) for name in names]
    begin_alike = (Person.login.startswith(base, autoescape=True) for base in set(bases))
    there = select(Person.login).where(or_(false(), *begin_alike)).execution_options(**WITH_REMOVED)
    taken = set(session.scalars(there)) if names else set()
    last: dict[str, int] = {}
    found = []
    for base in bases:
        number = last.get(base, 0) + 1
        while (login := base if number == 1 else f"{base}{number}") in taken:
            number += 1
        last[base] = number
        taken.add(login)
        found.append(login)
    return found


def login_base(name: str) -> str:
    """What the logins of people of this name begin with: the name in Latin letters, as its country writes them.

    >>> login_base("Noël O'Hara"), login_base("Jürgen Groß"), login_base("Ελένη Παππά"), login_base("…")
    ('noel.o.hara', 'juergen.gross', 'elene.pappa', 'student')
    """
    return slugify(name, separator=".", replacements=LATIN, max_length=50).strip(".") or "student"


def move_student(session: Session, student: Person, source: SchoolClass, target: SchoolClass) -> None:
    """Put a student into another class. Works stay with the tasks of the class that they were done in."""
    source.students.remove(student)
    if student not in target.students:
        target.students.append(student)
    session.flush()


def done_in(session: Session, school_class: SchoolClass) -> tuple[int, int]:
    """How many works and how many hand-ins there are in a class."""
    works = (
        select(func.count(Work.id.distinct()), func.count(HandIn.id))
        .join(Assignment, Work.assignment_id == Assignment.id)
        .outerjoin(HandIn, HandIn.work_id == Work.id)
        .where(Assignment.class_id == school_class.id)
    )
    count, attempts = session.execute(works).one()
    return count, attempts


def former_students(session: Session, school_class: SchoolClass) -> list[Person]:
    """Who is in a class no more, but has works, entered results or other marks in it; by name."""
    tasks = select(Assignment.id).where(Assignment.class_id == school_class.id)
    columns = select(MarkColumn.id).where(MarkColumn.class_id == school_class.id)
    there = exists().where(Membership.class_id == school_class.id, Membership.person_id == Person.id)
    left_behind = union(
        select(Work.student_id).where(Work.assignment_id.in_(tasks)),
        select(EnteredResult.student_id).where(EnteredResult.assignment_id.in_(tasks)),
        select(OtherMark.student_id).where(OtherMark.column_id.in_(columns)),
    ).subquery()
    wanted = select(Person).join(left_behind, left_behind.c.student_id == Person.id).where(~there)
    return list(session.scalars(wanted.order_by(*in_name_order())))
