"""Two hands on one thing: what was left alone is kept as others have it, and the same twice is asked about."""

import json
import re
from html import unescape

import pytest
from sqlalchemy import select

from widepin.documents.joining import ChangedElsewhere, joined
from widepin.school.models import Assignment, HandIn, Person, SchoolClass, TaskSheet, Work
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import fields_of, new_sheet


@pytest.fixture
def teacher(as_person):
    return as_person("corin.hale")


@pytest.fixture
def colleague(as_person):
    return as_person("oda.finch")


@pytest.fixture
def stored(app):
    """What a function of a session returns."""

    def look(ask):
        with app.extensions["sessions"]() as session:
            return ask(session)

    return look


@pytest.fixture
def sheet(app):
    """The number of a task of the teacher's that nobody else uses."""
    with app.extensions["sessions"]() as session:
        owner = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
        made = new_sheet(session, owner, LIBRARY["incircle"].document(), "Circles")
        session.commit()
        return made.id


def made_from(page, action):
    """What the form with an action says it is made from."""
    form = re.search(rf'<form[^>]*action="{re.escape(action)}".*?</form>', page, re.S) if action else None
    text = form.group(0) if form else page
    return unescape(re.search(r'name="made_from" value="([^"]*)"', text).group(1))


def test_fields_are_joined_one_by_one_and_objects_field_by_field():
    was = {"title": "Arch", "policy": {"attempts": 3, "measuring": True}, "tools": ["line"]}
    theirs = {"title": "Arch", "policy": {"attempts": 5, "measuring": True}, "tools": ["line", "circle"]}
    mine = {"title": "Crown", "policy": {"attempts": 3, "measuring": False}, "tools": ["line"]}
    assert joined(mine, was, theirs) == {
        "title": "Crown",
        "policy": {"attempts": 5, "measuring": False},
        "tools": ["line", "circle"],
    }
    with pytest.raises(ChangedElsewhere, match="Title of it") as wrong:
        joined({"title": "Mine"}, {"title": "Old"}, {"title": "Theirs"}, {"title": "Title of it"})
    assert wrong.value.names == ["title"]
    assert joined({"title": "Same"}, {"title": "Old"}, {"title": "Same"}) == {"title": "Same"}


def test_two_tabs_of_a_task_lose_nothing_of_each_other(teacher, stored, sheet):
    found = stored(lambda session: fields_of(session.get(TaskSheet, sheet)))
    for fields in ({"title": "First tab"}, {"text": "Second tab"}):
        was = {name: found[name] for name in fields}
        assert teacher.post(f"/sheets/{sheet}", json={"document": fields, "made_from": was}).status_code == 200
    document = stored(lambda session: session.get(TaskSheet, sheet).document)
    assert (document["title"], document["text"]) == ("First tab", "Second tab")
    answer = teacher.post(
        f"/sheets/{sheet}", json={"document": {"title": "Third"}, "made_from": {"title": found["title"]}}
    )
    assert answer.status_code == 409 and answer.json["changed_elsewhere"] == ["title"]
    assert answer.json["fields"]["title"] == "First tab"
    again = {"document": {"title": "Third"}, "made_from": {"title": "First tab"}}
    assert teacher.post(f"/sheets/{sheet}", json=again).status_code == 200


def test_policies_of_two_tabs_are_joined_too(teacher, stored, sheet):
    policy = stored(lambda session: fields_of(session.get(TaskSheet, sheet))["policy"])
    for name, value in (("measuring", not policy["measuring"]), ("loci", not policy["loci"])):
        sent = {"policy": policy | {name: value}, "made_from": {"policy": policy}}
        assert teacher.post(f"/sheets/{sheet}", json=sent).status_code == 200
    now = stored(lambda session: fields_of(session.get(TaskSheet, sheet))["policy"])
    assert (now["measuring"], now["loci"]) == (not policy["measuring"], not policy["loci"])


def test_two_tabs_of_a_task_that_is_set_make_one_next_version(app, teacher, stored):
    number, found = stored(
        lambda session: next(
            (one.sheet_id, fields_of(one.sheet))
            for one in session.scalars(select(Assignment).join(SchoolClass).where(SchoolClass.name == "First year"))
            if one.sheet.owner.login == "corin.hale"
        )
    )
    made = set()
    for fields in ({"title": "First tab"}, {"text": "Second tab"}):
        was = {name: found[name] for name in fields}
        answer = teacher.post(f"/sheets/{number}", json={"document": fields, "made_from": was})
        made.add(answer.json["urls"]["page"])
    assert len(made) == 1 and f"/sheets/{number}" not in made
    assert (answer.json["document"]["title"], answer.json["document"]["text"]) == ("First tab", "Second tab")
    with app.extensions["sessions"]() as session:  # the class has no newer version afterwards
        session.delete(session.get(TaskSheet, int(made.pop().split("/")[2])))
        session.commit()


def test_terms_that_two_teachers_change_at_once_are_joined_or_asked_about(teacher, colleague, stored):
    number = stored(
        lambda session: session.scalars(
            select(Assignment.id).join(SchoolClass).where(SchoolClass.name == "Second year").order_by(Assignment.id)
        ).first()
    )
    action = f"/assignments/{number}/terms"
    before = made_from(teacher.get(f"/assignments/{number}").text, action)
    form = json.loads(before)
    first = teacher.post(action, data=form | {"made_from": before, "weight": "3"})
    second = colleague.post(action, data=form | {"made_from": before, "attempts": "7"})
    assert (first.status_code, second.status_code) == (302, 302)

    def terms(session):
        found = session.get(Assignment, number)
        return found.weight, found.attempts

    assert stored(terms) == (3, 7)
    third = colleague.post(action, data=form | {"made_from": before, "weight": "9", "attempts": "7"})
    assert third.status_code == 422 and "Changed elsewhere meanwhile: Weight" in third.text
    assert 'value="9"' in third.text and stored(terms) == (3, 7)
    meant = form | {"made_from": made_from(third.text, action), "weight": "9", "attempts": "7"}
    assert colleague.post(action, data=meant).status_code == 302 and stored(terms) == (9, 7)
    teacher.post(action, data=form)  # as it was; a form that does not say what it is made from stands as it is


