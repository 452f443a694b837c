"""No page has barriers that axe-core knows of, in any state that a student meets."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import sign_in
from tests.zoo import JUMPING_GABLE

AXE = Path(__file__).parent / "vendor" / "axe.min.js"
TEACHERS_PAGES = [
    "/today",
    "/classes",
    "/classes/1",
    "/classes/1/roster",
    "/classes/2/tools",
    "/sheets/1/class-tool",
    "/classes/1/remove",
    "/assignments/3",
    "/assignments/3?by=method&sort=time",
    "/assignments/3/projector",
    "/assignments/2/results",
    "/columns/1",
    "/classes/1/terms",
    "/classes/1/practice",
    "/classes/1/students/3",
    "/guide",
    "/reasons",
    "/sheets/1/demonstration",
    "/sheets/1/demonstration/handout",
    "/library?folder=*archive",
    "/hand-ins/1",
    "/library",
    "/library/rectangle",
    "/works/1",
    "/sheets/1",
    "/sheets/1/draw/model",
    "/sheets/1/assign",
    "/nowhere",
    "/account",
    "/account/second-factor",
    "/account/programs",
    "/calendar",
    "/welcome/no-such-link",
]
ADMINISTRATORS_PAGES = [
    "/administration/people",
    "/administration/people/1/erase",
    "/administration/classes",
    "/administration/library",
    "/administration/sign-ins",
    "/administration/log",
    "/administration/marks",
    "/administration/retention",
    "/administration/status",
    "/administration/platforms",
    "/administration/platforms/new",
    "/administration/accounts",
    "/administration/lists",
    "/administration/activity",
    "/library/school/1",
]
TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]


def barriers(page):
    """What axe-core finds, a line each."""
    # Evaluated, not added as a script element: the content security policy allows none of those.
    page.evaluate(AXE.read_text() + ";undefined")
    found = page.evaluate(
        "(values) => axe.run(document, { runOnly: { type: 'tag', values }, resultTypes: ['violations'] })", TAGS
    )
    return [
        f"{one['id']}: {node['html'][:140]} {node['failureSummary'][:200]}"
        for one in found["violations"]
        for node in one["nodes"]
    ]


def without_focus(page):
    """The controls that show nothing when the keyboard comes to them."""
    page.keyboard.press("Tab")  # from now on it is the keyboard that moves the focus
    return page.evaluate(
        """() => [...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex='0']")]
          .filter((one) => {
            one.focus();
            if (document.activeElement !== one) return false;  // it is hidden, or cannot be used now
            const { outlineStyle, outlineWidth } = getComputedStyle(one);
            return outlineStyle === "none" || parseFloat(outlineWidth) < 2;
          })
          .map((one) => one.outerHTML.slice(0, 120))"""
    )


@pytest.mark.parametrize("forced", ["none", "active"])
@pytest.mark.parametrize(
    "path", ["/today", "/classes/1/roster", "/sheets/1", "/sheets/1/assign", "/library", "/hand-ins/1"]
)
def test_the_focus_is_seen_on_every_control(page, served, path, forced):
    page.emulate_media(forced_colors=forced)
    sign_in(page, served, "corin.hale")
    page.goto(f"{served}{path}")
    assert without_focus(page) == []


@pytest.mark.parametrize("forced", ["none", "active"])
def test_the_focus_is_seen_on_every_control_of_the_board(desk, forced):
    desk.page.emulate_media(forced_colors=forced)
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    assert without_focus(desk.page) == []


def test_the_first_page(page, served):
    page.goto(f"{served}/sign-in")
    assert barriers(page) == []


@pytest.mark.parametrize("path", TEACHERS_PAGES)
def test_the_teachers_pages(page, served, path):
    page.emulate_media(reduced_motion="reduce")
    sign_in(page, served, "corin.hale")
    page.goto(f"{served}{path}")
    assert barriers(page) == []
    assert page.locator("h1").count() == 1
    page.set_viewport_size({"width": 640, "height": 400})  # as at 200 % on a small laptop
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), "nothing is to be scrolled sideways"


@pytest.mark.parametrize("path", ADMINISTRATORS_PAGES)
def test_the_pages_of_who_looks_after_the_school(page, served, path):
    page.emulate_media(reduced_motion="reduce")
    sign_in(page, served, "oda.finch")
    page.goto(f"{served}{path}")
    for closed in page.locator(".people summary").all():
        closed.click()
    assert barriers(page) == []


def test_a_link_that_makes_an_account(page, served):
    page.goto(f"{served}/sign-in")
    page.get_by_role("button", name="Oda Finch").click()
    page.goto(f"{served}/administration/people")
    page.get_by_label("Invite a teacher").fill("Tam Reed")
    page.get_by_role("button", name="Make a link").click()
    assert barriers(page) == []
    page.goto(page.get_by_label("The link", exact=True).input_value())
    assert barriers(page) == []


def test_the_board_with_a_class_tool_of_the_class(desk):
    desk.enter("Circumcircle of a triangle")
    desk.page.get_by_role("button", name="Centre line").click()
    desk.page.keyboard.type("AB")
    desk.page.locator(".step-list li[data-step] > button").click()
    assert barriers(desk.page) == []


def test_the_board_in_all_its_states(desk):
    desk.page.emulate_media(reduced_motion="reduce")
    desk.enter("Splitting a gable")
    assert barriers(desk.page) == []
    desk.put(JUMPING_GABLE)
    desk.page.locator(".step-list li[data-step=F] > button").click()
    desk.page.locator(".copies summary").click()
    assert barriers(desk.page) == []
    desk.take("circle")
    desk.page.get_by_role("button", name="Hand in").click()
    assert barriers(desk.page) == []
    desk.page.get_by_role("button", name="Hand in now").click()
    desk.page.get_by_role("button", name="Hand in as it is").click()  # a fix was offered first
    expect(desk.page.locator(".result-strip")).to_be_visible()
    assert barriers(desk.page) == []
    desk.page.get_by_role("link", name="Full report").click()
    desk.page.wait_for_url("**/hand-ins/*")
    expect(desk.page.locator(".caption")).to_be_attached()
    assert barriers(desk.page) == []
    desk.page.get_by_role("link", name="Tasks").first.click()
    desk.page.wait_for_url("**/tasks")
    assert barriers(desk.page) == []


def test_the_board_with_what_is_laid_over_it(desk):
    page = desk.page
    page.emulate_media(reduced_motion="reduce")
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    desk.click("F")  # its menu
    expect(page.locator(".object-menu")).to_be_visible()
    assert barriers(page) == []
    page.keyboard.press("Escape")
    page.mouse.move(*desk.point("F"))  # its name beside the pointer
    assert barriers(page) == []
    desk.take("equal_lengths")
    page.keyboard.type("AFAB", delay=20)
    desk.take("length")
    page.keyboard.type("AB", delay=20)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Note position").click()
    page.get_by_role("button", name="Compare", exact=True).click()
    expect(page.locator(".positions tbody tr")).to_have_count(1)
    assert barriers(page) == []
    page.evaluate(
        """() => { const { standing } = document.querySelector('.board-page').board;
          standing.show({ ...standing.standing, version: 'another', attempts_left: 1, comment_url: '/',
            comments: [{ by: 'Corin Hale', is_own: false, step: 'F', text: 'Look at F again.' }] }); }"""
    )
    expect(page.locator(".new-version")).to_be_visible()
    assert barriers(page) == []
    for _ in range(9):
        page.get_by_role("button", name="Larger").click()
    expect(page.locator(".off-paper button").first).to_be_visible()
    assert barriers(page) == []
