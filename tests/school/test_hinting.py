"""Hints that students take: as many as the teacher allows, three levels each, and what they take off the score."""

import pytest
from sqlalchemy import select

from widepin.school.models import Assignment, HintTaken, Person, SchoolClass
from widepin.school.people import personal_data
from widepin.school.refused import Refused
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet
from widepin.school.works import handins, hinting
from widepin.school.works.autosave import store, work_of

KEY = "a-key-of-a-test-{}"


@pytest.fixture
def work(session, first_year):
    """A student before an empty board, with two hints at ten points each."""
    sheet = new_sheet(session, first_year.teacher, LIBRARY["perpendicular-through-a-point"].document())
    assignment = Assignment(sheet=sheet, school_class=first_year, hints=2, hint_cost=10, position=99)
    session.add(assignment)
    session.flush()
    return work_of(session, assignment, first_year.students[0])


def do(session, work, step):
    store(session, work, KEY.format(len(work.operations)), len(work.operations), {"op": "add", "step": step})
    session.refresh(work, ["operation_rows"])


def test_a_hint_has_three_levels_and_the_last_is_the_step(session, work):
    first, second, third = (hinting.take(session, work) for _ in range(3))
    assert [one.level for one in (first, second, third)] == [1, 2, 3] and {one.left for one in (first, third)} == {1}
    assert first.step is None and not first.lit and second.lit and third.step["make"] == "circle"
    assert len({first.words, second.words, third.words}) == 3 and third.words.startswith("Next:")
    assert hinting.take(session, work).level == 3, "asked again it is the same"
    assert len(work.hints) == 1


def test_on_another_board_it_is_another_hint_until_none_is_left(session, work):
    step = next(one.step for one in [hinting.take(session, work) for _ in range(3)] if one.step)
    do(session, work, step)
    assert hinting.take(session, work).left == 0
    do(session, work, {"id": "z", "make": "circle", "from": ["P", "A"]})
    with pytest.raises(Refused, match="All hints"):
        hinting.take(session, work)
    assert [one.number for one in work.hints] == [0, 1]


def test_hints_followed_to_the_end_make_a_work_that_is_right_and_cost_what_was_said(session, work):
    work.assignment.hints = 20
    for _ in range(12):
        shown = [hinting.take(session, work) for _level in range(3)][-1]
        if shown.step is None:
            break
        do(session, work, shown.step)
    assert "hand it in" in shown.words
    attempt = handins.hand_in(session, work)
    taken = len(work.hints)
    assert attempt.outcome.value == "sound" and attempt.hints == taken and attempt.score == max(0, 100 - 10 * taken)


def test_what_was_taken_is_in_the_data_of_the_student_and_goes_with_the_work(session, work):
    hinting.take(session, work)
    data = personal_data.of_student(session, work.student)
    (kept,) = [one["hints"] for one in data["works"] if one["hints"]]
    assert kept[0]["level"] == 1 and len(kept[0]["levels"]) == 3
    session.delete(work)
    session.flush()
    assert session.scalars(select(HintTaken).where(HintTaken.work_id == work.id)).all() == []


def test_practice_has_hints_enough(session, first_year):
    assert hinting.allowed(Assignment(practice_key="midpoint", hints=0)) > 50
    assert session.scalars(select(SchoolClass)).first() and session.scalars(select(Person)).first()
