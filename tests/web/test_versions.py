"""A verdict is shown with the version of the task under which it was given; judging again goes on by itself."""

from time import monotonic, sleep

import pytest
from sqlalchemy import func, select

from widepin.school.models import Assignment, HandIn, JudgingAgain, SchoolClass, TaskSheet, Work
from widepin.school.tasks import sheets
from widepin.school.works import again


@pytest.fixture
def set_task(app):
    """An assignment of the first year with several conditions and works; it has its version again afterwards."""
    with app.extensions["sessions"]() as session:
        wanted = select(Assignment).join(SchoolClass).where(SchoolClass.name == "First year").order_by(Assignment.id)
        found = max(session.scalars(wanted), key=lambda one: len(one.sheet.document["conditions"]) * bool(one.works))
        number, sheet = found.id, found.sheet_id
        verdicts = {
            one.id: (one.outcome, one.verdict, one.moves, one.score, one.sheet_id)
            for one in session.scalars(select(HandIn).join(Work).where(Work.assignment_id == number))
        }
    yield number
    with app.extensions["sessions"]() as session:
        session.get_one(Assignment, number).sheet_id = sheet
        for key, (outcome, verdict, moves, score, judged) in verdicts.items():
            one = session.get_one(HandIn, key)
            one.outcome, one.verdict, one.moves, one.score, one.sheet_id = outcome, verdict, moves, score, judged
        for made in session.scalars(select(TaskSheet).where(TaskSheet.title == "With one condition")):
            session.delete(made)
        session.commit()


@pytest.fixture
def newer(app, set_task):
    """The class has a newer version of its task, which asks less."""
    with app.extensions["sessions"]() as session:
        found = session.get_one(Assignment, set_task)
        fields = {"title": "With one condition", "conditions": found.sheet.document["conditions"][:1]}
        found.sheet = sheets.change(session, found.sheet, fields, None, None)
        session.commit()
        return found.sheet_id


def attempts(app, assignment):
    with app.extensions["sessions"]() as session:
        return list(session.scalars(select(HandIn.id).join(Work).where(Work.assignment_id == assignment)))


def test_what_was_handed_in_is_told_by_the_version_it_was_judged_by(app, as_person, set_task, newer):
    teacher = as_person("corin.hale")
    for number in attempts(app, set_task):
        page = teacher.get(f"/hand-ins/{number}")
        assert page.status_code == 200 and "<h1>With one condition" not in page.text
        assert teacher.get(f"/hand-ins/{number}/handout.pdf").status_code == 200
    for path in (f"/assignments/{set_task}", f"/assignments/{set_task}/projector"):
        assert teacher.get(path).status_code == 200


def test_judging_again_goes_on_when_nobody_looks_and_can_be_stopped(app, as_person, set_task, newer):
    teacher = as_person("corin.hale")
    every = attempts(app, set_task)
    path = f"/assignments/{set_task}/again"
    begun = teacher.post(path).json
    assert begun["is_on"] and begun["total"] == len(every)
    until = monotonic() + 120
    while still_judging(app, set_task) and monotonic() < until:
        sleep(0.1)
    assert teacher.get(path).json == {"is_on": False, "done": len(every), "total": len(every), "is_left": False}
    with app.extensions["sessions"]() as session:
        judged = session.scalars(select(HandIn.sheet_id).where(HandIn.id.in_(every)).distinct()).all()
    assert judged == [newer]
    assert "<h1>With one condition" in teacher.get(f"/hand-ins/{every[0]}").text


def test_judging_that_is_stopped_keeps_what_is_judged(app, as_person, set_task, newer):
    with app.extensions["sessions"]() as session:
        assignment = session.get_one(Assignment, set_task)
        again.begin(session, assignment)
        session.get_one(JudgingAgain, set_task).after = again.judge_again(session, assignment, 0, 0.0).last
        session.commit()
    stopped = as_person("corin.hale").post(f"/assignments/{set_task}/again/stop").json
    assert not stopped["is_on"] and not still_judging(app, set_task)
    with app.extensions["sessions"]() as session:
        judged = select(func.count()).select_from(HandIn).where(HandIn.sheet_id == newer)
        assert session.scalar(judged) == 1


def still_judging(app, assignment):
    with app.extensions["sessions"]() as session:
        return session.scalar(select(JudgingAgain).where(JudgingAgain.assignment_id == assignment)) is not None
