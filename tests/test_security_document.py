"""docs/security.md names tests and places in the code; all of them are there."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
DOCUMENT = (ROOT / "docs" / "security.md").read_text()
TESTS = "\n".join(path.read_text() for path in (ROOT / "tests").rglob("test_*.py"))


@pytest.mark.parametrize("name", sorted(set(re.findall(r"\btest_[a-z_]+\b(?!\.py)", DOCUMENT))))
def test_a_test_that_is_named_exists(name):
    assert f"def {name}(" in TESTS


@pytest.mark.parametrize("path", sorted(set(re.findall(r"\b[\w/]+\.(?:py|html)\b", DOCUMENT))))
def test_a_file_that_is_named_exists(path):
    places = (ROOT, ROOT / "src/widepin", ROOT / "tests", ROOT / "src/widepin/web", ROOT / "src/widepin/web/templates")
    assert any((place / path).exists() for place in places)


def test_every_point_of_the_chapters_is_there_once():
    points = []
    for first in re.findall(r"^\| ([\d., to]+) \|", DOCUMENT, re.M):
        points += re.findall(r"\d+(?:\.\d+)+", first)
    assert len(points) == len(set(points)) and len(points) > 120
    assert {point.split(".")[0] for point in points} == {"2", "3", "4", "5", "7", "8", "11", "12", "13", "14"}
