"""The task library and the making of tasks over HTTP: what comes in, what goes out, what is refused."""

import io
import json

import pytest
from sqlalchemy import select

from tests.papers import paper_from
from widepin.school.database import make_sessions
from widepin.school.models import Assignment, Membership, Person, TaskSheet
from widepin.school.tasks.library import LIBRARY
from widepin.web.sheets import views


@pytest.fixture
def teacher(as_person):
    return as_person("corin.hale")


@pytest.fixture
def sheet(teacher):
    """The path of a sheet of the teacher's."""
    return teacher.post("/library/midpoint/take").location


def test_a_task_goes_out_as_json_and_comes_back_the_same(teacher, sheet):
    text = teacher.get(f"{sheet}/task.json").data
    assert json.loads(text) == LIBRARY["midpoint"].document()
    answer = teacher.post("/sheets/read", data={"file": (io.BytesIO(text), "task.json")})
    assert json.loads(teacher.get(f"{answer.location}/task.json").data) == json.loads(text)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (b"not JSON", "not JSON"),
        (b"{}", "widepin.task/1"),
        (json.dumps(LIBRARY["midpoint"].document() | {"wanted": []}).encode(), "wanted"),
    ],
)
def test_a_file_that_is_no_task_is_refused_with_the_place(teacher, text, words):
    answer = teacher.post("/sheets/read", data={"file": (io.BytesIO(text), "bad.json")}, follow_redirects=True)
    assert "bad.json cannot be taken" in answer.text and words in answer.text


@pytest.mark.parametrize(
    ("sent", "words"),
    [
        ([], "curly braces"),
        ({"document": []}, "document"),
        ({"document": {"given": "x"}}, "Must be"),
        ({"document": {"owner": 1}}, "not a field"),
        ({"policy": {"attempts": -1}}, "policy"),
    ],
)
def test_what_cannot_be_stored_is_said_and_nothing_is_stored(teacher, sheet, sent, words):
    before = teacher.get(f"{sheet}/task.json").data
    answer = teacher.post(sheet, json=sent)
    assert answer.status_code == 422 and words in answer.json["error"]
    assert teacher.get(f"{sheet}/task.json").data == before


def test_a_change_to_an_assigned_task_is_answered_with_the_address_of_its_next_version(teacher, sheet):
    new = teacher.post("/classes", data={"name": f"For {sheet}"}).location.split("/")[2]
    assert teacher.post(f"{sheet}/assign", data={"class": new}).status_code == 302
    answer = teacher.post(sheet, json={"document": {"title": "The same, anew"}}).json
    assert answer["version"] == 2 and answer["urls"]["page"] != sheet
    assert json.loads(teacher.get(f"{sheet}/task.json").data)["title"] == "Midpoint of a segment"


@pytest.mark.parametrize("missing", ["given", "model", "wanted", "conditions"])
def test_an_unfinished_version_is_not_given_to_a_class(teacher, sheet, missing):
    new = teacher.post("/classes", data={"name": f"Keeps {sheet} {missing}"}).location.split("/")[2]
    overview = teacher.post(f"{sheet}/assign", data={"class": new}).location
    teacher.post(sheet, json={"document": {missing: []}})
    answer = teacher.post(f"{overview}/version", follow_redirects=True)
    assert "The class keeps version 1. The task is not finished yet" in answer.text
    assert "version 1" in teacher.get(overview).text and "Give the class version 2" in teacher.get(overview).text


def test_a_version_whose_model_does_not_solve_it_is_not_given_either(teacher, sheet):
    new = teacher.post("/classes", data={"name": f"Keeps all {sheet}"}).location.split("/")[2]
    overview = teacher.post(f"{sheet}/assign", data={"class": new}).location
    teacher.post(sheet, json={"document": {"conditions": [{"rel": "distinct", "of": ["A", "A"]}]}})
    assert "does not solve this task" in teacher.post(f"{overview}/version", follow_redirects=True).text


def test_one_task_that_cannot_be_read_breaks_no_list(school, as_person, fresh_student):
    client = as_person(fresh_student("sees-a-broken-task"))
    with make_sessions(school)() as session:
        own = select(Assignment).join(TaskSheet).join(Membership, Membership.class_id == Assignment.class_id)
        veteran = own.join(Person, Person.id == Membership.person_id).where(Person.login == "ilse.marran")
        broken = session.scalars(veteran.where(TaskSheet.title == "Circumcircle of a triangle")).first()
        sheet, whole = broken.sheet, broken.sheet.document
        sheet.document = {**whole, "given": []}
        session.commit()
        try:
            listed = client.get("/tasks")
            assert (
                listed.status_code == 200 and "cannot be opened" in listed.text and "Roundel in a gable" in listed.text
            )
            board = client.get(f"/tasks/{broken.id}")
            assert board.status_code == 422 and "Its teacher can correct it" in board.text
        finally:
            sheet.document = whole
            session.commit()


