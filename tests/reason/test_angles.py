"""Angles put together: what follows of sums and bisectors, and that nothing follows where turns disagree."""

import json
import random

import numpy as np
import pytest

from tests.reason.figures import known_of
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.task import read_task, read_work
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.reason.drawn import Drawn
from widepin.reason.facts import Fact, Rel, fact
from widepin.reason.proving import prove
from widepin.reason.rules import RULES, RuleName

N = RuleName
ANGLE_RULES = (
    N.QUARTER_TURN,
    N.COMMON_ANGLE,
    N.ADDED_ANGLES,
    N.INCENTRE,
    N.SUPPLEMENTARY_BISECTORS,
    N.CO_INTERIOR_BISECTORS,
)


def turned(point, centre, by):
    return centre + (point - centre) * np.exp(1j * by)


def halved(at, p, v, q):
    """The way of the bisector of an angle."""
    return np.exp(1j * (np.angle(at[p] - at[v]) + np.angle((at[q] - at[v]) / (at[p] - at[v])) / 2))


def figure_of(rule, rng):
    """Points of a random figure in which the premises of a rule hold, whatever is read off it."""
    at = {name: complex(rng.uniform(-5, 5), rng.uniform(-5, 5)) for name in "ABCDEFVWXYPQI"}
    angle = rng.uniform(-3, 3)
    match rule:
        case N.COMMON_ANGLE:
            at["B"] = turned(at["A"], at["V"], angle)
            at["F"] = turned(at["E"], at["V"], rng.choice([1, -1]) * angle)
        case N.QUARTER_TURN:
            at["B"] = turned(at["D"], at["A"], rng.choice([1, -1]) * np.pi / 2)
            at["E"] = turned(at["C"], at["A"], rng.choice([1, -1]) * np.pi / 2)
        case N.ADDED_ANGLES:
            for p, v, q, r, w, s in ("AVBDWE", "BVCEWF"):
                by = np.angle((at[q] - at[v]) / (at[p] - at[v]))
                at[s] = turned(at[r], at[w], rng.choice([1, -1]) * by)
        case N.INCENTRE:
            a, b, c = (abs(at[p] - at[q]) for p, q in ("BC", "CA", "AB"))
            at["I"] = (a * at["A"] + b * at["B"] + c * at["C"]) / (a + b + c)
        case N.SUPPLEMENTARY_BISECTORS:
            at["C"] = at["V"] + rng.uniform(-2, 2) * (at["V"] - at["A"])
            at["X"] = at["V"] + rng.uniform(0.5, 3) * halved(at, "A", "V", "B")
            at["Y"] = at["V"] + rng.uniform(0.5, 3) * halved(at, "B", "V", "C")
        case N.CO_INTERIOR_BISECTORS:
            at["Q"] = at["B"] + rng.uniform(0.3, 2) * (at["P"] - at["A"])
            u, w, across = halved(at, "P", "A", "B"), halved(at, "A", "B", "Q"), at["B"] - at["A"]
            at["X"] = at["A"] + (across.conjugate() * w).imag / (u.conjugate() * w).imag * u
    return at


@pytest.mark.parametrize("rule", ANGLE_RULES, ids=str)
def test_a_row_is_true_in_every_figure_that_has_what_it_asks_for(rule):
    """Premises made to hold at random; where the row's figure is as it says, its conclusion holds."""
    rng = random.Random(str(rule))
    row, used = RULES[rule], 0
    for _ in range(600):
        at = figure_of(rule, rng)
        drawn = Drawn({name: np.array([place]) for name, place in at.items()}, {}, {}, 5.0)
        premises = [
            Fact(Rel(rel), tuple(map(tuple, words))) for rel, words in row.premise_patterns if rel != "collinear"
        ]
        if not all(drawn.seen(word, names) for word, names in row.figure_patterns) or not all(
            map(drawn.holds, premises)
        ):
            continue
        used += 1
        rel, words = row.conclusion_pattern
        assert drawn.holds(Fact(Rel(rel), tuple(map(tuple, words)))), at
    assert used > 60


