"""Classes and who is in them."""

import pytest
from sqlalchemy import select

from tests.counting import done_by
from widepin.documents.formats.roster import Name
from widepin.school.models import Work
from widepin.school.people import naming, personal_data, roster
from widepin.school.refused import Refused
from widepin.school.tasks import assigning

SECRET = "for tests"


def sign_in(school_class, code):
    return roster.student_with_code(school_class, SECRET, code)


def test_a_student_signs_in_by_the_codes_however_they_are_typed(first_year):
    nell = first_year.students[0]
    code = roster.personal_code(SECRET, nell)
    assert sign_in(first_year, code) is nell
    assert sign_in(first_year, f" {code.replace('-', ' ').lower()}") is nell


def test_codes_end_when_they_are_renewed_and_differ_by_person_and_secret(first_year, second_year):
    nell, other = first_year.students[:2]
    code = roster.personal_code(SECRET, nell)
    assert code != roster.personal_code(SECRET, other)
    assert code != roster.personal_code("another secret", nell)
    assert sign_in(second_year, code) is None
    nell.code_number += 1
    assert sign_in(first_year, code) is None


def test_added_students_get_logins_that_nobody_has(session, first_year):
    made = roster.add_students(
        session, first_year, map(Name.read, ["Zed Farrow", "Zed Farrow", "Zoë Ó Brádaigh", "王芳"])
    )
    assert [one.login for one in made] == ["zed.farrow", "zed.farrow2", "zoe.o.bradaigh", "wang.fang"]
    assert set(made) <= set(first_year.students)


def test_logins_are_what_the_country_of_a_name_writes(session, first_year):
    names = ["Öznur Weiß", "Renée Duc", "Đorđe Đurić", "Ελένη Παππά", "Анна Котова", "Åse Bjørn"]
    made = roster.add_students(session, first_year, map(Name.read, names))
    wanted = ["oeznur.weiss", "renee.duc", "djordje.djuric", "elene.pappa", "anna.kotova", "aase.bjoern"]
    assert [one.login for one in made] == wanted


def test_lists_go_by_the_name_that_the_school_has_chosen(session, second_year):
    names = ["Bo Zander", "Cara Amber", "Ada van Mell"]
    made = roster.add_students(session, second_year, map(Name.read, names))
    session.flush()

    def order():
        session.expire(second_year)
        return [one.name for one in second_year.students if one in made]

    assert naming.name_order(session) == "family" and order() == ["Cara Amber", "Ada van Mell", "Bo Zander"]
    assert [naming.in_list(one, naming.name_order(session)) for one in made][2] == "van Mell, Ada"
    naming.set_name_order(session, second_year.teacher, "given")
    session.flush()
    assert order() == ["Ada van Mell", "Bo Zander", "Cara Amber"]
    assert naming.in_list(made[2], naming.name_order(session)) == "Ada van Mell"
    with pytest.raises(Refused):
        naming.set_name_order(session, second_year.teacher, "height")


def test_whoever_knows_better_says_which_part_is_the_family_name(session, second_year):
    (one,) = roster.add_students(session, second_year, [Name.read("Nagy Anna")])
    assert (one.given_name, one.family_name) == ("Nagy", "Anna")
    roster.rename_student(one, Name("Anna", "Nagy"))
    assert (one.name, one.given_name, one.family_name) == ("Anna Nagy", "Anna", "Nagy")
    roster.rename_student(one, Name("Pele"))
    assert (one.name, one.given_name, one.family_name) == ("Pele", "Pele", "")


def test_a_name_is_taken_once_per_teacher(session, first_year):
    with pytest.raises(roster.NameTaken):
        roster.new_class(session, first_year.teacher, "Second year")


def test_moving_keeps_the_works(session, first_year, second_year):
    student = next(one for one in first_year.students if done_by(session, first_year, one)[0])
    before = done_by(session, first_year, student)
    roster.move_student(session, student, first_year, second_year)
    assert student not in first_year.students and student in second_year.students
    assert done_by(session, first_year, student) == before


def test_a_copy_has_the_tasks_without_dates_and_no_works(session, first_year):
    first, second = first_year.assignments[:2]
    second.attempts, second.scoring, second.after = 3, {"sound": 90}, first
    session.flush()
    made = assigning.copy_class(session, first_year, "First year, anew", with_students=True)
    assert [one.sheet_id for one in made.assignments] == [one.sheet_id for one in first_year.assignments]
    assert all(one.due is None for one in made.assignments)
    assert (made.assignments[1].attempts, made.assignments[1].scoring) == (3, {"sound": 90})
    assert made.assignments[1].after is made.assignments[0]
    assert made.students == first_year.students and made.code != first_year.code
    assert roster.done_in(session, made) == (0, 0)


def test_the_data_of_a_student_holds_every_operation_and_verdict(session, first_year):
    student = next(one for one in first_year.students if done_by(session, first_year, one)[1])
    data = personal_data.of_student(session, student)
    works = session.scalars(select(Work).where(Work.student_id == student.id)).all()
    assert sorted(len(one["operations"]) for one in data["works"]) == sorted(len(work.operations) for work in works)
    assert any(attempt["verdict"]["outcome"] for work in data["works"] for attempt in work["hand_ins"])
