"""A result in a real browser: the break is played, the steps are replayed, a mend is made with one click."""

import pytest
from playwright.sync_api import expect

from tests.zoo import JUMPING_GABLE


@pytest.fixture
def switching(desk):
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    desk.hand_in()
    desk.page.wait_for_selector(".picture[data-shown]")
    return desk.page


def test_the_break_plays_by_itself_to_where_it_fails(switching):
    slider = switching.get_by_label("From the drawing to the position where it breaks")
    expect(slider).to_have_value("100")
    expect(switching.locator(".caption")).to_have_text("Here m is not what it should be.")
    expect(switching.locator(".curve.broken")).to_have_count(1)
    expect(switching.locator("[data-play]")).to_have_text("Show it again")


def test_the_slider_drags_the_figure_to_and_fro(switching):
    slider = switching.get_by_label("From the drawing to the position where it breaks")
    slider.focus()
    slider.press("Home")
    drawn = switching.locator(".layer-points").inner_html()
    slider.press("End")
    assert switching.locator(".layer-points").inner_html() != drawn
    slider.press("Home")
    assert switching.locator(".layer-points").inner_html() == drawn
    expect(switching.locator(".curve.answer")).to_have_count(1)


def test_steps_are_replayed_with_their_sentences(switching):
    switching.locator("[data-back]").click()
    caption = switching.locator(".caption")
    expect(caption).to_have_text("Step 5 of 6: F: intersection of d and e.")
    expect(switching.locator(".curve[data-id=m]")).to_have_count(0)
    slider = switching.get_by_label("Steps shown")
    slider.focus()
    slider.press("Home")
    expect(caption).to_have_text("Before the first step")
    expect(switching.locator(".point:not(.given)")).to_have_count(0)
    switching.locator("[data-on]").click()
    expect(caption).to_have_text("Step 1 of 6: c: circle centred A through B.")
    expect(switching.locator(".curve.highlighted")).to_have_count(1)
    for _ in range(9):
        switching.locator("[data-on]").click()
    expect(caption).to_have_text("Step 6 of 6: m: ray from A through F.")


def test_turning_to_the_steps_ends_the_play(switching):
    switching.locator("[data-play]").click()
    switching.locator("[data-back]").click()
    expect(switching.get_by_label("From the drawing to the position where it breaks")).to_have_value("0")
    switching.locator("[data-play]").click()
    expect(switching.get_by_label("Steps shown")).to_have_value("6")


def test_a_mend_is_made_on_the_board_with_one_click(switching):
    switching.get_by_role("button", name="Apply this fix on my board").click()
    switching.wait_for_selector("[data-ready]")
    expect(switching.locator("[data-step=F]")).to_contain_text("farther from A")
    switching.get_by_role("button", name="Undo").click()
    expect(switching.locator("[data-step=F]")).not_to_contain_text("farther")
    switching.get_by_role("button", name="Redo").click()
    expect(switching.locator(".save-state")).to_have_text("All changes saved")
    switching.get_by_role("button", name="Hand in").click()
    switching.get_by_role("button", name="Hand in now").click()
    expect(switching.locator(".result-strip .why")).to_contain_text("stays right wherever the figure is dragged")


def test_what_vanishes_leaves_a_ghost_where_it_was_last(page, served):
    page.emulate_media(reduced_motion="reduce")
    page.goto(f"{served}/sign-in")
    page.get_by_role("button", name="Corin Hale").click()
    page.get_by_role("link", name="First year").click()
    page.get_by_role("link", name="undefined in some positions").first.click()
    page.wait_for_selector(".picture[data-shown]")
    slider = page.get_by_label("From the drawing to the position where it breaks")
    expect(slider).to_have_value("0")
    slider.focus()
    slider.press("End")
    expect(page.locator(".label.gone")).to_contain_text("is undefined")
    assert page.locator(".ghost").count() >= 1
    expect(page.locator(".caption")).to_contain_text("does not exist any more")
    slider.press("Home")
    expect(page.locator(".ghost")).to_have_count(0)


