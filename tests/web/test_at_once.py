"""Students at once, tabs at once, and a database that gives a transaction up: nobody sees an error, nothing is lost."""

from concurrent.futures import ThreadPoolExecutor
from functools import update_wrapper
from threading import Barrier

import pytest
from sqlalchemy import func, select
from sqlalchemy.exc import OperationalError

from widepin.school import database
from widepin.school.database import TRY_AGAIN, make_sessions
from widepin.school.models import Assignment, HandIn, Membership, Operation, Person, TaskSheet, Work
from widepin.web.tasks import views

STUDENTS, OPERATIONS = 6, 12


@pytest.fixture
def assignment_id(school):
    """A task of the second year, of which new students here are."""
    with make_sessions(school)() as session:
        own = select(Assignment.id).join(TaskSheet).join(Membership, Membership.class_id == Assignment.class_id)
        veteran = own.join(Person, Person.id == Membership.person_id).where(Person.login == "ilse.marran")
        return session.scalars(veteran.where(TaskSheet.title.startswith("Roundel in a gable"))).first()


def at_once(*calls):
    """What the calls give, all begun in the same moment."""
    barrier = Barrier(len(calls))

    def run(call):
        barrier.wait()
        return call()

    with ThreadPoolExecutor(len(calls)) as pool:
        return list(pool.map(run, calls))


def point(number):
    return {"op": "add", "step": {"id": f"P{number}", "make": "free_point", "at": [number, 1]}}


def save(client, assignment_id, number, after=None):
    body = {"key": f"key-{number:06}", "after": number if after is None else after, "operation": point(number)}
    return client.post(f"/tasks/{assignment_id}/operations", json=body)


def count(school, assignment_id, login, what):
    with make_sessions(school)() as session:
        own = select(func.count()).select_from(what).join(Work).join(Person, Person.id == Work.student_id)
        return session.scalar(own.where(Person.login == login, Work.assignment_id == assignment_id))


def test_students_who_save_at_once_are_all_answered(school, as_person, fresh_student, assignment_id):
    clients = [as_person(fresh_student(f"at-once-{n}")) for n in range(STUDENTS)]

    def saves(client):
        return lambda: [save(client, assignment_id, number).status_code for number in range(OPERATIONS)]

    answers = at_once(*map(saves, clients))
    assert {status for of_one in answers for status in of_one} == {200}
    assert all(count(school, assignment_id, f"at-once-{n}", Operation) == OPERATIONS for n in range(STUDENTS))


def test_two_tabs_that_begin_a_work_at_once_get_the_same(school, as_person, fresh_student, assignment_id):
    for turn in range(6):
        login = fresh_student(f"two-tabs-{turn}")
        tabs = [as_person(login), as_person(login)]
        answers = at_once(*(lambda tab=tab: tab.post(f"/tasks/{assignment_id}/here") for tab in tabs))
        assert [answer.status_code for answer in answers] == [200, 200]
        with make_sessions(school)() as session:
            own = select(func.count()).select_from(Work).join(Person, Person.id == Work.student_id)
            assert session.scalar(own.where(Person.login == login)) == 1


def test_tabs_that_save_at_once_lose_nothing(school, as_person, fresh_student, assignment_id):
    """One is stored; the other is told what it missed, or its own operation is stored behind it."""
    login = fresh_student("tabs-save")
    one, other = as_person(login), as_person(login)
    assert save(one, assignment_id, 0).status_code == 200
    for number in range(1, 9, 2):
        statuses = at_once(
            lambda: save(one, assignment_id, number, after=number).status_code,  # noqa: B023
            lambda: save(other, assignment_id, number + 1, after=number).status_code,  # noqa: B023
        )
        assert sorted(statuses) == [200, 409]
        behind = (one, number) if statuses[0] == 409 else (other, number + 1)
        assert save(behind[0], assignment_id, behind[1], after=number + 1).status_code == 200


def test_hand_ins_at_once_are_attempts_in_a_row(school, as_person, fresh_student, assignment_id):
    login = fresh_student("hands-in-twice")
    tabs = [as_person(login) for _ in range(3)]
    assert save(tabs[0], assignment_id, 0).status_code == 200
    asks = {"Accept": "application/json"}
    answers = at_once(*(lambda tab=tab: tab.post(f"/tasks/{assignment_id}/hand-in", headers=asks) for tab in tabs))
    assert [answer.status_code for answer in answers] == [200, 200, 200]
    assert count(school, assignment_id, login, HandIn) == 3


class Refuses:
    """A view whose first calls the database refuses."""

    def __init__(self, view, times, number):
        self.view, self.times, self.number, self.calls = view, times, number, 0
        update_wrapper(self, view)

    def __call__(self, **arguments):
        self.calls += 1
        answer = self.view(**arguments)
        if self.calls <= self.times:
            raise OperationalError("insert", {}, Exception(self.number, "given up"))
        return answer


@pytest.mark.parametrize("number", sorted(TRY_AGAIN))
def test_a_transaction_that_the_database_gave_up_is_done_once_more(
    app, as_person, fresh_student, assignment_id, number
):
    client = as_person(fresh_student(f"given-up-{number}"))
    refuses = Refuses(views.store, 1, number)
    app.view_functions["tasks.store"] = refuses
    try:
        assert save(client, assignment_id, 0).status_code == 200
        assert save(client, assignment_id, 1).status_code == 200, "what the first try did was taken back"
    finally:
        app.view_functions["tasks.store"] = views.store
    assert refuses.calls == 3


@pytest.mark.parametrize(("number", "often"), [(1213, True), (1064, False)])
def test_it_is_not_tried_for_ever_nor_after_faults_of_our_own(
    app, as_person, fresh_student, assignment_id, number, often, monkeypatch
):
    monkeypatch.setattr(database, "ALONE", 0.2)
    client = as_person(fresh_student(f"fails-{number}"))
    refuses = Refuses(views.store, 1_000_000, number)
    app.view_functions["tasks.store"] = refuses
    try:
        answer = save(client, assignment_id, 0)
        assert answer.status_code == 503 and "Nothing can be stored" in answer.text
    finally:
        app.view_functions["tasks.store"] = views.store
    assert (refuses.calls > 2) is often
