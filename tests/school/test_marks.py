"""Marks of a class, and what a teacher says of a work."""

from io import BytesIO

import pytest
from PIL import Image
from sqlalchemy import select

from tests.counting import queries
from widepin.documents.formats.roster import Name
from widepin.documents.wording.verdict_words import Only, only_in
from widepin.school.models import Person, TaskSheet
from widepin.school.people.roster import add_students
from widepin.school.refused import Refused
from widepin.school.results import entering
from widepin.school.results.marks import (
    ShownRows,
    as_rows,
    history_of,
    mark_of,
    mean_of,
    summary_of,
    table_of,
)
from widepin.school.results.photos import made_anew
from widepin.school.results.progress import to_do
from widepin.school.results.scale import read_scale, scale_of, set_scale
from widepin.school.results.student_page import page_of
from widepin.school.works import handins, phrases, reviewing


@pytest.fixture
def attempt(session, second_year):
    return next(work.hand_ins[-1] for one in second_year.assignments for work in one.works if work.hand_ins)


def test_marks_take_the_same_number_of_queries_however_many_students_and_tasks(session, second_year):
    def read():
        session.expire_all()
        table = table_of(session, second_year)
        return [mark_of(cell) for row in table.rows for cell in row.cells if cell]

    before = queries(session.bind, read)
    add_students(session, second_year, [Name("Student", letter) for letter in "abcdefgh"])
    assert queries(session.bind, read) <= before <= 13


def test_a_cell_has_the_best_credit(session, second_year):
    table = table_of(session, second_year)
    for row in table.rows:
        for cell in row.cells:
            if cell and cell.work and cell.work.hand_ins and not any(one.reason for one in cell.work.hand_ins):
                assert mark_of(cell) == max(one.score for one in cell.work.hand_ins)
                is_right = cell.best.outcome.value == "sound" or only_in(cell.best.verdict) is Only.HELPER
                assert (cell.best.score == 100) == is_right


def test_the_table_has_a_column_per_task_and_a_mean(session, second_year):
    set_scale(session, second_year.teacher, "")
    headings, rows = as_rows(table_of(session, second_year))
    wanted = len(second_year.assignments) + len(second_year.mark_columns)
    assert headings[:3] == ["family name", "given name", "login"] and headings[-1] == "mean"
    assert len(headings) == wanted + 4
    weights = [one.weight for one in (*second_year.assignments, *second_year.mark_columns)]
    given = [(int(cell), weight) for cell, weight in zip(rows[0][3:-1], weights, strict=True) if cell.isdecimal()]
    total = sum(weight for _cell, weight in given)
    assert rows[0][-1] == (str(round(sum(cell * weight for cell, weight in given) / total)) if total else "")


def test_a_students_history_has_every_task_and_how_long_it_took(session, second_year):
    student = next(work.student for one in second_year.assignments for work in one.works if work.hand_ins)
    history = history_of(session, second_year, student)
    assert [one.assignment for one in history] == second_year.assignments
    assert all((one.took is None) == (one.standing.best is None) for one in history)
    assert any(one.took and one.took.total_seconds() > 0 for one in history)


def test_a_task_in_numbers(session, second_year):
    table = table_of(session, second_year)
    found = summary_of(table.column(0))
    done = [one for one in table.column(0) if one.best]
    assert (found.handed_in, found.students) == (len(done), len(table.rows))
    assert min(one.best.moves for one in done) <= found.moves <= max(one.best.moves for one in done)
    assert summary_of([]).moves is None


def test_score_override_counts_and_can_be_taken_back(session, second_year, attempt):
    def mark():
        rows = table_of(session, second_year).rows
        return next(mark_of(cell) for row in rows for cell in row.cells if cell.work is attempt.work)

    before = mark()
    reviewing.set_score(attempt, "42", " a good  idea ")
    assert mark() == 42 and attempt.reason == "a good idea"
    reviewing.set_score(attempt, "", "")
    assert mark() == before and attempt.reason == ""


@pytest.mark.parametrize(
    ("credit", "reason", "words"), [("101", "x", "0 to 100"), ("half", "x", "0 to 100"), ("50", " ", "Say why")]
)
def test_score_override_is_checked(attempt, credit, reason, words):
    with pytest.raises(Refused, match=words):
        reviewing.set_score(attempt, credit, reason)
    assert attempt.score_override is None


def test_a_reason_is_as_long_as_it_may_be_and_no_longer(attempt):
    reviewing.set_score(attempt, "50", "x" * reviewing.LONGEST_REASON)
    assert attempt.score_override == 50
    with pytest.raises(Refused, match="300"):
        reviewing.set_score(attempt, "60", "x" * (reviewing.LONGEST_REASON + 1))
    assert attempt.score_override == 50


def test_comments_are_on_the_work_or_on_a_step_of_it(session, attempt):
    step = attempt.document["steps"][0]["id"]
    for of in ("", step):
        reviewing.comment(session, attempt, attempt.work.student, "Look here", of)
    session.expire_all()
    assert [one.step for one in attempt.comments] == ["", step]


