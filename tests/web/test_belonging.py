"""What belongs to a task, through its pages: wrong solutions, spoken words, a colleague's copy."""

import re
from io import BytesIO

import pytest
from sqlalchemy import select

from widepin.school.models import Assignment, Person, Recording, SchoolClass, TaskSheet
from widepin.school.states import Showing
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet

BY_EYE = [{"id": "S", "make": "free_point", "at": [4.0, 4.0]}]
SOUND = b"OggS" + bytes(300)


@pytest.fixture
def sheet(app):
    """The number of a task of the first year's teacher that no class has."""
    with app.extensions["sessions"]() as session:
        owner = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
        made = new_sheet(session, owner, LIBRARY["centroid"].document())
        session.commit()
        return made.id


def stored(app, number):
    with app.extensions["sessions"]() as session:
        return session.get(TaskSheet, number)


def test_a_wrong_solution_is_kept_checked_and_removed(app, as_person, sheet):
    teacher = as_person("corin.hale")
    judged = teacher.post(f"/sheets/{sheet}/judge", data={"steps": '[{"id":"S","make":"free_point","at":[4,4]}]'}).json
    kept = teacher.post(judged["keep_wrong"], json={"steps": BY_EYE}).json["wrong"]
    assert [one["steps"] for one in kept] == [BY_EYE] == stored(app, sheet).wrong
    found = teacher.post(f"/sheets/{sheet}/check_task?quick").json
    assert found["wrong"] == [{"words": "is rejected", "is_well": True}] and found["well"] and found["at_steps"] == {}
    teacher.post(f"/sheets/{sheet}", json={"document": {"conditions": [{"rel": "distinct", "of": ["S", "A"]}]}})
    found = teacher.post(f"/sheets/{sheet}/check_task?quick").json
    assert found["at_steps"] == {"check": "a wrong solution passes"} and not found["well"]
    teacher.post(f"/sheets/{sheet}", json={"document": {"given": LIBRARY["midpoint"].document()["given"], "model": []}})
    assert "error" in teacher.post(f"/sheets/{sheet}/wrong", json={"steps": [{"id": "l", "make": "line"}]}).json
    assert teacher.post(kept[0]["remove"]).json == {"wrong": []} and stored(app, sheet).wrong == []
    assert teacher.post(kept[0]["remove"]).status_code == 422


@pytest.fixture
def spoken(app, as_person, sheet):
    """A demonstration in which something is said; the digest of that."""
    teacher = as_person("corin.hale")
    sent = teacher.post(f"/sheets/{sheet}/demonstration/voice", data={"sound": (BytesIO(SOUND), "a.ogg")})
    frames = [{"shown": 0, "words": "Look.", "own": True, "voice": sent.json["voice"]}]
    assert teacher.post(f"/sheets/{sheet}/demonstration/frames", json={"frames": frames}).status_code == 200
    return sent.json["voice"]


def test_what_is_said_is_heard_by_whoever_may_see_the_demonstration(app, as_person, sheet, spoken):
    teacher, other, student = map(as_person, ("corin.hale", "oda.finch", "bram.idris"))
    heard = teacher.get(f"/sheets/{sheet}/demonstration/voice/{spoken}")
    assert (heard.data, heard.mimetype) == (SOUND, "audio/ogg")
    assert other.get(f"/library/school/{sheet}/demonstration/voice/{spoken}").status_code == 404
    teacher.post(f"/sheets/{sheet}/share", data={"shared": "yes"})
    assert other.get(f"/library/school/{sheet}/demonstration/voice/{spoken}").data == SOUND
    with app.extensions["sessions"]() as session:
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        made = Assignment(school_class=school_class, sheet_id=sheet, position=99, demonstration=Showing.NEVER)
        session.add(made)
        session.commit()
        number = made.id
    address = f"/tasks/{number}/demonstration/voice/{spoken}"
    assert student.get(address).status_code == 403
    with app.extensions["sessions"]() as session:
        session.get(Assignment, number).demonstration = Showing.BEFORE
        session.commit()
    assert student.get(address).data == SOUND
    assert student.get(address.replace(spoken, "0" * 64)).status_code == 404
    with app.extensions["sessions"]() as session:
        session.delete(session.get(Assignment, number))
        session.commit()


def test_the_file_of_a_demonstration_speaks_without_a_network(as_person, sheet, spoken):
    whole = as_person("corin.hale").get(f"/sheets/{sheet}/demonstration.html").text
    assert "data:audio/ogg;base64," in whole and spoken in whole


def test_a_colleague_sees_whose_the_task_is_and_copies_it(app, as_person):
    with app.extensions["sessions"]() as session:
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        colleague = session.scalars(select(Person).where(Person.login == "oda.finch")).one()
        school_class.colleagues.append(colleague)
        session.commit()
        assignment, owner = school_class.assignments[0], school_class.teacher.name
        number, document = assignment.id, assignment.sheet.document
    other = as_person("oda.finch")
    said = other.get(f"/assignments/{number}").text
    assert f"The task is {owner}’s." in said and "Change the task" not in said
    own = int(re.search(r"/sheets/(\d+)", other.post(f"/assignments/{number}/copy-task").location)[1])
    made = stored(app, own)
    assert made.document == document and made.owner_id != stored(app, made.copied_from).owner_id
    with app.extensions["sessions"]() as session:
        session.delete(session.get(TaskSheet, own))
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        school_class.colleagues.clear()
        session.commit()


def test_recordings_are_among_what_is_kept_of_a_teacher(app, as_person, spoken):
    administrator = as_person("oda.finch")
    with app.extensions["sessions"]() as session:
        owner = session.scalars(select(Person.id).where(Person.login == "corin.hale")).one()
        assert session.get(Recording, (owner, spoken)) is not None
    data = administrator.get(f"/administration/people/{owner}/data.json").json
    assert spoken in [one["digest"] for one in data["recordings"]]
