"""Looking after the school, one's own account, and what programs ask that watch over it."""

import json
import logging
import re
from html import unescape

import pytest
from flask import request
from sqlalchemy import select, text
from sqlalchemy.exc import DBAPIError

from tests.conftest import CHEAP
from widepin.school.database import make_sessions
from widepin.school.models import AuditEntry, Person, SchoolClass, TaskSheet
from widepin.school.people import accounts, roster
from widepin.school.states import Role
from widepin.web.app import create_app

PASSWORD = "mallet chisel plumb line"


@pytest.fixture
def administrator(as_person):
    return as_person("oda.finch")


@pytest.fixture
def newcomer(school):
    """Makes a teacher who came by an invitation, by login."""

    def make(login):
        with make_sessions(school)() as session:
            by = accounts.teacher_named(session, "oda.finch")
            link = accounts.open_link(session, accounts.invite(session, by, login.title()))
            made = accounts.join(session, link, CHEAP, login.title(), login, PASSWORD)
            session.commit()
            return made.id

    return make


def sign_in(app, login, password=PASSWORD):
    client = app.test_client()
    return client, client.post("/sign-in", data={"login": login, "password": password})


def person(school, login):
    with make_sessions(school)() as session:
        return session.scalars(select(Person).where(Person.login == login)).one()


def test_a_link_for_a_new_password_works_once_and_is_shown_once(app, administrator, newcomer):
    number = newcomer("resets")
    administrator.post(f"/administration/people/{number}/link")
    said = administrator.get("/administration/people").text
    path = said[said.index("/welcome/") :].split('"')[0]
    assert path not in administrator.get("/administration/people").text
    anonymous = app.test_client()
    assert anonymous.post(path, data={"password": "short"}).status_code == 422
    assert anonymous.post(path, data={"password": "another plumb line"}).status_code == 302
    assert anonymous.post(path, data={"password": "yet another line"}).status_code == 404
    assert sign_in(app, "resets")[1].status_code == 422
    assert sign_in(app, "resets", "another plumb line")[1].status_code == 302


def test_who_has_left_is_signed_out_at_once(app, administrator, newcomer):
    number = newcomer("goes.away")
    client, answer = sign_in(app, "goes.away")
    assert answer.status_code == 302 and client.get("/classes").status_code == 200
    administrator.post(f"/administration/people/{number}/presence", data={"left": "yes"})
    assert client.get("/classes").status_code == 302
    assert sign_in(app, "goes.away")[1].status_code == 422
    administrator.post(f"/administration/people/{number}/presence")
    assert sign_in(app, "goes.away")[1].status_code == 302


def test_a_new_administrator_sees_the_school_and_the_last_one_stays(app, administrator, newcomer, school):
    number = newcomer("helps")
    client, _answer = sign_in(app, "helps")
    assert client.get("/administration/people").status_code == 404
    administrator.post(f"/administration/people/{number}/administrator", data={"administrator": "yes"})
    assert client.get("/administration/people").status_code == 200
    administrator.post(f"/administration/people/{number}/administrator")
    assert client.get("/administration/people").status_code == 404
    oda = person(school, "oda.finch").id
    answer = administrator.post(f"/administration/people/{oda}/administrator")
    assert answer.status_code == 422 and "Nobody else" in answer.text


def test_a_teacher_is_erased_once_somebody_takes_over(administrator, newcomer, school):
    number = newcomer("goes")
    asked = administrator.get(f"/administration/people/{number}/erase").text
    assert "Who takes over" in asked and "cannot" not in asked
    heir = person(school, "corin.hale").id
    assert administrator.post(f"/administration/people/{number}/erase", data={"heir": number}).status_code == 422
    assert administrator.post(f"/administration/people/{number}/erase", data={"heir": heir}).status_code == 302
    assert administrator.get(f"/administration/people/{number}/erase").status_code == 404


