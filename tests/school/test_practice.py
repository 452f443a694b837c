"""Practice with the library: who may practise what, what counts as mastered, and what comes next."""

import pytest
from sqlalchemy import select

from tests.counting import queries
from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.operations import add
from widepin.judge.verdict import Outcome
from widepin.school.lessons.today import today_of
from widepin.school.models import Assignment, SchoolClass
from widepin.school.refused import Refused
from widepin.school.results import practice
from widepin.school.results.marks import table_of
from widepin.school.results.practice import Mastery
from widepin.school.results.progress import closed_now, to_do
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import own_sheets
from widepin.school.works import autosave, handins

TASK = LIBRARY["rhombus"]


@pytest.fixture
def first_year(session):
    found = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    practice.set_topics(session, found, {TASK.topic})
    return found


@pytest.fixture
def student(first_year):
    return first_year.students[0]


def solve(session, school_class, student, task=TASK):
    """A student practises a task by its sample solution."""
    assignment = practice.practice_of(session, school_class, task)
    work = autosave.work_of(session, assignment, student)
    for after, step in enumerate(read_steps(assignment.sheet.document["model"])):
        autosave.store(session, work, f"practice-{after:03}", after, add(step))
    session.refresh(work)
    return handins.hand_in(session, work)


def place_of(session, student, key):
    return practice.mastery_of(practice.attempts_by(session, [student.id]).get(student.id, {}))[key]


def test_what_is_practised_counts_nowhere_and_is_mastered(session, first_year, student):
    before = len(first_year.assignments), len(own_sheets(session, first_year.teacher))
    assert place_of(session, student, TASK.key).mastery is not Mastery.MASTERED
    attempt = solve(session, first_year, student)
    assert attempt.outcome is Outcome.SOUND
    place = place_of(session, student, TASK.key)
    assert (place.mastery, place.moves) == (Mastery.MASTERED, attempt.moves)
    session.expire_all()
    assert (len(first_year.assignments), len(own_sheets(session, first_year.teacher))) == before
    assert attempt.work.assignment not in table_of(session, first_year).tasks
    assert attempt.work.assignment not in [one.assignment for one in to_do(session, student)]
    assert all(
        attempt.work.assignment is not task.assignment
        for row in today_of(session, first_year.teacher).classes
        for task in row.tasks
    )
    assert solve_again(session, attempt.work).attempt == 2


def solve_again(session, work):
    session.refresh(work)
    return handins.hand_in(session, work)


def test_two_who_begin_at_once_get_the_same(session, first_year):
    one, other = (practice.practice_of(session, first_year, TASK) for _ in range(2))
    assert one is other and one.sheet.practice
    count = select(Assignment).where(Assignment.practice_key == TASK.key, Assignment.class_id == first_year.id)
    assert len(session.scalars(count).all()) == 1


def test_a_task_that_was_set_is_mastered_too(session, first_year, student):
    from widepin.school.tasks.assigning import assign
    from widepin.school.tasks.settings import proposed
    from widepin.school.tasks.sheets import from_library

    key = "kite"
    sheet = from_library(session, first_year.teacher, LIBRARY[key])
    assignment = assign(session, sheet, first_year, proposed())
    work = autosave.work_of(session, assignment, student)
    for after, step in enumerate(read_steps(sheet.document["model"])):
        autosave.store(session, work, f"set-{after:06}", after, add(step))
    session.refresh(work)
    handins.hand_in(session, work)
    assert place_of(session, student, key).mastery is Mastery.MASTERED


def test_what_comes_next_follows_the_prerequisites():
    def standing(**attempts):
        made = {key.replace("_", "-"): [(outcome, 3)] for key, outcome in attempts.items()}
        return practice.mastery_of(made)

    task = next(one for one in LIBRARY.values() if one.prerequisites)
    assert standing()[task.key].mastery is Mastery.LATER
    ready = practice.mastery_of({key: [(Outcome.SOUND, 3)] for key in task.prerequisites})
    assert ready[task.key].mastery is Mastery.NEXT
    tried = practice.mastery_of({task.key: [(Outcome.WRONG, 3), (Outcome.EYEBALLED, 2)]})
    assert tried[task.key].mastery is Mastery.TRIED
    topics = practice.map_of(tried, {task.topic})
    assert practice.what_comes_next(topics) is task  # what was tried comes before what is new
    assert practice.what_comes_next(practice.map_of(tried, set())) is None
    assert sum(len(topic.places) for topic in topics) == len(LIBRARY)


def test_only_topics_that_are_open_are_practised(session, first_year, student):
    assert practice.class_to_practise_in(session, student, TASK) is first_year
    assignment = practice.practice_of(session, first_year, TASK)
    assert closed_now(session, assignment, student) is None
    practice.set_topics(session, first_year, set())
    assert practice.class_to_practise_in(session, student, TASK) is None
    assert "closed this topic" in closed_now(session, assignment, student)
    with pytest.raises(Refused, match="topics of the library"):
        practice.set_topics(session, first_year, {"Masonry"})


def test_the_map_of_a_class_takes_as_many_queries_as_ever(session, first_year):
    def read():
        session.expire_all()
        return practice.class_map(session, first_year)

    before = queries(session.bind, read)
    for student in first_year.students:
        solve(session, first_year, student)
    assert queries(session.bind, read) <= before
    place = next(one for _topic, places in read() for one in places if one.task is TASK)
    assert place.mastered == len(first_year.students) and place.trying == []
