"""A server of its own with one large class, for benchmarks and trials: real database, real server, real requests."""

from __future__ import annotations

import http.client
import json
import re
import shutil
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from urllib.parse import urlencode

from widepin.running.mariadb import DURABLE, MariaDB, free_port
from widepin.running.migrate import migrate
from widepin.running.web_server import WebServer
from widepin.school.database import make_engine, make_sessions
from widepin.school.demo.accounts import DEMO_PASSWORD, SHOWN_ACCOUNTS
from widepin.school.demo.loading import load_demo
from widepin.school.models import Assignment, Person, SchoolClass
from widepin.school.people.passwords import Passwords
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet

SECRET = "for benchmarks and trials alone"


@dataclass(frozen=True)
class Address:
    """Where students come, if that is no web server of this machine's own: a proxy on the loopback interface."""

    port: int


@dataclass
class Lesson:
    """Where students work, and the numbers of the task that everybody works at and of its assignments, one for each
    class. ``logins``: the teacher's first; students belong to the classes in turn.
    """

    web: WebServer | Address
    url: str
    assignments: list[int]
    sheet: int
    logins: list[str]

    @property
    def assignment(self) -> int:
        """The assignment of the first class."""
        return self.assignments[0]


@dataclass
class Served(Lesson):
    """A lesson on a server of its own."""

    web: WebServer
    database: MariaDB


@contextmanager
def served(
    students: int, app: str | None = None, folder: Path | None = None, demo: bool = False, classes: int = 1
) -> Iterator[Served]:
    """A school with so many students, one class or several and one task, in a folder that goes with it; or the demo
    school.
    """
    home = folder or Path(tempfile.mkdtemp(prefix="widepin-trial-"))
    database = MariaDB(home / "db", DURABLE)
    web = None
    try:
        url = database.start()
        migrate(url)
        (assignments, sheet), logins = fill_with_demo(url, students) if demo else fill(url, students, classes)
        web = WebServer(home, free_port(), {"DATABASE_URL": url, "SECRET_KEY": SECRET, "DEMO": True}, app)
        web.start()
        yield Served(web, url, assignments, sheet, logins, database)
    finally:
        if web is not None:
            web.stop()
        database.stop()
        if folder is None:
            shutil.rmtree(home, ignore_errors=True)


def fill(url: str, students: int, classes: int) -> tuple[tuple[list[int], int], list[str]]:
    """Classes with one task: the numbers of its assignments and of the task; and all logins, the teacher's first."""
    engine = make_engine(url)
    hashed = Passwords(1, 64).hash(DEMO_PASSWORD)  # cheap to check, since signing in is not what is measured
    with make_sessions(engine)() as session:
        teacher = Person(login="teacher", name="Teacher", role="teacher", password_hash=hashed)
        everybody = [
            Person(login=f"student{n}", name=f"Student {n}", role="student", password_hash=hashed)
            for n in range(students)
        ]
        sheet = new_sheet(session, teacher, LIBRARY["midpoint"].document())
        assignments = []
        for number in range(classes):
            school_class = SchoolClass(name=f"Class {number + 1}", teacher=teacher, students=everybody[number::classes])
            assignments.append(Assignment(sheet=sheet, school_class=school_class))
        session.add_all(assignments)
        session.commit()
        found = ([one.id for one in assignments], sheet.id), ["teacher", *(student.login for student in everybody)]
    engine.dispose()
    return found


def fill_with_demo(url: str, students: int) -> tuple[tuple[list[int], int], list[str]]:
    """The demo school, with so many students a class at most."""
    engine = make_engine(url)
    with make_sessions(engine)() as session:
        load_demo(session, passwords=Passwords(1, 64), most_per_class=students)
        session.commit()
    engine.dispose()
    return ([1], 1), [login for login, _ in SHOWN_ACCOUNTS]


@dataclass
class Browser:
    """Somebody at a browser: keeps a connection, cookies and the token of the page, as browsers do."""

    port: int
    cookies: dict[str, str] = field(default_factory=dict)
    token: str = ""
    timeout: float = 60.0
    connection: http.client.HTTPConnection | None = None

    def ask(
        self, method: str, path: str, body: bytes | None = None, headers: dict[str, str] | None = None
    ) -> tuple[int, bytes]:
        """Status and body of an answer; a connection that was lost is opened again once."""
        sent = {"Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items())} | (headers or {})
        for last in (False, True):
            try:
                if self.connection is None:
                    self.connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=self.timeout)
                self.connection.request(method, path, body, sent)
                answer = self.connection.getresponse()
                content = answer.read()
            except (OSError, http.client.HTTPException):
                self.close()
                if last:
                    raise
                continue
            for cookie in answer.headers.get_all("Set-Cookie") or ():
                name, _, value = cookie.split(";")[0].partition("=")
                self.cookies[name] = value
            return answer.status, content
        raise AssertionError

    def close(self) -> None:
        """Let the connection go."""
        if self.connection is not None:
            self.connection.close()
            self.connection = None

    def page(self, path: str) -> str:
        """A page, whose token is kept."""
        _, content = self.ask("GET", path)
        text = content.decode(errors="replace")
        if found := re.search(r'name="csrf-token" content="([^"]+)"|name="csrf_token"[^>]*value="([^"]+)"', text):
            self.token = found[1] or found[2]
        return text

    def form(self, path: str, **fields: str) -> tuple[int, bytes]:
        """Send a form."""
        body = urlencode({"csrf_token": self.token, **fields}).encode()
        return self.ask("POST", path, body, {"Content-Type": "application/x-www-form-urlencoded"})

    def send(self, path: str, value: object) -> tuple[int, bytes]:
        """Send JSON, as the board does."""
        headers = {"Content-Type": "application/json", "Accept": "application/json", "X-CSRFToken": self.token}
        return self.ask("POST", path, json.dumps(value).encode(), headers)

    def sign_in(self, login: str) -> Browser:
        """Sign in, and have a token."""
        self.page("/sign-in")
        status, _ = self.form("/sign-in", login=login, password=DEMO_PASSWORD)
        assert status == 302, (login, status)
        return self