@pytest.mark.parametrize(
    ("text", "step", "words"), [("  ", "", "Write"), ("x" * 1001, "", "1000"), ("x", "zz", "no object")]
)
def test_comments_are_checked(session, attempt, text, step, words):
    with pytest.raises(Refused, match=words):
        reviewing.comment(session, attempt, attempt.work.student, text, step)


def test_a_work_returned_is_taken_once_more(session, attempt):
    attempt.work.assignment.attempts, attempt.work.returned = len(attempt.work.hand_ins), None
    with pytest.raises(handins.NotTaken):
        handins.hand_in(session, attempt.work)
    reviewing.return_work(attempt)
    handins.hand_in(session, attempt.work)
    with pytest.raises(handins.NotTaken):
        handins.hand_in(session, attempt.work)


def test_deleting_a_commentator_leaves_the_work(session, attempt):
    guest = Person(login="guest", name="Guest", role="teacher", password_hash="")
    session.add(guest)
    reviewing.comment(session, attempt, guest, "Well set out")
    session.delete(guest)
    session.flush()
    session.expire_all()
    assert attempt.comments == [] and session.scalars(select(TaskSheet)).first() is not None


def test_a_student_is_told_of_comments_by_others(session, attempt):
    student = attempt.work.student

    def told():
        return next(one.comments for one in to_do(session, student) if one.assignment is attempt.work.assignment)

    before = told()
    reviewing.comment(session, attempt, student, "My own")
    assert told() == before
    reviewing.comment(session, attempt, attempt.work.assignment.school_class.teacher, "Look again")
    assert told() == before + 1


def test_what_is_entered_counts_instead_of_works_and_absence_does_not_count(session, second_year, attempt):
    task, student = attempt.work.assignment, attempt.work.student
    place = second_year.assignments.index(task)

    def row():
        return next(one for one in table_of(session, second_year).rows if one.student is student)

    entering.enter(session, task, student, "paper", "37", " On the  floor ")
    assert row().scores[place] == 37 and row().entered[place].note == "On the floor"
    for kind in ("absent", "excused"):
        entering.enter(session, task, student, kind, "", "")
        others = [(score, one.weight) for one, score in zip(second_year.assignments, row().scores, strict=True)] + [
            (score, one.weight) for one, score in zip(second_year.mark_columns, row().others, strict=True)
        ]
        assert row().scores[place] is None and row().mean == mean_of(others)
        assert as_rows(table_of(session, second_year))[1][second_year.students.index(student)][3 + place] == kind
    entering.enter(session, task, student, "", "", "")
    assert row().entered[place] is None and row().scores[place] == mark_of(row().cells[place])


@pytest.mark.parametrize(
    ("kind", "score", "note", "words"),
    [
        ("ill", "", "", "Choose what"),
        ("paper", "", "", "score from 0 to 100"),
        ("paper", "101", "", "score from 0 to 100"),
        ("paper", "²", "", "score from 0 to 100"),
        ("absent", "", "x" * 301, "300 characters"),
    ],
)
def test_what_is_entered_is_checked(session, attempt, kind, score, note, words):
    with pytest.raises(Refused, match=words):
        entering.enter(session, attempt.work.assignment, attempt.work.student, kind, score, note)
    assert entering.results_of(session, attempt.work.assignment).get(attempt.work.student_id) is None


