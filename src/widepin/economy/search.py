"""The fewest moves of a task, by iterative deepening.

A board is grown move by move in one random position; all its crossings are known at once. Moves that could trade places
are made in one order. A move is looked at only where the answer can still be reached in the moves that are left: the
last draws what is missing of the answer, the one before gives what that needs. What is found is judged in every
position, and must be sound.

Source: iterative deepening as in R. E. Korf, "Depth-first iterative-deepening" (1985).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from time import monotonic
from typing import Any, NamedTuple

import numpy as np

from ..judge.judging import judge
from ..judge.task import Task, Work
from ..judge.verdict import Outcome
from ..plane.arrays import ARRAYS, Arrays, Floats, Mask
from ..plane.makes import MAKES, on_circle, on_line
from ..plane.measurement import off_curve
from ..plane.shapes import LINES, Circle, Kind, Point
from ..plane.steps import Step
from .board import ONE, Board, Candidates, Curve, Origin, OutOfRoom, crossings, passes_through, runs_through
from .goal import Goal
from .writing import with_other_choices, written

POINTS = ("free_point", "point_on")

ELEMENTARY = frozenset({"line", "ray", "segment", "circle", "circle_radius"})
"""Tools whose last move can be told beforehand."""

ON_CURVE, ON_SEGMENT = 1.61, 0.31
"""Where an arbitrary point is put on a curve: a parameter, on a segment and on anything else."""

FREE = (0.41, 0.93)
"""Where an arbitrary free point is put, in sizes of the figure from its centroid."""


class Place(NamedTuple):
    """Where a search with so many arbitrary points is: the depth that comes, and first moves that are done there."""

    moves: int = 0
    branch: int = 0


@dataclass
class Fewest:
    """What a search found.

    ``moves``: of the shortest sound construction, None where none was found; ``steps``: that. ``excluded``: up to which
    number of moves every construction with at most ``arbitrary`` arbitrary points is excluded. ``states``: boards that
    were looked at. ``stopped``: whether the time was over before that; ``places``: where it goes on then, if it can.
    """

    moves: int | None = None
    steps: tuple[Step, ...] = ()
    excluded: int = 0
    arbitrary: int = 0
    states: int = 0
    stopped: bool = False
    places: tuple[Place, ...] = ()


class OutOfTime(Exception):
    """The time of a search is over."""


@dataclass
class Search:
    """A search for a task. ``seconds``: after which it stops. ``before``: what a student has drawn already."""

    task: Task
    seconds: float = 60.0
    before: tuple[Step, ...] = ()
    answer: dict[str, str] = field(default_factory=dict)
    states: int = 0
    found: tuple[Step, ...] | None = None
    until: float = field(init=False)

    def __post_init__(self) -> None:
        self.until = monotonic() + self.seconds
        self.limits = {one.tool: one.most for one in self.task.tools}
        self.makes = tuple(
            name for name in MAKES if name in self.limits and MAKES[name].counts and self.limits[name] != 0
        )
        self.is_elementary = set(self.makes) <= ELEMENTARY
        self.may_put = [
            make for make in POINTS if self._may(make) and (self.limits.get(make, self.limits.get("points")) != 0)
        ]
        self.rejected: set[tuple[Any, ...]] = set()

    def _may(self, make: str) -> bool:
        return make in self.limits or "points" in self.limits

    def run(self, goal: Goal, most: int, begun: Board | None = None) -> Fewest:
        """The fewest moves from what is given, or from a board that somebody has begun; up to ``most``."""
        board = begun or goal.board
        self.begin(goal, board)
        arbitrary = 1 if self.may_put else 0
        result = Fewest(arbitrary=arbitrary)
        try:
            with Arrays.quiet():
                for moves in range(most + 1):
                    for points in range(arbitrary + 1):
                        if self._search(board, moves, points):
                            result.moves, result.steps = moves, self.found or ()
                            break
                    if result.moves is not None:
                        break
                    result.excluded = moves
        except (OutOfTime, OutOfRoom):
            result.stopped = True
        result.states = self.states
        return result

    def begin(self, goal: Goal, board: Board) -> None:
        """Take up a goal, on a board."""
        self.goal = goal
        ends = next((one.opening for one in self.task.tools if one.opening), None)
        self.opening = (self._number_of(board, ends[0]), self._number_of(board, ends[1])) if ends else None

    def _number_of(self, board: Board, id_: str) -> int:
        return next(number for number, origin in enumerate(board.origins) if origin.id == id_)

    # -- one depth ----------------------------------------------------------------------------------

    def _search(self, board: Board, moves: int, points: int) -> bool:
        """Whether a construction is found from a board with so many moves, and just so many arbitrary points."""
        if points == 0:
            return self._grow(board, moves, 0, frozenset())
        return any(self._grow(other, moves, 0, frozenset()) for other in self._with_arbitrary(board, None)) or (
            self._grow(board, moves, points, frozenset())
        )

    def _grow(self, board: Board, left: int, points: int, banned: frozenset[int]) -> bool:
        """``points``: arbitrary ones that are put yet; ``banned``: moves that were tried before others here."""
        self.states += 1
        if monotonic() > self.until:
            raise OutOfTime
        if left == 0:
            return points == 0 and self.is_reached(board)
        needs = [need for need in (self._need(board, answer) for answer in self.goal.answers) if need.moves <= left]
        if not needs:
            return False
        tried = set(banned)
        for candidates in board.candidates(self.makes_left(board), self.opening):  # type: ignore[arg-type]
            marks = board.marks(candidates.kind, candidates.shape)
            for place in np.flatnonzero(self._promising(board, candidates, left, points, needs)):
                mark = int(marks[place])
                if mark in tried:
                    continue
                tried.add(mark)
                grown = board.after(candidates, int(place), candidates.make)
                if self._grow(grown, left - 1, points, frozenset(tried)):
                    return True
                if points and candidates.kind is not Kind.POINT:
                    others = self._with_arbitrary(grown, len(grown.curves) - 1)
                    if any(self._grow(other, left - 1, 0, frozenset(tried)) for other in others):
                        return True
        return False

    def makes_left(self, board: Board) -> list[str]:
        """The makes that may be used once more. A line stands for ray and segment where these are not asked for."""
        left = [
            make
            for make in self.makes
            if self.limits[make] is None or board.used.get(make, 0) < (self.limits[make] or 0)
        ]
        asked = {term.kind for answer in self.goal.answers for term in answer.values()}
        if "line" in left and self.limits["line"] is None:
            left = [make for make in left if make not in ("ray", "segment") or MAKES[make].gives in asked]
        return left

    def _with_arbitrary(self, board: Board, curve: int | None) -> Iterator[Board]:
        """The board with an arbitrary point: on a curve; or anywhere, and on any curve, where none is named."""
        home = self.goal.measure.home
        if curve is None and "free_point" in self.may_put:
            at = float(home.x) + FREE[0] * board.size, float(home.y) + FREE[1] * board.size
            yield board.with_point(*at, Origin("free_point", at=at))
        if "point_on" not in self.may_put:
            return
        for number in range(len(board.curves)) if curve is None else (curve,):
            one = board.curves[number]
            t, shape = ON_SEGMENT if one.kind is Kind.SEGMENT else ON_CURVE, one.shape
            place = on_circle(ARRAYS, shape, t) if isinstance(shape, Circle) else on_line(ARRAYS, shape, t)  # type: ignore[arg-type]
            at = float(place.x), float(place.y)
            yield board.with_point(*at, Origin("point_on", (("C", number),), at=at))

    # -- what is missing ----------------------------------------------------------------------------

    def _need(self, board: Board, answer: Any) -> Need:
        """What of an answer is missing on a board, and how many moves it takes at least."""
        curves, points = [], []
        for term in answer.values():
            if term.kind is Kind.POINT:
                if board.place_of(float(term.shape.x), float(term.shape.y)) is None:
                    points.append((float(term.shape.x), float(term.shape.y)))
            elif not self._is_drawn(board, term):
                curves.append(term)
        if not self.is_elementary:
            return Need(curves, [], len(curves) or min(1, len(points)))
        open_points = []
        extra = 0
        for x, y in points:
            through = sum(runs_through(board, one, x, y) for one in board.curves)
            through += sum(runs_through(board, _curve(term), x, y) for term in curves)
            if through < 2:
                open_points.append((x, y))
                extra = max(extra, 2 - through)
        return Need(curves, open_points, len(curves) + extra)

    def _is_drawn(self, board: Board, term: Any) -> bool:
        wanted = self._kinds_of(term)
        return any(board.mark_of(kind, term.shape) in board.drawn for kind in wanted)

    def _kinds_of(self, term: Any) -> list[Kind]:
        """The kinds of object that may stand for one of an answer."""
        if term.kind is Kind.LINE and any(one.kind == "straight" for one in self.task.wanted):
            return sorted(LINES)
        return [term.kind]

    def is_reached(self, board: Board) -> bool:
        """Whether an answer stands on the board, as a construction that the judge calls sound."""
        for answer in self.goal.answers:
            need = self._need(board, answer)
            missing = [
                term
                for term in answer.values()
                if term.kind is Kind.POINT and board.place_of(float(term.shape.x), float(term.shape.y)) is None
            ]
            if need.curves or missing:
                continue
            steps, named = written(self.goal, board, answer, self.before)
            if steps in self.rejected:
                continue
            for variant in with_other_choices(steps, (*self.task.done, *self.before)):
                verdict = judge(self.task, Work((*self.before, *variant), named), report=False)
                if verdict.outcome is Outcome.SOUND:
                    self.found, self.answer = variant, named
                    return True
            self.rejected.add(steps)
        return False

    # -- which moves are worth it ---------------------------------------------------------------------

    def _promising(self, board: Board, candidates: Candidates, left: int, points: int, needs: Sequence[Need]) -> Mask:
        """Which moves leave an answer within reach."""
        everything = np.ones(len(candidates), bool)
        if candidates.kind is Kind.POINT or not self.is_elementary:
            if left > 1:
                return everything
            return self._last(board, candidates, needs)
        found = np.zeros(len(candidates), bool)
        for need in needs:
            spare = left - need.moves
            if spare == 0:
                found |= self._towards(board, candidates, need)
            elif spare == 1 and points == 0 and len(need.curves) + len(need.points) == 1:
                found |= self._towards(board, candidates, need) | self._preparing(board, candidates, need)
            else:
                return everything
        return found

    def _last(self, board: Board, candidates: Candidates, needs: Sequence[Need]) -> Mask:
        """Which moves give the one object that is missing, or anything where points are."""
        found = np.zeros(len(candidates), bool)
        for need in needs:
            if need.curves:
                found |= self._is_one_of(board, candidates, need)
            else:
                return np.ones(len(candidates), bool)
        return found

    def _is_one_of(self, board: Board, candidates: Candidates, need: Need) -> Mask:
        keys = board.key(candidates.kind, candidates.shape)
        found = np.zeros(len(candidates), bool)
        for term in need.curves:
            if candidates.kind in self._kinds_of(term):
                wanted = np.array(board.key_of(candidates.kind, term.shape)[1:])
                found |= (np.abs(keys - wanted) <= 1).all(axis=-1)
        return found

    def _towards(self, board: Board, candidates: Candidates, need: Need) -> Mask:
        """Which moves give one of the missing curves, or pass through a point that is missing."""
        found = self._is_one_of(board, candidates, need)
        for x, y in need.points:
            found |= passes_through(board, candidates, x, y)
        return found

    def _preparing(self, board: Board, candidates: Candidates, need: Need) -> Mask:
        """Which moves give points with which the one missing object can be drawn or met by the next."""
        places, _others, _firsts = crossings(board, candidates.kind, candidates.shape)
        if not places.shape[1]:
            return np.zeros(len(candidates), bool)
        tolerance = board.size * ONE * 10
        if need.points:
            (x, y) = need.points[0]
            return _can_reach(board, places, x, y, tolerance, "circle_radius" in self.makes)
        term = need.curves[0]
        with_radius = "circle_radius" in self.makes
        return _can_draw(board, places, term, tolerance, with_radius)


@dataclass(frozen=True)
class Need:
    """What is missing of an answer: curves, points through which too few curves run, and how many moves it takes."""

    curves: list[Any]
    points: list[tuple[float, float]]
    moves: int


def _curve(term: Any) -> Curve:
    return Curve(term.kind, term.shape, Origin(""))


def _off(places: Floats, term: Any) -> Floats:
    """How far places lie off a curve."""
    return np.abs(off_curve(ARRAYS, Point(places[..., 0], places[..., 1]), term.shape))  # type: ignore[no-any-return]


def _far(places: Floats, x: float, y: float) -> Floats:
    return np.hypot(places[..., 0] - x, places[..., 1] - y)


def _can_draw(board: Board, places: Floats, term: Any, tolerance: float, with_radius: bool) -> Mask:
    """For new points (curves, points, 2): whether with them and those that are there a curve can be drawn."""
    if term.kind is not Kind.CIRCLE:
        there = int((_off(board.points, term) < tolerance).sum())
        fresh = (_off(places, term) < tolerance).sum(axis=1)
        return np.asarray((there + fresh >= 2) & (fresh > 0))
    x, y, radius = float(term.shape.x), float(term.shape.y), float(np.sqrt(term.shape.rr))
    has_centre = board.place_of(x, y) is not None
    new_centre = (_far(places, x, y) < tolerance).any(axis=1)
    has_rim = bool((_off(board.points, term) < tolerance).any())
    new_rim = (_off(places, term) < tolerance).any(axis=1)
    rim = np.asarray(has_rim | new_rim)
    centred = np.broadcast_to(has_centre | new_centre, rim.shape)
    open_ = np.flatnonzero(centred & ~rim)
    if with_radius and len(open_):
        between = np.hypot(*(board.points[:, None] - board.points[None]).transpose(2, 0, 1))
        if (np.abs(between - radius) < tolerance).any():
            rim = np.ones_like(rim)
        else:
            to_old = np.hypot(*(places[open_, :, None] - board.points[None, None]).transpose(3, 0, 1, 2))
            among = np.hypot(*(places[open_, :, None] - places[open_, None, :]).transpose(3, 0, 1, 2))
            rim[open_] = (np.abs(to_old - radius) < tolerance).any(axis=(1, 2)) | (
                np.abs(among - radius) < tolerance
            ).any(axis=(1, 2))
    return np.asarray(centred & rim)


def _can_reach(board: Board, places: Floats, x: float, y: float, tolerance: float, with_radius: bool) -> Mask:
    """For new points: whether a line or circle that needs one of them passes through a place."""
    old = board.points
    new_far, old_far = _far(places, x, y), _far(old, x, y)
    between = np.hypot(*(places[:, :, None] - old[None, None]).transpose(3, 0, 1, 2))
    about_new = np.abs(between - new_far[:, :, None]) < tolerance
    about_old = np.abs(between - old_far[None, None]) < tolerance
    turned = (places[:, :, None, 0] - x) * (old[None, None, :, 1] - y) - (places[:, :, None, 1] - y) * (
        old[None, None, :, 0] - x
    )
    in_a_row = np.abs(turned) < tolerance * (between + tolerance)
    found = (about_new | about_old | in_a_row).any(axis=(1, 2))
    among = np.hypot(*(places[:, :, None] - places[:, None, :]).transpose(3, 0, 1, 2))
    found |= ((np.abs(among - new_far[:, :, None]) < tolerance) & (among > tolerance)).any(axis=(1, 2))
    turned = (places[:, :, None, 0] - x) * (places[:, None, :, 1] - y) - (places[:, :, None, 1] - y) * (
        places[:, None, :, 0] - x
    )
    found |= ((np.abs(turned) < tolerance * (among + tolerance)) & (among > tolerance)).any(axis=(1, 2))
    if with_radius:
        known = np.hypot(*(old[:, None] - old[None]).transpose(2, 0, 1)).ravel()
        found |= (np.abs(new_far[:, :, None] - known[None, None]) < tolerance).any(axis=(1, 2))
        fresh = np.concatenate([between.reshape(len(places), -1), among.reshape(len(places), -1)], axis=1)
        found |= (np.abs(fresh[:, :, None] - old_far[None, None]) < tolerance).any(axis=(1, 2))
    return np.asarray(found)
