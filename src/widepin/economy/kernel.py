"""What a search with ruler and compass does millions of times, compiled: draw a curve, find its crossings, go on.

Arithmetic on arrays alone, which numba compiles; without it the same functions run as plain Python, a hundred times
slower. A curve is a row (kind, x, y, u, v): the first point and direction of a line, ray or segment; centre and radius
of a circle. A point is known by number and carries a bit for every curve that it lies on.

Source: iterative deepening as in R. E. Korf, "Depth-first iterative-deepening" (1985); numba: S. K. Lam et al. (2015).
"""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from hashlib import sha256
from math import sqrt
from pathlib import Path
from typing import Any, NamedTuple, TypeVar

import numba
import numpy as np
from numpy.typing import NDArray

LINE, RAY, SEGMENT, CIRCLE, CIRCLE_RADIUS = range(5)
"""Moves, and kinds of curve but for the last, which draws a circle too."""

FREE_POINT, POINT_ON = 5, 6
"""Arbitrary points, as entries of a path; they are no moves."""

POINT = 7
"""A wanted object that is a point: a term (POINT, x, y, ...)."""

MOST_POINTS, MOST_CURVES, MOST_MOVES, MOST_FOUND = 2000, 60, 12, 400
"""What a sheet has room for."""

TABLE = 1 << 16
"""Places in the table of curves that were tried; what finds no place is tried again."""

POINTS, CURVES, TRIED, STATES, FOUND, FULL, STOP = range(7)
"""Entries of ``counts``: how many of each; whether there was too little room; whether to stop, set from outside."""

SIZE, OPENING, FREE_X, FREE_Y, IS_FREE, ON_SEGMENT, ON_OTHERS = range(7)
"""Entries of ``means``."""

MISSING, NEEDED = 1, 2
"""Bits of what a board lacks of a wanted object: the curve itself, the point (or the centre of a circle)."""

EVERYTHING, TOWARDS, PREPARING = range(3)
"""Which moves are worth it: all, those towards an answer, and besides those that make the last one possible."""

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """A function compiled for the others here: Python cannot call it."""
    return _compiled(function, no_cpython_wrapper=True, no_cfunc_wrapper=True)


def compiled_entry(function: F) -> F:
    """A function compiled that Python calls. It lets other threads run, one of which may stop it."""
    return _compiled(function, nogil=True, no_cfunc_wrapper=True)


def _compiled(function: F, **how: Any) -> F:
    try:
        return numba.njit(cache=True, error_model="numpy", **how)(function)  # type: ignore[no-any-return]
    except RuntimeError:  # nowhere to keep it between runs
        return numba.njit(error_model="numpy", **how)(function)  # type: ignore[no-any-return]


class Sheet(NamedTuple):
    """What stands on a board, with room for what is drawn on it, and how it was drawn.

    ``at`` (points, 2); ``on`` (points,) bits; ``curves`` (curves, 5); ``counts``: see its entries; ``may`` (2, moves):
    how often each move was made, and may be; ``means`` (7,): the size of the figure, the opening of a compass with one
    radius or 0, where a free arbitrary point is put (x, y, whether), and the parameters of those on a segment and on
    other curves, or infinity; ``tried``: marks of curves that need not be tried again, with ``places`` to clear;
    ``path`` (moves, 8): make, the places of up to three points, the number of a curve; ``found`` (paths, moves, 8),
    ended by a make of -1.
    """

    at: NDArray[np.float64]
    on: NDArray[np.uint64]
    curves: NDArray[np.float64]
    counts: NDArray[np.int64]
    may: NDArray[np.int64]
    means: NDArray[np.float64]
    tried: NDArray[np.int64]
    places: NDArray[np.int64]
    path: NDArray[np.float64]
    found: NDArray[np.float64]


