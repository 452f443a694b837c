"""What the engine derives holds, in every position of every figure."""

from __future__ import annotations

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from widepin.documents.construction import read_steps
from widepin.judge.examination import Examination
from widepin.judge.task import Allowance, Condition, Task, Wanted
from widepin.reason.drawn import columns_where_all_is, drawn_in
from widepin.reason.engine import saturate
from widepin.reason.equalities import Equalities
from widepin.reason.extraction import Extraction
from widepin.reason.facts import Rel, fact
from widepin.reason.knowledge import Knowledge
from widepin.reason.proving import said_by_making
from widepin.reason.rules import RuleName
from widepin.school.library.notation import steps

GIVEN = "A free_point at=1,1\nB free_point at=9,2\nC free_point at=4,7"
MADE = (
    "{id} midpoint {p} {q}",
    "{id} reflection {p} g",
    "{id} translation {p} {q} {r}",
    "{id} intersection k g pick=1",
    "{id} intersection k l pick=2",
    "{id} intersection g h",
)
CURVES = "g line A B\nh line B C\nk circle A C\nl circle_radius B A C\n"


def known_of(lines, without=frozenset()):
    task = Task(
        "",
        read_steps(steps(GIVEN)),
        (Allowance("line"),),
        (Wanted("X", "point"),),
        (Condition("distinct", ("X", "A")),),
    )
    examined = Examination(task, read_steps(steps(lines)))
    numbers = list(range(examined.last))
    columns = columns_where_all_is(examined, numbers)
    if len(columns) < 6:
        return None, None, None
    drawn = drawn_in(examined, numbers, columns)
    known = Knowledge(drawn, said_by_making(drawn, examined, numbers), without)
    saturate(known, [])
    return known, examined, numbers


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(st.tuples(st.integers(0, 5), st.permutations("ABC")), min_size=1, max_size=4))
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


@pytest.mark.parametrize(
    ("rule", "lines", "wanted"),
    [
        (
            RuleName.SSS,
            "c circle A B\nd circle C B\nD intersection c d other_than=B",
            fact(Rel.EQUAL_ANGLE, ("A", "B", "C"), ("A", "D", "C")),
        ),
        (
            RuleName.ISOSCELES,
            "k circle C A\nh line C B\nD intersection k h pick=1",
            fact(Rel.EQUAL_ANGLE, ("C", "A", "D"), ("C", "D", "A")),
        ),
        (
            RuleName.ISOSCELES_CONVERSE,
            "t angle_bisector A C B\nh line C A\np parallel h B\nD intersection t p\ng line C B",
            fact(Rel.EQUAL_LENGTH, ("B", "C"), ("B", "D")),
        ),
        (
            RuleName.THALES,
            "O midpoint A B\nk circle O A\ng line O C\nP intersection g k pick=1",
            fact(Rel.RIGHT_ANGLE, ("A", "P", "B")),
        ),
        (
            RuleName.THALES_CONVERSE,
            "g line A C\np perpendicular g B\nP intersection g p\nO midpoint A B",
            fact(Rel.EQUAL_LENGTH, ("O", "P"), ("O", "A")),
        ),
        (RuleName.MIDLINE, "M midpoint A B\nN midpoint A C\ng line B C", fact(Rel.PARALLEL, ("M", "N"), ("B", "C"))),
        (
            RuleName.MIDLINE_CONVERSE,
            "M midpoint A B\ng line B C\np parallel g M\nh line A C\nP intersection p h",
            fact(Rel.MIDPOINT, "P", "A", "C"),
        ),
        (
            RuleName.BISECTOR_LINE,
            "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\ng line D E\nh line A B",
            fact(Rel.PERPENDICULAR, "g", "h"),
        ),
        (
            RuleName.INTERCEPT,
            "M midpoint A B\nN midpoint A M\ng line B C\np parallel g N\nh line A C\nP intersection p h",
            fact(Rel.RATIO, ("A", "P"), ("A", "C"), ratio=(1, 4)),
        ),
        (RuleName.RATIO_CHAIN, "M midpoint A B\nN midpoint A M", fact(Rel.RATIO, ("A", "N"), ("A", "B"), ratio=(1, 4))),
        (RuleName.RATIO_OF_HALVES, "M midpoint A B", fact(Rel.RATIO, ("A", "M"), ("A", "B"), ratio=(1, 2))),
        (RuleName.TANGENT, "k circle A B\ng line A B\np perpendicular g B", fact(Rel.TANGENT, "k", "p")),
        (
            RuleName.CONGRUENT_ANGLES,
            "c circle A B\nd circle C B\nD intersection c d other_than=B",
            fact(Rel.EQUAL_ANGLE, ("A", "B", "C"), ("A", "D", "C")),
        ),
        (
            RuleName.BISECTOR_THIRD,
            "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\ng line D E\nP point_on g at=5,9",
            fact(Rel.EQUAL_LENGTH, ("P", "A"), ("P", "B")),
        ),
        (
            RuleName.ONE_PERPENDICULAR,
            "g line A B\np perpendicular g C\nP point_on p at=4,9\nh line A B\nq perpendicular h P\nQ point_on q at=4,2",
            fact(Rel.COLLINEAR, "C", "P", "Q"),
        ),
    ],
)
def test_a_rule_is_needed_in_its_figure(rule, lines, wanted):
    known, _examined, _numbers = known_of(lines)
    assert known.knows(wanted)
    without, _examined, _numbers = known_of(lines, frozenset({rule}))
    assert not without.knows(wanted)
