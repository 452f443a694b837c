"""Marks: who of a class stands where with every task, and the score for it, in a fixed number of queries.

The mean is weighted. Tasks that somebody has not handed in do not count, nor those for which somebody was absent or
excused; a score for work on paper counts instead of the works'.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from enum import StrEnum
from fractions import Fraction
from statistics import median

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, load_only, selectinload

from ...documents.language import gettext as _
from ..models import (
    Assignment,
    EnteredResult,
    HandIn,
    MarkColumn,
    OtherMark,
    Person,
    SchoolClass,
    TaskSheet,
    Work,
)
from ..people.roster import former_students
from ..states import Entered
from .progress import Standing, standing, who_has
from .release import is_solved
from .scale import Scale, scale_of


def works_on(session: Session, assignments: Sequence[int], student: int | None = None) -> list[Work]:
    """The works on assignments with their attempts, in one query, without the documents of these; ``student``: only
    that one's.
    """
    wanted = (
        select(Work)
        .where(Work.assignment_id.in_(assignments), *([] if student is None else [Work.student_id == student]))
        .options(
            load_only(Work.assignment_id, Work.student_id, Work.started, Work.touched, Work.seen, Work.opened),
            joinedload(Work.hand_ins).load_only(
                HandIn.attempt, HandIn.outcome, HandIn.moves, HandIn.score, HandIn.score_override, HandIn.handed_in
            ),
        )
    )
    return list(session.scalars(wanted).unique())


@dataclass(frozen=True)
class Row:
    """A student of a class, or one who was in it, with a cell for every task; None where it is not for this student.

    ``entered``: what the teacher entered, task by task; ``scores``: what counts. ``others``: the marks in the columns
    besides.
    """

    student: Person
    cells: list[Standing | None]
    entered: list[EnteredResult | None]
    scores: list[int | None]
    others: list[int | None]
    mean: int | None
    has_left: bool = False

    @property
    def has_open(self) -> bool:
        """Whether something is not handed in, and nothing was entered instead."""
        both = zip(self.cells, self.entered, strict=True)
        return not self.has_left and any(
            cell is not None and cell.latest is None and entered is None for cell, entered in both
        )

    @property
    def has_to_mend(self) -> bool:
        """Whether something is handed in that is not solved."""
        return any(cell is not None and cell.best is not None and not is_solved(cell.best) for cell in self.cells)


class ShownRows(StrEnum):
    """Which students the marks are shown of."""

    ALL = "all"
    OPEN = "open"
    TO_MEND = "to mend"


@dataclass(frozen=True)
class Table:
    """The tasks of a class in their order, the columns of other marks, and a row for every student."""

    tasks: list[Assignment]
    columns: list[MarkColumn]
    rows: list[Row]
    scale: Scale

    @property
    def move_counts(self) -> set[int]:
        """The numbers of moves of the best attempts."""
        return {cell.best.moves for row in self.rows for cell in row.cells if cell is not None and cell.best}

    def shown(self, which: ShownRows, order: str) -> list[Row]:
        """Rows of some students, by "name", "mean", or the number of a task; the best first, nothing last."""
        rows = [
            row
            for row in self.rows
            if which is ShownRows.ALL or (row.has_open if which is ShownRows.OPEN else row.has_to_mend)
        ]
        place = next((place for place, task in enumerate(self.tasks) if str(task.id) == order), None)

        def worth(row: Row) -> int | None:
            return row.mean if order == "mean" else row.scores[place] if place is not None else 0

        return sorted(rows, key=lambda row: (worth(row) is None, -(worth(row) or 0)))

    def column(self, place: int) -> list[Standing]:
        """All standings with one task."""
        return [cell for row in self.rows if (cell := row.cells[place]) is not None]


def mark_of(one: Standing) -> int | None:
    """The score of a student's work on a task: what the teacher gave last by hand, else the best attempt's."""
    if one.work is None or not one.work.hand_ins:
        return None
    by_hand = [attempt.score_override for attempt in one.work.hand_ins if attempt.score_override is not None]
    return by_hand[-1] if by_hand else max(attempt.score for attempt in one.work.hand_ins)


def table_of(session: Session, school_class: SchoolClass, only: Person | None = None) -> Table:
    """The marks of a class, or of ``only`` one student of it, without the documents of works."""
    students = [only] if only else [*school_class.students, *former_students(session, school_class)]
    members = {student.id for student in school_class.students}
    tasks = list(
        session.scalars(
            select(Assignment)
            .where(Assignment.class_id == school_class.id, Assignment.practice_key.is_(None))
            .options(
                selectinload(Assignment.sheet).load_only(TaskSheet.title, TaskSheet.topic),
                selectinload(Assignment.chosen),
            )
            .order_by(Assignment.position, Assignment.id)
        )
    )
    ids = [task.id for task in tasks]
    works = {(work.assignment_id, work.student_id): work for work in works_on(session, ids, only.id if only else None)}
    of_entered = select(EnteredResult).where(EnteredResult.assignment_id.in_(ids))
    if only is not None:
        of_entered = of_entered.where(EnteredResult.student_id == only.id)
    entered = {(one.assignment_id, one.student_id): one for one in session.scalars(of_entered)}
    columns = list(
        session.scalars(select(MarkColumn).where(MarkColumn.class_id == school_class.id).order_by(MarkColumn.id))
    )
    others = {
        (one.column_id, one.student_id): one.score
        for one in session.scalars(select(OtherMark).where(OtherMark.column_id.in_([one.id for one in columns])))
    }
    having = [{student.id for student in who_has(task)} for task in tasks]

    def row_of(student: Person) -> Row:
        cells = [
            standing(student, works.get((task.id, student.id)))
            if student.id in has or (task.id, student.id) in works
            else None
            for task, has in zip(tasks, having, strict=True)
        ]
        instead = [entered.get((task.id, student.id)) for task in tasks]
        scores = [score_of(cell, one) for cell, one in zip(cells, instead, strict=True)]
        other = [others.get((column.id, student.id)) for column in columns]
        weighted = [
            *((score, task.weight) for score, task in zip(scores, tasks, strict=True)),
            *((score, column.weight) for score, column in zip(other, columns, strict=True)),
        ]
        return Row(student, cells, instead, scores, other, mean_of(weighted), student.id not in members)

    return Table(tasks, columns, list(map(row_of, students)), scale_of(session))


def score_of(cell: Standing | None, entered: EnteredResult | None) -> int | None:
    """What counts of a student's task: what was entered for work on paper, else what the works are worth."""
    if entered is not None:
        return entered.score if entered.kind is Entered.PAPER else None
    return mark_of(cell) if cell is not None else None


