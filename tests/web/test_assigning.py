"""Giving a task to classes: nobody gets it by chance, and for a minute it can be taken back."""

import re

import pytest
from sqlalchemy import select

from widepin.school.models import Assignment, Person, Removal, SchoolClass, TaskSheet
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet
from widepin.web.sheets import just_assigned


@pytest.fixture
def sheet(app):
    """The number of a task of the first year's teacher that no class has."""
    with app.extensions["sessions"]() as session:
        owner = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
        made = new_sheet(session, owner, LIBRARY["centroid"].document() | {"title": "Centre of a boss"})
        session.commit()
        return made.id


@pytest.fixture
def classes(app):
    """The numbers of both classes, by name."""
    with app.extensions["sessions"]() as session:
        found = session.scalars(select(SchoolClass).where(SchoolClass.name.in_(["First year", "Second year"])))
        return {one.name: one.id for one in found}


def given_to(app, sheet):
    with app.extensions["sessions"]() as session:
        return set(session.scalars(select(Assignment.class_id).where(Assignment.sheet_id == sheet)))


def ticked(page):
    return re.findall(r'name="class" value="(\d+)" checked', page)


def test_no_class_is_ticked_but_the_one_that_was_asked_for(app, as_person, sheet, classes):
    teacher = as_person("corin.hale")
    assert ticked(teacher.get(f"/sheets/{sheet}/assign").text) == []
    second = classes["Second year"]
    assert ticked(teacher.get(f"/sheets/{sheet}/assign?class_id={second}").text) == [str(second)]
    assert teacher.post(f"/sheets/{sheet}/assign", data={"feedback": "break"}).status_code == 422
    assert given_to(app, sheet) == set()


def test_what_was_assigned_just_now_is_taken_back_with_all_classes(app, as_person, sheet, classes):
    teacher, both = as_person("corin.hale"), set(classes.values())
    teacher.post(f"/sheets/{sheet}/assign", data={"class": [str(one) for one in both], "feedback": "break"})
    assert given_to(app, sheet) == both and "Take it back" in teacher.get("/classes").text
    answer = teacher.post("/sheets/assigned/take-back", follow_redirects=True)
    assert "is taken back from First year and Second year" in answer.text and given_to(app, sheet) == set()
    assert "more than a minute ago" in teacher.post("/sheets/assigned/take-back", follow_redirects=True).text
    with app.extensions["sessions"]() as session:
        for one in session.scalars(select(Removal).where(Removal.name == "Centre of a boss")):
            session.delete(one)
        session.commit()


def test_a_task_that_does_not_fit_together_is_assigned_when_that_is_said_once_more(app, as_person, sheet, classes):
    teacher, first = as_person("corin.hale"), classes["First year"]
    with app.extensions["sessions"]() as session:
        found = session.get(TaskSheet, sheet)
        found.document = {**found.document, "budget": {"moves": 1}}
        found.wrong = [found.document["model"]]
        session.commit()
    sent = {"class": str(first), "feedback": "break"}
    asked = teacher.post(f"/sheets/{sheet}/assign", data=sent)
    assert asked.status_code == 422 and given_to(app, sheet) == set()
    assert "The move limit is 1 moves" in asked.text and "Wrong solution 1 would pass" in asked.text
    assert ticked(asked.text) == [str(first)]
    assert teacher.post(f"/sheets/{sheet}/assign", data={**sent, "all_the_same": "on"}).status_code == 302
    assert given_to(app, sheet) == {first}
    with app.extensions["sessions"]() as session:
        session.delete(session.scalars(select(Assignment).where(Assignment.sheet_id == sheet)).one())
        session.commit()


def test_after_a_minute_it_stays(app, as_person, sheet, classes, monkeypatch):
    teacher, first = as_person("corin.hale"), classes["First year"]
    teacher.post(f"/sheets/{sheet}/assign", data={"class": str(first), "feedback": "break"})
    monkeypatch.setattr(just_assigned, "SECONDS", -just_assigned.GRACE - 2)
    assert "more than a minute ago" in teacher.post("/sheets/assigned/take-back", follow_redirects=True).text
    assert given_to(app, sheet) == {first}
    with app.extensions["sessions"]() as session:
        session.delete(session.scalars(select(Assignment).where(Assignment.sheet_id == sheet)).one())
        session.commit()
