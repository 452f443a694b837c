"""A teacher's second week: a list in another language, two classes, a demonstration beside the board, a group commented,
work on paper, practice, and marks with everything.
"""

import csv
import io
import re
from io import BytesIO

from PIL import Image
from playwright.sync_api import expect

from tests.browser.teaching import codes_on, new_class

ROSTER = "Nom;Prénom;Courriel\nQuillon;Aude;aude@example.org\nRudel;Bérénice;b@example.org\nSabot;Côme;c@example.org\n"


def photo():
    made = BytesIO()
    Image.new("RGB", (3000, 2000), (60, 62, 60)).save(made, "JPEG")
    return {"name": "desk.jpg", "mimeType": "image/jpeg", "buffer": made.getvalue()}


def test_a_week_with_two_classes(teacher, students, served):
    new_class(teacher, "Deuxième")
    new_class_page(teacher, served, "Première")
    teacher.get_by_label("or a CSV file").set_input_files(
        {"name": "classe.csv", "mimeType": "text/csv", "buffer": ROSTER.encode()}
    )
    teacher.get_by_role("button", name="Preview the list").click()
    teacher.get_by_role("button", name="Add the selected students").click()
    class_code = teacher.locator(".heading .code").inner_text()
    codes = codes_on(teacher)
    assert set(codes) == {"Aude Quillon", "Bérénice Rudel", "Côme Sabot"}

    # A task of the library for both classes, with its demonstration at any time and its solution once it is solved.
    teacher.goto(f"{served}/library/midpoint")
    teacher.get_by_role("button", name="Assign").click()
    for name in ("Deuxième", "Première"):
        teacher.get_by_label(name, exact=True).check()
    teacher.get_by_text("What students see besides, and weight").click()
    teacher.get_by_label("See the demonstration").select_option("before")
    teacher.get_by_label("See the sample solution").select_option("correct")
    teacher.get_by_role("button", name="Assign to Deuxième and Première").click()
    expect(teacher.locator(".notice")).to_contain_text("is assigned to Deuxième and Première")

    # Students: the demonstration beside the board, then the work; the solution after it.
    aude, berenice, _come = (students(class_code, codes[name]) for name in sorted(codes))
    aude.open("Midpoint of a segment")
    aude.page.get_by_role("button", name="Beside the board").click()
    aside = aude.page.locator(".demonstration.beside[data-ready]")
    expect(aside.get_by_role("button", name="Next")).to_be_focused()
    aude.page.keyboard.press("ArrowRight")
    expect(aside.locator("[data-place]")).to_contain_text("2 of")
    aside.get_by_role("button", name="Close").click()
    aude.build(("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"), ("intersection", "es"))
    aude.hand_in()
    aude.page.get_by_role("link", name="Full report").click()
    aude.page.get_by_role("link", name="Solutions").click()
    expect(aude.page.get_by_role("heading", name="Sample solution")).to_be_visible()
    berenice.open("Midpoint of a segment")
    berenice.build(("point", ["5, 3.5"]))
    berenice.hand_in()

    # The overview of this class: a comment to a whole group, kept as a phrase.
    teacher.goto(f"{served}/classes")
    teacher.get_by_role("link", name="Première").click()
    teacher.get_by_role("link", name="Midpoint of a segment").first.click()
    overview = teacher.url
    group = teacher.locator(".groups section", has_text="Bérénice Rudel").last
    group.get_by_label("Select all").check()
    teacher.get_by_label("One comment for all of them").fill("Which two circles help?")
    teacher.get_by_label("keep as a phrase").check()
    teacher.get_by_role("button", name="Comment", exact=True).click()
    expect(teacher.locator(".notice")).to_contain_text("The comment stands on 1 work")

    # Work on paper, with a photo that is made small, and somebody excused.
    teacher.get_by_role("link", name="Work on paper, absent, excused").click()
    paper = teacher.locator("fieldset", has_text="Sabot, Côme")
    paper.get_by_label("Photo of the work").set_input_files(photo())
    expect(teacher.locator("[data-said]")).to_have_text("The photo is kept.")
    expect(paper.locator("img")).to_be_visible()
    assert paper.locator("img").evaluate("image => image.decode().then(() => image.naturalWidth)") == 1600
    teacher.get_by_role("button", name="Save", exact=True).click()
    expect(teacher.get_by_role("alert")).to_contain_text("score from 0 to 100")
    teacher.get_by_label("Score of Côme Sabot").fill("70")
    teacher.get_by_label("What counts for Bérénice Rudel").select_option("excused")
    teacher.get_by_role("button", name="Save", exact=True).click()
    expect(teacher.locator(".notice")).to_contain_text("The results are saved")

    # Another column, and what several tasks have in common.
    teacher.get_by_label("Column for other marks").fill("Oral")
    teacher.get_by_role("button", name="Add", exact=True).click()
    teacher.get_by_label("Quillon, Aude").fill("50")
    teacher.get_by_role("button", name="Save", exact=True).click()
    teacher.get_by_role("link", name="Settings of several tasks").click()
    teacher.get_by_label("all", exact=True).check()
    teacher.get_by_label("Weight in the mean").fill("3")
    teacher.get_by_role("button", name="Change the selected tasks").click()
    expect(teacher.locator(".notice")).to_contain_text("The settings of 1 task are changed")
    expect(teacher.locator(".several-terms")).to_contain_text("weight 3")

    # Practice, and what is mastered.
    teacher.get_by_role("link", name="Première").click()
    teacher.get_by_role("link", name="Practice", exact=True).click()
    teacher.get_by_role("checkbox", name=re.compile("^Segments")).check()
    teacher.get_by_role("button", name="Save", exact=True).click()
    aude.page.goto(f"{served}/practice")
    expect(aude.page.locator(".map [data-key=midpoint]")).to_have_class(re.compile("mastered"))
    aude.page.locator(".map [data-key=perpendicular-bisector] button").click()
    aude.page.wait_for_selector(".board-page[data-ready]")
    aude.build(("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"))
    expect(aude.hand_in().locator(".result-item.good")).to_have_count(3)
    teacher.reload()
    expect(teacher.locator(".map [data-key=perpendicular-bisector]")).to_contain_text("1 of 3 mastered")

    # The marks, sorted, and out.
    teacher.get_by_role("link", name="Tasks and marks").click()
    teacher.get_by_label("Sort by").select_option("mean")
    expect(teacher.locator(".standings tbody th").first).to_have_text("Quillon, Aude")
    with teacher.expect_download() as download:
        teacher.get_by_role("link", name="Marks as CSV").click()
    table = list(csv.reader(io.StringIO(download.value.path().read_text("utf-8-sig"))))
    marks = {f"{given} {family}": rest[1:4] for family, given, *rest in table[1:]}
    assert table[0][3:6] == ["Midpoint of a segment", "Oral", "mean"]
    assert marks["Aude Quillon"] == ["100", "50", str(round((3 * 100 + 50) / 4))]
    assert marks["Bérénice Rudel"] == ["excused", "", ""] and marks["Côme Sabot"] == ["70", "", "70"]
    berenice.page.goto(f"{served}/tasks")
    expect(berenice.page.locator(".work-card")).to_contain_text("excused")

    # The phrase is offered on the next work.
    teacher.goto(overview)
    teacher.locator(".work-card", has_text="Aude Quillon").click()
    teacher.wait_for_selector(".picture.large[data-shown]")
    teacher.get_by_label("Phrases that you keep").select_option("Which two circles help?")
    expect(teacher.get_by_label("Comment", exact=True)).to_have_value("Which two circles help?")
    teacher.get_by_role("button", name="Make a demonstration of it").click()
    expect(teacher.locator("[data-words]")).to_contain_text("Construct")


