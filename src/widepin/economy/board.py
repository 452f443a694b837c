"""A board in one position: its points with all crossings, its curves, and every move that can be made on it.

All is computed in floats by the plane's own functions, on all candidates of a level at once. Nothing here decides: what
a search finds is judged.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from itertools import combinations, permutations
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ..plane.arrays import ARRAYS, Floats, Mask
from ..plane.intersections import along_line, circles_meet, lines_meet, within_extent
from ..plane.makes import MAKES
from ..plane.measurement import off_curve
from ..plane.shapes import LINES, SHAPE_OF, Circle, Kind, Line, Point, Shape, at_parameter

ONE = 1e-7
"""Parts of the figure's size within which two places are one."""

MOST_ROWS = 1_000_000
"""Moves of one make that are looked at in one go."""

Source = tuple[str, int]
"""A point ("P", n) or a curve ("C", n) of a board."""


class OutOfRoom(Exception):
    """A make gives more moves than can be looked at."""


class Origin(NamedTuple):
    """How an object came to be: by a make from sources; ``id`` for what stood there before; ``at`` for a place that was
    chosen; ``first``: of two crossings, whether it is the first.
    """

    make: str
    sources: tuple[Source, ...] = ()
    id: str = ""
    at: tuple[float, float] | None = None
    first: bool = True


class Curve(NamedTuple):
    """A curve in floats, with its kind and where it comes from."""

    kind: Kind
    shape: Shape[float]
    origin: Origin


@dataclass(frozen=True)
class Candidates:
    """Moves of one make: their sources, a row each, and the shapes that they would give, in arrays."""

    make: str
    sources: NDArray[np.int64]
    shape: Shape[Any]

    def __len__(self) -> int:
        return len(self.sources)

    @property
    def kind(self) -> Kind:
        """What the make gives."""
        return MAKES[self.make].gives

    def at(self, place: int) -> Shape[float]:
        """One of the shapes, in floats."""
        return SHAPE_OF[self.kind](*(float(values[place]) for values in self.shape))

    def chosen(self, which: Any) -> Candidates:
        """Those of a mask, or with these numbers."""
        shape = SHAPE_OF[self.kind](*(values[which] for values in self.shape))
        return Candidates(self.make, self.sources[which], shape)

    def origin(self, place: int, kinds: str) -> Origin:
        """Where the object of one comes from; ``kinds``: P or C for each source."""
        return Origin(self.make, tuple((kind, int(n)) for kind, n in zip(kinds, self.sources[place], strict=True)))


PRIMES = np.array([1_000_003, 998_244_353, 2_147_483_647, 1_000_000_007], np.int64)

SOURCES = {
    name: "".join("P" if role == frozenset({Kind.POINT}) else "C" for role in make.sources)
    for name, make in MAKES.items()
}
"""For every make, P or C for each of its sources."""


