"""Sessions begin anew, run out, and end for good; what breaks is said without database or person."""

from datetime import timedelta
from time import time

import pytest
from sqlalchemy import create_engine, select
from sqlalchemy.exc import IntegrityError

from widepin.school.database import make_sessions
from widepin.school.models import BrowserSession, Person, SchoolClass, now
from widepin.school.people import browser_sessions
from widepin.web import access
from widepin.web.app import create_app
from widepin.web.database import session as database_session
from widepin.web.serving.session_cookies import PatientSigner


def cookie_of(client):
    return client.get_cookie("session").value


def test_signing_out_ends_the_session_for_every_copy_of_its_cookie(app, as_person, fresh_student):
    client = as_person(fresh_student("signs-out"))
    stolen = cookie_of(client)
    assert client.get("/tasks").status_code == 200
    client.post("/sign-out")
    thief = app.test_client()
    thief.set_cookie("session", stolen)
    assert thief.get("/tasks").status_code == 302


def test_a_renewed_code_ends_the_sessions_that_began_with_the_old_one(school, as_person, fresh_student):
    login = fresh_student("code-renewed")
    client = as_person(login)
    assert client.get("/tasks").status_code == 200
    with make_sessions(school)() as session:
        session.scalars(select(Person).where(Person.login == login)).one().renew_code()
        session.commit()
    assert client.get("/tasks").status_code == 302


@pytest.mark.parametrize(("name", "seconds"), [("LONGEST_SESSION", -1), ("LONGEST_IDLE", -1)])
def test_a_session_runs_out(as_person, fresh_student, monkeypatch, name, seconds):
    client = as_person(fresh_student(f"runs-out-{name.lower()}"))
    monkeypatch.setattr(access, name, seconds)
    assert client.get("/tasks").status_code == 302


def test_who_is_at_work_is_not_signed_out(as_person, fresh_student, monkeypatch):
    client = as_person(fresh_student("is-at-work"))
    at = time()
    for hours in (2, 4, 6, 8):
        monkeypatch.setattr(access, "time", lambda: at + hours * 3600)  # noqa: B023
        assert client.get("/tasks").status_code == 200, hours
    monkeypatch.setattr(access, "time", lambda: at + 13 * 3600)
    assert client.get("/tasks").status_code == 302


def test_nobody_is_signed_out_when_the_clock_is_set_back(as_person, fresh_student, monkeypatch):
    at = int(time())
    monkeypatch.setattr(PatientSigner, "get_timestamp", lambda _signer: at + 7200)
    client = as_person(fresh_student("before-it-was-set"))
    assert client.get("/tasks").status_code == 200
    monkeypatch.setattr(PatientSigner, "get_timestamp", lambda _signer: at)
    assert client.get("/tasks").status_code == 200
    monkeypatch.setattr(PatientSigner, "get_timestamp", lambda _signer: at + 40 * 24 * 3600)
    assert client.get("/tasks").status_code == 302, "an old cookie is one still"


def test_noting_that_somebody_is_still_there_needs_no_second_connection(
    database_url, school, app, fresh_student, monkeypatch
):
    """Else as many requests as there are connections wait for each other, when a class began at the same minute."""
    login = fresh_student("still-there")
    narrow = create_app(dict(app.config))
    engine = create_engine(database_url, pool_size=1, max_overflow=0, pool_timeout=1)
    narrow.extensions["sessions"] = make_sessions(engine)
    client = narrow.test_client()
    assert client.post("/sign-in", data={"login": login, "password": "tracery"}).status_code == 302
    at = time()
    monkeypatch.setattr(access, "time", lambda: at + 3600)
    monkeypatch.setattr(browser_sessions, "now", lambda: now() + timedelta(hours=1))
    assert client.get("/tasks").status_code == 200
    engine.dispose()
    with make_sessions(school)() as session:
        (found,) = session.scalars(select(BrowserSession).join(Person).where(Person.login == login))
        assert found.seen > now() + timedelta(minutes=50)


def test_nothing_of_an_earlier_session_is_left_in_a_new_one(app, fresh_student):
    client = app.test_client()
    with client.session_transaction() as before:
        before["planted"] = "by somebody else"
    client.post("/sign-in", data={"login": fresh_student("begins-anew"), "password": "tracery"})
    with client.session_transaction() as after:
        assert "planted" not in after


