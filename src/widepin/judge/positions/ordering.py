"""Orders of steps: one that is the same however independent steps were ordered, and one with the sources of a changed
step first.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from ...plane.steps import Step


def in_canonical_order(before: Sequence[Step], steps: Sequence[Step]) -> tuple[Step, ...]:
    """The steps ordered by how they are built: first by how many steps deep they stand, then by make, sources and
    place.

    ``before``: the steps that stand already, in an order of their own. What a verdict draws by chance or takes first is
    then the same for every order in which a student may have made the steps, and but for exact repeats for all names.

    >>> c, d, e = Step("c", "circle", ("A", "B")), Step("d", "circle", ("B", "A")), Step("e", "line", ("C", "A"))
    >>> C = Step("C", "intersection", ("c", "d"))
    >>> given = [Step("A", "free_point", at=(0, 0)), Step("B", "free_point", at=(1, 0))]
    >>> [step.id for step in in_canonical_order(given, [d, c, C, e])]
    ['c', 'd', 'C', 'e']
    """
    rank = {step.id: number for number, step in enumerate(before)}
    depth = dict.fromkeys(rank, 0)
    layers: dict[int, list[Step]] = {}
    for step in steps:
        depth[step.id] = 1 + max((depth[parent] for parent in step.parents), default=0)
        layers.setdefault(depth[step.id], []).append(step)

    def key(step: Step) -> tuple[Any, ...]:
        sources = tuple([rank[source] for source in step.sources])
        reference = -1 if step.reference is None else rank[step.reference]
        return step.make, sources, step.choice, step.pick, reference, step.at or (), step.id

    ordered: list[Step] = []
    for layer in sorted(layers):
        for step in sorted(layers[layer], key=key):
            rank[step.id] = len(rank)
            ordered.append(step)
    return tuple(ordered)


def sources_first(steps: Iterable[Step]) -> list[Step]:
    """The steps in their order, but that a step which is made from a later one has that moved up before it.

    No step may be made from itself, by whatever way.

    >>> C, c = Step("C", "intersection", ("c", "g")), Step("c", "circle", ("A", "B"))
    >>> [step.id for step in sources_first([C, c])]
    ['c', 'C']
    """
    left = {step.id: step for step in steps}
    ordered: list[Step] = []
    for first in list(left):
        waiting = [first]
        while waiting:
            id_ = waiting[-1]
            missing = next((parent for parent in left[id_].parents if parent in left), None) if id_ in left else None
            if missing is not None:
                waiting.append(missing)
                continue
            waiting.pop()
            if id_ in left:
                ordered.append(left.pop(id_))
    return ordered
