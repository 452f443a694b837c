"""What there is to say of one student: topic by topic, which mistakes come again, and every task over time."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from ...documents.language import gettext as _
from ...documents.reading import JsonObject
from ...documents.wording.grouping import what_went_wrong
from ..models import HandIn, Person, SchoolClass, Work
from ..works.autosave import task_judged
from ..works.handins import figure_of
from .marks import Chapter, history_of, score_of
from .release import is_solved


@dataclass(frozen=True)
class TopicOfTasks:
    """A topic of the tasks that are set: how many there are, are handed in, and are solved."""

    name: str
    tasks: int
    handed_in: int
    solved: int


@dataclass(frozen=True)
class Mistake:
    """A mistake that a student made: what it is, in which attempts, the last one first, and a figure of that."""

    words: str
    attempts: list[HandIn]
    figure: JsonObject


@dataclass(frozen=True)
class StudentPage:
    """All of it. ``figures``: of the best attempts, by their numbers. ``scored``: all attempts in their order."""

    history: list[Chapter]
    topics: list[TopicOfTasks]
    mistakes: list[Mistake]
    scored: list[HandIn]
    figures: dict[int, JsonObject]

    @property
    def solved(self) -> int:
        """How many tasks are solved."""
        return sum(is_solved(chapter.standing.best) for chapter in self.history)


def page_of(session: Session, school_class: SchoolClass, student: Person) -> StudentPage:
    """What there is to say of a student of a class, in a fixed number of queries."""
    history = history_of(session, school_class, student)
    ids = [chapter.standing.work.id for chapter in history if chapter.standing.work]
    found = session.scalars(
        select(Work)
        .where(Work.id.in_(ids))
        .options(selectinload(Work.hand_ins))
        .execution_options(populate_existing=True)  # known so far without documents
    )
    attempts = sorted((one for work in found for one in work.hand_ins), key=lambda one: (one.handed_in, one.id))
    best = [chapter.standing.best for chapter in history if chapter.standing.best]
    return StudentPage(
        history, topics_of(history), mistakes_in(attempts), attempts, {one.id: figure_of(one) for one in best}
    )


def topics_of(history: Sequence[Chapter]) -> list[TopicOfTasks]:
    """The tasks by topic, in the order in which topics come first. Work on paper counts as handed in."""
    by_topic = defaultdict(list)
    for chapter in history:
        by_topic[chapter.assignment.sheet.topic or _("No topic")].append(chapter)
    return [
        TopicOfTasks(
            topic,
            len(chapters),
            sum(score_of(one.standing, one.entered) is not None for one in chapters),
            sum(is_solved(one.standing.best) for one in chapters),
        )
        for topic, chapters in by_topic.items()
    ]


def mistakes_in(attempts: Sequence[HandIn]) -> list[Mistake]:
    """What went wrong in attempts, what comes most often first."""
    by_words = defaultdict(list)
    for attempt in reversed(attempts):
        if not is_solved(attempt):
            budget = task_judged(attempt).budget
            by_words[what_went_wrong(attempt.verdict, attempt.moves, budget)].append(attempt)
    found = [Mistake(words, alike, figure_of(alike[0])) for words, alike in by_words.items()]
    return sorted(found, key=lambda mistake: -len(mistake.attempts))