def photo(size, kind="JPEG", turned=1, **options):
    """A file as a phone writes it: with its device and its place, ``turned`` as Exif says it."""
    image = Image.new("RGB", size, "white")
    image.paste("black", (0, 0, size[0] // 2, size[1] // 2))
    about = Image.Exif()
    about[0x010F], about[0x0112] = "A phone of somebody", turned
    about.get_ifd(0x8825)[1] = "N"
    out = BytesIO()
    image.save(out, kind, exif=about, **options)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG"])
def test_a_photo_is_kept_upright_small_and_without_what_a_phone_tells(kind):
    made = made_anew(photo((3000, 2000), kind, turned=6))
    with Image.open(BytesIO(made)) as image:
        assert image.format == "JPEG" and image.size == (1067, 1600)
        assert not image.getexif() and b"phone" not in made
        grey = image.convert("L")
        assert sum(grey.crop((600, 50, 1000, 450)).tobytes()) < sum(grey.crop((50, 50, 450, 450)).tobytes()) / 4


def test_what_is_no_photo_or_far_too_large_is_refused(monkeypatch):
    whole = photo((400, 300))
    for wrong in (b"", b"GIF89a", b"\xff\xd8\xff" + bytes(2000), b"%PDF-1.7", b"<svg/>"):
        with pytest.raises(Refused, match="cannot be read"):
            made_anew(wrong)
    monkeypatch.setattr("widepin.school.results.photos.MOST_PIXELS", {"JPEG": 100_000, "PNG": 100_000})
    with pytest.raises(Refused, match="pixels"):
        made_anew(whole)


def test_a_photo_stays_with_what_is_entered(session, attempt):
    task, student = attempt.work.assignment, attempt.work.student
    with pytest.raises(Refused, match="cannot be read"):
        entering.keep_photo(session, task, student, b"GIF89a")
    entering.keep_photo(session, task, student, photo((40, 30)))
    session.flush()
    session.expire_all()
    kept = entering.results_of(session, task)[student.id]
    assert kept.photo.startswith(b"\xff\xd8") and (kept.photo_type, kept.kind) == ("image/jpeg", "paper")
    assert kept.score is None
    entering.enter(session, task, student, "paper", "50", "")
    entering.remove_photo(session, task, student)
    assert (kept.photo, kept.score) == (None, 50)


def test_columns_of_other_marks_count_by_their_weight_and_change_as_a_whole(session, second_year):
    column = entering.add_column(session, second_year, "Oral", "3")
    first, second, *_others = second_year.students
    entering.change_column(session, column, "Oral", "3", {first.id: "80", second.id: ""})
    session.expire_all()
    assert {mark.student_id: mark.score for mark in column.marks} == {first.id: 80}
    with pytest.raises(Refused, match=first.name):
        entering.change_column(session, column, "Spoken", "1", {second.id: "70", first.id: "much"})
    assert column.title == "Oral" and len(column.marks) == 1
    for title, weight, words in (("oral ", "1", "already"), ("", "1", "title"), ("Essay", "21", "from 0 to 20")):
        with pytest.raises(Refused, match=words):
            entering.add_column(session, second_year, title, weight)
    assert mean_of([(80, 3), (100, 1), (None, 5), (0, 0)]) == 85 and mean_of([(50, 0)]) is None


def test_rows_are_sorted_and_chosen(session, second_year):
    table = table_of(session, second_year)
    means = [row.mean for row in table.shown(ShownRows.ALL, "mean")]
    known = [mean for mean in means if mean is not None]
    assert known == sorted(known, reverse=True) and means[: len(known)] == known
    assert {row.student.id for row in table.shown(ShownRows.OPEN, "name")} == {
        row.student.id for row in table.rows if row.has_open
    }
    assert all(row.has_to_mend for row in table.shown(ShownRows.TO_MEND, str(table.tasks[0].id)))


def test_the_schools_scale(session, second_year):
    assert read_scale(" 50  passed\n\n0 failed").as_text() == "50 passed\n0 failed"
    for text, words in (
        ("passed", "Line 1"),
        ("101 x", "Line 1"),
        ("5 " + "x" * 21, "20"),
        ("5 a\n5 b", "Line 2"),
        ("\n".join(f"{n} m" for n in range(31)), "30"),
    ):
        with pytest.raises(Refused, match=words):
            read_scale(text)
    set_scale(session, second_year.teacher, "60 good\n0 weak")
    scale = scale_of(session)
    assert [scale.mark(one) for one in (60, 59, None)] == ["good", "weak", ""]
    headings, rows = as_rows(table_of(session, second_year))
    assert headings[-1] == "mark" and {row[-1] for row in rows} <= {"good", "weak", ""}


def test_a_student_is_told_what_was_entered(session, attempt):
    task, student = attempt.work.assignment, attempt.work.student
    entering.enter(session, task, student, "excused", "", "In the quarry")
    told = next(one for one in to_do(session, student) if one.assignment is task)
    assert told.entered.note == "In the quarry"


def test_phrases_are_kept_once_and_are_ones_own(session, second_year):
    teacher = second_year.teacher
    before = len(phrases.of(session, teacher))
    for words in ("Look at A again.", " Look at A again. ", ""):
        phrases.keep(session, teacher, words)
    kept = [one for one in phrases.of(session, teacher) if one.text == "Look at A again."]
    assert len(kept) == 1 and len(phrases.of(session, teacher)) == before + 1
    phrases.remove(session, second_year.students[0], kept[0].id)
    assert kept[0] in phrases.of(session, teacher)
    phrases.remove(session, teacher, kept[0].id)
    assert len(phrases.of(session, teacher)) == before
    for number in range(phrases.MOST_PHRASES - before):
        phrases.keep(session, teacher, f"Phrase {number}")
    with pytest.raises(Refused, match="already"):
        phrases.keep(session, teacher, "One more")


def test_the_page_of_a_student_has_topics_mistakes_and_every_attempt(session, second_year):
    student = next(
        work.student
        for one in second_year.assignments
        for work in one.works
        if any(hand_in.outcome.value == "wrong" for hand_in in work.hand_ins)
    )
    page = page_of(session, second_year, student)
    attempts = [one for chapter in page.history if chapter.standing.work for one in chapter.standing.work.hand_ins]
    assert len(page.scored) == len(attempts)
    assert [one.handed_in for one in page.scored] == sorted(one.handed_in for one in attempts)
    assert sum(topic.tasks for topic in page.topics) == len(page.history)
    assert sum(topic.solved for topic in page.topics) == page.solved
    failed = [one for one in attempts if one.outcome.value not in ("sound", "fragile")]
    assert sum(len(mistake.attempts) for mistake in page.mistakes) == len(failed) > 0
    counts = [len(mistake.attempts) for mistake in page.mistakes]
    assert counts == sorted(counts, reverse=True)
    assert set(page.figures) == {chapter.standing.best.id for chapter in page.history if chapter.standing.best}
