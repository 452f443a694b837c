"""Lists of the school's office: looked through, taken over, and again each term without doubling anybody."""

from __future__ import annotations

import csv
import io
import random
import zipfile
from datetime import datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import func, select

from tests.joining.conftest import class_named, serve
from widepin.documents.reading import Unreadable
from widepin.joining.http_client import NotReached
from widepin.joining.oneroster import read_address, read_zip, results_zip
from widepin.joining.standins.office import CLIENT_ID, CLIENT_SECRET, create_office, zipped
from widepin.joining.standins.world import courses
from widepin.judge.verdict import Outcome
from widepin.running.mariadb import free_port
from widepin.school.joining import office_lists
from widepin.school.models import HandIn, Identity, Person, SchoolClass, Work
from widepin.school.refused import Refused
from widepin.school.results import entering
from widepin.school.tasks.assigning import assign
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.settings import proposed
from widepin.school.tasks.sheets import from_library
from widepin.web.jobs import joining


def zip_of(**files):
    """A ZIP of CSV files, each a list of rows with a head first; a manifest besides."""
    manifest = [["propertyName", "value"], ["oneroster.version", "1.2"], ["file.users", "bulk"]]
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w") as archive:
        for name, rows in {"manifest": manifest, **files}.items():
            text = io.StringIO(newline="")
            csv.writer(text).writerows(rows)
            archive.writestr(f"{name}.csv", text.getvalue())
    return content.getvalue()


USERS = [["sourcedId", "status", "enabledUser", "givenName", "familyName", "username", "role"]]
CLASSES = [["sourcedId", "status", "title"]]
ENROLMENTS = [["sourcedId", "status", "classSourcedId", "userSourcedId", "role", "primary"]]


def small(users=(), classes=(), enrolments=()):
    return zip_of(users=[*USERS, *users], classes=[*CLASSES, *classes], enrollments=[*ENROLMENTS, *enrolments])


def take(school, lists, same=None):
    with school() as session:
        oda = session.scalars(select(Person).where(Person.login == "oda")).one()
        done = office_lists.take_over(session, oda, lists, same or {})
        session.commit()
        return done


def count(school, kind):
    with school() as session:
        return session.scalar(select(func.count()).select_from(kind))


def test_lists_make_people_and_classes_and_again_nothing(school):
    lists = read_zip(zipped(courses()))
    assert lists.faults == [] and (len(lists.people), len(lists.classes)) == (8, 2)
    done = take(school, lists)
    assert (len(done.new), len(done.new_classes)) == (8, 2)
    with school() as session:
        made = class_named(session, "Rose windows")
        assert made.teacher.name == "Maud Ellery" and [one.name for one in made.colleagues] == ["Jory Penwarden"]
        assert {one.login for one in made.students} >= {"edmund.thrale", "frideswide.lowe"}
        assert office_lists.plan(session, lists).is_empty
    people, classes = count(school, Person), count(school, SchoolClass)
    take(school, lists)
    assert (count(school, Person), count(school, SchoolClass)) == (people, classes)


def test_who_changes_class_or_is_gone(school):
    there = courses()
    take(school, read_zip(zipped(there)))
    with school() as session:
        made = class_named(session, "Setting out, first year")
        made.students.append(Person(login="by.hand", name="By Hand", role="student", password_hash=""))
        session.commit()
    there["c-1"].students.remove("s-201")
    there["c-1"].students.append("s-205")
    lists = read_zip(zipped(there))
    del lists.people["s-202"]
    for one in lists.classes.values():
        one.students = [who for who in one.students if who != "s-202"]
    with school() as session:
        plan = office_lists.plan(session, lists)
        assert [one.name for one in plan.gone] == ["Bettany Crane"] and (plan.came, plan.went) == (1, 2)
    take(school, lists)
    with school() as session:
        names = {one.name for one in class_named(session, "Setting out, first year").students}
        assert names == {"By Hand", "Cuthbert Vane", "Delphine Marsh", "Edmund Thrale"}
        assert session.scalar(select(func.count()).where(Person.name == "Bettany Crane")) == 1


