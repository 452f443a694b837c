"""Who teaches a class: the teacher whose it is, and colleagues."""

from __future__ import annotations

from sqlalchemy import ColumnElement, or_, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ..models import Colleague, Person, SchoolClass, in_name_order
from ..refused import Refused
from ..states import Action, Role
from . import audit


def taught_by(person: Person) -> ColumnElement[bool]:
    """What is true of the classes that somebody teaches, alone or with others."""
    together = select(Colleague.class_id).where(Colleague.person_id == person.id)
    return or_(SchoolClass.teacher_id == person.id, SchoolClass.id.in_(together))


def teaches(person: Person, school_class: SchoolClass) -> bool:
    """Whether somebody teaches a class, alone or with others."""
    return school_class.teacher_id == person.id or any(one.id == person.id for one in school_class.colleagues)


def at_work(session: Session) -> list[Person]:
    """Those who teach at present, by name."""
    wanted = select(Person).where(Person.role == Role.TEACHER, Person.left.is_(None))
    return list(session.scalars(wanted.order_by(*in_name_order())))


def set_colleagues(session: Session, by: Person, school_class: SchoolClass, numbers: list[int]) -> None:
    """Who teaches a class besides the teacher whose it is."""
    chosen = [person for person in at_work(session) if person.id in numbers and person.id != school_class.teacher_id]
    if {person.id for person in chosen} != {person.id for person in school_class.colleagues}:
        school_class.colleagues = chosen
        audit.record(session, by, Action.COLLEAGUES_CHANGED, school_class.id, people=[person.id for person in chosen])


def hand_over(session: Session, by: Person, school_class: SchoolClass, to: Person, stay: bool) -> None:
    """Give a class to another teacher; the one whose it was may stay as a colleague. Raises Refused."""
    before = school_class.teacher
    if to.left is not None or to.role is not Role.TEACHER:
        raise Refused(_("Choose somebody who teaches at present."))
    try:
        with session.begin_nested():
            school_class.teacher = to
            session.flush()
    except IntegrityError:
        raise Refused(_("%(name)s has a class of this name already; rename one of them first.", name=to.name)) from None
    keep = [person for person in school_class.colleagues if person.id != to.id]
    school_class.colleagues = [*keep, before] if stay and before.id != to.id else keep
    audit.record(session, by, Action.CLASS_HANDED_OVER, school_class.id, to=to.id)
