"""Who may: every URL of the app, for everybody."""

import pytest
from flask import g
from sqlalchemy import select

from widepin.school.models import Assignment, ClassTool, HandIn, MarkColumn, Person, SchoolClass, TaskSheet, Work
from widepin.school.people import removing
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.sheets import new_sheet
from widepin.school.works import reviewing
from widepin.web.programs.endpoints import ENDPOINTS

OK, AWAY, NO = 200, 302, 404

ADMINISTRATION = (
    "people",
    "person_data",
    "ask_erase",
    "classes",
    "ask_teachers",
    "library",
    "sign_ins",
    "log",
    "marks",
    "retention",
    "status",
    "platforms",
    "ask_platform",
    "provider",
    "lists",
    "activity",
    "results",
)
OF_PLATFORMS = {
    "look_through": "GET",
    "ask_change_platform": "GET",
    "ask_remove_platform": "GET",
    "change_platform": "POST",
    "check_platform": "POST",
    "try_again": "POST",
    "remove_platform": "POST",
}
"""Pages and deeds of a platform that there is not, and of lists that nobody has brought."""
ADMINISTRATION_DEEDS = {
    "invite": 422,
    "reset": NO,  # the person of the test is a student
    "withdraw": 422,
    "set_administrator": NO,
    "set_presence": NO,
    "set_name_order": 422,
    "erase": NO,
    "set_teachers": NO,
    "unshare": NO,
    "set_scale": 302,
    "set_retention": 422,
    "erase_outdated": 409,
    "register_platform": 422,
    "make_platform_link": 302,
    "renew_key": 302,
    "set_provider": 422,
    "remove_provider": 302,
    "bring_lists": 422,
    "take_lists_over": 302,
    "drop_lists": 302,
    "set_lists_source": 302,
    "ask_lists_now": 302,
    "set_activity": 302,
}

