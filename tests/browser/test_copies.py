"""Copies of the figure to take away, and steps brought in from a file."""

import json
from xml.etree import ElementTree

import pytest
from playwright.sync_api import expect

from tests.zoo import JUMPING_GABLE


def test_copies_of_the_figure_can_be_taken_away(gable, tmp_path):
    taken = {}
    for kind in ("svg", "png", "json"):
        gable.page.locator(".copies summary").click()
        with gable.page.expect_download() as download:
            gable.page.locator(f"[data-copy={kind}]").click()
        taken[kind] = tmp_path / download.value.suggested_filename
        download.value.save_as(taken[kind])
    assert taken["svg"].name == "Splitting a gable (angle bisector).svg"
    drawing = ElementTree.parse(taken["svg"]).getroot()
    assert drawing.get("width").endswith("cm") and "var(--" not in taken["svg"].read_text()
    assert {group.get("id") for group in drawing if group.tag.endswith("g")} == {
        "under",
        "curves",
        "points",
        "labels",
        "over",
    }
    drawn = {group.get("id"): len(group) for group in drawing}
    assert drawn["curves"] >= 4 and drawn["points"] >= 4 and drawn["labels"] >= 4, drawn
    assert taken["png"].read_bytes().startswith(b"\x89PNG")
    assert json.loads(taken["json"].read_text())["steps"][0]["make"] == "circle"


def steps_file(tmp_path, steps):
    path = tmp_path / "steps.json"
    path.write_text(json.dumps({"steps": steps}))
    return path


def test_steps_that_were_copied_are_brought_in_again(desk, tmp_path):
    desk.enter("Splitting a gable")
    desk.page.locator(".copies summary").click()
    desk.page.get_by_label("Import a construction").set_input_files(steps_file(tmp_path, JUMPING_GABLE))
    expect(desk.page.locator(".hint")).to_have_text("6 steps imported.")
    expect(desk.page.locator(".step-list li[data-step]")).to_have_count(6)
    assert len(desk.stored()) == 6
    desk.take("segment")
    desk.click("A")
    desk.click("F")
    assert len(desk.stored()) == 7, "the board goes on where the file ended"


@pytest.mark.parametrize(
    ("steps", "said"),
    [
        ([{"id": "c", "make": "circle", "from": ["A", "Z"]}], "steps.json: steps[0], c: Z is not made before"),
        ([{"id": "c", "make": "circle", "from": ["A", "B"]}, {"id": "A", "make": "midpoint"}], "steps[1]"),
        ([{"id": "P", "make": "free_point", "at": ["x", 1]}], "steps.json: [0].at[0]"),
    ],
)
def test_what_is_wrong_with_a_file_is_said_in_its_place_and_nothing_is_stored(desk, tmp_path, steps, said):
    desk.enter("Splitting a gable")
    desk.page.locator(".copies summary").click()
    desk.page.get_by_label("Import a construction").set_input_files(steps_file(tmp_path, steps))
    expect(desk.page.locator(".hint.trouble")).to_contain_text(said)
    assert desk.stored() == []
