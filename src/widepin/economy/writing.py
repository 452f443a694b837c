"""A board that was found, written as steps."""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import count
from typing import Any

from ..plane.intersections import Choice
from ..plane.makes import MAKES
from ..plane.shapes import LINES, Kind
from ..plane.steps import Step
from .board import Board, Source

POINTS, CURVES = "CDEFGHIJKLMNPQRSTUVWXYZAB", "cdefghijklmnopqrstuvwxyzab"
"""Letters of new points and curves, in the order in which they are taken."""


def written(
    goal: Any, board: Board, answer: Mapping[str, Any], before: Sequence[Step] = ()
) -> tuple[tuple[Step, ...], dict[str, str]]:
    """The steps that an answer is made from, and which of their objects it is, by its names.

    ``before``: steps that stand on the board already.
    """
    taken = {step.id for step in (*goal.task.done, *before)} | {one.name for one in goal.task.wanted}
    writer = Writer(board, taken)
    named = {}
    for name, term in answer.items():
        if term.kind is Kind.POINT:
            number = board.place_of(float(term.shape.x), float(term.shape.y))
            assert number is not None
            named[name] = writer.id_of(("P", number))
        else:
            keys = {board.key_of(kind, term.shape) for kind in kinds_alike(term.kind)}
            number = next(n for n, one in enumerate(board.curves) if board.key_of(one.kind, one.shape) in keys)
            named[name] = writer.id_of(("C", number))
    return tuple(writer.steps), named


def kinds_alike(kind: Kind) -> tuple[Kind, ...]:
    """The kinds of curve that may lie where one of a kind does."""
    return (kind,) if kind is Kind.CIRCLE else tuple(sorted(LINES))


MOST_REFERENCES = 5


class Writer:
    """Writes the objects of a board as steps, each when it is first needed."""

    def __init__(self, board: Board, taken: set[str]):
        self.board, self.taken = board, set(taken)
        self.steps: list[Step] = []
        self.ids: dict[Source, str] = {}

    def id_of(self, source: Source) -> str:
        """The id of an object, which is written now if it is new."""
        if source in self.ids:
            return self.ids[source]
        kind, number = source
        origin = self.board.origins[number] if kind == "P" else self.board.curves[number].origin
        if origin.id:
            self.ids[source] = origin.id
            return origin.id
        sources = tuple(self.id_of(one) for one in origin.sources)
        id_ = fresh(POINTS if kind == "P" else CURVES, self.taken)
        self.taken.add(id_)
        pick = 1
        if origin.make == "intersection":
            pick = 1 if origin.first else 2
            round_ = [self.board.curves[n].kind is Kind.CIRCLE for _kind, n in origin.sources]
            if not any(round_):
                pick = 1
        self.steps.append(Step(id_, origin.make, sources, origin.at, pick=pick))
        self.ids[source] = id_
        return id_


def fresh(letters: str, taken: Container[str]) -> str:
    """The first letter, or letter with a number, that nothing is called."""
    numbered = (f"{letter}{number or ''}" for number in count() for letter in letters)
    return next(id_ for id_ in numbered if id_ not in taken)


def with_other_choices(steps: Sequence[Step], done: Sequence[Step]) -> Iterator[tuple[Step, ...]]:
    """The same construction with its intersections chosen by the common point that is known, and as they are."""
    everything = [*done, *steps]
    by_id = {step.id: step for step in everything}

    def common(step: Step, before: Sequence[Step]) -> str | None:
        """A point that lies on both curves by how they were made."""
        for point in before:
            if MAKES[point.make].gives is Kind.POINT and all(_is_on(point, by_id[curve]) for curve in step.sources):
                return point.id
        return None

    unsure = []
    changed: list[Step] = []
    for step in steps:
        if step.make == "intersection" and any(MAKES[by_id[c].make].gives is Kind.CIRCLE for c in step.sources):
            known = common(step, [*done, *changed])
            if known is not None:
                step = replace(step, choice=Choice.OTHER_THAN, reference=known, pick=1)
            else:
                unsure.append(len(changed))
        changed.append(step)
    if tuple(changed) != tuple(steps):
        yield tuple(changed)
    yield tuple(steps)
    # A crossing that no common point tells apart may be the one that is nearer to a point, or farther from it.
    for place in unsure[:2]:
        points = [step.id for step in (*done, *changed[:place]) if MAKES[step.make].gives is Kind.POINT]
        for reference in points[:MOST_REFERENCES]:
            for choice in (Choice.FARTHEST_FROM, Choice.NEAREST_TO):
                other = replace(changed[place], choice=choice, reference=reference, pick=1)
                yield (*changed[:place], other, *changed[place + 1 :])


def _is_on(point: Step, curve: Step) -> bool:
    """Whether a point lies on a curve by how the two were made."""
    if curve.id in point.sources and point.make in ("intersection", "point_on"):
        return True
    return any(curve.sources[entry] == point.id for entry in MAKES[curve.make].through)
