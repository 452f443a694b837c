"""The list of what a quick run holds names tests that there are, of every layer."""

import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
QUICK = [line for line in (ROOT / "tests/quick.txt").read_text().splitlines() if line and not line.startswith("#")]


def test_every_entry_is_a_test():
    for entry in QUICK:
        path, _, name = entry.partition("::")
        text = (ROOT / path).read_text()
        assert not name or re.search(rf"^def {name}\(", text, re.M), entry


def test_every_layer_is_in_it():
    parts = {Path(entry.partition("::")[0]).parts[1] for entry in QUICK}
    assert parts >= {"plane", "judge", "reason", "documents", "school", "web", "browser"}
