"""Closed enumerations of the school: who people are, what becomes of late works, how a sign-in and a lesson go."""

from __future__ import annotations

from enum import StrEnum


class Role(StrEnum):
    """What a person may do."""

    TEACHER = "teacher"
    STUDENT = "student"


class Late(StrEnum):
    """What happens to a work that is handed in after the due date."""

    TAKEN = "taken"
    REFUSED = "refused"


class SignInOutcome(StrEnum):
    """How a try to sign in ended."""

    FAILED = "failed"
    SUCCEEDED = "succeeded"
    PUT_OFF = "put off"


class Presence(StrEnum):
    """What a student is doing with a task at this moment."""

    NEW = "new"
    OFFLINE = "offline"
    INACTIVE = "inactive"
    WORKING = "working"
