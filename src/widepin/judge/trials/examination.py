"""A student's board: a task with steps on it, evaluated as drawn and in a batch of positions.

Floats *look* at many positions at once and see gaps; balls *rule* on one position and prove what they say.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from copy import copy
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...plane.arrays import ARRAYS, Arrays, Floats, Mask
from ...plane.balls import BALLS, Ball, RisingPrecision, Undecided, ball
from ...plane.figure import Evaluation, Link, Node, as_floats, is_defined
from ...plane.numbers import N
from ...plane.shapes import Circle, Kind, Point, Shape, mapped
from ...plane.steps import Step
from ...plane.tolerances import DEGENERATE
from ..conditions import Finding, Measure, Term
from ..positions import drags
from ..positions.branches import across_branches
from ..positions.ordering import in_canonical_order
from ..task import Task
from .findings import (
    Look,
    Ruling,
    finding,
    finite,
    ruled_by_balls,
    seen_by_floats,
)

PlanInBalls = Callable[[Sequence[Ball]], list[Shape[Ball]]]

Answer = tuple[tuple[str, int], ...]
"""An answer as a key: wanted names with the numbers of the objects."""


SAMPLED, SAMPLES = 96, 12
"""Large movements in which all objects are evaluated, and those of them in which floats look for equalities."""

PROOFS = 6
"""Positions in which balls prove what a report says of objects of the figure."""


class Examination:
    """A task with a student's steps on it, evaluated: as drawn, and in a batch of positions.

    The steps stand in an order that depends on how they are built alone; ``submitted``: id -> their place as handed in.
    ``hidden``: ids of helpers within class tools, which answer nothing and are not spoken of.
    """

    def __init__(self, task: Task, steps: Sequence[Step], hidden: Collection[str] = ()):
        self.task = task
        self.hidden = frozenset(hidden)
        self.submitted = {step.id: index for index, step in enumerate((*task.done, *steps))}
        self.steps = in_canonical_order(task.done, steps)
        self.figure = task.figure(self.steps)
        self.drawn, self.shapes = self.figure.drawn()
        self.given = len(task.given)
        self.own = len(task.start) + len(steps)
        self.last = self.given + self.own
        self.by_balls: Sequence[int] = range(self.last)
        self.given_points = [number for number in range(self.given) if self.figure.nodes[number].kind is Kind.POINT]
        self.home, self.size = self._extent(self.shapes)
        self.handles = drags.handles(self.figure, self.given, self.own)
        self._needs: dict[Answer, set[int]] = {}
        self._as_drawn: dict[Answer, Look] = {}
        self._samples: dict[int, list[Floats]] = {}
        self._plans: dict[Answer, tuple[PlanInBalls, RisingPrecision]] = {}
        self._always = [*range(len(task.done)), *(self.figure.index[name] for name in task.model_needed)]

    def _extent(self, shapes: Sequence[Shape[float]]) -> tuple[Point[float], float]:
        """Centroid and size of the given points; of all points where the given ones span nothing."""
        for numbers in (self.given_points, range(self.given + self.own)):
            points = [shapes[n] for n in numbers if isinstance(shapes[n], Point) and is_defined(shapes[n])]
            if points:
                home, size = drags.extent(points)  # type: ignore[arg-type]
                if size > DEGENERATE:
                    return home, size
        return Point(0.0, 0.0), 5.0

    @cached_property
    def region(self) -> drags.Region:
        """Where the student's own points go in large movements."""
        return drags.region_about(self.shapes[: self.given], self.home, float(self.size))

    @cached_property
    def batch(self) -> drags.Batch:
        """The positions in which a work is looked at first."""
        return drags.batch(self.figure, self.drawn, self.shapes, self.handles, float(self.size), self.region)

    @cached_property
    def evaluation(self) -> Evaluation:
        """The figure in the positions of the batch."""
        return Evaluation(self.figure, self.batch.positions)

    @cached_property
    def further(self) -> drags.Batch:
        """Many more positions, for a work that has not failed in the first ones."""
        return drags.further(self.figure, self.drawn, self.shapes, self.handles, float(self.size), self.region)

    @cached_property
    def further_evaluation(self) -> Evaluation:
        """The figure in these."""
        return Evaluation(self.figure, self.further.positions)

    def node(self, id_: str) -> Node:
        """The object of an id."""
        return self.figure.nodes[self.figure.index[id_]]

    @cached_property
    def spoken_of(self) -> list[int]:
        """The given objects and the student's but for hidden helpers, in their canonical order."""
        return [number for number in range(self.last) if self.figure.nodes[number].step.id not in self.hidden]

    def in_submitted_order(self, numbers: Iterable[int]) -> list[int]:
        """Objects that are not the model's, in the order in which they were handed in."""
        return sorted(numbers, key=lambda number: self.submitted[self.figure.nodes[number].step.id])

    def sample(self, number: int) -> list[Floats]:
        """The coordinates of an object in a few large movements, each of shape (``SAMPLES``,)."""
        if number not in self._samples:
            columns = self._best_sampled
            # What nothing moves is one number for all positions.
            self._samples[number] = [
                value[columns] if np.ndim(value) else np.full(len(columns), float(value))
                for value in self.sampled[number]
            ]
        return self._samples[number]

    def in_batch(self, columns: slice) -> list[Shape[Floats]]:
        """The shapes of all objects in some columns of the batch."""
        every = self.evaluation.shapes(range(len(self.figure.nodes)))
        return [mapped(shape, lambda value: value[columns] if np.ndim(value) else value) for shape in every]

    @cached_property
    def sampled_positions(self) -> Floats:
        """Large movements of all points, (width, m), in which every object is evaluated."""
        return self.batch.positions[:, self.batch.groups["large all"]][:, :SAMPLED]

    @cached_property
    def sampled(self) -> list[Shape[Floats]]:
        """The shapes of all objects in these."""
        first = self.batch.groups["large all"].start
        return self.in_batch(slice(first, first + self.sampled_positions.shape[1]))

    @cached_property
    def _best_sampled(self) -> NDArray[np.intp]:
        """Those of them in which the most of the student's objects exist."""
        there = np.zeros(self.sampled_positions.shape[1])
        for shape in self.sampled[self.given : self.given + self.own]:
            there += np.isfinite(np.asarray(shape[-1]))
        return np.argsort(-there, kind="stable")[:SAMPLES]

    def with_model(self, numbers: Sequence[int]) -> Examination:
        """The same, but that balls look at these objects of the model as well."""
        other = copy(self)
        for name in ("_plan_of_all", "_rising", "proofs"):
            other.__dict__.pop(name, None)
        other.by_balls = (*range(self.last), *numbers)
        return other

    def in_balls(self, position: Sequence[float]) -> list[Shape[Ball]] | None:
        """The shapes in balls of all objects but the model's in one position; None where balls cannot decide."""
        at = [ball(float(x)) for x in position]
        try:
            return self._rising(lambda: self._plan_of_all(at))
        except Undecided:
            return None

    @cached_property
    def _rising(self) -> RisingPrecision:
        return RisingPrecision()

    @cached_property
    def _plan_of_all(self) -> PlanInBalls:
        return self.figure.plan(BALLS, self.by_balls)

    @cached_property
    def proofs(self) -> dict[int, list[Shape[Ball]]]:
        """Columns of the batch, some on every branch of the figure -> all objects but the model's there in balls."""
        every = self.in_submitted_order(range(self.last))
        columns = np.arange(self.sampled_positions.shape[1])
        chosen = across_branches(self.figure, every, self.sampled, columns, PROOFS)
        found = {column: self.in_balls(self.sampled_positions[:, column].tolist()) for column in chosen}
        first = self.batch.groups["large all"].start
        return {first + column: shapes for column, shapes in found.items() if shapes is not None}

    def rounded_at(self, position: Sequence[float], answer: Mapping[str, int]) -> list[Shape[Any]]:
        """All that an answer needs in one position as floats, rounded from balls; what balls cannot decide is
        undefined.
        """
        plan, rising = self._plan_in_balls(answer)
        at, needs = [ball(float(x)) for x in position], self.needs(answer)
        try:
            exact = rising(lambda: plan(at))
        except Undecided:
            return Evaluation(self.figure, np.array(position)[:, None]).shapes(needs)
        return [as_floats(shape) if number in needs else shape for number, shape in enumerate(exact)]

    def unit(self, handle: drags.Handle) -> float:
        """How many centimetres a point moves as drawn where its input changes by 1: along a line, or round a
        circle.
        """
        node = self.figure.nodes[handle.number]
        if node.step.make == "free_point":
            return 1.0
        curve = self.shapes[node.sources[0]]
        if not is_defined(curve):
            return 0.0
        return float(np.sqrt(curve.rr) if isinstance(curve, Circle) else np.hypot(curve.dx, curve.dy))  # type: ignore[union-attr]

    def ids_of(self, answer: Mapping[str, int]) -> dict[str, str]:
        """An answer by the ids of its objects."""
        return {name: self.figure.nodes[answer[name]].step.id for name in sorted(answer)}

    def float_error(self, number: int) -> float:
        """How far floats miss the coordinates of an object as drawn, relative to the figure's size."""
        exact, seen = self.shapes[number], self._drawn_by_floats[number]
        error = max(abs(float(np.ravel(a)[0]) - float(b)) for a, b in zip(seen, exact, strict=True))
        return float("inf") if np.isnan(error) else error / float(self.size)

    @cached_property
    def _drawn_by_floats(self) -> list[Shape[Floats]]:
        return Evaluation(self.figure, self.drawn[:, None]).shapes(range(len(self.figure.nodes)))

    # -- what floats see ---------------------------------------------------------------------------

    def looks_right(self, answer: Mapping[str, int]) -> bool:
        """Whether an answer is right to the eye as drawn."""
        return bool(self.look_as_drawn(answer).visual.all())

    def look_as_drawn(self, answer: Mapping[str, int]) -> Look:
        """What floats see of an answer in the drawn position."""
        key = tuple(answer.items())
        if key not in self._as_drawn:
            self._as_drawn[key] = self.evaluate(self.shapes, answer)
        return self._as_drawn[key]

    def evaluate(self, shapes: Sequence[Shape[Floats]], answer: Mapping[str, int]) -> Look:
        """What floats see of an answer in these shapes, one position or many."""
        with Arrays.quiet():
            measure = self.measure(shapes)
            counts = np.broadcast_to(self._task_has_answer(shapes), (self._count(shapes, answer),))
            gap, clear = seen_by_floats(self.findings(measure, shapes, answer), measure.size, counts.shape)
            for number in answer.values():
                gap = np.where(is_defined(shapes[number]), gap, np.nan)
        return Look(gap, clear, counts)

    def _count(self, shapes: Sequence[Shape[Floats]], answer: Mapping[str, int]) -> int:
        """In how many positions an answer is looked at: what nothing moves is one number for all, so a dragged point
        tells.
        """
        needs = self.needs(answer)
        return next((int(np.size(shapes[handle.number][0])) for handle in self.handles if handle.number in needs), 1)

    def look_at_each_condition(self, shapes: Sequence[Shape[Floats]], answer: Mapping[str, int]) -> Iterator[Look]:
        """What floats see of each condition by itself, in these shapes of one position."""
        with Arrays.quiet():
            measure = self.measure(shapes)
            for found in self.findings(measure, shapes, answer):
                gap, clear = seen_by_floats([found], measure.size, (1,))
                yield Look(gap, clear, np.ones(1, dtype=bool))

    def measure(self, shapes: Sequence[Shape[Floats]]) -> Measure[Floats]:
        """The scale of the figure in these float shapes."""
        points = [shapes[number] for number in self.given_points]
        if not points:
            return Measure(ARRAYS, self.size, self.home)
        home, size = drags.extent(points)  # type: ignore[arg-type]
        return Measure(ARRAYS, np.where(size > DEGENERATE * self.size, size, self.size), home)

    def _task_has_answer(self, shapes: Sequence[Shape[Floats]]) -> Mask:
        exists: Mask = np.logical_and.reduce([is_defined(shapes[number]) for number in self._always])
        return exists

    def findings(self, measure: Measure[N], shapes: Sequence[Shape[N]], answer: Mapping[str, int]) -> list[Finding[N]]:
        """What each condition of the task finds, in any number system."""

        def look_up(name: str) -> Term[N]:
            number = self.number(name, answer)
            return Term(shapes[number], self.figure.nodes[number].kind)

        return [finding(measure, condition, look_up) for condition in self.task.conditions]

    def number(self, name: str, answer: Mapping[str, int]) -> int:
        """The number of the object that a name in a condition stands for."""
        return answer[name] if name in answer else self.figure.index[name]

    # -- what balls prove --------------------------------------------------------------------------

    def needs(self, answer: Mapping[str, int]) -> set[int]:
        """Every object that must be evaluated to judge an answer."""
        key = tuple(answer.items())
        if key not in self._needs:
            named = {self.number(name, answer) for condition in self.task.conditions for name in condition.names}
            self._needs[key] = self.figure.ancestors({*self._always, *answer.values(), *named})
        return self._needs[key]

    @cached_property
    def _measure_in_balls(self) -> Measure[Ball]:
        """The scale of the figure as drawn, in balls."""
        home = Point(ball(float(self.home.x)), ball(float(self.home.y)))
        return Measure(BALLS, ball(float(self.size)), home)

    def _plan_in_balls(self, answer: Mapping[str, int]) -> tuple[PlanInBalls, RisingPrecision]:
        key = tuple(answer.items())
        if key not in self._plans:
            self._plans[key] = self.figure.plan(BALLS, self.needs(answer)), RisingPrecision()
        return self._plans[key]

    def certify(
        self, position: Sequence[float], answer: Mapping[str, int], swaps: Mapping[int, Link] | None = None
    ) -> tuple[Ruling, float]:
        """What balls say of an answer in one position, and the largest gap relative to the figure's size."""
        plan, rising = self._plan_in_balls(answer)
        if swaps:
            plan = self.figure.plan(BALLS, self.needs(answer), swaps)
        at = [ball(float(x)) for x in position]

        def compute() -> tuple[Ruling, float]:
            shapes = plan(at)
            if not all(finite(shapes[number]) for number in self._always):
                return Ruling.NO_ANSWER, np.nan
            if not all(finite(shapes[number]) for number in answer.values()):
                return Ruling.UNDEFINED, np.nan
            measure = self._measure_in_balls
            return ruled_by_balls(self.findings(measure, shapes, answer), measure.size, float(self.size))

        try:
            return rising(compute)
        except Undecided:
            return Ruling.UNDECIDED, np.nan


def spread(numbers: NDArray[np.intp], most: int) -> list[int]:
    """Some of the numbers, spread evenly."""
    return [int(n) for n in numbers[:: max(1, -(-len(numbers) // most))][:most]]