def test_a_shared_task_is_seen_copied_and_taken_out(app, administrator, as_person, newcomer, school):
    newcomer("borrows")
    borrower, _answer = sign_in(app, "borrows")
    with make_sessions(school)() as session:
        sheet = session.scalars(select(TaskSheet).where(TaskSheet.shared).order_by(TaskSheet.version.desc())).first()
    assert sheet.title in borrower.get("/library").text
    assert sheet.title in borrower.get(f"/library/school/{sheet.id}").text
    taken = borrower.post(f"/library/school/{sheet.id}/take")
    assert taken.status_code == 302
    with make_sessions(school)() as session:
        mine = session.scalars(select(TaskSheet).join(Person).where(Person.login == "borrows")).one()
        assert mine.document == sheet.document and not mine.shared
    administrator.post(f"/administration/library/{sheet.id}/unshare")
    assert borrower.get(f"/library/school/{sheet.id}").status_code == 404
    owner = as_person("corin.hale")
    assert owner.get(f"/sheets/{sheet.id}").status_code == 200
    owner.post(f"/sheets/{sheet.id}/share", data={"shared": "yes"})
    assert borrower.get(f"/library/school/{sheet.id}").status_code == 200


def test_an_invitation_is_listed_and_withdrawn(app, administrator, school):
    administrator.post("/administration/people", data={"name": "Nell Strake"})
    said = administrator.get("/administration/people").text
    path = said[said.index("/welcome/") :].split('"')[0]
    again = administrator.get("/administration/people").text
    assert "/welcome/" not in again and again.count("Nell Strake") == 1  # shown once, and no second one is made
    assert app.test_client().get(path).status_code == 200
    withdraw = re.search(r"/administration/links/\d+/withdraw", again[again.index("Nell Strake") :])[0]
    assert administrator.post(withdraw).status_code == 302
    assert app.test_client().get(path).status_code == 404
    assert "Nell Strake" not in administrator.get("/administration/people").text
    assert "used or withdrawn already" in administrator.post(withdraw).text
    assert "withdrew a link that was not used" in administrator.get("/administration/log").text


def test_who_has_left_is_told_so_with_the_right_password_alone(app, administrator, newcomer):
    number = newcomer("has.left")
    administrator.post(f"/administration/people/{number}/presence", data={"left": "yes"})
    assert "not in use any more" in sign_in(app, "has.left")[1].text
    assert "do not fit" in sign_in(app, "has.left", "some other words")[1].text


def test_a_task_that_a_colleague_shares_is_assigned_as_it_is(app, as_person, newcomer, school):
    newcomer("takes")
    taker, _answer = sign_in(app, "takes")
    with make_sessions(school)() as session:
        sheet = session.scalars(select(TaskSheet).where(TaskSheet.shared).order_by(TaskSheet.version.desc())).first()
    said = taker.get(f"/library/school/{sheet.id}").text
    assert "Construct" in said and sheet.owner_id and "The sample solution takes" in said
    assert taker.get(f"/library/school/{sheet.id}/demonstration").status_code == 200
    first = taker.post(f"/library/school/{sheet.id}/take", data={"assign": "yes"})
    again = taker.post(f"/library/school/{sheet.id}/take", data={"assign": "yes"})
    assert first.location == again.location and first.location.endswith("/assign")
    own = int(re.search(r"/sheets/(\d+)/", first.location)[1])
    assert "has changed the task" not in taker.get(f"/sheets/{own}").text
    with make_sessions(school)() as session:
        found = session.get(TaskSheet, sheet.id)
        found.changed = found.changed.replace(year=found.changed.year + 1)
        session.commit()
    assert "has changed the task" in taker.get(f"/sheets/{own}").text
    with make_sessions(school)() as session:
        found = session.get(TaskSheet, sheet.id)
        found.changed = found.changed.replace(year=found.changed.year - 1)
        session.commit()


def test_what_concerns_people_is_in_the_log(administrator, as_person, school):
    teacher = as_person("corin.hale")
    with make_sessions(school)() as session:
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        student = school_class.students[0]
    assert teacher.get(f"/classes/{school_class.id}/students/{student.id}/data.json").status_code == 200
    with make_sessions(school)() as session:
        entry = session.scalars(select(AuditEntry).order_by(AuditEntry.id.desc())).first()
        assert (entry.action, entry.about, entry.actor.login) == ("exported", student.id, "corin.hale")
    said = administrator.get("/administration/log").text
    assert f"took out a copy of the data of {student.name}" in said


