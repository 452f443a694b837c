"""What is removed is nowhere, can be had back with all that hangs on it, and is erased when its time is over."""

from datetime import timedelta

import pytest
from sqlalchemy import inspect, select, text

from tests.counting import done_by
from widepin.documents.formats.roster import Name
from widepin.school.models import Assignment, Comment, HandIn, Person, Removal, SchoolClass, TaskSheet, Work, now
from widepin.school.people import personal_data, removing, roster
from widepin.school.refused import Refused
from widepin.school.results import marks
from widepin.school.results.progress import standings
from widepin.school.tasks import assigning, settings, sheets


@pytest.fixture
def teacher(first_year):
    return first_year.teacher


@pytest.fixture
def student(session, first_year):
    """One who has handed something in."""
    return next(one for one in first_year.students if done_by(session, first_year, one)[1])


def found(session, kind, number):
    """What a query for a number finds."""
    return session.scalars(select(kind).where(kind.id == number)).first()


def rows(session):
    """How many rows each table holds, whatever is removed."""
    session.flush()
    return {
        table: session.scalar(text(f"SELECT COUNT(*) FROM `{table}`"))
        for table in inspect(session.connection()).get_table_names()
        if table not in ("audit_entry", "removal")
    }


def test_a_class_that_is_removed_is_nowhere_and_comes_back_whole(session, teacher, first_year, second_year):
    guest = first_year.students[0]
    second_year.students.append(guest)
    session.flush()
    number, before, there = first_year.id, rows(session), roster.done_in(session, first_year)
    alone = [one.id for one in first_year.students[1:]]
    tasks = [one.id for one in first_year.assignments]
    removal = removing.remove_class(session, teacher, first_year)
    number_of_removal = removal.id
    assert rows(session) == before, "nothing is erased"
    assert found(session, SchoolClass, number) is None
    assert session.scalars(select(Person).where(Person.id.in_(alone))).all() == []
    assert session.scalars(select(Work).where(Work.assignment_id.in_(tasks))).all() == []
    assert found(session, Person, guest.id).classes == [second_year]
    removing.restore(session, teacher, removal)
    back = found(session, SchoolClass, number)
    assert roster.done_in(session, back) == there and len(back.students) == len(alone) + 1
    assert [one.id for one in back.assignments] == tasks and found(session, Removal, number_of_removal) is None


def test_a_class_whose_name_is_taken_meanwhile_does_not_come_back_over_it(session, teacher, first_year):
    removal = removing.remove_class(session, teacher, first_year)
    other = roster.new_class(session, teacher, "First year")
    with pytest.raises(Refused, match="rename or remove"):
        removing.restore(session, teacher, removal)
    roster.rename_class(session, other, "First year, anew")
    removing.restore(session, teacher, removal)
    assert session.scalars(select(SchoolClass.name).where(SchoolClass.name == "First year")).all() == ["First year"]


def test_a_task_comes_back_to_its_class_with_its_works_unless_it_was_given_again(session, teacher, first_year):
    assignment = next(one for one in first_year.assignments if one.works)
    works, sheet, after = len(assignment.works), assignment.sheet, assignment.id
    following = [one for one in first_year.assignments if one.after_id == after]
    removal = removing.remove_assignment(session, teacher, assignment)
    assert after not in {one.id for one in first_year.assignments}
    again = assigning.assign(session, sheet, first_year, settings.proposed())
    with pytest.raises(Refused, match="remove that first"):
        removing.restore(session, teacher, removal)
    removing.remove_assignment(session, teacher, again)
    removing.restore(session, teacher, removal)
    assert len(found(session, Assignment, after).works) == works
    assert all(one.after_id == after for one in following), "what comes after it still does"


def test_who_is_taken_out_of_a_class_keeps_everything_and_is_shown_there(session, teacher, first_year, student):
    before, works = rows(session), done_by(session, first_year, student)
    removal = removing.take_out(session, teacher, first_year, student)
    after = rows(session)
    assert {table for table in before if before[table] != after[table]} == {"membership"}
    assert roster.former_students(session, first_year) == [student]
    row = next(row for row in marks.table_of(session, first_year).rows if row.student is student)
    assert row.has_left and not row.has_open and any(cell is not None and cell.best for cell in row.cells)
    done = next(one for one in first_year.assignments if any(work.student_id == student.id for work in one.works))
    assert student in [one.student for one in standings(session, done)]
    assert done_by(session, first_year, student) == works
    removing.restore(session, teacher, removal)
    assert student in first_year.students and roster.former_students(session, first_year) == []


