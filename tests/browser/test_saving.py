"""No step is lost: without a network, over a crash of the page, from two windows."""

from playwright.sync_api import expect

from tests.browser.conftest import sign_in
from tests.browser.test_board import TITLE, plumb_by_mouse


def test_steps_made_without_a_network_are_kept_and_sent_later(desk):
    desk.enter(TITLE)
    desk.page.context.set_offline(True)
    plumb_by_mouse(desk)
    expect(desk.page.locator(".save-state")).to_contain_text("2 steps wait")
    desk.page.context.set_offline(False)
    assert len(desk.stored()) == 2


def test_steps_not_sent_survive_a_crash_of_the_page(desk):
    desk.enter(TITLE)
    desk.page.route("**/operations", lambda route: route.abort())
    plumb_by_mouse(desk)
    expect(desk.page.locator(".save-state")).to_contain_text("2 steps wait")
    desk.page.unroute("**/operations")
    desk.page.reload()
    desk.ready()
    assert len(desk.stored()) == 2 and len(desk.steps()) == 2


def test_an_answer_that_got_lost_stores_nothing_twice(desk):
    desk.enter(TITLE)
    lost: list = []

    def lose_first_answer(route):
        if route.request.method == "POST" and not lost:
            lost.append(route.fetch())
            route.abort()
        else:
            route.continue_()

    desk.page.route("**/operations", lose_first_answer)
    plumb_by_mouse(desk)
    assert len(desk.stored()) == 2 and lost


def test_two_windows_lose_nothing(desk):
    desk.enter(TITLE)
    second = desk.page.context.new_page()
    second.goto(desk.page.url)
    second.wait_for_selector("[data-ready]")
    plumb_by_mouse(desk)
    desk.saved()
    second.locator(".card-tool[data-make=segment]").click()
    second.keyboard.type("AP", delay=20)
    expect(second.locator(".step-list li[data-step]")).to_have_count(3)
    expect(second.locator(".save-state")).to_have_text("All changes saved")
    steps = [one["operation"]["step"] for one in desk.stored()]
    assert [step["make"] for step in steps] == ["circle", "circle", "segment"]
    assert len({step["id"] for step in steps}) == 3


def test_a_refused_step_is_taken_off_and_said(desk):
    desk.enter(TITLE)
    desk.page.route(
        "**/operations",
        lambda route: route.fulfill(status=422, json={"error": "That does not fit."}),
    )
    desk.take("circle")
    desk.click("A")
    desk.click("P")
    expect(desk.page.locator(".hint")).to_contain_text("That does not fit.")
    assert desk.steps() == []


def test_signed_out_elsewhere_the_steps_wait_here(desk):
    desk.enter(TITLE)
    desk.page.context.clear_cookies()
    desk.take("circle")
    desk.click("A")
    desk.click("P")
    expect(desk.page.locator(".save-state")).to_contain_text("1 step waits")


def test_an_answer_that_a_reload_cut_off_is_not_done_twice(desk):
    """The server has the operation, and this browser keeps it too, since it has heard nothing."""
    desk.enter(TITLE)
    plumb_by_mouse(desk)
    desk.saved()

    def lose_the_answer(route):
        route.fetch()
        route.abort()

    desk.page.route("**/operations", lose_the_answer)
    desk.page.get_by_role("button", name="Undo").click()
    expect(desk.page.locator(".save-state")).to_contain_text("1 step waits")
    desk.page.unroute("**/operations")
    desk.page.route("**/operations", lambda route: route.abort())
    desk.page.reload()
    desk.ready()
    assert len(desk.steps()) == 1
    desk.page.unroute("**/operations")
    desk.page.reload()
    desk.ready()
    assert len(desk.steps()) == 1 and len(desk.stored()) == 3


def test_what_hangs_on_a_refused_step_goes_with_it(desk):
    desk.enter(TITLE)
    held: list = []
    desk.page.route("**/operations", lambda route: route.continue_() if held else held.append(route))
    desk.take("point")
    desk.page.keyboard.type("6, 5")
    desk.page.keyboard.press("Enter")
    desk.page.keyboard.press("Escape")
    desk.take("circle")
    desk.page.keyboard.type("CA")
    expect(desk.page.locator(".step-list li[data-step]")).to_have_count(2)
    held[0].fulfill(status=422, json={"error": "That does not fit."})
    expect(desk.page.locator(".step-list li[data-step]")).to_have_count(0)
    assert desk.stored() == []


def test_intersections_to_choose_from_go_with_what_crosses(desk):
    desk.enter("Stay bar to a roundel")
    desk.take("line")
    desk.page.keyboard.type("OP")
    desk.page.keyboard.press("Escape")
    desk.take("intersection")
    desk.page.keyboard.type("kc")
    expect(desk.page.locator(".number")).to_have_count(2)
    desk.page.get_by_role("button", name="Undo").click()
    expect(desk.page.locator(".number")).to_have_count(0)
    desk.page.keyboard.type("1")
    assert desk.steps() == []


def test_a_point_is_not_put_on_a_curve_that_is_gone(desk):
    desk.enter(TITLE)
    desk.put([{"id": "c", "make": "circle", "from": ["A", "A"]}])
    desk.take("point")
    desk.page.keyboard.type("c")
    expect(desk.page.locator(".hint.trouble")).to_contain_text("c is undefined in this position")
    assert len(desk.steps()) == 1


def test_who_is_signed_out_elsewhere_signs_in_from_the_board_and_goes_on(desk):
    desk.enter("Plumb from a boss")
    desk.page.context.clear_cookies()
    desk.take("circle")
    desk.page.keyboard.type("AP", delay=20)
    state = desk.page.locator(".save-state")
    expect(state).to_contain_text("you are signed out: 1 step waits here")
    state.get_by_role("link", name="Sign in").click()
    desk.page.get_by_label("Login").fill(desk.login)
    desk.page.get_by_label("Password").fill("tracery")
    desk.page.get_by_role("button", name="Sign in").click()
    desk.ready()
    desk.saved()
    assert [one["operation"]["step"]["from"] for one in desk.stored()] == [["A", "P"]]


def test_who_has_signed_in_anew_in_another_window_goes_on_in_this_one(desk, served):
    desk.enter("Plumb from a boss")
    desk.page.context.clear_cookies()
    sign_in(desk.page, served, desk.login)
    desk.take("circle")
    desk.page.keyboard.type("AP", delay=20)
    desk.saved()
    assert len(desk.stored()) == 1
