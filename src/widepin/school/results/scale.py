"""The school's own scale of marks: which mark a score in percent is."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...documents.language import gettext as _
from ..models import Choice, Person
from ..people import audit
from ..refused import Refused
from ..states import Action

LONGEST_MARK, MOST_MARKS = 20, 30


@dataclass(frozen=True)
class Scale:
    """Marks from the highest to the lowest, each with the least percentage that it is given for; empty for none."""

    marks: tuple[tuple[int, str], ...] = ()

    def __bool__(self) -> bool:
        return bool(self.marks)

    def mark(self, score: int | None) -> str:
        """The mark for a score in percent; nothing for no score, or one below the lowest.

        >>> Scale(((50, "passed"), (0, "failed"))).mark(50)
        'passed'
        """
        return next((mark for least, mark in self.marks if score is not None and score >= least), "")

    def as_text(self) -> str:
        """The scale as it is typed: a line for every mark."""
        return "\n".join(f"{least} {mark}" for least, mark in self.marks)


def read_scale(text: str) -> Scale:
    """A scale from lines such as "87 very good". Raises Refused with the line that is wrong.

    >>> read_scale("0 failed\\n50 passed").marks
    ((50, 'passed'), (0, 'failed'))
    """
    found: dict[int, str] = {}
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        least, _space, mark = line.strip().partition(" ")
        mark = mark.strip()
        if not least.isascii() or not least.isdecimal() or len(least) > 3 or int(least) > 100 or not mark:
            raise Refused(_("Line %(n)s: write the least percentage, then the mark, as in “50 passed”.", n=number))
        if len(mark) > LONGEST_MARK:
            raise Refused(_("Line %(n)s: a mark has %(most)s characters at most.", n=number, most=LONGEST_MARK))
        if int(least) in found:
            raise Refused(_("Line %(n)s: %(least)s percent has a mark already.", n=number, least=least))
        found[int(least)] = mark
    if len(found) > MOST_MARKS:
        raise Refused(_("A scale has %(most)s marks at most.", most=MOST_MARKS))
    return Scale(tuple(sorted(found.items(), reverse=True)))


def scale_of(session: Session) -> Scale:
    """The scale of the school; an empty one where nobody has chosen any."""
    chosen = session.get(Choice, "scale")
    return Scale(tuple((least, mark) for least, mark in chosen.value["marks"])) if chosen else Scale()


def set_scale(session: Session, by: Person, text: str) -> Scale:
    """Choose the scale of the school; nothing for none. Raises Refused."""
    scale = read_scale(text)
    session.merge(Choice(name="scale", value={"marks": [list(one) for one in scale.marks]}))
    audit.record(session, by, Action.SCALE_SET, marks=len(scale.marks))
    return scale