@dataclass
class Board:
    """What stands on a board in a position. ``size``: of the figure, in centimetres; ``used``: how often each tool was;
    ``drawn``: the marks of its curves.
    """

    size: float
    points: Floats
    origins: list[Origin]
    curves: list[Curve] = field(default_factory=list)
    used: dict[str, int] = field(default_factory=dict)
    drawn: frozenset[int] = frozenset()

    def key(self, kind: Kind, shape: Shape[Any]) -> NDArray[np.int64]:
        """What tells curves of a kind apart, whatever they were made from: a row for each, rounded."""
        grain = self.size * ONE * 4
        if isinstance(shape, Circle):
            return np.round(np.stack([shape.x / grain, shape.y / grain, np.sqrt(shape.rr) / grain], -1)).astype(
                np.int64
            )
        if isinstance(shape, Point):
            return np.round(np.stack([shape.x / grain, shape.y / grain], -1)).astype(np.int64)
        assert isinstance(shape, Line)
        if kind is Kind.LINE:
            length = np.sqrt(shape.dx**2 + shape.dy**2)
            ux, uy = shape.dx / length, shape.dy / length
            turned = np.where((ux < -ONE) | ((np.abs(ux) <= ONE) & (uy < 0)), -1.0, 1.0)
            off = (shape.x * uy - shape.y * ux) * turned
            return np.round(np.stack([ux * turned / ONE / 4, uy * turned / ONE / 4, off / grain], -1)).astype(np.int64)
        ends = np.stack([shape.x, shape.y, shape.x + shape.dx, shape.y + shape.dy], -1)
        if kind is Kind.SEGMENT:
            swap = (ends[..., 0] > ends[..., 2] + ONE) | (
                (np.abs(ends[..., 0] - ends[..., 2]) <= ONE) & (ends[..., 1] > ends[..., 3])
            )
            ends = np.where(swap[..., None], ends[..., [2, 3, 0, 1]], ends)
            return np.round(ends / grain).astype(np.int64)
        length = np.sqrt(shape.dx**2 + shape.dy**2)
        ray = np.stack([shape.x / grain, shape.y / grain, shape.dx / length / ONE / 4, shape.dy / length / ONE / 4], -1)
        return np.round(ray).astype(np.int64)

    def marks(self, kind: Kind, shape: Shape[Any]) -> NDArray[np.int64]:
        """The keys of curves as one number each, which is all but surely another one for another curve."""
        rows = self.key(kind, shape)
        with np.errstate(over="ignore"):
            return np.asarray((rows * PRIMES[: rows.shape[-1]]).sum(axis=-1) + list(Kind).index(kind))

    def mark_of(self, kind: Kind, shape: Shape[float]) -> int:
        """The mark of one curve."""
        return int(self.marks(kind, SHAPE_OF[kind](*(np.array([value], float) for value in shape)))[0])

    def key_of(self, kind: Kind, shape: Shape[float]) -> tuple[int, ...]:
        """The key of one object, with its kind."""
        row = self.key(kind, SHAPE_OF[kind](*(np.float64(value) for value in shape)))
        return (list(Kind).index(kind), *map(int, row))

    def point(self, n: Any) -> Point[Any]:
        """Points by number, in arrays."""
        return Point(self.points[n, 0], self.points[n, 1])

    def place_of(self, x: float, y: float) -> int | None:
        """The number of the point at a place, None where there is none."""
        far = np.hypot(self.points[:, 0] - x, self.points[:, 1] - y)
        found = int(np.argmin(far)) if len(far) else 0
        return found if len(far) and far[found] < self.size * ONE * 10 else None

    # -- growing ------------------------------------------------------------------------------------

    def with_point(self, x: float, y: float, origin: Origin) -> Board:
        """The board with one point more; itself where there is one already."""
        if not np.isfinite(x + y) or self.place_of(x, y) is not None:
            return self
        return replace(self, points=np.vstack([self.points, [[x, y]]]), origins=[*self.origins, origin])

    def with_curve(self, kind: Kind, shape: Shape[float], origin: Origin) -> Board:
        """The board with one curve more, and all its crossings with the others."""
        number = len(self.curves)
        grown = replace(
            self, curves=[*self.curves, Curve(kind, shape, origin)], drawn=self.drawn | {self.mark_of(kind, shape)}
        )
        if not self.curves:
            return grown
        places, others, firsts = crossings(self, kind, SHAPE_OF[kind](*(np.array([value]) for value in shape)))
        there = np.flatnonzero(np.isfinite(places[0, :, 0]))
        known, origins = self.points, list(self.origins)
        far = self.size * ONE * 10
        for n in there:
            place = places[0, n]
            if len(known) and (np.abs(known - place).max(axis=1) < far).any():
                continue
            known = np.vstack([known, place[None]])
            origins.append(Origin("intersection", (("C", others[n]), ("C", number)), first=firsts[n]))
        return replace(grown, points=known, origins=origins)

    def after(self, candidates: Candidates, place: int, tool: str) -> Board:
        """The board after a move."""
        origin = candidates.origin(place, SOURCES[candidates.make])
        shape = candidates.at(place)
        if candidates.kind is Kind.POINT:
            grown = self.with_point(shape.x, shape.y, origin)
        else:
            grown = self.with_curve(candidates.kind, shape, origin)
        return replace(grown, used=self.used | {tool: self.used.get(tool, 0) + 1})

    # -- moves --------------------------------------------------------------------------------------

    def candidates(self, makes: Sequence[str], opening: tuple[int, int] | None = None) -> Iterator[Candidates]:
        """Every move by these makes that gives something new, once. ``opening``: of a compass with one radius."""
        for make in makes:
            rows = self._rows(make, opening)
            if not len(rows):
                continue
            shape = self.made(make, rows)
            there = np.isfinite(sum(shape))
            if not there.any():
                continue
            found = Candidates(make, rows, shape).chosen(there)
            marks = self.marks(found.kind, found.shape)
            _unique, firsts = np.unique(marks, return_index=True)
            firsts.sort()
            if found.kind is not Kind.POINT and self.drawn:
                firsts = firsts[~np.isin(marks[firsts], np.fromiter(self.drawn, np.int64))]
            if len(firsts):
                yield found.chosen(firsts)

    def _rows(self, make: str, opening: tuple[int, int] | None) -> NDArray[np.int64]:
        count = len(self.points)
        if make in _BY_POINTS:
            of_points: NDArray[np.int64] = _BY_POINTS[make](count)
            return of_points
        straight = [number for number, curve in enumerate(self.curves) if curve.kind in LINES]
        match make:
            case "circle_radius" if opening is not None:
                rows: list[tuple[int, ...]] = [(centre, *opening) for centre in range(count)]
            case "circle_radius":
                pairs = self._lengths()
                centres = np.repeat(np.arange(count), len(pairs))
                return np.column_stack([centres, np.tile(pairs, (count, 1))]) if len(pairs) else pairs
            case "perpendicular" | "parallel":
                rows = [(number, point) for number in straight for point in range(count)]
            case "rotation":
                pairs, turns = _ordered_pairs(count), self._turns()
                if len(pairs) * len(turns) > MOST_ROWS:
                    raise OutOfRoom
                return np.hstack([np.repeat(pairs, len(turns), axis=0), np.tile(turns, (len(pairs), 1))])
            case "reflection":
                rows = [(point, number) for number in straight for point in range(count)]
            case _:
                rows = []
        return np.array(rows, np.int64).reshape(len(rows), len(SOURCES[make]))

    def _lengths(self) -> NDArray[np.int64]:
        """A pair of points for every distance that there is."""
        ends = _pairs(len(self.points))
        far = np.hypot(*(self.points[ends[:, 0]] - self.points[ends[:, 1]]).T)
        _unique, firsts = np.unique(np.round(far / (self.size * ONE * 4)), return_index=True)
        firsts.sort()
        apart: NDArray[np.int64] = ends[firsts[far[firsts] > self.size * ONE * 10]]
        return apart

    def _turns(self) -> NDArray[np.int64]:
        """Three points for every directed angle that there is, but the one of no turn."""
        rows = _angles(len(self.points))
        rows = np.vstack([rows, rows[:, ::-1]])
        arms = self.points[rows[:, [0, 2]]] - self.points[rows[:, 1]][:, None]
        ways = np.arctan2(arms[..., 1], arms[..., 0])
        turned = (ways[:, 1] - ways[:, 0]) % (2 * np.pi)
        _unique, firsts = np.unique(np.round(turned / (ONE * 4)), return_index=True)
        firsts.sort()
        is_turn = np.minimum(turned[firsts], 2 * np.pi - turned[firsts]) > ONE * 10
        found: NDArray[np.int64] = rows[firsts[is_turn]]
        return found

    def made(self, make: str, rows: NDArray[np.int64]) -> Shape[Any]:
        """What a make gives from sources, a row each, in arrays."""
        parents: list[Shape[Any]] = []
        for kind, column in zip(SOURCES[make], rows.T, strict=True):
            if kind == "P":
                parents.append(self.point(column))
            else:
                every = np.array([(*one.shape, 0.0)[:4] for one in self.curves], float)
                parents.append(Line(*every[column].T))
        compute = MAKES[make].compute
        assert compute is not None
        shape = compute(ARRAYS, *parents)
        return type(shape)(*(np.broadcast_to(values, (len(rows),)).astype(float) for values in shape))  # type: ignore[no-any-return]


