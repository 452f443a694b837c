"""What the engine derives holds, in every position of every figure."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.amount import many
from tests.reason.figures import known_of
from widepin.reason.drawing import columns_where_all_is, drawn_in
from widepin.reason.engine import saturate
from widepin.reason.equalities import Equalities
from widepin.reason.extraction import Extraction
from widepin.reason.facts import Rel, fact

MADE = (
    "{id} midpoint {p} {q}",
    "{id} reflection {p} g",
    "{id} translation {p} {q} {r}",
    "{id} rotation {p} {q} {r} {p} {q}",
    "{id} intersection k g pick=1",
    "{id} intersection k l pick=2",
    "{id} intersection g h",
)
CURVES = "g line A B\nh line B C\nk circle A C\nl circle_radius B A C\n"


@settings(max_examples=many(15, 300))
@given(st.lists(st.tuples(st.integers(0, len(MADE) - 1), st.permutations("ABC")), min_size=1, max_size=4))
def test_every_derived_fact_holds_in_fresh_positions(chosen):
    lines = CURVES + "\n".join(
        MADE[kind].format(id=f"P{number}", p=order[0], q=order[1], r=order[2])
        for number, (kind, order) in enumerate(chosen)
    )
    known, examined, numbers = known_of(lines)
    if known is None:
        return
    fresh = drawn_in(examined, numbers, columns_where_all_is(examined, numbers, further=True), further=True)
    for one in known.derived:
        if all(name in fresh.points or name in fresh.lines or name in fresh.circles for name in one.names):
            assert fresh.holds(one), one


def test_what_is_derived_rests_on_what_came_before():
    known, _examined, _numbers = known_of(
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\ng line D E\nh line A B\n"
        "M intersection g h"
    )
    assert known.knows(fact(Rel.MIDPOINT, "M", "A", "B")) and known.knows(fact(Rel.PERPENDICULAR, "g", "h"))
    extraction = Extraction(known)
    extraction.numbers_for(fact(Rel.MIDPOINT, "M", "A", "B"))
    extraction.numbers_for(fact(Rel.PERPENDICULAR, "g", "h"))
    assert all(cited < number for number, line in enumerate(extraction.lines, 1) for cited in line.because)


def test_equalities_know_the_shortest_of_their_reasons():
    found = Equalities()
    facts = [fact(Rel.EQUAL_LENGTH, ("A", name), ("B", name)) for name in "CDEF"]
    for stamp, (one, other) in enumerate((("p", "q"), ("q", "r"), ("r", "s"), ("p", "s"))):
        found.link(one, other, facts[stamp], stamp)
    assert found.are("p", "r") and not found.are("p", "t")
    assert found.chain("p", "s", 9, lambda _fact: 1) == [facts[3]]
    assert found.chain("p", "s", 3, lambda _fact: 1) == facts[:3]  # before the shorter way was there
    assert found.chain("p", "t", 9, lambda _fact: 1) is None


def test_two_right_angles_make_a_parallel():
    found = Equalities()
    perpendicular = [fact(Rel.PERPENDICULAR, "g", "h"), fact(Rel.PERPENDICULAR, "h", "k")]
    found.link("g", "h", perpendicular[0], 0, turned=1)
    found.link("h", "k", perpendicular[1], 1, turned=1)
    assert found.are("g", "k") and not found.are("g", "k", turned=1)
    assert found.chain("g", "k", 9, lambda _fact: 1) == perpendicular
    assert found.chain("g", "k", 9, lambda _fact: 1, turned=1) is None


@pytest.mark.parametrize(
    ("lines", "wanted"),
    [
        ("M midpoint A B\nN midpoint A C", fact(Rel.PARALLEL, ("M", "N"), ("B", "C"))),
        ("g line A B\nD reflection C g\nh line C D", fact(Rel.PERPENDICULAR, "g", "h")),
        ("D translation C A B", fact(Rel.EQUAL_LENGTH, ("C", "D"), ("A", "B"))),
        ("D rotation C A B A C", fact(Rel.EQUAL_LENGTH, ("A", "C"), ("A", "D"))),
        ("O midpoint A B\nk circle O A\ng line O C\nP intersection g k pick=1", fact(Rel.RIGHT_ANGLE, ("A", "P", "B"))),
        (
            "c circle A B\nd circle B A\nD intersection c d pick=1",
            fact(Rel.EQUAL_ANGLE, ("A", "B", "D"), ("B", "D", "A")),
        ),
        (
            "g line B C\nh parallel g A\nk line A B\nD point_on h at=9,4\nE midpoint A B\nm parallel g E\nl line A C\n"
            "F intersection m l",
            fact(Rel.MIDPOINT, "F", "A", "C"),
        ),
        ("t angle_bisector A C B\nD point_on t at=5,2", fact(Rel.EQUAL_ANGLE, ("A", "C", "D"), ("D", "C", "B"))),
    ],
)
def test_a_rule_is_found_in_its_figure(lines, wanted):
    known, _examined, _numbers = known_of(lines)
    saturate(known, [wanted])
    assert known.knows(wanted)
