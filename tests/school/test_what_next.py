"""What a student best turns to next, and why."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.judge.verdict import Outcome
from widepin.school.models import Assignment, HandIn, Person, Work, now
from widepin.school.results.progress import Standing, ToDo, to_do, what_next

AT = now()


def row(due=None, best=None, begun=False, returned=False, closed=None):
    """A task to do, by what matters."""
    work = Work(returned=AT if returned else None) if begun or best or returned else None
    attempt = HandIn(outcome=best, moves=3, attempt=1) if best else None
    return ToDo(Assignment(due=due), Standing(Person(), work, attempt, attempt), closed)


RETURNED = row(best=Outcome.SOUND, returned=True)
DUE = row(due=AT + timedelta(days=1))
DUE_LATER = row(due=AT + timedelta(days=2), best=Outcome.WRONG)
NOT_HOLDING = row(best=Outcome.EYEBALLED)
BEGUN = row(begun=True)
NEW = row()
IN_ORDER = [RETURNED, DUE, DUE_LATER, NOT_HOLDING, BEGUN, NEW]


@pytest.mark.parametrize("first", range(len(IN_ORDER)))
def test_the_more_urgent_comes_first(first):
    found = what_next(IN_ORDER[:first:-1] + [IN_ORDER[first]], AT)
    assert found is not None and found[0] is IN_ORDER[first] and found[1]


def test_what_is_solved_or_closed_is_not_next():
    assert what_next([row(best=Outcome.SOUND), row(best=Outcome.FRAGILE), row(closed="not open yet")], AT) is None
    assert what_next([], AT) is None


def test_the_last_words_of_the_teacher_stand_with_the_task(session):
    student = session.scalars(select(Person).where(Person.login == "bram.idris")).one()
    for one in to_do(session, student):
        assert bool(one.said) == bool(one.comments)
