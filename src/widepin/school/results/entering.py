"""What a teacher enters into the marks: work on paper, who was absent or excused, and columns of other marks."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ..models import (
    Assignment,
    EnteredResult,
    MarkColumn,
    OtherMark,
    Person,
    SchoolClass,
    now,
)
from ..refused import Refused
from ..states import Entered
from ..tasks.scoring import HEAVIEST
from .photos import PHOTO_TYPE, made_anew

LONGEST_TITLE, LONGEST_NOTE, MOST_COLUMNS = 60, 300, 30


def results_of(session: Session, assignment: Assignment) -> dict[int, EnteredResult]:
    """What was entered for a task, by student."""
    found = select(EnteredResult).where(EnteredResult.assignment_id == assignment.id)
    return {one.student_id: one for one in session.scalars(found)}


def results_as_typed(entered: Mapping[int, EnteredResult], students: Iterable[Person]) -> dict[str, str]:
    """What is entered for students, as it stands in the form: "kind-7", "score-7" and "note-7" for number 7."""
    fields: dict[str, str] = {}
    for student in students:
        one = entered.get(student.id)
        worth = one.score if one and one.score is not None else ""
        typed = {"kind": one.kind.value if one else "", "score": str(worth), "note": one.note if one else ""}
        fields |= {f"{name}-{student.id}": value for name, value in typed.items()}
    return fields


def column_as_typed(column: MarkColumn) -> dict[str, str]:
    """A column of other marks as it stands in the form."""
    known = {mark.student_id: str(mark.score) for mark in column.marks}
    scores = {f"score-{student.id}": known.get(student.id, "") for student in column.school_class.students}
    return {"title": column.title, "weight": str(column.weight), **scores}


def enter(session: Session, assignment: Assignment, student: Person, kind: str, score: str, note: str) -> None:
    """Enter a result of a student's: "paper" with a score, "absent" or "excused"; "" for what was handed in.

    A photo stays with what is entered, and goes with it. Raises Refused.
    """
    known = session.get(EnteredResult, (assignment.id, student.id))
    note = " ".join(note.split())
    if not kind:
        if known is not None:
            session.delete(known)
        return
    if kind not in list(Entered):
        raise Refused(_("Choose what is to be entered for %(name)s.", name=student.name))
    if len(note) > LONGEST_NOTE:
        raise Refused(_("A note has %(most)s characters at most.", most=LONGEST_NOTE))
    worth = None
    if Entered(kind) is Entered.PAPER:
        worth = percent(score, _("Enter a score from 0 to 100 for the work on paper of %(name)s.", name=student.name))
    if known is None:
        known = EnteredResult(assignment_id=assignment.id, student_id=student.id)
        session.add(known)
    if (known.kind, known.score, known.note) != (kind, worth, note):
        known.kind, known.score, known.note, known.entered = Entered(kind), worth, note, now()


def percent(text: str, words: str) -> int:
    """A score as it was typed. Raises Refused with these words."""
    text = text.strip()
    if not text.isascii() or not text.isdecimal() or len(text) > 3 or int(text) > 100:
        raise Refused(words)
    return int(text)


def keep_photo(session: Session, assignment: Assignment, student: Person, content: bytes) -> None:
    """Keep a photo of a student's work on paper, which waits for its score. Raises Refused for what is no picture."""
    picture = made_anew(content)
    known = session.get(EnteredResult, (assignment.id, student.id))
    if known is None:
        known = EnteredResult(assignment_id=assignment.id, student_id=student.id, kind=Entered.PAPER)
        session.add(known)
    known.photo, known.photo_type = picture, PHOTO_TYPE


def remove_photo(session: Session, assignment: Assignment, student: Person) -> None:
    """Throw a photo away; what was entered with it stays."""
    known = session.get(EnteredResult, (assignment.id, student.id))
    if known is not None:
        known.photo, known.photo_type = None, ""


def read_weight(text: str) -> int:
    """A weight as it was typed. Raises Refused."""
    text = text.strip() or "1"
    if not text.isascii() or not text.isdecimal() or len(text) > 2 or int(text) > HEAVIEST:
        raise Refused(_("A weight is a whole number from 0 to %(most)s; 0 does not count.", most=HEAVIEST))
    return int(text)


def add_column(session: Session, school_class: SchoolClass, title: str, weight: str) -> MarkColumn:
    """A new column of other marks. Raises Refused."""
    columns = select(MarkColumn).where(MarkColumn.class_id == school_class.id)
    known = list(session.scalars(columns))
    if len(known) >= MOST_COLUMNS:
        raise Refused(_("A class has %(most)s columns of other marks at most.", most=MOST_COLUMNS))
    made = MarkColumn(class_id=school_class.id, title=_title(title, known), weight=read_weight(weight))
    session.add(made)
    session.flush()
    return made


def change_column(session: Session, column: MarkColumn, title: str, weight: str, scores: Mapping[int, str]) -> None:
    """Change a column, and enter its marks: student -> what was typed, nothing for none. All, or nothing.

    Raises Refused.
    """
    columns = select(MarkColumn).where(MarkColumn.class_id == column.class_id, MarkColumn.id != column.id)
    title, heavy = _title(title, list(session.scalars(columns))), read_weight(weight)
    read = {
        student.id: percent(text, _("The mark of %(name)s is a number from 0 to 100, or nothing.", name=student.name))
        for student in column.school_class.students
        if (text := scores.get(student.id, "").strip())
    }
    column.title, column.weight = title, heavy
    known = {one.student_id: one for one in column.marks}
    for student in column.school_class.students:
        score, mark = read.get(student.id), known.get(student.id)
        if score is None and mark is not None:
            session.delete(mark)
        elif score is not None and mark is None:
            session.add(OtherMark(column_id=column.id, student_id=student.id, score=score))
        elif score is not None and mark is not None:
            mark.score = score
    session.flush()


def _title(text: str, others: list[MarkColumn]) -> str:
    title = " ".join(text.split())
    if not title or len(title) > LONGEST_TITLE:
        raise Refused(_("Give the column a title of %(most)s characters at most.", most=LONGEST_TITLE))
    if title.casefold() in {one.title.casefold() for one in others}:
        raise Refused(_("The class has a column “%(title)s” already.", title=title))
    return title
