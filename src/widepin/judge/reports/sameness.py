"""When two objects are one and the same in every position: objects that a student made although they were there, and
what the objects of a model are called.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import combinations, permutations

import numpy as np

from ...plane.arrays import ARRAYS, Floats
from ...plane.balls import BALLS, Undecided, at_rising_precision, ball
from ...plane.figure import Evaluation, Figure, is_defined
from ...plane.makes import MAKES
from ...plane.measurement import line_coordinates, unit
from ...plane.predicates import coincidence
from ...plane.shapes import LINES, Kind, Line, Point, Shape
from ...plane.steps import Step
from ...plane.tolerances import EXACT_IN_FLOATS
from ..positions import drags
from ..positions.alike import alike
from ..task import Task
from ..trials.examination import Examination
from ..trials.findings import finite, vanishes

POSITIONS, PROOFS = 12, 3
"""Positions in which objects of a model are compared with others by floats, and by balls."""

CONFIRMING = 4
"""Positions in which floats see two objects part that are put to balls."""

MAX_POINTS = 6
"""Given points from which objects are made that a model's may be."""


def repeated(examined: Examination, failing: Sequence[Sequence[float]] = ()) -> dict[str, str]:
    """The student's objects that were there already: id -> id of the earlier object.

    Floats compare all objects of a kind in a few positions at once; balls have the last word, on every branch that
    floats see, where floats see them part in many more positions, and where the work is known to be ``failing``.
    """
    nodes = examined.figure.nodes
    pairs = []
    for kind in Kind:
        numbers = [n for n in examined.spoken_of if nodes[n].kind is kind]
        rows = np.array([mark(examined.sample(n), kind) for n in numbers])
        for group in alike(rows):
            first, *others = examined.in_submitted_order(numbers[at] for at in group)
            pairs += [(n, first) for n in others if n >= len(examined.task.done)]
    try:
        proven = at_rising_precision(lambda: [_equal(examined, n, m) for n, m in pairs])
    except Undecided:
        proven = [_decided(examined, n, m) for n, m in pairs]
    ids = {
        nodes[n].step.id: nodes[m].step.id
        for (n, m), same in zip(pairs, proven, strict=True)
        if same
        and not _part_somewhere(examined, n, m)
        and all(_are_equal_at(examined, n, m, position) for position in failing)
    }
    return {id_: ids[id_] for id_ in sorted(ids, key=examined.submitted.__getitem__)}


def _part_somewhere(examined: Examination, n: int, m: int) -> bool:
    """Whether two objects that agree in a few positions differ in one of many more: floats see where, balls confirm."""
    kind, size = examined.figure.nodes[n].kind, float(examined.size)
    shapes = examined.further_evaluation.shapes(examined.figure.ancestors([n, m]))
    count = examined.further.positions.shape[1]
    one, other = (
        mark([np.broadcast_to(value, (count,)) for value in shapes[number]], kind).reshape(-1, count)
        for number in (n, m)
    )
    with np.errstate(invalid="ignore"):
        apart = np.nanmax(np.abs(one - other) / (1 + np.abs(one)), axis=0, initial=0.0) / max(1.0, size)
    columns = np.flatnonzero(apart > EXACT_IN_FLOATS)
    clearest = columns[np.argsort(-apart[columns], kind="stable")][:CONFIRMING]
    return any(not _are_equal_at(examined, n, m, examined.further.positions[:, column].tolist()) for column in clearest)


def _are_equal_at(examined: Examination, n: int, m: int, position: Sequence[float]) -> bool:
    """Whether balls find two objects equal in a position, or one of them undefined, or cannot tell."""
    kind, size = examined.figure.nodes[n].kind, float(examined.size)
    shapes = examined.in_balls(position)
    if shapes is None or not (finite(shapes[n]) and finite(shapes[m])):
        return True
    try:
        return at_rising_precision(lambda: all(vanishes(gap, size) for gap in coincidence(shapes[n], shapes[m], kind)))
    except Undecided:
        return True


def _equal(examined: Examination, n: int, m: int) -> bool:
    """Whether balls find two objects equal in all positions that they look at, to sixty digits. May raise Undecided."""
    kind, size = examined.figure.nodes[n].kind, float(examined.size)
    both = [(shapes[n], shapes[m]) for shapes in examined.proofs.values() if finite(shapes[n]) or finite(shapes[m])]
    return bool(both) and all(vanishes(gap, size) for one, other in both for gap in coincidence(one, other, kind))


