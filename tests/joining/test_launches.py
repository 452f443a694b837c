"""Coming from a learning platform: who gets in, as whom, to what; and who does not."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest
from sqlalchemy import func, select

from tests.joining.conftest import class_named, described
from widepin.joining.tokens import new_key
from widepin.school.joining import handshakes, keys, platforms
from widepin.school.models import Assignment, Identity, Person, Platform, PlatformLink, SchoolClass, TaskSheet
from widepin.school.people import removing
from widepin.school.people.roster import personal_code
from widepin.school.states import Question
from widepin.web.jobs import joining

MIDPOINT, BISECTOR = "midpoint", "perpendicular-bisector"


@pytest.fixture
def course(visitor):
    """The teacher of the first course has set a task there."""
    return visitor("t-101").come().choose(MIDPOINT, due="2031-05-20T10:00")


def people(school):
    with school() as session:
        return {one.name: one.role.value for one in session.scalars(select(Person))}


def test_a_teacher_chooses_tasks_and_students_come_to_them(course, visitor, school, standin):
    assert "Midpoint of a segment" in course.said
    (link,) = standin.courses["c-1"].links.values()
    assert link.custom["due"] == "$ResourceLink.submission.endDateTime" and link.due == "2031-05-20T10:00:00Z"
    student = visitor("s-201").come(link=1)
    assert "/tasks/" in student.page.url and student.page.ok
    with school() as session:
        made = class_named(session, "Setting out, first year")
        assert made.teacher.name == "Maud Ellery" and "Anselm Rook" in {one.name for one in made.students}
        assert made.assignments[0].due.isoformat() == "2031-05-20T10:00:00"
        assert {one.family_name for one in made.students} >= {"Rook"}
    assert people(school)["Anselm Rook"] == "student"
    assert "/assignments/" in visitor("t-101").come(link=1).page.url


def test_a_student_cannot_make_a_course_or_choose(visitor, school):
    assert "Only teachers choose" in visitor("s-201").come().said
    with school() as session:
        assert session.scalar(select(func.count()).select_from(SchoolClass)) == 0


def test_several_tasks_go_over_at_once_and_none_is_asked_for_again(visitor, standin):
    teacher = visitor("t-101").come()
    assert "Choose a task" in teacher.choose().said
    teacher.choose(MIDPOINT, BISECTOR)
    assert [one.title for one in standin.courses["c-1"].links.values()] == [
        "Midpoint of a segment",
        "Perpendicular bisector of a segment",
    ]


def test_whoever_learns_in_one_course_and_teaches_in_another_has_two_accounts(course, visitor, school, standin):
    standin.courses["c-1"].students.append("t-102")
    visitor("t-102").come(link=1)
    visitor("t-102").come("c-2")
    with school() as session:
        roles = session.scalars(select(Identity.role).where(Identity.subject == "t-102")).all()
    assert sorted(roles) == ["student", "teacher"]


def test_a_second_teacher_of_a_course_teaches_the_class_too(visitor, school):
    visitor("t-101").come("c-2")
    visitor("t-102").come("c-2")
    with school() as session:
        made = class_named(session, "Rose windows")
        assert made.teacher.name == "Maud Ellery" and [one.name for one in made.colleagues] == ["Jory Penwarden"]


FORGED = {
    "signature": "signature is wrong",
    "expired": "ran out 60 minutes ago",
    "clock": "clock is 9 minutes ahead",
    "deployment": "“elsewhere” is not registered",
    "audience": "meant for another tool",
    "nonce": "answers another question",
}


@pytest.mark.parametrize("fault", FORGED)
def test_a_launch_that_is_not_right_lets_nobody_in_and_says_why(course, visitor, school, standin, fault):
    before = people(school)
    standin.faults = {fault}
    refused = visitor("s-201").come(link=1)
    assert refused.page.status_code == 403 and FORGED[fault] in refused.said
    assert people(school) == before
    assert "/sign-in" in refused.browser.get(refused.page.url.split("/lti")[0]).url, "nobody is signed in"


def test_an_answer_is_taken_once(course, visitor, school, standin, tool):
    student = visitor("s-201").come(link=1)
    again = student.browser.post(tool.config["ADDRESS"] + "lti/launch", data=standin.last | {"again": "yes"})
    assert again.status_code == 403 and "used already" in again.text


def test_an_answer_for_another_browser_is_refused(course, visitor, standin, tool):
    """Who sends somebody their own way in, to have them work under another name."""
    victim, attacker = visitor("s-202"), visitor("s-201")
    victim.come(link=1)
    held = attacker.browser.get(f"{standin.address}/courses/c-1/open/1")  # up to the form, which is not sent
    assert 'id="send"' in held.text
    answer = victim.browser.post(tool.config["ADDRESS"] + "lti/launch", data=standin.last | {"again": "yes"})
    assert answer.status_code == 403 and "did not begin in this browser" in answer.text


def test_two_windows_of_one_browser_may_be_on_their_way_at_once(course, visitor, standin, tool):
    """Where a platform asks by a form, the second question comes without the cookie of the first."""
    student = visitor("s-201").come(link=1)
    ways = []
    for _window in range(2):
        student.browser.get(f"{standin.address}/courses/c-1/open/1")
        ways.append(dict(standin.last))
    for way in ways:
        assert "/tasks/" in student.browser.post(tool.config["ADDRESS"] + "lti/launch", data=way).url


def test_a_key_that_changes_at_noon_is_read_anew(course, visitor, standin):
    visitor("s-201").come(link=1)
    standin.key = new_key()
    assert "/tasks/" in visitor("s-202").come(link=1).page.url


def test_a_platform_or_a_course_that_is_not_known(course, visitor, standin, school):
    with school() as session:
        platforms.remove(session, session.scalars(select(Person)).first(), session.scalars(select(Platform)).one())
        session.commit()
    refused = visitor("s-201").come(link=1)
    assert refused.page.status_code == 400 and "not registered" in refused.said
    with school() as session:
        assert session.scalars(select(Identity)).all() == []
        assert class_named(session, "Setting out, first year").students is not None


def test_two_launches_at_once_make_one_account_and_one_class(visitor, school):
    coming = [visitor("t-101") for _ in range(4)]
    with ThreadPoolExecutor(4) as pool:
        list(pool.map(lambda one: one.come(), coming))
    assert all(one.page.ok for one in coming), [one.said for one in coming if not one.page.ok]
    with school() as session:
        assert session.scalar(select(func.count()).where(Person.name == "Maud Ellery")) == 1
        assert session.scalar(select(func.count()).select_from(SchoolClass)) == 1


def test_a_link_whose_task_is_nobody_s_who_teaches_there_gives_none(course, visitor, school, standin):
    """Whoever may edit a course can change what is stored with a link."""
    visitor("t-102").come("c-2").choose(BISECTOR)
    foreign = next(one for one in standin.courses["c-2"].links.values())
    standin.courses["c-1"].links[1].custom = {"sheet": foreign.custom["sheet"]}
    student = visitor("s-201").come(link=1)
    assert student.page.ok and student.page.url.endswith("/tasks")
    with school() as session:
        assert class_named(session, "Setting out, first year").assignments == []


def test_a_due_date_that_changes_in_the_platform_changes_here(course, visitor, standin, school):
    visitor("s-201").come(link=1)
    standin.courses["c-1"].links[1].due = "2031-06-01T08:30:00+02:00"
    visitor("s-202").come(link=1)
    with school() as session:
        assert session.scalars(select(Assignment.due)).one().isoformat() == "2031-06-01T06:30:00"


def test_who_has_an_account_here_joins_it_and_nobody_else_does(course, visitor, school, tool):
    with school() as session:
        here = Person(login="anselm", name="Anselm R.", role="student", password_hash="")
        own = SchoolClass(name="Evening class", teacher=session.scalars(select(Person)).first(), students=[here])
        session.add(own)
        session.commit()
        codes = own.code, personal_code(tool.config["CODES_KEY"], here)
    student = visitor("s-201").get(f"{course.standin.address}/courses/c-1/open/1")
    assert "Welcome, Anselm Rook" in student.said and "I have an account here already" in student.said
    first = student.page.url
    student.page = student.browser.get(f"{first}/sign-in")
    student.send(class_code=codes[0], code=codes[1])
    assert student.page.url == first and "That is me: Anselm R." in student.said
    token = student.page.text.split('name="csrf_token" value="')[1].split('"')[0]
    student.page = student.browser.post(first, data={"as": "mine", "csrf_token": token}, headers={"Referer": first})
    assert "/tasks/" in student.page.url
    with school() as session:
        joined = session.scalars(select(Identity).where(Identity.subject == "s-201")).one().person
        assert joined.login == "anselm" and {one.name for one in joined.classes} == {
            "Evening class",
            "Setting out, first year",
        }
        assert session.scalar(select(func.count()).where(Person.name == "Anselm Rook")) == 0
    assert "/tasks/" in visitor("s-201").come(link=1).page.url


def test_who_has_left_does_not_come_in(course, visitor, school):
    visitor("s-201").come(link=1)
    with school() as session:
        session.scalars(select(Person).where(Person.name == "Anselm Rook")).one().left = func.now()
        session.commit()
    assert "not in use any more" in visitor("s-201").come(link=1).said


def test_a_frame_of_the_platform_gets_a_page_that_opens_a_window(standin, tool, visitor):
    login = f"{tool.config['ADDRESS']}lti/login?iss={standin.address}&client_id=wide-pin&login_hint=s-201"
    framed = visitor("s-201").browser.get(login, headers={"Sec-Fetch-Dest": "iframe"})
    assert framed.ok and 'target="_blank"' in framed.text and "X-Frame-Options" not in framed.headers
    assert f"frame-ancestors {standin.address}" in framed.headers["Content-Security-Policy"]
    other = visitor("s-201").browser.get(tool.config["ADDRESS"] + "sign-in")
    assert "frame-ancestors 'none'" in other.headers["Content-Security-Policy"]


def test_another_version_of_a_task_is_not_set_beside_it(course, visitor, school, standin):
    visitor("s-201").come(link=1)
    with school() as session:
        task = session.scalars(select(Assignment)).one()
        old = task.sheet
        newer = TaskSheet(owner=old.owner, title=old.title, document=old.document, family=old.family, version=2)
        session.add(newer)
        session.flush()
        task.sheet = newer
        session.commit()
    links = standin.courses["c-1"].links
    links[2] = replace(links[1], number=2)
    assert "/tasks/" in visitor("s-201").come(link=2).page.url
    with school() as session:
        assert len(session.scalars(select(Assignment)).all()) == 1


def test_a_platform_that_becomes_another_knows_nobody_any_more(course, visitor, school, standin):
    visitor("s-201").come(link=1)
    with school() as session:
        platform = session.scalars(select(Platform)).one()
        platforms.store(session, None, described(standin.address, issuer="http://elsewhere"), platform)
        session.commit()
        assert session.scalars(select(Identity)).all() == []


def test_who_was_removed_is_left_out_of_a_list_and_not_let_in(course, visitor, school, standin, tool):
    visitor("s-201").come(link=1)
    with school() as session:
        oda = session.scalars(select(Person)).first()
        student = session.scalars(select(Person).where(Person.name == "Anselm Rook")).one()
        removing.remove_student(session, oda, class_named(session, "Setting out, first year"), student)
        session.commit()
    assert "was removed" in visitor("s-201").come(link=1).said
    with tool.app_context(), school() as session:
        joining.take_over(session.scalars(select(PlatformLink)).one().course_id, joining.AT_ONCE)
    with school() as session:
        names = {one.name for one in class_named(session, "Setting out, first year").students}
        assert names == {"Bettany Crane", "Cuthbert Vane", "Delphine Marsh"}


def test_lists_are_taken_over_and_kept_in_step(course, visitor, school, standin, tool, asked_for):
    visitor("s-201").come(link=1)
    assert len(asked_for) == 1, "when a teacher comes, and no student"

    def take_over():
        with tool.app_context(), school() as session:
            number = session.scalars(select(PlatformLink)).one().course_id
            joining.take_over(number, joining.AT_ONCE)

    take_over()
    with school() as session:
        there = class_named(session, "Setting out, first year")
        assert {one.name for one in there.students} == {
            "Anselm Rook",
            "Bettany Crane",
            "Cuthbert Vane",
            "Delphine Marsh",
        }
        added = Person(login="by.hand", name="By Hand", role="student", password_hash="")
        there.students.append(added)
        session.commit()
    standin.courses["c-1"].students.remove("s-202")
    standin.courses["c-1"].students.append("s-206")
    take_over()
    with school() as session:
        names = {one.name for one in class_named(session, "Setting out, first year").students}
        assert names == {"Anselm Rook", "By Hand", "Cuthbert Vane", "Delphine Marsh", "Frideswide Lowe"}
        assert session.scalar(select(func.count()).where(Person.name == "Bettany Crane")) == 1, "the account stays"


def test_a_list_that_cannot_be_had_changes_nothing_and_says_why(course, visitor, school, standin, tool):
    visitor("s-201").come(link=1)
    standin.faults = {"away"}
    with tool.app_context(), school() as session:
        link = session.scalars(select(PlatformLink)).one()
        joining.take_over(link.course_id, joining.AT_ONCE)
        session.expire_all()
        assert "status 500" in link.course.trouble
        assert "Anselm Rook" in {one.name for one in link.course.school_class.students}


def test_keys_are_renewed_and_the_old_one_is_published_for_a_while(school):
    with school() as session:
        old = keys.current(session).kid
        keys.renew(session, session.scalars(select(Person)).first())
        new = keys.current(session).kid
        assert old != new and {key["kid"] for key in keys.published(session)["keys"]} == {old, new}
        assert all("d" not in key for key in keys.published(session)["keys"]), "private parts stay here"


def test_a_question_is_answered_once_and_by_its_own_kind(school):
    with school() as session:
        secret = handshakes.ask(session, Question.LAUNCH, {"nonce": "n"})
        session.commit()
    with school() as session:
        assert handshakes.look(session, Question.CHOOSING, secret) is None
    assert handshakes.answer_for_good(school, Question.LAUNCH, secret) == {"nonce": "n"}
    assert handshakes.answer_for_good(school, Question.LAUNCH, secret) is None


@pytest.mark.parametrize(
    ("field", "value", "words"),
    [
        ("issuer", "", "Write the issuer"),
        ("token_address", "ftp://x", "Write the token address"),
        ("name", "x" * 200, "Write a name"),
        ("deployments", "\n".join(map(str, range(60))), "deployment IDs"),
    ],
)
def test_what_is_filled_in_for_a_platform_is_checked(field, value, words):
    with pytest.raises(Exception, match=words):
        described("http://localhost:1", **{field: value})


def test_no_secret_is_written_into_a_log(course, visitor, school, standin, caplog):
    caplog.set_level("DEBUG")
    student = visitor("s-201").come(link=1)
    standin.faults = {"signature"}
    visitor("s-202").come(link=1)
    with school() as session:
        pem = keys.current(session).pem.splitlines()[1]
    own = [one for one in caplog.records if one.name.startswith("widepin")]  # not what visitors' browsers write
    text = " ".join(f"{one.getMessage()} {one.__dict__}" for one in own)
    secrets = [standin.last["id_token"], standin.last["state"], pem, *student.browser.cookies.get_dict().values()]
    assert "signature is wrong" in text and not [one for one in secrets if one in text]
