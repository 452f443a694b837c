"""A student's operations, folded into the steps of a work."""

from contextlib import nullcontext
from dataclasses import replace

import pytest

from tests.judge.test_judging import TASKS_BY_NAME
from widepin.documents.formats.construction import read_step
from widepin.documents.formats.operations import read_operation
from widepin.documents.reading import Unreadable
from widepin.school.works.history import MAX_POSITIONS, History, OperationRefused, replay

SILL = TASKS_BY_NAME["Centre line of a sill"]
HUB = TASKS_BY_NAME["Hub of a broken wheel"]
CIRCLE = {"op": "add", "step": {"id": "c", "make": "circle", "from": ["A", "B"]}}
OTHER = {"op": "add", "step": {"id": "d", "make": "circle", "from": ["B", "A"]}}
BACK, AGAIN = {"op": "undo"}, {"op": "redo"}


def ids(*log, task=SILL):
    return [step.id for step in replay(task, log).steps]


def test_taking_back_and_bringing_back():
    assert ids(CIRCLE, OTHER, BACK) == ["c"]
    assert ids(CIRCLE, OTHER, BACK, BACK, AGAIN) == ["c"]
    assert ids(CIRCLE, BACK, AGAIN, AGAIN) == ["c"]


def test_something_new_ends_what_could_be_brought_back():
    assert ids(CIRCLE, BACK, OTHER, AGAIN) == ["d"]


def joined(operation):
    return {**operation, "joined": True}


def test_what_one_action_did_is_undone_and_redone_together():
    two = [CIRCLE, joined(OTHER)]
    assert ids(*two, BACK) == []
    assert ids(*two, BACK, AGAIN) == ["c", "d"]
    third = {"op": "add", "step": {"id": "e", "make": "line", "from": ["A", "B"]}}
    assert ids(*two, third, BACK, AGAIN, BACK) == ["c", "d"]
    assert ids(third, *two, BACK, BACK, AGAIN) == ["e"]
    assert ids(joined(CIRCLE), BACK) == []  # joined to nothing


def test_no_two_objects_are_called_the_same():
    renamed = {"op": "dress", "id": "c", "dress": {"label": "m"}}
    state = replay(SILL, [CIRCLE, OTHER, renamed])
    for clash in [
        {"op": "dress", "id": "d", "dress": {"label": "m"}},
        {"op": "dress", "id": "d", "dress": {"label": "A"}},
        {"op": "dress", "id": ["c", "d"], "dress": {"label": "n"}},
        {"op": "add", "step": {"id": "m", "make": "line", "from": ["A", "B"]}},
    ]:
        with pytest.raises(OperationRefused, match="Another object"):
            state.check(read_operation(clash))
    state.check(read_operation({"op": "dress", "id": "d", "dress": {"label": "c"}}))  # which c gave away


@pytest.mark.parametrize(
    ("of", "fits"),
    [
        ([["A", "B"], ["s"]], True),
        ([["A", "C", "B"], ["C", "A", "B"]], True),
        ([["A", "B"], ["A", "C", "B"]], False),
        ([["c"], ["s"]], False),
        ([["A", "Z"], ["s"]], False),
    ],
)
def test_two_lengths_or_two_angles_are_marked_as_equal(of, fits):
    segment = {"op": "add", "step": {"id": "s", "make": "segment", "from": ["A", "B"]}}
    point = {"op": "add", "step": {"id": "C", "make": "intersection", "from": ["c", "d"], "pick": 1}}
    state = replay(SILL, [CIRCLE, OTHER, segment, point])
    operation = read_operation({"op": "mark equal", "of": of})
    with nullcontext() if fits else pytest.raises(OperationRefused, match="can be marked"):
        state.check(operation)


def test_positions_are_kept_up_to_a_bound_and_removed():
    state = History(SILL)
    for number in range(MAX_POSITIONS):
        state.apply(read_operation({"op": "position", "position": f"p{number}", "points": {"A": [number, 0]}}))
    one_more = read_operation({"op": "position", "position": "q", "points": {"A": [0, 1]}})
    with pytest.raises(OperationRefused, match="kept already"):
        state.check(one_more)
    state.apply(read_operation({"op": "position", "position": "p3", "points": {}}))
    state.check(one_more)
    with pytest.raises(OperationRefused, match="cannot go farther"):
        state.check(read_operation({"op": "position", "position": "q", "points": {"A": [1e6, 1]}}))


