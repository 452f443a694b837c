"""Demonstrations: made from every task of the library, and read with errors that say where."""

import pytest

from widepin.documents.formats.demonstration import MAX_FRAMES, demonstration_of, read_demonstration, with_reasons
from widepin.documents.formats.task import read_task
from widepin.documents.reading import Unreadable
from widepin.school.tasks.library import LIBRARY


@pytest.fixture
def bisector():
    return demonstration_of(read_task(LIBRARY["perpendicular-bisector"].document()))


@pytest.mark.parametrize("key", LIBRARY)
def test_every_task_of_the_library_has_one(key):
    task = read_task(LIBRARY[key].document())
    made = demonstration_of(task)
    assert [frame["shown"] for frame in made["frames"]] == [*range(len(task.model) + 1), len(task.model)]
    assert all(frame["words"] for frame in made["frames"])
    assert set(made["answer"]) <= {step["id"] for step in made["steps"]}
    assert read_demonstration(made)["frames"] == read_demonstration(read_demonstration(made))["frames"]


def test_what_becomes_true_is_told_with_the_step_by_which_it_does(bisector):
    first, second = (step["id"] for step in bisector["steps"][:2])
    lines = [
        {"words": f"{one} is drawn", "because_of": "a step", "objects": [one], "steps": [one], "because": []}
        for one in (first, second)
    ]
    told = [frame["words"] for frame in with_reasons(bisector, lines)["frames"]]
    assert "is drawn" not in told[0]
    assert f"{first} is drawn: a step" in told[1] and f"{second} is drawn" not in told[1]
    assert f"{second} is drawn: a step" in told[2] and f"{first} is drawn" not in told[2]


@pytest.mark.parametrize(
    ("changed", "place"),
    [
        ({"frames": []}, "frames"),
        ({"frames": [{"shown": 99}]}, r"frames\[0\].shown"),
        ({"frames": [{"shown": -1}]}, r"frames\[0\].shown"),
        ({"frames": [{"shown": 0, "words": "x" * 801}]}, r"frames\[0\].words"),
        ({"frames": [{"shown": 0, "points": {"A": [1, "b"]}}]}, r"frames\[0\].points"),
        ({"frames": [{"shown": 0, "dress": {"A": {"hue": "gold"}}}]}, r"frames\[0\].dress"),
        ({"frames": [{"shown": 0, "view": [[0, 0]]}]}, r"frames\[0\].view"),
        ({"frames": [{"shown": 0}] * (MAX_FRAMES + 1)}, "frames"),
        ({"format": "another/1"}, "format"),
        ({"sound": True}, "sound"),
    ],
)
def test_what_cannot_be_read_is_said_with_its_place(bisector, changed, place):
    with pytest.raises(Unreadable, match=place):
        read_demonstration({**bisector, **changed})