def new_class_page(page, served, name):
    page.goto(f"{served}/classes")
    new_class(page, name)


def test_the_first_week_leads_on_and_the_guide_is_searched(teacher, served):
    teacher.goto(f"{served}/today")
    path = teacher.locator(".first-week")
    new_class(teacher, "Novices")
    teacher.goto(f"{served}/today")
    expect(path.locator(".now")).to_contain_text("Add its students")
    path.locator(".now").get_by_role("link", name="how").click()
    expect(teacher.get_by_role("heading", name="A class and its students")).to_be_visible()
    teacher.get_by_label("Search").fill("phrase")
    teacher.get_by_role("button", name="Search").click()
    expect(teacher.locator(".guide section")).to_have_count(1)
    expect(teacher.locator(".guide img")).to_have_js_property("complete", True)
    assert teacher.locator(".guide img").evaluate("image => image.naturalWidth") > 600
    teacher.get_by_label("Search").fill("no such thing")
    teacher.get_by_role("button", name="Search").click()
    expect(teacher.locator("main")).to_contain_text("Nothing is said of that here")
    teacher.goto(f"{served}/today")
    path.get_by_role("button", name="Dismiss").click()
    expect(path).to_have_count(0)


def test_a_word_is_explained_where_it_stands_and_steps_say_what_they_lack(teacher, served):
    teacher.goto(f"{served}/library")
    teacher.get_by_role("button", name="New task").click()
    teacher.wait_for_selector(".making[data-ready]")
    steps = teacher.locator(".making-steps button")
    expect(steps.nth(0)).to_contain_text("missing")
    expect(steps.nth(1)).to_contain_text("not chosen yet")
    expect(steps.nth(2)).to_contain_text("sample solution missing")
    teacher.get_by_role("button", name="Acute triangle").click()
    expect(steps.nth(0)).to_contain_text("done")
    for name in ("Tools", "What to construct", "Move limit and feedback"):
        teacher.get_by_role("button", name=f"Next: {name}").click()
    teacher.get_by_role("button", name="What does “move limit” mean?").click()
    explanation = teacher.locator("#term-move-limit")
    expect(explanation).to_contain_text("How many lines and circles")
    word = teacher.get_by_role("button", name="What does “move limit” mean?").bounding_box()
    assert abs(explanation.bounding_box()["y"] - word["y"] - word["height"]) < 12
    teacher.keyboard.press("Escape")
    teacher.get_by_label("students may draw loci").uncheck()
    expect(teacher.locator(".save-state")).to_have_text("All changes saved")
    teacher.reload()
    teacher.wait_for_selector(".making[data-ready]")
    expect(teacher.get_by_label("students may draw loci")).not_to_be_checked()  # on the same step as before


def test_what_is_pressed_before_the_scripts_are_there_is_done_when_they_are(teacher, served):
    """The scripts of a page may take long: the box that selects all tasks is ticked before."""
    held = []
    teacher.route("**/desk/choosing.js", lambda route: held.append(route))
    new_class(teacher, "Slow line")
    class_id = re.search(r"/classes/(\d+)", teacher.url)[1]
    teacher.goto(f"{served}/library/midpoint")
    teacher.get_by_role("button", name="Assign").click()
    teacher.get_by_label("Slow line", exact=True).check()
    teacher.get_by_role("button", name="Assign to").click()
    teacher.goto(f"{served}/classes/{class_id}/terms", wait_until="commit")
    teacher.get_by_label("all", exact=True).check()
    expect(teacher.get_by_label("all", exact=True)).to_be_checked()
    boxes = teacher.locator("input[name=assignment]")
    assert boxes.count() and not boxes.first.is_checked()
    for route in held:
        route.continue_()
    for box in boxes.all():
        expect(box).to_be_checked()
