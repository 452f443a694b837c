"""Tasks as their teachers make them, and giving them to classes."""

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from sqlalchemy import select
from werkzeug.datastructures import MultiDict

from widepin.documents.reading import Unreadable
from widepin.judge.task import Condition
from widepin.judge.verdict import Counts, Outcome, Report, Verdict
from widepin.school.models import Person, SchoolClass, now
from widepin.school.refused import Refused
from widepin.school.results.progress import standings, to_do
from widepin.school.states import Late, Release
from widepin.school.tasks import assigning, settings, sheets
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.scoring import SCORING, score_for, set_for_class, table_of
from widepin.school.works import handins


@pytest.fixture
def sheet(session, first_year):
    return sheets.new_sheet(session, first_year.teacher, LIBRARY["equilateral-triangle"].document(), "Polygons")


def test_a_sheet_that_is_not_assigned_changes_in_place(session, sheet):
    changed = sheets.change(session, sheet, {"title": "Another crown"}, None, "Arches")
    assert changed is sheet and (sheet.title, sheet.topic, sheet.version) == ("Another crown", "Arches", 1)


def test_an_assigned_version_never_changes(session, sheet, first_year):
    assigning.assign(session, sheet, first_year, settings.proposed())
    changed = sheets.change(session, sheet, {"title": "Another crown"}, None, None)
    assert (changed.version, changed.family, changed.title) == (2, sheet.family, "Another crown")
    assert sheet.title == "Equilateral triangle on a side" and sheet.document["title"] == sheet.title
    assert [one.id for one in sheets.own_sheets(session, first_year.teacher) if one.family == sheet.family] == [
        changed.id
    ]


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"given": [{"id": "A", "make": "free_point"}]}, "at"),
        ({"model": [{"id": "c", "make": "circle", "from": ["A", "Z"]}]}, "Z"),
        ({"format": "x"}, "not a field"),
        ({"title": 7}, "title"),
        ({"tools": 5}, "tools: must be a list"),
        ({"wanted": [{"kind": "line"}]}, "wanted\\[0\\].name: must be a text"),
        ({"conditions": ["same"]}, "conditions\\[0\\].of: must be a list"),
    ],
)
def test_what_is_not_well_formed_is_refused_and_nothing_changes(session, sheet, fields, words):
    before = dict(sheet.document)
    with pytest.raises(Unreadable, match=words):
        sheets.change(session, sheet, fields, None, None)
    assert sheet.document == before


def test_the_only_opening_follows_the_names_of_the_given_points(session, sheet):
    locked = {"tool": "circle_radius", "opening": ["A", "B"]}
    given = [{**step, "label": "R"} if step["id"] == "A" else step for step in sheet.document["given"]]
    changed = sheets.change(session, sheet, {"tools": ["line", locked], "given": given}, None, None)
    assert changed.document["tools"] == ["line", {"tool": "circle_radius", "opening": ["R", "B"]}]


@pytest.mark.parametrize(
    "policy", [{"feedback": "all"}, {"attempts": 0}, {"scoring": {"sound": 101}}, {"scoring": {"luck": 1}}]
)
def test_a_policy_is_checked(session, sheet, policy):
    with pytest.raises(Unreadable, match="policy"):
        sheets.change(session, sheet, {}, policy, None)


def test_names_that_a_teacher_gave_become_ids():
    steps: list[dict] = [
        {"id": "A", "make": "free_point", "at": [0, 0], "label": "Foot"},
        {"id": "B", "make": "free_point", "at": [4, 0], "label": "two words"},
        {"id": "s", "make": "segment", "from": ["A", "B"], "label": "Foot"},
    ]
    made = sheets.renamed(steps, sheets.names_given(steps))
    assert [(step["id"], step.get("label")) for step in made] == [("Foot", None), ("B", "two words"), ("s", "Foot")]
    assert made[2]["from"] == ["Foot", "B"]


def test_the_rest_of_the_task_follows_new_names(session, sheet):
    given = [step | ({"label": "Z"} if step["id"] == "A" else {}) for step in sheet.document["given"]]
    sheets.change(session, sheet, {"given": given}, None, None)
    assert sheet.document["model"][0]["from"] == ["Z", "B"]
    assert sheet.document["conditions"][0]["of"] == [["Z", "B"], ["B", "C"], ["C", "Z"]]
    model = [step | ({"label": "Crown"} if step["id"] == "C" else {}) for step in sheet.document["model"]]
    sheets.change(session, sheet, {"model": model}, None, None)
    assert sheet.document["wanted"][0]["name"] == "Crown"
    assert sheets.task_in(sheet).model[-1].id == "Crown"


