"""Instruments of a class: given by its teacher, lent for a task, used on a board."""

import pytest
from sqlalchemy import select

from widepin.documents.formats.construction import write_step
from widepin.judge.verdict import Outcome
from widepin.school.models import ClassTool
from widepin.school.people import removing
from widepin.school.refused import Refused
from widepin.school.tasks import assigning, class_tools, settings, sheets
from widepin.school.tasks.library import LIBRARY
from widepin.school.works import again, autosave, handins
from widepin.school.works.history import OperationRefused


@pytest.fixture
def centre_line(session, first_year):
    proven = sheets.new_sheet(session, first_year.teacher, LIBRARY["perpendicular-bisector"].document())
    return class_tools.give(session, first_year, "Mid rule", "one", class_tools.tool_of_sheet(proven))


@pytest.fixture
def work(session, first_year, centre_line):
    sheet = sheets.new_sheet(session, first_year.teacher, LIBRARY["circumcircle"].document())
    made = assigning.assign(session, sheet, first_year, settings.proposed(class_tools=(centre_line,)))
    return autosave.work_of(session, made, first_year.students[0])


def use(class_tool: ClassTool, sources: str, prefix: str) -> dict:
    read = class_tools.read_class_tool(class_tool.document)
    ids = [f"{prefix}{number}" for number in range(len(read.steps))]
    return {
        "op": "use",
        "class_tool": class_tool.name,
        "from": list(sources),
        "steps": [write_step(step) for step in read.made(list(sources), ids)],
        "gives": list(read.given_by(ids)),
        "moves": class_tool.moves,
    }


def round_a_gable(class_tool: ClassTool) -> list[dict]:
    """The circle through all corners, with the class tool twice."""
    uses = [use(class_tool, "AB", "u"), use(class_tool, "BC", "v")]
    meet = {"id": "M", "make": "intersection", "from": [one["gives"][0] for one in uses]}
    return [*uses, *({"op": "add", "step": step} for step in (meet, {"id": "k", "make": "circle", "from": ["M", "A"]}))]


def put(session, work, *operations):
    for operation in operations:
        after = len(autosave.log_after(session, work, 0))
        autosave.store(session, work, f"key-{after:06}", after, operation)
    session.refresh(work)


def test_a_board_is_built_with_a_class_tool_and_handed_in(session, work, centre_line):
    put(session, work, *round_a_gable(centre_line))
    attempt = handins.hand_in(session, work)
    assert (attempt.outcome, attempt.moves) == (Outcome.SOUND, 3)
    hidden = [step["id"] for step in attempt.document["steps"] if step.get("hidden")]
    assert hidden == [f"{prefix}{number}" for prefix in "uv" for number in range(4)]
    attempt.moves = 0
    assert again.judge_again(session, work.assignment, attempt.id - 1, 0.0).done
    assert attempt.moves == 3


def test_what_a_class_tool_made_at_once_goes_at_once(session, work, centre_line):
    on_helper = {"op": "add", "step": {"id": "z", "make": "circle", "from": ["u2", "A"]}}
    put(session, work, use(centre_line, "AB", "u"), on_helper, use(centre_line, "BC", "v"))
    put(session, work, {"op": "remove", "id": "u4"})
    state = autosave.state_of(work)
    assert {step.id for step in state.steps} == {f"v{number}" for number in range(5)} and len(state.uses) == 1
    put(session, work, {"op": "undo"})
    assert len(autosave.state_of(work).uses) == 2


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"class_tool": "Square"}, "not among the class tools"),
        ({"moves": 0}, "not what Mid rule makes"),
        ({"gives": ["u0"]}, "not what Mid rule makes"),
        ({"from": ["A", "A"]}, "not what Mid rule makes"),
        ({"from": ["A", "C"]}, "not what Mid rule makes"),
    ],
)
def test_a_use_must_be_what_its_class_tool_makes(session, work, centre_line, change, said):
    with pytest.raises(OperationRefused, match=said):
        put(session, work, use(centre_line, "AB", "u") | change)


def test_a_use_asks_for_objects_of_the_right_kind_that_are_there(session, work, centre_line):
    for sources, named in (("Ac", "c"), ("AQ", "Q")):
        with pytest.raises(OperationRefused, match=f"{named} is no point"):
            put(session, work, use(centre_line, sources, "u"))


def test_a_step_within_a_class_tool_is_not_made_another_way(session, work, centre_line):
    put(session, work, use(centre_line, "AB", "u"))
    other = {"op": "remake", "step": {"id": "u2", "make": "intersection", "from": ["u0", "u1"], "pick": 2}}
    with pytest.raises(OperationRefused, match="made by Mid rule"):
        put(session, work, other)


def test_without_being_lent_a_class_tool_cannot_be_used(session, work, centre_line):
    settings.change(work.assignment, settings.proposed())
    with pytest.raises(OperationRefused, match="not among the class tools"):
        put(session, work, use(centre_line, "AB", "u"))


def test_taking_a_class_tool_away_leaves_what_was_built_with_it(session, work, centre_line):
    put(session, work, use(centre_line, "AB", "u"))
    session.delete(centre_line)
    session.flush()
    session.refresh(work.assignment)
    assert work.assignment.class_tools == [] and len(autosave.state_of(work).steps) == 5


def test_the_full_price_is_that_of_the_construction(session, first_year, centre_line):
    dear = class_tools.give(session, first_year, "Dear rule", "full", centre_line.document)
    assert (centre_line.moves, dear.moves) == (1, 3)


@pytest.mark.parametrize(
    ("name", "price", "said"), [("Mid  rule", "one", "already"), ("", "one", "a name"), ("Other", "two", "counts")]
)
def test_a_class_tool_that_cannot_be_given_is_said(session, first_year, centre_line, name, price, said):
    with pytest.raises(Refused, match=said):
        class_tools.give(session, first_year, name, price, centre_line.document)


def test_only_what_is_proven_becomes_a_class_tool(session, first_year, work):
    with pytest.raises(Refused, match="not finished"):
        class_tools.tool_of_sheet(sheets.new_sheet(session, first_year.teacher, dict(sheets.BLANK)))
    put(session, work, {"op": "add", "step": {"id": "k", "make": "circle", "from": ["A", "B"]}})
    wrong = handins.hand_in(session, work)
    with pytest.raises(Refused, match="holds everywhere"):
        class_tools.tool_of_attempt(wrong)


def test_a_students_sound_work_becomes_a_class_tool(session, work, centre_line):
    put(session, work, *round_a_gable(centre_line))
    document = class_tools.tool_of_attempt(handins.hand_in(session, work))
    found = class_tools.read_class_tool(document)
    assert [blank.name for blank in found.takes] == ["A", "B", "C"] and found.gives == ("k",) and found.moves == 7


def test_a_copied_class_has_its_own_class_tools(session, first_year, work, centre_line):
    made = assigning.copy_class(session, first_year, "First year again", with_students=False)
    session.refresh(made)
    (own,) = made.class_tools
    assert own.id != centre_line.id and own.assignments[0].class_id == made.id
    number, removal = own.id, removing.remove_class(session, first_year.teacher, made)
    removing.erase_soon(session, first_year.teacher, removal)
    removing.erase_outdated(session)
    assert session.scalars(select(ClassTool.id).where(ClassTool.id == number)).all() == []
    assert class_tools.allowed_tools(work.assignment).keys() == {"Mid rule"}
