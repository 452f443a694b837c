"""What went wrong, in words that works of the same fate share."""

import pytest

from widepin.documents.grouping import what_went_wrong


@pytest.mark.parametrize(
    ("verdict", "words"),
    [
        ({"outcome": "sound"}, "Right everywhere"),
        ({"outcome": "fragile", "breaks": {"points": [{"id": "A"}, {"id": "B"}]}}, "Gone when A and B are dragged"),
        ({"outcome": "fragile", "breaks": None}, "Gone when it is dragged"),
        ({"outcome": "eyeballed", "report": {"by_eye": ["M"]}}, "M placed by eye"),
        ({"outcome": "eyeballed", "report": None}, "Looks right only as drawn"),
        ({"outcome": "switching"}, "The other crossing is taken when dragged"),
        ({"outcome": "approximate"}, "Close everywhere, exact nowhere"),
        ({"outcome": "wrong"}, "Not right as drawn"),
        ({"outcome": "refused"}, "Not judged: against the rules"),
    ],
)
def test_every_outcome_has_its_words(verdict, words):
    assert what_went_wrong(verdict, 3, 4) == words


def test_more_moves_than_asked_are_a_group_of_their_own():
    assert what_went_wrong({"outcome": "sound"}, 5, 4) == "Right, with more moves than asked"
    assert what_went_wrong({"outcome": "sound"}, 5, None) == "Right everywhere"
