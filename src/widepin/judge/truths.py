"""What stays true: equalities among a student's objects that hold wherever the figure is dragged.

They are the raw material for explaining why a construction works. Floats find them in a dozen positions at once,
balls prove them, and those that a single step says by itself (a midpoint halves) are left out.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..plane.balls import BALLS, Undecided, at_rising_precision, ball
from ..plane.figure import is_defined
from ..plane.makes import circle_through
from ..plane.shapes import STRAIGHTS, Kind, Point
from .alike import CLOSE, alike
from .board import Board, finding, vanishes
from .conditions import RELATIONS, Finding, Measure, Relation, Term, on
from .references import passes_through
from .task import Condition, Names

Floats = NDArray[np.float64]

MOST = 12
"""Truths that are told."""

MOST_POINTS, MOST_STRAIGHTS = 16, 16
"""Objects that are compared: those that the answer needs first."""

MOST_TERMS = 6
"""Lengths or points that are named in one truth."""


def concyclic(measure: Measure, *points: Term) -> Finding:
    """All points lie on the circle through the first three."""
    p, q, r = (one.shape for one in points[:3])
    circle = Term(circle_through(measure.system, p, q, r), Kind.CIRCLE)  # type: ignore[arg-type]
    return Finding([gap for point in points[3:] for gap in on(measure, point, circle).gaps])


TRUTHS = {name: RELATIONS[name] for name in ("perpendicular", "equal_length", "on", "parallel")} | {
    "concyclic": Relation("concyclic", ("point",), concyclic, many=True)
}
"""The relations that are looked for, the most telling first."""


def what_stays_true(board: Board, answer: Sequence[int], left_out: Sequence[str]) -> tuple[Condition, ...]:
    """At most a dozen truths, the most telling first.

    ``answer``: the numbers of its objects. ``left_out``: ids of objects that repeat others.
    """
    looking = _Looking(board, answer, set(left_out))
    found = [
        *looking.right_angles_and_parallels(),
        *looking.equal_lengths(),
        *looking.on_curves(),
        *looking.concyclic(),
    ]
    ranked = sorted(found, key=looking.interest)
    proven: list[Condition] = []
    for truth in ranked:
        if len(proven) == MOST:
            break
        if is_proven(board, truth):
            proven.append(truth)
    return tuple(proven)


class _Looking:
    """The objects that are compared, with their coordinates in the samples."""

    def __init__(self, board: Board, answer: Sequence[int], left_out: set[str]):
        self.board = board
        self.nodes = board.figure.nodes
        self.answer = set(answer)
        self.parents = {parent for number in answer for parent in self.nodes[number].parents}
        needed = board.figure.ancestors(answer)
        there = [
            n for n in range(board.given + board.own) if is_defined(board.shapes[n]) and self.id(n) not in left_out
        ]
        by_use = sorted(there, key=lambda n: (n not in self.answer | self.parents, n not in needed, n))
        self.points = sorted([n for n in by_use if self.nodes[n].kind is Kind.POINT][:MOST_POINTS])
        self.straights = sorted([n for n in by_use if self.nodes[n].kind in STRAIGHTS][:MOST_STRAIGHTS])
        self.circles = [n for n in there if self.nodes[n].kind is Kind.CIRCLE]
        self.at = {n: board.sample(n) for n in (*self.points, *self.straights, *self.circles)}

    def id(self, number: int) -> str:
        return self.nodes[number].step.id

    def interest(self, truth: Condition) -> tuple[int, int, int]:
        """What makes a truth telling, the smallest first: near to the answer, of a telling kind, about much."""
        numbers = {self.board.figure.index[name] for name in truth.names}
        nearness = 0 if numbers & self.answer else 1 if numbers & self.parents else 2
        return nearness, list(TRUTHS).index(truth.rel), -len(truth.of)

    def through(self, straight: int) -> list[int]:
        """The points that a straight passes through by its making or theirs."""
        return [p for p in self.points if passes_through(self.board.figure, straight, p)]

    # -- straights -----------------------------------------------------------------------------------

    def right_angles_and_parallels(self) -> Iterator[Condition]:
        """Pairs of straights, and of given points without a straight through them."""
        terms: list[Names] = [self.id(n) for n in self.straights]
        makers: list[int | tuple[int, int]] = list(self.straights)
        ways = [self.at[n] for n in self.straights]
        for pair in self.given_pairs():
            p, q = (self.at[n] for n in pair)
            terms.append((self.id(pair[0]), self.id(pair[1])))
            makers.append(pair)
            ways.append([*p, q[0] - p[0], q[1] - p[1]])
        if len(ways) < 2:
            return
        x, y, dx, dy = np.array(ways).transpose(1, 0, 2)
        length = np.hypot(dx, dy)
        ux, uy = dx / length, dy / length
        upright = _always_zero(ux[:, None] * ux[None] + uy[:, None] * uy[None])
        level = _always_zero(ux[:, None] * uy[None] - uy[:, None] * ux[None])
        apart = (x[None] - x[:, None]) * uy[:, None] - (y[None] - y[:, None]) * ux[:, None]
        one_line = level & _always_zero(apart / float(self.board.size))
        for i, j in combinations(range(len(ways)), 2):
            for rel, holds in (("perpendicular", upright[i, j]), ("parallel", level[i, j] and not one_line[i, j])):
                if holds and not self.is_said(rel, makers[i], makers[j]):
                    yield Condition(rel, (terms[i], terms[j]))

    def given_pairs(self) -> Iterator[tuple[int, int]]:
        """Pairs of given points that no straight passes through, where few points are given."""
        given = [p for p in self.points if p < self.board.given]
        joined = [set(self.through(straight)) for straight in self.straights]
        for pair in combinations(given, 2):
            if len(given) <= 3 and not any(set(pair) <= points for points in joined):
                yield pair

    def is_said(self, rel: str, a: int | tuple[int, int], b: int | tuple[int, int]) -> bool:
        """Whether a right angle or a parallel is just what one of the two was made to be."""
        for made, other in ((a, b), (b, a)):
            if isinstance(made, tuple):
                continue
            node = self.nodes[made]
            if node.step.make == rel and node.sources[0] == other:
                return True
            if rel == "perpendicular" and node.step.make == "perpendicular_bisector":
                points = other if isinstance(other, tuple) else self.through(other)
                if set(node.sources) <= set(points):
                    return True
        return False

    # -- lengths -------------------------------------------------------------------------------------

    def equal_lengths(self) -> Iterator[Condition]:
        """Groups of equally long ways: drawn segments, radii, and the ways between few given points."""
        ways = sorted(self.drawn_ways())
        if len(ways) < 2:
            return
        size = float(self.board.size)
        rows = [np.hypot(self.at[p][0] - self.at[q][0], self.at[p][1] - self.at[q][1]) / size for p, q in ways]
        for group in alike(np.array(rows)):
            pairs = [ways[at] for at in group]
            if not self.said_by_one_step(pairs) and not np.nanmax(rows[group[0]]) < CLOSE:
                pairs = sorted(pairs, key=lambda pair: (max(pair), pair))[:MOST_TERMS]
                yield Condition("equal_length", tuple((self.id(p), self.id(q)) for p, q in pairs))

    def drawn_ways(self) -> set[tuple[int, int]]:
        """Pairs of points between which a length can be seen on the board."""
        points = set(self.points)
        ways: set[tuple[int, int]] = set()
        for straight in self.straights:
            if self.nodes[straight].step.make in ("line", "ray", "segment"):
                ways.add(_pair(*self.nodes[straight].sources))
        for circle in self.circles:
            centre = self.centre(circle)
            if centre is not None:
                ways |= {_pair(centre, p) for p in self.through(circle) if p != centre}
        for p in self.points:
            if self.nodes[p].step.make == "midpoint":
                ways |= {_pair(p, end) for end in self.nodes[p].sources}
        ways |= set(self.given_pairs())
        return {way for way in ways if points >= set(way)}

    def centre(self, circle: int) -> int | None:
        """The point that a circle was drawn about."""
        node = self.nodes[circle]
        return None if node.step.make == "circle_through" else node.sources[0]

    def said_by_one_step(self, pairs: Sequence[tuple[int, int]]) -> bool:
        """Whether equal lengths are the radii of one circle, its opening included, or the halves at one midpoint."""
        for circle in self.circles:
            centre, node = self.centre(circle), self.nodes[circle]
            said = {_pair(centre, p) for p in self.through(circle)} if centre is not None else set()
            if node.step.make == "circle_radius":
                said.add(_pair(*node.sources[1:]))
            if set(pairs) <= said:
                return True
        return any(
            set(pairs) <= {_pair(p, end) for end in self.nodes[p].sources}
            for p in self.points
            if self.nodes[p].step.make == "midpoint"
        )

    # -- points on curves ----------------------------------------------------------------------------

    def on_curves(self) -> Iterator[Condition]:
        """Points that lie on a straight or circle although they were not made so."""
        size = float(self.board.size)
        for curve in (*self.straights, *self.circles):
            passing = set(self.through(curve))
            middles = {p for p in self.points if self.nodes[p].step.make == "midpoint"}
            for p in self.points:
                said = p in passing or (p in middles and set(self.nodes[p].sources) <= passing)
                if not said and _always_zero(self.off(self.at[p], curve) / size):
                    yield Condition("on", (self.id(p), self.id(curve)))

    def off(self, p: Sequence[Floats], curve: int) -> Floats:
        """How far a point lies from a circle, or from the whole line of a straight, in the samples."""
        if self.nodes[curve].kind is Kind.CIRCLE:
            x, y, rr = self.at[curve]
            return np.asarray(np.hypot(p[0] - x, p[1] - y) - np.sqrt(rr))
        x, y, dx, dy = self.at[curve]
        return np.asarray(((p[0] - x) * dy - (p[1] - y) * dx) / np.hypot(dx, dy))

    def concyclic(self) -> Iterator[Condition]:
        """Four points or more on a circle that is not drawn."""
        triples = list(combinations(self.points, 3))
        if len(self.points) < 4:
            return
        corners = np.array([[self.at[n] for n in triple] for triple in triples])
        rows = np.concatenate(_circle_through(corners, float(self.board.size)), axis=1)
        seen: set[frozenset[int]] = set()
        drawn = [set(self.through(circle)) | set(self.lying_on(circle)) for circle in self.circles]
        for group in alike(rows):
            points = frozenset(n for at in group for n in triples[at])
            # A chance meeting of two triples is no circle of all their points.
            if len(points) < 4 or points in seen or any(points <= known for known in drawn):
                continue
            seen.add(points)
            yield Condition("concyclic", tuple(self.id(n) for n in sorted(points)[:MOST_TERMS]))

    def lying_on(self, circle: int) -> Iterator[int]:
        size = float(self.board.size)
        return (p for p in self.points if _always_zero(self.off(self.at[p], circle) / size))


def _pair(p: int, q: int) -> tuple[int, int]:
    return (p, q) if p < q else (q, p)


def _always_zero(values: Floats) -> Any:
    """Where numbers vanish in all samples in which they exist, and exist in most of them (last axis)."""
    there = ~np.isnan(values)
    small = np.where(there, np.abs(values), 0).max(axis=-1) < CLOSE
    return small & (there.sum(axis=-1) * 4 >= values.shape[-1])


def _circle_through(corners: Floats, size: float) -> list[Floats]:
    """Centres and radii (n, m) of the circles through corners (n, 3, 2, m); NaN where they are in a row."""
    (px, py), (qx, qy), (rx, ry) = (corners[:, k].transpose(1, 0, 2) for k in range(3))
    bx, by, cx, cy = qx - px, qy - py, rx - px, ry - py
    area = 2 * (bx * cy - by * cx)
    area = np.where(np.abs(area) > 1e-6 * size * size, area, np.nan)
    bb, cc = bx * bx + by * by, cx * cx + cy * cy
    ux, uy = (cy * bb - by * cc) / area, (bx * cc - cx * bb) / area
    return [(px + ux) / size, (py + uy) / size, np.hypot(ux, uy) / size]


def is_proven(board: Board, truth: Condition) -> bool:
    """Whether balls prove a truth."""
    nodes, index, proofs = board.figure.nodes, board.figure.index, board.proofs

    def compute() -> bool:
        measure = Measure(BALLS, ball(float(board.size)), Point(ball(0), ball(0)))
        for shapes in proofs:

            def look_up(name: str) -> Term:
                kind = nodes[index[name]].kind
                # A point lies on a segment's line: where a segment ends is not asked.
                return Term(shapes[index[name]], Kind.LINE if kind in STRAIGHTS else kind)  # noqa: B023

            found = finding(measure, truth, look_up, TRUTHS)
            if not all(vanishes(gap, board.size) for gap in found.gaps):
                return False
        return bool(proofs)

    try:
        return at_rising_precision(compute)
    except Undecided:
        return False
