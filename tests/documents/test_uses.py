"""Uses of class tools in the document of a work."""

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.uses import read_uses, write_uses
from widepin.documents.reading import Unreadable
from widepin.school.tasks.library.notation import steps as from_lines

STEPS = read_steps(from_lines("c circle A B\nd circle B A\nD intersection c d\nE intersection c d pick=2\nm line D E"))


def use(ids, gives, moves=1):
    return {"class_tool": "Centre line", "ids": ids, "gives": gives, "moves": moves}


BISECTOR = use(["c", "d", "D", "E", "m"], ["m"])


def test_uses_are_read_and_written_as_they_are():
    assert write_uses(read_uses([BISECTOR], STEPS)) == [BISECTOR]
    assert read_uses([BISECTOR], STEPS)[0].helpers == ("c", "d", "D", "E")


def test_a_use_within_another_is_a_part_of_it_and_of_two_equal_ones_the_first_counts():
    assert write_uses(read_uses([use(["c"], ["c"]), BISECTOR], STEPS)) == [BISECTOR]
    assert write_uses(read_uses([BISECTOR, BISECTOR | {"moves": 2}], STEPS)) == [BISECTOR]


@pytest.mark.parametrize(
    ("uses", "place", "said"),
    [
        ([use(["c", "z"], ["c"])], "[0].ids[1]", "z is no step of the work"),
        ([use(["c", "d"], ["c", "m"])], "[0].gives[1]", "m is not among the ids"),
        ([use(["c", "d"], ["d"]), use(["d", "D"], ["D"])], "[1].ids", "d is in another use too"),
        ([use("c", ["c"])], "[0].ids", "list"),
    ],
)
def test_what_does_not_fit_is_said_with_its_place(uses, place, said):
    with pytest.raises(Unreadable, match=said) as caught:
        read_uses(uses, STEPS)
    assert caught.value.place == place
