"""Tapes compiled: a variant as one straight-line Python function per number system.

A verdict computes the same few makes thousands of times. Interpreting steps would cost more than the arithmetic, so
each variant's tape is written out as Python once per process: ``r7 = r3 - r0`` and so on, without a call or a test
that the tape does not have. In arrays, batches in which no test comes near to failing are computed without its
rounding; in balls, what is undefined ends the function at once; and the registers that say how large the terms of a
tested number are get computed only where the test is not plain, which is next to never.

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

import numpy as np

from .arrays import ARRAYS
from .balls import BALLS, UNDEFINED, ball
from .makes import MAKES
from .shapes import SHAPE_OF, Kind
from .tape import Instruction, Recording, operands
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

BY_CALL = ARITHMETIC | {
    "over": "system.over({0}, {1}, {2})",
    "root": "system.root({0}, {1})",
    "pos": "system.where_positive({0}, {1}, {2})",
    "ext": "system.where_not_negative({0}, {1})",
    "pick": "system.choose({0}, {1}, {2}, {3})",
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
    in_balls = {
        "system": BALLS,
        "shape": shape,
        "zero": ball(0),
        "undefined": UNDEFINED,
        "gone": shape(*[UNDEFINED] * len(shape._fields)),
    }
    names = {"system": ARRAYS, "shape": shape, "sqrt": np.sqrt}
    full = _function(_Writing(tape, fields).full(), names, tape, float)
    gaps = _function(_Writing(tape, fields).plain(with_gaps=True), names | {"otherwise": full}, tape, float)
    return Compiled(
        _function(_Writing(tape, fields).plain(), names | {"otherwise": gaps}, tape, float),
        _function(_Writing(tape, fields).in_balls(), in_balls, tape, ball),
    )


def _function(
    source: str, names: dict[str, Any], tape: Recording, number: Callable[[float], Any]
) -> Callable[..., Any]:
    constants = {
        f"r{tape.inputs + index}": number(float(line[1])) for index, line in enumerate(tape.code) if line[0] == "const"
    }
    scope = {"new": tuple.__new__} | names | constants
    exec(source, scope)  # the source is made from our own tapes and holds nothing from outside
    function: Callable[..., Any] = scope["made"]
    return function


class _Writing:
    """A tape written out as the text of a function. ``fields``: how many coordinates each parent has."""

    def __init__(self, tape: Recording, fields: Sequence[int]):
        self.tape = tape
        self.fields = fields
        self.body: list[str] = []
        self.names: dict[int, str] = {}
        self.passed: set[str] = set()
        """Names of registers that have passed a test already."""
        for register in range(tape.inputs + len(tape.code)):
            if register < tape.inputs or self.line(register)[0] == "const":
                self.names[register] = f"r{register}"

    def line(self, register: int) -> Instruction:
        """The instruction that makes a register."""
        return self.tape.code[register - self.tape.inputs]

    def full(self) -> str:
        """In arrays: every instruction as an assignment."""
        self.unpack()
        for register in range(self.tape.inputs, self.tape.inputs + len(self.tape.code)):
            op, *read = self.line(register)
            if op != "const":
                self.assign(register, BY_CALL[str(op)].format(*map(self.name, read)))
        return self.text()

    def plain(self, with_gaps: bool = False) -> str:
        """In arrays, where all tests are plainly passed everywhere, or with gaps: wherever they are defined.

        Most batches are such, and the sizes of terms are half of the arithmetic. Where a test is not plain, another
        function takes over. What passed everywhere need not be passed on as undefined.
        """
        is_plain = "system.is_plain_where_defined" if with_gaps else "system.is_plain"
        self.unpack()
        for register in self.needed():
            op, *read = self.line(register)
            a, b, c, *_ = (*map(self.name, read), "", "", "")
            match op:
                case "over":
                    self.hand_over_unless(b, f"{is_plain}(abs({b}))")
                    self.assign(register, f"{a} / {b}")
                case "root":
                    self.hand_over_unless(a, f"{is_plain}({a})")
                    self.assign(register, f"sqrt({a})")
                case "pos":
                    self.hand_over_unless(a, f"{is_plain}({a})")
                    self.names[register] = c
                case "mul" if self.is_zero(read[1]) and a in self.passed and not with_gaps:
                    self.names[register] = "zero"
                case "add" if "zero" in (a, b):
                    self.names[register] = b if a == "zero" else a
                case _:
                    self.assign(register, BY_CALL[str(op)].format(*map(self.name, read)))
        return self.text()

    def hand_over_unless(self, tested: str, plain: str) -> None:
        """Hand over to another function unless a register is plainly no failure; once for each."""
        if tested not in self.passed:
            self.passed.add(tested)
            self.body.append(f"if not {plain}: return otherwise(shapes, parents, own)")

    def needed(self) -> list[int]:
        """The registers that the result needs otherwise than as sizes, but for inputs and constants."""
        return [n for n in sorted(_needed(self.tape)) if n >= self.tape.inputs and self.line(n)[0] != "const"]

    def in_balls(self) -> str:
        """What can fail as a test that ends the function, so that what is added to pass on undefined costs nothing.

        That is right since a shape is undefined as a whole. Registers that are sizes only are written where a test
        that is not plain asks for them.
        """
        first = 0
        self.unpack()
        for count in self.fields:
            self.body.append(f"if not r{first}.is_finite(): return gone")
            first += count
        for register in self.needed():
            self.write_in_balls(register)
        return self.text()

    def write_in_balls(self, register: int) -> None:
        """One instruction that the result needs."""
        op, *read = self.line(register)
        a, b, c, d = (*map(self.name, read), "", "", "")[:4]
        match op:
            case "over":
                if b not in self.passed:
                    self.unless(f"{b} > zero or {b} < zero", f"system.over({a}, {b}, {c})")
                self.assign(register, f"{a} / {b}")
            case "root":
                self.assign(register, f"{a}.sqrt() if {a} > zero else system.root({a}, {b})")
                self.unless(f"{a} > zero", f"r{register}")
            case "pos":
                self.unless(f"{a} > zero", f"system.where_positive({a}, {b}, zero)")
                self.passed.add(a)
                self.names[register] = c
            case "ext":
                self.unless(f"{a} > zero", f"system.where_not_negative({a}, zero)")
                self.names[register] = b
            case "pick":
                self.unless(f"{a} > zero or {a} < zero", f"system.choose({a}, {b}, zero, zero)")
                self.assign(register, f"{c} if {a} > zero else {d}")
            case "mul" if self.is_zero(read[0]) or self.is_zero(read[1]):
                self.names[register] = "zero"
            case "add" if "zero" in (a, b):
                self.names[register] = b if a == "zero" else a
            case _:
                self.assign(register, ARITHMETIC[str(op)].format(a, b))

    def unless(self, plain: str, otherwise: str) -> None:
        """End the function unless a test is plainly true, or what decides it otherwise is defined."""
        test = f"if not ({plain}) and {otherwise} is undefined: return gone"
        if test not in self.body:
            self.body.append(test)

    def is_zero(self, register: int | float | str) -> bool:
        """Whether a register holds the constant 0."""
        return int(register) >= self.tape.inputs and self.line(int(register)) == ("const", 0.0)

    def assign(self, register: int, expression: str) -> None:
        """Make a register."""
        self.names[register] = f"r{register}"
        self.body.append(f"r{register} = {expression}")

    def name(self, register: int | float | str) -> str:
        """How a register is read: by its name, or if it was not made yet, by its expression."""
        if int(register) in self.names:
            return self.names[int(register)]
        op, *read = self.line(int(register))
        return f"({BY_CALL[str(op)].format(*map(self.name, read))})"

    def unpack(self) -> None:
        """The coordinates of the parents and the inputs of its own, under the names of their registers."""
        holders = [*(f"shapes[parents[{number}]]" for number in range(len(self.fields))), "own"]
        first = 0
        for holder, count in zip(holders, (*self.fields, self.tape.inputs - sum(self.fields)), strict=True):
            if count:
                self.body.append(f"{', '.join(f'r{first + n}' for n in range(count))}, = {holder}")
                first += count

    def text(self) -> str:
        """The whole function."""
        # A named tuple's own constructor costs twice as much as this.
        result = f"return new(shape, ({', '.join(map(self.name, self.tape.out))},))"
        return "def made(shapes, parents, own):\n" + "".join(f"    {line}\n" for line in (*self.body, result))


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
            waiting += [one for index, one in enumerate(operands(line)) if index != SIZE.get(str(line[0]))]
    return needed
