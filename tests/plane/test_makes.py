"""What each make gives, and where it is undefined."""

import numpy as np
import pytest

from tests import zoo
from widepin.plane.balls import BALLS, at_rising_precision, ball
from widepin.plane.figure import is_defined
from widepin.plane.shapes import Line
from widepin.plane.tape import play
from widepin.plane.variants import Variant, tapes


def drawn(lines, name):
    figure = zoo.figure(lines)
    _, shapes = figure.drawn()
    return shapes[figure.index[name]]


TRIANGLE = "A free_point at=0,0\nB free_point at=8,0\nC free_point at=0,6\n"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("X midpoint B C", (4, 3)),
        ("X line A B", (0, 0, 8, 0)),
        ("l line A B\nX perpendicular l C", (0, 6, 0, 8)),
        ("l line A C\nX parallel l B", (8, 0, 0, 6)),
        ("X perpendicular_bisector A B", (4, 0, 0, 8)),
        ("X circle A C", (0, 0, 36)),
        ("X circle_radius C A B", (0, 6, 64)),
        ("X circle_through A B C", (4, 3, 25)),
        ("l line A B\nX point_on l at=2,5", (2, 0)),
        ("s segment A B\nX point_on s at=20,5", (8, 0)),
        ("r ray A B\nX point_on r at=-3,1", (0, 0)),
        ("c circle A C\nX point_on c at=0,-2", (0, -6)),
    ],
)
def test_a_make_gives_what_the_format_says(line, expected):
    assert drawn(TRIANGLE + line, "X") == pytest.approx(expected, abs=1e-12)


def test_the_second_point_of_a_bisector_divides_the_opposite_side_as_the_legs():
    x, y, dx, dy = drawn(TRIANGLE + "X angle_bisector B A C", "X")
    assert (x + dx, y + dy) == pytest.approx((8 * 6 / 14, 6 * 8 / 14))


@pytest.mark.parametrize(("lines", "exists"), zoo.INTERSECTIONS.values(), ids=zoo.INTERSECTIONS)
def test_a_intersection_exists_where_the_curves_meet(lines, exists):
    figure = zoo.figure(lines)
    position, shapes = figure.drawn()
    assert is_defined(shapes[-1]) == exists
    assert bool(is_defined(figure.evaluate_batch(position[:, None])[-1])) == exists


@pytest.mark.parametrize("lines", zoo.UNDEFINED.values(), ids=zoo.UNDEFINED)
def test_what_cannot_exist_is_undefined_in_balls_and_arrays(lines):
    figure = zoo.figure(lines)
    position, shapes = figure.drawn()
    assert not is_defined(shapes[-1])
    assert not is_defined(figure.evaluate_batch(position[:, None])[-1])


class TestWhichIntersection:
    CIRCLES = "A free_point at=0,0\nB free_point at=6,0\nc circle A B\nd circle B A\n"

    def test_pick_1_of_two_circles_lies_left_of_the_way_between_the_centres(self):
        assert drawn(self.CIRCLES + "X intersection c d pick=1", "X").y > 0
        assert drawn(self.CIRCLES + "X intersection d c pick=1", "X").y < 0

    def test_pick_1_of_a_line_and_a_circle_is_met_first_in_either_order(self):
        for pair in ("l c", "c l"):
            x = drawn(self.CIRCLES + f"l line A B\nX intersection {pair} pick=1", "X")
            assert x == pytest.approx((-6, 0))

    def test_a_choice_outside_the_extent_is_undefined(self):
        assert not is_defined(drawn(self.CIRCLES + "r ray A B\nX intersection r c pick=1", "X"))
        assert drawn(self.CIRCLES + "r ray A B\nX intersection r c pick=2", "X") == pytest.approx((6, 0))

    def test_other_than_goes_through_the_touching_point_and_out_again(self):
        figure = zoo.figure(
            "A free_point at=0,0\nP free_point at=2,0\nB free_point at=5,0\nc circle A P\nd circle B P\n"
            "X intersection c d other_than=P"
        )
        for y in (1.0, 0.0, -1.0):
            position, _ = figure.drawn()
            position[3] = y
            _, p, *_, x = figure.evaluate_batch(position[:, None])
            # The centres lie on the x axis, so the other meeting point is P mirrored in it.
            assert (x.x[0], x.y[0]) == pytest.approx((p.x[0], -p.y[0]))

    def test_other_than_at_the_touching_point_is_the_point_itself(self):
        lines = "A free_point at=0,0\nP free_point at=2,0\nB free_point at=5,0\nc circle A P\nd circle B P\n"
        assert drawn(lines + "X intersection c d other_than=P", "X") == pytest.approx((2, 0))

    def test_nearest_and_farthest_split_the_two(self):
        near = drawn(self.CIRCLES + "Q free_point at=3,1\nX intersection c d nearest_to=Q", "X")
        far = drawn(self.CIRCLES + "Q free_point at=3,1\nX intersection c d farthest_from=Q", "X")
        assert near.y > 0 > far.y


@pytest.mark.parametrize("seed", range(25))
def test_arrays_balls_and_tapes_agree_on_random_constructions(seed):
    figure = zoo.linked(zoo.random_construction(seed))
    position, by_balls = figure.drawn()
    by_arrays = figure.evaluate_batch(position[:, None])
    by_tapes = played(figure, position)
    for number, node in enumerate(figure.nodes):
        in_arrays = [float(np.ravel(x)[0]) for x in by_arrays[number]]
        assert zoo.alike(in_arrays, by_balls[number]), node.step
        assert zoo.alike(by_tapes[number], by_balls[number]), node.step


def played(figure, position):
    """All shapes of a figure by its steps' tapes, linked end to end."""
    shapes: list = []
    for node in figure.nodes:
        kinds = tuple(figure.nodes[source].kind for source in node.sources)
        tape = tapes()[Variant(node.step.make, kinds, node.step.choice, node.step.pick).key]
        inputs = [x for source in node.sources for x in shapes[source]]
        if node.reference is not None and len(inputs) + 2 <= tape.inputs:
            inputs += shapes[node.reference]
        shapes.append(play(tape, [*inputs, *position[node.inputs]]))
    return shapes


def test_a_ball_that_cannot_be_told_from_zero_counts_as_zero():
    figure = zoo.figure(
        "A free_point at=0,0\nB free_point at=7,3\nM midpoint A B\nl perpendicular_bisector A B\ns segment A B\n"
        "N intersection l s\nx line M N"
    )
    position, _ = figure.drawn()
    shapes = at_rising_precision(lambda: figure.evaluate(BALLS, [ball(float(x)) for x in position]))
    last = shapes[-1]
    assert isinstance(last, Line) and last.dx.is_nan()
