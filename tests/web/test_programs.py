"""The interface for programs: with tokens, by what they may do; its description fits what is answered."""

import re
from datetime import timedelta

import pytest
from jsonschema import Draft202012Validator
from limits import parse
from openapi_spec_validator import validate
from sqlalchemy import select

from widepin.judge.verdict import Outcome
from widepin.school.models import AccessToken, Assignment, HandIn, Person, SchoolClass, TaskSheet, Work, now
from widepin.school.people import accounts, tokens
from widepin.school.states import Scope
from widepin.school.tasks.library import LIBRARY
from widepin.web.programs import guard
from widepin.web.programs.endpoints import ENDPOINTS

TEACHER = "corin.hale"


@pytest.fixture
def in_database(app):
    """Work in the database that stays, and ends with what it made."""
    with app.extensions["sessions"]() as session:
        yield session
        session.commit()


def a_teacher(session, login=TEACHER):
    return session.scalars(select(Person).where(Person.login == login)).one()


@pytest.fixture
def token(in_database):
    """Makes a token of the teacher's; all of them are ended afterwards."""
    guard.limiter.storage.reset()

    def make(*scopes, login=TEACHER, days=30):
        made = tokens.make(in_database, a_teacher(in_database, login), "for a test", scopes or tuple(Scope), days)
        in_database.commit()
        return made

    yield make
    for one in in_database.scalars(select(AccessToken)):
        in_database.delete(one)


@pytest.fixture
def asked(app, token):
    """Ask with a token that may do everything, or with another one."""
    client, everything = app.test_client(), token()

    def ask(method, path, secret=everything, **body):
        return client.open(f"/api/v1{path}", method=method, headers={"Authorization": f"Bearer {secret}"}, **body)

    return ask


@pytest.fixture
def ids(in_database):
    """Numbers of things that the teacher may see: a class, a task of it, a sound attempt."""
    sound = (
        select(HandIn).join(Work).join(Assignment).join(SchoolClass).join(Person, SchoolClass.teacher_id == Person.id)
    )
    attempt = in_database.scalars(sound.where(HandIn.outcome == Outcome.SOUND, Person.login == TEACHER)).first()
    return {
        "hand_in_id": attempt.id,
        "assignment_id": attempt.work.assignment_id,
        "class_id": attempt.work.assignment.class_id,
        "sheet_id": attempt.work.assignment.sheet_id,
    }


KITE = LIBRARY["kite"].document()
WORK = {"name": "as in the book", "steps": KITE["model"]}
BODIES = {"make_task": {"task": KITE}, "check": {"task": KITE, "works": [WORK, {"name": "none", "steps": []}]}}


def path_of(endpoint, ids):
    return re.sub(r"<int:(\w+)>", lambda found: str(ids[found[1]]), endpoint.path)


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda one: one.name)
def test_what_is_answered_is_as_it_is_described(asked, ids, in_database, endpoint):
    described = asked("GET", "/openapi.json").json
    body = BODIES.get(endpoint.name)
    if endpoint.name == "assign":
        made = asked("POST", "/tasks", json=BODIES["make_task"]).json
        body = {"task": made["id"], "due": "2199-05-04T12:00:00+02:00"}
    answer = asked(endpoint.method, path_of(endpoint, ids), json=body) if body else asked("GET", path_of(endpoint, ids))
    assert answer.status_code == endpoint.status, answer.text
    operation = described["paths"][re.sub(r"<int:(\w+)>", r"{\1}", endpoint.path)][endpoint.method.lower()]
    schema = operation["responses"][str(endpoint.status)]["content"]["application/json"]["schema"]
    Draft202012Validator({**schema, "components": described["components"]}).validate(answer.json)
    if endpoint.name == "assign":
        assert answer.json["due"] == "2199-05-04T10:00:00Z"
        in_database.delete(in_database.get_one(Assignment, answer.json["id"]))
        in_database.delete(in_database.get_one(TaskSheet, made["id"]))
    if endpoint.name == "make_task":
        in_database.delete(in_database.get_one(TaskSheet, answer.json["id"]))


def test_the_description_is_valid(asked):
    validate(asked("GET", "/openapi.json").json)


