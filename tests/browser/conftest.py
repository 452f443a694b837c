"""A student at the board, in a real browser."""

from __future__ import annotations

import itertools
import re
from html import unescape

import pytest
from playwright.sync_api import Page, expect
from sqlalchemy import select

from tests.browser.teaching import Student
from tests.zoo import JUMPING_GABLE
from widepin.school.database import make_sessions
from widepin.school.models import Person

numbers = itertools.count()

expect.set_options(timeout=15_000)  # milliseconds: a busy machine is no fault


def sign_in(page: Page, served: str, login: str) -> str:
    """Sign in without drawing a page; the page that somebody is led to, as HTML."""
    request = page.context.request
    form = request.get(f"{served}/sign-in").text()
    token = re.search(r'name="csrf_token"[^>]*value="([^"]+)"', form)
    filled = {"login": login, "password": "tracery", "csrf_token": token[1] if token else ""}
    answer = request.post(f"{served}/sign-in", form=filled, headers={"Referer": f"{served}/sign-in"})
    assert answer.ok, answer.text()
    return answer.text()


def link_to(html: str, title: str) -> str:
    """Where the first link leads that says so."""
    for href, words in re.findall(r'<a\b[^>]*href="([^"]+)"[^>]*>(.*?)</a>', html, re.S):
        if title in words:
            return unescape(href)
    raise AssertionError(f"no link says {title}")


AT_REST = """async () => {
  await document.fonts.ready;
  const places = () => JSON.stringify([
    document.querySelector(".paper").getBoundingClientRect(),
    [...document.querySelectorAll(".paper .point")].map((point) => point.getAttribute("transform")),
  ]);
  for (let same = 0, last = ""; same < 5; ) {
    await new Promise(requestAnimationFrame);
    same = places() === last ? same + 1 : 0;
    last = places();
  }
}"""
"""The paper has its size, and the figure its place on it, once the page is laid out with its letters: for some frames
nothing has moved.
"""


class Desk:
    """A page with the board open, and what a student does there."""

    def __init__(self, page: Page, served: str, login: str):
        self.page, self.served, self.login = page, served, login
        self.errors: list[str] = []
        page.on("pageerror", lambda error: self.errors.append(error.stack or str(error)))

    def enter(self, title: str) -> Desk:
        """Signed in, without the pages on the way there, before the board of a task."""
        tasks = sign_in(self.page, self.served, self.login)
        self.page.goto(f"{self.served}{link_to(tasks, title)}")
        return self.ready()

    def ready(self) -> Desk:
        self.page.wait_for_selector("[data-ready]")
        slip = self.page.locator(".brief-slip[open] summary")
        if slip.count():
            slip.click()
        self.page.evaluate(AT_REST)
        return self

    def put(self, steps: list[dict]) -> Desk:
        """Steps on the board at once, through the board's own address."""
        self.page.evaluate(
            """async (steps) => {
              const { urls } = JSON.parse(document.getElementById("setting").textContent);
              const token = document.querySelector("meta[name=csrf-token]").content;
              for (const [after, step] of steps.entries()) await fetch(urls.operations, {
                method: "POST", headers: { "Content-Type": "application/json", "X-CSRFToken": token },
                body: JSON.stringify({ key: `put-here-${after}`, after, operation: { op: "add", step } }),
              });
            }""",
            steps,
        )
        self.page.reload()
        return self.ready()

    def hand_in(self) -> None:
        self.page.get_by_role("button", name="Hand in").click()
        self.confirm()
        self.page.get_by_role("link", name="Full report").click()
        self.page.wait_for_url("**/hand-ins/*")

    def confirm(self) -> None:
        """Hand in now, and as it is where another choice of an intersection is offered first."""
        self.page.get_by_role("button", name="Hand in now").click()
        report = self.page.get_by_role("link", name="Full report")
        as_it_is = self.page.get_by_role("button", name="Hand in as it is")
        expect(report.or_(as_it_is)).to_be_visible()
        if as_it_is.is_visible():
            as_it_is.click()

    def take(self, make: str) -> None:
        self.page.locator(f".card-tool[data-make={make}]").click()

    def at(self, *cm: float) -> tuple[float, float]:
        """Where a place in centimetres is on the screen, from two given points that are drawn."""
        box = self.page.locator(".paper").bounding_box()
        assert box
        places = self.page.evaluate(
            """() => { const given = JSON.parse(document.getElementById('setting').textContent).given
              .filter((s) => s.make === 'free_point').slice(0, 2).map((s) => s.at);
              const marks = [...document.querySelectorAll('.point.given')].slice(0, 2)
                .map((g) => g.getAttribute('transform').match(/-?[\\d.]+/g).map(Number));
              return [given, marks]; }"""
        )
        (a, b), (p, q) = places
        scale = (q[0] - p[0]) / (b[0] - a[0])
        return box["x"] + p[0] + (cm[0] - a[0]) * scale, box["y"] + p[1] - (cm[1] - a[1]) * scale

    def point(self, id_: str) -> tuple[float, float]:
        """Where a point is on the screen."""
        # In one go, since the board draws its marks anew with every change.
        x, y = self.page.evaluate(
            """(id) => {
              const box = document.querySelector(`.point[data-id="${id}"] > *`).getBoundingClientRect();
              return [box.x + box.width / 2, box.y + box.height / 2];
            }""",
            id_,
        )
        return x, y

    def click(self, id_: str) -> None:
        self.page.mouse.click(*self.point(id_))

    def steps(self) -> list[str]:
        rows = self.page.locator(".step-list li[data-step] > button").evaluate_all(
            "rows => rows.map((row) => [...row.children].map((part) => part.textContent).join(' '))"
        )
        return [" ".join(row.split()) for row in rows]

    def saved(self) -> None:
        expect(self.page.locator(".save-state")).to_have_text("All changes saved")

    def stored(self) -> list[dict]:
        """The operations that the server has."""
        self.saved()
        return self.page.evaluate(
            "async () => (await (await fetch(JSON.parse(document.getElementById('setting').textContent).urls.operations)).json()).operations"
        )


