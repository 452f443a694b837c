"""Signing in with the school's accounts: who gets in as whom, who does not, and signing out everywhere."""

from __future__ import annotations

import re
from html import unescape

import pytest
import requests
from sqlalchemy import func, select

from tests.joining.conftest import serve
from widepin.joining import openid
from widepin.joining.standins.provider import CLIENT_ID, CLIENT_SECRET, create_provider
from widepin.joining.tokens import new_key
from widepin.running.mariadb import free_port
from widepin.school.joining import provider
from widepin.school.models import BrowserSession, Person
from widepin.school.refused import Refused


@pytest.fixture
def accounts(tool, school):
    """The pretend provider, set: its state."""
    port = free_port()
    app = create_provider(f"http://localhost:{port}")
    server = serve(app, port)
    state = app.extensions["provider"]
    state.logout = tool.config["ADDRESS"] + "single-sign-on/signed-out"
    settle(school, state)
    yield state
    server.shutdown()


def settle(school, state, **others):
    fields = {
        "name": "School account",
        "issuer": state.address,
        "client_id": CLIENT_ID,
        "client_secret": CLIENT_SECRET,
        "claim": "preferred_username",
        "matches": "yes",
        "groups_claim": "groups",
        "teacher_groups": "staff",
        "student_groups": "pupils",
    }
    with school() as session:
        provider.store(session, None, fields | others, openid.describe(state.address), unsafe=True)
        session.commit()


class Browser(requests.Session):
    """Somebody's browser."""

    def __init__(self, tool, who):
        super().__init__()
        self.home, self.who = tool.config["ADDRESS"], who

    def begin(self, path="single-sign-on"):
        page = self.get(self.home + path)
        if "Sign in with your school account" in page.text:
            page = self.post(page.url, data={"person": self.who})
        return page

    def leave(self):
        page = self.get(self.home)
        token = re.search(r'name="csrf_token" value="([^"]+)"', page.text)[1]
        return self.post(self.home + "sign-out", data={"csrf_token": unescape(token)}, headers={"Referer": self.home})


@pytest.fixture
def visit(tool):
    return lambda who: Browser(tool, who)


def named(school, name):
    with school() as session:
        return session.scalars(select(Person).where(Person.name == name)).all()


def test_groups_make_accounts_of_their_kind_once(accounts, visit, school):
    page = visit("t-101").begin()
    assert page.ok and "Maud Ellery" in page.text and "/sign-in" not in page.url
    assert visit("s-201").begin().url.endswith("/tasks")
    visit("s-201").begin()
    (pupil,) = named(school, "Anselm Rook")
    assert (pupil.role.value, pupil.login, pupil.family_name) == ("student", "anselm.rook", "Rook")
    assert named(school, "Maud Ellery")[0].role.value == "teacher"


def test_an_account_that_is_here_is_found_by_its_login_where_that_is_wanted(accounts, visit, school):
    with school() as session:
        session.add(Person(login="anselm.rook", name="Anselm the Rook", role="student", password_hash=""))
        session.commit()
    assert "Anselm the Rook" in visit("s-201").begin().text
    settle(school, accounts, matches="")
    with school() as session:
        session.add(Person(login="bettany.crane", name="Another Bettany", role="student", password_hash=""))
        session.commit()
    page = visit("s-202").begin()
    assert "Another Bettany" not in page.text and "Bettany Crane" in page.text


def test_who_is_in_no_group_that_counts_gets_no_account(accounts, visit, school):
    accounts.others = {"groups": ["guests"]}
    page = visit("s-201").begin()
    assert page.status_code == 403 and "There is no account here for anselm.rook" in page.text
    assert named(school, "Anselm Rook") == []


def test_an_address_that_is_not_verified_finds_nobody(accounts, visit, school):
    settle(school, accounts, claim="email")
    with school() as session:
        session.add(Person(login="anselm.rook@carvers.example", name="By Mail", role="student", password_hash=""))
        session.commit()
    accounts.others = {"email_verified": False}
    assert "By Mail" not in visit("s-201").begin().text
    accounts.others = {"sub": "another"}
    assert "By Mail" in visit("s-201").begin().text


WRONG = {
    "iss": ("http://elsewhere.example", "another provider"),
    "aud": ("another-program", "another provider"),
    "nonce": ("an-old-one", "another question"),
    "exp": (1, "not of now"),
    "sub": ("", "does not say who"),
}


