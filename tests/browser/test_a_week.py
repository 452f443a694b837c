"""A teacher's first week in one go: a class from a CSV, a task from nothing, students at work, the class overview, marks."""

import csv
import io
import re

from playwright.sync_api import expect

from tests.browser.teaching import begin_task, build_model, codes_on, making_step, new_class, suggest

ROSTER = "Surname,First name\nQuill,Asa\nRudd,Bet\nSable,Cob\n"


def test_from_a_list_of_names_to_marks(teacher, students):
    # Monday: the class, and the codes of its students.
    new_class(teacher, "Tracery beginners")
    teacher.get_by_label("or a CSV file").set_input_files(
        {"name": "class.csv", "mimeType": "text/csv", "buffer": ROSTER.encode()}
    )
    teacher.get_by_role("button", name="Preview the list").click()
    teacher.get_by_role("button", name="Add the selected students").click()
    class_code = teacher.locator(".heading .code").inner_text()
    rows = teacher.locator(".students summary")
    expect(rows).to_have_count(3)
    codes = codes_on(teacher)

    # A task from nothing, tried and assigned.
    begin_task(teacher, "Segment")
    teacher.get_by_label("Title").fill("Middle of a beam")
    teacher.get_by_label("Text for the students").fill("Find the middle of the beam.")
    build_model(teacher, ("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"))
    build_model(teacher, ("intersection", "es"))
    teacher.get_by_label("point E").check()
    suggest(teacher)
    expect(teacher.locator(".conditions li")).to_have_count(1)
    making_step(teacher, "Move limit")
    teacher.get_by_role("button", name="As many as the sample solution").click()
    making_step(teacher, "Check")
    expect(teacher.locator("[data-task-check]")).to_contain_text("solves the task wherever")
    teacher.get_by_role("link", name="Assign …").click()
    teacher.get_by_role("button", name="Assign to").click()
    expect(teacher.get_by_text("3").first).to_be_visible()
    overview = teacher.url
    expect(teacher.locator(".work-card")).to_have_count(3)

    # Tuesday: one builds it, one puts it by eye, one is called away.
    asa, bet, cob = (students(class_code, codes[name]) for name in ("Asa Quill", "Bet Rudd", "Cob Sable"))
    for one in (asa, bet, cob):
        one.open("Middle of a beam")
    asa.build(("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"), ("intersection", "es"))
    expect(asa.hand_in().locator(".result-item.good")).to_have_count(3)
    bet.build(("point", ["5, 3.5"]), ("segment", "AC"))
    expect(bet.hand_in().locator(".result-item.half")).to_have_count(1)
    cob.build(("circle", "AB"))
    cob.page.reload()
    cob.page.wait_for_selector(".board-page[data-ready]")
    expect(cob.page.locator(".step-list li[data-step]")).to_have_count(1)

    # The class overview follows without a reload.
    card = {name: teacher.locator(".work-card", has_text=name) for name in codes}
    expect(card["Asa Quill"].locator(".result-item.good")).to_have_count(3)
    expect(card["Cob Sable"]).to_contain_text("1 move")
    expect(card["Cob Sable"].locator(".presence")).to_have_text("at work")
    teacher.reload()
    expect(teacher.get_by_role("heading", name=re.compile("by eye"))).to_be_visible()

    # One work is looked through, commented, given credit and handed back.
    card["Bet Rudd"].click()
    teacher.get_by_label("What the comment is on").select_option(label="on C")
    teacher.get_by_label("Comment", exact=True).fill("What ties it there?")
    teacher.get_by_role("button", name="Post comment").click()
    teacher.get_by_text("Override the score, return for revision").click()
    teacher.get_by_label("Score", exact=True).fill("35")
    teacher.get_by_label("Reason").fill("A fair guess")
    teacher.get_by_role("button", name="Save score").click()
    teacher.get_by_text("Override the score, return for revision").click()
    teacher.get_by_role("button", name="Return for revision").click()
    bet.page.get_by_role("link", name="Tasks").click()
    expect(bet.page.locator(".work-card")).to_contain_text("returned for revision")
    expect(bet.page.locator(".work-card")).to_contain_text("1 comment on your last attempt")
    bet.open("Middle of a beam")
    bet.page.get_by_role("link", name="Last result").click()
    expect(bet.page.locator(".comments")).to_contain_text("on C: What ties it there?")

    # Marks leave for the mark book; the class overview and a handout for the board in the room.
    teacher.get_by_role("link", name="All works on this task").click()
    expect(teacher).to_have_url(overview)
    teacher.get_by_role("link", name="Tracery beginners").click()
    with teacher.expect_download() as download:
        teacher.get_by_role("link", name="Marks as CSV").click()
    table = list(csv.reader(io.StringIO(download.value.path().read_text("utf-8-sig"))))
    marks = {f"{given} {family}": rest for family, given, *rest in table[1:]}
    assert set(marks) == set(codes) and "100" in marks["Asa Quill"] and "35" in marks["Bet Rudd"]
    assert not {"100", "35"} & set(marks["Cob Sable"])
