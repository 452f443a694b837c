"""A teacher's first page: what is new since the last visit, what is due, who needs help; in few queries."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, selectinload

from ...documents.language import gettext as _
from ...documents.language import marked, ngettext
from ...documents.wording.words import listed
from ...judge.costs.counts import is_move
from ...judge.verdict import Outcome
from ..models import (
    Assignment,
    Comment,
    HandIn,
    Person,
    SchoolClass,
    Work,
    now,
)
from ..people.teaching import taught_by
from ..results.marks import works_on
from ..results.progress import Standing, standing, who_has
from ..states import Presence, Role
from ..works.autosave import AWAY
from .first_week import Path, path_of
from .lesson import help_needed
from .overview import presence_of

VISIT = timedelta(minutes=30)
"""Who comes back within this time is still on the same visit."""

SHOWN = 4
"""Tasks of a class that are shown: those due next, then those due last."""

ALIKE = 3
"""Works with the same mistake that are worth speaking of in class."""


@dataclass(frozen=True)
class TaskToday:
    """A task of a class: how many hold, are to be mended and are open, and how many came in since the last visit."""

    assignment: Assignment
    standings: list[Standing]
    new: int

    @property
    def hold(self) -> int:
        """Works that hold in every position."""
        return sum(one.best is not None and one.best.outcome is Outcome.SOUND for one in self.standings)

    @property
    def handed_in(self) -> int:
        """Works that are handed in."""
        return sum(one.best is not None for one in self.standings)

    @property
    def to_mend(self) -> int:
        """Works that are handed in and do not hold."""
        return self.handed_in - self.hold

    @property
    def open(self) -> int:
        """Students who have handed in nothing."""
        return len(self.standings) - self.handed_in


@dataclass(frozen=True)
class ClassToday:
    """A class: how many sit at a board now, and its tasks, those due next first."""

    school_class: SchoolClass
    at_work: int
    tasks: list[TaskToday]


@dataclass(frozen=True)
class Hint:
    """Something to look at: a headline, what it is about, where it leads and what that is called.

    ``target``: ("assignment" or "hand-in" or "work", its number).
    """

    headline: str
    words: str
    target: tuple[str, int]
    action: str


@dataclass(frozen=True)
class Today:
    """All of it. ``since``: when the visit before began (UTC), None for the first one."""

    classes: list[ClassToday]
    hints: list[Hint] = field(default_factory=list)
    since: datetime | None = None
    path: Path | None = None  # of the first week


def visit(person: Person, at: datetime) -> datetime | None:
    """Note that somebody visits the first page at a time; when the visit before this one began."""
    if person.visited is None or at - person.visited > VISIT:
        person.visited_before, person.visited = person.visited, at
    return person.visited_before


def today_of(session: Session, teacher: Person, at: datetime | None = None) -> Today:
    """What a teacher finds at a time (UTC)."""
    at = at or now()
    since = visit(teacher, at)
    classes = list(
        session.scalars(
            select(SchoolClass)
            .where(taught_by(teacher), SchoolClass.archived.is_(None))
            .options(
                selectinload(SchoolClass.students),
                selectinload(SchoolClass.assignments).options(
                    joinedload(Assignment.sheet), selectinload(Assignment.chosen)
                ),
            )
            .order_by(SchoolClass.name)
        )
    )
    shown = {
        school_class.id: sorted(school_class.assignments, key=lambda one: nearness(one, at))[:SHOWN]
        for school_class in classes
    }
    works = works_of(session, [one.id for tasks in shown.values() for one in tasks])
    present = at_work(session, classes, at)
    rows = [
        ClassToday(one, present[one.id], [task_today(task, works, since) for task in shown[one.id]]) for one in classes
    ]
    hints = [
        *answers_to_comments(session, classes),
        *(hint for row in rows for task in row.tasks for hint in hints_of(task, works, at)),
    ]
    return Today(rows, hints, since, path_of(session, teacher, classes))


def works_of(session: Session, assignments: Sequence[int]) -> dict[int, dict[int, Work]]:
    """The works on these assignments without their documents: assignment -> student -> work."""
    found: dict[int, dict[int, Work]] = defaultdict(dict)
    for work in works_on(session, assignments):
        found[work.assignment_id][work.student_id] = work
    return found


def at_work(session: Session, classes: Sequence[SchoolClass], at: datetime) -> Counter[int]:
    """How many students of each class sit at one of its boards, by the number of the class."""
    class_of = {one.id: school_class.id for school_class in classes for one in school_class.assignments}
    open_boards = select(Work).where(Work.assignment_id.in_(class_of), Work.seen > at - AWAY)
    present = {
        (class_of[work.assignment_id], work.student_id)
        for work in session.scalars(open_boards)
        if presence_of(work, at, False)[0] in (Presence.WORKING, Presence.INACTIVE)
    }
    return Counter(school_class for school_class, _student in present)


def task_today(assignment: Assignment, works: dict[int, dict[int, Work]], since: datetime | None) -> TaskToday:
    """A task with how everybody stands."""
    own = works.get(assignment.id, {})
    standings = [standing(student, own.get(student.id)) for student in who_has(assignment)]
    new = sum(one.latest is not None and (since is None or one.latest.handed_in > since) for one in standings)
    return TaskToday(assignment, standings, new if since is not None else 0)


def nearness(assignment: Assignment, at: datetime) -> tuple[int, float]:
    """What is due next comes first, then what has no date, then what was due, the latest first."""
    if assignment.due is None:
        return 1, -assignment.id
    away = (assignment.due - at).total_seconds()
    return (0, away) if away >= 0 else (2, -away)


MISTAKES = {
    Outcome.EYEBALLED: marked("%(n)s works placed by eye"),
    Outcome.WRONG: marked("%(n)s works not correct"),
    Outcome.FRAGILE: marked("%(n)s works undefined in some position"),
    Outcome.SWITCHING: marked("%(n)s works take another intersection when dragged"),
}


def hints_of(task: TaskToday, works: dict[int, dict[int, Work]], at: datetime) -> list[Hint]:
    """What there is to say of a task: a mistake that many make, who needs help, a shorter way, what is due tomorrow."""
    assignment = task.assignment
    title, target = assignment.sheet.title, ("assignment", assignment.id)
    found = []
    for outcome, count in Counter(one.best.outcome for one in task.standings if one.best).most_common():
        if count >= ALIKE and outcome in MISTAKES:
            words = _("%(title)s: show it to the class, or comment on all of them.", title=title)
            found.append(Hint(_(MISTAKES[outcome], n=count), words, target, _("See the group")))
    stuck = [one for one in task.standings if help_needed(one.work, one.best, at)]
    if stuck:
        names = listed([one.student.name for one in stuck[:3]])
        first = works[assignment.id][stuck[0].student.id]
        headline = ngettext("%(names)s needs help", "%(names)s need help", len(stuck), names=names)
        words = _("%(title)s: inactive, or several attempts in vain.", title=title)
        found.append(Hint(headline, words, ("work", first.id), _("Look at the board")))
    known = sum(is_move(step["make"]) for step in assignment.sheet.document.get("model", []))
    shortest = min(
        (one.best for one in task.standings if one.best and one.best.outcome is Outcome.SOUND),
        key=lambda best: best.moves,
        default=None,
    )
    if shortest is not None and 0 < shortest.moves < known and task.new:
        name = next(one.student.name for one in task.standings if one.best is shortest)
        words = _(
            "%(name)s built %(title)s in %(moves)s moves; the sample solution takes %(known)s.",
            name=name,
            title=title,
            moves=shortest.moves,
            known=known,
        )
        found.append(Hint(_("A shorter way was found"), words, ("hand-in", shortest.id), _("Open it")))
    if assignment.due is not None and timedelta(0) <= assignment.due - at <= timedelta(days=1) and task.open:
        words = _(
            "%(open)s of %(all)s have handed in nothing: %(title)s.",
            open=task.open,
            all=len(task.standings),
            title=title,
        )
        found.append(Hint(_("Due within a day"), words, target, _("See who")))
    return found


def answers_to_comments(session: Session, classes: Sequence[SchoolClass]) -> list[Hint]:
    """Attempts on which a student had the last word, in one hint."""
    ids = [assignment.id for school_class in classes for assignment in school_class.assignments]
    said = session.scalars(
        select(Comment)
        .join(HandIn, HandIn.id == Comment.hand_in_id)
        .join(Work, Work.id == HandIn.work_id)
        .where(Work.assignment_id.in_(ids))
        .options(joinedload(Comment.author))
        .order_by(Comment.id)
    )
    last = {one.hand_in_id: one for one in said}
    waiting = [one for one in last.values() if one.author.role is Role.STUDENT]
    if not waiting:
        return []
    names = listed(list(dict.fromkeys(one.author.name for one in waiting))[:4])
    headline = ngettext("%(n)s answer to your comments", "%(n)s answers to your comments", len(waiting))
    return [Hint(headline, f"{names}: “{waiting[-1].text[:80]}”", ("hand-in", waiting[-1].hand_in_id), _("Read"))]
