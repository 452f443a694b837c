"""The number systems: what a sign is, and what each does where there is none."""

import math

import numpy as np
import pytest
from flint import arb

from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.balls import BALLS, PRECISIONS, Undecided, at_rising_precision, ball, sign
from widepin.plane.tape import Recording, Tape, play


def test_a_ball_has_a_sign_counts_as_zero_is_undefined_or_undecided():
    assert sign(ball(2)) == 1 and sign(ball(-2)) == -1 and sign(ball(0)) == 0
    assert sign(ball(math.nan)) is None and sign(ball(1), ball(math.nan)) is None
    assert sign(arb(0, 1e-120)) == 0
    with pytest.raises(Undecided):
        sign(arb(0, 1e-20))


def test_precision_is_raised_until_a_sign_is_certain():
    tried: list[int] = []

    def compute():
        tried.append(len(tried))
        tiny = arb(2) ** -900
        return sign((1 + tiny) - 1, 2)

    assert at_rising_precision(compute) == 0  # 2^-900 lies far below what counts as zero
    third = []

    def needs_more():
        third.append(1)
        if len(third) < len(PRECISIONS):
            raise Undecided
        return "decided"

    assert at_rising_precision(needs_more) == "decided" and len(third) == len(PRECISIONS)


def test_what_stays_undecided_is_said():
    def never():
        raise Undecided

    with pytest.raises(Undecided):
        at_rising_precision(never)


OPERATIONS = {
    # name: (call on a system, its operands, what it gives; None for undefined)
    "over": (lambda s, a, b: s.over(a, b, b), (1.0, 4.0), 0.25),
    "over zero": (lambda s, a, b: s.over(a, b, a), (1.0, 0.0), None),
    "root": (lambda s, a, b: s.root(a, b), (9.0, 9.0), 3.0),
    "root of zero": (lambda s, a, b: s.root(a, b), (0.0, 9.0), 0.0),
    "root of less": (lambda s, a, b: s.root(a, b), (-1.0, 9.0), None),
    "absolute": (lambda s, a, b: s.absolute(a), (-2.0, 1.0), 2.0),
    "positive": (lambda s, a, b: s.where_positive(a, a, b), (2.0, 5.0), 5.0),
    "not positive": (lambda s, a, b: s.where_positive(a, b, b), (0.0, 5.0), None),
    "at the end": (lambda s, a, b: s.where_not_negative(a, b), (0.0, 5.0), 5.0),
    "beyond the end": (lambda s, a, b: s.where_not_negative(a, b), (-0.1, 5.0), None),
    "choose first": (lambda s, a, b: s.choose(a, a, a, b), (2.0, 5.0), 2.0),
    "choose second": (lambda s, a, b: s.choose(a, b, a, b), (-2.0, 5.0), 5.0),
    "choose in a tie": (lambda s, a, b: s.choose(a, b, a, b), (0.0, 5.0), None),
    "sine": (lambda s, a, b: s.sin(a), (0.5, 0.0), math.sin(0.5)),
    "cosine": (lambda s, a, b: s.cos(a), (0.5, 0.0), math.cos(0.5)),
    "arithmetic": (lambda s, a, b: -(2 * a - b) + 1 - a * b, (2.0, 5.0), -8.0),
}


@pytest.mark.parametrize(("call", "operands", "expected"), OPERATIONS.values(), ids=OPERATIONS)
def test_all_systems_agree_on_every_operation(call, operands, expected):
    with Arrays.quiet():
        in_arrays = float(np.ravel(call(ARRAYS, *(np.array([x]) for x in operands)))[0])
    in_balls = float(call(BALLS, *map(ball, operands)).mid())
    tape = Tape(2)
    made = call(tape, tape.input(0), tape.input(1))
    (on_tape,) = play(Recording(2, tuple(tape.code), (made.number,)), operands)
    wanted = math.nan if expected is None else expected
    assert [in_arrays, in_balls, on_tape] == pytest.approx([wanted] * 3, nan_ok=True)


def test_an_instruction_is_recorded_once():
    tape = Tape(2)
    a, b = tape.input(0), tape.input(1)
    assert (a * b).number == (a * b).number and len(tape.code) == 1
