"""Everything is said as it was when it was last looked over (see tests/recorded/__init__.py)."""

import pytest

from tests.recorded.outcomes import RECORDS, compare
from tests.recorded.school import demo_school, of_school


@pytest.mark.parametrize("name", RECORDS)
def test_works_and_tasks_are_told_what_they_were_told(name):
    compare(name, RECORDS[name]())


def test_the_demo_school_is_as_it_was(tmp_path):
    with demo_school(tmp_path) as session:
        compare("school", of_school(session))
