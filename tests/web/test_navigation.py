"""The main navigation: entries by role, texts that are translated, and at most one entry that is current."""

import re
from types import ModuleType

import pytest

from widepin.documents.language import marked
from widepin.school.models import Person
from widepin.school.states import Role
from widepin.web.navigation import Entry, Navigation

TWO = ModuleType("results")
vars(TWO)["NAVIGATION"] = (
    Entry("Marks", "results.marks", Role.TEACHER, ("results",), 2),
    Entry("Practice", "results.practice", Role.TEACHER, ("results",), 1),
    Entry("Keys", "results.keys", Role.TEACHER, ("results",), 3, administrators_only=True),
    Entry("Tasks", "tasks.index", Role.STUDENT, ("tasks",), 1),
)
TEACHER = Person(role=Role.TEACHER, administrator=False)


@pytest.mark.parametrize(
    ("endpoint", "words"),
    [
        ("results.marks", "Marks"),
        ("results.practice", "Practice"),
        ("results.export", "Practice"),  # the first of its feature
        ("results.keys", "Practice"),  # its own entry is for administrators
        ("tasks.index", None),
        (None, None),
    ],
)
def test_one_entry_is_current_where_a_feature_has_two(endpoint, words):
    current = Navigation([TWO]).current(TEACHER, endpoint)
    assert (current.words if current else None) == words


def test_entries_stand_in_their_order_and_for_their_role():
    navigation = Navigation([TWO])
    assert [entry.words for entry in navigation(TEACHER)] == ["Practice", "Marks"]
    administrator = Person(role=Role.TEACHER, administrator=True)
    assert [entry.words for entry in navigation(administrator)] == ["Practice", "Marks", "Keys"]


def test_entries_are_marked_for_translation(app):
    """A bare word in a blueprint would never be gathered."""
    from tests.test_boundaries import SRC

    for path in SRC.glob("widepin/web/*/blueprint.py"):
        assert not re.search(r'Entry\(\s*"', path.read_text()), path.parent.name
    assert marked("Classes") == "Classes"


@pytest.mark.parametrize(
    ("login", "path", "current"),
    [
        ("corin.hale", "/classes", ("page", "Classes")),
        ("corin.hale", "/classes/1/practice", ("true", "Classes")),
        ("corin.hale", "/library/kite", ("true", "Task library")),
        ("corin.hale", "/account", None),
        ("bram.idris", "/tasks", ("page", "Tasks")),
    ],
)
def test_the_current_entry_is_told(as_person, login, path, current):
    text = as_person(login).get(path).text
    found = re.findall(r'aria-current="(page|true)">([^<]+)</a>', text.partition("</nav>")[0])
    assert found == ([current] if current else [])
