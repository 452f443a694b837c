"""Activity for a store that the school names: nothing without one, each hand-in once, and later where it is away."""

from __future__ import annotations

from datetime import timedelta

import pytest
from sqlalchemy import select, update

from tests.joining.conftest import serve
from tests.joining.test_scores import hand_in, link
from widepin.joining import xapi
from widepin.joining.http_client import NotReached
from widepin.joining.standins.store import KEY, SECRET, create_store
from widepin.running.mariadb import free_port
from widepin.school.joining import activity
from widepin.school.models import HandIn, Person, now
from widepin.school.refused import Refused
from widepin.web.jobs import joining

__all__ = ["hand_in", "link"]  # what a hand-in needs


@pytest.fixture
def store(tool):
    """The pretend store: its address and application."""
    port = free_port()
    app = create_store(f"http://localhost:{port}")
    server = serve(app, port)
    app.config["ADDRESS"] = f"http://localhost:{port}/xapi"
    yield app
    server.shutdown()


@pytest.fixture
def named(store, school):
    with school() as session:
        activity.set_store(session, None, store.config["ADDRESS"], KEY, SECRET, unsafe=True)
        session.commit()
    return store.extensions["statements"]


@pytest.fixture
def tell(tool, school):
    def later():
        with school() as session:
            session.execute(update(HandIn).values(handed_in=now() - timedelta(minutes=2)))
            session.commit()
        with tool.app_context():
            joining.tell_activity()

    return later


def test_nothing_is_told_where_no_store_is_named(hand_in, store, tell):
    hand_in()
    tell()
    assert store.extensions["statements"] == {}


def test_a_hand_in_is_told_once_without_a_name(hand_in, named, tell, tool):
    hand_in()
    tell()
    tell()
    (one,) = named.values()
    assert one["verb"]["id"].endswith("completed") and one["object"]["definition"]["name"]["en"]
    assert one["result"]["score"]["scaled"] == 1.0 and one["result"]["success"]
    assert "Anselm" not in str(one) and "Rook" not in str(one)
    assert one["actor"]["account"]["homePage"] == tool.config["ADDRESS"].rstrip("/")


def test_what_was_handed_in_before_is_not_told(hand_in, store, school, tell):
    hand_in()
    with school() as session:
        activity.set_store(session, None, store.config["ADDRESS"], KEY, SECRET, unsafe=True)
        session.commit()
    tell()
    assert store.extensions["statements"] == {}
    hand_in()
    tell()
    assert len(store.extensions["statements"]) == 1


def test_a_store_that_is_away_is_told_later_and_once(hand_in, named, store, tell, school):
    hand_in()
    store.extensions["away"] = True
    tell()
    with school() as session:
        there = activity.store(session)
        assert "status 503" in there["trouble"] and there["tries"] == 1
    store.extensions["away"] = False
    tell()
    assert named == {}, "it is left alone for a while"
    with school() as session:
        activity._change(session, {}, ("next_try",))
        session.commit()
    tell()
    tell()
    assert len(named) == 1
    with school() as session:
        assert "trouble" not in activity.store(session)


def test_what_is_no_store_is_said(store):
    xapi.greet(store.config["ADDRESS"], KEY, SECRET)
    with pytest.raises(NotReached, match="401"):
        xapi.greet(store.config["ADDRESS"], KEY, "wrong")
    with pytest.raises(NotReached):
        xapi.greet(store.config["ADDRESS"].removesuffix("xapi"), KEY, SECRET)


def test_what_is_filled_in_is_checked_and_can_be_taken_back(school):
    with school() as session:
        oda = session.scalars(select(Person)).one()
        for fields in (("http://x", "k", "s"), ("https://x", "", "s"), ("https://x", "k", "")):
            with pytest.raises(Refused):
                activity.set_store(session, oda, *fields)
        activity.set_store(session, oda, "https://x", "k", "s")
        activity.set_store(session, oda, "https://y", "k", "")
        assert activity.store(session)["secret"] == "s"
        activity.set_store(session, oda, "", "", "")
        assert activity.store(session) is None


def test_a_statement_that_is_sent_again_is_the_same():
    one = xapi.HandedIn(1, 2, 3, "T", 50, False, 4, now())
    assert xapi.statement(one, "https://a/") == xapi.statement(one, "https://a")
    assert xapi.statement(one, "https://a")["id"] != xapi.statement(one, "https://b")["id"]
