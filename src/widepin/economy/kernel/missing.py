"""What is missing of the right answers on a sheet, and whether few moves can give it.

See ``sheet`` for what the letters ``s`` and ``g`` stand for.
"""

from __future__ import annotations

from math import sqrt
from typing import Any

import numpy as np

from .curves import length, meet, off, same, within
from .drawing import has_distance, is_length, known, may
from .sheet import (
    CIRCLE,
    CIRCLE_RADIUS,
    CURVES,
    LINE,
    MISSING,
    NEEDED,
    OPENING,
    POINT,
    POINTS,
    RAY,
    SEGMENT,
    SIZE,
    compiled,
)


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
