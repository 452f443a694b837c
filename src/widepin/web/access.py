"""Who may come in. One loader per resource answers both "does it exist" and "may this person"; no view repeats it.

Whatever a person may not see does not exist for them: the answer is 404 either way.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from time import time
from typing import Any, TypeVar

from flask import abort, g, request, url_for
from flask import session as browser_session
from flask_login import LoginManager, UserMixin, current_user, login_required, login_user, logout_user

from ..documents import clock
from ..documents.language import gettext, marked
from ..school.joining import provider
from ..school.models import Assignment, ClassTool, Comment, HandIn, MarkColumn, Person, SchoolClass, TaskSheet, Work
from ..school.people import browser_sessions
from ..school.people.roster import former_students
from ..school.people.teaching import teaches
from ..school.results.progress import assignment_of, closed_now, why_gone
from ..school.states import Role
from ..school.tasks.library import LIBRARY, LibraryTask
from ..school.works.autosave import work_begun
from .database import close, session, sessions

login_manager = LoginManager()
login_manager.login_view = "signin.form"
login_manager.login_message = marked("Sign in first.")
login_manager.localize_callback = gettext

View = TypeVar("View", bound=Callable[..., Any])


class SignedIn(UserMixin):
    """The person of this request, as Flask-Login wants it."""

    def __init__(self, person: Person):
        self.person = person
        self.id = f"{person.id}.{person.stamp}"

    @property
    def is_teacher(self) -> bool:
        """Whether the person teaches."""
        return self.person.is_teacher


LONGEST_SESSION, LONGEST_IDLE = 12 * 3600, 3 * 3600
"""Seconds after which somebody has to sign in again: in all, and since the last page was asked for."""

SEEN_AGAIN = 60
"""Seconds after which it is written into the cookie anew that somebody is still there."""


def begin_session(person: Person) -> None:
    """Sign a person in, with a session of which nothing was there before."""
    browser_session.clear()
    browser_session["began"] = browser_session["seen"] = int(time())
    agent = request.user_agent.string
    browser_session["key"] = browser_sessions.begin(session(), person, request.remote_addr or "", agent)
    login_user(SignedIn(person))


def end_session() -> str | None:
    """Forget whoever is signed in; where to sign out besides, for who came by the school's account."""
    key = browser_session.get("key", "")
    there = provider.sign_out_address(session(), key, url_for("signin.form", _external=True))
    browser_sessions.end(session(), key)
    logout_user()
    browser_session.clear()
    return there


@login_manager.user_loader
def load_user(id_: str) -> SignedIn | None:
    """The person whose id and stamp are in the session cookie, unless that has ended or run out."""
    number, _, stamp = id_.partition(".")
    at, began, seen = int(time()), browser_session.get("began", 0), browser_session.get("seen", 0)
    if not number.isdecimal() or at - began > LONGEST_SESSION or at - seen > LONGEST_IDLE:
        return None
    found = browser_sessions.known(session(), browser_session.get("key", ""))
    person = found.person if found else None
    if found is None or person is None or person.id != int(number) or str(person.stamp) != stamp or person.left:
        return None
    if at - seen > SEEN_AGAIN:
        browser_session["seen"] = at
        g.still_here = found.id
    return SignedIn(person)


def note_who_is_here(error: BaseException | None) -> None:
    """Write down that somebody is still there, once the request has given its connection back.

    With two at a time, as many requests as there are connections would wait for each other.
    """
    number = g.pop("still_here", None)
    if number is not None:
        close(error)
        browser_sessions.still_here(sessions(), number)


def me() -> Person:
    """The person of this request."""
    return current_user.person  # type: ignore[no-any-return]


def _only(may: Callable[[Person], bool]) -> Callable[[View], View]:
    def decorate(view: View) -> View:
        @wraps(view)
        @login_required
        def guarded(*args: Any, **kwargs: Any) -> Any:
            if not may(me()):
                abort(404)
            return view(*args, **kwargs)

        return guarded  # type: ignore[return-value]

    return decorate


teachers_only = _only(lambda person: person.role is Role.TEACHER)
students_only = _only(lambda person: person.role is Role.STUDENT)
administrators_only = _only(lambda person: person.administrator)


def on_clock_of(*classes: SchoolClass) -> None:
    """Say and read times in this request on the clock of these classes, where they have one and the same."""
    zones = {one.time_zone for one in classes}
    clock.use(zones.pop() if len(zones) == 1 else None)


def own_class(class_id: int) -> SchoolClass:
    """A class that this teacher teaches, alone or with others."""
    found = session().get(SchoolClass, class_id)
    if found is None or not teaches(me(), found):
        abort(404)
    on_clock_of(found)
    return found


