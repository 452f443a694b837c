"""The tables. What must always be true of the data is a constraint here."""

from __future__ import annotations

from .base import BYTES, Base, members, now
from .classes import LETTERS, Colleague, Membership, SchoolClass, class_code
from .people import AuditEntry, BrowserSession, Choice, OneTimeLink, Person, RecoveryCode, SignIn
from .tasks import AllowedTool, Assignment, ChosenStudent, ClassTool, PracticeTopic, TaskSheet
from .works import Comment, EnteredResult, HandIn, MarkColumn, Operation, OtherMark, Phrase, Work

__all__ = [
    "AllowedTool",
    "Assignment",
    "AuditEntry",
    "BYTES",
    "Base",
    "BrowserSession",
    "Choice",
    "ChosenStudent",
    "ClassTool",
    "Colleague",
    "Comment",
    "EnteredResult",
    "HandIn",
    "LETTERS",
    "MarkColumn",
    "Membership",
    "OneTimeLink",
    "Operation",
    "OtherMark",
    "Person",
    "Phrase",
    "PracticeTopic",
    "RecoveryCode",
    "SchoolClass",
    "SignIn",
    "TaskSheet",
    "Work",
    "class_code",
    "members",
    "now",
]
