"""Demonstrations in a real browser: gone through, changed, and opened from a file without a network."""

import re

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Person, SchoolClass
from widepin.school.states import Showing
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet


@pytest.fixture
def sheet_address(teacher, served, school):
    """The page of a demonstration of the teacher's own."""
    with make_sessions(school)() as session:
        person = session.scalars(select(Person).where(Person.name == "Ada Thorne").order_by(Person.id.desc())).first()
        sheet = new_sheet(session, person, LIBRARY["perpendicular-bisector"].document())
        session.commit()
        return f"{served}/sheets/{sheet.id}/demonstration"


def words(page):
    return page.locator("[data-words]")


def test_it_is_gone_through_by_keys_and_dragged_at_any_step(teacher, served):
    teacher.goto(f"{served}/library/perpendicular-bisector/demonstration")
    teacher.wait_for_selector("[data-ready]")
    expect(words(teacher)).to_contain_text("Construct a line")
    expect(teacher.locator(".curve:not(.given)")).to_have_count(0)
    teacher.keyboard.press("ArrowRight")
    expect(words(teacher)).to_contain_text("circle centred")
    expect(teacher.locator("circle.curve")).to_have_count(1)
    before = teacher.locator("circle.curve").first.get_attribute("r")
    box = teacher.locator(".point[data-id=B] .dot").bounding_box()
    teacher.mouse.move(box["x"] + 3, box["y"] + 3)
    teacher.mouse.down()
    teacher.mouse.move(box["x"] - 80, box["y"] + 30, steps=4)
    teacher.mouse.up()
    assert teacher.locator("circle.curve").first.get_attribute("r") != before
    teacher.keyboard.press("End")
    expect(teacher.locator(".curve.answer")).to_have_count(1)
    expect(teacher.get_by_role("button", name="Next")).to_be_disabled()
    teacher.keyboard.press("ArrowLeft")
    teacher.keyboard.press("Home")
    expect(teacher.locator("[data-place]")).to_contain_text("1 of")


def test_words_positions_and_looks_become_part_of_a_frame(teacher, sheet_address):
    teacher.goto(sheet_address)
    teacher.wait_for_selector("[data-ready]")
    teacher.get_by_text("Change this demonstration").click()
    teacher.keyboard.press("ArrowRight")
    teacher.locator("[data-on]").click()
    teacher.get_by_label("What is done here").fill("Open the compass as far as AB.")
    state = teacher.locator("[data-state]")
    expect(state).to_have_text("All changes saved")
    box = teacher.locator(".point[data-id=B] .dot").bounding_box()
    teacher.mouse.move(box["x"] + 3, box["y"] + 3)
    teacher.mouse.down()
    teacher.mouse.move(box["x"] - 60, box["y"] + 50, steps=4)
    teacher.mouse.up()
    teacher.get_by_role("button", name="Keep this position").click()
    expect(state).to_have_text("All changes saved")
    place = teacher.locator(".point[data-id=B]").get_attribute("transform")
    teacher.mouse.click(box["x"] - 57, box["y"] + 53)
    teacher.get_by_role("button", name="Green").click()
    teacher.get_by_role("button", name="Add a frame after this one").click()
    expect(state).to_have_text("All changes saved")
    teacher.reload()
    teacher.wait_for_selector("[data-ready]")
    teacher.get_by_label("Place in the demonstration").fill("2")
    expect(words(teacher)).to_have_text("Open the compass as far as AB.")
    assert teacher.locator(".point[data-id=B]").get_attribute("transform") == place
    teacher.get_by_text("Change this demonstration").click()
    teacher.once("dialog", lambda dialog: dialog.accept())
    teacher.get_by_role("button", name="Make it anew").click()
    teacher.wait_for_selector("[data-ready]")
    expect(words(teacher)).to_contain_text("Construct a line")


