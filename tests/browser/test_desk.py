"""The teacher's desk, as a new teacher would use it."""

import re

from playwright.sync_api import expect

from tests.browser.teaching import begin_task, build_model, making_step, new_class, suggest
from tests.papers import paper_from

PLACE_ON_LINE = """(line) => {
  const box = line.ownerSVGElement.getBoundingClientRect();
  const [x1, y1, x2, y2] = ["x1", "y1", "x2", "y2"].map((name) => line[name].baseVal.value);
  return [box.x + 0.8 * x1 + 0.2 * x2, box.y + 0.8 * y1 + 0.2 * y2];
}"""
"""A place on the screen, a fifth along a line of a drawing."""


def test_a_class_is_made_from_a_csv_and_its_students_come_in_with_their_cards(teacher, served, browser):
    expect(teacher.get_by_role("heading", name="Your first week")).to_be_visible()
    new_class(teacher, "Third year")
    expect(teacher.get_by_text("Nobody is in this class yet")).to_be_visible()
    csv = "Surname;First name\nFarrow;Nell\nPask;Jory\nFarrow;Nell\n;\n"
    teacher.get_by_label("or a CSV file").set_input_files(
        {"name": "third.csv", "mimeType": "text/csv", "buffer": csv.encode("cp1252")}
    )
    teacher.get_by_role("button", name="Preview the list").click()
    expect(teacher.get_by_text("2 of 3 lines are new students")).to_be_visible()
    expect(teacher.get_by_text("Line 4 repeats line 2.")).to_be_visible()
    teacher.get_by_label("Family name on line 3").fill("Paskin")
    teacher.get_by_role("button", name="Add the selected students").click()
    expect(teacher.locator(".students summary")).to_have_count(2)
    row = teacher.locator(".students summary", has_text="Paskin, Jory")
    of_class = teacher.locator(".heading .code").inner_text()
    personal = row.locator(".code").inner_text()
    cards = paper_from(teacher.request, served + teacher.get_by_role("link", name="Name cards").get_attribute("href"))
    assert cards.headers["content-type"] == "application/pdf" and cards.body().startswith(b"%PDF")

    student = browser.new_page()
    student.goto(served)
    student.get_by_label("Class code").fill(of_class.lower())
    student.get_by_label("Your code").fill("wrong")
    student.get_by_role("button", name="Go to my tasks").click()
    expect(student.get_by_role("alert")).to_contain_text("do not fit")
    expect(student.get_by_label("Class code")).to_have_value(of_class.lower())
    student.get_by_label("Your code").fill(personal)
    student.get_by_role("button", name="Go to my tasks").click()
    expect(student.locator(".whoami")).to_contain_text("Jory Paskin")
    student.close()


def test_a_list_is_pasted_and_what_cannot_be_read_stays_in_the_field(teacher):
    new_class(teacher, "Evening class")
    teacher.get_by_role("button", name="Preview the list").click()
    expect(teacher.get_by_role("alert")).to_contain_text("no name in it")
    teacher.get_by_label(re.compile("One name per line")).fill("Odo Vance\nPetra Lind")
    teacher.get_by_role("button", name="Preview the list").click()
    teacher.get_by_role("button", name="Add the selected students").click()
    expect(teacher.locator(".students summary")).to_have_count(2)
    teacher.locator(".students summary", has_text="Lind, Petra").click()
    teacher.get_by_role("link", name="Erase …").click()
    expect(teacher.get_by_text("the account, with its codes")).to_be_visible()
    teacher.get_by_role("button", name="Erase Petra Lind").click()
    expect(teacher.locator(".students summary")).to_have_count(1)
    teacher.get_by_role("link", name="Recently deleted").click()
    teacher.get_by_role("row", name="Petra Lind").get_by_role("button", name="Restore").click()
    expect(teacher.get_by_role("status")).to_contain_text("“Petra Lind” is back.")
    teacher.go_back()
    teacher.go_back()
    expect(teacher.locator(".students summary")).to_have_count(2)


