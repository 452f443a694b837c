"""Signing in: failed tries make the next wait, on the person or class that is meant, whoever counts and from where."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Person, SchoolClass, SignIn, now
from widepin.school.people.roster import add_students, new_class, personal_code
from widepin.school.people.signing_in import CLASS, KEPT, PERSON, Patience
from widepin.web.app import create_app
from widepin.web.signin.views import local

HOME, ELSEWHERE = "10.0.0.1", "10.9.9.9"


def sign_in(app, login, password="wrong", address=ELSEWHERE):
    return app.test_client().post(
        "/sign-in", data={"login": login, "password": password}, environ_base={"REMOTE_ADDR": address}
    )


def by_code(app, class_code, code, address=ELSEWHERE):
    return app.test_client().post(
        "/sign-in/code", data={"class_code": class_code, "code": code}, environ_base={"REMOTE_ADDR": address}
    )


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


@pytest.fixture
def little_class(school):
    """Makes a class of two, by name: its code, and those of its students."""

    def make(name):
        with make_sessions(school)() as session:
            teacher = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
            made = new_class(session, teacher, name)
            students = add_students(session, made, [f"{name} one", f"{name} two"])
            session.commit()
            return made.code, [personal_code("for tests", student) for student in students]

    return make


def test_a_wait_grows_and_has_an_end():
    waits = [Patience(3, 10, timedelta(hours=1)).wait(failures) for failures in range(9)]
    assert waits == [0, 0, 0, 1, 2, 4, 8, 10, 10]


def test_a_wrong_password_puts_off_the_next_try_longer_each_time(app, fresh_student, later):
    login = fresh_student("guessed-at")
    assert {sign_in(app, login).status_code for _ in range(PERSON.free)} == {422}
    said = sign_in(app, login)
    assert said.status_code == 429 and "Wait a second" in said.text and said.headers["Retry-After"] == "1"
    later(seconds=2)
    assert sign_in(app, login).status_code == 422, "what was put off does not count"
    later(seconds=1)
    assert sign_in(app, login, "tracery").status_code == 429
    later(seconds=2)
    assert sign_in(app, login, "tracery").status_code == 302


@pytest.mark.parametrize("alias", [" guessed ", "GUESSED", "guessed\u200b", "\uff47uessed", "gu\u00e9ssed", "guessed."])
def test_other_spellings_get_nobody_round_the_limit(app, school, fresh_student, alias):
    """What is found is counted; what is not found lets nobody in, however often it is tried."""
    with make_sessions(school)() as session:
        known = session.scalar(select(Person.id).where(Person.login == "guessed"))
    login = "guessed" if known else fresh_student("guessed")
    for _ in range(PERSON.free + 3):
        sign_in(app, login)
    assert sign_in(app, alias, "tracery").status_code == (429 if alias.strip().lower() == login else 422)


def test_a_process_that_counts_apart_counts_the_same(app, fresh_student):
    login = fresh_student("two-workers")
    other = create_app(dict(app.config))
    codes = [sign_in(one, login).status_code for _ in range(4) for one in (app, other)]
    assert codes == [422] * PERSON.free + [429] * (8 - PERSON.free)


def test_tries_at_once_do_not_pass_each_other(app, fresh_student):
    login = fresh_student("all-at-once")
    with ThreadPoolExecutor(10) as threads:
        codes = list(threads.map(lambda _: sign_in(app, login).status_code, range(30)))
    assert codes.count(422) <= PERSON.free + 2 and set(codes) == {422, 429}


def test_a_class_that_signs_in_at_once_waits_for_nothing(app, school, fresh_student):
    """Tries that are not looked at yet count as failed; which of them is first by the clock makes no difference."""
    with make_sessions(school)() as session:
        session.add_all(SignIn(address=HOME, unknown=f"{n}", at=now() + timedelta(seconds=2)) for n in range(30))
        session.commit()
    assert sign_in(app, fresh_student("in-the-crowd"), "tracery", HOME).status_code == 302


def test_whoever_guesses_elsewhere_puts_off_nobody_at_the_usual_place(app, fresh_student, later):
    login = fresh_student("usual-place")
    assert sign_in(app, login, "tracery", HOME).status_code == 302
    for _ in range(PERSON.free + 2):
        sign_in(app, login)
    assert sign_in(app, login, "tracery").status_code == 429
    assert sign_in(app, login, "tracery", HOME).status_code == 302
    assert sign_in(app, login, "tracery").status_code == 429, "and is not helped by it"
    later(hours=2)
    assert sign_in(app, login, "tracery").status_code == 302


def test_signing_in_forgives_what_went_wrong_before(app, fresh_student):
    login = fresh_student("forgiven")
    for _ in range(3):
        for _ in range(PERSON.free - 1):
            assert sign_in(app, login, address=HOME).status_code == 422
        assert sign_in(app, login, "tracery", HOME).status_code == 302


def test_a_refused_try_costs_no_password_hash(app, fresh_student, monkeypatch):
    login = fresh_student("cheaply")
    for _ in range(PERSON.free):
        sign_in(app, login)
    monkeypatch.setattr(app.extensions["passwords"], "fits", lambda *_: pytest.fail("the password was looked at"))
    assert sign_in(app, login, "tracery").status_code == 429


def test_a_class_that_mistypes_its_cards_is_not_kept_waiting(app, little_class):
    code, students = little_class("Mistyping")
    for number in range(CLASS.free - 1):
        assert by_code(app, code, f"AAAA-{number:04}").status_code == 422
    assert by_code(app, code, students[0]).status_code == 302
    home = [by_code(app, f"{code[:2]}-{code[2:].lower()} ", "AAAA-AAAA", HOME).status_code for _ in range(3)]
    assert home == [422, 422, 422]


def test_guessed_codes_put_off_the_class_elsewhere_but_not_where_it_sits(app, little_class):
    code, students = little_class("Guessed")
    assert by_code(app, code, students[0], HOME).status_code == 302
    answers = [by_code(app, f".{code}-", "AAAA-AAAA").status_code for _ in range(CLASS.free + 1)]
    assert answers == [422] * CLASS.free + [429]
    assert by_code(app, code, students[1]).status_code == 429
    assert by_code(app, code, students[1], HOME).status_code == 302


def test_one_address_cannot_try_everybody_but_puts_off_nobody_who_sits_there(app, school, fresh_student):
    login = fresh_student("sits-there")
    assert sign_in(app, login, "tracery").status_code == 302
    with make_sessions(school)() as session:
        session.add_all(SignIn(address=ELSEWHERE, unknown=f"{number}") for number in range(300))
        session.commit()
    assert sign_in(app, "one.more").status_code == 429
    assert sign_in(app, "one.more", address=HOME).status_code == 422
    assert sign_in(app, login, "tracery").status_code == 302


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
