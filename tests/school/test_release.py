"""When students see the sample solution and the shortest work of their class."""

from datetime import timedelta

import pytest
from sqlalchemy import select

from widepin.judge.verdict import Outcome
from widepin.school.models import Assignment, HandIn, SchoolClass, now
from widepin.school.results.release import any_released, is_released, shortest_work
from widepin.school.states import Release

SOLVED, WRONG = HandIn(outcome=Outcome.SOUND), HandIn(outcome=Outcome.WRONG)


@pytest.mark.parametrize(
    ("release", "days", "best", "seen"),
    [
        (Release.NEVER, -1, SOLVED, False),
        (Release.DUE, 1, SOLVED, False),
        (Release.DUE, -1, None, True),
        (Release.DUE, None, SOLVED, False),
        (Release.CORRECT, 1, WRONG, False),
        (Release.CORRECT, 1, SOLVED, True),
        (Release.CORRECT, -1, None, True),
        (Release.CORRECT, None, None, False),
    ],
)
def test_solutions_are_seen_when_the_teacher_says(release, days, best, seen):
    at = now()
    due = None if days is None else at + timedelta(days=days)
    assignment = Assignment(due=due, solution=release, shortest=Release.NEVER)
    assert is_released(release, assignment, best, at) is seen
    assert any_released(assignment, best, at) is seen


def test_the_shortest_work_is_sound(session):
    for school_class in session.scalars(select(SchoolClass)):
        for assignment in school_class.assignments:
            sound = [one.moves for work in assignment.works for one in work.hand_ins if one.outcome is Outcome.SOUND]
            found = shortest_work(session, assignment)
            assert (found.moves if found else None) == min(sound, default=None)


def test_students_reach_them_from_the_board_and_nobody_before_time(as_person, app):
    with app.extensions["sessions"]() as session:
        first = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one().assignments[0]
        number, solved = (
            first.id,
            next(work for work in first.works if any(h.outcome is Outcome.SOUND for h in work.hand_ins)),
        )
        login, shortest = solved.student.login, shortest_work(session, first).moves
        known = first.due, first.solution, first.shortest
        first.due, first.solution, first.shortest = now() + timedelta(days=2), Release.CORRECT, Release.CORRECT
        session.commit()
    client = as_person(login)
    assert f"/tasks/{number}/solutions" in client.get(f"/tasks/{number}").text
    page = client.get(f"/tasks/{number}/solutions")
    assert page.status_code == 200 and "Sample solution" in page.text and f"{shortest} moves" in page.text
    with app.extensions["sessions"]() as session:
        session.get(Assignment, number).solution = session.get(Assignment, number).shortest = Release.NEVER
        session.commit()
    assert client.get(f"/tasks/{number}/solutions").status_code == 403
    assert f"/tasks/{number}/solutions" not in client.get(f"/tasks/{number}").text
    with app.extensions["sessions"]() as session:
        first = session.get(Assignment, number)
        first.due, first.solution, first.shortest = known
        session.commit()
