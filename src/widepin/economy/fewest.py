"""The fewest moves of a task with its tools: found and judged, or excluded."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from time import monotonic
from typing import TYPE_CHECKING

from ..judge.task import Task
from .goal import Goal, NoGoal, goal_of
from .kept_kernel import is_compiled
from .search import FREE, ON_CURVE, ON_SEGMENT, Fewest, Place, Search

if TYPE_CHECKING:
    from .elementary import Elementary


def fewest(
    task: Task, most: int = 6, seconds: float = 60.0, seed: int = 1, since: Fewest | None = None, wait: bool = True
) -> Fewest:
    """The fewest moves that a task takes with its tools, up to ``most``.

    ``since``: what an earlier search of the same task found, which was stopped: it goes on there. ``wait``: whether the
    compiled search is compiled now where it is not yet, which takes a minute; a slower one is taken otherwise.
    A task without a sample solution that the judge calls sound has no goal to search for: nothing is found or excluded.
    """
    try:
        goal = goal_of(task, seed)
    except NoGoal:
        return Fewest()
    search = Search(task, seconds)
    if not search.is_elementary:
        return search.run(goal, most)
    if not (wait or is_compiled()):
        return search.run(goal, most)
    from . import kernel  # which takes a second to load

    if len(goal.board.curves) + kernel.MOST_MOVES > kernel.MOST_CURVES:
        return search.run(goal, most)
    kernel.compile_all()
    search = Search(task, seconds)
    return with_ruler_and_compass(search, goal, min(most, kernel.MOST_MOVES), since)


@dataclass
class Lane:
    """A search with so many arbitrary points. ``moves``: the depth that comes; ``branch``: first moves done there."""

    points: int
    moves: int = 0
    branch: int = 0
    states: int = 0


def with_ruler_and_compass(search: Search, goal: Goal, most: int, since: Fewest | None) -> Fewest:
    """The search by compiled code, in two lanes: without arbitrary points, and with one.

    At each depth the second comes after the first, since a construction without is better; where it takes longer, the
    first goes on meanwhile.
    """
    from .elementary import in_time

    running = compiled(search, goal)
    places = since.places if since else ()
    lanes = [
        Lane(points, *(places[points] if points < len(places) else Place()))
        for points in range(2 if search.may_put else 1)
    ]
    timer = in_time(running, max(search.until - monotonic(), 0.0))
    best: int | None = None
    try:
        while lane := _next_lane(lanes, most if best is None else best - 1):
            before = running.states
            for branch, _count in running.branches(lane.moves, lane.points, lane.branch):
                lane.branch = branch
                if _is_sound_one_among(search, running):
                    best = lane.moves
                    break
            lane.states += running.states - before
            if running.is_stopped:
                break
            lane.moves, lane.branch = lane.moves + (best != lane.moves), 0
    finally:
        timer.cancel()
    excluded, arbitrary = _excluded(lanes, most if best is None else best - 1)
    return Fewest(
        best,
        search.found or () if best is not None else (),
        excluded,
        arbitrary,
        running.states + (since.states if since else 0),
        running.is_stopped,
        tuple(Place(lane.moves, lane.branch) for lane in lanes),
    )


def _is_sound_one_among(search: Search, running: Elementary) -> bool:
    """Whether one of the paths that were found is sound. Where time is over before all are judged, the search stops."""
    for board in running.paths():
        if monotonic() > search.until:
            running.stop()
            break
        if search.is_reached(board):
            return True
    return False


def compiled(search: Search, goal: Goal) -> Elementary:
    """The compiled search for a goal, with the tools of a search."""
    from .elementary import Elementary, Means

    search.begin(goal, goal.board)
    x, y = float(goal.measure.home.x), float(goal.measure.home.y)
    means = Means(
        {make: search.limits[make] for make in search.makes_left(goal.board)},
        (x + FREE[0] * goal.board.size, y + FREE[1] * goal.board.size) if "free_point" in search.may_put else None,
        (ON_SEGMENT, ON_CURVE) if "point_on" in search.may_put else None,
        search.opening,
    )
    return Elementary(search.task, goal, goal.board, means)


def _next_lane(lanes: Sequence[Lane], most: int) -> Lane | None:
    """The lane that has taken the least, of those with something left to do; None once all have looked at ``most``."""
    first = lanes[0]
    ready = [lane for lane in lanes if lane.moves <= most and (lane is first or lane.moves < first.moves)]
    return min(ready, key=lambda lane: lane.states, default=None)


def _excluded(lanes: Sequence[Lane], most: int) -> tuple[int, int]:
    """Up to which number of moves everything is excluded, and with how many arbitrary points: the farthest, and of two
    that are as far the one with more.
    """
    done = [(max(min(lane.moves - 1, most), 0), lane.points) for lane in lanes]
    return max(done)
