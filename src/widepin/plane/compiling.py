"""Tapes compiled: a variant as one straight-line Python function per number system.

A verdict computes the same few makes thousands of times. Interpreting steps would cost more than the arithmetic, so
each variant's tape is written out as Python once per process: ``r7 = r3 - r0`` and so on, without a call or a test
that the tape does not have. In balls, the registers that say how large the terms of a tested number are get computed
only where the test is not plain, which is next to never.

>>> from widepin.plane.shapes import Point
>>> shapes = [Point(0, 0), Point(3.0, 4.0)]
>>> compiled(Variant("midpoint", (Kind.POINT, Kind.POINT))).in_arrays(shapes, (0, 1), ())
Point(x=1.5, y=2.0)
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

from .arrays import ARRAYS
from .balls import BALLS, ball
from .makes import MAKES
from .shapes import SHAPE_OF, Kind
from .tape import Recording, operands
from .variants import Variant, record

ARITHMETIC = {
    "add": "{0} + {1}",
    "sub": "{0} - {1}",
    "mul": "{0} * {1}",
    "neg": "-{0}",
    "abs": "abs({0})",
    "sin": "system.sin({0})",
    "cos": "system.cos({0})",
}

IN_ARRAYS = ARITHMETIC | {
    "over": "system.over({0}, {1}, {2})",
    "root": "system.root({0}, {1})",
    "pos": "system.where_positive({0}, {1}, {2})",
    "ext": "system.where_not_negative({0}, {1})",
    "pick": "system.choose({0}, {1}, {2}, {3})",
}

IN_BALLS = ARITHMETIC | {
    "over": "{0} / {1} if {1} > zero or {1} < zero else system.over({0}, {1}, {2})",
    "root": "{0}.sqrt() if {0} > zero else system.root({0}, {1})",
    "pos": "{2} if {0} > zero else system.where_positive({0}, {1}, {2})",
    "ext": "{1} if {0} > zero else system.where_not_negative({0}, {1})",
    "pick": "{2} if {0} > zero else {3} if {0} < zero else system.choose({0}, {1}, {2}, {3})",
}

SIZE = {"over": 2, "root": 1, "pos": 1, "pick": 1}
"""Which operand of an instruction is only the magnitude of what it tests."""


@dataclass(frozen=True, slots=True)
class Compiled:
    """A variant as functions: of all shapes, the numbers of the parents among them, and the step's own inputs."""

    in_arrays: Callable[..., Any]
    in_balls: Callable[..., Any]


@cache
def compiled(variant: Variant) -> Compiled:
    """The functions of a variant."""
    tape = record(variant)
    kinds = [*variant.kinds, Kind.POINT] if variant.with_reference else list(variant.kinds)
    shape = SHAPE_OF[MAKES[variant.make].gives]
    fields = [len(SHAPE_OF[kind]._fields) for kind in kinds]
    return Compiled(
        _function(_source(tape, fields, IN_ARRAYS, lazy=False), {"system": ARRAYS, "shape": shape}, tape, float),
        _function(
            _source(tape, fields, IN_BALLS, lazy=True), {"system": BALLS, "shape": shape, "zero": ball(0)}, tape, ball
        ),
    )


def _function(
    source: str, names: dict[str, Any], tape: Recording, number: Callable[[float], Any]
) -> Callable[..., Any]:
    constants = {
        f"r{tape.inputs + place}": number(float(line[1])) for place, line in enumerate(tape.code) if line[0] == "const"
    }
    scope = {"new": tuple.__new__} | names | constants
    exec(source, scope)  # the source is made from our own tapes and holds nothing from outside
    function: Callable[..., Any] = scope["made"]
    return function


def _source(tape: Recording, fields: Sequence[int], lines: dict[str, str], lazy: bool) -> str:
    """The function as text. ``fields``: how many coordinates each parent has. ``lazy``: sizes where they are used."""
    body, place = [], 0
    holders = [*(f"shapes[parents[{number}]]" for number in range(len(fields))), "own"]
    for holder, count in zip(holders, (*fields, tape.inputs - sum(fields)), strict=True):
        if count:
            body.append(f"{', '.join(f'r{place + n}' for n in range(count))}, = {holder}")
            place += count
    at_once = _needed(tape) if lazy else set(range(tape.inputs + len(tape.code)))

    def expression(register: int) -> str:
        line = tape.code[register - tape.inputs]
        return lines[str(line[0])].format(*map(name, operands(line)))

    def name(register: int) -> str:
        named = register in at_once or register < tape.inputs or tape.code[register - tape.inputs][0] == "const"
        return f"r{register}" if named else f"({expression(register)})"

    for register in range(tape.inputs, tape.inputs + len(tape.code)):
        if register in at_once and tape.code[register - tape.inputs][0] != "const":
            body.append(f"r{register} = {expression(register)}")
    # A named tuple's own constructor costs twice as much as this.
    body.append(f"return new(shape, ({', '.join(map(name, tape.out))},))")
    return "def made(shapes, parents, own):\n" + "".join(f"    {line}\n" for line in body)


def _needed(tape: Recording) -> set[int]:
    """The registers that the result depends on otherwise than as a size."""
    needed, waiting = set(), list(tape.out)
    while waiting:
        register = waiting.pop()
        if register in needed:
            continue
        needed.add(register)
        if register >= tape.inputs:
            line = tape.code[register - tape.inputs]
            waiting += [one for place, one in enumerate(operands(line)) if place != SIZE.get(str(line[0]))]
    return needed