@pytest.mark.parametrize("claim", WRONG)
def test_a_token_that_is_not_right_lets_nobody_in(accounts, visit, school, claim):
    value, words = WRONG[claim]
    accounts.others = {claim: value}
    page = visit("s-201").begin()
    assert page.status_code == 403 and words in page.text and named(school, "Anselm Rook") == []


def test_an_answer_is_taken_once_and_in_the_browser_that_asked(accounts, visit, tool):
    mine, theirs = visit("s-201"), visit("s-202")
    mine.begin()
    asked = mine.get(tool.config["ADDRESS"] + "single-sign-on", allow_redirects=False)
    answer = mine.get(asked.headers["Location"], allow_redirects=False).headers["Location"]
    theirs.cookies.set("signing_in", "of-theirs", domain="127.0.0.1")
    assert "did not begin in this browser" in theirs.get(answer).text
    assert "used already" in mine.get(answer).text


def test_a_provider_with_a_new_key_is_read_anew(accounts, visit):
    visit("s-201").begin()
    accounts.key = new_key()
    assert visit("s-202").begin().url.endswith("/tasks")


def test_another_provider_that_calls_somebody_the_same_is_another(accounts, visit, school):
    visit("s-201").begin()
    with school() as session:
        provider.present(session).issuer = "http://elsewhere"
        found = provider.person_for(
            session, provider.present(session), {"sub": "sub-s-201", "groups": ["pupils"], "name": "A Stranger"}
        )
        assert found.name == "A Stranger"
        session.rollback()


def test_signing_out_here_signs_out_there(accounts, visit):
    pupil = visit("s-201")
    pupil.begin()
    page = pupil.leave()
    assert "You are signed out here" in page.text
    assert "/sign-in" in pupil.get(pupil.home).url
    there = unescape(re.search(r'href="([^"]+)" data-go-on', page.text)[1])
    assert there.startswith(accounts.address) and "/sign-in" in pupil.get(there).url
    assert "Sign in with your school account" in pupil.get(pupil.home + "single-sign-on").text, "it asks again"


def test_signing_out_there_ends_the_session_here_and_no_other(accounts, visit, school):
    pupil, other = visit("s-201"), visit("s-202")
    pupil.begin()
    other.begin()
    pupil.post(accounts.address + "/leave")
    assert "/sign-in" in pupil.get(pupil.home).url and other.get(other.home).url.endswith("/tasks")
    with school() as session:
        assert session.scalar(select(func.count()).select_from(BrowserSession)) == 1


@pytest.mark.parametrize("missing", ["events", "iat", "aud"])
def test_a_logout_that_is_none_ends_nothing(accounts, visit, tool, missing):
    from widepin.joining.tokens import signed

    pupil = visit("s-201")
    pupil.begin()
    claims = {
        "iss": accounts.address,
        "aud": CLIENT_ID,
        "iat": int(accounts.clock()),
        "sub": "sub-s-201",
        "events": {openid.LOGOUT_EVENT: {}},
    }
    claims.pop(missing)
    answer = requests.post(accounts.logout, data={"logout_token": signed(claims, *accounts.key)})
    assert answer.status_code == 400 and pupil.get(pupil.home).url.endswith("/tasks")


def test_what_is_filled_in_for_a_provider_is_checked(school):
    good = {"name": "A", "issuer": "https://id.example", "client_id": "c", "client_secret": "s", "claim": "email"}
    for name, value in (("name", ""), ("issuer", "http://id.example"), ("client_id", ""), ("claim", "")):
        with pytest.raises(Refused):
            provider.check(good | {name: value})
    with school() as session, pytest.raises(Refused, match="client secret"):
        provider.store(session, None, good | {"client_secret": ""}, {})


def test_the_secret_is_in_no_page(accounts, tool, school):
    admin = requests.Session()
    page = admin.get(tool.config["ADDRESS"] + "sign-in")
    token = re.search(r'name="csrf_token"[^>]*value="([^"]+)"', page.text)[1]
    admin.post(
        tool.config["ADDRESS"] + "sign-in",
        data={"login": "oda", "password": "tracery", "csrf_token": token},
        headers={"Referer": tool.config["ADDRESS"]},
    )
    page = admin.get(tool.config["ADDRESS"] + "administration/accounts")
    assert page.ok and accounts.address in page.text and CLIENT_SECRET not in page.text