def test_two_classes_of_one_name_are_refused_in_place(teacher):
    new_class(teacher, "Night shift")
    expect(teacher.get_by_text("Nobody is in this class yet")).to_be_visible()
    teacher.get_by_role("link", name="Classes").click()
    new_class(teacher, "Night shift")
    expect(teacher.get_by_role("alert")).to_contain_text("You have a class Night shift already")
    expect(teacher.get_by_label("New class")).to_have_value("Night shift")


def test_an_archived_class_comes_back(teacher):
    new_class(teacher, "Old year")
    teacher.get_by_text("Class settings").click()
    teacher.get_by_role("button", name="Archive").click()
    expect(teacher.get_by_text("You have no class but archived ones")).to_be_visible()
    teacher.get_by_text("Archived", exact=True).click()
    teacher.get_by_role("link", name="Old year").click()
    teacher.get_by_role("link", name="Students and codes").click()
    teacher.get_by_text("Class settings").click()
    teacher.get_by_role("button", name="Take out of the archive").click()
    expect(teacher.get_by_role("link", name="Old year")).to_be_visible()


def test_a_task_is_made_from_nothing_and_assigned(teacher):
    new_class(teacher, "Arches")
    teacher.get_by_label(re.compile("One name per line")).fill("Odo Vance")
    teacher.get_by_role("button", name="Preview the list").click()
    teacher.get_by_role("button", name="Add the selected students").click()
    begin_task(teacher, "Segment")
    expect(teacher.locator("[data-trouble]")).to_contain_text("the sample solution: is empty")
    teacher.get_by_label("Title").fill("Crown of an arch")
    teacher.get_by_label("Text for the students").fill("Mark the crown.")
    build_model(teacher, ("circle", "ABBA"), ("intersection", "cd1"))
    making_step(teacher, "Given figure")
    expect(teacher.get_by_label("Title")).to_have_value("Crown of an arch")
    making_step(teacher, "What to construct")
    teacher.get_by_label("point C").check()
    suggest(teacher, "CA, CB and AB are equally long")
    expect(teacher.locator(".conditions li")).to_have_count(1)
    expect(teacher.locator(".suggestions li").first).to_contain_text("says all by itself")
    expect(teacher.locator(".students-read li")).to_have_text("CA, CB and AB are equally long")
    expect(teacher.locator(".conditions")).to_contain_text("are equally long")
    making_step(teacher, "Move limit")
    teacher.get_by_role("button", name="As many as the sample solution").click()
    expect(teacher.get_by_label("Moves")).to_have_value("2")
    making_step(teacher, "Check")
    expect(teacher.locator("[data-task-check]")).to_contain_text(
        "The sample solution solves the task wherever the figure is dragged"
    )
    expect(teacher.locator("[data-task-check] .work-card")).to_have_count(1)  # the crown below would pass too
    expect(teacher.locator(".save-state")).to_have_text("All changes saved")
    teacher.reload()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.get_by_label("Moves")).to_have_value("2")

    making_step(teacher, "Check")
    teacher.get_by_role("link", name="Preview as a student").click()
    teacher.wait_for_selector(".board-page[data-ready]")
    for make, names in (("circle", "ABBA"), ("intersection", "cd2")):
        teacher.locator(f".card-tool[data-make={make}]").click()
        teacher.keyboard.type(names)
    teacher.get_by_role("button", name="Check", exact=True).click()
    teacher.get_by_role("button", name="Hand in now").click()
    expect(teacher.locator(".result-strip .result-item.good")).to_have_count(3)
    teacher.get_by_role("link", name="Crown of an arch").click()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.locator(".making-figure .point")).to_have_count(3)  # the trial changed nothing

    making_step(teacher, "Check")
    teacher.get_by_role("link", name="Assign …").click()
    teacher.get_by_label("Due").fill("2031-05-06T12:00")
    teacher.get_by_label("Attempts").fill("none")
    teacher.get_by_role("button", name="Assign to").click()  # the one class there is
    expect(teacher.get_by_role("alert")).to_contain_text("a number from 1 to 99")
    expect(teacher.get_by_label("Due")).to_have_value("2031-05-06T12:00")
    teacher.get_by_label("Attempts").fill("2")
    teacher.get_by_role("button", name="Assign to").click()
    expect(teacher.get_by_text("due Tuesday 6 May at 12:00")).to_be_visible()


