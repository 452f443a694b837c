"""Works on paper."""

from widepin.web.handouts import under_labels
from widepin.web.paper import hidden_in

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
