"""Scores for a learning platform: sent when they change, once, and as often as it takes."""

from __future__ import annotations

from datetime import timedelta

import pytest
from sqlalchemy import select, update

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.operations import add
from widepin.school.joining import scores
from widepin.school.models import Assignment, HandIn, Identity, Person, SentScore, now
from widepin.school.results import entering
from widepin.school.tasks.library import LIBRARY
from widepin.school.works import autosave, handins, reviewing
from widepin.web.jobs import joining

MIDPOINT = "midpoint"


@pytest.fixture
def link(visitor, standin):
    """A task of the first course, to which a student has come."""
    visitor("t-101").come().choose(MIDPOINT)
    visitor("s-201").come(link=1)
    return standin.courses["c-1"].links[1]


@pytest.fixture
def hand_in(school, link):
    """Hands in the sample solution, or nothing, for a student."""

    def done(subject="s-201", steps=None):
        with school() as session:
            student = session.scalars(select(Identity).where(Identity.subject == subject)).one().person
            work = autosave.work_of(session, session.scalars(select(Assignment)).one(), student)
            model = read_steps(LIBRARY[MIDPOINT].document()["model"])
            begun = len(work.operations)
            for after, step in enumerate(model if steps is None else model[:steps]):
                if after >= begun:
                    autosave.store(session, work, f"put-{after:06}", after, add(step))
            session.commit()
            session.refresh(work)
            attempt = handins.hand_in(session, work)
            session.commit()
            return attempt.id

    return done


@pytest.fixture
def send(tool):
    def sent():
        with tool.app_context():
            joining.send_scores()

    return sent


@pytest.fixture
def later(school):
    """What waits may be tried now."""

    def come():
        with school() as session:
            session.execute(update(SentScore).values(next_try=now() - timedelta(seconds=1)))
            session.commit()

    return come


def rows(school):
    with school() as session:
        return list(session.scalars(select(SentScore)))


def posted(standin):
    return [one for one in standin.requests if one.startswith("POST") and one.endswith("/scores")]


def test_a_hand_in_is_sent_once_with_its_comment(hand_in, send, link, standin, school):
    send()
    assert posted(standin) == [], "nobody has handed in"
    hand_in()
    send()
    result = link.results["s-201"]
    assert (result["scoreGiven"], result["scoreMaximum"]) == (100, 100)
    assert (result["activityProgress"], result["gradingProgress"]) == ("Completed", "FullyGraded")
    assert result["comment"] == "Correct in every position." and result["timestamp"].endswith("Z")
    send()
    send()
    assert len(posted(standin)) == 1, "nothing is sent twice"
    (row,) = rows(school)
    assert row.waiting is None and row.sent["percent"] == 100


def test_a_score_by_hand_and_a_return_correct_what_was_sent(hand_in, send, link, school, standin):
    number = hand_in()
    send()
    with school() as session:
        reviewing.set_score(session.get_one(HandIn, number), "70", "without its steps")
        session.commit()
    send()
    assert (link.results["s-201"]["scoreGiven"], link.results["s-201"]["comment"]) == (70, "without its steps")
    with school() as session:
        session.get_one(HandIn, number).work.returned = now()
        session.commit()
    send()
    assert link.results["s-201"]["gradingProgress"] == "Pending"
    assert link.results["s-201"]["comment"] == "Returned for revision."
    assert len(posted(standin)) == 3


def test_what_a_teacher_enters_counts_there_too(send, link, school, standin):
    with school() as session:
        student = session.scalars(select(Person).where(Person.name == "Anselm Rook")).one()
        entering.enter(session, session.scalars(select(Assignment)).one(), student, "paper", "85", "on paper")
        session.commit()
    send()
    assert (link.results["s-201"]["scoreGiven"], link.results["s-201"]["comment"]) == (85, "on paper")
    with school() as session:
        entering.enter(session, session.scalars(select(Assignment)).one(), student, "", "", "")
        session.commit()
    send()
    assert "scoreGiven" not in link.results["s-201"], "it is taken back"


def test_a_platform_that_is_away_is_told_later_and_once(hand_in, send, later, link, standin, school):
    standin.faults = {"away"}
    hand_in()
    for tries in (1, 2, 3):
        send()
        (row,) = rows(school)
        assert row.tries == tries and "status 500" in row.trouble and row.waiting["percent"] == 100
        wait = row.next_try - now()
        assert wait <= scores.pause(tries - 1) and wait > scores.pause(tries - 1) / 2, "each pause is longer"
        asked = len(standin.requests)
        send()
        assert len(standin.requests) == asked, "it waits"
        later()
    standin.faults = set()
    send()
    send()
    assert link.results["s-201"]["scoreGiven"] == 100 and len(posted(standin)) == 1
    (row,) = rows(school)
    assert (row.waiting, row.trouble, row.tries) == (None, "", 0)


def test_of_scores_that_change_while_a_platform_is_away_the_last_is_sent(hand_in, send, later, link, standin, school):
    standin.faults = {"away"}
    number = hand_in()
    send()
    with school() as session:
        reviewing.set_score(session.get_one(HandIn, number), "60", "late")
        session.commit()
    standin.faults = set()
    later()
    send()
    assert link.results["s-201"]["scoreGiven"] == 60 and len(posted(standin)) == 1


def test_a_course_that_vanished_is_tried_seldom_and_others_go_on(hand_in, send, standin, school, visitor):
    visitor("t-101").come("c-2").choose("perpendicular-bisector")
    hand_in()
    standin.courses.pop("c-1")
    send()
    (row,) = rows(school)
    assert "status 404" in row.trouble and row.next_try - now() > timedelta(hours=5)


def test_a_score_that_changes_back_before_it_is_sent_is_not_sent(hand_in, send, standin, school):
    number = hand_in()
    send()
    standin.faults = {"away"}
    for score in ("50", ""):
        with school() as session:
            reviewing.set_score(session.get_one(HandIn, number), score, "by mistake" if score else "")
            session.commit()
        send()
    assert rows(school)[0].waiting is None and len(posted(standin)) == 1


def test_a_link_that_takes_no_scores_gets_none(visitor, hand_in, send, standin, school):
    with school() as session:
        from widepin.school.models import PlatformLink

        session.scalars(select(PlatformLink)).one().line_item = ""
        session.commit()
    hand_in()
    send()
    assert posted(standin) == [] and rows(school) == []


def test_an_attempt_that_is_not_right_is_sent_with_what_became_of_it(hand_in, send, link):
    hand_in(steps=1)
    send()
    assert (
        link.results["s-201"]["scoreGiven"] < 100 and link.results["s-201"]["comment"] != "Correct in every position."
    )
    hand_in()
    send()
    assert link.results["s-201"]["scoreGiven"] == 100