def test_who_is_moved_and_then_erased_takes_the_works_of_both_classes_and_the_page_says_so(
    session, teacher, first_year, second_year, student
):
    here = done_by(session, first_year, student)
    roster.move_student(session, student, first_year, second_year)
    assert [(one.name, works, attempts) for one, works, attempts in removing.what_hangs_on(session, student)] == [
        ("First year", *here)
    ]
    data = personal_data.of_student(session, student)
    assert len(data["works"]) == here[0] and data["classes"] == ["Second year"]
    assert {one["class"] for one in data["works"]} == {"First year"}
    assert student.name in [one["name"] for one in personal_data.of_class(session, first_year)["students"]]
    number = student.id
    removal = removing.remove_student(session, teacher, second_year, student)
    assert found(session, Person, number) is None and roster.former_students(session, first_year) == []
    removing.restore(session, teacher, removal)
    assert done_by(session, first_year, found(session, Person, number)) == here


def test_a_student_whose_works_are_elsewhere_stays_when_the_class_goes(
    session, teacher, first_year, second_year, student
):
    roster.move_student(session, student, first_year, second_year)
    removing.remove_class(session, teacher, second_year)
    assert found(session, Person, student.id) is student
    assert done_by(session, first_year, student)[0]


def test_a_task_of_a_teacher_a_demonstration_and_a_comment_come_back(session, teacher, student):
    sheet = sheets.new_sheet(session, teacher, sheets.BLANK | {"title": "Three circles"})
    removal = removing.remove_task(session, teacher, sheet)
    assert found(session, TaskSheet, removal.about) is None
    removing.restore(session, teacher, removal)
    assert sheet.title in [one.title for one in sheets.own_sheets(session, teacher)]
    attempt = session.scalars(select(HandIn).join(Work).where(Work.student_id == student.id)).first()
    comment = Comment(hand_in_id=attempt.id, author_id=teacher.id, text="Look at the apex. " * 9)
    session.add(comment)
    session.flush()
    removal = removing.remove_comment(session, teacher, comment)
    assert comment.id not in [one.id for one in attempt.comments] and removal.name.endswith(" …")
    removing.restore(session, teacher, removal)
    session.expire_all()
    assert comment.id in [one.id for one in attempt.comments]


def test_a_task_that_a_removed_assignment_needs_is_erased_after_that(session, teacher, first_year):
    sheet = sheets.new_sheet(session, teacher, first_year.assignments[0].sheet.document)
    assignment = assigning.assign(session, sheet, first_year, settings.proposed())
    of_class, number = removing.remove_assignment(session, teacher, assignment), sheet.id
    of_task = removing.remove_task(session, teacher, sheet)

    def is_there():
        return session.scalar(text("SELECT COUNT(*) FROM task_sheet WHERE id = :id"), {"id": number}) == 1

    removing.erase_soon(session, teacher, of_task)
    removing.erase_outdated(session)
    assert is_there()
    removing.erase_soon(session, teacher, session.get(Removal, of_class.id))
    removing.erase_outdated(session)
    assert not is_there()


def test_only_what_has_lain_for_thirty_days_is_erased(session, teacher, first_year, student):
    removal = removing.remove_student(session, teacher, first_year, student)
    number = student.id
    assert removing.erase_outdated(session) == 0
    removal.at = now() - removing.KEPT + timedelta(minutes=5)
    assert removing.in_bin(session, teacher, removal.id) is removal and removing.erase_outdated(session) == 0
    assert not removing.is_any_outdated(session)
    removal.at = now() - removing.KEPT
    assert removing.is_any_outdated(session)
    with pytest.raises(removing.Gone):
        removing.in_bin(session, teacher, removal.id)
    assert removing.erase_outdated(session) == 1
    assert session.scalar(text("SELECT COUNT(*) FROM work WHERE student_id = :id"), {"id": number}) == 0


def test_a_bin_holds_what_is_ones_own_or_of_ones_classes(session, teacher, first_year, student):
    removal = removing.take_out(session, teacher, first_year, student)
    colleague, stranger = (
        Person(login=name, name=name, role="teacher", password_hash="") for name in ("a.colleague", "a.stranger")
    )
    session.add_all([colleague, stranger])
    first_year.colleagues.append(colleague)
    session.flush()
    assert [one.id for one in removing.listed(session, colleague)] == [removal.id]
    assert removing.listed(session, stranger) == []
    with pytest.raises(removing.Gone):
        removing.in_bin(session, stranger, removal.id)


def test_many_equal_names_get_logins_with_one_question(session, first_year):
    made = roster.add_students(session, first_year, [Name("Nell", "Farrow")] * 400)
    assert len({one.login for one in made} | {"nell.farrow"}) >= 400
    removing.remove_student(session, first_year.teacher, first_year, made[0])
    (another,) = roster.add_students(session, first_year, [Name("Nell", "Farrow")])
    assert another.login not in {one.login for one in made}, "who lies in the bin keeps the login"