@pytest.mark.parametrize(
    "alias", ["\u00efls\u00e9.marran", "\uff49lse.marran", "ilse.\u200bmarran", "ilse.marran\u0000"]
)
def test_a_login_is_compared_byte_by_byte(school, alias):
    with make_sessions(school)() as session:
        assert session.scalar(select(Person).where(Person.login == "ilse.marran")) is not None
        assert session.scalar(select(Person).where(Person.login == alias)) is None


def test_codes_are_compared_byte_by_byte(school):
    with make_sessions(school)() as session:
        code = session.scalars(select(SchoolClass.code)).first()
        assert session.scalar(select(SchoolClass).where(SchoolClass.code == code.lower())) is None or code.isdigit()


def breaks_in_a_flush():
    database_session().add(Person(login="ilse.marran", name="Twice", role="student", password_hash=""))
    database_session().flush()
    return "never"


def breaks_in_a_flush_and_goes_on():
    try:
        breaks_in_a_flush()
    except IntegrityError:
        raise RuntimeError from None


def test_the_error_page_stands_after_a_failed_flush(app, as_person, fresh_student, monkeypatch, caplog):
    client = as_person(fresh_student("sees-it-break"))
    monkeypatch.setitem(app.config, "PROPAGATE_EXCEPTIONS", False)
    monkeypatch.setitem(app.view_functions, "tasks.index", breaks_in_a_flush)
    answer = client.get("/tasks")
    assert answer.status_code == 409 and "changed at the same moment" in answer.text and "Wide Pin" in answer.text
    assert "Duplicate entry …" in caplog.text and "ilse" not in caplog.text
    monkeypatch.setitem(app.view_functions, "tasks.index", lambda: breaks_in_a_flush_and_goes_on())
    answer = client.get("/tasks")
    assert answer.status_code == 500 and "Something broke on our side" in answer.text and "Wide Pin" in answer.text


def test_the_error_page_stands_without_a_database():
    away = create_app(
        {"DATABASE_URL": "mariadb+pymysql://nobody@127.0.0.1:9/none", "SECRET_KEY": "k", "WTF_CSRF_ENABLED": False}
    )
    client = away.test_client()
    with client.session_transaction() as cookie:
        cookie["_user_id"], cookie["began"], cookie["seen"] = "1.1", int(time()), int(time())
    for asks in ({}, {"Accept": "application/json"}):
        answer = client.get("/tasks", headers=asks)
        assert answer.status_code == 503 and "What is on your page stays there" in answer.text


def test_over_https_the_cookie_belongs_to_this_host_alone(app):
    secure = create_app({**app.config, "HTTPS": True, "ADDRESS": "https://construct.example/"})
    client = secure.test_client()
    answer = client.post(
        "/sign-in", data={"login": "corin.hale", "password": "tracery"}, base_url="https://construct.example/"
    )
    cookies = answer.headers.getlist("Set-Cookie")
    assert {one.partition("=")[0] for one in cookies} == {"__Host-session", "__Host-device"}
    assert all("Secure" in one and "HttpOnly" in one and "Path=/" in one for one in cookies)
    assert all("Domain" not in one for one in cookies) and "max-age=" in answer.headers["Strict-Transport-Security"]
    assert client.get("/sign-in", base_url="http://construct.example/").status_code == 302, "led to HTTPS"


def test_only_the_configured_host_is_answered(app, as_person):
    known = create_app({**app.config, "ADDRESS": "http://construct.example/"})
    statuses = [
        known.test_client().get("/sign-in", base_url=f"http://{host}/").status_code
        for host in ("construct.example", "localhost", "elsewhere.example")
    ]
    assert statuses == [200, 200, 400]


def test_private_pages_are_kept_by_nobody(as_person):
    client = as_person("corin.hale")
    assert [client.get(path).headers["Cache-Control"] for path in ("/classes", "/nowhere", "/library")] == [
        "no-store"
    ] * 3
    assert "no-store" not in client.get("/static/look/look.css").headers["Cache-Control"]