# endpoint: (method, anonymous, teacher of the class, another teacher, student concerned, student of another class)
TABLE = {
    "home": ("GET", AWAY, AWAY, AWAY, AWAY, AWAY),
    "static": ("GET", OK, OK, OK, OK, OK),
    "static_now": ("GET", OK, OK, OK, OK, OK),
    "signin.form": ("GET", OK, AWAY, AWAY, AWAY, AWAY),
    "signin.enter": ("POST", 422, 422, 422, 422, 422),
    "signin.enter_by_code": ("POST", 422, 422, 422, 422, 422),
    "signin.leave": ("POST", AWAY, AWAY, AWAY, AWAY, AWAY),
    "demonstrations.of_library": ("GET", AWAY, OK, OK, NO, NO),
    "demonstrations.library_file": ("GET", AWAY, OK, OK, NO, NO),
    "demonstrations.of_sheet": ("GET", AWAY, OK, NO, NO, NO),
    "demonstrations.sheet_file": ("GET", AWAY, OK, NO, NO, NO),
    "demonstrations.save": ("POST", AWAY, 400, NO, NO, NO),
    "demonstrations.discard": ("POST", AWAY, AWAY, NO, NO, NO),
    "demonstrations.of_task": ("GET", AWAY, NO, NO, 403, NO),
    "demonstrations.library_handout": ("GET", AWAY, OK, OK, NO, NO),
    "demonstrations.sheet_handout": ("GET", AWAY, OK, NO, NO, NO),
    "demonstrations.begin": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "demonstrations.record": ("POST", AWAY, 422, NO, NO, NO),
    "demonstrations.of_own": ("GET", AWAY, NO, NO, NO, NO),  # nothing is recorded
    "demonstrations.of_shared": ("GET", AWAY, NO, NO, NO, NO),
    "demonstrations.of_assignment": ("GET", AWAY, NO, NO, 403, NO),
    "demonstrations.shared": ("GET", AWAY, NO, NO, NO, NO),
    "demonstrations.of_work": ("POST", AWAY, AWAY, NO, NO, NO),
    "guide.index": ("GET", AWAY, OK, OK, NO, NO),
    "guide.reasons": ("GET", AWAY, OK, OK, OK, OK),
    "guide.reason": ("GET", AWAY, OK, OK, OK, OK),
    "marks.results": ("GET", AWAY, OK, NO, NO, NO),
    "marks.enter": ("POST", AWAY, AWAY, NO, NO, NO),
    "marks.photo": ("GET", AWAY, NO, NO, NO, NO),
    "marks.keep_photo": ("POST", AWAY, 422, NO, NO, NO),
    "marks.add_column": ("POST", AWAY, AWAY, NO, NO, NO),
    "marks.column": ("GET", AWAY, OK, NO, NO, NO),
    "marks.change_column": ("POST", AWAY, 422, NO, NO, NO),
    "marks.ask_remove_column": ("GET", AWAY, OK, NO, NO, NO),
    "marks.remove_column": ("POST", AWAY, AWAY, NO, NO, NO),
    "practice.index": ("GET", AWAY, NO, NO, OK, OK),
    "practice.begin": ("POST", AWAY, NO, NO, AWAY, AWAY),
    "practice.of_class": ("GET", AWAY, OK, NO, NO, NO),
    "practice.set_topics": ("POST", AWAY, AWAY, NO, NO, NO),
    "practice.works": ("GET", AWAY, AWAY, NO, NO, NO),
    "terms.several": ("GET", AWAY, OK, NO, NO, NO),
    "terms.change_several": ("POST", AWAY, 422, NO, NO, NO),
    "terms.set_scoring": ("POST", AWAY, AWAY, NO, NO, NO),
    "terms.copy": ("POST", AWAY, NO, NO, NO, NO),
    "tasks.solutions": ("GET", AWAY, NO, NO, OK, NO),
    "account.set_proofs": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "account.remove_phrase": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "sheets.organise": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "today.index": ("GET", AWAY, OK, OK, NO, NO),
    "today.dismiss_path": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "classes.index": ("GET", AWAY, OK, OK, NO, NO),
    "classes.school_class": ("GET", AWAY, OK, NO, NO, NO),
    "classes.as_csv": ("GET", AWAY, OK, NO, NO, NO),
    "classes.assignment": ("GET", AWAY, OK, NO, NO, NO),
    "classes.groups": ("GET", AWAY, OK, NO, NO, NO),
    "classes.projector": ("GET", AWAY, OK, NO, NO, NO),
    "classes.several": ("POST", AWAY, 400, NO, NO, NO),
    "classes.changes": ("GET", AWAY, 400, NO, NO, NO),
    "classes.replay": ("GET", AWAY, OK, NO, NO, NO),
    "classes.hint": ("GET", AWAY, OK, NO, NO, NO),
    "classes.send_hint": ("POST", AWAY, 422, NO, NO, NO),
    "tasks.how_far": ("POST", AWAY, NO, NO, 422, NO),
    "classes.copy_task": ("POST", AWAY, AWAY, NO, NO, NO),
    "classes.take_version": ("POST", AWAY, 400, NO, NO, NO),
    "classes.judge_again": ("POST", AWAY, OK, NO, NO, NO),
    "classes.on_paper": ("GET", AWAY, OK, NO, NO, NO),
    "sheets.on_paper": ("GET", AWAY, OK, NO, NO, NO),
    "handins.on_paper": ("GET", AWAY, OK, NO, OK, NO),
    "classes.set_terms": ("POST", AWAY, AWAY, NO, NO, NO),
    "classes.set_place": ("POST", AWAY, AWAY, NO, NO, NO),
    "classes.ask_remove": ("GET", AWAY, OK, NO, NO, NO),
    "classes.remove": ("POST", AWAY, AWAY, NO, NO, NO),
    "classes.student": ("GET", AWAY, OK, NO, NO, NO),
    "classes.set_feedback": ("POST", AWAY, 422, NO, NO, NO),
    "roster.create": ("POST", AWAY, 422, 422, NO, NO),
    "roster.index": ("GET", AWAY, OK, NO, NO, NO),
    "roster.read": ("POST", AWAY, 422, NO, NO, NO),
    "roster.add": ("POST", AWAY, 422, NO, NO, NO),
    "roster.as_csv": ("GET", AWAY, OK, NO, NO, NO),
    "roster.name_cards": ("GET", AWAY, OK, NO, NO, NO),
    "roster.class_data": ("GET", AWAY, OK, NO, NO, NO),
    "roster.student_data": ("GET", AWAY, OK, NO, NO, NO),
    "roster.rename_class": ("POST", AWAY, 422, NO, NO, NO),
    "roster.set_time_zone": ("POST", AWAY, AWAY, NO, NO, NO),
    "roster.copy": ("POST", AWAY, 422, NO, NO, NO),
    "roster.rename": ("POST", AWAY, 422, NO, NO, NO),
    "roster.ask_renew": ("GET", AWAY, OK, NO, NO, NO),
    "roster.ask_renew_all": ("GET", AWAY, OK, NO, NO, NO),
    "roster.ask_erase": ("GET", AWAY, OK, NO, NO, NO),
    "removed.index": ("GET", AWAY, OK, OK, NO, NO),
    "removed.restore": ("POST", AWAY, AWAY, NO, NO, NO),
    "removed.ask_erase": ("GET", AWAY, OK, NO, NO, NO),
    "removed.erase": ("POST", AWAY, AWAY, NO, NO, NO),
    "handins.remove_comment": ("POST", AWAY, AWAY, NO, NO, NO),
    "classes.judging": ("GET", AWAY, OK, NO, NO, NO),
    "classes.stop_judging": ("POST", AWAY, OK, NO, NO, NO),
    "roster.ask_remove_class": ("GET", AWAY, OK, NO, NO, NO),
    "roster.move": ("POST", AWAY, NO, NO, NO, NO),
    # What would change the school for the other tests is tried on classes of their own in tests/browser/test_desk.py.
    **{
        f"roster.{deed}": ("POST", AWAY, AWAY, NO, NO, NO)
        for deed in ("renew", "renew_all", "archive", "remove", "erase", "remove_class")
    },
    "class_tools.index": ("GET", AWAY, OK, NO, NO, NO),
    "class_tools.from_task": ("GET", AWAY, NO, NO, NO, NO),
    "class_tools.ask_model": ("GET", AWAY, OK, NO, NO, NO),
    "class_tools.give_model": ("POST", AWAY, NO, NO, NO, NO),
    "class_tools.ask_work": ("GET", AWAY, OK, NO, NO, NO),
    "class_tools.give_work": ("POST", AWAY, NO, NO, NO, NO),
    "class_tools.ask_remove": ("GET", AWAY, OK, NO, NO, NO),
    "class_tools.remove": ("POST", AWAY, AWAY, NO, NO, NO),
    "sheets.library": ("GET", AWAY, OK, OK, NO, NO),
    "sheets.library_task": ("GET", AWAY, OK, OK, NO, NO),
    "sheets.known_as_json": ("GET", AWAY, OK, OK, NO, NO),
    "sheets.take": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "sheets.create": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "sheets.read": ("POST", AWAY, AWAY, AWAY, NO, NO),
    **{
        f"sheets.{page}": ("GET", AWAY, OK, NO, NO, NO)
        for page in ("sheet", "draw", "as_json", "ask_assign", "proof", "why")
    },
    "sheets.save": ("POST", AWAY, OK, NO, NO, NO),
    "sheets.propose": ("POST", AWAY, 422, NO, NO, NO),
    "sheets.try_out": ("POST", AWAY, OK, NO, NO, NO),
    "sheets.fewest": ("POST", AWAY, OK, NO, NO, NO),
    "sheets.judge_trial": ("POST", AWAY, 422, NO, NO, NO),
    "sheets.copy": ("POST", AWAY, AWAY, NO, NO, NO),
    "sheets.remove": ("POST", AWAY, AWAY, NO, NO, NO),
    "sheets.assign": ("POST", AWAY, 422, NO, NO, NO),
    "sheets.take_back": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "tasks.index": ("GET", AWAY, NO, NO, OK, OK),
    "tasks.board": ("GET", AWAY, NO, NO, OK, NO),
    "tasks.operations": ("GET", AWAY, NO, NO, OK, NO),
    "tasks.store": ("POST", AWAY, NO, NO, 422, NO),
    "tasks.here": ("POST", AWAY, NO, NO, OK, NO),
    "tasks.claims": ("POST", AWAY, NO, NO, 400, NO),
    "tasks.hint": ("POST", AWAY, NO, NO, OK, NO),
    "tasks.import_steps": ("POST", AWAY, NO, NO, 422, NO),
    "tasks.hand_in": ("POST", AWAY, NO, NO, AWAY, NO),
    "handins.hand_in": ("GET", AWAY, OK, NO, OK, NO),
    "handins.give_reasons": ("POST", AWAY, NO, NO, NO, NO),
    "handins.why": ("GET", AWAY, NO, NO, NO, NO),
    "sheets.why_known": ("GET", AWAY, OK, OK, NO, NO),
    "handins.comment": ("POST", AWAY, 422, NO, 422, NO),
    "handins.set_score": ("POST", AWAY, AWAY, NO, NO, NO),
    "handins.return_work": ("POST", AWAY, AWAY, NO, NO, NO),
    "handins.mend": ("POST", AWAY, NO, NO, 400, NO),
    "drawing.tool_book": ("GET", OK, OK, OK, OK, OK),
    "signin.second": ("GET", AWAY, AWAY, AWAY, AWAY, AWAY),
    "signin.enter_second": ("POST", AWAY, AWAY, AWAY, AWAY, AWAY),
    "welcome.link": ("GET", NO, NO, NO, NO, NO),
    "welcome.use": ("POST", NO, NO, NO, NO, NO),
    "account.index": ("GET", AWAY, OK, OK, NO, NO),
    "account.set_password": ("POST", AWAY, 422, 422, NO, NO),
    "account.second_factor": ("GET", AWAY, OK, OK, NO, NO),
    "account.set_second_factor": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "account.end_second_factor": ("POST", AWAY, 422, 422, NO, NO),
    "account.new_codes": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "account.end_session": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "account.end_others": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "account.programs": ("GET", AWAY, OK, OK, NO, NO),
    "account.make_token": ("POST", AWAY, 422, 422, NO, NO),
    "account.end_token": ("POST", AWAY, AWAY, AWAY, NO, NO),
    "calendar.index": ("GET", AWAY, OK, OK, OK, OK),
    "calendar.renew": ("POST", AWAY, AWAY, AWAY, AWAY, AWAY),
    "calendar.end": ("POST", AWAY, AWAY, AWAY, AWAY, AWAY),
    "calendar.feed": ("GET", NO, NO, NO, NO, NO),  # who has the secret: test_calendar.py
    "programs.description": ("GET", OK, OK, OK, OK, OK),
    # Whoever is signed in: there a token counts alone, see test_programs.py.
    **{f"programs.{one.name}": (one.method, *[401] * 5) for one in ENDPOINTS},
    "sheets.share": ("POST", AWAY, AWAY, NO, NO, NO),
    "sheets.shared_task": ("GET", AWAY, NO, NO, NO, NO),
    "sheets.take_shared": ("POST", AWAY, NO, NO, NO, NO),
    "sheets.original_seen": ("POST", AWAY, AWAY, NO, NO, NO),
    "sheets.keep_wrong": ("POST", AWAY, 400, NO, NO, NO),
    "sheets.remove_wrong": ("POST", AWAY, 422, NO, NO, NO),
    "roster.set_colleagues": ("POST", AWAY, AWAY, NO, NO, NO),
    "waiting.stop": ("POST", *[AWAY] * 5),  # of what nobody waits for
    "health.alive": ("GET", OK, OK, OK, OK, OK),
    "health.ready": ("GET", OK, OK, OK, OK, OK),
    "health.metrics": ("GET", OK, OK, OK, OK, OK),
    "roster.class_file": ("GET", AWAY, OK, NO, NO, NO),
    "roster.bring_in": ("POST", AWAY, AWAY, AWAY, NO, NO),  # with nothing in it
    "platforms.login": ("GET", *[400] * 5),  # who comes from where: tests/joining
    "platforms.launch": ("POST", *[OK] * 5),  # sent once more, with the cookie
    "platforms.about": ("GET", *[NO] * 5),
    "platforms.keys": ("GET", *[OK] * 5),
    "platforms.first_visit": ("GET", *[403] * 5),
    "platforms.go_on": ("POST", *[403] * 5),
    "platforms.choose": ("GET", AWAY, 403, 403, NO, NO),
    "platforms.chosen": ("POST", AWAY, 403, 403, NO, NO),
    "platforms.take_over": ("POST", AWAY, NO, NO, NO, NO),  # of a course that there is not
    "single_sign_on.begin": ("GET", *[NO] * 5),  # none is set: tests/joining
    "single_sign_on.back": ("GET", *[403] * 5),
    "single_sign_on.signed_out": ("POST", *[NO] * 5),
    "platforms.register": ("GET", *[403] * 5),
    "platforms.sign_in_first": ("GET", *[AWAY] * 5),
    **{f"administration.{page}": (method, AWAY, NO, NO, NO, NO) for page, method in OF_PLATFORMS.items()},
    **{f"administration.{page}": ("GET", AWAY, NO, NO, NO, NO) for page in ADMINISTRATION},
    **{f"administration.{deed}": ("POST", AWAY, NO, NO, NO, NO) for deed in ADMINISTRATION_DEEDS},
}
JSON = ("tasks.store", "tasks.import_steps", "sheets.save", "sheets.propose", "sheets.try_out")
PEOPLE = ["", "corin.hale", "other.teacher", "bram.idris", "ilse.marran"]


