"""Helping who is stuck: a hint that the teacher sends, how far somebody is, and what fewest moves are told."""

import pytest
from sqlalchemy import select

from widepin.school.models import Assignment, HintTaken, Person, SchoolClass
from widepin.school.states import HowFar, Showing
from widepin.school.tasks.assigning import assign
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.settings import proposed
from widepin.school.tasks.sheets import new_sheet
from widepin.school.works.autosave import work_of


@pytest.fixture
def stuck(app):
    """The numbers of an assignment and of a work on it that is empty."""
    with app.extensions["sessions"]() as session:
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        sheet = new_sheet(session, school_class.teacher, LIBRARY["midpoint"].document())
        made = assign(session, sheet, school_class, proposed())
        student = session.scalars(select(Person).where(Person.login == "bram.idris")).one()
        work = work_of(session, made, student)
        session.commit()
        numbers = made.id, work.id
    yield numbers
    with app.extensions["sessions"]() as session:
        session.delete(session.get(Assignment, numbers[0]))
        session.commit()


def test_a_hint_is_looked_at_and_sent_a_level_at_a_time_and_costs_nothing(app, as_person, stuck):
    assignment, work = stuck
    teacher, student = as_person("corin.hale"), as_person("bram.idris")
    found = teacher.get(f"/works/{work}/hint").json
    assert found["can_be_sent"] and len(found["levels"]) == 3
    assert student.post(f"/tasks/{assignment}/here").json["hint"] is None  # nothing is told by looking
    assert found["levels"][0] in teacher.post(f"/works/{work}/hint").json["said"]
    told = student.post(f"/tasks/{assignment}/here").json["hint"]
    assert (told["level"], told["words"], told["step"]) == (1, found["levels"][0], None)
    teacher.post(f"/works/{work}/hint")
    teacher.post(f"/works/{work}/hint")
    assert student.post(f"/tasks/{assignment}/here").json["hint"]["step"]["make"] == "circle"
    with app.extensions["sessions"]() as session:
        (kept,) = session.scalars(select(HintTaken).where(HintTaken.work_id == work))
        assert kept.sent and kept.level == 3
    step = {"id": "c", "make": "circle", "from": ["A", "B"]}
    sent = {"key": "helped-on", "after": 0, "operation": {"op": "add", "step": step}}
    assert student.post(f"/tasks/{assignment}/operations", json=sent).status_code == 200
    assert student.post(f"/tasks/{assignment}/here").json["hint"] is None  # it was about the board as it was


def test_how_far_somebody_is_is_told_where_the_teacher_says(app, as_person, stuck):
    assignment, _work = stuck
    student = as_person("bram.idris")
    assert student.post(f"/tasks/{assignment}/how-far").status_code == 422
    assert "How far am I?" not in student.get(f"/tasks/{assignment}").text
    with app.extensions["sessions"]() as session:
        session.get(Assignment, assignment).how_far = HowFar.YES
        session.commit()
    assert student.post(f"/tasks/{assignment}/how-far").json == {"said": "3 moves are left on a way that is known."}
    assert "How far am I?" in student.get(f"/tasks/{assignment}").text


def test_the_fewest_moves_are_told_when_the_teacher_says(app, as_person, stuck):
    assignment, _work = stuck
    student = as_person("bram.idris")
    assert "moves are possible" not in student.get(f"/tasks/{assignment}").text
    with app.extensions["sessions"]() as session:
        session.get(Assignment, assignment).possible = Showing.BEFORE
        session.commit()
    assert "3 moves are possible." in student.get(f"/tasks/{assignment}").text
    with app.extensions["sessions"]() as session:
        session.get(Assignment, assignment).possible = Showing.AFTER
        session.commit()
    assert "moves are possible" not in student.get(f"/tasks/{assignment}").text


def test_only_who_teaches_the_class_sends_hints(as_person, stuck):
    _assignment, work = stuck
    for login in ("bram.idris", "oda.finch"):
        other = as_person(login)
        assert other.get(f"/works/{work}/hint").status_code == other.post(f"/works/{work}/hint").status_code == 404


def test_a_task_of_the_library_says_what_a_search_found_and_shows_a_shorter_way(as_person):
    teacher = as_person("corin.hale")
    said = teacher.get("/library/midpoint").text
    assert "It can be done in 3 moves. No shorter way exists" in said and "The shortest way that is known" not in said
    said = teacher.get("/library/triangle-sas").text
    assert "The sample solution takes 5 moves. It can be done in 3 moves." in said
    assert "The shortest way that is known" in said
