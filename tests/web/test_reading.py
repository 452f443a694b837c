"""Whatever a browser sends, the answer says what is wrong: never a page that something broke."""

import json

import pytest
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Person, SchoolClass, TaskSheet, Work

JSON_ADDRESSES = (
    "/tasks/{assignment}/operations",
    "/tasks/{assignment}/import-steps",
    "/sheets/{sheet}",
    "/sheets/{sheet}/propose",
)


def deep(levels):
    return b"[" * levels + b"]" * levels


BODIES = {
    "nothing": b"",
    "no JSON": b"{",
    "another value": b"[1]",
    "half a character": rb'{"key": "\ud800\ud800\ud800\ud800\ud800\ud800\ud800\ud800", "after": 0, "operation": {"op": "undo"}, "work": "\ud800", "document": {"\ud800": 1}, "wanted": ["\ud800"]}',
    "deep": b'{"after": 0, "key": "12345678", "operation": ' + deep(500) + b', "work": 1}',
    "deeper than Python": deep(200_000),
    "not finite": b'{"key": "12345678", "after": NaN, "operation": 1e999, "work": Infinity, "document": {"budget": NaN}, "wanted": NaN}',
    "many digits": b'{"key": "12345678", "after": ' + b"9" * 5000 + b"}",
    "large": b'{"key": "12345678", "after": ' + b"9" * 300 + b', "operation": 0, "work": 0}',
    "another alphabet": '{"key": "12345678", "after": 0'.encode("utf-16"),
    "a label that is a list": b'{"key": "12345678", "after": 0, "operation": {"op": "add", "step": {"id": "z9", "make": "circle", "from": ["A", "B"], "label": []}}, "work": {"steps": [{"id": {}}]}, "document": {"title": 5}, "wanted": [[]]}',
    "a label that is a number": b'{"key": "12345678", "after": 0, "operation": {"op": "dress", "id": "A", "dress": {"label": 7}}, "work": {"steps": 7}, "document": {"given": [{"id": "A", "make": "free_point", "at": [0, 0], "label": 7}]}, "wanted": 7}',
}


@pytest.fixture(scope="module")
def numbers(school):
    with make_sessions(school)() as session:
        ilse = session.scalars(select(Person).where(Person.login == "ilse.marran")).one()
        work = session.scalars(select(Work).where(Work.student_id == ilse.id)).first()
        return {
            "assignment": work.assignment_id,
            "sheet": session.scalars(select(TaskSheet.id).order_by(TaskSheet.id)).first(),
            "class": session.scalars(select(SchoolClass.id).where(SchoolClass.name == "First year")).one(),
        }


@pytest.mark.parametrize("body", BODIES)
@pytest.mark.parametrize("address", JSON_ADDRESSES)
def test_a_body_that_cannot_be_used_is_refused_with_words(as_person, numbers, address, body):
    client = as_person("ilse.marran" if "tasks" in address else "corin.hale")
    answer = client.post(address.format(**numbers), data=BODIES[body], content_type="application/json")
    assert answer.status_code in (400, 422), answer.text
    assert answer.is_json and len(answer.json["error"]) > 10
    if body not in ("nothing", "no JSON", "deeper than Python", "many digits", "another alphabet"):
        assert answer.status_code == 422


def test_what_is_no_json_by_its_kind_is_refused(as_person, numbers):
    answer = as_person("ilse.marran").post(JSON_ADDRESSES[0].format(**numbers), data={"after": "0"})
    assert answer.status_code == 400 and "JSON" in answer.text


def test_keys_that_differ_by_case_are_two_operations(as_person, fresh_student, numbers):
    client = as_person(fresh_student("two-cases"))
    address = JSON_ADDRESSES[0].format(**numbers)
    for after, key in enumerate(("abcdefgh", "ABCDEFGH")):
        step = {"id": f"q{after}", "make": "circle", "from": ["A", "B"]}
        answer = client.post(address, json={"key": key, "after": after, "operation": {"op": "add", "step": step}})
        assert answer.status_code == 200 and answer.json["number"] == after + 1


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("due", "2026-11-25T08:30+99:00"),
        ("due", "soon"),
        ("opens", "99999-01-01"),
        ("attempts", "9" * 5000),
        ("attempts", "-1"),
        ("late", "x"),
        ("feedback", "x"),
        ("after", "9" * 5000),
        ("student", "x"),
    ],
)
def test_terms_that_cannot_stand_are_said_and_what_was_typed_stays(as_person, numbers, field, value):
    answer = as_person("corin.hale").post(
        f"/sheets/{numbers['sheet']}/assign",
        data={"class": numbers["class"], field: value, "attempts": "7"} | {field: value},
    )
    assert answer.status_code == 422 and 'role="alert"' in answer.text
    if field != "attempts":
        assert 'value="7"' in answer.text


