"""The demonstration of a task: made from its sample solution, changed by its teacher, shown when the teacher says."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.documents.reading import Unreadable
from widepin.judge.verdict import Outcome
from widepin.school.lessons import demonstrations
from widepin.school.models import Assignment, HandIn, SchoolClass, now
from widepin.school.people import removing
from widepin.school.refused import Refused
from widepin.school.states import Showing
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import BLANK, change, new_sheet


@pytest.fixture
def sheet(session):
    teacher = session.scalars(select(SchoolClass)).first().teacher
    return new_sheet(session, teacher, LIBRARY["incircle"].document())


def test_it_is_kept_as_it_was_changed_and_made_anew_on_demand(session, sheet):
    made = demonstrations.demonstration_for(sheet)
    frames = [
        {"shown": 2, "words": "Both bisectors.", "own": True},
        {"shown": 2, "words": "Drag A.", "own": True, "points": {"A": [1.0, 1.0]}},
    ]
    demonstrations.keep(sheet, frames)
    session.flush()
    session.expire(sheet)
    kept = demonstrations.demonstration_for(sheet)
    assert [frame["words"] for frame in kept["frames"]] == ["Both bisectors.", "Drag A."]
    assert kept["frames"][1]["points"] == {"A": [1.0, 1.0]}
    removal = removing.remove_demonstration(session, sheet.owner, sheet)
    assert demonstrations.demonstration_for(sheet) == made
    removing.restore(session, sheet.owner, removal)
    assert demonstrations.demonstration_for(sheet) == kept


def test_own_words_stay_when_the_sample_solution_changes(session, sheet):
    frames = demonstrations.demonstration_for(sheet)["frames"]
    looks = {"points": {"A": [1.0, 1.0]}, "dress": {"u": {"hue": "blue"}, "k": {"hidden": True}}}
    frames[1] |= {"words": "First half the angle.", "own": True, **looks}
    frames[-2] |= {"words": "The circle at last.", "own": True}
    demonstrations.keep(sheet, frames, title="How it touches")
    model = LIBRARY["incircle"].document()["model"]
    shorter = change(session, sheet, {"model": model[:-1]}, None, None)
    kept = demonstrations.demonstration_for(shorter)
    assert kept["title"] == "How it touches"
    assert kept["frames"][1]["words"] == "First half the angle." and kept["frames"][1]["points"] == {"A": [1.0, 1.0]}
    assert kept["frames"][1]["dress"] == {"u": {"hue": "blue"}}  # k is there no more
    assert "The circle at last." in [frame["words"] for frame in kept["frames"]]
    assert kept["frames"][-1]["shown"] == len(model) - 1
    whole = demonstrations.demonstration_for(change(session, shorter, {"model": model}, None, None))
    assert whole["frames"] == demonstrations.demonstration_for(sheet)["frames"]  # nothing was lost on the way


def test_a_new_step_comes_with_a_frame_of_its_own(session, sheet):
    frames = demonstrations.demonstration_for(sheet)["frames"]
    frames[2] |= {"words": "And the other.", "own": True}
    demonstrations.keep(sheet, frames)
    given = sheet.document["given"]
    model = sheet.document["model"]
    more = [*model[:2], {"id": "Z", "make": "midpoint", "from": ["A", "B"]}, *model[2:]]
    kept = demonstrations.demonstration_for(change(session, sheet, {"model": more}, None, None))
    assert [frame["shown"] for frame in kept["frames"]] == [*range(len(more) + 1), len(more)]
    assert kept["frames"][2]["words"] == "And the other." and kept["frames"][3]["words"].startswith("Z: midpoint")
    moved = [{**step, "at": [step["at"][0] + 1, step["at"][1]]} if "at" in step else step for step in given]
    again = demonstrations.demonstration_for(change(session, sheet, {"given": moved}, None, None))
    assert again["frames"] == kept["frames"] and again["given"] != kept["given"]


def test_words_that_are_nobodys_follow_the_construction(session, sheet):
    frames = demonstrations.demonstration_for(sheet)["frames"]
    said = [frame["words"] for frame in frames]
    frames[1]["words"] += "\nAB is as long as it is: for a reason that a page showed."
    frames[3] |= {"words": "Mine.", "own": True}
    demonstrations.keep(sheet, frames)
    kept = demonstrations.demonstration_for(sheet)["frames"]
    assert [frame["words"] for frame in kept] == [*said[:3], "Mine.", *said[4:]]


def test_too_much_is_refused_and_nothing_is_lost(sheet):
    demonstrations.keep(sheet, [{"shown": 1, "words": "Kept.", "own": True}])
    large = [{"shown": 1, "words": "x" * 800, "points": {f"P{n}": [1.0, 2.0] for n in range(60)}} for _ in range(190)]
    with pytest.raises(Refused, match="larger than"):
        demonstrations.keep(sheet, large)
    with pytest.raises(Unreadable):
        demonstrations.keep(sheet, "no list")
    assert demonstrations.demonstration_for(sheet)["frames"][0]["words"] == "Kept."


def test_students_see_it_when_the_teacher_says():
    at = now()
    solved, wrong = HandIn(outcome=Outcome.SOUND), HandIn(outcome=Outcome.WRONG)
    soon, past = at + timedelta(hours=1), at - timedelta(hours=1)
    for showing, due, best, seen in [
        (Showing.NEVER, past, solved, False),
        (Showing.BEFORE, soon, None, True),
        (Showing.AFTER, soon, None, False),
        (Showing.AFTER, soon, wrong, False),
        (Showing.AFTER, soon, solved, True),
        (Showing.AFTER, past, wrong, True),
        (Showing.AFTER, None, None, False),
    ]:
        assert demonstrations.may_see(Assignment(demonstration=showing, due=due), best, at) is seen


def test_a_students_work_becomes_the_demonstration_without_the_name(session):
    attempt = session.scalars(select(HandIn).where(HandIn.outcome == Outcome.SOUND)).first()
    sheet = attempt.work.assignment.sheet
    demonstrations.make_of_work(attempt)
    made = demonstrations.demonstration_for(sheet)
    assert made["source"] == "work" and len(made["steps"]) == len(attempt.document["steps"])
    assert attempt.work.student.name not in str(made)
    demonstrations.keep(sheet, [{"shown": 1, "words": "First this.", "measures": [["A", "B"]]}])
    kept = demonstrations.demonstration_for(sheet)
    assert kept["source"] == "work" and kept["frames"][0]["measures"] == [["A", "B"]]
    removing.remove_demonstration(session, sheet.owner, sheet)
    assert demonstrations.demonstration_for(sheet)["source"] == "sample solution"


def test_what_is_drawn_for_no_task_is_a_demonstration_too(session, sheet):
    drawing = new_sheet(session, sheet.owner, BLANK | {"title": "Three circles"})
    with pytest.raises(Unreadable, match="draw what is to be shown"):
        demonstrations.demonstration_for(drawing)
    model = [
        {"id": "A", "make": "free_point", "at": [1, 1]},
        {"id": "B", "make": "free_point", "at": [5, 1]},
        {"id": "c", "make": "circle", "from": ["A", "B"]},
    ]
    drawn = change(session, drawing, {"model": model}, None, None)
    made = demonstrations.demonstration_for(drawn)
    assert (made["source"], made["title"], len(made["frames"])) == ("drawing", "Three circles", 5)
    demonstrations.keep(drawn, [{"shown": 3, "words": "A circle.", "own": True}])
    assert demonstrations.demonstration_for(drawn)["frames"][0]["words"] == "A circle."
