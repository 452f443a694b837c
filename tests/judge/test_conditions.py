"""Every relation, in configurations where it holds, exactly and beyond doubt, and where it does not."""

import numpy as np
import pytest

from tests import zoo
from widepin.judge.conditions import RELATIONS, Measure, Term
from widepin.judge.task import Condition
from widepin.judge.trials.findings import finding
from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.balls import BALLS, at_rising_precision, ball
from widepin.plane.shapes import Point

BASE = """
A free_point at=0,0
B free_point at=6,2
C free_point at=1,5
M midpoint A B
N midpoint A C
l line A B
k circle A B
s segment A B
r ray A B
u perpendicular_bisector A B
p parallel l C
q perpendicular l C
F intersection l q
G intersection l k pick=2
D intersection l k other_than=B
w angle_bisector B A C
x angle_bisector C A B
t perpendicular l B
z line M B
y circle M A
v circle M B
i circle A M
a ray A M
b ray M B
c ray A D
W point_on w at=4,4
e circle D B
o perpendicular s C
H angle_bisector A B C
I intersection w H
"""

PAIRS = {
    # relation: (terms for which it holds, terms for which it does not)
    "same": (["B G", "l z", "y v", "w x", "r a", "l s"], ["A B", "l p", "k i", "r c", "a b", "l q"]),
    "on": (["M l", "M s", "B k", "W w", "A s", "C q", "D l", "B r"], ["C l", "D s", "D r", "A k", "M q"]),
    "parallel": (["l p", "l s", "u q", "p l", "A-B l"], ["l q", "w l", "A-C p"]),
    "perpendicular": (["l q", "u s", "t l", "A-B q"], ["l p", "w l", "u q"]),
    "tangent": (["k t", "t k", "y t", "k y", "e k"], ["k l", "k q", "y l", "k k"]),
    "midpoint": (["M A B", "M B A", "A B D"], ["A M B", "N A B"]),
    "distinct": (["A B C", "M N"], ["B G", "A B M G"]),
    "same_side": (["l C N", "u A C", "A-B C N"], ["l C A", "u A B", "l C D"]),
    "opposite_side": (["u A B", "q D B"], ["l C N", "l C M", "u A M"]),
    "inside_angle": (["W B-A-C", "W C-A-B"], ["D B-A-C", "M B-A-C", "C B-A-C"]),
    "equal_length": (["A-M M-B", "A-B A-G A-D", "C-N N-A"], ["A-B A-C", "A-M M-B A-C"]),
    "equal_angle": (["B-A-W W-A-C", "W-A-B C-A-W", "C-F-A B-F-C"], ["B-A-C B-A-W", "A-B-C A-C-B"]),
    "collinear": (["A M B", "A B M G", "D B A", "A A B"], ["A B C", "A M N", "A M B C", "M A C B"]),
    "concurrent": (
        ["l w A-C", "u l M-C", "t s B-C", "l t B-C B-N"],
        ["l q w", "l p q", "l s w", "l u q", "p l s", "l t B-C A-C"],
    ),
    "equidistant": (
        ["W l A-C", "I l A-C B-C", "I s A-C B-C l", "M A-C N-A"],
        ["W l q", "I l q", "A l w", "M l u", "A l s", "I l A-C u"],
    ),
    "equal_area": (["A-M-C M-B-C", "A-B-C A-B-C C-B-A", "C-N-B A-N-B", "A-M-B D-A-G"], ["A-B-C A-M-C", "A-B-C A-N-M"]),
    "ratio 1 2": (["A-M A-B", "A-N A-C"], ["A-B A-M", "A-C A-B"]),
    "ratio 2 1": (["A-B A-M", "D-B A-B"], ["A-M A-B"]),
}

CASES = [
    (name, terms, holds)
    for name, (good, bad) in PAIRS.items()
    for terms, holds in [*((one, True) for one in good), *((one, False) for one in bad)]
]


def condition(name, terms):
    rel, *numbers = name.split()
    of = tuple(tuple(term.split("-")) if "-" in term else term for term in terms.split())
    ratio = (int(numbers[0]), int(numbers[1])) if numbers else None
    return Condition(rel, of, ratio)


FIGURE = zoo.figure(BASE)


def look_up_in(shapes):
    return lambda name: Term(shapes[FIGURE.index[name]], FIGURE.nodes[FIGURE.index[name]].kind)


@pytest.mark.parametrize(("name", "terms", "holds"), CASES, ids=[f"{n} {t}" for n, t, _ in CASES])
def test_balls_decide_a_relation_to_sixty_digits(name, terms, holds):
    position, _ = FIGURE.drawn()

    def compute():
        shapes = FIGURE.evaluate(BALLS, [ball(float(x) + 0.1 * n) for n, x in enumerate(position)])
        found = finding(
            Measure(BALLS, ball(3.0), Point(ball(2.0), ball(2.0))), condition(name, terms), look_up_in(shapes)
        )
        zero = all(abs(gap) < ball(10) ** -60 for gap in found.gaps)
        return zero and all(margin > ball(10) ** -60 for margin in found.margins)

    assert bool(at_rising_precision(compute)) == holds


@pytest.mark.parametrize(("name", "terms", "holds"), CASES, ids=[f"{n} {t}" for n, t, _ in CASES])
def test_arrays_see_the_same_in_a_batch(name, terms, holds):
    position, _ = FIGURE.drawn()
    rng = np.random.default_rng(5)
    batch = position[:, None] + rng.uniform(-0.05, 0.05, (len(position), 40))
    with Arrays.quiet():
        shapes = FIGURE.evaluate(ARRAYS, batch)
        found = finding(Measure(ARRAYS, 3.0, Point(2.0, 2.0)), condition(name, terms), look_up_in(shapes))
        good = np.ones(40, dtype=bool)
        for gap in found.gaps:
            good &= np.abs(gap) < 1e-9
        for margin in found.margins:
            good &= margin > 1e-9
    assert good.all() if holds else not good.any()


def test_every_relation_is_in_the_table():
    assert {name.split()[0] for name in PAIRS} == set(RELATIONS)


@pytest.mark.parametrize("offset", [0.001, 0.01, 0.1])
def test_gaps_are_lengths(offset):
    """A parallel that is off by an angle is off by that angle times the figure's size; a point by its distance."""
    figure = zoo.figure(f"A free_point at=0,0\nB free_point at=1,0\nC free_point at=1,{offset}\nl line A B\nm line A C")
    _, shapes = figure.drawn()
    at = lambda name: Term(shapes[figure.index[name]], figure.nodes[figure.index[name]].kind)  # noqa: E731
    measure = Measure(ARRAYS, 3.0, Point(0.5, 0.0))
    (gap,) = finding(measure, Condition("parallel", ("l", "m")), at).gaps
    assert abs(gap) == pytest.approx(3 * offset, rel=0.01)
    (gap,) = finding(measure, Condition("same", ("B", "C")), at).gaps
    assert gap == pytest.approx(offset)
