"""A teacher's first page: what is new, what is due, who needs help."""

from datetime import timedelta

import pytest
from sqlalchemy import select, update

from tests.counting import queries
from widepin.judge.verdict import Outcome
from widepin.school.lessons import today
from widepin.school.models import HandIn, Person, SchoolClass, Work, now
from widepin.school.works.reviewing import comment


@pytest.fixture
def teacher(session):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one().teacher


@pytest.fixture
def some_task(session, teacher):
    """The first task of the first year that somebody has handed in, as it stands today."""
    found = today.today_of(session, teacher)
    row = next(one for one in found.classes if one.school_class.name == "First year")
    return next(task for task in row.tasks if task.handed_in > 1)


def headlines(session, teacher, at=None):
    return [hint.headline for hint in today.today_of(session, teacher, at).hints]


def test_every_student_of_a_task_is_counted_once(some_task):
    assert some_task.hold + some_task.to_mend + some_task.open == len(some_task.standings)


def test_what_came_in_since_the_visit_before_is_new(session, teacher, some_task):
    at = now()
    teacher.visited = teacher.visited_before = None
    assert today.today_of(session, teacher, at).since is None  # a first visit: nothing is new, or all
    later = at + timedelta(hours=2)
    latest = some_task.standings[[one.latest is not None for one in some_task.standings].index(True)].latest
    latest.handed_in = at + timedelta(hours=1)
    found = today.today_of(session, teacher, later)
    new = {task.assignment.id: task.new for row in found.classes for task in row.tasks}
    assert found.since == at and new[some_task.assignment.id] == 1
    assert today.today_of(session, teacher, later + timedelta(minutes=5)).since == at  # still the same visit


def test_a_mistake_that_many_make_is_spoken_of(session, teacher, some_task):
    for one in some_task.standings:
        if one.work and one.work.hand_ins:
            for attempt in one.work.hand_ins:
                attempt.outcome = Outcome.EYEBALLED
    count = sum(one.best is not None for one in some_task.standings)
    said = f"{count} works placed by eye" in headlines(session, teacher)
    assert said == (count >= today.ALIKE)


def test_who_gets_no_further_needs_help(session, teacher, some_task):
    at = now()
    one = next(one for one in some_task.standings if one.work is not None)
    for attempt in one.work.hand_ins:
        attempt.outcome = Outcome.WRONG
    one.work.seen, one.work.touched = at, at - timedelta(minutes=10)
    assert any(one.student.name in words and "help" in words for words in headlines(session, teacher, at))


def test_the_last_word_of_a_student_waits_for_an_answer(session, teacher):
    attempt = session.scalars(select(HandIn).join(HandIn.work).where(~HandIn.comments.any())).first()
    teacher = attempt.work.assignment.school_class.teacher
    before = [words for words in headlines(session, teacher) if "answer" in words]
    comment(session, attempt, attempt.work.student, "Why is that?")
    session.expire_all()
    (after,) = [words for words in headlines(session, teacher) if "answer" in words]
    assert before != [after]
    comment(session, attempt, teacher, "Look at D.")
    session.expire_all()
    assert [words for words in headlines(session, teacher) if "answer" in words] == before


def test_what_is_due_within_a_day_says_how_many_have_nothing(session, teacher, some_task):
    some_task.assignment.due = now() + timedelta(hours=5)
    said = "Due within a day" in headlines(session, teacher)
    assert said == bool(some_task.open)


def test_what_is_due_next_comes_first(session, teacher):
    at = now()
    for row in today.today_of(session, teacher, at).classes:
        keys = [today.nearness(task.assignment, at) for task in row.tasks]
        assert keys == sorted(keys)


def test_it_takes_a_fixed_number_of_queries_also_while_everybody_is_at_work(session, teacher):
    session.execute(update(Work).values(seen=now(), opened=now()))
    session.expire_all()
    person = session.get_one(Person, teacher.id)
    assert queries(session.get_bind(), lambda: today.today_of(session, person)) <= 14


def test_on_a_first_visit_nothing_is_new(session, teacher):
    teacher.visited = teacher.visited_before = None
    found = today.today_of(session, teacher, now())
    assert {task.new for row in found.classes for task in row.tasks} == {0}
