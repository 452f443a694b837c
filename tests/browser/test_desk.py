"""The teacher's desk, as a new teacher would use it."""

import re
from itertools import count

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from widepin.school.models import Person
from widepin.school.store import make_sessions

numbers = count()


@pytest.fixture
def teacher(page, served, school):
    """A page on which a teacher without any classes is signed in."""
    login = f"teacher-{next(numbers)}"
    with make_sessions(school)() as session:
        known = session.scalars(select(Person).where(Person.role == "teacher")).first()
        session.add(Person(login=login, name="Ada Thorne", role="teacher", password_hash=known.password_hash))
        session.commit()
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(served)
    page.get_by_label("Login").fill(login)
    page.get_by_label("Password").fill("tracery")
    page.get_by_role("button", name="Sign in", exact=True).click()
    return page


def new_class(page, name):
    page.get_by_label("New class").fill(name)
    page.get_by_role("button", name="Begin it").click()


def test_a_class_is_made_from_a_csv_and_its_students_come_in_with_their_cards(teacher, served, browser):
    expect(teacher.get_by_text("You have no class yet")).to_be_visible()
    new_class(teacher, "Third year")
    expect(teacher.get_by_text("Nobody is in this class yet")).to_be_visible()
    csv = "Surname;First name\nFarrow;Nell\nPask;Jory\nFarrow;Nell\n;\n"
    teacher.get_by_label("or a CSV file").set_input_files(
        {"name": "third.csv", "mimeType": "text/csv", "buffer": csv.encode("cp1252")}
    )
    teacher.get_by_role("button", name="Look at the list").click()
    expect(teacher.get_by_text("2 of 3 lines are new students")).to_be_visible()
    expect(teacher.get_by_text("Line 4 repeats line 2.")).to_be_visible()
    teacher.get_by_label("Name on line 3").fill("Jory Paskin")
    teacher.get_by_role("button", name="Add those that are ticked").click()
    expect(teacher.locator(".students summary")).to_have_count(2)
    row = teacher.locator(".students summary", has_text="Jory Paskin")
    of_class = teacher.locator(".heading .code").inner_text()
    personal = row.locator(".code").inner_text()
    cards = teacher.request.get(served + teacher.get_by_role("link", name="Name cards").get_attribute("href"))
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
    teacher.get_by_role("button", name="Look at the list").click()
    expect(teacher.get_by_role("alert")).to_contain_text("no name in it")
    teacher.get_by_label(re.compile("One name per line")).fill("Odo Vance\nPetra Lind")
    teacher.get_by_role("button", name="Look at the list").click()
    teacher.get_by_role("button", name="Add those that are ticked").click()
    expect(teacher.locator(".students summary")).to_have_count(2)
    teacher.locator(".students summary", has_text="Petra Lind").click()
    teacher.get_by_role("link", name="Remove …").click()
    expect(teacher.get_by_text("the account, since it is in no other class")).to_be_visible()
    teacher.get_by_role("button", name="Remove Petra Lind").click()
    expect(teacher.locator(".students summary")).to_have_count(1)


def test_two_classes_of_one_name_are_refused_in_place(teacher):
    for _ in range(2):
        new_class(teacher, "Night shift")
        if teacher.get_by_role("alert").count():
            break
        teacher.get_by_role("link", name="Classes").click()
    expect(teacher.get_by_role("alert")).to_contain_text("You have a class Night shift already")
    expect(teacher.get_by_label("New class")).to_have_value("Night shift")


def test_an_archived_class_comes_back(teacher):
    new_class(teacher, "Old year")
    teacher.get_by_text("The class itself").click()
    teacher.get_by_role("button", name="Archive").click()
    expect(teacher.get_by_text("You have no class but archived ones")).to_be_visible()
    teacher.get_by_text("Archived", exact=True).click()
    teacher.get_by_role("link", name="Old year").click()
    teacher.get_by_role("link", name="Students and codes").click()
    teacher.get_by_text("The class itself").click()
    teacher.get_by_role("button", name="Take out of the archive").click()
    expect(teacher.get_by_role("link", name="Old year")).to_be_visible()
