"""The ways of a class: every right work by its moves, against the fewest that are known."""

from sqlalchemy import select

from widepin.school.lessons.overview import overview_of
from widepin.school.lessons.ways import ways_of
from widepin.school.models import Assignment
from widepin.school.works.autosave import task_of


def test_right_works_stand_by_their_moves_and_the_fewest_is_told(session, first_year):
    wanted = select(Assignment).where(Assignment.class_id == first_year.id, Assignment.practice_key.is_(None))
    for assignment in session.scalars(wanted):
        places, task = overview_of(session, assignment), task_of(assignment)
        right = {
            p.student.id: p.standing.best.moves
            for p in places
            if p.standing.best and p.standing.best.outcome.is_right_as_drawn
        }
        ways = ways_of(places, task, assignment.sheet)
        assert (ways is None) == (not right)
        if ways is None:
            continue
        assert {p.student.id: moves for moves, there in ways.columns for p in there} == right
        numbers = [moves for moves, _there in ways.columns]
        assert numbers == list(range(numbers[0], numbers[-1] + 1)) and not ways.is_least
        assignment.sheet.fewest = {"moves": 1, "excluded": 0, "arbitrary": 1}
        told = ways_of(places, task, assignment.sheet)
        assert told.possible == 1 and told.is_least and told.columns[0][0] == 1
        assignment.sheet.fewest = None
