"""The board on phones, tablets and at 200 % zoom: all of it on screen, without a scroll."""

import itertools

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import Desk

TITLE = "Plumb from a boss"
SIZES = {"phone": (390, 844), "phone on its side": (844, 390), "tablet": (768, 1024), "zoomed": (640, 400)}
numbers = itertools.count()


@pytest.fixture
def hold(browser, served, fresh_student):
    """Opens the board in a window of some size, under a finger."""
    contexts = []

    def open_board(size):
        width, height = SIZES[size]
        context = browser.new_context(viewport={"width": width, "height": height}, has_touch=True)
        contexts.append(context)
        return Desk(context.new_page(), served, fresh_student(f"holds-{next(numbers)}")).enter(TITLE)

    yield open_board
    for context in contexts:
        context.close()


def box(desk, selector):
    return desk.page.locator(selector).first.bounding_box()


def inside(desk, selector):
    width, height = desk.page.viewport_size["width"], desk.page.viewport_size["height"]
    one = box(desk, selector)
    return one["x"] >= 0 and one["y"] >= 0 and one["x"] + one["width"] <= width and one["y"] + one["height"] <= height


@pytest.mark.parametrize("size", SIZES)
def test_sentence_paper_and_tools_are_on_screen_together(hold, size):
    desk = hold(size)
    width, height = SIZES[size]
    for selector in (".sentence-bar", ".paper", ".cards", ".step-list footer", "[data-do='hand in']", ".save-state"):
        assert inside(desk, selector), selector
    assert box(desk, ".paper")["height"] >= 0.6 * height
    cards = desk.page.locator(".card-tool")
    for card in cards.all():
        one = card.bounding_box()
        assert one["x"] >= 0 and one["x"] + one["width"] <= width and one["y"] + one["height"] <= height
    scrolls = desk.page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
    assert scrolls == [width, height]
    for selector in (".card-tool", "[data-do=undo]", "[data-do=more]", ".pull", "[data-do='hand in']"):
        assert min(box(desk, selector)["height"], box(desk, selector)["width"]) >= 44, selector


@pytest.mark.parametrize("size", SIZES)
def test_the_paper_stays_where_it_is_whatever_is_said(hold, size):
    desk = hold(size)
    before = box(desk, ".paper")
    long = (
        "A very long hint that does not fit into a single line of a telephone, and not even into two of them, really."
    )
    desk.page.evaluate("(words) => document.querySelector('.board-page').board.bar.announce(words)", long)
    assert box(desk, ".paper") == before
    desk.page.locator(".card-tool[data-make=circle]").tap()
    assert box(desk, ".paper") == before


@pytest.mark.parametrize("size", SIZES)
def test_half_of_the_window_is_paper_while_something_is_handed_in(hold, size):
    desk = hold(size)
    desk.page.locator(".card-tool[data-make=circle]").tap()
    for id_ in ("A", "P"):
        desk.page.touchscreen.tap(*desk.point(id_))
    desk.page.get_by_role("button", name="Hand in", exact=True).tap()
    expect(desk.page.get_by_role("button", name="Hand in now")).to_be_in_viewport(ratio=1)
    assert box(desk, ".paper")["height"] >= 0.45 * SIZES[size][1]


@pytest.mark.parametrize("size", ["phone", "phone on its side"])
def test_a_construction_is_made_without_a_scroll(hold, size):
    desk = hold(size)
    page = desk.page
    expect(page.locator(".brief-slip summary")).to_be_visible()  # what is to be constructed is read first
    page.locator(".card-tool[data-make=circle]").tap()
    for id_ in ("A", "P", "B", "P"):
        page.touchscreen.tap(*desk.point(id_))
    expect(page.locator(".step-list li[data-step]")).to_have_count(2)
    expect(page.locator(".pull")).to_contain_text("circle")
    assert page.evaluate("[scrollX, scrollY]") == [0, 0]
    page.locator(".pull").tap()
    expect(page.locator(".step-list li[data-step=c] > button")).to_be_visible()
    assert inside(desk, ".step-list li[data-step=d] > button")
    page.locator(".step-list li[data-step=d] > button").tap()
    page.locator(".step-list").get_by_role("button", name="Remove", exact=True).tap()
    expect(page.locator(".step-list li[data-step]")).to_have_count(1)
    page.locator(".pull").tap()
    expect(page.locator(".step-list li[data-step=c] > button")).to_be_hidden()
    page.get_by_role("button", name="Undo").tap()
    page.get_by_role("button", name="More", exact=True).tap()
    page.get_by_role("button", name="Fit").tap()
    page.locator(".card-tool[data-make=line]").tap()
    expect(page.get_by_role("button", name="Fit")).to_be_hidden()
    desk.saved()
    assert desk.errors == []
