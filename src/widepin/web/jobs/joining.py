"""What is asked of and told to learning platforms while nobody waits: lists of courses, and scores."""

from __future__ import annotations

from datetime import datetime, timedelta
from itertools import groupby

from flask import current_app

from ...documents.language import gettext as _
from ...joining import oneroster, xapi
from ...joining.http_client import NotReached
from ...joining.lti import services, words
from ...school.joining import activity, courses, keys, office_lists, platforms, scores
from ...school.models import Platform, PlatformCourse, now
from ..database import sessions
from .background import begin

SOON = timedelta(minutes=10)
"""How old the list of a course may be when its teacher comes."""

AT_ONCE = timedelta(0)
"""How old it may be where somebody asks for it now."""

NIGHTLY = timedelta(hours=20)
"""How old it may be otherwise."""


def take_over_soon(course_id: int) -> None:
    """Take the list of a course over, in the background, if that was not done just now."""
    begin(f"list {course_id}", take_over, course_id, SOON)


def take_over_lists() -> None:
    """Take over every list that is old."""
    with sessions()() as session:
        numbers = [one.id for one in courses.waiting_for_lists(session)]
    for number in numbers:
        take_over(number, NIGHTLY)


def take_over(course_id: int, age: timedelta) -> str:
    """Make a class what the list of its course says, if what is known is as old as an age; why that failed, which is
    kept too, or "".
    """
    made = sessions()
    with made() as session:
        course = session.get(PlatformCourse, course_id)
        if course is None or not course.members_address or course.school_class is None:
            return ""
        if course.taken is not None and timedelta(0) <= now() - course.taken < age:
            return ""
        address, by = course.members_address, platforms.credentials_of(course.platform, keys.current(session))
        session.commit()
    trouble, members = "", []
    try:
        members = list(services.members(address, services.access_token(by, [words.READ_MEMBERS])))
    except NotReached as wrong:
        trouble = str(wrong)
    with made() as session:
        course = session.get(PlatformCourse, course_id, with_for_update=True)
        if course is None or course.school_class is None:
            return ""
        if trouble or not members:
            course.trouble = (trouble or _("the list is empty"))[:300]
        else:
            courses.take_over(session, course, members)
        trouble = course.trouble
        session.commit()
    return trouble


def take_over_office(age: timedelta = AT_ONCE) -> str:
    """Take over the lists of the office from its address, if the last time is as long ago; what came of it."""
    with sessions()() as session:
        there = office_lists.source(session)
        session.commit()
    if there is None:
        return _("No address is set.")
    if "at" in there and timedelta(0) <= now() - datetime.fromisoformat(there["at"]) < age:
        return str(there["said"])
    try:
        asked = (there[name] for name in ("address", "token_address", "client_id", "secret"))
        lists = oneroster.read_address(*asked)
        trouble = "" if lists.people else _("the lists are empty")
    except NotReached as wrong:
        trouble = str(wrong)
    with sessions()() as session:
        if trouble:
            said = _("The lists could not be taken over: %(why)s.", why=trouble)
        else:
            done = office_lists.take_over(session, None, lists, {})
            said = _(
                "The lists were taken over: %(new)s new, %(gone)s no longer listed, %(doubtful)s doubtful.",
                new=len(done.new),
                gone=len(done.gone),
                doubtful=len(done.doubtful),
            )
        office_lists.note(session, said, not trouble)
        session.commit()
    return said


def take_over_nightly() -> None:
    """Take over every list that is old: those of courses, and those of the office."""
    take_over_lists()
    take_over_office(NIGHTLY)


def send_scores() -> None:
    """Send whatever scores are to be sent by now, each kept as sent or failed before the next."""
    made = sessions()
    with made() as session:
        scores.compare(session)
        session.commit()
        waiting = scores.due(session)
        key = keys.current(session) if waiting else None
        platform_of = {
            one.id: platforms.credentials_of(one, key)
            for one in (session.get(Platform, number) for number in {one.platform_id for one in waiting})
            if one is not None and key is not None
        }
        session.commit()
    waiting.sort(key=lambda one: one.platform_id)
    for platform_id, group in groupby(waiting, key=lambda one: one.platform_id):
        if platform_id in platform_of:
            _send_to(platform_of[platform_id], list(group))


LEFT_ALONE = 3
"""Failed tries in a row after which a platform that is away is left alone for this time."""


def _send_to(by: services.Credentials, waiting: list[scores.Delivery]) -> None:
    trouble: NotReached | None = None
    token, in_a_row = "", 0
    for delivery in waiting:
        if in_a_row < LEFT_ALONE:
            try:
                token = token or services.access_token(by, [words.SCORES])
                services.send_score(delivery.line_item, token, delivery.score)
                trouble, in_a_row = None, 0
            except NotReached as wrong:
                trouble = wrong
                in_a_row = in_a_row + 1 if wrong.is_passing else 0
        with sessions()() as session:
            if trouble is None:
                scores.sent(session, delivery)
            else:
                scores.failed(session, delivery, str(trouble), trouble.is_passing)
            session.commit()


def tell_activity() -> None:
    """Tell the store that the school has named what it has not been told yet."""
    home = current_app.config["ADDRESS"] or "http://localhost/"
    while True:
        with sessions()() as session:
            there, waiting = activity.store(session), activity.to_tell(session)
            session.commit()
        if there is None or not waiting:
            return
        trouble = ""
        try:
            xapi.send(there["address"], there["key"], there["secret"], [xapi.statement(one, home) for one in waiting])
        except NotReached as wrong:
            trouble = str(wrong)
        with sessions()() as session:
            if trouble:
                activity.failed(session, trouble)
            else:
                activity.told(session, waiting[-1].number)
            session.commit()
        if trouble:
            return
