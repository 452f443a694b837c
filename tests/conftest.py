"""A real database and a real server for all tests that need them, made once per run."""

from __future__ import annotations

import pytest
from hypothesis import HealthCheck, settings
from sqlalchemy import select

from tests.amount import many
from tests.chromium import CHROMIUM, EXECUTABLE
from widepin.running.mariadb import THROWAWAY, MariaDB, free_port
from widepin.running.migrate import migrate
from widepin.running.web_server import WebServer
from widepin.school.database import make_engine, make_sessions
from widepin.school.demo.loading import load_demo
from widepin.school.models import Person
from widepin.school.people.passwords import Passwords
from widepin.web.app import create_app

settings.register_profile(
    "untimed", deadline=None, suppress_health_check=[HealthCheck.too_slow], max_examples=many(40, 400)
)
settings.load_profile("untimed")  # a busy machine is no fault

CHEAP = Passwords(time_cost=1, memory_kib=64)


SLOW = (
    "tests/running",
    *(f"tests/browser/test_{name}" for name in ("a_school", "a_week", "access_for_all", "second_week")),
)


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items):
    """What takes longest comes first, so that no worker is left alone with it at the end; else the order is random."""
    items.sort(key=lambda item: not item.nodeid.startswith(SLOW))


@pytest.fixture(scope="session")
def database_url(tmp_path_factory):
    """The address of an empty, migrated database on a server of its own."""
    server = MariaDB(tmp_path_factory.mktemp("db"), THROWAWAY)
    try:
        url = server.start()
        migrate(url)
        yield url
    finally:
        server.stop()


@pytest.fixture(scope="session")
def engine(database_url):
    engine = make_engine(database_url)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def school(engine):
    """A small demo school: four students a class."""
    with make_sessions(engine)() as session:
        load_demo(session, passwords=CHEAP, most_per_class=4)
        session.commit()
    return engine


@pytest.fixture
def session(school):
    """A session whose work is rolled back, even what it commits."""
    with school.connect() as connection, connection.begin() as transaction:
        with make_sessions(school)(bind=connection, join_transaction_mode="create_savepoint") as open_session:
            yield open_session
        transaction.rollback()


@pytest.fixture(scope="session")
def app(school, database_url):
    return create_app(
        {
            "DATABASE_URL": database_url,
            "SECRET_KEY": "for tests",
            "DEMO": True,
            "PASSWORDS": CHEAP,
            "WTF_CSRF_ENABLED": False,
            "TESTING": True,
        }
    )


@pytest.fixture
def as_person(app):
    """A client signed in as the person with a login."""

    def enter(login):
        client = app.test_client()
        if login:
            answer = client.post("/sign-in", data={"login": login, "password": "tracery"})
            assert answer.status_code == 302, answer.text
        return client

    return enter


@pytest.fixture(scope="session")
def served(school, database_url, tmp_path_factory):
    """The address of a real server, CSRF and all."""
    settings = {"DATABASE_URL": database_url, "SECRET_KEY": "k", "DEMO": True}
    server = WebServer(tmp_path_factory.mktemp("served"), free_port(), settings)
    server.start()
    yield server.address.rstrip("/")
    server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": EXECUTABLE, "args": CHROMIUM}


@pytest.fixture
def fresh_student(school):
    """Makes a student of the second year with an empty slate, by login."""

    def make(login):
        with make_sessions(school)() as session:
            veteran = session.scalars(select(Person).where(Person.login == "ilse.marran")).one()
            student = Person(
                login=login,
                name=login.title(),
                role="student",
                password_hash=veteran.password_hash,
                classes=list(veteran.classes),
            )
            session.add(student)
            session.commit()
        return login

    return make