class Goals(NamedTuple):
    """Right answers, a row per wanted object: ``terms`` (objects, 5) as curves or points, with ``kinds``: bits of the
    curves that will do; those of answer n are the rows from ``firsts[n]`` to ``firsts[n + 1]``.
    """

    terms: NDArray[np.float64]
    kinds: NDArray[np.int64]
    firsts: NDArray[np.int64]


@compiled
def length(dx: float, dy: float) -> float:
    """How long a way is; ``hypot`` takes longer, to mind numbers that are in no figure."""
    return sqrt(dx * dx + dy * dy)


@compiled
def off(curve: Any, x: float, y: float) -> float:
    """How far a place lies off a curve, its extent left aside."""
    if curve[0] == CIRCLE:
        return float(abs(length(x - curve[1], y - curve[2]) - curve[3]))
    return float(abs((x - curve[1]) * curve[4] - (y - curve[2]) * curve[3]) / length(curve[3], curve[4]))


@compiled
def within(curve: Any, x: float, y: float, near: float) -> bool:
    """Whether a place on the line of a curve lies in its extent."""
    if curve[0] == LINE or curve[0] == CIRCLE:
        return True
    way = length(curve[3], curve[4])
    t = ((x - curve[1]) * curve[3] + (y - curve[2]) * curve[4]) / way
    return bool(t >= -near and (curve[0] == RAY or t <= way + near))


@compiled
def meet(a: Any, b: Any, near: float, places: Any) -> int:
    """Where two curves meet: how many times; their places go to ``places``. A touching counts as one meeting."""
    count = 0
    if a[0] != CIRCLE and b[0] != CIRCLE:
        spread = a[3] * b[4] - a[4] * b[3]
        if abs(spread) < 1e-9 * length(a[3], a[4]) * length(b[3], b[4]):
            return 0
        t = ((b[1] - a[1]) * b[4] - (b[2] - a[2]) * b[3]) / spread
        places[0, 0], places[0, 1] = a[1] + t * a[3], a[2] + t * a[4]
        count = 1
    elif a[0] == CIRCLE and b[0] == CIRCLE:
        dx, dy = b[1] - a[1], b[2] - a[2]
        apart = length(dx, dy)
        if apart < near:
            return 0
        along = (a[3] * a[3] - b[3] * b[3] + apart * apart) / (2 * apart)
        square = a[3] * a[3] - along * along
        slack = near * (a[3] + b[3]) * 1e-3
        if square < -slack:
            return 0
        up = sqrt(square) if square > slack else 0.0
        fx, fy = a[1] + along * dx / apart, a[2] + along * dy / apart
        places[0, 0], places[0, 1] = fx - up * dy / apart, fy + up * dx / apart
        places[1, 0], places[1, 1] = fx + up * dy / apart, fy - up * dx / apart
        count = 2 if up > 0 else 1
    else:
        line, circle = (b, a) if a[0] == CIRCLE else (a, b)
        way = length(line[3], line[4])
        ux, uy = line[3] / way, line[4] / way
        foot = (circle[1] - line[1]) * ux + (circle[2] - line[2]) * uy
        away = (circle[1] - line[1]) * uy - (circle[2] - line[2]) * ux
        square = circle[3] * circle[3] - away * away
        slack = near * circle[3] * 1e-3
        if square < -slack:
            return 0
        half = sqrt(square) if square > slack else 0.0
        places[0, 0], places[0, 1] = line[1] + (foot - half) * ux, line[2] + (foot - half) * uy
        places[1, 0], places[1, 1] = line[1] + (foot + half) * ux, line[2] + (foot + half) * uy
        count = 2 if half > 0 else 1
    kept = 0
    for n in range(count):
        x, y = places[n, 0], places[n, 1]
        if within(a, x, y, near) and within(b, x, y, near):
            places[kept, 0], places[kept, 1] = x, y
            kept += 1
    return kept


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
def mark(s: Any, curve: Any) -> int:
    """A number that is all but surely another one for another curve."""
    grain = s.means[SIZE] * 4e-7
    kind = curve[0]
    if kind == CIRCLE:
        a, b, c, d = curve[1] / grain, curve[2] / grain, curve[3] / grain, 0.0
    elif kind == SEGMENT:
        ax, ay, bx, by = curve[1], curve[2], curve[1] + curve[3], curve[2] + curve[4]
        if ax > bx + grain or (abs(ax - bx) <= grain and ay > by):
            ax, ay, bx, by = bx, by, ax, ay
        a, b, c, d = ax / grain, ay / grain, bx / grain, by / grain
    else:
        way = length(curve[3], curve[4])
        ux, uy = curve[3] / way, curve[4] / way
        if kind == RAY:
            a, b, c, d = curve[1] / grain, curve[2] / grain, ux / 4e-7, uy / 4e-7
        else:
            if ux < -1e-7 or (abs(ux) <= 1e-7 and uy < 0):
                ux, uy = -ux, -uy
            a, b, c, d = ux / 4e-7, uy / 4e-7, (curve[1] * uy - curve[2] * ux) / grain, 0.0
    value = np.int64(round(a)) * np.int64(1_000_003) + np.int64(round(b)) * np.int64(998_244_353)
    value += np.int64(round(c)) * np.int64(2_147_483_647) + np.int64(round(d)) * np.int64(1_000_000_007)
    return int(value * np.int64(8) + np.int64(kind) + np.int64(1))


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
def is_there(s: Any, curve: Any) -> bool:
    """Whether a curve is drawn already."""
    near = s.means[SIZE] * 1e-6
    for n in range(s.counts[CURVES]):
        one = s.curves[n]
        if one[0] == curve[0] and same(one, curve, near):
            return True
    return False


