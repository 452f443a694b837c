"""Other ways through tasks of the library, some of which showed what rules were missing and some kept aside since, and
works of other tasks of school geometry.
"""

from __future__ import annotations

from pathlib import Path

import pytest

from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.task import read_work
from widepin.documents.formats.verdict import judge_document
from widepin.documents.reasons.proofs import proof_of

CASES = Path(__file__).parents[1] / "cases"
BUNDLES = [path for folder in ("ways", "aside", "school") for path in sorted((CASES / folder).glob("*.json"))]

OPEN = {
    ("centroid", "other medians"),  # needs a point that nobody drew, the midpoint of the third side
    ("add-two-lengths", "the other one first"),  # sums of lengths
    ("golden-section", "on the other side"),
    ("shortest-path", "the other one mirrored"),
    ("perpendicular-bisector", "halving an angle"),  # no second point of the bisector is drawn
    ("way-by-a-mirror-equal-angles", "as written"),  # mirror images that were not made by one step
}
"""Works of which the rules do not prove all."""


@pytest.mark.parametrize("path", BUNDLES, ids=lambda path: f"{path.parent.name}/{path.stem}")
def test_other_ways_are_proved_too(path):
    bundle = read_bundle(path)
    for name, value in bundle.works:
        verdict = judge_document(bundle.task, value)
        assert verdict.outcome == "sound", name
        proof = proof_of(bundle.task, read_work(value), verdict)
        assert (proof is None) is ((path.stem, name) in OPEN), name