def test_changing_a_look_keeps_what_was_dragged_and_what_is_chosen(teacher, sheet_address):
    teacher.goto(sheet_address)
    teacher.wait_for_selector("[data-ready]")
    teacher.get_by_text("Change this demonstration").click()
    teacher.keyboard.press("End")
    point = teacher.locator(".point[data-id=B]")
    box = point.locator(".dot").bounding_box()
    before = point.get_attribute("transform")
    teacher.mouse.move(box["x"] + 3, box["y"] + 3)
    teacher.mouse.down()
    teacher.mouse.move(box["x"] - 60, box["y"] + 50, steps=4)
    teacher.mouse.up()
    dragged = point.get_attribute("transform")
    assert dragged != before
    teacher.mouse.click(box["x"] - 60, box["y"] + 50)
    for look in ("Green", "Thick"):
        teacher.get_by_role("button", name=look).click()
        expect(teacher.locator("[data-chosen]")).to_contain_text("B from here on")
    expect(point).to_have_attribute("transform", dragged)
    teacher.get_by_role("button", name="Keep this position").click()
    expect(teacher.get_by_role("button", name="Keep this position")).to_be_disabled()
    expect(point).to_have_attribute("transform", dragged)


def test_a_file_of_its_own_opens_without_a_network(teacher, served, tmp_path):
    teacher.goto(f"{served}/library/incircle/demonstration")
    with teacher.expect_download() as download:
        teacher.get_by_role("link", name="Save as one file").click()
    file = tmp_path / "incircle.html"
    download.value.save_as(file)
    assert "http" not in file.read_text().replace("http://www.w3.org/2000/svg", "")
    teacher.context.set_offline(True)
    alone = teacher.context.new_page()
    errors = []
    alone.on("pageerror", lambda error: errors.append(str(error)))
    alone.goto(f"file://{file}")
    alone.wait_for_selector("[data-ready]")
    alone.keyboard.press("End")
    expect(alone.locator(".curve.answer")).to_have_count(1)
    assert errors == []


def test_a_student_sees_it_when_the_teacher_shows_it(desk, school):
    desk.enter("Splitting a gable")
    page = desk.page
    number = int(page.url.rsplit("/", 1)[1])
    expect(page.get_by_role("link", name="How it is done")).to_have_count(0)
    assert page.request.get(f"{page.url}/demonstration").status == 403
    with make_sessions(school)() as session:
        session.get_one(Assignment, number).demonstration = Showing.BEFORE
        assert session.get_one(Assignment, number).school_class in session.scalars(select(SchoolClass))
        session.commit()
    try:
        page.reload()
        desk.ready()
        page.locator(".brief-slip summary").click()
        page.get_by_role("link", name="How it is done").click()
        page.wait_for_selector(".demonstration[data-ready]")
        page.keyboard.press("ArrowRight")
        expect(words(page)).not_to_be_empty()
        expect(page.get_by_text("Change this demonstration")).to_have_count(0)
    finally:
        with make_sessions(school)() as session:
            session.get_one(Assignment, number).demonstration = Showing.NEVER
            session.commit()


@pytest.fixture
def making(teacher, sheet_address):
    """The page of a demonstration that is being changed, at its second frame."""
    teacher.goto(sheet_address)
    teacher.wait_for_selector("[data-ready]")
    teacher.get_by_text("Change this demonstration").click()
    teacher.locator("[data-on]").click()
    return teacher


def is_saved(page):
    expect(page.locator("[data-state]")).to_have_text("All changes saved")


def test_frames_are_ordered_removed_and_had_back(making):
    first, second = words(making).inner_text(), "Then the other way round."
    making.locator("[data-on]").click()
    making.get_by_label("What is done here").fill(second)
    making.get_by_role("button", name="Earlier").click()
    expect(making.locator("[data-place]")).to_contain_text("2 of")
    making.locator("[data-on]").click()
    expect(words(making)).to_have_text(first)
    making.get_by_role("button", name="Remove this frame").click()
    is_saved(making)
    making.get_by_role("button", name="Undo").click()
    is_saved(making)
    expect(making.get_by_role("button", name="Undo")).to_be_hidden()
    making.reload()
    making.wait_for_selector("[data-ready]")
    making.keyboard.press("ArrowRight")
    expect(words(making)).to_have_text(second)
    making.keyboard.press("ArrowRight")
    expect(words(making)).to_have_text(first)


def test_own_words_and_title_outlive_a_change_of_the_figure(making, sheet_address, served):
    making.get_by_label("What is done here").fill("Open the compass.")
    making.get_by_label("Title").fill("How a sill is halved")
    making.get_by_label("Title").press("Tab")
    is_saved(making)
    making.get_by_role("link", name="Draw on the board").click()
    making.wait_for_selector(".board-page[data-ready]")
    making.get_by_role("button", name="Segment", exact=True).click()
    making.keyboard.type("A")
    making.keyboard.press("Enter")
    making.keyboard.type("D")
    making.keyboard.press("Enter")
    expect(making.locator(".step-list li[data-step]")).to_have_count(6)
    making.get_by_role("link", name="Done").click()
    making.wait_for_selector(".demonstration[data-ready]")
    expect(making.locator(".where")).to_contain_text("How a sill is halved")
    expect(making.locator("[data-place]")).to_contain_text("of 8")
    making.keyboard.press("ArrowRight")
    expect(words(making)).to_have_text("Open the compass.")