@compiled
def same(one: Any, other: Any, near: float) -> bool:
    """Whether two curves of a kind are one."""
    if one[0] == CIRCLE:
        return length(one[1] - other[1], one[2] - other[2]) < near and abs(one[3] - other[3]) < near
    ax, ay, bx, by = other[1], other[2], other[1] + other[3], other[2] + other[4]
    if one[0] == LINE:
        return off(one, ax, ay) < near and off(one, bx, by) < near
    cx, cy, dx, dy = one[1], one[2], one[1] + one[3], one[2] + one[4]
    alike = length(ax - cx, ay - cy) < near
    if one[0] == RAY:
        return alike and off(one, bx, by) < near and one[3] * other[3] + one[4] * other[4] > 0
    turned = length(ax - dx, ay - dy) < near and length(bx - cx, by - cy) < near
    return (alike and length(bx - dx, by - dy) < near) or turned


@compiled
def may(s: Any, move: int) -> bool:
    """Whether a move may be made once more."""
    return bool(s.may[0, move] < s.may[1, move])


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


# -- what is missing -----------------------------------------------------------------------------------------------


@compiled
def will_do(term: Any, kinds: int, curve: Any, near: float) -> bool:
    """Whether a curve is a wanted one, or lies on it and is of another of the kinds that will do."""
    if term[0] == curve[0]:
        return same(term, curve, near)
    if not kinds & (1 << int(curve[0])):
        return False
    return off(term, curve[1], curve[2]) < near and off(term, curve[1] + curve[3], curve[2] + curve[4]) < near


@compiled
def is_drawn(s: Any, g: Any, n: int) -> bool:
    """Whether a wanted object stands on the sheet."""
    near = s.means[SIZE] * 1e-6
    term = g.terms[n]
    if term[0] == POINT:
        return known(s, term[1], term[2]) >= 0
    for c in range(s.counts[CURVES]):  # noqa: SIM110
        if will_do(term, g.kinds[n], s.curves[c], near):
            return True
    return False


@compiled
def lacks(s: Any, g: Any, n: int) -> int:
    """What is missing of a wanted object. A circle that is not drawn needs its centre first."""
    if is_drawn(s, g, n):
        return 0
    term = g.terms[n]
    if term[0] == POINT:
        return NEEDED
    if term[0] == CIRCLE and known(s, term[1], term[2]) < 0:
        return MISSING | NEEDED
    return MISSING


