"""What a teacher does in the browser, in several tests."""

from __future__ import annotations


def new_class(page, name):
    page.get_by_label("New class").fill(name)
    page.get_by_role("button", name="Create class").click()


def begin_task(page, figure):
    page.get_by_role("link", name="Task library").click()
    page.get_by_label("New task, from").select_option(figure)
    page.get_by_role("button", name="New task").click()
    page.wait_for_selector(".making[data-ready]")


def build_model(page, *makes):
    page.get_by_role("link", name="Draw the sample solution").click()
    page.wait_for_selector(".board-page[data-ready]")
    for make, names in makes:
        page.locator(f".card-tool[data-make={make}]").click()
        page.keyboard.type(names)
    page.get_by_role("link", name="Done").click()
    page.wait_for_selector(".making[data-ready]")
