"""What the log says of what was done: a sentence without its subject, for each action and what it is about."""

from __future__ import annotations

from enum import StrEnum
from typing import NamedTuple

from ..language import gettext as _
from ..language import marked


class About(StrEnum):
    """What the number in an entry of the log is of."""

    PERSON = "person"
    CLASS = "class"
    OTHER = "other"


class Row(NamedTuple):
    """``words``: what was done, with ``%(about)s`` for whom or what; ``about``: of what the number is."""

    words: str
    about: About


PERSON, CLASS, OTHER = About

ACTIONS: dict[str, Row] = {
    "invited": Row(marked("invited somebody to teach"), OTHER),
    "invitation withdrawn": Row(marked("withdrew a link that was not used"), OTHER),
    "joined": Row(marked("made an account by a link"), PERSON),
    "reset link made": Row(marked("made a link for a new password of %(about)s"), PERSON),
    "password changed": Row(marked("chose a new password"), PERSON),
    "second factor set": Row(marked("set up a second factor"), PERSON),
    "second factor removed": Row(marked("does without a second factor"), PERSON),
    "sessions ended": Row(marked("ended sessions elsewhere"), PERSON),
    "administrator made": Row(marked("made %(about)s an administrator"), PERSON),
    "administrator unmade": Row(marked("took the rights of an administrator from %(about)s"), PERSON),
    "left": Row(marked("noted that %(about)s has left"), PERSON),
    "came back": Row(marked("noted that %(about)s is back"), PERSON),
    "erased": Row(marked("erased %(about)s for good"), PERSON),
    "exported": Row(marked("took out a copy of the data of %(about)s"), PERSON),
    "class handed over": Row(marked("handed over the class %(about)s"), CLASS),
    "colleagues changed": Row(marked("changed who teaches the class %(about)s"), CLASS),
    "class erased": Row(marked("deleted the class %(about)s"), CLASS),
    "codes renewed": Row(marked("made new codes for %(about)s"), PERSON),
    "retention set": Row(marked("chose for how long data are kept"), OTHER),
    "scale of marks set": Row(marked("chose the scale of marks"), OTHER),
    "old data erased": Row(marked("erased old data"), OTHER),
    "removed": Row(marked("removed %(about)s"), OTHER),
    "restored": Row(marked("restored %(about)s"), OTHER),
    "token made": Row(marked("made a token for a program"), OTHER),
    "token ended": Row(marked("ended a token for a program"), OTHER),
    "learning platform set": Row(marked("registered or changed a learning platform"), OTHER),
    "learning platform removed": Row(marked("removed a learning platform"), OTHER),
    "key renewed": Row(marked("renewed the key by which other systems know this program"), OTHER),
    "account made": Row(marked("an account was made for %(about)s, who is on another system’s list"), PERSON),
    "accounts joined": Row(marked("joined the account of a learning platform with %(about)s"), PERSON),
    "identity provider set": Row(marked("chose how people sign in with the school’s accounts"), OTHER),
    "lists taken over": Row(marked("took over the lists of the school’s office"), OTHER),
    "activity store set": Row(marked("chose a store for activity, or none"), OTHER),
    "class brought in": Row(marked("brought in the class %(about)s from a file"), CLASS),
    "order of names set": Row(marked("chose by which name lists go"), OTHER),
}
"""By the value of the action; ``school/people/audit.py`` asserts that none is missing."""

KINDS = {
    "task": marked("a task"),
    "class": marked("a class"),
    "assignment": marked("a task of a class"),
    "member": marked("a student from a class"),
    "student": marked("a student with all works"),
    "demonstration": marked("a demonstration"),
    "comment": marked("a comment"),
    "old data": marked("old data"),
}
"""What was removed, restored or erased; complete as well."""


def done_in_words(action: str, name: str | None, number: int | None, kind: str | None) -> str:
    """What was done. ``name``: of the person or class that it is about, None for one that is there no more; ``number``:
    of that; ``kind``: of what was removed, restored or erased, if it is something else.
    """
    row = ACTIONS[action]
    about = name or (_("number %(n)s, who is there no more", n=number) if number is not None else _("a whole class"))
    if kind is not None:
        about = _(KINDS[kind])
    elif name is None and row.about is About.CLASS and number is not None:
        about = _("number %(n)s, which is there no more", n=number)
    return _(row.words) % {"about": about}
