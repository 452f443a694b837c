"""How a construction is built, whatever its objects are called: for putting works side by side."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from hashlib import sha256

from ...plane.makes import MAKES, MakeName
from ...plane.steps import Step
from ..task import Use
from .counts import by_hand


def structure(given: Iterable[str], steps: Sequence[Step], answer: Iterable[str]) -> str:
    """A short text that two works share if they build the answer in the same way.

    Names, places, the order of independent steps and steps that the answer does not need make no difference, nor does
    which intersection was chosen.

    >>> c, d = Step("c", "circle", ("A", "B")), Step("d", "circle", ("B", "A"))
    >>> left = structure("AB", [c, d, Step("C", "intersection", ("c", "d"))], ["C"])
    >>> left == structure("AB", [d, c, Step("X", "intersection", ("d", "c"), pick=2)], ["X"])
    True
    """
    words = {id_: id_ for id_ in given}
    for step in steps:
        sources = [words.get(source, source) for source in step.sources]
        if MAKES[step.make].symmetric:
            sources.sort()
        words[step.id] = _short(f"{step.make}({','.join(sources)})")
    return _short("+".join(sorted(words.get(id_, id_) for id_ in answer)))


def _short(text: str) -> str:
    return sha256(text.encode()).hexdigest()[:16]


def made_with(
    steps: Sequence[Step], needed: Collection[str], uses: Sequence[Use] = ()
) -> tuple[Counter[MakeName], Counter[str]]:
    """What a construction is made with: how often each make that counts, by hand, and each class tool by its name."""
    moves = [MakeName(step.make) for step in by_hand(steps, uses) if step.id in needed and MAKES[step.make].counts]
    return Counter(moves), Counter(use.class_tool for use in uses if not set(needed).isdisjoint(use.ids))


def needed_by(steps: Sequence[Step], answer: Iterable[str]) -> set[str]:
    """The ids of the steps that an answer is made from, itself included."""
    found = set(answer)
    for step in reversed(steps):
        if step.id in found:
            found.update(step.parents)
    return found & {step.id for step in steps}


def points_put(steps: Sequence[Step]) -> tuple[tuple[float, float], ...]:
    """Where the points that a student put lie: two works of the same places are hardly made apart."""
    return tuple(step.at for step in steps if step.at is not None)
