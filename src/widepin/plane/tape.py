"""Tapes: the arithmetic of a make, recorded as a list of instructions on numbered registers.

The registers 0 .. n-1 hold the inputs; every instruction appends one register. An instruction is a list: its
opcode, then register numbers (``const``: the value). Undefined is NaN and spreads as in IEEE arithmetic.

=============  ==========================================================================================
const v        the number v
add a b        a + b
sub a b        a - b
mul a b        a * b
neg a          -a
abs a          the absolute value
sin a, cos a   of an angle in radians
over n d s     n / d where abs(d) > rounding * s, else NaN
root x s       0 where abs(x) <= rounding * s, else the square root (NaN for negative x)
pos t s v      v where t > rounding * s, else NaN
ext t v        v where t >= -slack, else NaN
pick t s a b   a where t > rounding * s, b where t < -rounding * s, else NaN
=============  ==========================================================================================

``rounding`` and ``slack`` are ``tolerances.ROUNDING`` and ``tolerances.SLACK``; the tool book carries them. The
browser's interpreter is ``web/static/figure/tape.js``; ``play`` here is its twin in Python.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from .tolerances import ROUNDING, SLACK

Instruction = tuple[str | int | float, ...]


class Register:
    """A number on a tape: known by its number, not its value."""

    __slots__ = ("number", "tape")

    def __init__(self, tape: Tape, number: int):
        self.tape = tape
        self.number = number

    def __add__(self, other: Register | float) -> Register:
        return self.tape.record("add", self, other)

    def __radd__(self, other: Register | float) -> Register:
        return self.tape.record("add", other, self)

    def __sub__(self, other: Register | float) -> Register:
        return self.tape.record("sub", self, other)

    def __rsub__(self, other: Register | float) -> Register:
        return self.tape.record("sub", other, self)

    def __mul__(self, other: Register | float) -> Register:
        return self.tape.record("mul", self, other)

    def __rmul__(self, other: Register | float) -> Register:
        return self.tape.record("mul", other, self)

    def __neg__(self) -> Register:
        return self.tape.record("neg", self)


class Tape:
    """The number system that records. An instruction that stands on the tape already is not recorded twice."""

    def __init__(self, inputs: int):
        self.inputs = inputs
        self.code: list[Instruction] = []
        self._numbers: dict[Instruction, int] = {}

    def input(self, number: int) -> Register:
        """The register that holds an input."""
        return Register(self, number)

    def record(self, op: str, *operands: Register | float) -> Register:
        """Append an instruction; plain numbers among the operands become constants."""
        return self._append((op, *(self._number(operand) for operand in operands)))

    def _number(self, operand: Register | float) -> int:
        if isinstance(operand, Register):
            return operand.number
        return self._append(("const", float(operand))).number

    def _append(self, instruction: Instruction) -> Register:
        number = self._numbers.get(instruction)
        if number is None:
            number = self.inputs + len(self.code)
            self.code.append(instruction)
            self._numbers[instruction] = number
        return Register(self, number)

    def recording(self, result: Iterable[Register]) -> Recording:
        """The finished tape with this result, without instructions that the result does not depend on."""
        out = [register.number for register in result]
        used, waiting = set(range(self.inputs)), list(out)
        while waiting:
            number = waiting.pop()
            if number not in used:
                used.add(number)
                waiting += operands(self.code[number - self.inputs])
        new = {old: number for number, old in enumerate(sorted(used))}
        code = tuple(_moved(self.code[old - self.inputs], new) for old in sorted(used) if old >= self.inputs)
        return Recording(self.inputs, code, tuple(new[number] for number in out))

    def over(self, n: Register, d: Register, size: Register) -> Register:
        return self.record("over", n, d, size)

    def root(self, x: Register, size: Register) -> Register:
        return self.record("root", x, size)

    def absolute(self, x: Register) -> Register:
        return self.record("abs", x)

    def where_positive(self, test: Register, size: Register, value: Register) -> Register:
        return self.record("pos", test, size, value)

    def where_not_negative(self, test: Register, value: Register) -> Register:
        return self.record("ext", test, value)

    def choose(self, test: Register, size: Register, positive: Register, negative: Register) -> Register:
        return self.record("pick", test, size, positive, negative)

    def sin(self, x: Register) -> Register:
        return self.record("sin", x)

    def cos(self, x: Register) -> Register:
        return self.record("cos", x)


@dataclass(frozen=True)
class Recording:
    """A finished tape: how many inputs it takes, its instructions, and the registers that hold the result."""

    inputs: int
    code: tuple[Instruction, ...]
    out: tuple[int, ...]


def operands(line: Instruction) -> list[int]:
    """The registers that an instruction reads."""
    return [] if line[0] == "const" else [int(number) for number in line[1:]]


def _moved(line: Instruction, new: dict[int, int]) -> Instruction:
    return line if line[0] == "const" else (line[0], *(new[number] for number in operands(line)))


def play(tape: Recording, inputs: Sequence[float]) -> tuple[float, ...]:
    """The result of a tape for floats.

    >>> play(Recording(2, (("add", 0, 1), ("const", 0.5), ("mul", 2, 3)), (4,)), (3.0, 4.0))
    (3.5,)
    """
    registers = list(inputs)
    for line in tape.code:
        if line[0] == "const":
            registers.append(float(line[1]))
        else:
            registers.append(_perform(str(line[0]), [registers[number] for number in operands(line)]))
    return tuple(registers[number] for number in tape.out)


def _perform(op: str, values: list[float]) -> float:
    a, *rest = values
    match op:
        case "add":
            return a + rest[0]
        case "sub":
            return a - rest[0]
        case "mul":
            return a * rest[0]
        case "neg":
            return -a
        case "abs":
            return abs(a)
        case "sin":
            return math.sin(a)
        case "cos":
            return math.cos(a)
        case "over":
            return a / rest[0] if abs(rest[0]) > ROUNDING * rest[1] else math.nan
        case "root":
            if abs(a) <= ROUNDING * rest[0]:
                return 0.0
            return math.sqrt(a) if a > 0 else math.nan
        case "pos":
            return rest[1] if a > ROUNDING * rest[0] else math.nan
        case "ext":
            return rest[0] if a >= -SLACK else math.nan
        case "pick":
            margin = ROUNDING * rest[0]
            return rest[1] if a > margin else rest[2] if a < -margin else math.nan
    raise ValueError(f"{op} is no opcode")