@compiled
def look(s: Any, g: Any, lack: Any, least: Any) -> None:
    """What is missing of every wanted object, and how many moves each answer takes at least: one for each missing
    curve, and those through a missing point.
    """
    for n in range(len(g.terms)):
        lack[n] = lacks(s, g, n)
    for a in range(len(g.firsts) - 1):
        curves, extra = 0, 0
        for n in range(g.firsts[a], g.firsts[a + 1]):
            if lack[n] & MISSING:
                curves += 1
            if lack[n] & NEEDED:
                extra = max(extra, 2 - curves_through(s, g, a, lack, g.terms[n, 1], g.terms[n, 2]))
        least[a] = curves + extra


@compiled
def curves_through(s: Any, g: Any, a: int, lack: Any, x: float, y: float) -> int:
    """How many curves run through a place: those of the sheet, and the wanted ones of an answer that are missing."""
    near = s.means[SIZE] * 1e-6
    count = 0
    for c in range(s.counts[CURVES]):
        if off(s.curves[c], x, y) < near and within(s.curves[c], x, y, near):
            count += 1
    for n in range(g.firsts[a], g.firsts[a + 1]):
        if lack[n] & MISSING and off(g.terms[n], x, y) < near:
            count += 1
    return count


@compiled
def is_towards(s: Any, g: Any, a: int, lack: Any, curve: Any) -> bool:
    """Whether a curve is a missing one of an answer, or passes through a point that is missing."""
    near = s.means[SIZE] * 1e-6
    for n in range(g.firsts[a], g.firsts[a + 1]):
        term = g.terms[n]
        if lack[n] & NEEDED and off(curve, term[1], term[2]) < near:
            return True
        if lack[n] & MISSING and will_do(term, g.kinds[n], curve, near):
            return True
    return False


@compiled
def is_reachable(s: Any, x: float, y: float, table: Any) -> bool:
    """Whether one move from the points that are there passes through a place; ``table``: see ``lengths_of``."""
    near = s.means[SIZE] * 1e-6
    count = s.counts[POINTS]
    straight = may(s, LINE) or may(s, RAY) or may(s, SEGMENT)
    round_ = may(s, CIRCLE)
    carried = may(s, CIRCLE_RADIUS)
    for p in range(count):
        px, py = s.at[p, 0], s.at[p, 1]
        dx, dy = x - px, y - py
        far = length(dx, dy)
        if carried and is_length(table, far, near):
            return True
        for q in range(count):
            if q == p:
                continue
            ex, ey = s.at[q, 0] - px, s.at[q, 1] - py
            if straight and q > p and abs(dx * ey - dy * ex) < near * (abs(ex) + abs(ey)):
                return True
            if round_ and abs(ex * ex + ey * ey - far * far) < near * (far + near) * 3:
                return True
    return False


@compiled
def on_goal(s: Any, term: Any) -> int:
    """How many points lie on a wanted curve."""
    near = s.means[SIZE] * 1e-6
    count = 0
    for n in range(s.counts[POINTS]):
        if off(term, s.at[n, 0], s.at[n, 1]) < near:
            count += 1
    return count


@compiled
def is_hopeful(s: Any, g: Any, a: int, lack: Any, least: int, table: Any) -> bool:
    """Whether two more moves may reach an answer that takes at least so many; False is certain, True is not."""
    if least == 0 or least > 2:
        return False
    for n in range(g.firsts[a], g.firsts[a + 1]):
        term = g.terms[n]
        if lack[n] & NEEDED and (least == 1 or is_reachable(s, term[1], term[2], table)):
            return True
        if not lack[n] & MISSING:
            continue
        there = on_goal(s, term)
        if there >= (1 if term[0] == CIRCLE else 2):
            return True
        if least == 1:
            return (term[0] == CIRCLE and may(s, CIRCLE_RADIUS)) or can_be_met(s, term, table)
        if term[0] == CIRCLE and not lack[n] & NEEDED and may(s, CIRCLE_RADIUS):
            return True
    return False


