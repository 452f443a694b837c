"""The compiled search: nothing that can be reached is ever excluded, and compiled or not it counts the same."""

import json
import os
import random
import subprocess
import sys

import numpy as np
import pytest

from tests.amount import many
from widepin.economy import kernel
from widepin.economy.kernel import CIRCLE, CIRCLE_RADIUS, LINE, POINT, RAY, SEGMENT

STRAIGHT, EVERYTHING = (LINE, CIRCLE), (LINE, RAY, SEGMENT, CIRCLE, CIRCLE_RADIUS)


def sheet_with(points, moves, size=4.0):
    """A sheet with points alone, on which some moves may be made, and arbitrary points be put."""
    may = np.array([[0] * 5, [1000 if move in moves else 0 for move in range(5)]], np.int64)
    sheet = kernel.Sheet(
        np.zeros((kernel.MOST_POINTS, 2)),
        np.zeros(kernel.MOST_POINTS, np.uint64),
        np.zeros((kernel.MOST_CURVES, 5)),
        np.zeros(7, np.int64),
        may,
        np.array([size, 0.0, 3.1, -2.3, 1.0, 0.31, 1.61]),
        np.zeros(kernel.TABLE, np.int64),
        np.zeros(kernel.TABLE, np.int64),
        np.zeros((24, 8)),
        np.zeros((kernel.MOST_FOUND, 24, 8)),
    )
    for x, y in points:
        kernel.add_point(sheet, x, y, np.uint64(0))
    return sheet


def goals_of(terms):
    return kernel.Goals(
        np.array(terms), np.array([1 << int(term[0]) for term in terms], np.int64), np.array([0, len(terms)])
    )


def found(sheet, goals, moves, points):
    sheet.counts[kernel.FOUND] = 0
    kernel.grow(sheet, goals, moves, points, 0, -1, -1)
    assert not sheet.counts[kernel.FULL] or sheet.counts[kernel.FOUND]
    return int(sheet.counts[kernel.FOUND])


def draw_at_random(rng, sheet, move):
    """Draw some curve of a kind; False where it is there already or lies too close to be told from others."""
    count = int(sheet.counts[kernel.POINTS])
    p, q = rng.sample(range(count), 2)
    (px, py), (qx, qy) = sheet.at[p], sheet.at[q]
    curve = np.array([move, px, py, qx - px, qy - py])
    if move in (CIRCLE, CIRCLE_RADIUS):
        if move == CIRCLE_RADIUS:
            a, b = rng.sample(range(count), 2)
            (px, py), (qx, qy) = sheet.at[a], sheet.at[b]
        curve = np.array([CIRCLE, *sheet.at[p], np.hypot(qx - px, qy - py), 0.0])
    if any(line[0] == curve[0] and kernel_same(line, curve) for line in sheet.curves[: sheet.counts[kernel.CURVES]]):
        return False
    kernel.push(sheet, curve)
    return True


def kernel_same(one, other):
    """Whether two curves of a kind are one, by three places on them."""
    if one[0] == CIRCLE:
        return np.allclose(one, other, atol=1e-5)
    (ax, ay), (dx, dy) = one[1:3], one[3:5]
    ends = [other[1:3], other[1:3] + other[3:5]]
    return one[0] == LINE and all(abs((x - ax) * dy - (y - ay) * dx) < 1e-5 * np.hypot(dx, dy) for x, y in ends)


def constructed(rng, moves, length, points):
    """What so many random moves give last: one or two objects; None where the moves do not get so far."""
    sheet = sheet_with(points, moves)
    for _ in range(length):
        before = int(sheet.counts[kernel.POINTS])
        if not any(draw_at_random(rng, sheet, rng.choice(moves)) for _ in range(5)):
            return None
    fresh = range(before, int(sheet.counts[kernel.POINTS]))
    terms = [sheet.curves[sheet.counts[kernel.CURVES] - 1].copy()]
    if fresh and rng.random() < 0.6:
        point = sheet.at[rng.choice(fresh)]
        terms = [np.array([POINT, *point, 0.0, 0.0])] + (terms if rng.random() < 0.3 else [])
    near = all(np.abs(term).max() < 40 and (term[0] != CIRCLE or term[3] > 0.05) for term in terms)
    return terms if near else None


@pytest.mark.parametrize("moves", [STRAIGHT, EVERYTHING, (LINE,), (CIRCLE,), (SEGMENT, CIRCLE)])
def test_what_was_constructed_at_random_is_found_in_as_many_moves_or_fewer(moves):
    rng = random.Random(str(moves))
    tried = 0
    while tried < many(60, 2000):
        count = 4 if moves == (LINE,) else rng.choice([2, 2, 3])
        points = [(rng.uniform(-3, 3), rng.uniform(-3, 3)) for _ in range(count)]
        length = rng.randint(1, 4 if len(points) == 2 and moves != EVERYTHING else 3)
        terms = constructed(rng, moves, length, points)
        if terms is None:
            continue
        tried += 1
        sheet, goals = sheet_with(points, moves), goals_of(terms)
        assert any(found(sheet, goals, n, 0) for n in range(length + 1)), (points, length, terms)


PLAIN = """
import json, sys, numpy as np
from tests.economy.test_kernel import *
sheet = sheet_with([(0.0, 0.0), (4.0, 1.0)], STRAIGHT)
goals = goals_of([np.array([LINE, 2.0, 0.5, -1.0, 4.0])])
print(json.dumps([[found(sheet, goals, n, a), int(sheet.counts[kernel.STATES])] for n in range(4) for a in (0, 1)]))
"""


def test_it_counts_the_same_where_it_is_not_compiled():
    def counted(**how):
        done = subprocess.run([sys.executable, "-c", PLAIN], env=os.environ | how, capture_output=True, text=True)
        return json.loads(done.stdout.splitlines()[-1])

    plain = counted(NUMBA_DISABLE_JIT="1")
    assert plain == counted() and plain[-2][0] > 0
    assert all(number == 0 for number, _states in plain[:-2])
