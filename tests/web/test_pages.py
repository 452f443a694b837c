"""Pages: what they say, and how they behave when something is wrong."""

import pytest

from tests.zoo import JUMPING_GABLE
from widepin.web.app import create_app
from widepin.web.drawing.views import book
from widepin.web.signin.views import local


def test_a_wrong_password_says_what_to_do_and_keeps_the_login(app):
    answer = app.test_client().post("/sign-in", data={"login": "bram.idris", "password": "no"})
    assert answer.status_code == 422
    assert "ask your teacher" in answer.text and 'value="bram.idris"' in answer.text


@pytest.mark.parametrize(
    ("target", "allowed"),
    [
        ("/tasks/3", True),
        ("//evil.example", False),
        ("https://evil.example/", False),
        ("/\\evil", False),
        ("", False),
        (None, False),
    ],
)
def test_after_signing_in_nobody_is_sent_elsewhere(target, allowed):
    assert bool(local(target)) == allowed


def test_signing_in_leads_on_to_the_page_that_was_asked_for(app):
    client = app.test_client()
    asked = client.get("/tasks")
    assert "next=" in asked.location
    answer = client.post("/sign-in", data={"login": "ilse.marran", "password": "tracery", "next": "/tasks"})
    assert answer.location == "/tasks"


def test_a_form_without_its_token_is_refused(app):
    guarded = create_app({**app.config, "WTF_CSRF_ENABLED": True})
    answer = guarded.test_client().post("/sign-out")
    assert answer.status_code == 400 and "Load it again" in answer.text
    told = guarded.test_client().post("/tasks/1/operations", json={}, headers={"Accept": "application/json"})
    assert told.status_code == 401 and told.json["sign_in"] == "/sign-in", "nobody is signed in any more"


def test_pages_allow_no_inline_script_or_style(as_person):
    answer = as_person("corin.hale").get("/classes")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy and "unsafe-inline" not in policy
    assert " style=" not in answer.text and "<style" not in answer.text and " onclick" not in answer.text


def test_the_tool_book_may_be_kept_for_ever_under_its_version(app):
    client = app.test_client()
    answer = client.get(f"/tool-book/{book()[1]}.json")
    assert "immutable" in answer.headers["Cache-Control"]
    assert client.get("/tool-book/older.json").status_code == 404


def test_a_class_shows_who_has_handed_in_what(as_person):
    page = as_person("corin.hale").get("/classes").text
    assert "First year" in page and "Second year" in page
    link = page.split('class="tile" href="')[1].split('"')[0]
    page = as_person("corin.hale").get(link).text
    assert "Bram Idris" in page and "Centre line of a sill" in page and "handed in" in page


def test_an_assignment_says_in_words_what_must_be_built(as_person):
    client = as_person("corin.hale")
    page = client.get("/assignments/1").text
    assert "m is the perpendicular bisector of AB" in page
    assert "circle by radius" in page and "data-figure" in page


def test_a_request_that_fails_stores_nothing(app, as_person, fresh_student):
    client = as_person(fresh_student("failing"))
    board = "/tasks/7"
    bad = {
        "key": "some-key-1",
        "after": 0,
        "operation": {"op": "add", "step": {"id": "x", "make": "midpoint", "from": ["O", "A"]}},
    }
    answer = client.post(f"{board}/operations", json=bad)
    assert answer.status_code in (422, 404)
    assert client.get(f"{board}/operations").json["operations"] == []


@pytest.mark.parametrize(
    "sent",
    [[], {}, {"key": "short", "after": 0}, {"key": "long-enough", "after": "0"}, {"key": "long-enough", "after": True}],
)
def test_what_is_no_operation_is_answered_with_words(as_person, sent):
    answer = as_person("ilse.marran").post("/tasks/7/operations", json=sent)
    assert answer.status_code == 422 and answer.json["error"]


def test_who_is_behind_gets_what_was_missed(as_person, fresh_student):
    client = as_person(fresh_student("behind"))
    operation = {"op": "move", "points": {"A": [1, 1]}}
    first = client.post("/tasks/7/operations", json={"key": "first-key", "after": 0, "operation": operation})
    assert first.status_code == 200 and first.json["number"] == 1
    second = client.post("/tasks/7/operations", json={"key": "second-key", "after": 0, "operation": operation})
    assert second.status_code == 409 and [one["key"] for one in second.json["operations"]] == ["first-key"]
    again = client.post("/tasks/7/operations", json={"key": "first-key", "after": 0, "operation": operation})
    assert again.status_code == 200 and again.json["number"] == 1


def test_a_begun_task_says_so(as_person, fresh_student):
    client = as_person(fresh_student("beginner"))
    assert "Begun" not in client.get("/tasks").text
    client.post(
        "/tasks/7/operations",
        json={"key": "first-key", "after": 0, "operation": {"op": "move", "points": {"A": [1, 1]}}},
    )
    assert "Begun" in client.get("/tasks").text


def test_an_empty_board_is_not_handed_in(as_person, fresh_student):
    client = as_person(fresh_student("empty"))
    answer = client.post("/tasks/7/hand-in", follow_redirects=True)
    assert "nothing on the board" in answer.text


def test_a_broken_address_gets_a_page_with_a_way_out(as_person):
    answer = as_person("ilse.marran").get("/nowhere")
    assert answer.status_code == 404 and "To the first page" in answer.text