def test_who_tried_to_sign_in_is_seen(app, administrator):
    sign_in(app, "corin.hale", "not the password")
    sign_in(app, "nobody.at.all")
    said = administrator.get("/administration/sign-ins").text
    assert "Master Corin Hale" in said and "failed" in said and "that nobody has" in said
    assert "nobody.at.all" not in said and "127.0.0.1" in said


def test_old_data_are_erased_only_as_they_were_shown(administrator, school):
    assert administrator.post("/administration/retention", data={"months": "24"}).status_code == 302
    assert administrator.post("/administration/retention", data={"months": "many"}).status_code == 422
    answer = administrator.post("/administration/retention/erase", data={"shown": "5 5 5"})
    assert answer.status_code == 409 and "changed meanwhile" in answer.text
    shown = re.search(r'name="shown" value="([^"]*)"', administrator.get("/administration/retention").text)
    erased = administrator.post("/administration/retention/erase", data={"shown": shown[1] if shown else "0 0 0"})
    assert erased.status_code == 302


def test_the_password_is_changed_by_whoever_knows_the_present_one(app, newcomer):
    newcomer("changes")
    here, _answer = sign_in(app, "changes")
    there, _answer = sign_in(app, "changes")
    assert here.post("/account/password", data={"old": "wrong", "new": "a quite new password"}).status_code == 422
    short = here.post("/account/password", data={"old": PASSWORD, "new": "short"})
    assert short.status_code == 422 and "at least 15" in short.text
    assert here.post("/account/password", data={"old": PASSWORD, "new": "a quite new password"}).status_code == 302
    assert here.get("/account").status_code == 200
    assert there.get("/account").status_code == 302, "wherever else somebody was signed in, that has ended"


def test_codes_of_students_survive_a_new_secret(school, database_url):
    def app_with(secret):
        return create_app(
            {
                "DATABASE_URL": database_url,
                "SECRET_KEY": secret,
                "CODES_KEY": "the key of the codes",
                "PASSWORDS": CHEAP,
                "WTF_CSRF_ENABLED": False,
            }
        )

    with make_sessions(school)() as session:
        school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
        code = roster.personal_code("the key of the codes", school_class.students[0])
    for secret in ("one", "another"):
        client = app_with(secret).test_client()
        answer = client.post("/sign-in/code", data={"class_code": school_class.code, "code": code})
        assert answer.status_code == 302, secret


def test_readiness_says_what_is_missing(database_url):
    settings = {"SECRET_KEY": "k", "PASSWORDS": CHEAP}
    right = create_app({**settings, "DATABASE_URL": database_url}).test_client()
    assert right.get("/readyz").status_code == 200
    older = create_app({**settings, "DATABASE_URL": database_url, "REVISION": "9999"}).test_client()
    answer = older.get("/readyz")
    assert answer.status_code == 503 and answer.json == {"database": True, "migrations": False, "staying": True}
    gone = create_app({**settings, "DATABASE_URL": "mariadb+pymysql://x@127.0.0.1:9/x"}).test_client()
    answer = gone.get("/readyz")
    assert answer.status_code == 503 and answer.json == {"database": False, "migrations": False, "staying": True}
    assert gone.get("/healthz").status_code == 200, "the process lives"


def test_what_is_measured_is_told_on_the_machine_alone(app):
    client = app.test_client()
    assert client.get("/metrics", headers={"X-Forwarded-For": "203.0.113.9"}).status_code == 404
    assert client.get("/metrics", environ_base={"REMOTE_ADDR": "203.0.113.9"}).status_code == 404
    assert "widepin_request_seconds" in client.get("/metrics").text


def test_the_client_s_address_is_what_the_configured_proxies_say(school, database_url):
    def address_seen(proxies):
        app = create_app({"DATABASE_URL": database_url, "SECRET_KEY": "k", "PROXIES": proxies, "PASSWORDS": CHEAP})
        seen = []
        app.before_request(lambda: seen.append(request.remote_addr))
        app.test_client().get("/sign-in", headers={"X-Forwarded-For": "203.0.113.1, 198.51.100.7"})
        return seen[0]

    assert address_seen(0) == "127.0.0.1"
    assert address_seen(1) == "198.51.100.7", "what stands further left may be invented"


