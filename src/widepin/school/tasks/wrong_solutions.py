"""Wrong solutions of a task: kept with it, so that every change of the task is tried against them."""

from __future__ import annotations

from sqlalchemy.orm import Session

from ...documents.formats.construction import read_steps, write_step
from ...documents.language import gettext as _
from ...documents.reading import Unreadable
from ...plane.steps import Step, check_steps
from ..models import TaskSheet
from ..refused import Refused
from ..turns import locked

MOST = 12
"""Wrong solutions of a task."""


def steps_of(sheet: TaskSheet) -> tuple[tuple[Step, ...], ...]:
    """The steps of each, which continue the given figure."""
    return tuple(map(read_steps, sheet.wrong))


def keep(session: Session, sheet: TaskSheet, documents: object) -> None:
    """Keep one more; none twice. Raises Unreadable, IllFormed for steps that do not continue the given figure, and
    Refused.
    """
    steps = read_steps(documents)
    if not steps:
        raise Unreadable("steps", _("are missing; draw a solution that is wrong"))
    check_steps([*read_steps(sheet.document["given"]), *steps])
    session.flush()
    locked(session, sheet)
    written = [write_step(step) for step in steps]
    if written in sheet.wrong:
        return
    if len(sheet.wrong) >= MOST:
        raise Refused(_("A task keeps %(most)s wrong solutions at most; remove one first.", most=MOST))
    sheet.wrong = [*sheet.wrong, written]


def remove(session: Session, sheet: TaskSheet, place: int) -> None:
    """Keep one of them no longer. Raises Refused where there is none at this place."""
    session.flush()
    locked(session, sheet)
    if not 0 <= place < len(sheet.wrong):
        raise Refused(_("This wrong solution is removed already; load the page again."))
    sheet.wrong = [*sheet.wrong[:place], *sheet.wrong[place + 1 :]]
