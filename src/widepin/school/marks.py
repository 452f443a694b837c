"""Marks: who of a class stands where with every task, and the score for it, in a fixed number of queries."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from statistics import median

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from .models import Assignment, HandIn, Person, SchoolClass, TaskSheet, Work
from .progress import Standing, standing, who_has

LIGHT = selectinload(Work.hand_ins).load_only(
    HandIn.attempt, HandIn.outcome, HandIn.moves, HandIn.score, HandIn.score_override, HandIn.handed_in
)
"""Works with their attempts, without the documents of these."""


@dataclass(frozen=True)
class Row:
    """A student of a class, with a cell for every task; None where the task is not for this student."""

    student: Person
    cells: list[Standing | None]

    @property
    def mean(self) -> int | None:
        """The mean score over the tasks that were handed in."""
        marks = [mark for cell in self.cells if cell is not None and (mark := mark_of(cell)) is not None]
        return round(sum(marks) / len(marks)) if marks else None


@dataclass(frozen=True)
class Table:
    """The tasks of a class in their order, and a row for every student."""

    tasks: list[Assignment]
    rows: list[Row]

    def column(self, place: int) -> list[Standing]:
        """All standings with one task."""
        return [cell for row in self.rows if (cell := row.cells[place]) is not None]


def mark_of(one: Standing) -> int | None:
    """The score of a student's work on a task: what the teacher gave last by hand, else the best attempt's."""
    if one.work is None or not one.work.hand_ins:
        return None
    by_hand = [attempt.score_override for attempt in one.work.hand_ins if attempt.score_override is not None]
    return by_hand[-1] if by_hand else max(attempt.score for attempt in one.work.hand_ins)


def table_of(session: Session, school_class: SchoolClass) -> Table:
    """The marks of a class, without the documents of its works."""
    tasks = list(
        session.scalars(
            select(Assignment)
            .where(Assignment.class_id == school_class.id)
            .options(selectinload(Assignment.sheet).load_only(TaskSheet.title), selectinload(Assignment.chosen))
            .order_by(Assignment.position, Assignment.id)
        )
    )
    ids = [task.id for task in tasks]
    works = {
        (work.assignment_id, work.student_id): work
        for work in session.scalars(select(Work).where(Work.assignment_id.in_(ids)).options(LIGHT))
    }
    having = [{student.id for student in who_has(task)} for task in tasks]
    rows = [
        Row(
            student,
            [
                standing(student, works.get((task.id, student.id))) if student.id in has else None
                for task, has in zip(tasks, having, strict=True)
            ],
        )
        for student in school_class.students
    ]
    return Table(tasks, rows)


@dataclass(frozen=True)
class Chapter:
    """What a student did on a task: the standing, the time from the first step to the best attempt, the move limit."""

    assignment: Assignment
    standing: Standing
    took: timedelta | None
    budget: int | None


def history_of(session: Session, school_class: SchoolClass, student: Person) -> list[Chapter]:
    """A student's tasks in a class, in their order."""
    table = table_of(session, school_class)
    row = next(row for row in table.rows if row.student.id == student.id)
    cells = zip(table.tasks, row.cells, strict=True)
    limit = select(TaskSheet.id, TaskSheet.document["budget"]["moves"].as_integer())
    of_tasks = limit.where(TaskSheet.id.in_([task.sheet_id for task in table.tasks]))
    limits = {row.id: row[1] for row in session.execute(of_tasks)}
    return [
        Chapter(task, cell, time_taken(cell), limits.get(task.sheet_id)) for task, cell in cells if cell is not None
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
    """Headings and rows of the marks, for a spreadsheet or a mark book: score in percent, empty for none."""
    headings = ["name", "login", *(task.sheet.title for task in table.tasks), "mean"]
    rows = [
        [
            row.student.name,
            row.student.login,
            *(number(mark_of(cell) if cell else None) for cell in row.cells),
            number(row.mean),
        ]
        for row in table.rows
    ]
    return headings, rows


def number(value: int | None) -> str:
    """A number as text; nothing for none."""
    return "" if value is None else str(value)
