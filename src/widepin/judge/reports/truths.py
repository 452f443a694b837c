"""What stays true: relations among a student's objects that hold wherever the figure is dragged.

They are the raw material for explaining why a construction works. Floats find them in a dozen positions at once and
look at them in a thousand; balls prove them in several, each wherever its own objects exist, be the rest of the
figure there or not. What a single step says by itself (a midpoint halves) is left out.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations
from typing import Any

import numpy as np

from ...plane.arrays import ARRAYS, Arrays, Floats
from ...plane.figure import is_defined
from ...plane.makes import circle_through
from ...plane.measurement import distance, double_area, off_curve, radius, separation
from ...plane.shapes import LINES, SHAPE_OF, Circle, Kind, Point
from ...plane.tolerances import ALWAYS_EQUAL, IN_A_ROW
from ..positions.alike import alike
from ..positions.references import passes_through
from ..task import Condition, Names
from ..trials.certifying import TRUTHS, Certifier
from ..trials.examination import SAMPLES, Examination

MOST, MAX_TRIED = 12, 36
"""Truths that are told, and that are put to the proof for it."""

MAX_POINTS, MAX_LINES, MAX_CIRCLES, MAX_ANGLES = 16, 16, 16, 80
"""Objects that are compared: those that the answer needs first."""

MAX_TERMS = 6
"""Lengths, angles or points that are named in one truth."""

RATIOS = (2, 3)
"""How many times longer one length is than another, where it is worth saying."""


def what_stays_true(
    examined: Examination,
    answer: Sequence[int],
    left_out: Sequence[str],
    failing: Sequence[Sequence[float]] = (),
) -> tuple[Condition, ...]:
    """At most a dozen truths, the most telling first.

    ``answer``: the numbers of its objects. ``left_out``: ids of objects that repeat others. ``failing``: positions in
    which the work is known to fail, where truths are looked at too.
    """
    looking = _Looking(examined, answer, set(left_out))
    found = [
        *looking.right_angles_and_parallels(),
        *looking.equal_lengths(),
        *looking.ratios(),
        *looking.on_curves(),
        *looking.touching(),
        *looking.equally_far(),
        *looking.concurrent(),
        *looking.equal_angles(),
        *looking.concyclic(),
    ]
    certifier = Certifier(examined)
    proven: list[Condition] = []
    for truth in sorted(found, key=looking.interest)[:MAX_TRIED]:
        if len(proven) == MOST:
            break
        for variant in looking.within_extent_or_on_lines(truth):
            if certifier.is_proven(variant) and all(certifier.holds_at(variant, position) for position in failing):
                proven.append(variant)
                break
    return tuple(proven)


class _Looking:
    """The objects that are compared, with their coordinates in the samples."""

    def __init__(self, examined: Examination, answer: Sequence[int], left_out: set[str]):
        self.examined = examined
        self.nodes = examined.figure.nodes
        self.answer = set(answer)
        self.parents = {parent for number in answer for parent in self.nodes[number].parents}
        needed = examined.figure.ancestors(answer)
        there = [n for n in examined.spoken_of if is_defined(examined.shapes[n]) and self.id(n) not in left_out]
        by_use = sorted(there, key=lambda n: (n not in self.answer | self.parents, n not in needed))
        self.points = sorted([n for n in by_use if self.nodes[n].kind is Kind.POINT][:MAX_POINTS])
        self.lines = sorted([n for n in by_use if self.nodes[n].kind in LINES][:MAX_LINES])
        self.circles = sorted([n for n in by_use if self.nodes[n].kind is Kind.CIRCLE][:MAX_CIRCLES])
        self.at = {n: examined.sample(n) for n in (*self.points, *self.lines, *self.circles)}

    def id(self, number: int) -> str:
        return self.nodes[number].step.id

    def order(self, number: int) -> int:
        """The place of an object in the canonical order, which does not hang on how independent steps were ordered."""
        return number

    def pair(self, p: int, q: int) -> tuple[int, int]:
        """Two points, the one that was there first before the other."""
        return (p, q) if self.order(p) < self.order(q) else (q, p)

    def interest(self, truth: Condition) -> tuple[int, int, int]:
        """What makes a truth telling, the smallest first: near to the answer, of a telling kind, about much."""
        numbers = {self.examined.figure.index[name] for name in truth.names}
        nearness = 0 if numbers & self.answer else 1 if numbers & self.parents else 2
        return nearness, list(TRUTHS).index(truth.rel), -len(truth.of)

    def through(self, curve: int) -> list[int]:
        """The points that a curve passes through by its making or theirs."""
        return [p for p in self.points if passes_through(self.examined.figure, curve, p)]

    def within_extent_or_on_lines(self, truth: Condition) -> Iterator[Condition]:
        """A truth about the extent of rays and segments, then about their lines."""
        yield truth
        if truth.rel in ("on", "tangent"):
            terms = [self.line_of(term) for term in truth.of]
            if None not in terms and tuple(terms) != truth.of and not self.in_a_row(truth):
                yield Condition(truth.rel, tuple(term for term in terms if term is not None))

    def in_a_row(self, truth: Condition) -> bool:
        """Whether a point lies on a line just because another line passes through it and two
        points of that.
        """
        if truth.rel != "on":
            return False
        point, line = (self.examined.figure.index[str(name)] for name in truth.of)
        passing = set(self.through(line))
        return any(point in row and len(row & passing) > 1 for row in (set(self.through(s)) for s in self.lines))

    def line_of(self, term: Names) -> Names | None:
        """The line of a ray or segment as the pair of points that it was drawn through; None where it has no two."""
        if not isinstance(term, str):
            return term
        node = self.nodes[self.examined.figure.index[term]]
        if node.kind not in (Kind.RAY, Kind.SEGMENT):
            return term
        return tuple(node.step.sources) if len(node.step.sources) == 2 else None

    # -- lines -----------------------------------------------------------------------------------

    def right_angles_and_parallels(self) -> Iterator[Condition]:
        """Pairs of lines, and of given points without a line through them."""
        terms: list[Names] = [self.id(n) for n in self.lines]
        makers: list[int | tuple[int, int]] = list(self.lines)
        lines = [self.at[n] for n in self.lines]
        for pair in self.given_pairs():
            p, q = (self.at[n] for n in pair)
            terms.append((self.id(pair[0]), self.id(pair[1])))
            makers.append(pair)
            lines.append([*p, q[0] - p[0], q[1] - p[1]])
        if len(lines) < 2:
            return
        x, y, dx, dy = np.array(lines).transpose(1, 0, 2)
        length = np.hypot(dx, dy)
        ux, uy = dx / length, dy / length
        upright = _always_zero(ux[:, None] * ux[None] + uy[:, None] * uy[None])
        level = _always_zero(ux[:, None] * uy[None] - uy[:, None] * ux[None])
        apart = (x[None] - x[:, None]) * uy[:, None] - (y[None] - y[:, None]) * ux[:, None]
        one_line = level & _always_zero(apart / float(self.examined.size))
        for i, j in combinations(range(len(lines)), 2):
            for rel, holds in (("perpendicular", upright[i, j]), ("parallel", level[i, j] and not one_line[i, j])):
                if holds and not self.is_said(rel, makers[i], makers[j]):
                    yield Condition(rel, (terms[i], terms[j]))

    def given_pairs(self) -> Iterator[tuple[int, int]]:
        """Pairs of given points that no line passes through, where few points are given."""
        given = [p for p in self.points if p < self.examined.given]
        joined = [set(self.through(line)) for line in self.lines]
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

    def lengths(self) -> tuple[list[tuple[int, int]], Floats]:
        """Ways between points that can be seen, and how long they are in the samples, in sizes of the figure."""
        drawn = sorted(self.drawn_pairs(), key=lambda pair: (self.order(pair[0]), self.order(pair[1])))
        at, size = self.at, float(self.examined.size)
        rows = [np.hypot(at[p][0] - at[q][0], at[p][1] - at[q][1]) / size for p, q in drawn]
        return drawn, np.array(rows) if rows else np.zeros((0, SAMPLES))

    def equal_lengths(self) -> Iterator[Condition]:
        """Groups of equally long drawn: drawn segments, radii, and the drawn between few given points."""
        drawn, rows = self.lengths()
        for group in alike(rows):
            pairs = [drawn[at] for at in group]
            if not self.said_by_one_step(pairs) and not np.nanmax(rows[group[0]]) < ALWAYS_EQUAL:
                last = {pair: max(map(self.order, pair)) for pair in pairs}
                pairs = sorted(pairs, key=lambda pair: (last[pair], self.order(pair[0])))[:MAX_TERMS]  # noqa: B023
                yield Condition("equal_length", tuple((self.id(p), self.id(q)) for p, q in pairs))

    def ratios(self) -> Iterator[Condition]:
        """Ways of which one is twice or three times as long as another; one for each pair of lengths."""
        drawn, rows = self.lengths()
        seen: set[tuple[int, ...]] = set()
        for times in RATIOS:
            for group in alike(np.concatenate([rows, times * rows])):
                longer = [at for at in group if at < len(drawn)]
                shorter = [at - len(drawn) for at in group if at >= len(drawn)]
                if not longer or not shorter or np.nanmax(rows[shorter[0]]) < ALWAYS_EQUAL:
                    continue
                telling = ((a, b) for a in longer for b in shorter if not self.halves(drawn[a], drawn[b]))
                of = next(telling, None)
                if of is not None and of not in seen:
                    seen.add(of)
                    yield Condition("ratio", tuple(self.ids(drawn[at]) for at in of), (times, 1))

    def ids(self, pair: tuple[int, int]) -> tuple[str, str]:
        return self.id(pair[0]), self.id(pair[1])

    def halves(self, whole: tuple[int, int], half: tuple[int, int]) -> bool:
        """Whether one way is half of another because a midpoint was made so, or a diameter because of its radius."""
        for middle, end in (half, half[::-1]):
            node = self.nodes[middle]
            if node.step.make == "midpoint" and end in node.sources and set(whole) == set(node.sources):
                return True
        return False

    def drawn_pairs(self) -> set[tuple[int, int]]:
        """Pairs of points between which a length can be seen on the board."""
        points = set(self.points)
        drawn: set[tuple[int, int]] = set()
        for line in self.lines:
            if self.nodes[line].step.make in ("line", "ray", "segment"):
                p, q = self.nodes[line].sources
                drawn.add(self.pair(p, q))
        for circle in self.circles:
            centre = self.centre(circle)
            if centre is not None:
                drawn |= {self.pair(centre, p) for p in self.through(circle) if p != centre}
        for p in self.points:
            if self.nodes[p].step.make == "midpoint":
                drawn |= {self.pair(p, end) for end in self.nodes[p].sources}
        drawn |= set(self.given_pairs())
        return {pair for pair in drawn if points >= set(pair)}

    def centre(self, circle: int) -> int | None:
        """The point that a circle was drawn about."""
        node = self.nodes[circle]
        return None if node.step.make == "circle_through" else node.sources[0]

    def said_by_one_step(self, pairs: Sequence[tuple[int, int]]) -> bool:
        """Whether equal lengths are the radii of one circle, its opening included, or the halves at one midpoint."""
        for circle in self.circles:
            centre, node = self.centre(circle), self.nodes[circle]
            said = {self.pair(centre, p) for p in self.through(circle)} if centre is not None else set()
            if node.step.make == "circle_radius":
                said.add(self.pair(node.sources[1], node.sources[2]))
            if set(pairs) <= said:
                return True
        return any(
            set(pairs) <= {self.pair(p, end) for end in self.nodes[p].sources}
            for p in self.points
            if self.nodes[p].step.make == "midpoint"
        )

    # -- angles --------------------------------------------------------------------------------------

    def equal_angles(self) -> Iterator[Condition]:
        """Angles between drawn lines that are equal: inscribed ones, those at a bisector that was constructed."""
        triples = self.drawn_angles()
        if len(triples) < 2:
            return
        p, vertex, q = (np.array([self.at[triple[index]] for triple in triples]) for index in range(3))
        u, v = p - vertex, q - vertex
        turn = np.arctan2(np.abs(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]), (u * v).sum(axis=1))
        for group in alike(turn):
            # Right angles are told as such, and so is what lies on one line.
            sine, cosine = np.sin(turn[group[0]]), np.cos(turn[group[0]])
            angles = [triples[at] for at in group]
            if np.nanmax(sine) < ALWAYS_EQUAL or np.nanmax(np.abs(cosine)) < ALWAYS_EQUAL or self.bisected(angles):
                continue
            yield Condition("equal_angle", tuple(tuple(map(self.id, triple)) for triple in angles[:MAX_TERMS]))

    def drawn_angles(self) -> list[tuple[int, int, int]]:
        """Angles at a point between two lines that pass through it, by the first other point on each; vertex
        second.
        """
        on_line = {s: self.through(s) for s in self.lines}
        angles = []
        for vertex in self.points:
            legs = []
            for line, points in on_line.items():
                ends = [p for p in points if p != vertex]
                if vertex in points and ends and self.nodes[line].step.make in ("line", "ray", "segment"):
                    legs.append(ends[0])
            angles += [(p, vertex, q) for p, q in combinations(dict.fromkeys(legs), 2)]
        return angles[:MAX_ANGLES]

    def bisected(self, angles: Sequence[tuple[int, int, int]]) -> bool:
        """Whether equal angles are just what the bisector of an angle makes."""
        if len(angles) != 2 or angles[0][1] != angles[1][1]:
            return False
        legs = {p for triple in angles for p in (triple[0], triple[2])}
        return any(
            self.nodes[s].step.make == "angle_bisector" and self.nodes[s].sources[1] == angles[0][1]
            for s in self.lines
            if set(self.nodes[s].sources) & legs
        )

    # -- points on curves ----------------------------------------------------------------------------

    def on_curves(self) -> Iterator[Condition]:
        """Points that lie on a line or circle although they were not made so."""
        size = float(self.examined.size)
        for curve in (*self.lines, *self.circles):
            passing = set(self.through(curve))
            middles = {p for p in self.points if self.nodes[p].step.make == "midpoint"}
            for p in self.points:
                said = p in passing or (p in middles and set(self.nodes[p].sources) <= passing)
                if not said and _always_zero(self.off(self.at[p], curve) / size):
                    yield Condition("on", (self.id(p), self.id(curve)))

    def off(self, p: Sequence[Floats], curve: int) -> Floats:
        """How far a point lies from a circle, or from a line, however far that extends, in the samples."""
        shape = SHAPE_OF[self.nodes[curve].kind](*self.at[curve])
        assert not isinstance(shape, Point)
        with Arrays.quiet():
            return np.asarray(off_curve(ARRAYS, Point(*p), shape))

    def touching(self) -> Iterator[Condition]:
        """Circles that touch a line or another circle."""
        size = float(self.examined.size)
        for circle in self.circles:
            shape = Circle(*self.at[circle])
            centre = Point(shape.x, shape.y)
            for line in self.lines:
                if _always_zero((np.abs(self.off(centre, line)) - radius(ARRAYS, shape)) / size):
                    yield Condition("tangent", (self.id(circle), self.id(line)))
            for other in self.circles[: self.circles.index(circle)]:
                second = Circle(*self.at[other])
                outside, inside = separation(ARRAYS, shape, second)
                touch = _always_zero(np.minimum(np.abs(outside), np.abs(inside)) / size)
                apart = distance(ARRAYS, centre, Point(second.x, second.y))
                if touch and not _always_zero(apart / size):
                    yield Condition("tangent", (self.id(other), self.id(circle)))

    def equally_far(self) -> Iterator[Condition]:
        """Points that are as far from one line as from others, but for those on a bisector that a tool drew."""
        if len(self.lines) < 2:
            return
        size = float(self.examined.size)
        for p in self.points:
            rows = np.abs([self.off(self.at[p], line) for line in self.lines]) / size
            for group in alike(rows):
                lines = [self.lines[at] for at in group][:MAX_TERMS]
                legs = {end for line in lines for end in self.through(line)}
                is_said = len(lines) == 2 and any(
                    self.nodes[s].step.make == "angle_bisector" and set(self.nodes[s].sources) <= legs
                    for s in self.lines
                    if p in self.through(s)
                )
                if not is_said and not np.nanmax(rows[group[0]]) < ALWAYS_EQUAL:
                    yield Condition("equidistant", (self.id(p), *map(self.id, lines)))

    def concurrent(self) -> Iterator[Condition]:
        """Three lines through one point that is not marked: where two of them meet at a point, that is on the third."""
        marked = {line: set(self.through(line)) for line in self.lines}
        size = float(self.examined.size)
        for three in combinations(self.lines, 3):
            if any(marked[a] & marked[b] for a, b in combinations(three, 2)):
                continue
            x, y, dx, dy = np.array([self.at[line] for line in three]).transpose(1, 0, 2)
            ux, uy = dx / np.hypot(dx, dy), dy / np.hypot(dx, dy)
            offset = (x * uy - y * ux) / size
            sines = [ux[a] * uy[b] - ux[b] * uy[a] for a, b in ((1, 2), (2, 0), (0, 1))]
            apart = not any(np.nanmin(np.abs(sine)) < ALWAYS_EQUAL for sine in sines)
            if apart and _always_zero(sum(offset[n] * sines[n] for n in range(3))):
                yield Condition("concurrent", tuple(map(self.id, three)))

    def concyclic(self) -> Iterator[Condition]:
        """Four points or more on a circle that is not drawn."""
        triples = list(combinations(self.points, 3))
        if len(self.points) < 4:
            return
        corners = np.array([[self.at[n] for n in triple] for triple in triples])
        rows = np.concatenate(_circle_through(corners, float(self.examined.size)), axis=1)
        seen: set[frozenset[int]] = set()
        drawn = [set(self.through(circle)) | set(self.lying_on(circle)) for circle in self.circles]
        for group in alike(rows):
            points = frozenset(n for at in group for n in triples[at])
            # A chance meeting of two triples is no circle of all their points.
            if len(points) < 4 or points in seen or any(points <= known for known in drawn):
                continue
            seen.add(points)
            yield Condition("concyclic", tuple(self.id(n) for n in sorted(points, key=self.order)[:MAX_TERMS]))

    def lying_on(self, circle: int) -> Iterator[int]:
        size = float(self.examined.size)
        return (p for p in self.points if _always_zero(self.off(self.at[p], circle) / size))


def _always_zero(values: Floats) -> Any:
    """Where numbers vanish in all samples in which they exist, and exist in most of them (last axis)."""
    there = ~np.isnan(values)
    small = np.where(there, np.abs(values), 0).max(axis=-1) < ALWAYS_EQUAL
    return small & (there.sum(axis=-1) * 4 >= values.shape[-1])


def _circle_through(corners: Floats, size: float) -> list[Floats]:
    """Centres and radii (n, m) of the circles through corners (n, 3, 2, m); NaN where they are in a row."""
    p, q, r = (Point(*corners[:, k].transpose(1, 0, 2)) for k in range(3))
    with Arrays.quiet():
        circle = circle_through(ARRAYS, p, q, r)
    there = np.where(np.abs(double_area(p, q, r)) > IN_A_ROW * size * size, 1 / size, np.nan)
    return [circle.x * there, circle.y * there, radius(ARRAYS, circle) * there]