def test_every_look_has_its_opposite(making):
    circle = making.locator("circle.curve[data-id=c]")
    box = circle.bounding_box()
    place = box["x"] + box["width"] / 2, box["y"] + 1
    making.mouse.click(*place)
    for look, sign in (("Dashed", "dashed"), ("Thick", "thick"), ("Green", "hue-green")):
        button = making.get_by_role("button", name=look)
        button.click()
        expect(circle).to_have_class(re.compile(rf"\b{sign}\b"))
        expect(button).to_have_attribute("aria-pressed", "true")
        button.click()
        expect(circle).not_to_have_class(re.compile(rf"\b{sign}\b"))
    making.get_by_role("button", name="Hide").click()
    expect(circle).to_have_count(0)
    making.get_by_role("button", name="Show c").click()
    expect(circle).to_have_count(1)


def test_a_dragged_position_is_asked_about_before_another_frame_is_shown(making):
    point = making.locator(".point[data-id=B]")
    box = point.locator(".dot").bounding_box()
    making.mouse.move(box["x"] + 3, box["y"] + 3)
    making.mouse.down()
    making.mouse.move(box["x"] - 60, box["y"] + 50, steps=4)
    making.mouse.up()
    dragged = point.get_attribute("transform")
    making.once("dialog", lambda dialog: dialog.accept())
    making.locator("[data-on]").click()
    is_saved(making)
    making.locator("[data-back]").click()
    expect(point).to_have_attribute("transform", dragged)


def test_a_sentence_is_recorded_and_heard_with_its_frame(making):
    making.get_by_role("button", name="Record what is said").click()
    stop = making.get_by_role("button", name=re.compile("Stop"))
    expect(stop).to_be_visible()
    making.wait_for_timeout(400)
    stop.click()
    expect(making.locator("audio")).to_be_visible()
    is_saved(making)
    making.reload()
    making.wait_for_selector("[data-ready]")
    expect(making.locator("audio")).to_be_hidden()
    making.keyboard.press("ArrowRight")
    expect(making.locator("audio")).to_be_visible()
    for _ in range(300):
        if making.evaluate("document.querySelector('audio').currentTime") > 0:
            break
        making.wait_for_timeout(100)
    assert making.evaluate("document.querySelector('audio').currentTime") > 0
    making.get_by_text("Change this demonstration").click()
    making.get_by_role("button", name="Remove the recording").click()
    expect(making.locator("audio")).to_be_hidden()
    making.get_by_role("button", name="Undo").click()
    expect(making.locator("audio")).to_be_visible()


def test_beside_the_board_it_covers_nothing_that_is_needed(desk, school):
    desk.enter("Splitting a gable")
    page = desk.page
    number = int(page.url.rsplit("/", 1)[1])
    with make_sessions(school)() as session:
        session.get_one(Assignment, number).demonstration = Showing.BEFORE
        session.commit()
    try:
        for width, height in ((1280, 800), (1024, 768)):
            page.set_viewport_size({"width": width, "height": height})
            page.reload()
            desk.ready()
            page.locator(".brief-slip summary").click()
            page.get_by_role("button", name="Beside the board").click()
            aside = page.locator(".demonstration.beside[data-ready]")
            expect(aside).to_be_visible()
            here = aside.bounding_box()
            for part in (".hand-in .btn-main", "[data-do=undo]", ".sentence", ".paper", ".step-list .count"):
                there = page.locator(part).bounding_box()
                apart = (
                    here["x"] + here["width"] <= there["x"] + 1
                    or there["x"] + there["width"] <= here["x"] + 1
                    or here["y"] + here["height"] <= there["y"] + 1
                    or there["y"] + there["height"] <= here["y"] + 1
                )
                assert apart, (part, here, there)
            page.keyboard.press("Escape")
            expect(aside).to_be_hidden()
    finally:
        with make_sessions(school)() as session:
            session.get_one(Assignment, number).demonstration = Showing.NEVER
            session.commit()
