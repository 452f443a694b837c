"""What stands on a sheet, and what can be drawn on it: points, curves with all their crossings, lengths to carry.

See ``sheet`` for what the letters ``s`` and ``g`` stand for.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from .curves import length, meet, off, same, within
from .sheet import (
    CIRCLE,
    CIRCLE_RADIUS,
    CURVES,
    FULL,
    LINE,
    MOST_POINTS,
    OPENING,
    POINTS,
    SEGMENT,
    SIZE,
    TABLE,
    compiled,
    compiled_entry,
)


@compiled
def may(s: Any, move: int) -> bool:
    """Whether a move may be made once more."""
    return bool(s.may[0, move] < s.may[1, move])


@compiled
def known(s: Any, x: float, y: float) -> int:
    """The number of the point at a place, -1 where there is none."""
    near = s.means[SIZE] * 1e-6
    for n in range(s.counts[POINTS]):
        if abs(s.at[n, 0] - x) < near and abs(s.at[n, 1] - y) < near:
            return n
    return -1


@compiled_entry
def add_point(s: Any, x: float, y: float, bits: Any) -> None:
    """A new point."""
    n = s.counts[POINTS]
    if n >= MOST_POINTS:
        s.counts[FULL] = 1
        return
    s.at[n, 0], s.at[n, 1] = x, y
    s.on[n] = bits
    s.counts[POINTS] = n + 1


@compiled
def is_there(s: Any, curve: Any) -> bool:
    """Whether a curve is drawn already."""
    near = s.means[SIZE] * 1e-6
    for n in range(s.counts[CURVES]):
        one = s.curves[n]
        if one[0] == curve[0] and same(one, curve, near):
            return True
    return False


@compiled_entry
def push(s: Any, curve: Any) -> None:
    """Draw a curve, with its crossings with all others."""
    near = s.means[SIZE] * 1e-6
    number = s.counts[CURVES]
    bit = np.uint64(1) << np.uint64(number)
    s.curves[number] = curve
    s.counts[CURVES] = number + 1
    for n in range(s.counts[POINTS]):
        x, y = s.at[n, 0], s.at[n, 1]
        if off(curve, x, y) < near and within(curve, x, y, near):
            s.on[n] |= bit
    places = np.empty((2, 2))
    for other in range(number):
        for m in range(meet(s.curves[other], curve, near, places)):
            x, y = places[m, 0], places[m, 1]
            if known(s, x, y) < 0:
                bits = bit
                for one in range(number):
                    if off(s.curves[one], x, y) < near and within(s.curves[one], x, y, near):
                        bits |= np.uint64(1) << np.uint64(one)
                add_point(s, x, y, bits)


@compiled
def pop(s: Any, points: int) -> None:
    """Take the last curve back, and all but so many points."""
    number = s.counts[CURVES] - 1
    keep = ~(np.uint64(1) << np.uint64(number))
    s.counts[CURVES] = number
    s.counts[POINTS] = points
    for n in range(points):
        s.on[n] &= keep


@compiled
def place_in(table: Any, value: int) -> int:
    """Where a mark stands in a table, or -1 - the place where it would."""
    # By Knuth's multiplicative hashing: the middle of a product is well mixed.
    n = ((value * np.int64(-7_046_029_254_386_353_131)) >> np.int64(30)) & np.int64(TABLE - 1)
    while table[n] != 0:
        if table[n] == value:
            return int(n)
        n = (n + 1) & np.int64(TABLE - 1)
    return int(-1 - n)


@compiled
def has_distance(s: Any, x: float, y: float, far: float) -> bool:
    """Whether some point lies so far from a place."""
    near = s.means[SIZE] * 1e-6
    for p in range(s.counts[POINTS]):  # noqa: SIM110
        if abs(length(x - s.at[p, 0], y - s.at[p, 1]) - far) < near:
            return True
    return False


@compiled
def is_length(table: Any, far: float, near: float) -> bool:
    """Whether a length stands in a table; those that fall on the border of two entries are looked for in both."""
    key = np.int64(far / near)
    for one in range(key - 1, key + 2):
        n = (one * np.int64(40503)) & np.int64(len(table) - 1)
        while table[n] != 0:
            if table[n] == one + 1:
                return True
            n = (n + 1) & np.int64(len(table) - 1)
    return False


@compiled
def lengths_of(s: Any) -> Any:
    """Every length that a compass can carry, once: lengths, their ends (lengths, 2), and a table of them.

    Where no compass carries any, a single idle one.
    """
    near = s.means[SIZE] * 1e-6
    count = s.counts[POINTS] if may(s, CIRCLE_RADIUS) else 0
    room = 1 if s.means[OPENING] > 0 else max(count * (count - 1) // 2, 1)
    places = 4
    while places < 3 * room:
        places *= 2
    lengths, ends, table = np.zeros(room), np.full((room, 2), -1, np.int64), np.zeros(places, np.int64)
    kept = 0
    for q in range(count):
        for r in range(q):
            far = length(s.at[q, 0] - s.at[r, 0], s.at[q, 1] - s.at[r, 1])
            if s.means[OPENING] > 0:
                far = s.means[OPENING]
            if far > near and not is_length(table, far, near):
                n = (np.int64(far / near) * np.int64(40503)) & np.int64(places - 1)
                while table[n] != 0:
                    n = (n + 1) & np.int64(places - 1)
                table[n] = np.int64(far / near) + 1
                lengths[kept], ends[kept, 0], ends[kept, 1] = far, r, q
                kept += 1
    return lengths[: max(kept, 1)], ends, table


@compiled
def make(s: Any, move: int, p: int, q: int, carried: float, curve: Any) -> None:
    """The curve of a move from two points, or about one with a length that was carried there."""
    px, py = s.at[p, 0], s.at[p, 1]
    curve[0], curve[1], curve[2], curve[4] = move, px, py, 0.0
    if move == CIRCLE_RADIUS:
        curve[0], curve[3] = CIRCLE, carried
    elif move == CIRCLE:
        curve[3] = length(s.at[q, 0] - px, s.at[q, 1] - py)
    else:
        curve[3], curve[4] = s.at[q, 0] - px, s.at[q, 1] - py


@compiled
def is_new(s: Any, move: int, p: int, q: int, curve: Any) -> bool:
    """Whether a curve is not drawn yet. Cheap for two points of one straight curve."""
    common = s.on[p] & s.on[q]
    if move <= SEGMENT and common != 0:
        for c in range(s.counts[CURVES]):
            if common & (np.uint64(1) << np.uint64(c)) != 0 and s.curves[c, 0] == LINE and move == LINE:
                return False
    return not is_there(s, curve)