@compiled
def can_be_met(s: Any, term: Any, table: Any) -> bool:
    """Whether one move can give a new point on a wanted curve."""
    places = np.empty((2, 2))
    whole = term.copy()
    if whole[0] != CIRCLE:
        whole[0] = LINE
    for c in range(s.counts[CURVES]):
        for m in range(meet(s.curves[c], whole, s.means[SIZE] * 1e-6, places)):
            x, y = places[m, 0], places[m, 1]
            if known(s, x, y) < 0 and is_reachable(s, x, y, table):
                return True
    return False


@compiled
def is_finishable(s: Any, g: Any, a: int, points: int, table: Any) -> bool:
    """Whether the one move that is missing can be made with a point that came last.

    ``points``: how many there were before; ``table``: the lengths between these, see ``lengths_of``.
    """
    near = s.means[SIZE] * 1e-6
    count = s.counts[POINTS]
    for n in range(g.firsts[a], g.firsts[a + 1]):
        term = g.terms[n]
        lack = lacks(s, g, n)
        if lack & MISSING:
            if term[0] == CIRCLE:
                return not lack & NEEDED and (may(s, CIRCLE_RADIUS) or on_goal(s, term) > 0)
            return on_goal(s, term) >= 2
        if not lack & NEEDED:
            continue
        x, y = term[1], term[2]
        straight = may(s, LINE) or may(s, RAY) or may(s, SEGMENT)
        carried = may(s, CIRCLE_RADIUS)
        for p in range(points, count):
            px, py = s.at[p, 0], s.at[p, 1]
            dx, dy = x - px, y - py
            square = dx * dx + dy * dy
            if carried and is_length(table, sqrt(square), near):
                return True
            for q in range(count):
                if q == p:
                    continue
                ex, ey = s.at[q, 0] - px, s.at[q, 1] - py
                if carried and s.means[OPENING] == 0 and has_distance(s, x, y, length(ex, ey)):
                    return True
                if straight and abs(dx * ey - dy * ex) < near * (abs(ex) + abs(ey)):
                    return True
                if may(s, CIRCLE):
                    between = ex * ex + ey * ey
                    slack = near * (sqrt(between) + near) * 3
                    if abs(between - square) < slack:
                        return True
                    fx, fy = x - s.at[q, 0], y - s.at[q, 1]
                    if abs(between - fx * fx - fy * fy) < slack:
                        return True
        return False
    return False


# -- moves ---------------------------------------------------------------------------------------------------------


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


@compiled
def image_is_known(s: Any, g: Any, curve: Any) -> bool:
    """Whether a missing point mirrored in a line is there: then any circle about a point of the line through the one
    passes through the other.
    """
    if curve[0] == CIRCLE:
        return False
    way = curve[3] * curve[3] + curve[4] * curve[4]
    for n in range(len(g.terms)):
        if g.terms[n, 0] == POINT or g.terms[n, 0] == CIRCLE:
            x, y = g.terms[n, 1], g.terms[n, 2]
            t = ((x - curve[1]) * curve[3] + (y - curve[2]) * curve[4]) / way
            if known(s, 2 * (curve[1] + t * curve[3]) - x, 2 * (curve[2] + t * curve[4]) - y) >= 0:
                return True
    return False


@compiled
def which(least: Any, left: int) -> int:
    """Which moves are worth it with so many left, itself counted, where answers take at least so many; -1: none."""
    spare = -1
    for value in least:
        if 0 < value <= left:
            spare = max(spare, left - value)
    if spare < 0:
        return -1
    if spare == 0:
        return TOWARDS
    return EVERYTHING if left > 2 else PREPARING


