"""A student at the board, in a real browser."""

from __future__ import annotations

import itertools

import pytest
from playwright.sync_api import Page, expect
from sqlalchemy import select

from tests.zoo import JUMPING_GABLE
from widepin.school.models import Person
from widepin.school.store import make_sessions

numbers = itertools.count()


class Desk:
    """A page with the board open, and what a student does there."""

    def __init__(self, page: Page, served: str, login: str):
        self.page, self.served, self.login = page, served, login
        self.errors: list[str] = []
        page.on("pageerror", lambda error: self.errors.append(error.stack or str(error)))

    def enter(self, title: str) -> Desk:
        page = self.page
        page.goto(f"{self.served}/sign-in")
        page.get_by_label("Login").fill(self.login)
        page.get_by_label("Password").fill("tracery")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("link", name=title).click()
        return self.ready()

    def ready(self) -> Desk:
        self.page.wait_for_selector("[data-ready]")
        slip = self.page.locator(".brief-slip[open] summary")
        if slip.count():
            slip.click()
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
        self.page.get_by_role("button", name="Hand in now").click()
        self.page.get_by_role("link", name="Full report").click()
        self.page.wait_for_url("**/hand-ins/*")

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


@pytest.fixture
def desk(page, served, fresh_student):
    page.set_viewport_size({"width": 1280, "height": 800})
    made = Desk(page, served, fresh_student(f"desk-{next(numbers)}"))
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
    page.goto(served)
    page.get_by_label("Login").fill(login)
    page.get_by_label("Password").fill("tracery")
    page.get_by_role("button", name="Sign in", exact=True).click()
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