def test_the_result_stands_on_the_board_and_the_break_is_played_there(desk):
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    drawn = desk.point("A")
    desk.page.get_by_role("button", name="Hand in").click()
    desk.confirm()
    strip = desk.page.locator(".result-strip")
    expect(strip.locator(".why")).to_contain_text("The method is right")
    expect(strip.locator(".result-item")).to_have_count(3)
    expect(desk.page.locator(".curve.answer")).to_have_count(1)
    slider = strip.get_by_role("slider")
    slider.focus()
    slider.press("End")
    expect(desk.page.locator(".curve.broken")).to_have_count(1)
    assert desk.point("A") != pytest.approx(drawn, abs=3)
    strip.get_by_role("button", name="Continue").click()
    expect(strip).to_be_hidden()
    assert desk.point("A") == pytest.approx(drawn, abs=1)
    expect(desk.page.locator(".curve.answer, .curve.broken")).to_have_count(0)
    expect(desk.page.get_by_role("link", name="Last result")).to_be_visible()
    desk.take("segment")
    desk.click("A")
    desk.click("F")
    assert len(desk.stored()) == 7, "on with the same figure"


def test_a_lost_network_while_handing_in_loses_nothing(desk):
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    desk.page.context.set_offline(True)
    desk.take("segment")
    desk.click("A")
    desk.click("F")
    desk.page.get_by_role("button", name="Hand in").click()
    desk.page.get_by_role("button", name="Hand in now").click()
    expect(desk.page.locator(".hint")).to_contain_text("no connection. Nothing is lost", timeout=20_000)
    desk.page.context.set_offline(False)
    desk.confirm()
    expect(desk.page.locator(".result-strip")).to_be_visible()
    desk.page.keyboard.press("Escape")
    expect(desk.page.locator(".result-strip")).to_be_hidden()
    assert len(desk.stored()) == 7


def test_a_figure_that_was_handed_in_can_be_dragged(switching):
    def place(id_):
        return switching.evaluate(
            "(id) => { const b = document.querySelector(`.picture.large .point[data-id='${id}'] > *`).getBoundingClientRect();"
            " return [b.x + b.width / 2, b.y + b.height / 2]; }",
            id_,
        )

    switching.emulate_media(reduced_motion="reduce")
    x, y = place("B")
    before = place("F")
    switching.mouse.move(x, y)
    switching.mouse.down()
    switching.mouse.move(x + 30, y - 40)
    switching.mouse.up()
    assert place("B") == pytest.approx([x + 30, y - 40], abs=1.5)
    assert place("F") != pytest.approx(before, abs=1)


def test_another_intersection_is_offered_before_handing_in(desk):
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    desk.page.get_by_role("button", name="Hand in").click()
    desk.page.get_by_role("button", name="Hand in now").click()
    offer = desk.page.locator(".fix-offered")
    expect(offer).to_contain_text("When dragged, the other intersection is taken in some positions")
    expect(desk.page.locator(".result-strip")).to_be_hidden()
    offer.get_by_role("button", name="Keep the one farther from A").click()
    expect(offer).to_be_hidden()
    desk.page.get_by_role("button", name="Hand in now").click()
    expect(desk.page.locator(".result-strip .result-item.good")).to_have_count(3)
    assert desk.stored()[-1]["operation"]["step"]["farthest_from"] == "A"


def test_a_mend_is_made_from_the_result_on_the_board(desk):
    desk.enter("Splitting a gable")
    desk.put(JUMPING_GABLE)
    desk.page.get_by_role("button", name="Hand in").click()
    desk.confirm()
    strip = desk.page.locator(".result-strip")
    expect(strip.locator(".mends")).to_contain_text("farther from A, and it holds everywhere")
    strip.get_by_role("button", name="Do it").first.click()
    expect(strip).to_be_hidden()
    expect(desk.page.locator(".hint")).to_contain_text("is made the other way now")
    assert desk.stored()[-1]["operation"]["step"]["farthest_from"] == "A"
    desk.page.get_by_role("button", name="Undo").click()
    assert desk.stored()[-1]["operation"] == {"op": "undo"}