def test_what_is_turned_otherwise_is_not_added():
    """Of right angles to the same side of both legs nothing follows about what lies between."""
    lines = (
        "g line A B\nh line A C\np perpendicular g A\nq perpendicular h A\nk circle A B\nm circle A C\n"
        "D intersection k p pick=1\nE intersection m q pick=1"
    )
    known, _examined, _numbers = known_of(lines)
    assert not known.knows(fact(Rel.EQUAL_ANGLE, tuple("DAC"), tuple("EAB")))


def given(*lines):
    return [
        dict(zip(("id", "make", "from"), (line.split()[0], line.split()[1], line.split()[2:]), strict=True))
        for line in lines
    ]


def touching(condition):
    return {
        "format": "widepin.task/1",
        "title": "A circle that touches",
        "text": "Construct a circle about P that touches k.",
        "given": [
            {"id": "O", "make": "free_point", "at": [3, 3]},
            {"id": "R", "make": "free_point", "at": [5, 4]},
            {"id": "P", "make": "free_point", "at": [9, 2]},
            *given("k circle O R"),
        ],
        "tools": ["points", "line", "circle"],
        "wanted": [{"name": "m", "kind": "circle"}],
        "conditions": [condition],
        "model": [
            *given("g line O P"),
            {"id": "T", "make": "intersection", "from": ["g", "k"], "pick": 2},
            *given("m circle P T"),
        ],
    }


@pytest.mark.parametrize("terms", [["m", "k"], ["k", "m"]])
def test_circles_that_touch_whichever_is_named_first(terms):
    task = read_task(touching({"rel": "tangent", "of": terms}))
    answer = judge(task, Work(task.model), report=False).answer
    proof = prove(task, task.model, answer)
    assert not proof.open and proof.lines[-1].rule is N.TOUCHING_CIRCLES


@pytest.mark.parametrize("terms", [["k", "l"], ["l", "k"], ["k", ["T", "X"]], [["T", "X"], "k"]])
def test_a_tangent_whichever_is_named_first_and_however_the_line(terms):
    document = touching({"rel": "tangent", "of": terms}) | {
        "tools": ["perpendicular", "line", "points"],
        "given": [
            *touching({})["given"],
            *given("r line O R"),
            {"id": "T", "make": "intersection", "from": ["r", "k"], "pick": 2},
        ],
        "wanted": [{"name": "l", "kind": "line"}, {"name": "X", "kind": "point"}],
        "model": [*given("l perpendicular r T"), {"id": "X", "make": "point_on", "from": ["l"], "at": [4, 6]}],
    }
    task = read_task(document)
    answer = judge(task, Work(task.model), report=False).answer
    assert not prove(task, task.model, answer).open


def test_a_figure_of_more_points_than_are_looked_at_is_no_fault(tmp_path):
    """Thirty halvings: most of their points are not looked at."""
    steps = [{"id": "C1", "make": "midpoint", "from": ["A", "B"]}]
    steps += [{"id": f"C{n}", "make": "midpoint", "from": ["A", f"C{n - 1}"]} for n in range(2, 31)]
    document = touching({}) | {
        "given": touching({})["given"][:2],
        "tools": ["midpoint"],
        "wanted": [{"name": "M", "kind": "point"}],
        "conditions": [{"rel": "midpoint", "of": ["M", "O", "R"]}],
        "model": [{"id": "M", "make": "midpoint", "from": ["O", "R"]}],
    }
    for step in steps:
        step["from"] = [{"A": "O", "B": "R"}.get(one, one) for one in step["from"]]
    path = tmp_path / "halvings.json"
    path.write_text(
        json.dumps({"task": document, "works": [{"name": "halvings", "steps": steps, "answer": {"M": "C1"}}]})
    )
    bundle = read_bundle(path)
    work = read_work(bundle.works[0][1])
    proof = prove(bundle.task, work.steps, {"M": "C1"})
    assert not proof.open
