"""What went wrong, in words that works of the same fate share."""

import pytest

from widepin.documents.wording.grouping import what_went_wrong


@pytest.mark.parametrize(
    ("verdict", "words"),
    [
        ({"outcome": "sound"}, "Correct and holds when dragged"),
        (
            {"outcome": "fragile", "breaks": {"points": [{"id": "A"}, {"id": "B"}]}},
            "Undefined when A and B are dragged",
        ),
        ({"outcome": "fragile", "breaks": None}, "Undefined when it is dragged"),
        ({"outcome": "eyeballed", "report": {"by_eye": ["M"]}}, "M placed by eye"),
        ({"outcome": "eyeballed", "report": None}, "Correct only to the eye"),
        ({"outcome": "switching"}, "The other intersection is taken when dragged"),
        ({"outcome": "approximate"}, "Close everywhere, exact nowhere"),
        ({"outcome": "wrong"}, "Not correct as drawn"),
        ({"outcome": "refused"}, "Not checked: a tool that is not allowed"),
    ],
)
def test_every_outcome_has_its_words(verdict, words):
    assert what_went_wrong(verdict, 3, 4) == words


def test_more_moves_than_asked_are_a_group_of_their_own():
    assert what_went_wrong({"outcome": "sound"}, 5, 4) == "Correct, over the move limit"
    assert what_went_wrong({"outcome": "sound"}, 5, None) == "Correct and holds when dragged"
