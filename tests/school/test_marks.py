"""Marks of a class, and what a teacher says of a work."""

import pytest
from sqlalchemy import select

from tests.counting import queries
from widepin.school import handins, reviewing
from widepin.school.marks import as_rows, history_of, mark_of, summary_of, table_of
from widepin.school.models import Person, SchoolClass, TaskSheet
from widepin.school.progress import to_do
from widepin.school.refused import Refused
from widepin.school.roster import add_students


@pytest.fixture
def second_year(session):
    return session.scalars(select(SchoolClass).where(SchoolClass.name == "Second year")).one()


@pytest.fixture
def attempt(session, second_year):
    return next(work.hand_ins[-1] for one in second_year.assignments for work in one.works if work.hand_ins)


def test_marks_take_the_same_number_of_queries_however_many_students_and_tasks(session, second_year):
    def read():
        session.expire_all()
        table = table_of(session, second_year)
        return [mark_of(cell) for row in table.rows for cell in row.cells if cell]

    before = queries(session.bind, read)
    add_students(session, second_year, [f"Student {letter}" for letter in "abcdefgh"])
    assert queries(session.bind, read) <= before <= 13


def test_a_cell_has_the_best_credit(session, second_year):
    table = table_of(session, second_year)
    for row in table.rows:
        for cell in row.cells:
            if cell.work and cell.work.hand_ins and not any(one.reason for one in cell.work.hand_ins):
                assert mark_of(cell) == max(one.score for one in cell.work.hand_ins)
                assert (cell.best.score == 100) == (cell.best.outcome.value == "sound")


def test_the_table_has_a_column_per_task_and_a_mean(session, second_year):
    headings, rows = as_rows(table_of(session, second_year))
    assert headings[0] == "name" and headings[-1] == "mean" and len(headings) == len(second_year.assignments) + 3
    given = [int(cell) for cell in rows[0][2:-1] if cell]
    assert rows[0][-1] == (str(round(sum(given) / len(given))) if given else "")


def test_a_students_history_has_every_task_and_how_long_it_took(session, second_year):
    student = next(work.student for one in second_year.assignments for work in one.works if work.hand_ins)
    history = history_of(session, second_year, student)
    assert [one.assignment for one in history] == second_year.assignments
    assert all((one.took is None) == (one.standing.best is None) for one in history)
    assert any(one.took and one.took.total_seconds() > 0 for one in history)


def test_a_task_in_numbers(session, second_year):
    table = table_of(session, second_year)
    found = summary_of(table.column(0))
    done = [one for one in table.column(0) if one.best]
    assert (found.handed_in, found.students) == (len(done), len(table.rows))
    assert min(one.best.moves for one in done) <= found.moves <= max(one.best.moves for one in done)
    assert summary_of([]).moves is None


def test_score_override_counts_and_can_be_taken_back(session, second_year, attempt):
    def mark():
        rows = table_of(session, second_year).rows
        return next(mark_of(cell) for row in rows for cell in row.cells if cell.work is attempt.work)

    before = mark()
    reviewing.set_score(attempt, "42", " a good  idea ")
    assert mark() == 42 and attempt.reason == "a good idea"
    reviewing.set_score(attempt, "", "")
    assert mark() == before and attempt.reason == ""


@pytest.mark.parametrize(
    ("credit", "reason", "words"), [("101", "x", "0 to 100"), ("half", "x", "0 to 100"), ("50", " ", "Say why")]
)
def test_score_override_is_checked(attempt, credit, reason, words):
    with pytest.raises(Refused, match=words):
        reviewing.set_score(attempt, credit, reason)
    assert attempt.score_override is None


def test_comments_are_on_the_work_or_on_a_step_of_it(session, attempt):
    step = attempt.document["steps"][0]["id"]
    for of in ("", step):
        reviewing.comment(session, attempt, attempt.work.student, "Look here", of)
    session.expire_all()
    assert [one.step for one in attempt.comments] == ["", step]


@pytest.mark.parametrize(
    ("text", "step", "words"), [("  ", "", "Write"), ("x" * 1001, "", "1000"), ("x", "zz", "no object")]
)
def test_comments_are_checked(session, attempt, text, step, words):
    with pytest.raises(Refused, match=words):
        reviewing.comment(session, attempt, attempt.work.student, text, step)


def test_a_work_returned_is_taken_once_more(session, attempt):
    attempt.work.assignment.attempts, attempt.work.returned = len(attempt.work.hand_ins), None
    with pytest.raises(handins.NotTaken):
        handins.hand_in(session, attempt.work)
    reviewing.return_work(attempt)
    handins.hand_in(session, attempt.work)
    with pytest.raises(handins.NotTaken):
        handins.hand_in(session, attempt.work)


def test_deleting_a_commentator_leaves_the_work(session, attempt):
    guest = Person(login="guest", name="Guest", role="teacher", password_hash="")
    session.add(guest)
    reviewing.comment(session, attempt, guest, "Well set out")
    session.delete(guest)
    session.flush()
    session.expire_all()
    assert attempt.comments == [] and session.scalars(select(TaskSheet)).first() is not None


def test_a_student_is_told_of_comments_by_others(session, attempt):
    student = attempt.work.student

    def told():
        return next(one.comments for one in to_do(session, student) if one.assignment is attempt.work.assignment)

    before = told()
    reviewing.comment(session, attempt, student, "My own")
    assert told() == before
    reviewing.comment(session, attempt, attempt.work.assignment.school_class.teacher, "Look again")
    assert told() == before + 1
