"""Nothing that a student sends grows without bounds, and nothing is stored that was not read."""

import json
from datetime import timedelta

import pytest
from sqlalchemy import select

from tests.school.test_works import add, an_assignment
from widepin.documents.reading import Unreadable
from widepin.school.models import Person, now
from widepin.school.refused import Refused
from widepin.school.works import autosave, handins, reviewing
from widepin.school.works.autosave import import_steps, store, work_of
from widepin.school.works.board_standing import board_standing
from widepin.school.works.handins import NotTaken, hand_in
from widepin.school.works.history import OperationRefused


@pytest.fixture
def work(session, fresh_student, request):
    login = fresh_student(f"bounds-{abs(hash(request.node.name)) % 10**8}")
    student = session.scalars(select(Person).where(Person.login == login)).one()
    return work_of(session, an_assignment(session), student)


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("label", {"an": "object"}),
        ("label", "x" * 25),
        ("label", 7),
        ("hidden", "yes"),
        ("style", "x" * 1_000_000),
        ("ticks", 10**30),
        ("name_at", [float("nan"), 0]),
        ("colour", "red"),
    ],
)
def test_how_a_step_is_shown_is_a_closed_list_with_bounds(session, work, field, value):
    with pytest.raises(Unreadable, match=f"step.{field}"):
        store(session, work, "k" * 10, 0, add("c", "circle", "O", "A", **{field: value}))


def test_what_is_shown_as_it_may_be_is_kept(session, work):
    shown = {"label": "rim", "style": "dashed", "hidden": True, "name_at": [3, -4]}
    stored = store(session, work, "k" * 10, 0, add("c", "circle", "O", "A", **shown))
    assert stored.document["step"] == {"id": "c", "make": "circle", "from": ["O", "A"], **shown}


def test_a_step_made_another_way_carries_nothing_along(session, work):
    store(session, work, "k" * 10, 0, add("P", "free_point", at=[1, 1]))
    again = {"op": "remake", "step": {"id": "P", "make": "free_point", "at": [2, 2], "label": {"a": ["b"] * 9}}}
    stored = store(session, work, "l" * 10, 1, again)
    assert stored.document == {"op": "remake", "step": {"id": "P", "make": "free_point", "at": [2, 2]}}


def test_steps_from_elsewhere_keep_what_is_known_here(session, work):
    document = {"steps": [{"id": "P", "make": "free_point", "at": [1, 1], "label": "M", "glow": 3, "ticks": 99}]}
    (stored,) = import_steps(session, work, 0, document)
    assert stored.document["step"] == {"id": "P", "make": "free_point", "at": [1, 1], "label": "M"}


@pytest.mark.parametrize("value", [float("nan"), float("inf"), -float("inf")])
def test_places_are_finite(session, work, value):
    store(session, work, "k" * 10, 0, add("P", "free_point", at=[1, 1]))
    note = {"op": "note", "note": "n", "text": "here", "at": [0, value]}
    for operation in (add("Q", "free_point", at=[value, 1]), {"op": "move", "points": {"P": [value, 1]}}, note):
        with pytest.raises(Unreadable, match="finite number"):
            store(session, work, "l" * 10, 1, operation)


def test_an_operation_has_a_size(session, work):
    store(session, work, "k" * 10, 0, add("P", "free_point", at=[1, 1]))
    large = {"op": "dress", "id": ["P"] * 600, "dress": {"hidden": True}}
    assert len(json.dumps(large)) < autosave.LARGEST_OPERATION
    store(session, work, "l" * 10, 1, large)
    with pytest.raises(OperationRefused):
        store(session, work, "m" * 10, 2, {"op": "measure", "of": ["P", "Q" * 20_000]})


def test_a_board_keeps_so_many_operations(session, work, monkeypatch):
    monkeypatch.setattr(autosave, "MAX_OPERATIONS", 2)
    for number, name in enumerate("PQ"):
        store(session, work, name * 10, number, add(name, "free_point", at=[number, 1]))
    with pytest.raises(OperationRefused, match="full"):
        store(session, work, "R" * 10, 2, add("R", "free_point", at=[5, 1]))


def test_so_many_attempts_a_minute_and_comments_on_each_are_taken(session, work, monkeypatch):
    monkeypatch.setattr(handins, "MAX_A_MINUTE", 2)
    monkeypatch.setattr(reviewing, "MAX_COMMENTS", 1)
    store(session, work, "k" * 10, 0, add("P", "free_point", at=[1, 1]))
    for _ in range(2):
        attempt = hand_in(session, work)
        session.refresh(work)
    with pytest.raises(NotTaken, match="Wait a moment"):
        hand_in(session, work)
    attempt.handed_in = now() + timedelta(hours=2)  # the clock was set back since
    handins.check_taken(work, 2)
    reviewing.comment(session, attempt, work.student, "Why?")
    session.refresh(attempt)
    with pytest.raises(Refused, match="no more are taken"):
        reviewing.comment(session, attempt, work.student, "And why?")


@pytest.mark.parametrize(
    ("attempts", "handed_in", "is_returned", "left"),
    [
        (None, 1, False, None),
        (3, 0, False, 3),
        (3, 1, False, 2),
        (3, 1, True, 2),  # a work that was returned has its attempts anyway
        (1, 1, False, 0),
        (1, 1, True, 1),  # but where none is left it is taken once more
        (1, 2, False, 0),
    ],
)
def test_a_board_says_how_many_attempts_are_left(session, work, attempts, handed_in, is_returned, left):
    store(session, work, "k" * 10, 0, add("P", "free_point", at=[1, 1]))
    work.assignment.attempts = None
    for _ in range(handed_in):
        handins.hand_in(session, work)
    work.assignment.attempts = attempts
    work.returned = now() if is_returned else None
    session.flush()
    assert board_standing(session, work.assignment, work.student).attempts_left == left
