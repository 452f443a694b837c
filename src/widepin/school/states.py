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


class Showing(StrEnum):
    """When students may go through the demonstration of a task."""

    NEVER = "never"
    BEFORE = "before"
    AFTER = "after"


class Release(StrEnum):
    """When students see something of a task that is kept from them at first."""

    NEVER = "never"
    DUE = "due"
    CORRECT = "correct"


class HowFar(StrEnum):
    """Whether students may ask how many moves are left on a way that is known."""

    NO = "no"
    YES = "yes"


class Reasons(StrEnum):
    """What students are asked about why a correct work is right."""

    NONE = "none"
    ORDER = "order"
    CHOOSE = "choose"
    FILL = "fill"


class Entered(StrEnum):
    """What a teacher enters for a student's task besides what was handed in."""

    PAPER = "paper"
    ABSENT = "absent"
    EXCUSED = "excused"


class SignInOutcome(StrEnum):
    """How a try to sign in ended."""

    FAILED = "failed"
    SUCCEEDED = "succeeded"
    PUT_OFF = "put off"
    HALFWAY = "halfway"  # the password was right, and a second factor is still asked for
    CONFIRMED = "confirmed"  # the own password was typed again, where somebody is signed in


class Presence(StrEnum):
    """What a student is doing with a task at this moment."""

    NEW = "new"
    OFFLINE = "offline"
    DONE = "done"  # has handed in, and gone
    INACTIVE = "inactive"
    WORKING = "working"


class LinkPurpose(StrEnum):
    """What a link that works once is for."""

    INVITATION = "invitation"
    RESET = "reset"


class Question(StrEnum):
    """What was asked of another system, whose answer comes back by a browser."""

    LAUNCH = "launch"  # who comes from a learning platform
    FIRST_VISIT = "first visit"  # whether somebody whom a platform sent has an account here
    CHOOSING = "choosing"  # which tasks a teacher chooses for a platform
    REGISTERING = "registering"  # that a platform registers itself
    SIGN_IN = "sign in"  # who signs in with the school's account


class Removed(StrEnum):
    """What was removed, and lies in the bin."""

    CLASS = "class"
    ASSIGNMENT = "assignment"
    TASK = "task"
    MEMBER = "member"  # a student taken out of a class
    STUDENT = "student"  # with all works, wherever they were made
    DEMONSTRATION = "demonstration"
    COMMENT = "comment"
    OLD_DATA = "old data"  # what is older than the school keeps


class Action(StrEnum):
    """What is written down in the audit log."""

    INVITED = "invited"
    JOINED = "joined"
    RESET_LINK_MADE = "reset link made"
    PASSWORD_CHANGED = "password changed"
    SECOND_FACTOR_SET = "second factor set"
    SECOND_FACTOR_REMOVED = "second factor removed"
    SESSIONS_ENDED = "sessions ended"
    ADMINISTRATOR_MADE = "administrator made"
    ADMINISTRATOR_UNMADE = "administrator unmade"
    LEFT = "left"
    CAME_BACK = "came back"
    ERASED = "erased"
    EXPORTED = "exported"
    CLASS_HANDED_OVER = "class handed over"
    COLLEAGUES_CHANGED = "colleagues changed"
    CLASS_ERASED = "class erased"
    CODES_RENEWED = "codes renewed"
    RETENTION_SET = "retention set"
    SCALE_SET = "scale of marks set"
    OLD_DATA_ERASED = "old data erased"
    REMOVED = "removed"
    RESTORED = "restored"
    NAME_ORDER_SET = "order of names set"
    INVITATION_WITHDRAWN = "invitation withdrawn"
    TOKEN_MADE = "token made"
    TOKEN_ENDED = "token ended"
    PLATFORM_SET = "learning platform set"
    PLATFORM_REMOVED = "learning platform removed"
    KEY_RENEWED = "key renewed"
    ACCOUNT_MADE = "account made"  # for somebody whom another system knows
    ACCOUNTS_JOINED = "accounts joined"
    PROVIDER_SET = "identity provider set"
    LISTS_TAKEN = "lists taken over"
    ACTIVITY_SET = "activity store set"
    BROUGHT_IN = "class brought in"


class Scope(StrEnum):
    """What a program may do with a token."""

    TASKS_READ = "tasks:read"
    TASKS_WRITE = "tasks:write"
    CLASSES_READ = "classes:read"
    ASSIGNMENTS_WRITE = "assignments:write"
    WORKS_READ = "works:read"
    CHECK = "check"


class JobState(StrEnum):
    """How long work stands."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"
