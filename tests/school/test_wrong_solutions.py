"""Wrong solutions are kept with a task, follow its names, and go along into versions and copies."""

import pytest
from sqlalchemy import select

from widepin.documents.reading import Unreadable
from widepin.plane.steps import IllFormed
from widepin.school.models import Person
from widepin.school.refused import Refused
from widepin.school.tasks import sheets, wrong_solutions
from widepin.school.tasks.assigning import assign
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.settings import proposed

BY_EYE = [{"id": "M", "make": "free_point", "at": [4.0, 4.0]}]


@pytest.fixture
def sheet(session, first_year):
    return sheets.new_sheet(session, first_year.teacher, LIBRARY["midpoint"].document())


def test_one_is_kept_once_and_removed(session, sheet):
    for _ in range(2):
        wrong_solutions.keep(session, sheet, BY_EYE)
    assert sheet.wrong == [BY_EYE]
    wrong_solutions.remove(session, sheet, 0)
    assert sheet.wrong == []
    with pytest.raises(Refused, match="removed already"):
        wrong_solutions.remove(session, sheet, 0)


def test_what_is_no_solution_is_refused(session, sheet):
    for bad in ([], "steps", [{"id": "M"}]):
        with pytest.raises(Unreadable):
            wrong_solutions.keep(session, sheet, bad)
    with pytest.raises(IllFormed):
        wrong_solutions.keep(session, sheet, [{"id": "l", "make": "line", "from": ["A", "Z"]}])
    for number in range(wrong_solutions.MOST):
        wrong_solutions.keep(session, sheet, [{"id": "M", "make": "free_point", "at": [float(number), 1.0]}])
    with pytest.raises(Refused, match="remove one first"):
        wrong_solutions.keep(session, sheet, BY_EYE)


def test_they_follow_the_names_of_the_given_figure(session, sheet):
    wrong_solutions.keep(session, sheet, [{"id": "l", "make": "line", "from": ["A", "B"]}])
    given = [{**step, "label": "P"} if step["id"] == "A" else step for step in sheet.document["given"]]
    changed = sheets.change(session, sheet, {"given": given}, None, None)
    assert changed.wrong == [[{"id": "l", "make": "line", "from": ["P", "B"]}]]


def test_a_new_version_has_all_that_belongs_to_the_task(session, sheet, first_year):
    wrong_solutions.keep(session, sheet, BY_EYE)
    sheet.demonstration = {"frames": []}
    sheet.shared, sheet.folder, sheet.topic = True, "Sills", "Segments"
    sheet.fewest = {"moves": 3}
    assign(session, sheet, first_year, proposed())
    newer = sheets.change(session, sheet, {"budget": {"moves": 4}}, None, None)
    assert newer is not sheet and newer.version == 2
    assert (newer.wrong, newer.demonstration, newer.shared, newer.folder) == (
        [BY_EYE],
        {"frames": []},
        True,
        "Sills",
    )
    assert newer.fewest is None  # it was found for other limits


def test_a_copy_has_them_too_and_knows_where_it_comes_from(session, sheet):
    wrong_solutions.keep(session, sheet, BY_EYE)
    other = session.scalars(select(Person).where(Person.login == "oda.finch")).one()
    sheet.shared = True
    made = sheets.copy_of(session, other, sheet)
    assert (made.wrong, made.owner, made.copied_from, made.shared) == ([BY_EYE], other, sheet.id, False)
    assert sheets.changed_original(session, made) is None
    assert sheets.from_colleague(session, other, sheet) is made
    sheet.changed = made.copied.replace(year=made.copied.year + 1)
    assert sheets.changed_original(session, made) is sheet
    sheet.shared = False
    assert sheets.changed_original(session, made) is None