@compiled
def is_promising(
    s: Any, g: Any, curve: Any, left: int, arbitrary: int, kind: int, lack: Any, least: Any, table: Any
) -> bool:
    """Whether a move is worth it, where not all are."""
    for a in range(len(least)):
        if 0 < least[a] <= left and (least[a] == left or kind == PREPARING) and is_towards(s, g, a, lack, curve):
            return True
    if kind == TOWARDS:
        return False
    if arbitrary == 1:
        # The last move has to use the arbitrary point, and pass through what is missing wherever that was put.
        return image_is_known(s, g, curve)
    points = s.counts[POINTS]
    push(s, curve)
    good = False
    for a in range(len(least)):
        if least[a] == 1 and is_finishable(s, g, a, points, table):
            good = True
            break
    pop(s, points)
    return good


@compiled
def note(s: Any, depth: int, move: int, p: int, q: int, r: int, number: int) -> None:
    """Write a move down at its place of the path."""
    row = s.path[depth]
    row[0], row[7] = move, number
    if p >= 0:
        row[1], row[2] = s.at[p, 0], s.at[p, 1]
    if q >= 0:
        row[3], row[4] = s.at[q, 0], s.at[q, 1]
    if r >= 0:
        row[5], row[6] = s.at[r, 0], s.at[r, 1]


@compiled
def keep(s: Any, depth: int) -> None:
    """Keep the path as one that was found."""
    n = s.counts[FOUND]
    if n >= MOST_FOUND:
        s.counts[FULL] = 1
        return
    for m in range(depth):
        for k in range(8):
            s.found[n, m, k] = s.path[m, k]
    s.found[n, depth, 0] = -1
    s.counts[FOUND] = n + 1


@compiled
def is_reached(s: Any, g: Any) -> bool:
    """Whether some answer stands on the sheet whole."""
    for a in range(len(g.firsts) - 1):
        whole = True
        for n in range(g.firsts[a], g.firsts[a + 1]):
            if not is_drawn(s, g, n):
                whole = False
                break
        if whole:
            return True
    return False


