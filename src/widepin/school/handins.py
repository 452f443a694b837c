"""Handing in: the work as it stands is judged, and kept with its verdict."""

from __future__ import annotations

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ..documents.verdict import write_verdict
from ..judge.judging import judge
from ..judge.task import Work as Submission
from .models import HandIn, Work, now
from .works import state_of


class NothingToHandIn(Exception):
    """The board is empty."""


def hand_in(session: Session, work: Work) -> HandIn:
    """Judge a work as it stands and keep the attempt. Raises NothingToHandIn for an empty board."""
    state = state_of(work)
    steps = tuple(state.steps)
    if not steps:
        raise NothingToHandIn
    verdict = judge(state.as_it_stands, Submission(steps))
    session.scalars(select(Work).where(Work.id == work.id).with_for_update()).one()
    attempts = session.scalar(select(func.max(HandIn.attempt)).where(HandIn.work_id == work.id)) or 0
    attempt = HandIn(
        work_id=work.id,
        attempt=attempts + 1,
        outcome=verdict.outcome,
        moves=verdict.counts.moves,
        document={
            "given": state.documents(state.given),
            "start": state.documents(state.start),
            "steps": state.documents(steps),
        },
        verdict=write_verdict(verdict),
        handed_in=now(),
    )
    session.add(attempt)
    session.flush()
    return attempt