def test_who_teaches_a_class_is_not_changed_by_an_older_page(app, teacher, stored):
    number = stored(
        lambda session: session.scalars(select(SchoolClass.id).where(SchoolClass.name == "First year")).one()
    )
    oda = stored(lambda session: session.scalars(select(Person.id).where(Person.login == "oda.finch")).one())
    action = f"/classes/{number}/colleagues"
    before = made_from(teacher.get(f"/classes/{number}/roster").text, action)

    def colleagues(session):
        return [one.id for one in session.get(SchoolClass, number).colleagues]

    assert teacher.post(action, data={"made_from": before, "colleague": oda}).status_code == 302
    assert stored(colleagues) == [oda]
    assert teacher.post(action, data={"made_from": before}).status_code == 302  # left alone there: as it is by now
    assert stored(colleagues) == [oda]
    after = made_from(teacher.get(f"/classes/{number}/roster").text, action)
    assert teacher.post(action, data={"made_from": after}).status_code == 302 and stored(colleagues) == []
    answer = teacher.post(action, data={"made_from": after, "colleague": oda})
    assert answer.status_code == 302 and stored(colleagues) == []  # taken out meanwhile, and left alone here


def test_the_scale_of_marks_is_not_changed_by_an_older_page(colleague):
    before = made_from(colleague.get("/administration/marks").text, "")
    colleague.post("/administration/marks", data={"made_from": before, "scale": "50 passed"})
    answer = colleague.post("/administration/marks", data={"made_from": before, "scale": "60 passed"})
    assert answer.status_code == 422 and "Changed elsewhere meanwhile" in answer.text and "60 passed" in answer.text
    assert colleague.post("/administration/marks", data={"scale": json.loads(before)["scale"]}).status_code == 302


def test_marks_that_two_teachers_enter_at_once_are_joined(teacher, colleague, stored):
    number, students = stored(
        lambda session: next(
            (one.id, [student.id for student in one.school_class.students[:2]])
            for one in session.scalars(select(Assignment).join(SchoolClass).where(SchoolClass.name == "Second year"))
        )
    )
    page = f"/assignments/{number}/results"
    before = made_from(teacher.get(page).text, None)
    form = json.loads(before)
    for client, student in zip((teacher, colleague), students, strict=True):
        mine = {f"kind-{student}": "excused", "made_from": before}
        assert client.post(page, data=form | mine).status_code == 302
    after = json.loads(made_from(teacher.get(page).text, None))
    assert [after[f"kind-{student}"] for student in students] == [["excused"], ["excused"]]
    clash = teacher.post(page, data=form | {f"kind-{students[0]}": "absent", "made_from": before})
    assert clash.status_code == 422 and "Changed elsewhere" in clash.text
    teacher.post(page, data=form)


def test_a_demonstration_that_was_changed_elsewhere_is_not_stored_over(teacher, sheet):
    page = teacher.get(f"/sheets/{sheet}/demonstration").text
    mark = re.search(r'data-mark="(\w+)"', page).group(1)
    sent = {"frames": [{"shown": 1, "words": "One."}], "made_from": mark}
    first = teacher.post(f"/sheets/{sheet}/demonstration/frames", json=sent)
    assert first.status_code == 200 and first.json["mark"] != mark
    other = teacher.post(
        f"/sheets/{sheet}/demonstration/frames", json=sent | {"frames": [{"shown": 2, "words": "Two."}]}
    )
    assert other.status_code == 409 and other.json["mark"] == first.json["mark"]


@pytest.mark.parametrize("wrong", ["", "null", "[]", "{", '{"weight": 3}', "[" * 5000])
def test_a_form_with_an_odd_note_of_its_origin_stands_as_it_is(teacher, stored, wrong):
    number = stored(
        lambda session: session.scalars(select(SchoolClass.id).where(SchoolClass.name == "First year")).one()
    )
    answer = teacher.post(f"/classes/{number}/rename", data={"name": "First year", "made_from": wrong})
    assert answer.status_code == 302


def test_what_is_sent_twice_stands_once(app, teacher, as_person, stored):
    attempt = stored(
        lambda session: session.scalars(
            select(HandIn.id).join(Work).join(Person).where(Person.login == "bram.idris")
        ).first()
    )
    form = {"text": "Look at the apex, once.", "step": "", "key": "the-same-key"}
    answers = [teacher.post(f"/hand-ins/{attempt}/comments", data=form).status_code for _ in range(4)]
    page = teacher.get(f"/hand-ins/{attempt}").text
    assert answers == [302] * 4 and page.count("Look at the apex, once.") == 1
    student = as_person("bram.idris")
    path = stored(lambda session: f"/tasks/{session.get(HandIn, attempt).work.assignment_id}/hand-in")

    def attempts(session):
        found = session.get(HandIn, attempt)
        return session.scalars(select(HandIn.id).where(HandIn.work_id == found.work_id)).all()

    before = stored(attempts)
    sent = {"key": "one-hand-in", "as_it_is": "yes"}
    urls = {student.post(path, data=sent, headers={"Accept": "application/json"}).json.get("url") for _ in range(3)}
    assert len(urls) == 1 and len(stored(attempts)) == len(before) + 1
