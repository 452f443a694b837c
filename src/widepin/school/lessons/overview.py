"""The class overview: how every student stands with a task at this moment, and which works belong together."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from enum import StrEnum

from sqlalchemy import func, select
from sqlalchemy.orm import Session, joinedload, selectinload

from ...documents.formats.construction import read_steps
from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.amounts import duration, moves
from ...documents.wording.grouping import method_in_words, what_went_wrong
from ...judge.costs.counts import moves_of
from ...judge.costs.structure import made_with, needed_by, points_put, structure
from ...judge.task import Task
from ...plane.steps import Step
from ..models import WITH_LOG, Assignment, HandIn, Person, Work
from ..results.marks import time_taken
from ..results.progress import Standing, standing, who_had, who_has
from ..states import Presence
from ..tasks.class_tools import uses_in
from ..works.autosave import AWAY, task_of
from ..works.handins import figure_of
from ..works.history import replay

STUCK = timedelta(minutes=3)
"""Without an operation for so long at an open board, a student may need help."""

SLACK = timedelta(seconds=2)
"""The database keeps whole seconds, and a change may be committed a moment after its time."""


class GroupedBy(StrEnum):
    """What works are grouped by on the class overview."""

    TROUBLE = "trouble"
    METHOD = "method"
    MOVES = "moves"
    NOTHING = "nothing"


@dataclass
class Place:
    """A student's place on the class overview.

    ``work``: also of a board that was only opened. ``figure``: what is drawn there. ``group``: its heading for
    everything that works can be grouped by. ``method``: what works have in common that build the answer in the same
    way. ``same_as``: who has the same points.
    """

    student: Person
    standing: Standing
    work: Work | None
    figure: JsonObject
    steps: list[Step]
    moves: int
    group: dict[GroupedBy, str]
    method: str = ""
    same_as: list[str] = field(default_factory=list)

    @property
    def is_handed_in(self) -> bool:
        """Whether there is an attempt."""
        return self.standing.best is not None

    @property
    def took(self) -> timedelta | None:
        """From the first step to the best attempt."""
        return time_taken(self.standing)

    def presence(self, at: datetime) -> tuple[str, str]:
        """What the student is doing at a time (UTC): a word for it, and a sentence."""
        return presence_of(self.work, at, self.standing.latest is not None)


def presence_of(work: Work | None, at: datetime, has_handed_in: bool) -> tuple[Presence, str]:
    """What the student of a work is doing at a time (UTC): a word for it, and a sentence."""
    if work is None:
        return Presence.NEW, _("not begun")
    if work.seen is None or abs(at - work.seen) > AWAY:
        return (Presence.DONE, _("handed in")) if has_handed_in else (Presence.OFFLINE, _("offline"))
    still = at - max(work.touched, work.opened or work.touched)
    if still > STUCK:
        return Presence.INACTIVE, _("inactive for %(duration)s", duration=duration(still))
    return Presence.WORKING, _("at work")


def presences(session: Session, assignment: Assignment, at: datetime) -> dict[int, tuple[str, str]]:
    """What every student who has the task is doing at a time (UTC), by the student's number."""
    works = {work.student_id: work for work in session.scalars(select(Work).where(Work.assignment_id == assignment.id))}
    attempted = select(HandIn.work_id).join(Work).where(Work.assignment_id == assignment.id)
    handed_in = set(session.scalars(attempted.distinct()))
    found: dict[int, tuple[str, str]] = {}
    for student in who_has(assignment):
        work = works.get(student.id)
        found[student.id] = presence_of(work, at, work is not None and work.id in handed_in)
    return found


def attempts_at(session: Session, assignment: Assignment) -> int:
    """How often an assignment was handed in; with it the numbers of its overview change."""
    attempts = select(func.count()).select_from(HandIn).join(Work).where(Work.assignment_id == assignment.id)
    return session.scalar(attempts) or 0


LOADED = (
    selectinload(Work.hand_ins),
    *WITH_LOG,
    selectinload(Work.hints),
    joinedload(Work.student),
)
"""What a place shows of a work."""


def overview_of(session: Session, assignment: Assignment, since: datetime | None = None) -> list[Place]:
    """A place for every student who has the task, by name; ``since``: only of works touched from then on (UTC)."""
    wanted = select(Work).where(Work.assignment_id == assignment.id)
    if since is not None:
        wanted = wanted.where(Work.touched >= since - SLACK)
    works = {work.student_id: work for work in session.scalars(wanted.options(*LOADED))}
    task = task_of(assignment)
    own = who_has(assignment)
    places = [
        place_of(task, student, works.get(student.id))
        for student in [*own, *who_had(works.values(), own)]
        if since is None or student.id in works
    ]
    mark_the_same(places)
    return places


def place_of(task: Task, student: Person, work: Work | None) -> Place:
    """A student's place: the work as it stands now, or as handed in where nothing was done since."""
    one = standing(student, work)
    handed_in = one.latest
    if work is not None and (handed_in is None or work.touched > handed_in.handed_in):
        state = replay(task, [operation.document for operation in work.operations])
        steps, uses = state.steps, state.uses
        figure: JsonObject = state.figure
    elif handed_in is not None:
        steps, uses = list(read_steps(handed_in.document["steps"])), uses_in(handed_in.document)
        figure = figure_of(handed_in)
    else:
        steps, uses, figure = [], (), {}
    nothing_yet = {**dict.fromkeys(GroupedBy, _("Not handed in")), GroupedBy.NOTHING: _("Everybody")}
    place = Place(student, one, work, figure, steps, moves_of(steps, uses), nothing_yet)
    if one.best is not None:
        place.group, place.method = groups_of(task, one.best)
    return place


def groups_of(task: Task, best: HandIn) -> tuple[dict[GroupedBy, str], str]:
    """What an attempt is grouped under, and what it has in common with those of the same method."""
    steps, uses = read_steps(best.document["steps"]), uses_in(best.document)
    answer = (best.verdict["answer"] or {}).values()
    group = {
        GroupedBy.TROUBLE: what_went_wrong(best.verdict, best.moves, task.budget),
        GroupedBy.METHOD: _("No answer that looks right"),
        GroupedBy.MOVES: moves(best.moves),
        GroupedBy.NOTHING: _("Everybody"),
    }
    if not answer:
        return group, ""
    group[GroupedBy.METHOD] = method_in_words(*made_with(steps, needed_by(steps, answer), uses))
    return group, structure((step.id for step in task.done), steps, answer)


def mark_the_same(places: Sequence[Place]) -> None:
    """Note on each place which other students put their own points in exactly the same spots."""
    by_spots = defaultdict(list)
    for place in places:
        if spots := points_put(place.steps):
            by_spots[spots].append(place)
    for alike in by_spots.values():
        for place in alike:
            place.same_as = [other.student.name for other in alike if other is not place]
