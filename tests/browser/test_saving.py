"""No step is lost: without a network, over a crash of the page, from two windows."""

import pytest
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


def hold(page, place, *, by):
    """Press the mouse here, and drag it so many pixels away, which is not dropped yet."""
    x, y = place
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + by[0], y + by[1], steps=4)


class TestSomethingIsStoredWhileSomethingElseIsDragged:
    """The answer to what was done before makes the figure anew, also under a pointer that holds something."""

    @pytest.fixture
    def answering(self, desk):
        """A board whose first operation, a measure, is answered when this is called."""
        desk.enter(TITLE)
        desk.put([{"id": "D", "make": "free_point", "at": [6, 5]}])
        held: list = []
        desk.page.route("**/operations", lambda route: route.continue_() if held else held.append(route))
        desk.take("length")
        desk.page.keyboard.type("AP", delay=20)
        desk.page.keyboard.press("Escape")
        expect(desk.page.locator(".save-state")).to_contain_text("Saving")

        def answer():
            held[0].continue_()
            desk.saved()

        return answer

    def test_a_point_stays_under_the_pointer(self, desk, answering):
        x, y = desk.point("D")
        hold(desk.page, (x, y), by=(40, -30))
        answering()
        assert desk.point("D") == pytest.approx((x + 40, y - 30), abs=1)
        desk.page.mouse.up()
        assert desk.stored()[-1]["operation"]["op"] == "move"
        assert desk.point("D") == pytest.approx((x + 40, y - 30), abs=1)

    def test_the_whole_figure_goes_where_it_was_dragged(self, desk, answering):
        places = {id_: desk.point(id_) for id_ in "APD"}
        x, y = places["D"]
        desk.page.keyboard.down("Shift")
        hold(desk.page, (x + 60, y - 40), by=(-30, 20))
        answering()
        desk.page.mouse.up()
        desk.page.keyboard.up("Shift")
        desk.saved()
        for id_, (px, py) in places.items():
            assert desk.point(id_) == pytest.approx((px - 30, py + 20), abs=1)

    def test_a_name_stays_beside(self, desk, answering):
        box = desk.page.locator("[data-names=D]").bounding_box()
        hold(desk.page, (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), by=(50, 10))
        answering()
        desk.page.mouse.up()
        after = desk.page.locator("[data-names=D]").bounding_box()
        assert (after["x"] - box["x"], after["y"] - box["y"]) == pytest.approx((50, 10), abs=2)
        dress = desk.stored()[-1]["operation"]["dress"]
        desk.page.reload()
        assert "name_at" in dress and desk.page.locator("[data-names=D]").bounding_box() == pytest.approx(after, abs=2)

    def test_a_point_that_is_undone_under_the_pointer_is_let_go(self, desk, answering):
        hold(desk.page, desk.point("D"), by=(40, -30))
        answering()
        for _time in range(2):  # the measure, and the point
            desk.page.keyboard.press("Control+z")
        expect(desk.page.locator(".point[data-id=D]")).to_have_count(0)
        desk.page.mouse.move(300, 300, steps=3)
        desk.page.mouse.up()
        assert [one["operation"]["op"] for one in desk.stored()] == ["add", "measure", "undo", "undo"]


def test_two_windows_of_one_student_follow_each_other_and_undo_says_what_the_other_did(desk, served):
    desk.enter(TITLE)
    other = desk.page.context.new_page()
    other.goto(desk.page.url)
    other.wait_for_selector(".board-page[data-ready]")
    add = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"
    other.evaluate(add, {"id": "q", "make": "circle", "from": ["A", "B"]})
    expect(desk.page.locator(".step-list li[data-step=q]")).to_have_count(1)  # without a reload
    expect(desk.page.locator(".hint")).to_contain_text("in another window")
    desk.page.keyboard.press("Control+z")
    expect(desk.page.locator(".hint")).to_contain_text("q, from another window, is undone")
    expect(other.locator(".step-list li[data-step=q]")).to_have_count(0)
    other.close()


def test_a_board_weighs_little_and_a_second_time_nothing(desk):
    page = desk.page
    watch = page.context.new_cdp_session(page)
    watch.send("Network.enable")
    loads: list[list[float]] = []
    watch.on("Network.loadingFinished", lambda one: loads[-1].append(one["encodedDataLength"]))
    loads.append([])
    desk.enter(TITLE)
    page.wait_for_load_state("networkidle")
    loads.append([])
    page.goto(page.url)
    desk.ready()
    page.wait_for_load_state("networkidle")
    cold, warm = loads
    assert sum(cold) <= 250_000
    assert sum(size > 0 for size in warm) <= 6
