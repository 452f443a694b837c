"""Calendars of due dates: a secret address, which can be made anew and ended, and what it tells to whom."""

import re
from datetime import UTC, timedelta

import icalendar
import pytest
from sqlalchemy import select

from widepin.school.lessons import due_dates
from widepin.school.models import Assignment, Person, SchoolClass, now

TEACHER, STUDENT = "corin.hale", "bram.idris"


@pytest.fixture
def first_year(app):
    """Changes assignments of the first year, and changes them back."""
    with app.extensions["sessions"]() as session:
        found = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        before = [(one.id, one.opens, one.due) for one in found.assignments]
        yield session, found
        session.rollback()
        for number, opens, due in before:
            one = session.get_one(Assignment, number)
            one.opens, one.due, one.chosen = opens, due, []
        for login in (TEACHER, STUDENT):
            session.scalars(select(Person).where(Person.login == login)).one().calendar_number = 0
        session.commit()


def address_of(client):
    client.post("/calendar")
    return re.search(r'value="http://localhost(/calendar/\d+/\w+\.ics)"', client.get("/calendar").text)[1]


def entries(answer):
    assert answer.status_code == 200 and answer.mimetype == "text/calendar"
    return icalendar.Calendar.from_ical(answer.data).walk("VEVENT")


def test_due_dates_are_told_to_whoever_knows_the_address(app, as_person, first_year):
    session, found = first_year
    one = found.assignments[0]
    one.due, one.opens = now().replace(microsecond=0) + timedelta(days=3), None
    session.commit()
    for login, link in ((STUDENT, f"/tasks/{one.id}"), (TEACHER, f"/assignments/{one.id}")):
        told = {str(entry["UID"]): entry for entry in entries(app.test_client().get(address_of(as_person(login))))}
        entry = told[f"assignment-{one.id}@localhost"]
        assert entry["SUMMARY"] == one.sheet.title and found.name in entry["DESCRIPTION"]
        assert entry.decoded("DTSTART") == one.due.replace(tzinfo=UTC)
        assert entry["URL"] == f"http://localhost{link}"


def test_an_address_is_made_anew_and_ended(app, as_person, first_year):
    client, stranger = as_person(STUDENT), app.test_client()
    first = address_of(client)
    second = address_of(client)
    assert first != second
    assert stranger.get(first).status_code == 404 and stranger.get(second).status_code == 200
    client.post("/calendar/end")
    assert stranger.get(second).status_code == 404
    assert "Make an address" in client.get("/calendar").text
    assert address_of(client) not in (first, second)


def test_another_number_or_secret_tells_nothing(app, as_person, first_year):
    number, secret = re.match(r"/calendar/(\d+)/(\w+)\.ics", address_of(as_person(STUDENT))).groups()
    stranger = app.test_client()
    for path in (f"{int(number) + 1}/{secret}", f"{number}/{secret[:-1]}", f"{number}/{secret}0", f"{number}/é", "0/x"):
        assert stranger.get(f"/calendar/{path}.ics").status_code == 404


def test_who_has_left_has_no_calendar(app, as_person, first_year):
    session, _found = first_year
    path = address_of(as_person(STUDENT))
    person = session.scalars(select(Person).where(Person.login == STUDENT)).one()
    person.left = now()
    session.commit()
    assert app.test_client().get(path).status_code == 404
    person.left = None
    session.commit()


def test_students_see_their_own_tasks_once_they_are_open(first_year):
    session, found = first_year
    student = session.scalars(select(Person).where(Person.login == STUDENT)).one()
    other = next(one for one in found.students if one is not student)
    shown, closed, of_other, long_ago, without = found.assignments[:5]
    for one in (shown, closed, of_other):
        one.due, one.opens, one.chosen = now() + timedelta(days=9), None, []
    closed.opens = now() + timedelta(days=1)
    of_other.chosen = [other]
    long_ago.due, long_ago.opens = now() - due_dates.KEPT - timedelta(days=1), None
    without.due = None
    session.flush()
    told = {one.number for one in due_dates.of(session, student)}
    assert shown.id in told and not told & {closed.id, of_other.id, long_ago.id, without.id}
    told = {one.number for one in due_dates.of(session, found.teacher)}
    assert {shown.id, closed.id, of_other.id} <= told and not told & {long_ago.id, without.id}