def test_an_unfinished_task_is_not_assigned_and_not_worked(teacher):
    sheet = teacher.post("/sheets", data={"figure": ""}).location
    for path in ("assign", "draw/trial", "handout.pdf"):
        answer = teacher.get(f"{sheet}/{path}")
        assert answer.status_code == 400 and "not finished yet" in answer.text
    assert "Not finished yet" in teacher.post(f"{sheet}/check_task", json={}).json["error"]


@pytest.mark.parametrize(("steps", "words"), [("[]", "nothing"), ("{", "not JSON"), ('[{"id": 1}]', "[0]")])
def test_a_trial_that_cannot_be_read_is_refused(teacher, sheet, steps, words):
    answer = teacher.post(f"{sheet}/judge", data={"steps": steps})
    assert answer.status_code == 422 and words in answer.json["error"]


def test_a_part_that_does_not_exist_is_not_drawn(teacher, sheet):
    assert teacher.get(f"{sheet}/draw/roof").status_code == 404


@pytest.mark.parametrize(
    ("query", "title"), [("words=hexagon", "Regular hexagon in a circle"), ("topic=Parallels", "Midline of a triangle")]
)
def test_the_library_is_searched_by_words_and_topic(teacher, query, title):
    found = teacher.get(f"/library?{query}").text
    assert title in found and "Plumb line" not in found


def test_nothing_found_says_so(teacher):
    assert "No task matches" in teacher.get("/library?words=zzz").text


def test_a_handout_is_a_pdf_with_and_without_arcs(teacher, sheet):
    plain, arcs = paper_from(teacher, f"{sheet}/handout.pdf"), paper_from(teacher, f"{sheet}/handout.pdf?arcs=1")
    assert plain.data.startswith(b"%PDF") and arcs.data.startswith(b"%PDF") and plain.data != arcs.data


def test_a_ladder_needs_more_than_one_move(teacher):
    sheet = teacher.post("/library/carry-a-length/take").location
    new = teacher.post("/classes", data={"name": f"Series {sheet}"}).location.split("/")[2]
    answer = teacher.post(f"{sheet}/assign", data={"class": new, "series": "on"})
    assert answer.status_code == 422 and "too few moves" in answer.text


def test_a_teacher_switches_the_places_in_the_elements_off_and_on(teacher):
    def places():
        return {line["elements"] for line in teacher.get("/library/midpoint/why").json["lines"]}

    assert "name no places" in teacher.post("/account/proofs", data={}, follow_redirects=True).text
    assert places() == {""}
    teacher.post("/account/proofs", data={"elements": "yes"})
    assert "I.10" in places()


def test_the_proof_of_an_own_task_is_that_of_its_sample_solution(teacher, sheet):
    assert f'data-why="{sheet}/why"' in teacher.get(f"{sheet}/proof").text
    known = teacher.get("/library/midpoint/why").json
    assert known["lines"] and teacher.get(f"{sheet}/why").json == known
    copied = teacher.post("/library/centroid/take").location
    assert teacher.get(f"{copied}/why").json == teacher.get("/library/centroid/why").json
    model = teacher.get(f"{sheet}/task.json").json["model"]
    teacher.post(sheet, json={"document": {"model": [*model[:-1], {"id": "M", "make": "free_point", "at": [5, 3.5]}]}})
    assert "does not solve the task" in teacher.get(f"{sheet}/why").json["said"]
    empty = teacher.post("/sheets", data={}).location
    assert teacher.get(f"{empty}/proof").status_code == 400


def test_the_proof_of_what_only_asks_for_the_sample_solution_is_that_of_its_property(teacher):
    lines = teacher.get("/library/centroid/why").json["lines"]
    assert [line["words"] for line in lines[-2:]] == ["AS : AM = 2 : 3", "BS : BN = 2 : 3"]
    said = teacher.get("/library/nine-point-circle/why").json
    assert said["lines"] == [] and "nothing to prove" in said["said"]


def test_a_search_for_the_fewest_moves_goes_on_where_it_was_stopped(teacher, school, monkeypatch):
    monkeypatch.setattr(views, "SEARCH_SECONDS", 1.0)
    page = teacher.post("/library/circumcircle/take").location
    known = []
    for _ in range(2):
        answer = teacher.post(f"{page}/fewest").json
        assert answer["goes_on"] and "The search was stopped there" in answer["said"]
        with make_sessions(school)() as session:
            known.append(session.get_one(TaskSheet, int(page.rsplit("/", 1)[-1])).fewest)
    first, second = known
    assert second["states"] > first["states"] and second["places"] >= first["places"]
