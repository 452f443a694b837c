"""Undefined is passed on by every make in every number system; coincident sources are decided by balls."""

import math
import random
from itertools import combinations

import numpy as np
import pytest
from flint import arb

from widepin.plane.arrays import ARRAYS, Arrays
from widepin.plane.balls import BALLS, at_rising_precision, ball
from widepin.plane.compiling import compiled
from widepin.plane.makes import MAKES
from widepin.plane.shapes import SHAPE_OF, Circle, Kind, Line, Point
from widepin.plane.tape import play
from widepin.plane.variants import made, record, variants

VARIANTS = {f"{variant.key} {' '.join(variant.kinds)}": variant for variant in variants()}


def kinds_of(variant):
    return [*variant.kinds, Kind.POINT] if variant.with_reference else list(variant.kinds)


def sources_of(variant, gone):
    """Shapes in general position as lists of floats, the one with this number undefined; and inputs of its own."""
    rng = random.Random(5)
    shapes = [[rng.uniform(1, 5) for _ in SHAPE_OF[kind]._fields] for kind in kinds_of(variant)]
    if gone is not None:
        shapes[gone] = [math.nan] * len(shapes[gone])
    return shapes, [0.5] * MAKES[variant.make].inputs


def gone_in_every_system(variant, shapes, own):
    """For each number system, whether each coordinate of the result is undefined."""
    parents = [SHAPE_OF[kind](*values) for kind, values in zip(kinds_of(variant), shapes, strict=True)]
    balls = [type(shape)(*map(ball, shape)) for shape in parents]
    numbers = tuple(range(len(parents)))
    in_balls = [ball(value) for value in own]
    with Arrays.quiet():
        yield "arrays", [math.isnan(x) for x in made(ARRAYS, variant, parents, own)]
        yield "compiled arrays", [math.isnan(x) for x in compiled(variant).in_arrays(parents, numbers, own)]
    exact = at_rising_precision(lambda: made(BALLS, variant, balls, in_balls))
    yield "balls", [not x.is_finite() for x in exact]
    exact = at_rising_precision(lambda: compiled(variant).in_balls(balls, numbers, in_balls))
    yield "compiled balls", [not x.is_finite() for x in exact]
    yield "tape", [math.isnan(x) for x in play(record(variant), [x for shape in shapes for x in shape] + own)]


@pytest.mark.parametrize("name", VARIANTS)
def test_what_is_made_from_something_undefined_is_undefined_as_a_whole(name):
    variant = VARIANTS[name]
    for gone in range(len(kinds_of(variant))):
        for system, coordinates in gone_in_every_system(variant, *sources_of(variant, gone)):
            assert all(coordinates), f"source {gone} is undefined, the result in {system} is not"


@pytest.mark.parametrize("name", VARIANTS)
def test_a_shape_is_undefined_as_a_whole_or_not_at_all(name):
    """Random sources with few different numbers, so that what a make asks for often fails."""
    variant, rng = VARIANTS[name], random.Random(9)
    for _ in range(60):
        shapes = [[float(rng.randint(0, 2)) for _ in SHAPE_OF[kind]._fields] for kind in kinds_of(variant)]
        for system, coordinates in gone_in_every_system(variant, shapes, [0.5] * MAKES[variant.make].inputs):
            assert len(set(coordinates)) == 1, f"{system}: {shapes}"


ABOUT_ZERO = arb(0, "1e-130")
"""A ball about zero, as wide as rounding leaves what is exactly zero."""

PLACES = {"anywhere": (2.4375, -3.125), "at the origin": (0, 0)}


def coincident(kind, place, number):
    """A shape at a place, that of this number among those that coincide: equal, but not known to be.

    To be called at the precision at which balls compute.
    """
    x, y = (value + ABOUT_ZERO for value in place)
    if kind is Kind.POINT:
        return Point(x, y)
    if kind is Kind.CIRCLE:
        return Circle(x, y, arb(5) + ABOUT_ZERO)
    # A level line, spanned from another of its points each time.
    return Line(x + number, y, arb(1) + ABOUT_ZERO, ABOUT_ZERO)


@pytest.mark.parametrize("place", PLACES.values(), ids=PLACES)
@pytest.mark.parametrize("name", VARIANTS)
def test_balls_decide_what_is_made_from_coincident_sources(name, place):
    variant = VARIANTS[name]
    kinds, own = kinds_of(variant), [arb(0.375)] * MAKES[variant.make].inputs

    def parents():
        return [coincident(kind, place, number) for number, kind in enumerate(kinds)]

    # Raises Undecided where a sign cannot be told at any precision.
    at_rising_precision(lambda: made(BALLS, variant, parents(), own))
    at_rising_precision(lambda: compiled(variant).in_balls(parents(), tuple(range(len(kinds))), own))


@pytest.mark.parametrize(
    ("name", "pair"),
    [
        (name, pair)
        for name, variant in VARIANTS.items()
        if len(variant.kinds) > 2 and variant.make != "intersection"
        for pair in combinations(range(len(variant.kinds)), 2)
    ],
)
def test_balls_decide_what_is_made_from_several_points_of_which_two_coincide(name, pair):
    variant, place = VARIANTS[name], PLACES["anywhere"]
    count = len(variant.kinds)

    def parents():
        apart = [Point(arb(4) + number, arb(7) - number * number) for number in range(count)]
        return [coincident(Kind.POINT, place, n) if n in pair else apart[n] for n in range(count)]

    found = at_rising_precision(lambda: made(BALLS, variant, parents(), []))
    assert all(value.is_finite() for value in found) == (pair not in MAKES[variant.make].apart)


def test_arrays_and_balls_agree_that_two_points_are_one_at_the_origin():
    same = Point(np.array([1e-14]), np.array([0.0])), Point(np.array([0.0]), np.array([0.0]))
    with Arrays.quiet():
        assert np.isnan(MAKES["circle"].compute(ARRAYS, *same).rr).all()
