"""A school of its own, served for real, and a pretend learning platform beside it; visitors who come from there."""

from __future__ import annotations

import re
from html import unescape
from threading import Thread
from urllib.parse import urljoin

import pytest
import requests
from sqlalchemy import select
from werkzeug.serving import make_server

from tests.conftest import CHEAP
from widepin.joining.standins.platform import CLIENT_ID, DEPLOYMENT, create_platform
from widepin.running.mariadb import THROWAWAY, MariaDB, free_port
from widepin.running.migrate import migrate
from widepin.school.joining import platforms
from widepin.school.models import Base, Person, SchoolClass
from widepin.web.app import create_app
from widepin.web.jobs import joining


@pytest.fixture(scope="package")
def own_database(tmp_path_factory):
    server = MariaDB(tmp_path_factory.mktemp("joining"), THROWAWAY)
    url = server.start()
    migrate(url)
    yield url
    server.stop()


def serve(app, port):
    server = make_server("127.0.0.1", port, app, threaded=True)
    Thread(target=server.serve_forever, daemon=True).start()
    return server


@pytest.fixture(scope="package")
def tool(own_database):
    """The application, served in this process."""
    port = free_port()
    settings = {"DATABASE_URL": own_database, "SECRET_KEY": "for tests", "PASSWORDS": CHEAP, "TESTING": True}
    app = create_app(settings | {"ADDRESS": f"http://127.0.0.1:{port}/"})
    server = serve(app, port)
    yield app
    server.shutdown()


@pytest.fixture
def school(tool):
    """Its sessions; nothing is in its tables but one who looks after it."""
    made = tool.extensions["sessions"]
    with made() as session:
        for table in reversed(Base.metadata.sorted_tables):
            session.execute(table.delete())
        session.add(
            Person(
                login="oda", name="Oda Finch", role="teacher", administrator=True, password_hash=CHEAP.hash("tracery")
            )
        )
        session.commit()
    return made


@pytest.fixture
def standin(tool, school):
    """The pretend platform, registered: its state."""
    port = free_port()
    address = f"http://localhost:{port}"
    app = create_platform(address, tool.config["ADDRESS"])
    server = serve(app, port)
    with school() as session:
        platforms.store(session, None, described(address))
        session.commit()
    yield app.extensions["platform"]
    server.shutdown()


def described(address, **others):
    fields = {
        "name": "Pretend",
        "issuer": address,
        "client_id": CLIENT_ID,
        "login_address": f"{address}/auth",
        "token_address": f"{address}/token",
        "keys_address": f"{address}/keys",
        "audience": "",
        "deployments": DEPLOYMENT,
    }
    return platforms.read(fields | others, unsafe=True)


class Visitor:
    """Somebody with a browser: follows redirections, and sends forms on that scripts would."""

    def __init__(self, standin, person):
        self.browser, self.standin = requests.Session(), standin
        self.browser.post(f"{standin.address}/sign-in", data={"person": person})
        self.page = None

    def get(self, address):
        self.page = self.browser.get(address)
        return self.sent_on()

    def sent_on(self):
        """After every form that a script sends at once."""
        while "data-send-on" in self.page.text or 'id="send"' in self.page.text:
            self.send()
        return self

    def send(self, **others):
        """The one form of the page's main part."""
        main = self.page.text.split("<main", 1)[1]
        form = re.search(r'<form[^>]*?(?:action="([^"]*)")?[^>]*>(.*?)</form>', main, re.S)
        action = re.search(r'<form[^>]*action="([^"]*)"', main)
        fields = {
            unescape(name): unescape(value)
            for name, value in re.findall(r'<input type="hidden" name="([^"]*)" value="([^"]*)"', form[2])
        }
        address = urljoin(self.page.url, unescape(action[1]) if action else self.page.url)
        self.page = self.browser.post(address, data=fields | others, headers={"Referer": self.page.url})
        return self

    def come(self, course="c-1", link=None):
        """From a course: to a link, or to choose tasks; a first visit is gone through."""
        where = "choose" if link is None else f"open/{link}"
        self.get(f"{self.standin.address}/courses/{course}/{where}")
        if "/first-visit/" in self.page.url and self.page.ok:
            self.send()
        return self

    def choose(self, *tasks, due=""):
        self.send(task=list(tasks), due=due)
        return self.sent_on()

    @property
    def said(self):
        """What the page says."""
        main = self.page.text.split("<main", 1)[1].split("</main>")[0]
        return " ".join(unescape(re.sub("<[^>]*>", " ", main)).split())


@pytest.fixture(autouse=True)
def asked_for(monkeypatch):
    """The courses whose lists were to be taken over in the background, which tests do themselves."""
    courses: list[int] = []
    monkeypatch.setattr(joining, "take_over_soon", courses.append)
    return courses


@pytest.fixture
def visitor(standin):
    return lambda person: Visitor(standin, person)


def class_named(session, name):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == name)).one()