@pytest.fixture
def another_teacher(app):
    """A teacher without classes, who has the first week before her whatever ran before."""
    with app.extensions["sessions"]() as session:
        teacher = session.scalars(select(Person).where(Person.login == "other.teacher")).one_or_none()
        if teacher is None:
            known = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
            teacher = Person(login="other.teacher", name="Other", role="teacher", password_hash=known.password_hash)
            session.add(teacher)
        teacher.first_week = True
        session.commit()


@pytest.fixture
def parameters(app):
    """Ids that concern Bram Idris, of the first year."""
    with app.extensions["sessions"]() as session:
        attempt = session.scalars(select(HandIn).join(Work).join(Person).where(Person.login == "bram.idris")).first()
        return {
            "class_id": session.scalars(select(SchoolClass.id).where(SchoolClass.name == "First year")).one(),
            "assignment_id": attempt.work.assignment_id,
            "hand_in_id": attempt.id,
            "work_id": attempt.work_id,
            "person_id": attempt.work.student_id,
            "sheet_id": a_sheet(session),
            "removal_id": a_removal(session),
            "comment_id": a_comment(session, attempt),
            "class_tool_id": class_tool_geometry(session),
            "key": "midpoint",
            "anchor": "angle-sum-of-a-triangle",
            "part": "model",
            "filename": "look/look.css",
            "token": "no-such-link",
            "token_id": 0,
            "secret": "no-such-secret",
            "session_id": 0,
            "platform_id": 0,
            "course_id": 0,
            "phrase_id": 0,
            "digest": "0" * 64,
            "place": 0,
            "link_id": 0,
            "column_id": session.scalars(
                select(MarkColumn.id).join(SchoolClass).where(SchoolClass.name == "First year")
            ).first(),
        }