def test_a_classical_task_fills_the_whole_page_and_asks_before_anything_goes(teacher):
    begin_task(teacher, "an empty page")
    teacher.get_by_role("button", name="Use it").click()
    choice = teacher.get_by_label("Start from a task of the library")
    expect(choice).to_be_focused()
    option = choice.locator("option", has_text="Equilateral triangle on a side")
    choice.select_option(value=option.get_attribute("value"))
    teacher.get_by_role("button", name="Use it").click()
    expect(teacher.get_by_label("Title")).to_have_value("Equilateral triangle on a side")
    expect(teacher.get_by_label("Topic")).to_have_value("Polygons")
    expect(teacher.get_by_label("Moves")).to_have_value("2")
    expect(teacher.locator(".conditions")).to_contain_text("are equally long")
    expect(teacher.locator("[data-trouble]")).to_have_text("")
    teacher.once("dialog", lambda dialog: dialog.dismiss())
    choice.select_option(index=1)
    teacher.get_by_role("button", name="Use it").click()
    expect(teacher.get_by_label("Title")).to_have_value("Equilateral triangle on a side")
    teacher.reload()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.get_by_label("Moves")).to_have_value("2")

    making_step(teacher, "What to construct")
    suggest(teacher)
    making_step(teacher, "Check")
    teacher.get_by_role("button", name="Check the task").click()
    expect(teacher.locator("[data-task-check]")).to_contain_text("The mirror image of the answer would be called wrong")
    teacher.get_by_role("button", name="Accept the mirror image").click()
    expect(teacher.locator("[data-task-check]")).to_contain_text("These would pass as well")
    expect(teacher.locator("[data-task-check]")).not_to_contain_text("On the other side")
    expect(teacher.locator(".conditions")).to_contain_text("are equally long")


def test_what_was_drawn_in_another_window_is_there_on_coming_back(teacher):
    begin_task(teacher, "Segment")
    other = teacher.context.new_page()
    other.goto(teacher.url)
    other.wait_for_selector(".making[data-ready]")
    build_model(other, ("midpoint", "AB"))
    expect(teacher.get_by_label("point C")).to_have_count(0)
    teacher.evaluate("document.dispatchEvent(new Event('visibilitychange'))")
    expect(teacher.get_by_label("point C")).to_have_count(1)
    teacher.evaluate("window.stays = true; document.dispatchEvent(new Event('visibilitychange'))")
    teacher.wait_for_timeout(400)
    assert teacher.evaluate("window.stays")


def test_one_opening_only_is_the_distance_of_two_given_points(teacher):
    begin_task(teacher, "an empty page")
    making_step(teacher, "Tools")
    teacher.get_by_role("button", name="Fixed compass").click()
    expect(teacher.locator(".save-state")).to_contain_text("Draw two given points first")
    making_step(teacher, "Given figure")
    teacher.get_by_role("button", name="Segment", exact=True).click()
    making_step(teacher, "Tools")
    teacher.get_by_role("button", name="Fixed compass").click()
    opening = teacher.get_by_label("Only the radius AB between two given points")
    expect(opening).to_have_value("AB")
    opening.fill("AZ")
    opening.press("Tab")
    build_model(teacher, ("midpoint", "AB"))
    teacher.get_by_label("point C").check()
    suggest(teacher)
    expect(teacher.locator("[data-trouble]")).to_contain_text("the tools")
    making_step(teacher, "Tools")
    opening.fill("BA")
    opening.press("Tab")
    expect(teacher.locator("[data-trouble]")).to_have_text("")
    making_step(teacher, "Check")
    teacher.get_by_role("link", name="Preview as a student").click()
    teacher.wait_for_selector(".board-page[data-ready]")
    teacher.get_by_role("button", name="Fixed compass").click()
    teacher.keyboard.type("A")
    expect(teacher.locator(".step-list li[data-step]")).to_contain_text("circle centred A with radius BA")


