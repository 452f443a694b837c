"""Accounts of teachers: invited, with passwords that can be chosen, left, and looked after by somebody."""

import time
from datetime import timedelta

import pyotp
import pytest
from sqlalchemy import select

from tests.conftest import CHEAP
from widepin.school.models import AuditEntry, BrowserSession, OneTimeLink, Person, SchoolClass, now
from widepin.school.people import accounts, browser_sessions, second_factor, teaching
from widepin.school.refused import Refused
from widepin.school.states import Action, Role

GOOD = "four stones in a row"


@pytest.fixture
def administrator(session):
    return accounts.teacher_named(session, "oda.finch")


@pytest.fixture
def corin(session):
    return accounts.teacher_named(session, "corin.hale")


def joined(session, by, login, administrator=False):
    token = accounts.invite(session, by, login.title(), administrator)
    link = accounts.open_link(session, token)
    return accounts.join(session, link, CHEAP, login.title(), login, GOOD)


def actions(session):
    return list(session.scalars(select(AuditEntry.action).order_by(AuditEntry.id)))


@pytest.mark.parametrize(
    ("password", "word"),
    [
        ("short", "15"),
        ("a" * 20, "guessed"),
        ("123456789012345", "guessed"),
        ("abcabcabcabcabcabc", "guessed"),
        ("ada.thorne ada.thorne", "guessed"),
        ("stonecarvers school", "guessed"),
        ("x" * 5000, "at most"),
    ],
)
def test_passwords_that_are_easily_guessed_are_refused_and_why(password, word):
    with pytest.raises(Refused, match=word):
        accounts.check_password(password, "ada.thorne", school="Stonecarvers school")


def test_with_a_second_factor_a_shorter_password_does_but_no_common_one():
    accounts.check_password("kvist-8p", "ada", has_second_factor=True)
    with pytest.raises(Refused, match="15"):
        accounts.check_password("kvist-8p", "ada")
    for common in ("password", "Password1", "iloveyou", "sunshine99"):
        with pytest.raises(Refused, match="Many people"):
            accounts.check_password(common, "ada", has_second_factor=True)


@pytest.mark.parametrize(
    "password", ["only small letters here", "Ünïcödé wörds, très bien", "pass phrase 石 石匠 学校 窗"]
)
def test_any_characters_make_a_password_and_no_kind_is_asked_for(password):
    accounts.check_password(password, "ada")


def test_an_invitation_makes_one_account_and_is_used_up(session, administrator):
    token = accounts.invite(session, administrator, "Tam Reed")
    link = accounts.open_link(session, token)
    made = accounts.join(session, link, CHEAP, "Tam Reed", " Tam.Reed ", GOOD)
    assert (made.login, made.role, made.administrator) == ("tam.reed", Role.TEACHER, False)
    assert CHEAP.fits(made, GOOD) and not CHEAP.fits(made, "another one")
    assert accounts.open_link(session, token) is None
    assert token not in str([row.__dict__ for row in session.scalars(select(OneTimeLink))])
    assert actions(session)[-2:] == [Action.INVITED, Action.JOINED]


@pytest.mark.parametrize("login", ["corin.hale", "Corin.Hale", "two words", "", "x" * 65])
def test_a_login_is_one_word_that_nobody_has(session, administrator, login):
    link = accounts.open_link(session, accounts.invite(session, administrator, "Tam"))
    with pytest.raises(Refused):
        accounts.join(session, link, CHEAP, "Tam", login, GOOD)


def test_a_link_does_not_work_after_its_time(session, administrator):
    token = accounts.invite(session, administrator, "Late Comer")
    link = accounts.open_link(session, token)
    link.expires = now() - timedelta(seconds=1)
    session.flush()
    assert accounts.open_link(session, token) is None
    accounts.invite(session, administrator, "Somebody else")
    assert not [one for one in session.scalars(select(OneTimeLink)) if one.name == "Late Comer"]


def test_the_first_administrator_has_a_link_until_there_is_one(session, administrator):
    assert accounts.first_administrator_link(session) is None
    administrator.administrator = False
    session.flush()
    first, second = accounts.first_administrator_link(session), accounts.first_administrator_link(session)
    assert accounts.open_link(session, first) is None, "the newest link alone holds"
    assert accounts.join(session, accounts.open_link(session, second), CHEAP, "Ada", "ada", GOOD).administrator


