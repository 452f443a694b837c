"""What a teacher changes on a page is there after a reload, a bad network, a sign-out and a change made elsewhere."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.teaching import begin_task, build_model, making_step, suggest

SAVED, NO_CONNECTION = "All changes saved", "No connection; not saved yet"


def state(page):
    return page.locator(".save-state")


def cut(page):
    """Nothing that is to be stored arrives any more; what is read does."""
    page.route("**", lambda route: route.abort() if route.request.method == "POST" else route.fallback())


def reloaded(page, what=".making"):
    page.reload()
    page.wait_for_selector(f"{what}[data-ready]")


def test_what_is_changed_without_a_network_is_there_after_a_reload_and_stored_then(teacher):
    begin_task(teacher, "Segment")
    cut(teacher)
    teacher.get_by_label("Title").fill("Crown of an arch")
    expect(state(teacher)).to_have_text(NO_CONNECTION)
    teacher.get_by_label("Text for the students").fill("Mark the crown.")
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")
    expect(teacher.get_by_label("Text for the students")).to_have_value("Mark the crown.")
    teacher.unroute("**")
    expect(state(teacher)).to_have_text(SAVED)
    teacher.evaluate("localStorage.clear()")
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")


def answer(route, text):
    if route.request.method == "GET":
        route.fulfill(body=text, content_type="text/html")
    else:
        route.fallback()


def test_a_page_that_was_asked_for_before_a_change_arrived_shows_the_change(teacher):
    begin_task(teacher, "Segment")
    address = teacher.url
    before = teacher.request.get(address).text()
    teacher.get_by_label("Title").fill("Crown of an arch")
    teacher.evaluate("dispatchEvent(new Event('beforeunload'))")  # the next page is asked for ...
    expect(state(teacher)).to_have_text(SAVED)  # ... and the change arrives after that
    teacher.route(address, lambda route: answer(route, before))
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")
    expect(state(teacher)).to_have_text(SAVED)
    assert teacher.evaluate("Object.keys(localStorage).filter((name) => name.includes('unstored'))") == []


def test_what_was_changed_elsewhere_meanwhile_is_not_overwritten_unasked(teacher):
    begin_task(teacher, "Segment")
    cut(teacher)
    teacher.get_by_label("Title").fill("Written here")
    expect(state(teacher)).to_have_text(NO_CONNECTION)
    token = teacher.locator("meta[name=csrf-token]").get_attribute("content")
    changed = {"document": {"title": "Written there"}}
    assert teacher.request.post(teacher.url, data=changed, headers={"X-CSRFToken": token}).ok
    teacher.unroute("**")
    asked = []

    def no(dialog):
        asked.append(dialog.message)
        dialog.dismiss()

    teacher.once("dialog", no)
    reloaded(teacher)
    assert "changed elsewhere" in asked[0]
    expect(teacher.get_by_label("Title")).to_have_value("Written there")


def test_what_is_refused_is_kept_and_sent_again_with_what_mends_it(teacher):
    begin_task(teacher, "Segment")
    teacher.evaluate("document.querySelector('.making').making.change({ title: 'x'.repeat(300), text: 'Mark it.' })")
    expect(teacher.locator("[data-trouble]")).to_contain_text("at most 200 characters")
    expect(state(teacher)).to_have_text("Not saved")
    teacher.get_by_label("Title").fill("Crown")
    expect(state(teacher)).to_have_text(SAVED)
    teacher.evaluate("localStorage.clear()")
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown")
    expect(teacher.get_by_label("Text for the students")).to_have_value("Mark it.")


def test_signed_out_elsewhere_the_way_back_is_offered_and_nothing_is_lost(teacher):
    begin_task(teacher, "Segment")
    teacher.context.clear_cookies()
    teacher.get_by_label("Title").fill("Crown of an arch")
    expect(state(teacher)).to_contain_text("You are signed out; not saved yet")
    expect(state(teacher).get_by_role("link", name="Sign in")).to_have_attribute(
        "href", re.compile("/sign-in[?]next=%2Fsheets")
    )


def test_what_is_drawn_without_a_network_is_on_the_board_again(teacher):
    begin_task(teacher, "Segment")
    build_model(teacher, ("circle", "AB"))
    making_step(teacher, "What to construct")
    teacher.get_by_role("link", name="Draw the sample solution").click()
    teacher.wait_for_selector(".board-page[data-ready]")
    cut(teacher)
    teacher.locator(".card-tool[data-make=circle]").click()
    teacher.keyboard.type("BA")
    expect(state(teacher)).to_have_text(NO_CONNECTION)
    reloaded(teacher, ".board-page")
    expect(teacher.locator(".step-list li[data-step]")).to_have_count(2)
    teacher.unroute("**")
    expect(state(teacher)).to_have_text(SAVED)
    teacher.get_by_role("link", name="Done").click()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.locator("[data-model-words]")).to_have_text("2 steps")


def test_what_was_drawn_without_a_network_is_on_the_page_of_the_task_and_loses_nothing_there(teacher):
    begin_task(teacher, "Segment")
    address = teacher.url
    cut(teacher)
    teacher.get_by_label("Title").fill("Crown of an arch")
    expect(state(teacher)).to_have_text(NO_CONNECTION)
    teacher.goto(f"{address}/draw/model")
    teacher.wait_for_selector(".board-page[data-ready]")
    teacher.locator(".card-tool[data-make=circle]").click()
    teacher.keyboard.type("AB")
    expect(state(teacher)).to_have_text(NO_CONNECTION)
    teacher.goto(address)
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.locator("[data-model-words]")).to_have_text("1 step")
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")
    teacher.unroute("**")
    expect(state(teacher)).to_have_text(SAVED)
    reloaded(teacher)
    expect(teacher.locator("[data-model-words]")).to_have_text("1 step")
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")


def test_what_is_pressed_and_typed_before_the_scripts_are_there_waits_for_them(teacher):
    begin_task(teacher, "Segment")
    held = []
    teacher.route("**/tool-book/**", lambda route: held.append(route))
    with teacher.expect_request("**/tool-book/**"):
        teacher.reload(wait_until="commit")
        teacher.get_by_label("Title").fill("Crown of an arch")
        teacher.locator("[data-to-step=limits]").click()
    expect(teacher.get_by_label("Topic")).to_be_visible()
    held[0].continue_()
    expect(teacher.get_by_label("Topic")).to_be_hidden()
    expect(state(teacher)).to_have_text(SAVED)
    teacher.unroute("**/tool-book/**")
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")


def test_a_demonstration_that_was_changed_without_a_network_is_taken_up_again(teacher):
    begin_task(teacher, "Segment")
    build_model(teacher, ("circle", "AB"))
    making_step(teacher, "What to construct")
    teacher.locator("[data-wanted] input").first.check()
    suggest(teacher)
    expect(teacher.locator("[data-to-step=wanted]")).to_contain_text("done")
    expect(state(teacher)).to_have_text(SAVED)
    teacher.goto(f"{teacher.url}/demonstration")
    teacher.wait_for_selector(".demonstration[data-ready]")
    teacher.get_by_text("Change this demonstration").click()
    cut(teacher)
    teacher.get_by_label("What is done here").fill("The opening of the arch.")
    expect(teacher.locator("[data-state]")).to_have_text(NO_CONNECTION)
    reloaded(teacher, ".demonstration")
    expect(teacher.locator("[data-words]")).to_have_text("The opening of the arch.")
    teacher.unroute("**")
    teacher.get_by_text("Change this demonstration").click()
    expect(teacher.locator("[data-state]")).to_have_text(SAVED)


def test_a_task_that_is_gone_says_so_and_is_not_asked_for_again_and_again(teacher):
    begin_task(teacher, "Segment")
    token = teacher.locator("meta[name=csrf-token]").get_attribute("content")
    assert teacher.request.post(f"{teacher.url}/remove", headers={"X-CSRFToken": token}).ok
    asked = []
    teacher.on("request", lambda request: asked.append(request) if request.method == "POST" else None)
    teacher.get_by_label("Title").fill("Crown")
    expect(state(teacher)).to_have_text("Not saved")
    teacher.wait_for_timeout(5000)
    assert len(asked) == 1


def second_tab(teacher):
    """The same page of making a task once more."""
    other = teacher.context.new_page()
    other.goto(teacher.url)
    other.wait_for_selector(".making[data-ready]")
    return other


def test_two_tabs_that_change_different_fields_lose_nothing(teacher):
    begin_task(teacher, "Segment")
    other = second_tab(teacher)
    teacher.get_by_label("Title").fill("Crown of an arch")
    expect(state(teacher)).to_have_text(SAVED)
    other.get_by_label("Text for the students").fill("Mark the crown.")
    expect(state(other)).to_have_text(SAVED)
    expect(other.get_by_label("Title")).to_have_value("Crown of an arch")
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")
    expect(teacher.get_by_label("Text for the students")).to_have_value("Mark the crown.")


@pytest.mark.parametrize(("answer", "left"), [("accept", "Mine"), ("dismiss", "Theirs")])
def test_two_tabs_that_change_the_same_field_are_asked_about(teacher, answer, left):
    begin_task(teacher, "Segment")
    other = second_tab(teacher)
    other.get_by_label("Title").fill("Theirs")
    expect(state(other)).to_have_text(SAVED)
    asked = []

    def decide(dialog):
        asked.append(dialog.message)
        getattr(dialog, answer)()

    teacher.on("dialog", decide)
    teacher.get_by_label("Title").fill("Mine")
    if answer == "accept":
        expect(state(teacher)).to_have_text(SAVED)
    else:
        expect(teacher.get_by_label("Title")).to_have_value("Theirs")
    assert len(asked) == 1 and "changed elsewhere meanwhile" in asked[0]
    reloaded(teacher)
    expect(teacher.get_by_label("Title")).to_have_value(left)


@pytest.fixture
def with_answer(teacher):
    """The page of a task whose answer is a circle, before the step that says what must hold."""
    begin_task(teacher, "Segment")
    build_model(teacher, ("circle", "AB"))
    making_step(teacher, "What to construct")
    teacher.locator("[data-wanted] input").first.check()
    expect(state(teacher)).to_have_text(SAVED)
    return teacher


def blanks(teacher):
    return teacher.locator("[data-conditions] input.term")


def test_a_condition_that_is_begun_stays_while_an_older_one_is_stored(with_answer):
    teacher, held = with_answer, []
    teacher.get_by_label("Another condition").select_option("on")
    teacher.route(
        "**/sheets/*", lambda route: held.append(route) if route.request.method == "POST" else route.continue_()
    )
    teacher.get_by_role("button", name="Add", exact=True).click()
    blanks(teacher).nth(0).fill("A")
    blanks(teacher).nth(1).fill("c")
    with teacher.expect_request("**/sheets/*"):
        blanks(teacher).nth(1).press("Tab")
    teacher.get_by_role("button", name="Add", exact=True).click()
    expect(blanks(teacher)).to_have_count(4)
    teacher.keyboard.type("B")
    for route in held:
        route.continue_()
    expect(state(teacher)).to_have_text(SAVED)
    expect(blanks(teacher)).to_have_count(4)
    expect(blanks(teacher).nth(2)).to_have_value("B")
    expect(blanks(teacher).nth(2)).to_be_focused()
    teacher.unroute("**/sheets/*")
    blanks(teacher).nth(3).fill("c")
    blanks(teacher).nth(3).press("Tab")
    expect(state(teacher)).to_have_text(SAVED)
    reloaded(teacher)
    expect(blanks(teacher)).to_have_count(4)


def test_blanks_are_filled_by_clicks_one_after_the_other_and_by_what_is_usually_typed(with_answer):
    teacher = with_answer
    teacher.get_by_label("Another condition").select_option("midpoint")
    teacher.get_by_role("button", name="Add", exact=True).click()
    for name in ("A", "B", "A"):
        teacher.evaluate("([name]) => document.querySelector('.making').making.conditions.point(name, true)", [name])
    assert [one.input_value() for one in blanks(teacher).all()] == ["A", "B", "A"]
    meant = "(text) => import('/static/desk/sentences.js').then(({ termOf }) => termOf(text, new Set(['A', 'D', 'B', 'c'])))"
    for text, term in {
        "ad": ["A", "D"],
        "D B": ["D", "B"],
        "A,D": ["A", "D"],
        "line AB": ["A", "B"],
        "∠DAB": ["D", "A", "B"],
        "circle c": "c",
        "C": "c",
        "x": "x",
    }.items():
        assert teacher.evaluate(meant, text) == term, text


@pytest.mark.parametrize("typed", ["4 moves", "1,5", "0", "two", "2x"])
def test_a_number_that_is_typed_wrongly_is_said_at_its_field_and_never_saved(with_answer, typed):
    teacher = with_answer
    making_step(teacher, "Move limit")
    moves = teacher.locator("[name=moves]")
    moves.fill("4")
    moves.press("Tab")
    expect(state(teacher)).to_have_text(SAVED)
    moves.fill(typed)
    moves.press("Tab")
    expect(teacher.locator(".field-wrong")).to_contain_text("whole number from 1 to 300")
    expect(state(teacher)).to_contain_text("Not saved")
    teacher.get_by_label("students may measure").click()
    expect(state(teacher)).to_contain_text("Not all is saved")
    expect(moves).to_have_value(typed)
    reloaded(teacher)
    expect(moves).to_have_value("4")


def test_a_number_counts_though_its_field_is_never_left(teacher):
    begin_task(teacher, "Segment")
    making_step(teacher, "Move limit")
    moves = teacher.locator("[name=moves]")
    for typed, kept in (("4", "4"), ("4x", "4"), ("", "")):
        moves.click()
        teacher.keyboard.press("Control+a")
        teacher.keyboard.press("Delete")
        teacher.keyboard.type(typed)
        if typed != "4x":
            expect(state(teacher)).to_have_text(SAVED)
        reloaded(teacher)
        making_step(teacher, "Move limit")
        expect(moves).to_have_value(kept)
