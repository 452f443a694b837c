"""What teachers and students do in the browser, in several tests."""

from __future__ import annotations

from playwright.sync_api import expect


class Student:
    """A student in a browser of its own, who comes in with the codes on the card."""

    def __init__(self, browser, served, class_code, personal_code, **options):
        self.context = browser.new_context(viewport={"width": 1280, "height": 800}, **options)
        self.page = self.context.new_page()
        self.page.goto(served)
        self.page.get_by_label("Class code").fill(class_code)
        self.page.get_by_label("Your code").fill(personal_code)
        self.page.get_by_role("button", name="Go to my tasks").click()

    def open(self, title):
        self.page.get_by_role("link", name=title).click()
        self.page.wait_for_selector(".board-page[data-ready]")

    def build(self, *makes):
        for make, typed in makes:
            self.page.locator(f".card-tool[data-make={make}]").click()
            for text in typed:
                self.page.keyboard.type(text)
                if len(text) > 1:
                    self.page.keyboard.press("Enter")
        expect(self.page.locator(".save-state")).to_have_text("All changes saved")

    def hand_in(self):
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="Hand in").click()
        self.page.get_by_role("button", name="Hand in now").click()
        return self.page.locator(".result-strip")


def codes_on(page):
    """The personal codes of a roster, by the names of the students."""
    rows = page.locator(".students summary").all()
    listed = {row.locator("span").first.inner_text(): row.locator(".code").inner_text() for row in rows}
    return {" ".join(reversed(name.split(", "))): code for name, code in listed.items()}


def new_class(page, name):
    page.get_by_label("New class").fill(name)
    page.get_by_role("button", name="Create class").click()


def begin_task(page, figure):
    page.get_by_role("link", name="Task library").click()
    page.get_by_label("New task, from").select_option(figure)
    page.get_by_role("button", name="New task").click()
    page.wait_for_selector(".making[data-ready]")


def making_step(page, name):
    """Show a step of making a task."""
    page.locator("[data-to-step]", has_text=name).click()


def build_model(page, *makes):
    making_step(page, "What to construct")
    page.get_by_role("link", name="Draw the sample solution").click()
    page.wait_for_selector(".board-page[data-ready]")
    for make, names in makes:
        page.locator(f".card-tool[data-make={make}]").click()
        page.keyboard.type(names)
    page.get_by_role("link", name="Done").click()
    page.wait_for_selector(".making[data-ready]")


def suggest(teacher, words=""):
    """Have conditions suggested, and use the first that says this; or that the answer is what is asked for."""
    teacher.get_by_role("button", name="Suggest conditions").click()
    rows = teacher.locator(".suggestions li")
    that_pin = rows.filter(has_text="says all by itself")
    (rows.filter(has_text=words).first if words else that_pin.last).get_by_role("button", name="Use").click()