def test_the_log_tells_a_failed_sign_in_and_neither_name_nor_password(app, caplog, as_person):
    with caplog.at_level(logging.INFO, "widepin"):
        client, answer = sign_in(app, "ilse.marran", "not my password at all")
        assert answer.status_code == 422
        client = as_person("ilse.marran")
        client.get("/tasks")
    (failed,) = [one for one in caplog.records if one.name == "widepin.security"]
    assert failed.outcome == "failed" and failed.address == "127.0.0.1"
    told = json.dumps([one.__dict__ for one in caplog.records], default=str)
    assert "ilse" not in told.lower() and "not my password" not in told
    assert {one.status for one in caplog.records if one.name == "widepin.requests"} >= {422, 302, 200}


def test_an_error_page_shows_the_number_of_its_request(app, as_person):
    answer = as_person("ilse.marran").get("/no-such-page")
    assert answer.headers["X-Request-ID"] in answer.text


def test_what_is_asked_of_the_database_stands_in_no_error(school):
    with pytest.raises(DBAPIError) as wrong, make_sessions(school)() as session:
        session.execute(text("SELECT :secret FROM nowhere"), {"secret": "a secret"})
    assert "a secret" not in str(wrong.value)


def test_teachers_of_a_large_school_come_a_page_at_a_time_and_are_searched(app, administrator):
    with app.extensions["sessions"]() as session:
        made = [
            Person(
                name=f"Many {number:03}",
                family_name=f"{number:03}",
                login=f"many.{number:03}",
                password_hash="",
                role=Role.TEACHER,
            )
            for number in range(60)
        ]
        session.add_all(made)
        session.commit()
        try:
            first = administrator.get("/administration/people?search=many").text
            assert "60 teachers" in first and "Many 049" in first and "Many 050" not in first and "Next" in first
            second = administrator.get("/administration/people?search=many&page=1").text
            assert "Many 059" in second and "Many 049" not in second and "Previous" in second
            assert "Nobody who teaches" in administrator.get("/administration/people?search=100%25").text
        finally:
            for one in made:
                session.delete(one)
            session.commit()


def test_who_teaches_a_class_is_not_changed_by_an_older_page(app, administrator, newcomer, school):
    newcomer("first.helper"), newcomer("second.helper")
    one, other = (person(school, login).id for login in ("first.helper", "second.helper"))
    with make_sessions(school)() as session:
        number, owner = session.execute(select(SchoolClass.id, SchoolClass.teacher_id)).first()
    address = f"/administration/classes/{number}/teachers"
    before = unescape(re.search(r'name="made_from" value="([^"]*)"', administrator.get(address).text)[1])
    there = json.loads(before)["colleague"]
    sent = {"made_from": before, "teacher": owner}
    assert administrator.post(address, data=sent | {"colleague": [*there, one]}).status_code == 302
    answer = administrator.post(address, data=sent | {"colleague": [*there, other]})
    assert answer.status_code == 422 and "Changed elsewhere meanwhile: who teaches it besides" in answer.text
    administrator.post(address, data={"teacher": owner, "colleague": there})


def test_classes_of_a_large_school_come_a_page_at_a_time_and_are_searched(app, administrator):
    with app.extensions["sessions"]() as session:
        teacher = accounts.teacher_named(session, "corin.hale")
        made = [SchoolClass(name=f"Large {number:03}", teacher=teacher) for number in range(60)]
        session.add_all(made)
        session.commit()
        try:
            first = administrator.get("/administration/classes?search=large").text
            assert "60 classes" in first and "Large 049" in first and "Large 050" not in first and "Next" in first
            second = administrator.get("/administration/classes?search=large&page=1").text
            assert "Large 059" in second and "Large 049" not in second and "Previous" in second
            assert "No class or teacher" in administrator.get("/administration/classes?search=100%25").text
            assert "Large 000" in administrator.get("/administration/classes?search=corin").text
        finally:
            for one in made:
                session.delete(one)
            session.commit()