def test_a_task_that_is_kept_is_read_again_as_it_was(asked, in_database):
    made = asked("POST", "/tasks", json={"task": KITE}).json
    assert asked("GET", f"/tasks/{made['id']}").json["task"] == KITE
    assert made["id"] in {one["id"] for one in asked("GET", "/tasks").json}
    in_database.delete(in_database.get_one(TaskSheet, made["id"]))


def test_works_are_checked_as_on_the_command_line_and_nothing_is_kept(asked, in_database):
    before = in_database.scalars(select(HandIn.id)).all()
    first, second = asked("POST", "/check", json=BODIES["check"]).json
    assert (first["name"], first["verdict"]["outcome"]) == ("as in the book", "sound")
    assert second["verdict"]["outcome"] != "sound"
    in_database.rollback()
    assert in_database.scalars(select(HandIn.id)).all() == before


def test_a_proof_is_that_of_the_attempt(asked, ids):
    found = asked("GET", f"/hand-ins/{ids['hand_in_id']}/proof").json
    assert found["proof"] and found["open"] == []


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda one: one.name)
def test_a_token_may_do_what_its_scopes_say_and_nothing_else(asked, token, ids, endpoint):
    others = [scope for scope in Scope if scope is not endpoint.scope]
    answer = asked(endpoint.method, path_of(endpoint, ids), token(*others), json=BODIES.get(endpoint.name, {}))
    assert answer.status_code == 403 and endpoint.scope in answer.json["error"]


@pytest.mark.parametrize(
    "path", ["/classes/{class_id}/assignments", "/assignments/{assignment_id}/works", "/hand-ins/{hand_in_id}"]
)
def test_what_is_of_others_is_not_there(asked, token, ids, in_database, path):
    known = a_teacher(in_database)
    in_database.add(Person(login="ben.other", name="Ben", role="teacher", password_hash=known.password_hash))
    in_database.commit()
    secret = token(login="ben.other")
    assert asked("GET", path.format(**ids), secret).status_code == 404
    assert asked("GET", "/classes", secret).json == []
    in_database.delete(a_teacher(in_database, "ben.other"))


def test_without_a_token_nobody_gets_anything_whoever_is_signed_in(app, as_person, ids):
    for client in (as_person(TEACHER), app.test_client()):
        for sent in (
            {},
            {"Authorization": "Bearer "},
            {"Authorization": "Basic Y29yaW4="},
            {"Authorization": "Bearer x"},
        ):
            answer = client.get("/api/v1/tasks", headers=sent)
            assert answer.status_code == 401 and answer.headers["WWW-Authenticate"] == "Bearer"
            assert "Bearer TOKEN" in answer.json["error"] and "Set-Cookie" not in answer.headers


def test_a_token_opens_no_page(app, token):
    answer = app.test_client().get("/classes", headers={"Authorization": f"Bearer {token()}"})
    assert answer.status_code == 302


def test_a_token_that_ran_out_was_ended_or_whose_person_left_holds_no_more(asked, token, in_database):
    secret = token()
    assert asked("GET", "/tasks", secret).status_code == 200
    held = tokens.known(in_database, secret)
    assert held.used is not None and abs(now() - held.used) < timedelta(minutes=2)
    held.expires = now() - timedelta(seconds=1)
    in_database.commit()
    assert asked("GET", "/tasks", secret).status_code == 401
    secret = token()
    tokens.end(in_database, a_teacher(in_database), tokens.known(in_database, secret).id)
    in_database.commit()
    assert asked("GET", "/tasks", secret).status_code == 401
    known = a_teacher(in_database)
    gone = Person(login="gone.soon", name="Gone", role="teacher", password_hash=known.password_hash)
    in_database.add(gone)
    in_database.commit()
    secret = token(login="gone.soon")
    accounts.leave(in_database, known, gone)
    in_database.commit()
    assert asked("GET", "/tasks", secret).status_code == 401
    assert tokens.of(in_database, gone) == []
    in_database.delete(gone)