def a_sheet(session):
    """A task of the first year's teacher that nobody else uses."""
    teacher = session.scalars(select(Person).where(Person.login == "corin.hale")).one()
    made = new_sheet(session, teacher, LIBRARY["perpendicular-bisector"].document())
    session.commit()
    return made.id


def a_removal(session):
    """Something that the first year's teacher removed."""
    removal = removing.remove_task(session, *owner_and_sheet(session))
    session.commit()
    return removal.id


def owner_and_sheet(session):
    found = session.get_one(TaskSheet, a_sheet(session))
    return found.owner, found


SAID = "Look at the apex."


def a_comment(session, attempt):
    """A comment of the first year's teacher on an attempt; one for all tests, since an attempt takes only so many."""
    teacher = attempt.work.assignment.school_class.teacher
    there = next((one.id for one in attempt.comments if one.author_id == teacher.id and one.text == SAID), None)
    if there is not None:
        return there
    made = reviewing.comment(session, attempt, teacher, SAID)
    session.commit()
    return made.id


def class_tool_geometry(session):
    """A class tool of the first year's teacher."""
    return session.scalars(select(ClassTool.id)).first()


def test_the_table_names_every_url(app):
    assert {rule.endpoint for rule in app.url_map.iter_rules()} == set(TABLE)


