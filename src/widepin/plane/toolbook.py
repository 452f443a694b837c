"""The tool book: one tape per tool, and per kinds and choice where they matter, as one JSON document.

A tape's inputs are the coordinates of the shapes in ``from``, then those of the point a crossing refers to, then
the step's own inputs. Keys: the name of the make; for sliding points and crossings with the kinds and the
choice, as ``tape_key`` says.

>>> tape_key("intersection", [Kind.SEGMENT, Kind.CIRCLE], "pick", 2)
'intersection segment circle pick 2'
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache
from itertools import product
from typing import Any

from .crossings import CHOICES
from .figure import Node, make_object
from .makes import MAKES
from .numbers import ROUNDING, SLACK
from .shapes import SHAPE_OF, STRAIGHTS, Kind
from .steps import Step
from .tape import Recording, Tape


def tape_key(make: str, kinds: Sequence[Kind], choice: str, pick: int) -> str:
    """The key in the tool book for a step of this make from objects of these kinds."""
    if make == "point_on":
        return f"point_on {'circle' if kinds[0] is Kind.CIRCLE else 'straight'}"
    if make != "intersection":
        return make
    if kinds[0] in STRAIGHTS and kinds[1] in STRAIGHTS:
        return f"intersection {kinds[0]} {kinds[1]}"
    return f"intersection {kinds[0]} {kinds[1]} {choice}{f' {pick}' if choice == 'pick' else ''}"


def record(make: str, kinds: Sequence[Kind], choice: str = "pick", pick: int = 1) -> Recording:
    """The tape of one make from objects of the given kinds."""
    with_reference = make == "intersection" and choice != "pick"
    source_kinds = [*kinds, Kind.POINT] if with_reference else list(kinds)
    own = MAKES[make].inputs
    tape = Tape(sum(len(SHAPE_OF[kind]._fields) for kind in source_kinds) + own)
    inputs = iter([tape.input(place) for place in range(tape.inputs)])
    shapes = [SHAPE_OF[kind](*(next(inputs) for _ in SHAPE_OF[kind]._fields)) for kind in source_kinds]
    nodes = [Node(Step(f"s{n}", "free_point"), kind, (), None, slice(0)) for n, kind in enumerate(source_kinds)]
    step = Step("made", make, tuple(f"s{n}" for n in range(len(kinds))), choice=choice, pick=pick)
    reference = len(kinds) if with_reference else None
    node = Node(step, MAKES[make].gives, tuple(range(len(kinds))), reference, slice(0))
    made = make_object(tape, node, shapes, list(inputs), nodes)
    return Recording(tape.inputs, tuple(tape.code), tuple(register.place for register in made))


def variants() -> Iterator[tuple[str, list[Kind], str, int]]:
    """Every make with every combination of kinds and choice that has a tape of its own."""
    for make in MAKES.values():
        for kinds in product(*(sorted(role, key=list(Kind).index) for role in make.sources)):
            if make.name != "intersection" or (kinds[0] in STRAIGHTS and kinds[1] in STRAIGHTS):
                yield make.name, list(kinds), "pick", 1
                continue
            for choice in CHOICES:
                for pick in (1, 2) if choice == "pick" else (1,):
                    yield make.name, list(kinds), choice, pick


@cache
def tapes() -> dict[str, Recording]:
    """All tapes by key."""
    book: dict[str, Recording] = {}
    for make, kinds, choice, pick in variants():
        key = tape_key(make, kinds, choice, pick)
        if key not in book:
            book[key] = record(make, kinds, choice, pick)
    return book


@cache
def tool_book() -> dict[str, Any]:
    """The JSON document that the browser loads once."""
    return {
        "format": "widepin.toolbook/1",
        "rounding": ROUNDING,
        "slack": SLACK,
        "shapes": {kind.value: len(SHAPE_OF[kind]._fields) for kind in Kind},
        "makes": {
            make.name: {
                "from": [sorted(role) for role in make.sources],
                "gives": make.gives,
                "inputs": make.inputs,
                "counts": make.counts,
            }
            for make in MAKES.values()
        },
        "tapes": {
            key: {"inputs": tape.inputs, "code": [list(line) for line in tape.code], "out": list(tape.out)}
            for key, tape in tapes().items()
        },
    }