def test_a_name_that_changes_is_taken_over_but_not_of_who_chose_it(school):
    take(school, read_zip(small([["a", "", "true", "Ada", "Thorne", "ada", "student"]])))
    lists = read_zip(small([["a", "", "true", "Ada", "Thorne-Vale", "ada", "student"]]))
    assert len(take(school, lists).changed) == 1
    with school() as session:
        person = session.scalars(select(Person).where(Person.name == "Ada Thorne-Vale")).one()
        assert person.family_name == "Thorne-Vale"
        person.password_hash = "chosen by the person"
        session.commit()
    take(school, read_zip(small([["a", "", "true", "Other", "Name", "ada", "student"]])))
    with school() as session:
        assert session.scalar(select(func.count()).where(Person.name == "Other Name")) == 0


def test_who_may_be_here_already_is_asked_about_and_left_out_until_then(school):
    with school() as session:
        session.add(Person(login="ada", name="A. Thorne", role="student", password_hash=""))
        session.commit()
    lists = read_zip(
        small(
            [["a", "", "true", "Ada", "Thorne", "ada", "student"], ["b", "", "true", "Ben", "Oak", "ben", "student"]],
            [["k", "", "Second year"]],
            [["e", "", "k", "a", "student", ""], ["f", "", "k", "b", "student", ""]],
        )
    )
    with school() as session:
        plan = office_lists.plan(session, lists)
        assert [one.listed.name for one in plan.doubtful] == ["Ada Thorne"] and len(plan.new) == 1
        here = plan.doubtful[0].candidates[0].id
    take(school, lists)
    with school() as session:
        assert {one.name for one in class_named(session, "Second year").students} == {"Ben Oak"}
    take(school, lists, {"a": here})
    with school() as session:
        made = class_named(session, "Second year")
        assert {one.login for one in made.students} == {"ada", "ben"}
    assert count(school, Person) == 3
    take(school, lists, {"a": 0})
    assert count(school, Person) == 3, "it is decided"


def test_somebody_who_is_decided_to_be_new_is(school):
    with school() as session:
        session.add(Person(login="ada", name="Ada Thorne", role="student", password_hash=""))
        session.commit()
    lists = read_zip(small([["a", "", "true", "Ada", "Thorne", "ada", "student"]]))
    take(school, lists, {"a": 0})
    with school() as session:
        logins = session.scalars(select(Person.login).where(Person.name == "Ada Thorne")).all()
    assert sorted(logins) == ["ada", "ada.thorne"]


def test_three_thousand_people_and_forty_faults(school):
    people = [[f"p{n}", "", "true", f"Given{n}", f"Family{n % 700}", f"user{n}", "student"] for n in range(3000)]
    for n in range(0, 100, 10):
        people[n][0] = ""  # no sourcedId
        people[n + 1][0] = "p999"  # twice
        people[n + 2][3:5] = ["", ""]  # no name
        people[n + 3] = people[n + 3][:4]  # fields are missing
    teachers = [[f"t{n}", "", "true", "Teacher", f"Number{n}", f"teach{n}", "teacher"] for n in range(40)]
    rows = [[f"c{n}", "", f"Class {n}"] for n in range(100)]
    inside = [[f"e{n}", "", f"c{n % 100}", f"p{n}", "student", ""] for n in range(100, 3000)]
    inside += [[f"x{n}", "", f"c{n}", f"t{n % 40}", "teacher", "true"] for n in range(100)]
    lists = read_zip(small([*people, *teachers], rows, inside))
    assert len(lists.faults) == 40 and all(one.row > 1 and one.words for one in lists.faults)
    assert len({one.words for one in lists.faults if "sourcedId" in one.words}) == 2
    done = take(school, lists)
    assert len(done.new) == 3000 and len(done.new_classes) == 100
    assert count(school, SchoolClass) == 100 and count(school, Identity) == 3000
    with school() as session:
        assert office_lists.plan(session, lists).is_empty


