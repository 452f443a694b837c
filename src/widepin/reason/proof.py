"""A proof: lines in order, each with its rule, the lines that it rests on, and the steps that it is seen from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from .facts import Fact, Term
from .rules import RuleName


@dataclass(frozen=True)
class Case:
    """Positions in which what a rule reads off the figure is so, or is not.

    ``word`` and ``points``: as in a rule, ``between V A B``; ``holds``: which of the two.
    """

    word: str
    points: tuple[str, ...]
    holds: bool

    @property
    def other(self) -> Case:
        """All other positions."""
        return replace(self, holds=not self.holds)


@dataclass(frozen=True)
class Line:
    """A line. ``because``: numbers of earlier lines, from 1. ``steps``: of the construction, where they say it.

    ``condition``: the place of the condition of the task that it is, from 0; None where it is on the way.
    ``case``: the positions of which it is said, where these are not all.
    """

    fact: Fact
    rule: RuleName
    because: tuple[int, ...] = ()
    steps: tuple[str, ...] = ()
    condition: int | None = None
    bindings: Mapping[str, Term] = field(default_factory=dict)
    case: Case | None = None


@dataclass(frozen=True)
class Proof:
    """Lines, and the conditions that have a proof in them. ``open``: places of conditions for which none was found.

    ``open_case``: the positions for which they are open, where there is a proof for all others.
    ``missing``: facts from which these would follow, that hold and could not be derived.
    ``helpers``: objects of the sample solution of which it speaks as well.
    ``trivial``: whether nothing had to be proved: every condition is given, or done as in the sample solution.
    """

    lines: tuple[Line, ...]
    open: tuple[int, ...] = ()
    trivial: bool = False
    missing: tuple[Fact, ...] = ()
    open_case: Case | None = None
    helpers: tuple[str, ...] = ()

    @property
    def is_whole(self) -> bool:
        """Whether every condition is proved."""
        return not self.open
