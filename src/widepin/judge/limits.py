"""Positions beyond the limits where crossings stop existing, which chance seldom finds.

Two circles that meet in every position of a random batch may still part in a small corner of it. Where some crossing
has little room left in a batch, a search starts from its tightest position and looks for one where it is gone, within
the reach of large movements.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..plane.figure import Figure
from ..plane.shapes import Circle, Kind, Shape, Straight

Floats = NDArray[np.float64]

TIGHT = 0.3
"""Room, as a multiple of the figure's size, below which a crossing is worth a search."""

ALWAYS = 1e-9
"""Room that a crossing has which only ever touches, at the end of a segment or by a tangent."""

MOST_SEARCHED = 4
"""Crossings that are searched for, the tightest first."""

ROUNDS, TRIES = 4, 48
"""Rounds of a search, and positions tried in each."""

LOOKED_AT = 100
"""Positions of the batch in which room is measured."""


def beyond_limits(
    figure: Figure, crossings: Sequence[int], positions: Floats, shapes: Sequence[Shape], large: slice, size: float
) -> Floats:
    """Positions (width, n) in which a crossing is gone that exists in all large movements; n is often 0.

    ``positions``: (width, m), whose shapes these are; ``large``: which of them are large movements of all points.
    ``size`` in centimetres.
    """
    if not crossings or not len(positions):
        return positions[:, :0]
    moved = positions[:, large]
    # Within this box every point stays within the reach of a large movement, which is a disc.
    middle, half = (moved.max(axis=1) + moved.min(axis=1)) / 2, (moved.max(axis=1) - moved.min(axis=1)) / 2
    low, high = middle - half / np.sqrt(2), middle + half / np.sqrt(2)
    rng = np.random.default_rng(20261124)
    columns = slice(large.start, large.stop, max(1, moved.shape[1] // LOOKED_AT))
    found = []
    for number, column in tightest(figure, crossings, shapes, columns, size):
        gone = _searched(figure, number, positions[:, column], low, high, size, rng)
        if gone is not None:
            found.append(gone)
    return np.array(found).T if found else positions[:, :0]


def tightest(
    figure: Figure, crossings: Iterable[int], shapes: Sequence[Shape], columns: slice, size: float
) -> list[tuple[int, int]]:
    """Crossings that have little room and are there in all the columns, each with its tightest column."""
    tight = []
    for numbers, rooms in _rooms(figure, crossings, shapes, columns):
        least = rooms.min(axis=1)  # NaN where the crossing is gone in some column: then it needs no search
        for at in np.flatnonzero((least > ALWAYS * size) & (least < TIGHT * size)):
            tight.append((float(least[at]), numbers[at], columns.start + columns.step * int(np.argmin(rooms[at]))))
    return [(number, column) for _, number, column in sorted(tight)[:MOST_SEARCHED]]


def _rooms(
    figure: Figure, crossings: Iterable[int], shapes: Sequence[Shape], columns: slice
) -> Iterator[tuple[list[int], Floats]]:
    """The rooms of all crossings, those of curves of the same kinds together: their numbers and (k, n) centimetres."""
    alike: dict[tuple[Kind, ...], list[int]] = {}
    for number in crossings:
        kinds = tuple(figure.nodes[source].kind for source in figure.nodes[number].sources)
        if set(kinds) != {Kind.LINE}:
            alike.setdefault(kinds, []).append(number)
    for kinds, numbers in alike.items():
        a, b = (_stacked([shapes[figure.nodes[n].sources[place]] for n in numbers], columns) for place in (0, 1))
        points = _stacked([shapes[n] for n in numbers], columns)
        with np.errstate(all="ignore"):
            yield numbers, room(kinds, a, b, points)


def _stacked(shapes: Sequence[Shape], columns: slice) -> Any:
    """Shapes of one kind as one shape with coordinates (k, n); what nothing moves is repeated."""
    count = len(range(columns.start, columns.stop, columns.step))
    return type(shapes[0])(
        *(
            np.array([value[columns] if isinstance(value, np.ndarray) else np.full(count, value) for value in values])
            for values in zip(*shapes, strict=True)
        )
    )


def room(kinds: Sequence[Kind], a: Any, b: Any, point: Any) -> Floats:
    """How far curves could still move apart, in centimetres, before their crossing at the point is gone."""
    rooms = []
    if isinstance(a, Circle) and isinstance(b, Circle):
        apart, r, s = np.hypot(a.x - b.x, a.y - b.y), np.sqrt(a.rr), np.sqrt(b.rr)
        rooms = [r + s - apart, apart - np.abs(r - s)]
    for curve, kind, other in ((a, kinds[0], b), (b, kinds[1], a)):
        if not isinstance(curve, Straight):
            continue
        length = np.hypot(curve.dx, curve.dy)
        if isinstance(other, Circle):
            off = (curve.x - other.x) * curve.dy - (curve.y - other.y) * curve.dx
            rooms.append(np.sqrt(other.rr) - np.abs(off) / length)
        along = ((point.x - curve.x) * curve.dx + (point.y - curve.y) * curve.dy) / length
        if kind is not Kind.LINE:
            rooms.append(along)
        if kind is Kind.SEGMENT:
            rooms.append(length - along)
    # A crossing that is gone has no room, whatever its curves say.
    return np.where(np.isnan(point.x), np.nan, np.minimum.reduce(rooms))


def _searched(
    figure: Figure, number: int, start: Floats, low: Floats, high: Floats, size: float, rng: np.random.Generator
) -> Floats | None:
    """A position near ``start`` in which a crossing is gone and its curves are not, or None."""
    needed = figure.ancestors([number])
    every = slice(0, TRIES, 1)
    for turn in range(ROUNDS):
        reach = (high - low) * 0.25 * 0.5**turn
        tries = start[:, None] + rng.uniform(-1, 1, (len(start), TRIES)) * reach[:, None]
        # Half of the tries move one input only, since the room often hangs on one.
        single = rng.integers(len(start), size=TRIES // 2)
        tries[:, : TRIES // 2] = start[:, None]
        tries[single, np.arange(TRIES // 2)] += rng.uniform(-1, 1, TRIES // 2) * reach[single]
        tries = np.clip(tries, low[:, None], high[:, None])
        shapes = figure.evaluate_batch(tries, only=needed)
        sources = [_stacked([shapes[source]], every) for source in figure.nodes[number].sources]
        there = np.isfinite(sum(sum(source) for source in sources))[0]
        gone = there & np.isnan(_stacked([shapes[number]], every).x[0])
        if gone.any():
            return np.asarray(tries[:, np.argmax(gone)])
        ((_, rooms),) = _rooms(figure, [number], shapes, every)
        if not np.isnan(rooms[0]).all():
            start = tries[:, int(np.nanargmin(rooms[0]))]
    return None