def test_a_locus_is_of_a_point_that_hangs_on_one_that_slides():
    slider = {"op": "add", "step": {"id": "P", "make": "point_on", "from": ["c"], "at": [1, 1]}}
    state = replay(SILL, [CIRCLE, slider])
    state.check(read_operation({"op": "locus", "point": "B", "driver": "P"}))
    for point, driver in [("B", "A"), ("c", "P"), ("Z", "P"), ("B", "Z")]:
        with pytest.raises(OperationRefused, match="is no point"):
            state.check(read_operation({"op": "locus", "point": point, "driver": driver}))


def test_a_dragged_point_stays_where_it_was_last_put():
    state = replay(SILL, [{"op": "move", "points": {"A": [1, 1]}}, {"op": "move", "points": {"A": [2, 1]}}, CIRCLE])
    assert state.given[0].at == (2, 1) and state.as_it_stands.given[0].at == (2, 1)
    state.apply(read_operation(BACK))
    state.apply(read_operation(BACK))
    assert state.given[0].at == (1, 1)


def test_dressing_is_kept_with_the_steps_and_changes_nothing_else():
    state = replay(
        SILL,
        [
            CIRCLE,
            {"op": "dress", "id": "c", "dress": {"hidden": True}},
            {"op": "dress", "id": "c", "dress": {"label": "k1"}},
        ],
    )
    assert state.documents(state.steps) == [
        {"id": "c", "make": "circle", "from": ["A", "B"], "hidden": True, "label": "k1"}
    ]
    assert state.steps == replay(SILL, [CIRCLE]).steps


@pytest.mark.parametrize(
    ("operation", "said"),
    [
        ({"op": "add", "step": {"id": "A", "make": "free_point", "at": [1, 1]}}, "already"),
        ({"op": "add", "step": {"id": "x", "make": "line", "from": ["A", "Q"]}}, "not made before"),
        ({"op": "add", "step": {"id": "x", "make": "midpoint", "from": ["A", "B"]}}, "not among the tools"),
        ({"op": "move", "points": {"s": [1, 1]}}, "not a point that can be dragged"),
        ({"op": "move", "points": {"A": [1, 1e5]}}, "cannot go farther"),
        ({"op": "dress", "id": "q", "dress": {"hidden": True}}, "not on the board"),
        (BACK, "nothing to undo"),
        (AGAIN, "nothing to redo"),
    ],
)
def test_what_does_not_fit_the_board_is_refused(operation, said):
    with pytest.raises(OperationRefused, match=said):
        History(SILL).check(read_operation(operation))


def test_an_allowance_is_kept():
    upright = [
        {"op": "add", "step": {"id": f"u{n}", "make": "perpendicular_bisector", "from": ["A", "B"]}} for n in range(3)
    ]
    state = replay(HUB, upright[:2])
    with pytest.raises(OperationRefused, match="may be used twice"):
        state.check(read_operation(upright[2]))


@pytest.mark.parametrize(
    "value",
    [
        None,
        3,
        {},
        {"op": "erase"},
        {"op": "add"},
        {"op": "add", "step": {"id": 5, "make": "line"}},
        {"op": "move", "points": {}},
        {"op": "move", "points": {"A": [1]}},
        {"op": "move", "points": {"A": ["1", 2]}},
        {"op": "undo", "more": 1},
        {"op": "dress", "id": "c", "dress": {"colour": "red"}},
    ],
)
def test_what_is_no_operation_is_said(value):
    with pytest.raises(Unreadable):
        read_operation(value)


CROSS = {"op": "add", "step": {"id": "D", "make": "intersection", "from": ["c", "d"], "pick": 1}}
SECOND_CROSS = {"op": "add", "step": {"id": "E", "make": "intersection", "from": ["c", "d"], "pick": 2}}
LINE = {"op": "add", "step": {"id": "m", "make": "line", "from": ["D", "A"]}}


def remade(**step):
    return {"op": "remake", "step": {"id": "D", **step}}


def test_a_step_made_another_way_keeps_its_place_and_can_be_taken_back():
    other = remade(make="intersection", **{"from": ["c", "d"], "nearest_to": "B"})
    state = replay(SILL, [CIRCLE, OTHER, CROSS, LINE, other])
    assert [step.id for step in state.steps] == ["c", "d", "D", "m"] and state.steps[2].reference == "B"
    state.apply(read_operation(BACK))
    assert state.steps[2].choice == "pick"


def test_a_point_put_by_hand_that_becomes_a_intersection_has_no_place_of_its_own():
    point = {"op": "add", "step": {"id": "D", "make": "free_point", "at": [4, 4]}}
    moved = {"op": "move", "points": {"D": [5, 5]}}
    state = replay(SILL, [CIRCLE, OTHER, point, moved, remade(make="intersection", **{"from": ["c", "d"]})])
    assert state.steps[2].at is None


