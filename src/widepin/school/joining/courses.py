"""Courses of platforms as classes, and links in them as tasks."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload

from ...documents.language import gettext as _
from ...joining.lti.launches import Launch, Member
from ..models import Assignment, Person, Platform, PlatformCourse, PlatformLink, SchoolClass, TaskSheet, now
from ..people.accounts import free_name
from ..people.roster import named
from ..people.teaching import teaches
from ..refused import Refused
from ..states import Role
from ..tasks.assigning import assign
from ..tasks.settings import proposed
from . import people
from .platforms import source_of

NEVER = "$"
"""What a value begins with that a platform was to replace, and has not."""


def course_of(session: Session, platform: Platform, launch: Launch, person: Person) -> PlatformCourse:
    """The course of a launch with its class; a teacher who comes there first makes it. Raises Refused.

    Whoever comes is in the class afterwards: a teacher teaches it, a student learns there.
    """
    if not launch.course:
        raise Refused(_("The platform did not say from which course you come. Open the link inside a course."))
    wanted = select(PlatformCourse).where(
        PlatformCourse.platform_id == platform.id, PlatformCourse.course == launch.course
    )
    found = session.scalar(wanted) or _make(session, platform, launch, person)
    if found.school_class is None:
        raise Refused(_("The class of this course was removed here. Its teacher can restore it, for a while."))
    found.members_address = launch.members_address or found.members_address
    if person.is_teacher and not teaches(person, found.school_class):
        found.school_class.colleagues.append(person)
    if not person.is_teacher and person not in found.school_class.students:
        found.school_class.students.append(person)
    session.flush()
    return found


def _make(session: Session, platform: Platform, launch: Launch, person: Person) -> PlatformCourse:
    if not person.is_teacher:
        raise Refused(_("This course is new here. Your teacher has to open it once before you."))
    title = named(launch.course_title[:100] or platform.name, _("the class"))
    taken = {name for (name,) in session.execute(select(SchoolClass.name).where(SchoolClass.teacher_id == person.id))}
    try:
        with session.begin_nested():
            made = SchoolClass(name=free_name(title, taken), teacher=person)
            course = PlatformCourse(platform_id=platform.id, course=launch.course, title=title, school_class=made)
            session.add(course)
            session.flush()
    except IntegrityError:  # two windows, or two teachers, at the same moment
        wanted = select(PlatformCourse).where(
            PlatformCourse.platform_id == platform.id, PlatformCourse.course == launch.course
        )
        return session.scalars(wanted).one()
    return course


def assignment_of(session: Session, course: PlatformCourse, launch: Launch) -> Assignment | None:
    """The task that a link leads to; given to the class where it is opened first. None for a link without a task.

    Its due date is kept in step with the platform's. Raises Refused.
    """
    due = due_of(launch)
    link = session.scalar(
        select(PlatformLink).where(PlatformLink.course_id == course.id, PlatformLink.link == launch.link)
    )
    if link is None or link.assignment is None:
        made = _assigned(session, course, launch, due)
        if made is None:
            return None
        link = link or PlatformLink(course_id=course.id, link=launch.link)
        link.assignment, link.due = made, due
        try:
            with session.begin_nested():
                session.add(link)
                session.flush()
        except IntegrityError:  # somebody else opened it at the same moment
            link = session.scalars(
                select(PlatformLink).where(PlatformLink.course_id == course.id, PlatformLink.link == launch.link)
            ).one()
    elif due != link.due:
        link.due, link.assignment.due = due, due
    line_item = launch.line_item if launch.may_send_scores else ""
    if line_item and line_item != link.line_item:
        link.line_item, link.changed = line_item, now()
    session.flush()
    return link.assignment


def due_of(launch: Launch) -> datetime | None:
    """The due date that is set in the platform, UTC; None for none, or for what is no time.

    >>> from widepin.school.joining.courses import _time
    >>> _time("2026-12-01T10:00:00+01:00"), _time("$ResourceLink.submission.endDateTime")
    (datetime.datetime(2026, 12, 1, 9, 0), None)
    """
    return _time(launch.custom.get("due", ""))


def _time(text: str) -> datetime | None:
    if not text or text.startswith(NEVER):
        return None
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        return None
    return found.astimezone(UTC).replace(tzinfo=None) if found.tzinfo else found


def _assigned(session: Session, course: PlatformCourse, launch: Launch, due: datetime | None) -> Assignment | None:
    """The class's task of a sheet that a link names; None where it names none, or one that is nobody's who teaches it.

    What a link says can be changed by whoever may edit the course, so that a sheet has to be of a teacher of the class.
    """
    number = launch.custom.get("sheet", "")
    sheet = session.get(TaskSheet, int(number)) if number.isdecimal() and len(number) < 10 else None
    if sheet is None or not teaches(sheet.owner, course.school_class):
        return None
    there = (
        select(Assignment)
        .join(Assignment.sheet)
        .where(Assignment.class_id == course.class_id, TaskSheet.family == sheet.family)
        .where(Assignment.practice_key.is_(None))
    )
    known = session.scalar(there.order_by(Assignment.id))  # another version of it is the same task
    if known is not None:
        return known
    # It was checked when it was chosen.
    return assign(session, sheet, course.school_class, proposed(due=due), lambda _task: True)


def waiting_for_lists(session: Session) -> list[PlatformCourse]:
    """The courses whose lists can be taken over, of classes that are not put away."""
    wanted = (
        select(PlatformCourse)
        .join(PlatformCourse.school_class)
        .where(PlatformCourse.members_address != "", SchoolClass.archived.is_(None))
        .options(selectinload(PlatformCourse.platform))
    )
    return list(session.scalars(wanted.order_by(PlatformCourse.id)))


def of_class(session: Session, school_class: SchoolClass) -> list[PlatformCourse]:
    """The courses of platforms that a class is."""
    wanted = select(PlatformCourse).where(PlatformCourse.class_id == school_class.id)
    return list(session.scalars(wanted.options(selectinload(PlatformCourse.platform)).order_by(PlatformCourse.id)))


def take_over(session: Session, course: PlatformCourse, members: Sequence[Member]) -> tuple[int, int]:
    """Make the class what a platform's list says; how many came, and how many went.

    Only those go who came from this platform; their works stay with the class.
    """
    source, school_class = source_of(course.platform), course.school_class
    came = went = 0
    for role in (Role.STUDENT, Role.TEACHER):
        listed = {one.subject: one for one in members if people.role_of(one) is role}
        there = people.known(session, source, listed, role)
        for subject, member in listed.items():
            try:
                identity = there.get(subject) or people.account(session, source, member, role)
            except Refused:  # the account lies in the bin
                continue
            people.keep_name(identity.person, member)
            if role is Role.STUDENT and identity.person not in school_class.students:
                school_class.students.append(identity.person)
                came += 1
            if role is Role.TEACHER and not teaches(identity.person, school_class):
                school_class.colleagues.append(identity.person)
    from_here = people.of_source(session, source, [one.id for one in school_class.students])
    listed_now = {one.subject for one in members if one.learns}
    for identity in from_here:
        if identity.subject not in listed_now:
            school_class.students.remove(identity.person)
            went += 1
    course.taken, course.trouble = now(), ""
    session.flush()
    return came, went