def mean_of(weighted: Sequence[tuple[int | None, int]]) -> int | None:
    """The mean of scores by their weights, rounded; None where nothing counts."""
    counting = [(score, weight) for score, weight in weighted if score is not None and weight]
    total = sum(weight for _score, weight in counting)
    return round(Fraction(sum(score * weight for score, weight in counting), total)) if total else None


@dataclass(frozen=True)
class Chapter:
    """What a student did on a task: the standing, the time from the first step to the best attempt, the move limit.

    ``entered``: what the teacher entered instead.
    """

    assignment: Assignment
    standing: Standing
    took: timedelta | None
    budget: int | None
    entered: EnteredResult | None = None


def history_of(session: Session, school_class: SchoolClass, student: Person) -> list[Chapter]:
    """A student's tasks in a class, in their order."""
    table = table_of(session, school_class, student)
    (row,) = table.rows
    cells = zip(table.tasks, row.cells, row.entered, strict=True)
    limit = select(TaskSheet.id, TaskSheet.document["budget"]["moves"].as_integer())
    of_tasks = limit.where(TaskSheet.id.in_([task.sheet_id for task in table.tasks]))
    limits = {row.id: row[1] for row in session.execute(of_tasks)}
    return [
        Chapter(task, cell, time_taken(cell), limits.get(task.sheet_id), entered)
        for task, cell, entered in cells
        if cell is not None
    ]


def time_taken(one: Standing) -> timedelta | None:
    """From the first step to the best attempt."""
    return one.best.handed_in - one.work.started if one.best and one.work else None


@dataclass(frozen=True)
class Summary:
    """A task in numbers: how many handed in, and medians over their best attempts, None where there is none."""

    handed_in: int
    students: int
    moves: float | None
    time: timedelta | None
    attempts: float | None


def summary_of(standings: Sequence[Standing]) -> Summary:
    """A task in numbers."""
    done = [standing for standing in standings if standing.best is not None and standing.work is not None]
    times = [taken for one in done if (taken := time_taken(one)) is not None]
    return Summary(
        len(done),
        len(standings),
        median(one.best.moves for one in done if one.best) if done else None,
        median_time(times),
        median(len(one.work.hand_ins) for one in done if one.work) if done else None,
    )


def median_time(times: Sequence[timedelta]) -> timedelta | None:
    """The median of lengths of time; None where there is none."""
    return timedelta(seconds=median(time.total_seconds() for time in times)) if times else None


def as_rows(table: Table) -> tuple[list[str], Sequence[list[str]]]:
    """Headings and rows of the marks, for a spreadsheet or a mark book: score in percent, empty for none, a word for
    who was absent or excused; at last the mean, and the mark by the school's scale where it has one.
    """
    scale = table.scale
    headings = [
        *("family name", "given name", "login"),
        *(task.sheet.title for task in table.tasks),
        *(column.title for column in table.columns),
        "mean",
        *(["mark"] if scale else []),
    ]
    rows = [
        [
            *(row.student.family_name, row.student.given_name, row.student.login),
            *(
                number(score) if one is None or one.kind is Entered.PAPER else _(one.kind.value)
                for score, one in zip(row.scores, row.entered, strict=True)
            ),
            *map(number, row.others),
            number(row.mean),
            *([scale.mark(row.mean)] if scale else []),
        ]
        for row in table.rows
    ]
    return headings, rows


def number(value: int | None) -> str:
    """A number as text; nothing for none."""
    return "" if value is None else str(value)