def test_what_is_done_already_follows_the_model(session, sheet):
    sheets.change(session, sheet, {"start": sheet.document["model"][:1]}, None, None)
    other = [{"id": "e", "make": "circle", "from": ["B", "A"]}, *sheet.document["model"]]
    sheets.change(session, sheet, {"model": other}, None, None)
    assert [step["id"] for step in sheet.document["start"]] == ["e"]


def test_an_unfinished_task_says_what_is_missing(session, first_year):
    sheet = sheets.new_sheet(session, first_year.teacher, sheets.BLANK)
    with pytest.raises(Unreadable, match="given is empty|given: is empty"):
        sheets.task_in(sheet)
    with pytest.raises(sheets.NotSolved, match="not finished"):
        assigning.assign(session, sheet, first_year, settings.proposed())


def test_only_a_task_that_its_model_solves_is_assigned(session, sheet, first_year):
    sheets.change(session, sheet, {"conditions": [{"rel": "on", "of": ["C", "s"]}]}, None, None)
    with pytest.raises(sheets.NotSolved, match="does not solve"):
        assigning.assign(session, sheet, first_year, settings.proposed())


def test_a_class_gets_a_task_once(session, sheet, first_year):
    assigning.assign(session, sheet, first_year, settings.proposed())
    with pytest.raises(Refused, match="already"):
        assigning.assign(session, sheet, first_year, settings.proposed())


@pytest.mark.parametrize("name", sheets.READY_MADE)
def test_ready_made_figures_are_well_formed(name):
    sheets.check_construction("given", {"given": sheets.figure_named(name)})


def rows(session, student, **what):
    return {one.assignment.sheet_id: one for one in to_do(session, student, **what)}


def test_a_task_for_some_students_is_not_there_for_others(session, sheet, first_year):
    chosen, other = first_year.students[:2]
    made = assigning.assign(session, sheet, first_year, settings.proposed(chosen=(chosen,)))
    assert sheet.id in rows(session, chosen) and sheet.id not in rows(session, other)
    assert [one.student for one in standings(session, made)] == [chosen]


def test_a_task_is_closed_before_it_opens_and_until_the_one_before_is_solved(session, sheet, first_year):
    bram = session.scalars(select(Person).where(Person.login == "bram.idris")).one()
    before = next(one for one in to_do(session, bram) if one.standing.best is None).assignment
    made = assigning.assign(
        session, sheet, first_year, settings.proposed(opens=now() + timedelta(days=1), after=before)
    )
    assert "opens on" in rows(session, bram)[sheet.id].closed
    assert "first" in rows(session, bram, at=now() + timedelta(days=2))[sheet.id].closed
    made.after = None
    session.flush()
    assert rows(session, bram, at=now() + timedelta(days=2))[sheet.id].closed is None


def test_late_works_and_attempts_beyond_the_last_are_refused(session, first_year):
    assignment = first_year.assignments[0]
    work = next(work for work in assignment.works if work.hand_ins)
    assignment.attempts, work.returned = len(work.hand_ins), None
    with pytest.raises(handins.NotTaken, match="used up"):
        handins.hand_in(session, work)
    assignment.attempts, assignment.late, assignment.due = None, Late.REFUSED, now() - timedelta(hours=1)
    with pytest.raises(handins.NotTaken, match="late works are refused"):
        handins.hand_in(session, work)
    assignment.late = Late.TAKEN
    assert handins.is_late(handins.hand_in(session, work))


@pytest.mark.parametrize(
    ("form", "words"),
    [
        ({"opens": "2026-03-02T10:00", "due": "2026-03-01T10:00"}, "due before it opens"),
        ({"due": "soon"}, "no date"),
        ({"attempts": "many"}, "1 to 99"),
        ({"late": "burnt"}, "Late works: must be"),
    ],
)
def test_terms_are_checked(session, first_year, form, words):
    with pytest.raises(Refused, match=words):
        settings.read_settings(MultiDict(form), first_year)