def test_what_a_row_must_have():
    lists = read_zip(
        small(
            [
                ["a", "tobedeleted", "true", "Gone", "Already", "g", "student"],
                ["b", "", "false", "Not", "Enabled", "n", "student"],
                ["c", "", "true", "A", "Guardian", "u", "guardian"],
                ["d", "", "true", "No", "Role", "r", ""],
                ["s", "", "true", "A", "Student", "s", "student"],
            ],
            [["k", "", "A class"], ["l", "", ""]],
            [
                ["1", "", "elsewhere", "s", "student", ""],
                ["2", "", "k", "nobody", "student", ""],
                ["3", "", "k", "s", "dancer", ""],
                ["4", "", "k", "s", "teacher", ""],
                ["5", "", "k", "s", "student", ""],
            ],
        )
    )
    assert list(lists.people) == ["s"] and lists.classes["k"].students == ["s"]
    assert [(one.file, one.row) for one in lists.faults] == [
        ("users.csv", 5),
        ("classes.csv", 3),
        *(("enrollments.csv", row) for row in (2, 3, 4, 5)),
    ]


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"no zip", "no ZIP file"),
        (zip_of(), "missing"),
        (zip_of(users=USERS, classes=CLASSES), "enrollments.csv"),
    ],
)
def test_what_is_no_list_is_refused(content, words):
    with pytest.raises(Unreadable, match=words):
        read_zip(content)


def test_lists_of_changes_alone_and_lists_in_another_code_are_refused():
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w") as archive:
        archive.writestr("manifest.csv", "propertyName,value\noneroster.version,1.2\nfile.users,delta\n")
        archive.writestr("users.csv", "sourcedId\n")
    with pytest.raises(Unreadable, match="changes only"):
        read_zip(content.getvalue())
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w") as archive:
        archive.writestr("manifest.csv", "propertyName,value\nJürgen,1".encode("latin-1"))
    with pytest.raises(Unreadable, match="UTF-8"):
        read_zip(content.getvalue())


@given(st.binary(max_size=300), st.lists(st.lists(st.text(max_size=12), max_size=8), max_size=6))
def test_whatever_is_sent_is_read_or_refused(noise, rows):
    for content in (noise, small(rows, rows, rows)):
        try:
            read_zip(content)
        except Unreadable:
            continue


@pytest.fixture
def office(tool, school):
    port = free_port()
    app = create_office(f"http://localhost:{port}")
    server = serve(app, port)
    with school() as session:
        office_lists.set_source(session, None, f"http://localhost:{port}", CLIENT_ID, CLIENT_SECRET, unsafe=True)
        session.commit()
    yield f"http://localhost:{port}"
    server.shutdown()


def test_the_same_comes_by_rest(office):
    by_file, by_rest = read_zip(zipped(courses())), read_address(office, office + "/token", CLIENT_ID, CLIENT_SECRET)
    assert by_rest == by_file


def test_lists_are_taken_over_from_an_address_and_what_came_of_it_is_kept(office, tool, school):
    with tool.app_context():
        assert "8 new" in joining.take_over_office()
        assert "0 new" in joining.take_over_office()
    with school() as session:
        assert session.scalar(select(func.count()).select_from(Work)) == 0
        assert office_lists.source(session)["done"]
        # Nobody was there to whom a class without a listed teacher could be given.
        assert {one.teacher.name for one in session.scalars(select(SchoolClass))} == {"Maud Ellery"}


def test_an_office_that_refuses_or_is_away_changes_nothing(office, tool, school):
    with pytest.raises(NotReached, match="401"):
        read_address(office, office + "/token", CLIENT_ID, "wrong")
    with school() as session:
        office_lists.set_source(session, None, "http://localhost:9", CLIENT_ID, "x", unsafe=True)
        session.commit()
    with tool.app_context():
        assert "could not be reached" in joining.take_over_office()
    assert count(school, Person) == 1


