"""Graded series, and judging again by a newer version."""

import pytest

from widepin.documents.formats.operations import add
from widepin.documents.formats.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.refused import Refused
from widepin.school.results.progress import to_do
from widepin.school.tasks import graded_series, settings, sheets
from widepin.school.tasks.library import LIBRARY
from widepin.school.works import again, handins
from widepin.school.works.autosave import store, work_of


@pytest.mark.parametrize("key", LIBRARY)
def test_every_level_is_solved_by_the_rest_of_the_model(key):
    document = LIBRARY[key].document()
    series = graded_series.levels(document)
    assert [one["budget"]["moves"] for one in series] == sorted({one["budget"]["moves"] for one in series})
    assert series[-1]["start"] == [] and series[-1]["budget"]["moves"] == LIBRARY[key].moves
    for one in series:
        task = read_task(one)
        verdict = judge(task, Work(task.model[len(task.start) :]), report=False)
        assert verdict.outcome is Outcome.SOUND and verdict.counts.moves == one["budget"]["moves"]


def test_a_level_opens_when_the_one_below_is_solved(session, first_year):
    sheet = sheets.new_sheet(session, first_year.teacher, LIBRARY["midpoint"].document())
    made = graded_series.assign_series(session, sheet, first_year, settings.proposed())
    assert [one.after for one in made] == [None, *made[:-1]]
    student = first_year.students[0]
    closed = [one.closed for one in to_do(session, student) if one.assignment in made]
    assert [(one.level, one.levels) for one in made] == [(number, len(made)) for number in range(1, len(made) + 1)]
    assert closed[0] is None and all("level 1 of" in words or "first" in words for words in closed[1:])


def test_levels_are_solved_one_after_the_other(session, first_year):
    sheet = sheets.new_sheet(session, first_year.teacher, LIBRARY["midpoint"].document())
    made = graded_series.assign_series(session, sheet, first_year, settings.proposed())
    student = first_year.students[0]
    assert solved(session, student, made) == [0, 0, 0]
    task = read_task(made[0].sheet.document)
    work = work_of(session, made[0], student)
    for number, step in enumerate(task.model[len(task.start) :]):
        store(session, work, f"level-step-{number}", number, add(step))
    session.refresh(work)
    handins.hand_in(session, work)
    session.expire_all()
    assert solved(session, student, made) == [1, 1, 0]


def solved(session, student, made):
    """The levels solved, as each level's own card shows it."""
    rows = {one.assignment.id: one.solved for one in to_do(session, student)}
    return [rows[one.id] for one in made]


def test_a_model_of_one_move_makes_no_graded_series(session, first_year):
    sheet = sheets.new_sheet(session, first_year.teacher, LIBRARY["carry-a-length"].document())
    with pytest.raises(Refused, match="too few moves"):
        graded_series.assign_series(session, sheet, first_year, settings.proposed())


def test_judging_again_gives_the_same_verdicts_and_goes_on_where_it_stopped(session, first_year):
    assignment = first_year.assignments[0]
    attempts = [one for work in assignment.works for one in work.hand_ins]
    before = {one.id: (one.outcome, one.verdict, one.score) for one in attempts}
    progress = again.judge_again(session, assignment, 0, seconds=0)
    assert (progress.done, progress.total) == (1, len(attempts))
    for number in range(2, len(attempts) + 1):
        progress = again.judge_again(session, assignment, progress.last, seconds=0)
        assert progress.done == number
    assert {one.id: (one.outcome, one.verdict, one.score) for one in attempts} == before


def test_a_newer_version_is_judged_by_its_own_rules(session, first_year):
    assignment = first_year.assignments[0]
    assert again.newer_version(session, assignment) is None
    newer = sheets.change(session, assignment.sheet, {"tools": ["line"]}, None, None)
    assert again.newer_version(session, assignment) is newer
    work = next(work for work in assignment.works if any(one.outcome is Outcome.SOUND for one in work.hand_ins))
    by_hand = work.hand_ins[-1]
    by_hand.score_override = 77
    assignment.sheet = newer
    again.judge_again(session, assignment, 0, seconds=60)
    assert {one.outcome for one in work.hand_ins} == {Outcome.REFUSED}
    assert (by_hand.score, by_hand.score_override) == (0, 77)


@pytest.fixture
def series(session, first_year):
    sheet = sheets.new_sheet(session, first_year.teacher, LIBRARY["midpoint"].document())
    return sheet, graded_series.assign_series(session, sheet, first_year, settings.proposed())


def test_a_changed_task_reaches_all_levels_of_its_series(session, series):
    sheet, levels = series
    assert all(again.newer_version(session, level) is None for level in levels)
    sheets.change(session, sheet, {"text": "Halve it.", "tools": ["line", "circle", "points"]}, None, None)
    assert all(again.newer_version(session, level) is sheet for level in levels)
    before = [level.sheet for level in levels]
    changed = again.take_version(session, levels[1])
    assert changed == levels and all(level.sheet not in before for level in levels)
    for level, old in zip(levels, before, strict=True):
        assert level.sheet.document["text"] == "Halve it." and level.sheet.version == old.version + 1
        assert level.sheet.document["start"] == old.document.get("start") and level.sheet.title == old.title
        assert again.newer_version(session, level) is None
    assert again.take_version(session, levels[0]) == []


def test_a_series_that_would_have_other_levels_says_why_it_stays(session, series):
    sheet, levels = series
    before = [level.sheet for level in levels]
    model = sheet.document["model"]
    longer = [*model[:-1], {"id": "h", "make": "line", "from": ["A", "B"]}, model[-1]]
    sheets.change(session, sheet, {"model": longer}, None, None)
    with pytest.raises(sheets.NotSolved, match="3 levels, and 4"):
        again.take_version(session, levels[0])
    assert [level.sheet for level in levels] == before


def test_the_answer_that_was_pointed_out_is_judged_again(session, first_year):
    assignment = first_year.assignments[0]
    work = next(work for work in assignment.works if work.hand_ins)
    some = work.hand_ins[-1].document["steps"][0]["id"]
    attempt = handins.hand_in(session, work, {"m": some})
    before = attempt.outcome
    again.judge_again(session, assignment, attempt.id - 1, seconds=60)
    assert attempt.outcome is before and attempt.document["answer"] == {"m": some}
