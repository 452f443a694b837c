"""What is new for a student of a task: told until it is seen, and the order of the tasks at home."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.judge.verdict import Outcome
from widepin.school.models import Assignment, Comment, HandIn, Work, now
from widepin.school.results import news
from widepin.school.results.news import News
from widepin.school.results.progress import best_of, in_order_of_work, to_do
from widepin.school.states import Release
from widepin.school.tasks import sheets


@pytest.fixture
def work(session, first_year):
    attempt = session.scalars(select(HandIn).where(HandIn.outcome == Outcome.SOUND)).first()
    attempt.work.looked = {}
    attempt.work.assignment.solution = attempt.work.assignment.shortest = Release.NEVER
    look(session, attempt.work)
    return attempt.work


def look(session, work):
    news.look(session, work, best_of(work.hand_ins), now())
    session.flush()


def news_of(session, work):
    return next(one.news for one in to_do(session, work.student) if one.assignment.id == work.assignment_id)


def test_a_comment_is_new_until_it_is_seen(session, work):
    teacher = work.assignment.school_class.teacher
    assert news_of(session, work) == []
    session.add(Comment(attempt=work.hand_ins[-1], author=teacher, text="Well set out."))
    session.flush()
    assert news_of(session, work) == [News.COMMENT]
    look(session, work)
    assert news_of(session, work) == []


def test_a_comment_of_ones_own_is_no_news(session, work):
    session.add(Comment(attempt=work.hand_ins[-1], author=work.student, text="I see."))
    session.flush()
    assert news_of(session, work) == []


def test_a_return_a_solution_and_a_version_are_new_until_they_are_seen(session, work):
    work.returned = now()
    assert news_of(session, work) == [News.RETURNED]
    look(session, work)
    work.assignment.solution = Release.DUE
    work.assignment.due = now() - timedelta(hours=1)
    assert news_of(session, work) == [News.SOLUTION]
    look(session, work)
    work.assignment.sheet = sheets.change(session, work.assignment.sheet, {"text": "Anew."}, None, None)
    session.flush()
    assert news_of(session, work) == [News.VERSION]
    look(session, work)
    assert news_of(session, work) == []


def test_works_of_before_have_nothing_new(session, work):
    work.looked = None
    work.returned = now()
    assert news_of(session, work) == []


def test_news_come_first_then_what_is_open_by_its_date_then_what_is_done(session, work):
    rows = to_do(session, work.student)
    work.returned = now()
    ordered = in_order_of_work(to_do(session, work.student))
    assert ordered[0].assignment.id == work.assignment_id and len(ordered) == len(rows)
    rest = [row for row in ordered[1:] if not row.closed]
    assert [row.is_done for row in rest] == sorted(row.is_done for row in rest)
    dates = [row.assignment.due for row in rest if not row.is_done and row.assignment.due]
    assert dates == sorted(dates)


def test_what_was_handed_in_late_is_said(session, work):
    work.assignment.due = work.hand_ins[-1].handed_in + timedelta(hours=1)
    row = next(one for one in to_do(session, work.student) if one.assignment.id == work.assignment_id)
    assert not row.is_late
    work.assignment.due = work.hand_ins[-1].handed_in - timedelta(hours=1)
    assert row.is_late and session.get(Assignment, work.assignment_id) is row.assignment


def test_only_a_version_needs_one_that_was_seen_before():
    state: dict[str, object] = {News.COMMENT: 4, News.RETURNED: None, News.SOLUTION: [], News.VERSION: 7}
    assert news.unseen(Work(looked={}), state) == [News.COMMENT]
    assert news.unseen(Work(looked={News.COMMENT: 4, News.VERSION: 6}), state) == [News.VERSION]
    assert news.unseen(Work(looked={}), state | {News.SOLUTION: ["sample"]}) == [News.COMMENT, News.SOLUTION]
