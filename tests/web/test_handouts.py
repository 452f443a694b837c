"""Works on paper."""

from types import SimpleNamespace
from typing import Any

import pytest

from widepin.judge.verdict import Outcome
from widepin.web.printed import handouts
from widepin.web.printed.handouts import handout, overview_on_paper, under_labels
from widepin.web.printed.paper import hidden_in

DOCUMENT: dict = {
    "given": [{"id": "A", "make": "free_point", "at": [0, 0]}, {"id": "B", "make": "free_point", "at": [4, 0]}],
    "start": [],
    "steps": [
        {"id": "c", "make": "circle", "from": ["A", "B"], "label": "rim", "hidden": True},
        {"id": "d", "make": "circle", "from": ["B", "A"], "label": "A"},
        {"id": "C", "make": "intersection", "from": ["c", "d"], "label": "Top of it"},
    ],
    "uses": [{"class_tool": "Ring", "ids": ["c"], "gives": ["c"], "moves": 1}],
}


def test_objects_have_the_names_that_students_gave_them_where_these_are_names_and_free():
    document, names = under_labels(DOCUMENT)
    assert names == {"c": "rim"}
    assert [step["id"] for step in document["steps"]] == ["rim", "d", "C"]
    assert document["steps"][2]["from"] == ["rim", "d"] and document["uses"][0]["ids"] == ["rim"]
    assert hidden_in(document) == {"rim"}
    assert DOCUMENT["steps"][0]["id"] == "c"


@pytest.fixture
def printed(monkeypatch):
    """What is given to be printed: name, kind and content."""
    found = []

    def printed(*given):
        found.append(given)
        return "a page that waits"

    monkeypatch.setattr(handouts, "printed", printed)
    return found


@pytest.mark.parametrize(("address", "arcs"), [("/", False), ("/?arcs", True), ("/?arcs=yes", True)])
def test_a_handout_takes_what_it_draws_and_nothing_else(app, printed, address, arcs):
    with app.test_request_context(address):
        assert (
            handout({"title": "t"}, DOCUMENT | {"secret": 1}, {"C"}, "Apex", "Bram", {"C": "C"}, shows=[]) is not None
        )
    ((title, kind, content),) = printed
    assert (title, kind) == ("Apex", "construction") and content["arcs"] is arcs
    assert set(content["figure"]) == {"given", "start", "steps", "uses"} and content["answer"] == ["C"]
    assert content["proved"] == {"C": "C"} and content["elements"] is True and content["shows"] == []


def test_what_nobody_judged_yet_is_told_from_what_is_proved_as_it_stands(app, printed):
    with app.test_request_context("/"):
        handout({}, {}, (), "t", "w")
    assert printed[0][2]["shows"] is None and printed[0][2]["proved"] == {}
    assert printed[0][2]["figure"] == {"given": [], "start": [], "steps": [], "uses": []}


def place(name, figure, best=None) -> Any:
    return SimpleNamespace(student=SimpleNamespace(name=name), figure=figure, standing=SimpleNamespace(best=best))


def test_the_overview_heads_each_group_once_and_leaves_out_who_has_drawn_nothing(printed):
    figure = {"given": [], "start": [], "steps": [{"id": "c"}], "answer": ["c"], "notes": ["not for paper"]}
    best = SimpleNamespace(outcome=Outcome.SOUND, moves=3)
    groups: Any = [
        SimpleNamespace(heading="Correct", places=[place("Ada", figure, best), place("Bo", None), place("Cy", figure)]),
        SimpleNamespace(heading="Not begun", places=[place("Di", None)]),
        SimpleNamespace(heading="Open", places=[place("Ed", figure)]),
    ]
    sheet = SimpleNamespace(document={"title": "Kite", "given": [1]})
    assignment: Any = SimpleNamespace(sheet=sheet, school_class=SimpleNamespace(name="First year"))
    overview_on_paper(assignment, 4, groups)
    ((title, kind, content),) = printed
    assert (title, kind, content["budget"]) == ("First year, Kite", "overview", 4)
    assert [(card["name"], card["heading"]) for card in content["cards"]] == [
        ("Ada", "Correct: 2"),
        ("Cy", None),
        ("Ed", "Open: 1"),
    ]
    ada, cy, _ = content["cards"]
    assert (ada["outcome"], ada["moves"], cy["outcome"], cy["moves"]) == ("sound", 3, None, None)
    assert set(ada["figure"]) == {"given", "start", "steps", "answer"}
