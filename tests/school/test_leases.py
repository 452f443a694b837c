"""What one process does alone: leases that run out, and transactions that are done again."""

import threading
import time

import pytest
from sqlalchemy import delete, func, select
from sqlalchemy.exc import OperationalError

from widepin.school import database, leases
from widepin.school.database import in_transaction, make_sessions, tried
from widepin.school.leases import alone
from widepin.school.models import Lease


@pytest.fixture
def sessions(school):
    made = make_sessions(school)
    in_transaction(made, lambda session: session.execute(delete(Lease)))
    return made


def test_one_has_it_and_the_next_when_it_is_given_back(sessions):
    with alone(sessions, "sweeping") as first, alone(sessions, "sweeping") as second, alone(sessions, "other") as third:
        assert (first, second, third) == (True, False, True)
    with alone(sessions, "sweeping") as again:
        assert again


def test_it_is_made_longer_while_something_is_done_and_runs_out_where_the_holder_has_died(sessions):
    with alone(sessions, "long", seconds=1.0) as had:
        assert had
        time.sleep(2.5)
        with alone(sessions, "long") as other:
            assert not other, "it is held for as long as that takes"
    assert in_transaction(sessions, lambda session: leases.take(session, "short", "dies", 0.5))
    time.sleep(0.7)
    with alone(sessions, "short") as next_one:
        assert next_one


def test_of_many_at_once_one_has_it(sessions):
    barrier, had = threading.Barrier(6), []

    def ask(number):
        barrier.wait()
        if in_transaction(sessions, lambda session: leases.take(session, "wanted", f"holder {number}")):
            had.append(number)

    threads = [threading.Thread(target=ask, args=(number,)) for number in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(had) == 1
    with sessions() as session:
        assert leases.held(session, "want") == [("wanted", f"holder {had[0]}")]


def test_a_holder_may_take_it_again_and_only_the_holder_gives_it_back(sessions):
    with sessions() as session:
        assert leases.take(session, "mine", "me") and leases.take(session, "mine", "me")
        leases.give_back(session, "mine", "somebody else")
        session.commit()
        assert session.scalar(select(func.count()).select_from(Lease).where(Lease.name == "mine")) == 1


class GivenUp:
    """A transaction that the database gives up, so many times."""

    def __init__(self, times, number):
        self.left, self.number = times, number

    def __call__(self):
        if self.left:
            self.left -= 1
            raise OperationalError("commit", {}, Exception(self.number, "given up"))
        return "stored"


def test_a_transaction_is_done_again_as_long_as_it_is_given_up(sessions):
    again: list[Exception] = []
    assert tried(sessions, GivenUp(5, 1213), again.append) == "stored"
    assert len(again) == 5


def test_where_there_is_one_server_and_it_cannot_be_reached_that_is_told_at_once(sessions, monkeypatch):
    with pytest.raises(OperationalError):
        tried(sessions, GivenUp(1, 2003), lambda error: None)
    monkeypatch.setattr(database, "has_several", lambda engine: True)
    assert tried(sessions, GivenUp(2, 2003), lambda error: None) == "stored"
