"""Compiled variants compute what their makes say, in arrays and in balls, degenerate cases included."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests import zoo
from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.balls import BALLS, Undecided, at_rising_precision, ball
from widepin.plane.compiling import compiled
from widepin.plane.figure import as_floats
from widepin.plane.makes import MAKES
from widepin.plane.shapes import SHAPE_OF, Kind
from widepin.plane.tape import Recording, Tape, play
from widepin.plane.variants import made, variants

VARIANTS = {f"{variant.key} {' '.join(variant.kinds)}": variant for variant in variants()}
# Few different numbers, so that equal points, parallels and tangents turn up often.
NUMBERS = st.lists(st.sampled_from([0.0, 1.0, 2.0, -1.0, 0.5, 3.7]), min_size=14, max_size=14)


def parents_of(variant, numbers):
    """Shapes of the kinds that a variant is made from, and its own inputs."""
    kinds = [*variant.kinds, Kind.POINT] if variant.with_reference else variant.kinds
    numbers = iter(numbers)
    shapes = [SHAPE_OF[kind](*(next(numbers) for _ in SHAPE_OF[kind]._fields)) for kind in kinds]
    return shapes, [next(numbers) for _ in range(MAKES[variant.make].inputs)]


@pytest.mark.parametrize("name", VARIANTS)
@given(numbers=NUMBERS)
def test_a_variant_is_computed_as_its_make_says(name, numbers):
    variant = VARIANTS[name]
    parents, own = parents_of(variant, numbers)
    with Arrays.quiet():
        columns = [type(shape)(*(np.array([value]) for value in shape)) for shape in parents]
        inputs = [np.array([value]) for value in own]
        plain = made(ARRAYS, variant, columns, inputs)
        by_arrays = compiled(variant).in_arrays(columns, tuple(range(len(columns))), inputs)
    assert type(by_arrays) is type(plain)
    assert zoo.alike(*([float(np.ravel(value)[0]) for value in shape] for shape in (by_arrays, plain)))

    balls = [type(shape)(*map(ball, shape)) for shape in parents]
    try:
        plain = at_rising_precision(lambda: made(BALLS, variant, balls, [ball(value) for value in own]))
    except Undecided:
        return
    by_balls = at_rising_precision(
        lambda: compiled(variant).in_balls(balls, tuple(range(len(balls))), [ball(value) for value in own])
    )
    assert zoo.alike(as_floats(by_balls), as_floats(plain))


def test_instructions_that_the_result_does_not_need_are_left_out():
    tape = Tape(2)
    a, b = tape.input(0), tape.input(1)
    total = a + b
    tape.record("mul", a, 7.0)
    recording = tape.recording([total * total])
    assert [op for op, *_ in recording.code] == ["add", "mul"]
    assert play(recording, (1.0, 2.0)) == (9.0,)
    assert isinstance(recording, Recording) and not math.isnan(recording.out[0])