@compiled_entry
def grow(s: Any, g: Any, left: int, arbitrary: int, depth: int, only: int, root: int) -> int:
    """Look at a board with so many moves left and ``arbitrary`` points to put; how many moves were looked at here.

    ``only``: a point that the next move has to use, or -1. ``root``: the one move of this board that is followed, by
    its number among those that are worth it, or -1 for all.
    """
    s.counts[STATES] += 1
    if left == 0:
        if arbitrary == 0 and is_reached(s, g):
            keep(s, depth)
        return 0
    lack, least = np.empty(len(g.terms), np.int64), np.empty(len(g.firsts) - 1, np.int64)
    look(s, g, lack, least)
    kind = which(least, left)
    if kind < 0 or s.counts[STOP]:
        return 0
    lengths, ends, table = lengths_of(s)
    if left == 2 and arbitrary == 0 and only < 0:
        hopeful = False
        for a in range(len(least)):
            if is_hopeful(s, g, a, lack, least[a], table):
                hopeful = True
                break
        if not hopeful:
            return 0
    points, number = s.counts[POINTS], s.counts[CURVES]
    curve = np.empty(5)
    tried = s.counts[TRIED]
    none: Any = np.int64(-1)  # of the type that all calls have, so that this is compiled once
    count = 0
    if not (arbitrary == 1 and left == 1):
        for move in range(5):
            if not may(s, move):
                continue
            for newest in range(points):
                for older in range(newest + 1):
                    for n in range(len(lengths) if move == CIRCLE_RADIUS else 1):
                        for turn in range(2):
                            # Of points from the oldest on: of two ways to a curve, the one on which less can go wrong.
                            p, q = (older, newest) if turn == 0 else (newest, older)
                            if move == CIRCLE_RADIUS:
                                if turn == 1 or older != newest:
                                    continue
                                if only >= 0 and only != p and only != ends[n, 0] and only != ends[n, 1]:
                                    continue
                            else:
                                if older == newest or (turn == 1 and move in (LINE, SEGMENT)):
                                    continue
                                if only >= 0 and only != p and only != q:
                                    continue
                            make(s, move, p, q, lengths[n], curve)
                            if kind == TOWARDS and not is_promising(
                                s, g, curve, left, arbitrary, kind, lack, least, table
                            ):
                                continue
                            if not is_new(s, move, p, q, curve):
                                continue
                            value = mark(s, curve)
                            place = place_in(s.tried, value)
                            if place >= 0:
                                continue
                            if kind == PREPARING and not is_promising(
                                s, g, curve, left, arbitrary, kind, lack, least, table
                            ):
                                continue
                            count += 1
                            if s.counts[TRIED] < TABLE // 2:
                                s.tried[-1 - place] = value
                                s.places[s.counts[TRIED]] = -1 - place
                                s.counts[TRIED] += 1
                            if root >= 0 and count - 1 != root:
                                continue
                            if move == CIRCLE_RADIUS:
                                note(s, depth, move, p, ends[n, 0], ends[n, 1], 0)
                            else:
                                note(s, depth, move, p, q, -1, 0)
                            push(s, curve)
                            s.may[0, move] += 1
                            grow(s, g, left - 1, arbitrary, depth + 1, none, none)
                            s.may[0, move] -= 1
                            pop(s, points)
    if arbitrary == 1:
        for home in range(-1, number):
            count += 1
            if root >= 0 and count - 1 != root:
                continue
            if home < 0:
                if s.means[IS_FREE] == 0:
                    continue
                x, y = s.means[FREE_X], s.means[FREE_Y]
            else:
                one = s.curves[home]
                t = s.means[ON_SEGMENT] if one[0] == SEGMENT else s.means[ON_OTHERS]
                if not np.isfinite(t):
                    continue
                if one[0] == CIRCLE:
                    # The point at angle t, as the plane has it.
                    x, y = one[1] + one[3] * np.cos(t), one[2] + one[3] * np.sin(t)
                else:
                    x, y = one[1] + t * one[3], one[2] + t * one[4]
            if known(s, x, y) >= 0:
                continue
            bits = np.uint64(0)
            if home >= 0:
                bits = np.uint64(1) << np.uint64(home)
            add_point(s, x, y, bits)
            note(s, depth, FREE_POINT if home < 0 else POINT_ON, points, -1, -1, home)
            grow(s, g, left, arbitrary - 1, depth + 1, points, none)
            s.counts[POINTS] = points
    while s.counts[TRIED] > tried:
        s.counts[TRIED] -= 1
        s.tried[s.places[s.counts[TRIED]]] = 0
    return count


def is_compiled() -> bool:
    """Whether all this was compiled as it is, and kept where this process finds it."""
    return _kept().exists()


def compile_all() -> None:
    """Compile all this where it is not yet, which takes about a minute, and keep it for other processes."""
    if is_compiled():
        return
    sheet = Sheet(
        np.zeros((2, 2)), np.zeros(2, np.uint64), np.zeros((2, 5)), np.zeros(7, np.int64), np.zeros((2, 5), np.int64),
        np.ones(7), np.zeros(TABLE, np.int64), np.zeros(4, np.int64), np.zeros((4, 8)), np.zeros((2, 4, 8)),
    )  # fmt: skip
    goals = Goals(np.array([[POINT, 9.0, 9.0, 0.0, 0.0]]), np.zeros(1, np.int64), np.array([0, 1]))
    add_point(sheet, 0.0, 0.0, np.uint64(0))
    push(sheet, np.array([CIRCLE, 0.0, 0.0, 1.0, 0.0]))
    grow(sheet, goals, 0, 0, 0, -1, -1)
    with suppress(OSError):
        _kept().parent.mkdir(parents=True, exist_ok=True)
        _kept().touch()


def _kept() -> Path:
    """A file that says that this was compiled, beside what numba keeps."""
    text = Path(__file__).read_bytes() + numba.__version__.encode()
    folder = getattr(getattr(grow, "stats", None), "cache_path", None)
    return Path(folder or "/nowhere") / f"kernel-{sha256(text).hexdigest()[:16]}.compiled"