def led_class(class_id: int) -> SchoolClass:
    """A class that is this teacher's own, and not only taught together with its teacher."""
    found = own_class(class_id)
    if found.teacher_id != me().id:
        abort(404)
    return found


def any_class(class_id: int) -> SchoolClass:
    """A class of the school, for an administrator."""
    found = session().get(SchoolClass, class_id)
    if found is None or not me().administrator:
        abort(404)
    return found


def any_teacher(person_id: int) -> Person:
    """A teacher of the school, for an administrator."""
    found = session().get(Person, person_id)
    if found is None or found.role is not Role.TEACHER or not me().administrator:
        abort(404)
    return found


def shared_sheet(sheet_id: int) -> TaskSheet:
    """A task that its owner shares with the whole school."""
    found = session().get(TaskSheet, sheet_id)
    if found is None or not found.shared:
        abort(404)
    return found


def own_student(school_class: SchoolClass, person_id: int) -> Person:
    """A student of a class that this teacher teaches, or one who was in it and has works there."""
    found = session().get(Person, person_id)
    if found is None or found not in school_class.students and found not in former_students(session(), school_class):
        abort(404)
    return found


def present_student(school_class: SchoolClass, person_id: int) -> Person:
    """A student who is in a class that this teacher teaches."""
    found = session().get(Person, person_id)
    if found is None or found not in school_class.students:
        abort(404)
    return found


def own_comment(comment_id: int) -> Comment:
    """A comment of this person's own, on an attempt that may still be seen."""
    found = session().get(Comment, comment_id)
    if found is None or found.author_id != me().id or found.attempt is None:
        abort(404)
    visible_hand_in(found.hand_in_id)
    return found


def taught_assignment(assignment_id: int) -> Assignment:
    """An assignment of a class that this teacher teaches."""
    found = session().get(Assignment, assignment_id)
    if found is None or not teaches(me(), found.school_class):
        abort(404)
    on_clock_of(found.school_class)
    return found


def known_task(key: str) -> LibraryTask:
    """A task of the task library; 404 for a key that it does not have."""
    if key not in LIBRARY:
        abort(404)
    return LIBRARY[key]


def own_sheet(sheet_id: int) -> TaskSheet:
    """A task sheet of this teacher's."""
    found = session().get(TaskSheet, sheet_id)
    if found is None or found.owner_id != me().id:
        abort(404)
    return found


def taught_work(work_id: int) -> Work:
    """A work of a student whom this teacher teaches."""
    found = session().get(Work, work_id)
    if found is None or not teaches(me(), found.assignment.school_class):
        abort(404)
    on_clock_of(found.assignment.school_class)
    return found


def assignment_to_do(assignment_id: int) -> Assignment:
    """An assignment that this student has to do and that is open; 403 says why it is not."""
    assignment = assignment_of(session(), assignment_id, me().id)
    if assignment is None:
        if gone := why_gone(session(), assignment_id, me().id):
            abort(403, gone)
        abort(404)
    on_clock_of(assignment.school_class)
    closed = closed_now(session(), assignment, me())
    if closed:
        abort(403, closed)
    return assignment


def own_work(assignment: Assignment) -> Work | None:
    """This student's work for an assignment, if begun."""
    return work_begun(session(), assignment, me())


def taught_column(column_id: int) -> MarkColumn:
    """A column of other marks of a class that this teacher teaches."""
    found = session().get(MarkColumn, column_id)
    if found is None or not teaches(me(), found.school_class):
        abort(404)
    return found


def taught_class_tool(class_tool_id: int) -> ClassTool:
    """A class tool of a class that this teacher teaches."""
    found = session().get(ClassTool, class_tool_id)
    if found is None or not teaches(me(), found.school_class):
        abort(404)
    return found


def visible_hand_in(hand_in_id: int) -> HandIn:
    """A hand-in of this student's, or of a student whom this teacher teaches."""
    found = session().get(HandIn, hand_in_id)
    if found is None or found.work is None:  # nobody, or removed
        abort(404)
    if me().id != found.work.student_id and not teaches(me(), found.work.assignment.school_class):
        abort(404)
    on_clock_of(found.work.assignment.school_class)
    return found


def own_hand_in(hand_in_id: int) -> HandIn:
    """A hand-in of this student's, who is still in the class."""
    attempt = visible_hand_in(hand_in_id)
    if attempt.work.student_id != me().id:
        abort(404)
    assignment_to_do(attempt.work.assignment_id)
    return attempt