@pytest.fixture(scope="module")
def signed_in(app):
    """A client of everybody's, signed in once."""
    clients = {}

    def client_of(login):
        if login not in clients:
            clients[login] = app.test_client()
            if login:
                entered = clients[login].post("/sign-in", data={"login": login, "password": "tracery"})
                assert entered.status_code == 302
        return clients[login]

    return client_of


def done_and_taken_back(response):
    """What stands in for the end of a request: the database does what it did, and forgets it."""
    if "session" in g:
        g.session.flush()
        g.session.rollback()


@pytest.mark.parametrize("endpoint", TABLE)
def test_who_may(app, as_person, signed_in, another_teacher, parameters, endpoint, monkeypatch):
    """Every cell is tried. What it does is stored and taken back again, so that the next one finds things as they were."""
    method, *expected = TABLE[endpoint]
    monkeypatch.setattr("widepin.web.sheets.views.SEARCH_SECONDS", 0.1)  # what is found is not the matter here
    rule = next(rule for rule in app.url_map.iter_rules() if rule.endpoint == endpoint and method in rule.methods)
    with app.test_request_context():
        from widepin.web.drawing.views import book

        values = {**parameters, "version": book()[1]}
        path = app.url_for(endpoint, **{name: values[name] for name in rule.arguments})
    for login, status in zip(PEOPLE, expected, strict=True):
        client = (
            as_person(login) if endpoint.startswith(("signin.", "account.", "platforms.sign_in")) else signed_in(login)
        )
        with monkeypatch.context() as patched:
            patched.setattr("widepin.web.database.finish", done_and_taken_back)
            answer = client.open(path, method=method, json={} if endpoint in JSON else None)
        assert answer.status_code == status, (login, answer.status_code, answer.text[:300])
        if login == "" and status == AWAY and endpoint != "signin.leave":
            assert "/sign-in" in answer.location