def test_a_blank_is_filled_by_clicking_in_the_figure_and_what_is_wrong_is_marked(teacher):
    begin_task(teacher, "Line and point")
    build_model(teacher, ("perpendicular", "gP"))
    teacher.get_by_label("line c").check()
    teacher.get_by_label("Another condition").select_option("perpendicular")
    teacher.get_by_role("button", name="Add", exact=True).click()
    blanks = teacher.locator(".conditions .term")
    expect(blanks.first).to_be_focused()
    for blank, curve in ((0, "c"), (1, "g")):
        blanks.nth(blank).focus()
        x, y = teacher.locator(f".making-figure .curve[data-id={curve}]").evaluate(PLACE_ON_LINE)
        teacher.mouse.click(x, y)
        expect(blanks.nth(blank)).to_have_value(curve)
    expect(teacher.locator("[data-trouble]")).to_have_text("")
    blanks.nth(1).fill("zz")
    blanks.nth(1).press("Tab")
    expect(teacher.locator("[data-trouble]")).to_contain_text("zz")
    expect(teacher.locator(".conditions li.bad")).to_have_count(1)


def test_what_is_added_to_the_given_figure_gets_a_name_that_the_model_does_not_have(teacher):
    begin_task(teacher, "Segment")
    build_model(teacher, ("midpoint", "AB"))
    making_step(teacher, "Given figure")
    teacher.get_by_role("link", name="Draw it on the board").click()
    teacher.wait_for_selector(".board-page[data-ready]")
    teacher.locator(".card-tool[data-make=point]").click()
    teacher.keyboard.type("3, 6")
    teacher.keyboard.press("Enter")
    teacher.get_by_role("link", name="Done").click()
    teacher.wait_for_selector(".making[data-ready]")
    assert teacher.locator(".making-figure .point").evaluate_all("all => all.map((one) => one.dataset.id)") == list(
        "ABDC"
    )
    expect(teacher.locator("[data-trouble]")).to_contain_text("the answer: is empty")


def test_the_program_warns_of_a_model_that_breaks_and_of_class_tools_that_do_not_reach(teacher):
    begin_task(teacher, "Acute triangle")
    build_model(teacher, ("midpoint", "AB"), ("perpendicular", "cC"), ("intersection", "cd"))
    teacher.get_by_label("point E").check()
    making_step(teacher, "What to construct")
    suggest(teacher)
    making_step(teacher, "Check")
    teacher.get_by_role("button", name="Check the task").click()
    expect(teacher.locator("[data-task-check]")).to_contain_text(
        "The tools of the task cannot make the sample solution"
    )
    expect(teacher.locator(".warnings")).to_contain_text("midpoint is not among the tools")


def test_a_task_of_the_library_is_found_and_taken(teacher):
    teacher.get_by_role("link", name="Task library").click()
    expect(teacher.get_by_text("You have made no task yet")).to_be_visible()
    teacher.get_by_label("Topic").select_option("Polygons")
    teacher.get_by_label("Search").fill("hexagon")
    teacher.get_by_role("button", name="Search", exact=True).click()
    expect(teacher.locator(".work-card")).to_have_count(2)
    teacher.get_by_role("link", name="Regular hexagon in a circle").click()
    expect(teacher.get_by_text("Prerequisites")).to_be_visible()
    teacher.get_by_role("button", name="Copy and edit").click()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.get_by_label("Title")).to_have_value("Regular hexagon in a circle")
    making_step(teacher, "Check")
    teacher.get_by_role("button", name="Check the task").click()
    expect(teacher.locator("[data-task-check]")).to_contain_text("solves the task wherever")