@pytest.fixture(scope="session")
def kept_context(browser):
    """One cache for all pages of a run: scripts and styles are fetched once."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    yield context
    context.close()


@pytest.fixture
def context(kept_context):
    """A browser in which nobody is signed in and nothing is kept but what is the same for everybody."""
    yield kept_context
    kept_context.set_offline(False)
    for origin, page in {
        page.url.split("/")[2]: page for page in kept_context.pages if page.url.startswith("http")
    }.items():
        forgetting = kept_context.new_cdp_session(page)
        forgetting.send("Storage.clearDataForOrigin", {"origin": f"http://{origin}", "storageTypes": "local_storage"})
    for page in kept_context.pages:
        page.unroute_all(behavior="ignoreErrors")
        page.close()
    kept_context.unroute_all(behavior="ignoreErrors")
    kept_context.clear_permissions()
    kept_context.clear_cookies()


@pytest.fixture
def desk(context, served, fresh_student):
    """A student of their own, not signed in yet."""
    made = Desk(context.new_page(), served, fresh_student(f"desk-{next(numbers)}"))
    yield made
    assert made.errors == []


@pytest.fixture
def gable(desk):
    """The board with a bisector on it, of which an intersection jumps."""
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    return desk


@pytest.fixture
def teacher(page, served, school):
    """A page on which a teacher without any classes is signed in."""
    login = f"teacher-{next(numbers)}"
    with make_sessions(school)() as session:
        known = session.scalars(select(Person).where(Person.role == "teacher")).first()
        session.add(Person(login=login, name="Ada Thorne", role="teacher", password_hash=known.password_hash))
        session.commit()
    page.set_viewport_size({"width": 1280, "height": 800})
    sign_in(page, served, login)
    page.goto(served)
    return page


@pytest.fixture(scope="module")
def bare_page(browser, served):
    """A page for modules that are tried alone; nothing that they do to it matters to the next."""
    context = browser.new_context()
    page = context.new_page()
    page.goto(f"{served}/sign-in")
    yield page
    context.close()


@pytest.fixture
def run(bare_page):
    """Runs a script with a module's exports as ``m``."""
    return lambda module, script, argument=None: bare_page.evaluate(
        f"async (x) => {{ const m = await import('/static/{module}'); {script} }}", argument
    )


@pytest.fixture
def students(browser, served):
    """Lets students in; their browsers are closed in the end."""
    here = []

    def let_in(class_code, personal_code):
        here.append(Student(browser, served, class_code, personal_code))
        return here[-1]

    yield let_in
    for one in here:
        one.context.close()
