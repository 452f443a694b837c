"""Everything that is kept about somebody, as JSON: for whoever asks what the school knows of them."""

from __future__ import annotations

from base64 import b64encode
from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload, selectinload, undefer

from ...documents.reading import JsonObject
from ..models import (
    WITH_LOG,
    AccessToken,
    Assignment,
    AuditEntry,
    BrowserSession,
    Comment,
    EnteredResult,
    HandIn,
    Identity,
    MarkColumn,
    Membership,
    OtherMark,
    Person,
    Phrase,
    Recording,
    SchoolClass,
    SignIn,
    TaskSheet,
    Work,
)
from . import browser_sessions, tokens
from .roster import former_students


def of_teacher(session: Session, person: Person) -> JsonObject:
    """What is kept about a teacher; works of students are theirs, and stand in their own data."""
    own = select(TaskSheet).where(TaskSheet.owner_id == person.id).order_by(TaskSheet.family, TaskSheet.version)
    classes = select(SchoolClass).where(SchoolClass.teacher_id == person.id).order_by(SchoolClass.name)
    classes = classes.options(selectinload(SchoolClass.students))
    tries = select(SignIn).where(SignIn.person_id == person.id).order_by(SignIn.id)
    comments = select(Comment).where(Comment.author_id == person.id).order_by(Comment.id)
    done = select(AuditEntry).where(AuditEntry.actor_id == person.id).order_by(AuditEntry.id)
    recordings = select(Recording).where(Recording.owner_id == person.id).options(undefer(Recording.sound))
    return {
        "name": person.name,
        "login": person.login,
        "administrator": person.administrator,
        "left": person.left.isoformat() if person.left else None,
        "second_factor": person.has_second_factor,
        "classes": [{"name": one.name, "students": len(one.students)} for one in session.scalars(classes)],
        "tasks": [
            {
                "title": one.title,
                "version": one.version,
                "document": one.document,
                "demonstration": one.demonstration,
            }
            for one in session.scalars(own)
        ],
        "recordings": list(map(_recording, session.scalars(recordings))),
        "comments": list(map(_comment, session.scalars(comments))),
        "phrases": list(session.scalars(select(Phrase.text).where(Phrase.owner_id == person.id).order_by(Phrase.id))),
        "sign_ins": list(map(_sign_in, session.scalars(tries))),
        "sessions": list(map(_session, browser_sessions.of(session, person))),
        "tokens": list(map(_token, tokens.of(session, person))),
        "known_elsewhere": list(
            map(_identity, session.scalars(select(Identity).where(Identity.person_id == person.id)))
        ),
        "log": [{"at": one.at.isoformat(), "action": one.action} for one in session.scalars(done)],
    }


def _identity(one: Identity) -> JsonObject:
    return {"system": one.source, "as": one.subject, "came": one.seen.isoformat() if one.seen else None}


def _token(one: AccessToken) -> JsonObject:
    return {
        "name": one.name,
        "scopes": one.scopes,
        "made": one.made.isoformat(),
        "expires": one.expires.isoformat(),
        "used": one.used.isoformat() if one.used else None,
    }


def _recording(one: Recording) -> JsonObject:
    sound = b64encode(one.sound).decode()
    return {"digest": one.digest, "kind": one.kind, "sound": sound, "made": one.made.isoformat()}


def of_class(session: Session, school_class: SchoolClass) -> JsonObject:
    """Everything that is kept about the students of a class, and those who left works in it, as JSON."""
    students = [*school_class.students, *former_students(session, school_class)]
    return {"class": school_class.name, "students": _of_students(session, students, school_class)}


def of_student(session: Session, student: Person) -> JsonObject:
    """Everything that is kept about a student, in whatever class it was made."""
    (data,) = _of_students(session, [student])
    return data