def test_a_work_is_reviewed_commented_and_returned(page, served):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(served)
    page.get_by_role("button", name="Corin Hale").click()
    page.get_by_role("link", name="First year").click()
    page.locator("a.cell").first.click()
    page.wait_for_selector(".picture[data-shown]")
    first = page.url
    page.keyboard.press("]")
    expect(page).not_to_have_url(first)
    page.wait_for_selector(".picture[data-shown]")
    page.keyboard.press("[")
    expect(page).to_have_url(first)
    page.wait_for_selector(".picture[data-shown]")
    page.get_by_label("Overlay the sample solution").check()
    expect(page.locator(".curve.model")).not_to_have_count(0)

    page.get_by_role("button", name="Post comment").click()
    expect(page.get_by_role("alert")).to_contain_text("Write something first")
    page.get_by_label("What the comment is on").select_option(index=1)
    page.get_by_label("Comment", exact=True).fill("Why this one first?")
    page.get_by_role("button", name="Post comment").click()
    expect(page.locator(".comments p")).to_contain_text("Why this one first?")
    page.wait_for_selector(".picture[data-shown]")
    page.locator(".on-step").click()
    expect(page.locator(".caption")).to_contain_text("Step 1 of")
    page.get_by_label("What the comment is on").select_option(label="on A")
    page.get_by_label("Comment", exact=True).fill("Drag this one.")
    page.get_by_role("button", name="Post comment").click()
    page.wait_for_selector(".picture[data-shown]")
    page.locator("[data-step=A] .on-step").click()
    expect(page.locator(".point.highlighted[data-id=A]")).to_have_count(1)

    page.get_by_text("Override the score, return for revision").click()
    page.get_by_label("Score", exact=True).fill("88")
    page.get_by_role("button", name="Save score").click()
    expect(page.get_by_role("alert")).to_contain_text("Say why")
    expect(page.get_by_label("Score", exact=True)).to_have_value("88")
    page.get_by_label("Reason").fill("well argued")
    page.get_by_role("button", name="Save score").click()
    expect(page.locator(".score")).to_contain_text("88 of 100, overridden: well argued")
    page.get_by_text("Override the score, return for revision").click()
    page.get_by_role("button", name="Return for revision").click()
    expect(page.locator(".score")).to_contain_text("returned")
    page.goto(f"{served}/classes/1")
    expect(page.locator("a.cell", has_text="88")).to_have_count(1)
    with page.expect_download() as download:
        page.get_by_role("link", name="Marks as CSV").click()
    assert "88" in download.value.path().read_text()


def test_the_wall_follows_a_student_at_work(page, served, desk, browser):
    desk.enter("Splitting a gable")
    desk.saved()
    watch = browser.new_page()
    watch.set_viewport_size({"width": 1280, "height": 800})
    watch.goto(served)
    watch.get_by_role("button", name="Corin Hale").click()
    watch.get_by_role("link", name="Second year").click()
    watch.get_by_role("link", name="Splitting a gable").click()
    card = watch.locator(".work-card", has_text=re.compile(desk.login, re.I))
    expect(card.locator(".presence")).to_have_text("at work")
    desk.put([{"id": "c", "make": "circle", "from": ["A", "B"]}])
    expect(card).to_contain_text("1 move")
    expect(card.locator("circle.curve")).to_have_count(1)
    card.click()
    watch.wait_for_selector(".replay[data-shown]")
    expect(watch.locator(".caption")).to_contain_text("c: circle centred A through B")
    watch.get_by_role("button", name="Back").click()
    expect(watch.locator("circle.curve")).to_have_count(0)
    watch.close()


def test_a_picture_without_a_break_stays_as_it_is(teacher, served):
    errors = []
    teacher.on("pageerror", lambda error: errors.append(str(error)))
    teacher.goto(f"{served}/library/circumcircle")
    teacher.wait_for_selector(".brief .picture[data-shown]")
    teacher.wait_for_timeout(1_200)  # for so long a break would wait before it plays
    assert errors == []