def test_a_teacher_chooses_how_much_a_hand_in_tells(as_person, fresh_student):
    teacher, student = as_person("corin.hale"), as_person(fresh_student("helped"))
    line = {"op": "add", "step": {"id": "m", "make": "ray", "from": ["A", "F"]}}
    point = {"op": "add", "step": {"id": "F", "make": "free_point", "at": [8.13, 5.66]}}
    for after, operation in enumerate([point, line]):
        student.post("/tasks/7/operations", json={"key": f"help-key-{after}", "after": after, "operation": operation})
    page = student.post("/tasks/7/hand-in").location
    assert "placed by eye" in student.get(page).text and "Where it breaks" in student.get(page).text
    for level, shown, hidden in (
        ("result", "for you to find", "was placed by eye"),
        ("conditions", "m is the bisector of angle BAC", "was placed by eye"),
        ("break", "placed by eye", "for you to find"),
    ):
        answer = teacher.post("/assignments/7/feedback", data={"feedback": level}, follow_redirects=True)
        assert answer.status_code == 200 and "From now on" in answer.text
        seen = student.get(page).text
        assert shown in seen and hidden not in seen
        assert ("Where it breaks" in seen) == (level == "break")
        assert "placed by eye" in teacher.get(page).text, "the teacher always sees everything"


def handed_in(client, steps):
    """The page of a hand-in of these steps."""
    for after, step in enumerate(steps):
        sent = {"key": f"gable-key-{after}", "after": after, "operation": {"op": "add", "step": step}}
        assert client.post("/tasks/7/operations", json=sent).status_code == 200
    return client.post("/tasks/7/hand-in").location


def test_the_report_is_on_the_page_and_a_mend_goes_to_the_board(as_person, fresh_student):
    student = as_person(fresh_student("mending"))
    page = handed_in(student, JUMPING_GABLE)
    seen = student.get(page).text
    for words in ("Make F the intersection of d and e farther from A", "What stays true", "Step by step"):
        assert words in seen
    board = student.post(f"{page}/mend", data={"place": 0}, follow_redirects=True)
    assert "F is made the other way now" in board.text and board.request.path == "/tasks/7"
    student.post("/tasks/7/operations", json={"key": "one-back", "after": 7, "operation": {"op": "undo"}})
    student.post("/tasks/7/operations", json={"key": "two-back", "after": 8, "operation": {"op": "undo"}})
    student.post("/tasks/7/operations", json={"key": "three-back", "after": 9, "operation": {"op": "undo"}})
    assert "no longer fits" in student.post(f"{page}/mend", data={"place": 0}, follow_redirects=True).text
    assert student.post(f"{page}/mend", data={"place": 5}).status_code == 404


def test_less_help_offers_no_mend(as_person, fresh_student):
    teacher, student = as_person("corin.hale"), as_person(fresh_student("no-mends"))
    page = handed_in(student, JUMPING_GABLE)
    teacher.post("/assignments/7/feedback", data={"feedback": "conditions"})
    seen = student.get(page).text
    assert "Make F the intersection" not in seen and "What stays true" not in seen and "Step by step" in seen
    assert student.post(f"{page}/mend", data={"place": 0}).status_code == 404
    teacher.post("/assignments/7/feedback", data={"feedback": "break"})
    assert "Make F the intersection" in teacher.get(page).text


def test_half_an_answer_is_not_handed_in(as_person, fresh_student):
    student = as_person(fresh_student("half-answer"))
    handed_in(student, JUMPING_GABLE)
    answer = student.post("/tasks/7/hand-in", data={"answer": ["m", "F"]}, follow_redirects=True)
    assert "Point out every part of the answer" in answer.text
    wrong = student.post("/tasks/7/hand-in", data={"answer": ["nothing"]}, follow_redirects=True)
    assert "which is not on the board" in wrong.text


def test_scripts_and_styles_are_compressed_and_pages_are_not(as_person):
    client = as_person("ilse.marran")
    asked = {"Accept-Encoding": "br, gzip"}
    assert client.get("/static/vendor/bootstrap.min.css", headers=asked).headers["Content-Encoding"] == "br"
    assert client.get("/static/board/board.js", headers=asked).headers["Content-Encoding"] == "br"
    assert "Content-Encoding" not in client.get("/tasks", headers=asked).headers


def test_a_teacher_switches_measures_and_finding_off_and_on(as_person, fresh_student):
    teacher, student = as_person("corin.hale"), as_person(fresh_student("strict"))
    handed_in(student, JUMPING_GABLE)
    teacher.post("/assignments/7/feedback", data={"feedback": "break", "may": [""]})
    measure = {"key": "measure-key", "after": 6, "operation": {"op": "measure", "of": ["A", "B"]}}
    assert student.post("/tasks/7/operations", json=measure).status_code == 422
    assert '"measuring": false' in student.get("/tasks/7").text
    assert "Point out the answer" in student.post("/tasks/7/hand-in", follow_redirects=True).text
    assert student.post("/tasks/7/hand-in", data={"answer": ["m"]}).status_code == 302
    teacher.post("/assignments/7/feedback", data={"feedback": "break", "may": ["", "measure", "find", "locus"]})
    assert student.post("/tasks/7/operations", json=measure).status_code == 200
    assert "/hand-ins/" in student.post("/tasks/7/hand-in").location
