"""The path of a teacher's first week."""

from sqlalchemy import select

from widepin.documents.formats.roster import Name
from widepin.school.lessons import first_week
from widepin.school.lessons.first_week import Milestone
from widepin.school.lessons.today import today_of
from widepin.school.models import HandIn, Person, SchoolClass
from widepin.school.people.roster import add_students, new_class
from widepin.school.works.reviewing import comment, set_score


def test_it_leads_from_a_class_to_marks_and_ends(session):
    teacher = Person(login="new.teacher", name="New", role="teacher", password_hash="")
    session.add(teacher)
    session.flush()
    assert today_of(session, teacher).path.next is Milestone.CLASS
    made = new_class(session, teacher, "Beginners")
    assert today_of(session, teacher).path.next is Milestone.STUDENTS
    add_students(session, made, [Name.read("Asa Quill")])
    session.refresh(made)
    assert today_of(session, teacher).path.next is Milestone.TASK
    known = session.scalars(select(SchoolClass).where(SchoolClass.name == "First year")).one()
    attempt = session.scalars(select(HandIn)).first()
    assert first_week.path_of(session, teacher, [known]).next is Milestone.COMMENT
    comment(session, attempt, teacher, "Good.")
    for column in known.mark_columns:
        session.delete(column)
    for one in session.scalars(select(HandIn)):
        one.score_override = None
    session.flush()
    session.refresh(known)
    assert first_week.path_of(session, teacher, [known]).next is Milestone.MARKS
    set_score(known.assignments[0].works[0].hand_ins[0], "50", "Fair")
    assert first_week.path_of(session, teacher, [known]) is None


def test_it_can_be_dismissed(session):
    teacher = Person(login="old.teacher", name="Old", role="teacher", password_hash="", first_week=True)
    session.add(teacher)
    session.flush()
    first_week.dismiss(teacher)
    assert today_of(session, teacher).path is None