def test_too_many_requests_are_put_off(asked, token, monkeypatch):
    monkeypatch.setattr(guard, "MOST", parse("2 per minute"))
    secret, other = token(), token()
    assert [asked("GET", "/tasks", secret).status_code for _time in range(3)] == [200, 200, 429]
    assert asked("GET", "/tasks", other).status_code == 200
    assert asked("GET", "/tasks", secret).headers["Retry-After"]


@pytest.mark.parametrize(
    ("path", "body", "said"),
    [
        ("/tasks", {"task": {}}, "task"),
        ("/tasks", {"task": {**KITE, "given": [{"id": "A", "make": "no_such"}]}}, "given"),
        ("/tasks", {}, "task"),
        ("/tasks", {"task": KITE, "more": 1}, "more"),
        ("/check", {"task": KITE, "works": []}, "works"),
        ("/check", {"task": KITE, "works": [{"steps": []}]}, "name"),
        ("/check", {"task": {**KITE, "wanted": 3}, "works": [WORK]}, "task.wanted"),
        ("/check", {"task": KITE, "works": [WORK] * 21}, "works"),
    ],
)
def test_what_is_wrong_is_said_with_its_place(asked, path, body, said):
    answer = asked("POST", path, json=body)
    assert answer.status_code == 422 and said in answer.json["error"], answer.text


def test_what_is_no_json_or_too_much_is_refused(asked):
    assert asked("POST", "/check", data="no json", content_type="application/json").status_code == 400
    assert asked("POST", "/check", data="x", content_type="text/plain").status_code == 400
    assert asked("POST", "/check", data=b"[" * 1_000_001, content_type="application/json").status_code == 413
    assert asked("GET", "/no-such-thing").json == {"error": "This page is not here, or not yours to see."}
    assert asked("DELETE", "/tasks").status_code == 405


def test_a_task_is_not_given_twice_or_unfinished_or_due_before_it_opens(asked, ids, in_database):
    path = f"/classes/{ids['class_id']}/assignments"
    again = asked("POST", path, json={"task": ids["sheet_id"]})
    assert again.status_code == 422 and "already" in again.json["error"]
    open_task = asked("POST", "/tasks", json={"task": {**KITE, "model": []}}).json
    unsolved = asked("POST", path, json={"task": open_task["id"]})
    assert unsolved.status_code == 422, unsolved.text
    for wrong in ("0001-01-01T00:00:00+14:00", "9999-12-31T23:00:00-14:00", "soon", 5):
        answer = asked("POST", path, json={"task": open_task["id"], "due": wrong})
        assert answer.status_code == 422 and "due" in answer.json["error"], answer.text
    dates = {"opens": "2199-01-02T00:00:00Z", "due": "2199-01-01T00:00:00Z"}
    assert asked("POST", path, json={"task": open_task["id"], **dates}).status_code == 422
    in_database.delete(in_database.get_one(TaskSheet, open_task["id"]))


def test_a_token_is_made_on_the_page_shown_once_and_ended(app, as_person, in_database):
    client = as_person(TEACHER)
    page = client.post("/account/programs", data={"name": "Marks", "scope": ["works:read"], "days": "90"}).text
    secret = re.search(r'value="(widepin_[\w-]+)"', page)[1]
    assert secret not in client.get("/account/programs").text
    held = tokens.known(in_database, secret)
    assert (held.name, held.scopes) == ("Marks", ["works:read"]) and held.digest != secret
    assert "works:read" in client.get("/account/programs").text
    client.post(f"/account/programs/{held.id}/end")
    in_database.rollback()
    assert tokens.known(in_database, secret) is None


@pytest.mark.parametrize(
    "form",
    [
        {"name": " ", "scope": "check", "days": "30"},
        {"name": "x" * 61, "scope": "check", "days": "30"},
        {"name": "x", "days": "30"},
        {"name": "x", "scope": "everything", "days": "30"},
        {"name": "x", "scope": "check", "days": "31"},
    ],
)
def test_a_token_is_refused_with_what_is_wrong(as_person, in_database, form):
    answer = as_person(TEACHER).post("/account/programs", data=form)
    assert answer.status_code == 422 and 'role="alert"' in answer.text
    assert tokens.of(in_database, a_teacher(in_database)) == []
