"""What a line of a proof says, for every relation that facts have."""

import pytest

from widepin.documents.formats.task import read_task
from widepin.documents.reasons.proof_words import fact_in_words
from widepin.documents.wording.words import Words
from widepin.reason.facts import Fact, Rel
from widepin.school.tasks.library import LIBRARY

WORDS = Words(read_task(LIBRARY["perpendicular-bisector"].document()))

SAID = {
    Rel.EQUAL_LENGTH: ((("A", "C"), ("B", "C")), "AC = BC"),
    Rel.EQUAL_ANGLE: ((("A", "C", "M"), ("B", "C", "M")), "angle ACM = angle BCM"),
    Rel.ANGLE: ((("A", "M", "C"),), "angle AMC = 22.5°"),
    Rel.RIGHT_ANGLE: ((("A", "M", "C"),), "angle AMC is a right angle"),
    Rel.PARALLEL: (("g", ("B", "C")), "g ∥ BC"),
    Rel.PERPENDICULAR: (("g", ("B", "C")), "g ⊥ BC"),
    Rel.COLLINEAR: (("A", "M", "B"), "A, M and B lie on one line"),
    Rel.CONCYCLIC: (("A", "B", "C", "D"), "A, B, C and D lie on one circle"),
    Rel.MIDPOINT: (("M", "A", "B"), "M is the midpoint of AB"),
    Rel.ON: (("P", "k"), "P lies on k"),
    Rel.TANGENT: (("k", "t"), "k touches t"),
    Rel.CONGRUENT: ((("A", "C", "D"), ("B", "C", "D")), "triangles ACD and BCD are congruent"),
    Rel.SIMILAR: ((("A", "B", "C"), ("D", "E", "F")), "triangles ABC and DEF are similar"),
    Rel.RATIO: ((("A", "M"), ("A", "B")), "AM : AB = 1 : 2"),
    Rel.SAME: (("X", "m"), "X is m"),
    Rel.CONCURRENT: (("g", "h", ("A", "B")), "g, h and AB pass through one point"),
    Rel.EQUAL_AREA: ((("A", "B", "M"), ("A", "C", "M")), "triangles ABM and ACM have equal areas"),
    Rel.EQUIDISTANT: (("I", "a", "b", "c"), "I is equally far from a, b and c"),
}


@pytest.mark.parametrize("rel", Rel)
def test_a_fact_is_said(rel):
    of, said = SAID[rel]
    numbers = {Rel.RATIO: (1, 2), Rel.ANGLE: (45, 2)}
    assert fact_in_words(Fact(rel, of, numbers.get(rel)), WORDS, {}) == said


def test_objects_are_called_as_they_are_named():
    named = {"A": "Apex", "g": "sill"}
    assert fact_in_words(Fact(Rel.PARALLEL, ("g", ("A", "B"))), WORDS, named) == "sill ∥ ApexB"


def test_what_only_the_sample_solution_has_is_told_as_the_task_tells_it():
    words = Words(read_task(LIBRARY["centroid"].document()))
    middle = next(step.id for step in words.task.model_steps if step.make == "midpoint")
    said = fact_in_words(Fact(Rel.EQUAL_LENGTH, ((middle, "A"), (middle, "B"))), words, {})
    assert "model:" not in said and "the midpoint of" in said
    assert fact_in_words(Fact(Rel.EQUAL_LENGTH, ((middle, "A"), (middle, "B"))), words, {middle: "M"}) == "MA = MB"