def _of_students(
    session: Session, students: Sequence[Person], school_class: SchoolClass | None = None
) -> list[JsonObject]:
    """What is kept about students, of one class alone or of all, in a fixed number of queries."""
    numbers = [student.id for student in students]
    here = [] if school_class is None else [Assignment.class_id == school_class.id]
    columns_here = [] if school_class is None else [MarkColumn.class_id == school_class.id]
    works = grouped(
        session.scalars(
            select(Work)
            .join(Assignment)
            .where(Work.student_id.in_(numbers), *here)
            .options(
                *WITH_LOG,
                selectinload(Work.hints),
                selectinload(Work.hand_ins).selectinload(HandIn.comments).joinedload(Comment.author),
                joinedload(Work.assignment).options(joinedload(Assignment.sheet), joinedload(Assignment.school_class)),
            )
            .order_by(Work.id)
        ),
        lambda work: work.student_id,
    )
    entered = grouped(
        session.execute(
            select(EnteredResult, TaskSheet.title)
            .join(Assignment, Assignment.id == EnteredResult.assignment_id)
            .join(TaskSheet, TaskSheet.id == Assignment.sheet_id)
            .where(EnteredResult.student_id.in_(numbers), *here)
            .options(undefer(EnteredResult.photo))
        ),
        lambda row: row[0].student_id,
    )
    marks = grouped(
        session.execute(
            select(OtherMark, MarkColumn.title)
            .join(MarkColumn, MarkColumn.id == OtherMark.column_id)
            .where(OtherMark.student_id.in_(numbers), *columns_here)
        ),
        lambda row: row[0].student_id,
    )
    written = grouped(
        session.scalars(select(Comment).where(Comment.author_id.in_(numbers)).order_by(Comment.id)),
        lambda comment: comment.author_id,
    )
    tries = grouped(
        session.scalars(select(SignIn).where(SignIn.person_id.in_(numbers)).order_by(SignIn.id)),
        lambda one: one.person_id or 0,
    )
    open_sessions = grouped(
        session.scalars(select(BrowserSession).where(BrowserSession.person_id.in_(numbers))),
        lambda one: one.person_id,
    )
    identities = grouped(
        session.scalars(select(Identity).where(Identity.person_id.in_(numbers))), lambda one: one.person_id
    )
    classes = grouped(
        session.execute(
            select(Membership.person_id, SchoolClass.name)
            .join(SchoolClass, SchoolClass.id == Membership.class_id)
            .where(Membership.person_id.in_(numbers))
            .order_by(SchoolClass.name)
        ),
        lambda row: row[0],
    )
    return [
        {
            "name": student.name,
            "login": student.login,
            "classes": [name for _number, name in classes[student.id]],
            "sign_ins": list(map(_sign_in, tries[student.id])),
            "sessions": list(map(_session, open_sessions[student.id])),
            "known_elsewhere": list(map(_identity, identities[student.id])),
            "works": list(map(_work, works[student.id])),
            "comments": list(map(_comment, written[student.id])),
            "entered_results": [_entered(one, title) for one, title in entered[student.id]],
            "other_marks": {title: mark.score for mark, title in marks[student.id]},
        }
        for student in students
    ]


def grouped(rows: Iterable[Any], whose: Callable[[Any], int]) -> defaultdict[int, list[Any]]:
    """Rows by the number of the person whose they are."""
    found: defaultdict[int, list[Any]] = defaultdict(list)
    for row in rows:
        found[whose(row)].append(row)
    return found


def _sign_in(one: SignIn) -> JsonObject:
    return {"at": one.at.isoformat(), "outcome": one.outcome, "address": one.address}


def _session(one: BrowserSession) -> JsonObject:
    return {
        "began": one.began.isoformat(),
        "seen": one.seen.isoformat(),
        "address": one.address,
        "browser": one.browser,
    }


def _comment(one: Comment) -> JsonObject:
    return {"written": one.written.isoformat(), "step": one.step, "text": one.text}


def _entered(one: EnteredResult, title: str) -> JsonObject:
    """What was entered for a task; a photo is in base64."""
    return {
        "task": title,
        "kind": one.kind,
        "score": one.score,
        "note": one.note,
        "photo": b64encode(one.photo).decode() if one.photo else None,
    }


def _work(work: Work) -> JsonObject:
    return {
        "class": work.assignment.school_class.name,
        "task": work.assignment.sheet.title,
        "started": work.started.isoformat(),
        "hints": [{"at": one.at.isoformat(), "level": one.level, **one.document} for one in work.hints],
        "operations": [{"stored": one.stored.isoformat(), **one.document} for one in work.operations],
        "hand_ins": [
            {
                "attempt": hand_in.attempt,
                "handed_in": hand_in.handed_in.isoformat(),
                "outcome": hand_in.outcome.value,
                "moves": hand_in.moves,
                "score": hand_in.score_that_counts,
                "reason": hand_in.reason,
                "reasons_right": hand_in.reasoned,
                "comments": [
                    {"by": said.author.name, "step": said.step, "text": said.text} for said in hand_in.comments
                ],
                "work": hand_in.document,
                "verdict": hand_in.verdict,
            }
            for hand_in in work.hand_ins
        ],
    }
