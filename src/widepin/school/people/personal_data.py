"""Everything that is kept about somebody, as JSON: for whoever asks what the school knows of them."""

from __future__ import annotations

from base64 import b64encode
from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from ...documents.reading import JsonObject
from ..models import (
    Assignment,
    AuditEntry,
    Comment,
    EnteredResult,
    Operation,
    Person,
    SchoolClass,
    SignIn,
    TaskSheet,
    Work,
)
from . import browser_sessions


def sign_ins(session: Session, person: Person) -> list[JsonObject]:
    """When and from where somebody has tried to sign in."""
    of = select(SignIn).where(SignIn.person_id == person.id).order_by(SignIn.id)
    return [{"at": one.at.isoformat(), "outcome": one.outcome, "address": one.address} for one in session.scalars(of)]


def sessions(session: Session, person: Person) -> list[JsonObject]:
    """Where somebody is signed in."""
    return [
        {"began": one.began.isoformat(), "seen": one.seen.isoformat(), "address": one.address, "browser": one.browser}
        for one in browser_sessions.of(session, person)
    ]


def of_teacher(session: Session, person: Person) -> JsonObject:
    """What is kept about a teacher; works of students are theirs, and stand in their own data."""
    own = select(TaskSheet).where(TaskSheet.owner_id == person.id).order_by(TaskSheet.family, TaskSheet.version)
    classes = select(SchoolClass).where(SchoolClass.teacher_id == person.id).order_by(SchoolClass.name)
    comments = select(Comment).where(Comment.author_id == person.id).order_by(Comment.id)
    done = select(AuditEntry).where(AuditEntry.actor_id == person.id).order_by(AuditEntry.id)
    return {
        "name": person.name,
        "login": person.login,
        "administrator": person.administrator,
        "left": person.left.isoformat() if person.left else None,
        "second_factor": person.has_second_factor,
        "classes": [{"name": one.name, "students": len(one.students)} for one in session.scalars(classes)],
        "tasks": [
            {"title": one.title, "version": one.version, "document": one.document} for one in session.scalars(own)
        ],
        "comments": [
            {"written": one.written.isoformat(), "step": one.step, "text": one.text}
            for one in session.scalars(comments)
        ],
        "sign_ins": sign_ins(session, person),
        "sessions": sessions(session, person),
        "log": [{"at": one.at.isoformat(), "action": one.action} for one in session.scalars(done)],
    }


def of_students(session: Session, school_class: SchoolClass, students: Iterable[Person]) -> JsonObject:
    """Everything that is kept about students in a class, as JSON."""
    works = list(session.scalars(select(Work).join(Assignment).where(Assignment.class_id == school_class.id)))
    return {
        "class": school_class.name,
        "students": [
            {
                "name": student.name,
                "login": student.login,
                "sign_ins": sign_ins(session, student),
                "sessions": sessions(session, student),
                "works": [_work(session, work) for work in works if work.student_id == student.id],
                "entered_results": _entered(session, school_class, student),
                "other_marks": _other_marks(session, school_class, student),
            }
            for student in students
        ],
    }


def _entered(session: Session, school_class: SchoolClass, student: Person) -> list[JsonObject]:
    """What was entered for a student's tasks; a photo is in base64."""
    found = session.scalars(
        select(EnteredResult)
        .join(Assignment, Assignment.id == EnteredResult.assignment_id)
        .where(Assignment.class_id == school_class.id, EnteredResult.student_id == student.id)
    )
    return [
        {
            "task": session.get_one(Assignment, one.assignment_id).sheet.title,
            "kind": one.kind,
            "score": one.score,
            "note": one.note,
            "photo": b64encode(one.photo).decode() if one.photo else None,
        }
        for one in found
    ]


def _other_marks(session: Session, school_class: SchoolClass, student: Person) -> dict[str, int]:
    """A student's other marks, by the title of their column."""
    return {
        column.title: mark.score
        for column in school_class.mark_columns
        for mark in column.marks
        if mark.student_id == student.id
    }


def _work(session: Session, work: Work) -> JsonObject:
    log = session.scalars(select(Operation).where(Operation.work_id == work.id).order_by(Operation.number))
    return {
        "task": work.assignment.sheet.title,
        "started": work.started.isoformat(),
        "operations": [{"stored": one.stored.isoformat(), **one.document} for one in log],
        "hand_ins": [
            {
                "attempt": hand_in.attempt,
                "handed_in": hand_in.handed_in.isoformat(),
                "outcome": hand_in.outcome.value,
                "moves": hand_in.moves,
                "score": hand_in.score_that_counts,
                "reason": hand_in.reason,
                "comments": [
                    {"by": said.author.name, "step": said.step, "text": said.text} for said in hand_in.comments
                ],
                "work": hand_in.document,
                "verdict": hand_in.verdict,
            }
            for hand_in in work.hand_ins
        ],
    }
