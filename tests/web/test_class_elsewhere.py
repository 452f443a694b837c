"""A class in another time zone: what is typed and said on its pages, and on those of its students, is on its clock."""

from datetime import datetime

import pytest
from sqlalchemy import select

from widepin.documents import clock
from widepin.school.models import Assignment, SchoolClass


@pytest.fixture
def elsewhere(app):
    """The number of a class, which has the school's time zone again afterwards; and of a task that it has."""
    with app.extensions["sessions"]() as session:
        found = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        numbers, due = (found.id, found.assignments[-1].id), found.assignments[-1].due
    yield numbers
    with app.extensions["sessions"]() as session:
        session.get(SchoolClass, numbers[0]).time_zone = None
        session.get(Assignment, numbers[1]).due = due
        session.commit()


def test_times_of_a_class_are_typed_and_said_on_its_own_clock(app, as_person, elsewhere):
    number, assignment = elsewhere
    teacher, student = as_person("corin.hale"), as_person("bram.idris")
    assert teacher.post(f"/classes/{number}/time-zone", data={"time_zone": "asia/kolkata"}).status_code == 302
    page = teacher.get(f"/assignments/{assignment}").text
    assert "times are those of Asia/Kolkata" in page and 'data-time-zone="Asia/Kolkata"' in page
    typed = {"due": "2031-05-06T12:00", "late": "taken", "passed": "yes"}
    assert teacher.post(f"/assignments/{assignment}/terms", data=typed).status_code == 302
    with app.extensions["sessions"]() as session:
        assert session.get(Assignment, assignment).due == datetime(2031, 5, 6, 6, 30)
    assert 'data-time-zone="Asia/Kolkata"' in student.get("/tasks").text
    assert f'data-time-zone="{clock.school_zone()}"' in teacher.get("/today").text


def test_a_zone_that_there_is_not_is_refused_with_one_that_is_meant(app, as_person, elsewhere):
    teacher = as_person("corin.hale")
    for typed, said in (("Europe/Lisboa", "Did you mean Europe/Lisbon?"), ("Nowhere", "There is no time zone Nowhere")):
        answer = teacher.post(f"/classes/{elsewhere[0]}/time-zone", data={"time_zone": typed})
        assert answer.status_code == 422 and said in answer.text
    with app.extensions["sessions"]() as session:
        assert session.get(SchoolClass, elsewhere[0]).time_zone is None