@cache
def _pairs(count: int) -> NDArray[np.int64]:
    return _oldest_first(combinations(range(count), 2), 2)


@cache
def _ordered_pairs(count: int) -> NDArray[np.int64]:
    return _oldest_first(permutations(range(count), 2), 2)


@cache
def _triples(count: int) -> NDArray[np.int64]:
    return _oldest_first(combinations(range(count), 3), 3)


@cache
def _angles(count: int) -> NDArray[np.int64]:
    rows = ((p, v, q) for v in range(count) for p, q in combinations(range(count), 2) if v not in (p, q))
    return _oldest_first(rows, 3)


@cache
def _moved(count: int) -> NDArray[np.int64]:
    rows = ((p, q, r) for p in range(count) for q, r in permutations(range(count), 2))
    return _oldest_first(rows, 3)


def _oldest_first(rows: Iterable[tuple[int, ...]], length: int) -> NDArray[np.int64]:
    """Of several ways to the same curve the first is taken: from the oldest points, on which the least can go wrong."""
    return np.array(sorted(rows, key=max), np.int64).reshape(-1, length)


_BY_POINTS = {
    "line": _pairs,
    "segment": _pairs,
    "perpendicular_bisector": _pairs,
    "midpoint": _pairs,
    "ray": _ordered_pairs,
    "circle": _ordered_pairs,
    "circle_through": _triples,
    "angle_bisector": _angles,
    "translation": _moved,
}
"""Makes from points alone, and the sources of all that so many points give."""


