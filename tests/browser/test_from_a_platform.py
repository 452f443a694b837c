"""The whole way from a learning platform to a score there, in a browser: frame, window, board, hand-in."""

from __future__ import annotations

from threading import Thread
from typing import Any

import pytest
from playwright.sync_api import expect
from sqlalchemy import select
from werkzeug.serving import make_server

from tests.browser.conftest import Desk
from widepin.joining.standins.platform import CLIENT_ID, DEPLOYMENT, create_platform
from widepin.running.mariadb import free_port
from widepin.school.database import make_sessions
from widepin.school.joining import platforms
from widepin.school.models import Person, Platform

MIDPOINT: list[dict[str, Any]] = [
    {"id": "c", "make": "circle", "from": ["A", "B"]},
    {"id": "d", "make": "circle", "from": ["B", "A"]},
    {"id": "C", "make": "intersection", "from": ["c", "d"], "pick": 1},
    {"id": "D", "make": "intersection", "from": ["c", "d"], "pick": 2},
    {"id": "l", "make": "line", "from": ["C", "D"]},
    {"id": "M", "make": "intersection", "from": ["l", "s"]},
]


@pytest.fixture
def platform(served, school):
    """The address of a pretend platform that is registered; another site than the served school."""
    port = free_port()
    address = f"http://localhost:{port}"
    server = make_server("127.0.0.1", port, create_platform(address, served), threaded=True)
    Thread(target=server.serve_forever, daemon=True).start()
    with make_sessions(school)() as session:
        described = platforms.Described(
            "Pretend", address, CLIENT_ID, f"{address}/auth", f"{address}/token", f"{address}/keys", "", (DEPLOYMENT,)
        )
        number = platforms.store(session, None, described).id
        session.commit()
    yield address
    with make_sessions(school)() as session:
        platforms.remove(session, session.scalars(select(Person)).first(), session.get(Platform, number))
        session.commit()
    server.shutdown()


def come_as(page, platform, name, course="c-1"):
    page.goto(platform)
    page.get_by_role("button", name=name).first.click()
    page.goto(f"{platform}/courses/{course}")


def test_from_choosing_a_task_to_a_score_in_the_course(platform, served, browser):
    teacher = browser.new_context(viewport={"width": 1280, "height": 800})
    page = teacher.new_page()
    come_as(page, platform, "Maud Ellery")
    page.get_by_role("link", name="Add tasks from Wide Pin").click()
    page.get_by_role("button", name="Go on").click()
    page.get_by_label("Search").fill("midpoint of a seg")
    expect(page.locator("input[name=task]:visible")).to_have_count(2)  # one with compass alone
    page.get_by_label("Midpoint of a segment", exact=True).check()
    page.get_by_role("button", name="Set in the course").click()
    expect(page.get_by_role("link", name="Midpoint of a segment")).to_be_visible()

    phone = browser.new_context(viewport={"width": 390, "height": 800}, has_touch=True)
    course = phone.new_page()
    come_as(course, platform, "Anselm Rook")
    course.get_by_role("link", name="Open tools in a frame").tap()
    course.get_by_role("link", name="Midpoint of a segment").tap()
    with phone.expect_page() as opened:
        course.frame_locator("iframe").get_by_role("link", name="Open Wide Pin").tap()
    desk = Desk(opened.value, served, "")
    opened.value.get_by_role("button", name="Go on").tap()
    desk.ready()
    desk.put(MIDPOINT)
    opened.value.get_by_role("button", name="Hand in").tap()
    opened.value.get_by_role("button", name="Hand in now").tap()
    expect(opened.value.get_by_role("link", name="Full report")).to_be_visible()
    assert desk.errors == []

    score = page.locator("tbody td").first
    for _ in range(30):  # scores go out every ten seconds
        page.reload()
        if score.text_content():
            break
        page.wait_for_timeout(1000)
    expect(score).to_contain_text("100")
    phone.close()
    teacher.close()
