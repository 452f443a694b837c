"""Curves by their numbers alone: where they run, where two meet, whether two are one.

See ``sheet`` for what the letters ``s`` and ``g`` stand for.
"""

from __future__ import annotations

from math import sqrt
from typing import Any

import numpy as np

from .sheet import CIRCLE, LINE, RAY, SEGMENT, SIZE, compiled


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