def test_a_reset_ends_sessions_and_sets_the_second_factor_aside(session, administrator, corin):
    secret = second_factor.new_secret()
    assert second_factor.begin(session, corin, secret, pyotp.TOTP(secret).now())
    key = browser_sessions.begin(session, corin, "127.0.0.1", "")
    link = accounts.open_link(session, accounts.reset(session, administrator, corin))
    accounts.choose_anew(session, link, CHEAP, GOOD)
    assert not corin.has_second_factor and second_factor.codes_left(session, corin) == 0
    assert browser_sessions.known(session, key) is None
    assert CHEAP.fits(corin, GOOD)


def test_the_last_administrator_stays(session, administrator, corin):
    for attempt in (
        lambda: accounts.make_administrator(session, administrator, administrator, False),
        lambda: accounts.leave(session, administrator, administrator),
        lambda: accounts.erase_teacher(session, administrator, administrator, corin),
    ):
        with pytest.raises(Refused, match="Nobody else"):
            attempt()
    accounts.make_administrator(session, administrator, corin, True)
    accounts.make_administrator(session, corin, administrator, False)
    assert not administrator.administrator


def test_who_has_left_cannot_come_in_and_loses_nothing(session, administrator, corin):
    classes = len(list(session.scalars(select(SchoolClass).where(SchoolClass.teacher_id == corin.id))))
    browser_sessions.begin(session, corin, "127.0.0.1", "")
    accounts.leave(session, administrator, corin)
    assert corin.left and corin not in teaching.at_work(session)
    assert not list(session.scalars(select(BrowserSession).where(BrowserSession.person_id == corin.id)))
    accounts.come_back(session, administrator, corin)
    assert corin in teaching.at_work(session)
    assert classes == len(list(session.scalars(select(SchoolClass).where(SchoolClass.teacher_id == corin.id))))


def test_a_code_of_the_second_factor_works_once_and_a_recovery_code_too(session, corin):
    secret = second_factor.new_secret()
    codes = second_factor.begin(session, corin, secret, pyotp.TOTP(secret).now())
    assert len(codes) == second_factor.RECOVERY_CODES
    code = pyotp.TOTP(secret).at(int(time.time()) + second_factor.STEP)
    assert second_factor.fits(session, corin, code)
    assert not second_factor.fits(session, corin, code), "seen over a shoulder, it is worth nothing"
    assert second_factor.fits(session, corin, codes[0].lower().replace("-", " "))
    assert not second_factor.fits(session, corin, codes[0])
    assert second_factor.codes_left(session, corin) == second_factor.RECOVERY_CODES - 1


def test_a_class_is_handed_over_with_all_that_is_in_it(session, administrator, corin):
    school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    students = len(school_class.students)
    teaching.hand_over(session, administrator, school_class, administrator, stay=True)
    session.flush()
    assert school_class.teacher is administrator and school_class.colleagues == [corin]
    assert teaching.teaches(corin, school_class) and len(school_class.students) == students
    teaching.set_colleagues(session, administrator, school_class, [])
    assert not teaching.teaches(corin, school_class)


def test_a_class_does_not_go_to_who_has_one_of_its_name_or_has_left(session, administrator, corin):
    school_class = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    session.add(SchoolClass(name="First year", teacher=administrator))
    session.flush()
    with pytest.raises(Refused, match="of this name"):
        teaching.hand_over(session, administrator, school_class, administrator, stay=False)
    assert school_class.teacher_id == corin.id
    tam = joined(session, administrator, "tam.reed")
    accounts.leave(session, administrator, tam)
    with pytest.raises(Refused, match="at present"):
        teaching.hand_over(session, administrator, school_class, tam, stay=False)


def test_sessions_are_ended_one_by_one_or_all_others(session, corin):
    here, there, elsewhere = (browser_sessions.begin(session, corin, "127.0.0.1", "") for _ in range(3))
    browser_sessions.end_one(session, corin, browser_sessions.known(session, there).id)
    assert browser_sessions.known(session, there) is None
    browser_sessions.end_others(session, corin, here)
    assert browser_sessions.known(session, elsewhere) is None
    assert [one.person for one in browser_sessions.of(session, corin)] == [corin]


def test_nobody_ends_the_sessions_of_somebody_else(session, administrator, corin):
    key = browser_sessions.begin(session, corin, "127.0.0.1", "")
    browser_sessions.end_one(session, administrator, browser_sessions.known(session, key).id)
    assert isinstance(browser_sessions.known(session, key).person, Person)


def test_a_code_fits_half_a_minute_before_and_after_its_own_and_no_longer():
    secret, at = second_factor.new_secret(), 3000.0
    code = pyotp.TOTP(secret).at(at)
    fits = {seconds: second_factor.step_of(secret, code, at + seconds) for seconds in (-60, -30, 0, 30, 60)}
    assert fits == {-60: None, -30: 100, 0: 100, 30: 100, 60: None}