def test_results_go_back_the_same_way(school):
    take(school, read_zip(zipped(courses())))
    with school() as session:
        made = class_named(session, "Rose windows")
        sheet = from_library(session, made.teacher, LIBRARY["midpoint"])
        task = assign(session, sheet, made, proposed(due=datetime(2031, 5, 20)), lambda _task: True)
        by_name = {one.name: one for one in made.students}
        work = Work(assignment_id=task.id, student_id=by_name["Edmund Thrale"].id)
        session.add(work)
        session.flush()
        for attempt, outcome, score in ((1, Outcome.WRONG, 0), (2, Outcome.SOUND, 100), (3, Outcome.FRAGILE, 60)):
            values = {"attempt": attempt, "outcome": outcome, "score": score, "moves": 3, "document": {}, "verdict": {}}
            session.add(HandIn(work_id=work.id, **values))
        entering.enter(session, task, by_name["Frideswide Lowe"], "paper", "85", "on paper")
        entering.enter(session, task, by_name["Cuthbert Vane"], "excused", "", "ill")
        session.flush()
        content = results_zip(*office_lists.results(session))
        session.rollback()
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        files = {name: list(csv.DictReader(io.StringIO(packed.read(name).decode()))) for name in packed.namelist()}
    (item,) = files["lineItems.csv"]
    assert (item["title"], item["classSourcedId"], item["dueDate"]) == ("Midpoint of a segment", "c-2", "2031-05-20")
    reached = {
        one["studentSourcedId"]: (one["scoreStatus"], one["score"], one["comment"]) for one in files["results.csv"]
    }
    assert reached == {
        "s-205": ("fully graded", "100.0", ""),
        "s-206": ("fully graded", "85.0", "on paper"),
        "s-203": ("exempt", "", "ill"),
    }
    assert {one["value"] for one in files["manifest.csv"]} >= {"1.2", "bulk"}


@pytest.fixture
def admin(tool, school):
    client = tool.test_client()
    tool.config["WTF_CSRF_ENABLED"] = False
    host = {"base_url": tool.config["ADDRESS"]}
    client.post("/sign-in", data={"login": "oda", "password": "tracery"}, **host)

    def ask(method, path, **what):
        answer = getattr(client, method)(f"/administration/lists{path}", follow_redirects=True, **host, **what)
        return answer.status_code, answer.get_data(as_text=True)

    yield ask
    tool.config["WTF_CSRF_ENABLED"] = True


def test_an_administrator_looks_through_decides_and_takes_over(admin, school):
    with school() as session:
        session.add(Person(login="maud", name="Maud Ellery", role="teacher", password_hash=""))
        session.commit()
    status, page = admin("post", "", data={"file": (io.BytesIO(zipped(courses())), "lists.zip")})
    assert status == 200 and "Doubtful: 1" in page and "New people</summary>" not in page and "Anselm Rook" in page
    assert count(school, Person) == 2, "nothing is done yet"
    number = page.split('<option value="')[2].split('"')[0]
    status, page = admin("post", "/new", data={"same-t-101": number})
    assert "7 accounts made" in page and "2 classes made" in page
    with school() as session:
        assert {one.teacher.login for one in session.scalars(select(SchoolClass))} == {"maud"}
    status, page = admin("post", "", data={"file": (io.BytesIO(zipped(courses())), "lists.zip")})
    assert "Everything is as it is here already" in page


def test_a_file_as_large_as_may_be_is_kept_whole(school):
    """Larger than what the database takes in one statement."""
    content = random.Random(1).randbytes(office_lists.LARGEST)
    with school() as session:
        by = session.scalars(select(Person)).first()
        office_lists.keep(session, by, b"before")
        office_lists.keep(session, by, content)
        assert office_lists.kept(session, by) == content
        with pytest.raises(Refused, match="larger than 15 MB"):
            office_lists.keep(session, by, content + b"1")
        office_lists.forget(session, by)
        assert office_lists.kept(session, by) is None


def test_large_lists_are_taken_and_wrong_files_are_refused_in_words(admin, school):
    status, page = admin("post", "", data={"file": (io.BytesIO(b"no zip"), "lists.zip")})
    assert status == 422 and "no ZIP file" in page
    status, page = admin("post", "", data={})
    assert status == 422 and "Choose a file" in page
    noise = [[f"u{n}", "", "true", "Given", "x" * 60 + str(n * 7919), f"user{n}", "student"] for n in range(60000)]
    content = small(noise)
    assert len(content) > 1_000_000
    status, page = admin("post", "", data={"file": (io.BytesIO(content), "lists.zip")})
    assert status == 200 and "and 59800 more" in page
    assert "Throw away" in admin("get", "")[1]
    assert "Throw away" not in admin("post", "/drop")[1]