@pytest.mark.parametrize("number", ["9" * 30, "9" * 5000, "-1", "x", "", "\u0663"])
def test_numbers_of_nothing_are_not_found(as_person, numbers, number):
    client = as_person("corin.hale")
    assert client.post(f"/sheets/{numbers['sheet']}/assign", data={"class": number}).status_code == 404
    assert client.get(f"/classes/{number}").status_code == 404


def test_a_task_that_was_due_already_is_asked_about(as_person, school, numbers):
    client = as_person("corin.hale")
    taken = client.post("/library/midpoint/take", data={})
    sheet = taken.location.rsplit("/", 1)[-1]
    asked = {"class": numbers["class"], "due": "2020-01-01T10:00"}
    answer = client.post(f"/sheets/{sheet}/assign", data=asked)
    assert answer.status_code == 422 and "would be due already" in answer.text and 'name="passed"' in answer.text
    answer = client.post(f"/sheets/{sheet}/assign", data=asked | {"passed": "yes"})
    assert answer.status_code == 302
    with make_sessions(school)() as session:
        made = session.scalars(select(Assignment).where(Assignment.sheet_id == int(sheet))).one()
        number = made.id
    page = f"/assignments/{number}/terms"
    assert client.post(page, data={"due": "2020-01-01T10:00", "attempts": "3"}).status_code == 302, "it was due before"
    assert client.post(page, data={"due": "2020-02-01T10:00"}).status_code == 422


def test_the_same_name_for_two_classes_at_once_is_said(as_person, school):
    client = as_person("corin.hale")
    assert client.post("/classes", data={"name": "Once"}).status_code == 302
    answer = client.post("/classes", data={"name": "Once"})
    assert answer.status_code == 422 and "take another name" in answer.text
    with make_sessions(school)() as session:
        once, other = (
            session.scalars(select(SchoolClass).where(SchoolClass.name == name)).one()
            for name in ("Once", "First year")
        )
    answer = client.post(f"/classes/{other.id}/rename", data={"name": "Once"})
    assert answer.status_code == 422 and "take another name" in answer.text
    assert client.post(f"/classes/{once.id}/rename", data={"name": "Once"}).status_code == 302
    assert client.post(f"/classes/{once.id}/remove").status_code == 302


@pytest.mark.parametrize("title", ["x" * 5000, "\\ud800"])
def test_a_task_file_that_cannot_be_kept_is_refused(as_person, numbers, title):
    from io import BytesIO

    client = as_person("corin.hale")
    task = client.get(f"/sheets/{numbers['sheet']}/task.json").get_data(as_text=True)
    task = json.dumps(json.loads(task) | {"title": "HERE"}).replace("HERE", title)
    client.post(
        "/sheets/read", data={"file": (BytesIO(task.encode()), "task.json")}, content_type="multipart/form-data"
    )
    assert "cannot be taken" in client.get("/library").text


def test_a_work_of_somebody_who_has_the_task_no_longer_can_be_looked_at(as_person, school, fresh_student, numbers):
    login = fresh_student("moved-away")
    client = as_person(login)
    step = {"op": "add", "step": {"id": "q1", "make": "circle", "from": ["A", "B"]}}
    sent = {"key": "12345678", "after": 0, "operation": step}
    assert client.post(JSON_ADDRESSES[0].format(**numbers), json=sent).status_code == 200
    handed_in = client.post(f"/tasks/{numbers['assignment']}/hand-in")
    with make_sessions(school)() as session:
        person = session.scalars(select(Person).where(Person.login == login)).one()
        person.classes.clear()
        session.commit()
    assert as_person("corin.hale").get(handed_in.location).status_code == 200


def test_a_task_that_is_taken_away_while_a_work_is_judged_is_not_found(
    app, as_person, fresh_student, numbers, monkeypatch
):
    client = as_person(fresh_student("taken-away"))
    step = {"op": "add", "step": {"id": "q1", "make": "circle", "from": ["A", "B"]}}
    sent = {"key": "12345678", "after": 0, "operation": step}
    assert client.post(JSON_ADDRESSES[0].format(**numbers), json=sent).status_code == 200
    jobs = app.extensions["jobs"]

    class TakesAway:
        def do(self, whose, *job):
            with app.extensions["sessions"]() as session:
                session.delete(session.scalars(select(Work).where(Work.student_id == whose)).one())
                session.commit()
            return jobs.do(whose, *job)

    monkeypatch.setitem(app.extensions, "jobs", TakesAway())
    answer = client.post(f"/tasks/{numbers['assignment']}/hand-in", headers={"Accept": "application/json"})
    assert answer.status_code == 404 and answer.json["error"]