def _decided(examined: Examination, n: int, m: int) -> bool:
    try:
        return at_rising_precision(lambda: _equal(examined, n, m))
    except Undecided:
        return False


@lru_cache(maxsize=512)
def known_as(task: Task, helpers: bool = False) -> dict[str, Step]:
    """Objects of the model that conditions name -> a step that makes the same object from given ones, where there is
    one. ``helpers``: of all objects of the model.

    So the line that a model draws through two intersections is known as a perpendicular bisector.
    """
    named = [step for step in task.model_steps if helpers or step.id in task.model_needed]
    before = (*task.done, *task.model_steps)
    figure = Figure((*before, *_made_from_given(task)))
    drawn, shapes = figure.drawn()
    handles = drags.handles(figure, len(task.given), 0)
    places = [shape for shape in shapes[: len(task.given)] if isinstance(shape, Point) and is_defined(shape)]
    if not handles or not named or not places:
        return {}
    size = max(float(drags.extent(places)[1]), 1e-3)
    rng = np.random.default_rng(3)
    positions = drags.dragged(figure, drawn, shapes, handles, drags.LARGE * size, POSITIONS, rng)
    batch = Evaluation(figure, positions).shapes(range(len(figure.nodes)))
    found = {}
    for step in named:
        number = figure.index[step.id]
        kind = _as_line(figure.nodes[number].kind)
        others = [n for n in range(len(before), len(figure.nodes)) if _as_line(figure.nodes[n].kind) is kind]
        marks = np.array([mark(_in_all(batch[n]), kind) for n in (number, *others)])
        same = next((group[1:] for group in alike(marks) if group[0] == 0), [])
        proven = (others[place - 1] for place in same if _proven_in(figure, number, others[place - 1], positions, size))
        first = next(proven, None)
        if first is not None:
            found[step.id] = figure.nodes[first].step
    return found


def _proven_in(figure: Figure, n: int, m: int, positions: Floats, size: float) -> bool:
    needed, kind = figure.ancestors([n, m]), _as_line(figure.nodes[n].kind)

    def compute() -> bool:
        for position in positions[:, :PROOFS].T.tolist():
            shapes = figure.evaluate(BALLS, list(map(ball, position)), only=needed)
            if not all(vanishes(gap, size) for gap in coincidence(shapes[n], shapes[m], kind)):
                return False
        return True

    try:
        return at_rising_precision(compute)
    except Undecided:
        return False


def _made_from_given(task: Task) -> Iterator[Step]:
    """Steps that make what a textbook has a name for, the plainest first, from given objects."""
    points = [step.id for step in task.given if MAKES[step.make].gives is Kind.POINT][:MAX_POINTS]
    lines = [step.id for step in task.given if MAKES[step.make].gives in LINES]
    pairs = list(combinations(points, 2))
    made: list[tuple[str, tuple[str, ...]]] = [("midpoint", pair) for pair in pairs]
    made += [("perpendicular_bisector", pair) for pair in pairs]
    made += [(make, (g, p)) for make in ("perpendicular", "parallel") for g in lines for p in points]
    made += [("line", pair) for pair in pairs]
    made += [
        ("angle_bisector", (p, vertex, q))
        for vertex in points
        for p, q in combinations([point for point in points if point != vertex], 2)
    ]
    made += [("circle", pair) for pair in permutations(points, 2)]
    made += [("circle_through", triple) for triple in combinations(points, 3)]
    for number, (make, sources) in enumerate(made):
        yield Step(f"known as {number}", make, sources)


def _as_line(kind: Kind) -> Kind:
    """A segment counts as its line here, as it does where a condition asks for the same line."""
    return Kind.LINE if kind is Kind.SEGMENT else kind


def _in_all(shape: Shape[Floats]) -> list[Floats]:
    """Coordinates of a shape in all positions; what nothing moves is one number for all."""
    return [np.broadcast_to(value, (POSITIONS,)) for value in shape]


def mark(values: Sequence[Floats], kind: Kind) -> Floats:
    """Numbers by which equal objects can be recognised, in a row. Lines: the line, not what spans it."""
    if kind is Kind.LINE:
        values = line_coordinates(ARRAYS, Line(*values))
    elif kind is Kind.SEGMENT:
        x, y, dx, dy = values
        values = [2 * x + dx, 2 * y + dy, np.abs(dx), np.abs(dy), dx * dy]
    elif kind is Kind.RAY:
        x, y, dx, dy = values
        values = [x, y, *unit(ARRAYS, dx, dy)]
    return np.concatenate(values)
