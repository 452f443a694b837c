"""What a work cost, and whether its tools were allowed."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence

from ...plane.figure import Figure
from ...plane.makes import MAKES
from ...plane.rules import broken
from ...plane.steps import Step
from ...plane.strokes import Price
from ..rules import WorkRule
from ..task import Allowance, Use, Work
from ..verdict import Counts, Refusal

POINTS = ("free_point", "point_on")


def is_move(make: str) -> bool:
    """Whether a step of this make counts: lines, circles and all other tools do; points and intersections do not."""
    return make in MAKES and MAKES[make].counts


def by_hand(steps: Sequence[Step], uses: Iterable[Use]) -> list[Step]:
    """The steps that were made one by one, not by a class tool of several steps."""
    at_once = {id_ for use in uses for id_ in use.ids}
    return [step for step in steps if step.id not in at_once]


def moves_of(steps: Sequence[Step], uses: Sequence[Use] = ()) -> int:
    """What steps count: each move made by hand, and each use what its class tool counts."""
    return sum(is_move(step.make) for step in by_hand(steps, uses)) + sum(use.moves for use in uses)


def moves_within(steps: Iterable[Step], tools: Iterable[Allowance]) -> int:
    """How many moves steps take with these tools: a step whose tool is not allowed, or not so often, counts as many as
    ruler and compass need for it.

    >>> bisector = [Step("m", "perpendicular_bisector", ("A", "B"))]
    >>> moves_within(bisector, [Allowance("circle"), Allowance("line")])
    3
    >>> moves_within(bisector, [Allowance("perpendicular_bisector", 1)])
    1
    """
    left = {one.tool: one.most for one in tools}
    moves = 0
    for step in steps:
        if not is_move(step.make):
            continue
        price = MAKES[step.make].price
        most = left.get(step.make, 0)
        if most is not None and most < 1 and isinstance(price, Price):
            moves += price.elementary
            continue
        if most:
            left[step.make] = most - 1
        moves += 1
    return moves


def foreign_tools(steps: Iterable[Step], tools: Iterable[Allowance]) -> tuple[str, ...]:
    """The tools of steps that are not among the tools, each once.

    >>> made = [Step("m", "perpendicular_bisector", ("A", "B")), Step("c", "circle", ("A", "B"))]
    >>> foreign_tools(made, [Allowance("circle")])
    ('perpendicular_bisector',)
    """
    allowed = {one.tool for one in tools} | {"intersection"}
    if "points" in allowed:
        allowed |= {*POINTS}
    return tuple(dict.fromkeys(step.make for step in steps if step.make not in allowed))


def counted(work: Work, figure: Figure, answer: Iterable[int]) -> Counts:
    """The counts of a work; ``answer`` holds the numbers of its objects in the figure."""
    ancestors = figure.ancestors(answer)
    needed = {step.id for step in work.steps if figure.index[step.id] in ancestors}
    return _counts(work, needed)


class NeededMoves:
    """How many moves of a work each answer needs; for many answers quicker than ``counted``."""

    def __init__(self, work: Work, figure: Figure):
        # A bit for each move made by hand, and for each use of a class tool, on everything that is made from it.
        bits = {step.id: 1 << index for index, step in enumerate(by_hand(work.steps, work.uses)) if is_move(step.make)}
        self.moves = dict.fromkeys(bits.values(), 1)
        for index, use in enumerate(work.uses, len(work.steps)):
            bits |= dict.fromkeys(use.ids, 1 << index)
            self.moves[1 << index] = use.moves
        self.behind: list[int] = []
        for node in figure.nodes:
            behind = bits.get(node.step.id, 0)
            for parent in node.parents:
                behind |= self.behind[parent]
            self.behind.append(behind)

    def of(self, answer: Iterable[int]) -> int:
        """The moves that an answer needs, given by the numbers of its objects."""
        behind = 0
        for number in answer:
            behind |= self.behind[number]
        return sum(moves for bit, moves in self.moves.items() if bit & behind)


def counted_alone(work: Work) -> Counts:
    """The counts of a work that was not judged: nothing is known to be needed."""
    return _counts(work, set())


def _counts(work: Work, needed: set[str]) -> Counts:
    idle = [step for step in by_hand(work.steps, work.uses) if step.id not in needed]
    idle_uses = [use for use in work.uses if needed.isdisjoint(use.ids)]
    moves = moves_of(work.steps, work.uses)
    named = [*(step.id for step in idle if is_move(step.make)), *(id_ for use in idle_uses for id_ in use.gives)]
    return Counts(moves, moves - moves_of(idle, idle_uses), tuple(named))


def refused_tool(steps: Sequence[Step], tools: Sequence[Allowance]) -> Refusal | None:
    """The first step whose tool is not allowed, or used too often."""
    allowed = {allowance.tool: allowance.most for allowance in tools}
    openings = {allowance.tool: set(allowance.opening) for allowance in tools if allowance.opening}
    used: Counter[str] = Counter()
    for step in steps:
        if step.make == "intersection":
            continue
        tool = "points" if step.make in POINTS and step.make not in allowed else step.make
        if tool not in allowed:
            return Refusal(step.id, broken(WorkRule.TOOL_NOT_ALLOWED, tool=step.make))
        used[tool] += 1
        most = allowed[tool]
        if most is not None and used[tool] > most:
            return Refusal(step.id, broken(WorkRule.TOOL_USED_UP, tool=tool, most=most, time=used[tool]))
        if tool in openings and set(step.sources[1:]) != openings[tool]:
            return Refusal(step.id, broken(WorkRule.FIXED_COMPASS, ends=tuple(sorted(openings[tool]))))
    return None