def test_terms_are_read(session, first_year):
    student, before = first_year.students[0], first_year.assignments[0]
    form = MultiDict({"attempts": "3", "after": str(before.id), "student": str(student.id), "late": "refused"})
    terms = settings.read_settings(form, first_year)
    assert (terms.after, terms.chosen) == (before, (student,))
    assert terms.values == settings.proposed(attempts=3, late="refused").values


def verdict(outcome, moves=4, **what):
    return Verdict(Outcome(outcome), Counts(moves, moves, ()), **what)


@pytest.mark.parametrize(
    ("given", "budget", "table", "expected"),
    [
        (verdict("sound"), 4, {}, 100),
        (verdict("sound", 6), 4, {"each move over": 10}, 80),
        (verdict("sound", 6), None, {"each move over": 10}, 100),
        (verdict("switching", method_holds=True), 4, {}, SCORING["switching, method holds"]),
        (verdict("switching", method_holds=False), 4, {}, SCORING["switching"]),
        (verdict("fragile"), 4, {"fragile": 60}, 60),
        (verdict("wrong"), 4, {}, 0),
        (verdict("refused"), 4, {}, 0),
        (verdict("eyeballed", 9), 4, {"each move over": 10}, 0),
    ],
)
def test_credit_follows_the_table(given, budget, table, expected):
    assert score_for(given, budget, table) == expected


def test_terms_can_be_changed_and_come_back_as_typed(session, sheet, first_year):
    made = assigning.assign(session, sheet, first_year, settings.proposed())
    form = MultiDict({"due": "2031-05-06T12:00", "late": "refused", "attempts": "2"})
    settings.change(made, settings.read_settings(form, first_year))
    assert settings.as_typed(made) == {
        "opens": "",
        "due": "2031-05-06T12:00",
        "late": "refused",
        "attempts": "2",
        "after": "",
        "weight": "1",
        "demonstration": "never",
        "solution": "never",
        "shortest": "never",
        "reasons": "none",
        "reasons_share": "0",
        "hints": "0",
        "hint_cost": "0",
        "possible": "never",
        "how_far": "no",
    }


def test_no_task_waits_for_itself(session, first_year):
    first, second = first_year.assignments[:2]
    settings.change(second, settings.proposed(after=first))
    with pytest.raises(Refused, match="wait for itself"):
        settings.change(first, settings.proposed(after=second))


def test_tasks_are_moved_among_each_other(session, first_year):
    first, second, third = first_year.assignments[:3]
    assigning.move(first, 1)
    assert [one.position for one in (second, first, third)] == [0, 1, 2]
    assigning.move(second, -1)
    assert second.position == 0


def test_terms_of_several_tasks_are_changed_together_or_not_at_all(session, first_year):
    first, second, third = first_year.assignments[:3]
    for days, one in enumerate((first, second, third), 3):
        one.opens, one.due = None, now() + timedelta(days=days)
    before = [one.due for one in (first, second, third)]
    chosen = [("assignment", str(first.id)), ("assignment", str(second.id))]
    changed = settings.change_several(
        first_year, MultiDict([*chosen, ("days", "7"), ("weight", "3"), ("late", "refused"), ("attempts", "any")])
    )
    assert changed == [first, second]
    assert [one.due - due for one, due in zip((first, second, third), before, strict=True)] == [
        timedelta(days=7),
        timedelta(days=7),
        timedelta(0),
    ]
    assert [(one.weight, one.late, one.attempts) for one in changed] == [(3, Late.REFUSED, None)] * 2
    opens = (second.due - timedelta(hours=1)).isoformat(timespec="minutes")
    for wrong, words in [
        ([("days", "7")], "Select the tasks"),
        (chosen, "what is to be changed"),
        ([*chosen, ("weight", "99")], "Weight"),
        ([*chosen, ("attempts", "some")], "Attempts"),
        ([*chosen, ("opens", opens), ("days", "400")], "Days"),
        ([*chosen, ("opens", opens), ("due", first.due.isoformat())], "before it opens"),
    ]:
        with pytest.raises(Refused, match=words):
            settings.change_several(first_year, MultiDict(wrong))
    assert (first.weight, second.opens) == (3, None)