def crossings(board: Board, kind: Kind, shape: Shape[Any]) -> tuple[Floats, list[int], list[bool]]:
    """Where curves of a kind meet those of a board: places (curves, crossings, 2), undefined ones NaN.

    For each crossing also the number of the other curve, and whether it is the first of two by the plane's order for
    (other, curve).
    """
    curves = type(shape)(*(values[:, None] for values in shape))
    places: list[Point[Any]] = []
    others: list[int] = []
    firsts: list[bool] = []
    for other_kind in Kind:
        numbers = [number for number, one in enumerate(board.curves) if one.kind is other_kind]
        if not numbers:
            continue
        values = np.array([board.curves[number].shape for number in numbers], float).T[:, None]
        other: Any = SHAPE_OF[other_kind](*values)
        if isinstance(curves, Line) and isinstance(other, Line):
            found = [lines_meet(ARRAYS, other, other_kind, curves, kind)]
        elif isinstance(curves, Circle) and isinstance(other, Circle):
            found = list(circles_meet(ARRAYS, other, curves))
        elif isinstance(curves, Circle):
            ways = along_line(ARRAYS, other, curves)
            found = [within_extent(ARRAYS, other_kind, t, at_parameter(other, t)) for t in ways]
        else:
            assert isinstance(curves, Line)
            ways = along_line(ARRAYS, curves, other)
            found = [within_extent(ARRAYS, kind, t, at_parameter(curves, t)) for t in ways]
        places += found
        others += numbers * len(found)
        firsts += [number == 0 for number in range(len(found)) for _ in numbers]
    count = len(shape[0])
    stacked = [np.stack(np.broadcast_arrays(p.x, p.y), -1) for p in places]
    return np.concatenate(stacked, 1) if stacked else np.empty((count, 0, 2)), others, firsts


def passes_through(board: Board, candidates: Candidates, x: float, y: float) -> Mask:
    """Which of some curves pass through a place, whatever the extent of a ray or segment."""
    shape: Any = candidates.shape
    off = off_curve(ARRAYS, Point(x, y), shape)
    return np.asarray(np.abs(off) < board.size * ONE * 10)


def runs_through(board: Board, curve: Curve, x: float, y: float) -> bool:
    """Whether a curve of a board passes through a place."""
    return bool(abs(float(off_curve(ARRAYS, Point(x, y), curve.shape))) < board.size * ONE * 10)  # type: ignore[arg-type]
