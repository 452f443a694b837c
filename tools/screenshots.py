"""Refreshes docs/screenshots from a running demo: ``bin/widepin tool screenshots``."""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from tests.chromium import CHROMIUM, EXECUTABLE

from widepin.web.guide.sections import SECTIONS

ROOT = Path(__file__).resolve().parents[1]
TARGET = ROOT / "docs" / "screenshots"
GUIDE = ROOT / "src" / "widepin" / "web" / "static" / "guide"
IN_THE_GUIDE = {section.picture.removesuffix(".jpg") for section in SECTIONS}
"""Pictures that the guide shows too, as JPEG."""


def shoot(page: Page, name: str) -> None:
    page.wait_for_timeout(500)
    page.screenshot(path=TARGET / f"{name}.png")
    if name in IN_THE_GUIDE:
        GUIDE.mkdir(exist_ok=True)
        page.screenshot(path=GUIDE / f"{name}.jpg", type="jpeg", quality=60)


def enter(page: Page, address: str, who: str) -> None:
    page.context.clear_cookies()
    page.goto(address)
    page.get_by_role("button", name=who).click()


def main(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=EXECUTABLE, args=CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.on("console", lambda message: print("console:", message.text))
        page.on("pageerror", lambda error: print("error:", error))
        page.goto(address)
        enter(page, address, "Corin Hale")
        shoot(page, "today")
        page.get_by_role("link", name="First year").click()
        shoot(page, "class")
        page.get_by_role("link", name="Pask, Jory").click()
        shoot(page, "student")
        page.go_back()
        page.get_by_role("link", name="Students and codes").click()
        shoot(page, "roster")
        page.get_by_role("link", name="Task library").click()
        shoot(page, "library")
        page.goto(f"{address}library/incircle/demonstration")
        page.wait_for_selector("[data-ready]")
        for _ in range(5):
            page.keyboard.press("ArrowRight")
        shoot(page, "demonstration")
        page.goto(f"{address}library/copy-an-angle")
        page.get_by_role("button", name="Show the proof").click()
        page.locator(".proof li").nth(2).hover()
        page.evaluate("scrollTo(0, 0)")
        shoot(page, "why")
        page.goto(f"{address}reasons")
        shoot(page, "reasons")
        page.goto(f"{address}library")
        make_a_task(page)
        page.goto(f"{address}classes/1")
        page.get_by_role("link", name="Splitting a gable").click()
        shoot(page, "assignment")
        page.get_by_role("link", name="Projector").click()
        page.keyboard.press("ArrowRight")
        shoot(page, "projector")
        page.go_back()
        page.locator(".work-card", has_text="Ewa Brandt").click()
        page.wait_for_timeout(5000)  # the break plays
        shoot(page, "hand-in")
        page.goto(f"{address}classes/2/tools")
        shoot(page, "class-tools")
        enter(page, address, "Oda Finch")
        page.goto(f"{address}administration/classes")
        shoot(page, "school")
        enter(page, address, "Ilse Marran")
        shoot(page, "tasks")
        page.goto(f"{address}practice")
        shoot(page, "practice")
        page.goto(address)
        page.get_by_role("link", name="Roundel in a gable").click()
        page.wait_for_selector("[data-ready]")
        build(page)
        shoot(page, "board")
        page.locator("input.blank.next").fill("E")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Hand in").click()
        page.get_by_role("button", name="Hand in now").click()
        page.locator(".result-strip").wait_for()
        shoot(page, "result")
        browser.close()


def make_a_task(page: Page) -> None:
    """A task of the task library taken and tried, and the page that assigns it."""
    page.get_by_role("link", name="Rectangle with given sides").last.click()
    page.get_by_role("button", name="Copy and edit").click()
    page.wait_for_selector(".making[data-ready]")
    page.locator("[data-to-step=wanted]").click()
    shoot(page, "making")
    page.locator("[data-to-step=check]").click()
    page.get_by_role("link", name="Assign …").click()
    shoot(page, "assign")


def build(page: Page) -> None:
    """Part of the roundel, by keyboard."""
    field = "input.blank.next"
    if page.locator(".brief-slip[open]").count():
        page.locator(".brief-slip summary").click()
    while page.locator("[data-do='undo']").is_enabled():
        page.locator("[data-do='undo']").click()
    for card, names in (
        ("Angle bisector", "BAC"),
        ("Angle bisector", "ABC"),
        ("Intersection", "de"),
        ("Perpendicular", "cD"),
        ("Intersection", "cf"),
    ):
        page.locator(".toolbar").get_by_role("button", name=card).first.click()
        page.keyboard.type(names, delay=30)
        page.keyboard.press("Escape")
    page.locator(".toolbar").get_by_role("button", name="Circle").first.click()
    page.locator(field).fill("D")
    box = page.locator(".paper").bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] * 0.6, box["y"] + box["height"] * 0.7)


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8317/")
