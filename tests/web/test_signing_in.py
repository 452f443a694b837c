"""Signing in: who guesses is put off, by browser, by person or class, and last by address, and nobody else."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.documents.formats.roster import Name
from widepin.school.database import make_sessions
from widepin.school.models import Person, SchoolClass, SignIn, now
from widepin.school.people.roster import add_students, new_class, personal_code
from widepin.school.people.signing_in import CLASS, FLOOD, KEPT, PERSON, Patience
from widepin.web.app import create_app
from widepin.web.signin.views import local

HOME, ELSEWHERE = "10.0.0.1", "10.9.9.9"


def sent(app, path, form, address, device):
    client = app.test_client()
    if device:
        client.set_cookie("device", device)
    return client.post(path, data=form, environ_base={"REMOTE_ADDR": address})


def sign_in(app, login, password="wrong", address=ELSEWHERE, device=""):
    return sent(app, "/sign-in", {"login": login, "password": password}, address, device)


def by_code(app, class_code, code, address=ELSEWHERE, device=""):
    return sent(app, "/sign-in/code", {"class_code": class_code, "code": code}, address, device)


@pytest.fixture
def later(school):
    """Lets time pass, by making what was recorded older."""

    def pass_by(**time):
        with make_sessions(school)() as session:
            for one in session.scalars(select(SignIn)):
                one.at -= timedelta(**time)
            session.commit()

    return pass_by


@pytest.fixture(autouse=True)
def nobody_tried_before(school):
    with make_sessions(school)() as session:
        session.query(SignIn).delete()
        session.commit()


@pytest.fixture(autouse=True)
def clock_of_tries(monkeypatch):
    """Stands still, however long a try takes here: only ``later`` lets time pass."""
    stopped = now()
    monkeypatch.setattr(SignIn.__table__.c.at.default, "arg", lambda _context: stopped)
    monkeypatch.setattr("widepin.school.people.signing_in.now", lambda: stopped)
    return stopped


@pytest.fixture
def little_class(school):
    """Makes a class of two, by name: its code, and those of its students."""

    def make(name):
        with make_sessions(school)() as session:
            teacher = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
            made = new_class(session, teacher, name)
            students = add_students(session, made, [Name(name, "one"), Name(name, "two")])
            session.commit()
            return made.code, [personal_code("for tests", student) for student in students]

    return make


def test_right_codes_of_a_class_that_is_put_away_are_told_from_wrong_ones(app, school, little_class):
    class_code, (code, _other) = little_class("Put away")
    with make_sessions(school)() as session:
        session.scalars(select(SchoolClass).where(SchoolClass.code == class_code)).one().archived = now()
        session.commit()

    def told(personal):
        return app.test_client().post("/sign-in/code", data={"class_code": class_code, "code": personal})

    assert told(code).status_code == 422 and "This class is closed" in told(code).text
    assert "do not fit" in told("WRNG-CODE").text


def test_a_wait_grows_and_has_an_end():
    waits = [Patience(3, 10, timedelta(hours=1)).wait(failures) for failures in range(9)]
    assert waits == [0, 0, 0, 1, 2, 4, 8, 10, 10]


def test_a_wrong_password_puts_off_the_next_try_longer_each_time(app, fresh_student, later):
    login = fresh_student("guessed-at")
    assert {sign_in(app, login).status_code for _ in range(PERSON.device.free)} == {422}
    said = sign_in(app, login)
    assert said.status_code == 429 and "Wait a second" in said.text and said.headers["Retry-After"] == "1"
    later(seconds=2)
    assert sign_in(app, login).status_code == 422, "what was put off does not count"
    later(seconds=1)
    assert sign_in(app, login, "tracery").status_code == 429
    later(seconds=2)
    assert sign_in(app, login, "tracery").status_code == 302


def test_tries_from_before_the_clock_was_set_back_put_off_nobody(app, fresh_student, later):
    login = fresh_student("clock-set-back")
    for _ in range(PERSON.device.free + 2):
        sign_in(app, login)
    later(hours=-2)
    assert sign_in(app, login, "tracery").status_code == 302


@pytest.mark.parametrize("alias", [" guessed ", "GUESSED", "guessed\u200b", "\uff47uessed", "gu\u00e9ssed", "guessed."])
def test_other_spellings_get_nobody_round_the_limit(app, school, fresh_student, alias):
    """What is found is counted; what is not found lets nobody in, however often it is tried."""
    with make_sessions(school)() as session:
        known = session.scalar(select(Person.id).where(Person.login == "guessed"))
    login = "guessed" if known else fresh_student("guessed")
    for _ in range(PERSON.device.free + 3):
        sign_in(app, login)
    assert sign_in(app, alias, "tracery").status_code == (429 if alias.strip().lower() == login else 422)


def test_a_process_that_counts_apart_counts_the_same(app, fresh_student):
    login = fresh_student("two-workers")
    other = create_app(dict(app.config))
    codes = [sign_in(one, login).status_code for _ in range(4) for one in (app, other)]
    assert codes == [422] * PERSON.device.free + [429] * (8 - PERSON.device.free)


def test_tries_at_once_do_not_pass_each_other(app, fresh_student):
    login = fresh_student("all-at-once")
    with ThreadPoolExecutor(10) as threads:
        codes = list(threads.map(lambda _: sign_in(app, login).status_code, range(30)))
    assert codes.count(422) <= PERSON.device.free + 2 and set(codes) == {422, 429}


def test_a_class_that_signs_in_at_once_waits_for_nothing(app, school, fresh_student):
    """Tries that are not looked at yet count as failed; which of them is first by the clock makes no difference."""
    with make_sessions(school)() as session:
        session.add_all(SignIn(address=HOME, unknown=f"{n}", at=now() + timedelta(seconds=2)) for n in range(30))
        session.commit()
    assert sign_in(app, fresh_student("in-the-crowd"), "tracery", HOME).status_code == 302


def test_whoever_guesses_in_the_same_network_puts_off_nobody_else(app, fresh_student):
    login = fresh_student("same-network")
    assert sign_in(app, login, "tracery", HOME, "own laptop").status_code == 302
    for _ in range(61):
        sign_in(app, login, address=HOME, device="of the guesser")
    assert sign_in(app, login, "tracery", HOME, "of the guesser").status_code == 429
    assert sign_in(app, login, "tracery", HOME, "a new one").status_code == 302
    assert sign_in(app, login, "tracery", HOME, "own laptop").status_code == 302


def test_whoever_drops_the_cookie_each_time_is_put_off_in_the_end_and_a_known_browser_is_not(app, fresh_student):
    login = fresh_student("cookies-dropped")
    assert sign_in(app, login, "tracery", HOME, "own laptop").status_code == 302
    answers = [sign_in(app, login, device=f"guess {number}").status_code for number in range(PERSON.strange.free + 2)]
    assert answers == [422] * PERSON.strange.free + [429, 429]
    assert sign_in(app, login, "tracery", ELSEWHERE, "a new one").status_code == 429
    assert sign_in(app, login, "tracery", ELSEWHERE, "own laptop").status_code == 302


def test_a_right_password_alone_makes_no_browser_known(app, school, fresh_student):
    """Else who knows it could try codes of the second factor without end, each time with another cookie."""
    login = fresh_student("halfway-there")
    with make_sessions(school)() as session:
        person = session.scalars(select(Person).where(Person.login == login)).one()
        person.otp_secret = "JBSWY3DPEHPK3PXP" * 2
        session.commit()
    codes = []
    for number in range(PERSON.strange.free + 3):
        client = app.test_client()
        client.set_cookie("device", f"guess {number}")
        if client.post("/sign-in", data={"login": login, "password": "tracery"}).status_code == 302:
            codes.append(client.post("/sign-in/second", data={"code": "000000"}).status_code)
    assert codes.count(422) <= PERSON.strange.free


def test_a_browser_is_known_by_a_cookie_that_scripts_cannot_read(app):
    answer = app.test_client().get("/sign-in")
    (cookie,) = [one for one in answer.headers.getlist("Set-Cookie") if one.startswith("device=")]
    assert "HttpOnly" in cookie and "SameSite=Lax" in cookie
    again = app.test_client()
    again.set_cookie("device", "mine")
    assert any(one.startswith("device=mine;") for one in again.get("/sign-in").headers.getlist("Set-Cookie"))


def test_signing_in_forgives_what_went_wrong_before(app, fresh_student):
    login = fresh_student("forgiven")
    for _ in range(3):
        for _ in range(PERSON.device.free - 1):
            assert sign_in(app, login, address=HOME).status_code == 422
        assert sign_in(app, login, "tracery", HOME).status_code == 302


def test_a_refused_try_costs_no_password_hash(app, fresh_student, monkeypatch):
    login = fresh_student("cheaply")
    for _ in range(PERSON.device.free):
        sign_in(app, login)
    monkeypatch.setattr(app.extensions["passwords"], "fits", lambda *_: pytest.fail("the password was looked at"))
    assert sign_in(app, login, "tracery").status_code == 429


def test_a_class_that_mistypes_its_cards_is_not_kept_waiting(app, little_class):
    code, students = little_class("Mistyping")
    for number in range(CLASS.device.free - 1):
        assert by_code(app, code, f"AAAA-{number:04}").status_code == 422
    assert by_code(app, code, students[0]).status_code == 302
    home = [by_code(app, f"{code[:2]}-{code[2:].lower()} ", "AAAA-AAAA", HOME).status_code for _ in range(3)]
    assert home == [422, 422, 422]


def test_a_right_code_is_let_in_however_many_wrong_ones_there_were(app, little_class):
    code, students = little_class("Guessed")
    answers = [by_code(app, f".{code}-", "AAAA-AAAA", HOME, "guesser").status_code for _ in range(80)]
    assert answers == [422] * CLASS.device.free + [429] * (80 - CLASS.device.free)
    assert by_code(app, code, students[1], HOME, "guesser").status_code == 302
    assert by_code(app, code, students[0], HOME, "another").status_code == 302
    assert by_code(app, code, "AAAA-AAAA", HOME, "another").status_code == 422, "who mistypes once is told so"


def test_where_somebody_of_the_class_has_come_from_before_a_right_code_is_let_in_as_well(app, little_class):
    code, students = little_class("Shared tablet")
    assert by_code(app, code, students[0], HOME, "tablet").status_code == 302
    answers = [by_code(app, code, "AAAA-AAAA", HOME, "tablet").status_code for _ in range(CLASS.device.free + 3)]
    assert answers[-1] == 429
    assert by_code(app, code, students[1], HOME, "tablet").status_code == 302


def test_a_flood_of_wrong_codes_stops_strange_browsers_and_not_those_of_the_class(
    app, school, little_class, clock_of_tries
):
    code, students = little_class("Flooded")
    assert by_code(app, code, students[0], HOME, "tablet 3").status_code == 302
    with make_sessions(school)() as session:
        number = session.scalars(select(SchoolClass.id).where(SchoolClass.code == code)).one()
        session.add_all(
            SignIn(address=ELSEWHERE, class_id=number, device=f"{n}", outcome="put off", at=clock_of_tries)
            for n in range(FLOOD.free)
        )
        session.commit()
    assert by_code(app, code, students[1], HOME, "a new one").status_code == 429
    assert by_code(app, code, students[1], HOME, "tablet 3").status_code == 302


def test_one_address_cannot_try_everybody_but_puts_off_no_known_browser(
    app, school, fresh_student, little_class, clock_of_tries
):
    login = fresh_student("sits-there")
    code, students = little_class("Sits there")
    assert sign_in(app, login, "tracery", device="own laptop").status_code == 302
    with make_sessions(school)() as session:
        session.add_all(SignIn(address=ELSEWHERE, unknown=f"{number}", at=clock_of_tries) for number in range(300))
        session.commit()
    assert sign_in(app, "one.more").status_code == 429
    assert sign_in(app, "one.more", address=HOME).status_code == 422
    assert sign_in(app, login, "tracery", device="own laptop").status_code == 302
    assert by_code(app, code, students[0]).status_code == 302, "a right code is let in"


def test_the_own_password_cannot_be_guessed_at_a_browser_found_open(app, as_person):
    client = as_person("oda.finch")
    form = {"old": "wrong", "new": "a quite long new password"}
    codes = [client.post("/account/password", data=form).status_code for _ in range(PERSON.device.free + 1)]
    assert set(codes) == {422}
    said = client.post("/account/password", data=form | {"old": "tracery"})
    assert said.status_code == 422 and "Too many tries" in said.text
    assert "Too many tries" in client.post("/account/second-factor/end", data={"password": "tracery"}).text


def test_the_record_says_who_came_when_and_keeps_no_words(app, school, fresh_student, little_class, later):
    login = fresh_student("on-record")
    code, students = little_class("On record")
    sign_in(app, "my secret password", address=HOME)
    later(days=KEPT.days + 1)
    for answer in (sign_in(app, login, "tracery", HOME), by_code(app, code, students[0], HOME)):
        assert answer.status_code == 302
    with make_sessions(school)() as session:
        first, second = session.scalars(select(SignIn).order_by(SignIn.id))
        assert (first.outcome, first.address, first.class_id) == ("succeeded", HOME, None)
        assert session.get(Person, first.person_id).login == login
        assert session.get(SchoolClass, second.class_id).code == code and second.person_id
        assert now() - second.at < timedelta(minutes=1)


@pytest.mark.parametrize(
    ("target", "where"),
    [
        ("/tasks/3?a=b", "/tasks/3?a=b"),
        *(
            (bad, None)
            for bad in ("", "//x", "/\\x", "http://x/", "/a\nb", "/a\r\nSet-Cookie: b", "tasks", "/\x00", "///x")
        ),
    ],
)
def test_nobody_is_led_elsewhere(target, where):
    assert local(target) == where