def test_an_administrator_sees_the_school(app, as_person, parameters):
    client = as_person("oda.finch")
    for page in ADMINISTRATION:
        wanted = NO if page in ("person_data", "ask_erase") else OK  # of a student: teachers look after those
        with app.test_request_context():
            values = {"ask_teachers": {"class_id": parameters["class_id"]}}.get(page, {})
            values = {"person_id": parameters["person_id"]} if wanted == NO else values
            path = app.url_for(f"administration.{page}", **values)
        assert client.get(path).status_code == wanted, page
    for deed, wanted in ADMINISTRATION_DEEDS.items():
        with app.test_request_context():
            rule = next(one for one in app.url_map.iter_rules() if one.endpoint == f"administration.{deed}")
            path = app.url_for(rule.endpoint, **{name: parameters[name] for name in rule.arguments})
        assert client.post(path).status_code == wanted, deed


def test_a_colleague_teaches_the_class_and_cannot_give_it_away(app, as_person):
    client = as_person("oda.finch")
    with app.extensions["sessions"]() as session:
        numbers = {one.name: one.id for one in session.scalars(select(SchoolClass))}
    assert client.get(f"/classes/{numbers['Second year']}").status_code == OK
    assert client.get(f"/classes/{numbers['First year']}").status_code == NO
    assert client.post(f"/classes/{numbers['Second year']}/colleagues").status_code == NO
    assert client.get(f"/classes/{numbers['Second year']}/remove").status_code == NO


def test_a_student_does_not_see_the_hand_in_of_a_classmate(app, as_person, parameters):
    path = f"/hand-ins/{parameters['hand_in_id']}"
    assert as_person("nell.farrow").get(path).status_code == 404
    assert as_person("bram.idris").get(path).status_code == 200


def test_a_student_only_stores_in_the_own_work(app, as_person, parameters):
    client = as_person("nell.farrow")
    path = f"/tasks/{parameters['assignment_id']}/operations"
    with app.extensions["sessions"]() as session:
        before = len(session.scalars(select(Work).join(Person).where(Person.login == "bram.idris")).first().operations)
    step = {"op": "add", "step": {"id": "zz", "make": "circle", "from": ["A", "B"]}}
    after = len(client.get(path).json["operations"])
    assert client.post(path, json={"key": "from-nell", "after": after, "operation": step}).status_code == 200
    with app.extensions["sessions"]() as session:
        bram = session.scalars(select(Work).join(Person).where(Person.login == "bram.idris")).first()
        assert len(bram.operations) == before


def test_unknown_numbers_do_not_exist(as_person):
    client = as_person("corin.hale")
    assert {client.get(path).status_code for path in ("/classes/999", "/assignments/999", "/hand-ins/999")} == {404}


def test_every_assignment_of_the_demo_that_waits_for_nothing_opens_for_its_students(app, as_person):
    client = as_person("ilse.marran")
    with app.extensions["sessions"]() as session:
        ids = list(
            session.scalars(
                select(Assignment.id)
                .join(SchoolClass)
                .where(SchoolClass.name == "Second year", Assignment.after_id.is_(None))
            )
        )
    assert {client.get(f"/tasks/{id_}").status_code for id_ in ids} == {200}