def test_a_copy_for_another_class_has_the_same_terms(session, first_year):
    other = session.scalars(select(SchoolClass).where(SchoolClass.name == "Second year")).one()
    having = {one.sheet_id for one in other.assignments}
    task = next(one for one in first_year.assignments if one.sheet_id not in having)
    task.weight, task.solution, task.attempts = 2, Release.DUE, 3
    made = assigning.copy_to(session, task, other)
    assert (made.school_class, made.sheet, made.due, made.weight, made.solution, made.attempts) == (
        other,
        task.sheet,
        task.due,
        2,
        Release.DUE,
        3,
    )
    assert made.position == max(one.position for one in other.assignments)
    with pytest.raises(Refused, match="already"):
        assigning.copy_to(session, task, other)


def test_folders_and_the_archive_hold_a_task_in_all_its_versions(session, sheet, first_year):
    assigning.assign(session, sheet, first_year, settings.proposed())
    sheets.set_folder(session, sheet, "  Arches   and  vaults ")
    newer = sheets.change(session, sheet, {"title": "Another crown"}, None, None)
    assert newer.folder == sheet.folder == "Arches and vaults"
    sheets.set_archived(session, newer, True)
    session.refresh(sheet)
    session.refresh(newer)
    assert sheet.archived and newer.archived
    sheets.set_archived(session, newer, False)
    assert next(one for one in sheets.own_sheets(session, first_year.teacher) if one is newer).archived is None
    with pytest.raises(Unreadable, match="60"):
        sheets.set_folder(session, sheet, "x" * 61)


def test_a_task_counts_as_the_librarys_until_it_is_another(session, first_year):
    sheet = sheets.from_library(session, first_year.teacher, LIBRARY["rhombus"])
    assert sheet.library_key == "rhombus"
    assert sheets.from_library(session, first_year.teacher, LIBRARY["rhombus"]) is sheet
    assert sheets.change(session, sheet, {"text": "Another story."}, None, None).library_key == "rhombus"
    assert sheets.change(session, sheet, {"conditions": []}, None, None).library_key is None


def test_a_topic_keeps_to_its_length(session, sheet):
    assert sheets.change(session, sheet, {}, None, "a" * 59 + "bc").topic == "a" * 59 + "b"
    assert sheets.change(session, sheet, {}, None, None).topic == "a" * 59 + "b"  # not asked for


def test_shared_tasks_come_by_their_titles(session, sheet, first_year):
    titles = ("Trefoil", "Arch", "Mullion")
    for title in titles:
        other = sheets.new_sheet(session, first_year.teacher, {**sheet.document, "title": title}, "Arches")
        other.shared = True
    session.flush()
    assert [one.title for one in sheets.shared(session) if one.title in titles] == sorted(titles)


def test_a_class_may_take_off_something_where_only_a_helper_must_be_placed_well(session, first_year):
    assignment = first_year.assignments[0]
    fragile = Verdict(Outcome.FRAGILE, Counts(3), report=Report(provisos=(Condition("meet", ("c", "d")),)))
    assert score_for(fragile, None, table_of(assignment)) == 100
    set_for_class(first_year, MultiDict({"row-0": "80", "row-1": " "}))
    assert score_for(fragile, None, table_of(assignment)) == 80
    assignment.scoring = {"own helper": 95}  # the task says so itself
    assert score_for(fragile, None, table_of(assignment)) == 95
    for typed in ("101", "x", "-1", "1.5"):
        with pytest.raises(Refused, match="from 0 to 100"):
            set_for_class(first_year, MultiDict({"row-0": typed}))
    set_for_class(first_year, MultiDict())
    assert first_year.scoring == {}


def test_a_time_in_the_second_of_the_doubled_hours_stays_where_it_is(session, first_year, monkeypatch):
    monkeypatch.setattr("widepin.documents.clock._zone", ZoneInfo("Europe/Berlin"))
    assignment = first_year.assignments[0]
    first, second = datetime(2031, 10, 26, 0, 30), datetime(2031, 10, 26, 1, 30)  # both are half past two
    for due in (first, second):
        assignment.due = due
        form = MultiDict(settings.as_typed(assignment))
        assert form["due"] == "2031-10-26T02:30"
        settings.change(assignment, settings.read_settings(form, first_year, assignment))
        assert assignment.due == due
    assert settings.read_settings(form, first_year).values["due"] == first, "typed anew it is the first"
