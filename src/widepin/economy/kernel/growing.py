"""The search itself: from a sheet to all that so many moves make of it, as far as an answer is within reach.

See ``sheet`` for what the letters ``s`` and ``g`` stand for.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from .curves import mark
from .drawing import add_point, is_new, known, lengths_of, make, may, place_in, pop, push
from .missing import image_is_known, is_finishable, is_hopeful, is_reached, is_towards, look
from .sheet import (
    CIRCLE,
    CIRCLE_RADIUS,
    CURVES,
    EVERYTHING,
    FOUND,
    FREE_POINT,
    FREE_X,
    FREE_Y,
    FULL,
    IS_FREE,
    LINE,
    MOST_FOUND,
    ON_OTHERS,
    ON_SEGMENT,
    POINT_ON,
    POINTS,
    PREPARING,
    SEGMENT,
    STATES,
    STOP,
    TABLE,
    TOWARDS,
    TRIED,
    compiled,
    compiled_entry,
)


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