def test_a_step_made_from_later_ones_has_these_moved_up():
    point = {"op": "add", "step": {"id": "D", "make": "free_point", "at": [4, 4]}}
    state = replay(SILL, [point, LINE, CIRCLE, OTHER])
    other = remade(make="intersection", **{"from": ["c", "d"]})
    state.check(read_operation(other))
    state.apply(read_operation(other))
    assert [step.id for step in state.steps] == ["c", "d", "D", "m"]
    state.apply(read_operation(BACK))
    assert [step.id for step in state.steps] == ["D", "m", "c", "d"]


@pytest.mark.parametrize(
    ("operation", "said"),
    [
        (remade(make="circle", **{"from": ["A", "B"]}), "D is a point and must stay one"),
        (remade(make="intersection", **{"from": ["c", "m"]}), "D cannot be made from what is made from it"),
        (remade(make="perpendicular", **{"from": ["s", "A"]}), "D is a point and must stay one"),
        ({"op": "remake", "step": {"id": "Z", "make": "free_point", "at": [1, 1]}}, "Z is no step of yours"),
        ({"op": "remake", "step": {"id": "A", "make": "free_point", "at": [1, 1]}}, "A is no step of yours"),
    ],
)
def test_a_step_is_only_made_another_way_if_it_fits(operation, said):
    state = replay(SILL, [CIRCLE, OTHER, CROSS, LINE])
    with pytest.raises(OperationRefused, match=said):
        state.check(read_operation(operation))


def test_removing_a_step_takes_what_is_made_from_it_along():
    removed = {"op": "remove", "id": "d"}
    state = replay(SILL, [CIRCLE, OTHER, CROSS, LINE, removed])
    assert [step.id for step in state.steps] == ["c"]
    state.apply(read_operation(BACK))
    assert [step.id for step in state.steps] == ["c", "d", "D", "m"]
    assert ids(CIRCLE, OTHER, CROSS, removed, OTHER) == ["c", "d"], "the name is free again"


def test_a_intersection_refers_only_to_a_point_of_both_curves():
    state = replay(SILL, [CIRCLE, OTHER, CROSS])
    with pytest.raises(OperationRefused, match="does not always lie on"):
        state.check(read_operation(remade(make="intersection", **{"from": ["c", "d"], "other_than": "A"})))


@pytest.mark.parametrize("id_", ["A", "s", "nothing"])
def test_only_own_steps_are_removed(id_):
    with pytest.raises(OperationRefused, match="no step of yours"):
        replay(SILL, [CIRCLE]).check(read_operation({"op": "remove", "id": id_}))


@pytest.mark.parametrize("of", [["A", "B"], ["A", "B", "D"], ["A", "B", "D", "E"], ["D", "s"], ["c"]])
def test_points_and_circles_are_measured_without_a_move(of):
    state = replay(SILL, [CIRCLE, OTHER, CROSS, SECOND_CROSS])
    state.check(read_operation({"op": "measure", "of": of}))
    state.apply(read_operation({"op": "measure", "of": of}))
    assert [step.id for step in state.steps] == ["c", "d", "D", "E"]


@pytest.mark.parametrize(
    "of", [["A"], ["c", "d"], ["A", "Z"], ["s"], ["s", "A"], ["A", "c"], ["A", "B", "s"], ["A", "s", "B"]]
)
def test_what_cannot_be_measured_is_said(of):
    with pytest.raises(OperationRefused, match="can be measured"):
        replay(SILL, [CIRCLE, OTHER]).check(read_operation({"op": "measure", "of": of}))


def test_what_does_not_fit_a_task_that_has_changed_is_left_out():
    on_sill = {"op": "add", "step": {"id": "X", "make": "intersection", "from": ["c", "s"], "pick": 2}}
    through = {"op": "add", "step": {"id": "l", "make": "line", "from": ["A", "X"]}}
    log = [CIRCLE, on_sill, through, OTHER]
    assert replay(SILL, log).left_out == ()
    changed = replace(SILL, given=tuple(step for step in SILL.given if step.id != "s"))
    state = replay(changed, log)
    assert [step.id for step in state.steps] == ["c", "d"] and state.left_out == ("X", "l")
    state.check(read_operation({"op": "add", "step": {"id": "X", "make": "free_point", "at": [1, 1]}}))
    another = replace(SILL, given=(*SILL.given, read_step({"id": "c", "make": "free_point", "at": [3, 3]})))
    assert replay(another, log).left_out == ("c", "X", "l")  # a given object has this name now
