"""Mirror images of a model's answer."""

from dataclasses import replace

import numpy as np
import pytest

from tests.zoo import steps
from widepin.documents.formats.task import read_task
from widepin.judge.mirrored import answer_of, apart, mirror_images, other_intersections, place_of
from widepin.judge.task import Wanted
from widepin.plane.shapes import Circle, Kind, Line, Point
from widepin.school.tasks.library import LIBRARY

CROWN = read_task(LIBRARY["equilateral-triangle"].document())


def test_the_crown_has_one_image_below():
    (image,) = mirror_images(CROWN)
    assert [step.id for step, own in zip(image, CROWN.model, strict=True) if step != own] == ["C"]


def test_an_answer_that_lies_otherwise_to_the_given_figure_is_no_image():
    """The second intersection of a line and a circle about another point is a different point altogether."""
    given = steps("A free_point at=0,0\nB free_point at=6,1\nC free_point at=1,4\nD free_point at=2,1")
    model = steps("k circle A B\nl line C D\nX intersection k l")
    task = replace(CROWN, given=given, model=model, wanted=(Wanted("X", "point"),), conditions=())
    assert list(mirror_images(task)) == []


def test_only_needed_intersections_that_are_picked_are_turned():
    model = steps(
        "c circle A B\nd circle B A\nP intersection c d\nQ intersection c d other_than=P\nR intersection c d pick=2\n"
        "m line P Q"
    )
    ways = list(other_intersections(model, ["m"]))
    assert [[step.pick for step in way if step.make == "intersection"] for way in ways] == [[2, 1, 2]]


@pytest.mark.parametrize(
    ("one", "other", "measure"),
    [
        (Point(0, 0), Point(3, 4), 5),
        (Circle(0, 0, 4), Point(3, 4), 5),
        (Point(1, 3), Line(0, 1, 5, 0), 2),
        (Line(0, 1, 5, 0), Circle(1, 3, 9), 2),
        (Line(0, 0, 2, 0), Line(5, 5, 0, 3), 90),
        (Line(0, 0, 2, 0), Line(5, 5, -3, 0), 0),
    ],
)
def test_how_far_two_objects_are_apart(one, other, measure):
    assert apart(one, other) == pytest.approx(measure)


def test_a_line_is_the_same_whatever_points_span_it():
    line = Line(0.0, 1.0, 1.0, 2.0)
    assert place_of(line, Kind.LINE) == pytest.approx(place_of(Line(2.0, 5.0, -3.0, -6.0), Kind.LINE))
    assert place_of(line, Kind.RAY) != pytest.approx(place_of(Line(2.0, 5.0, -3.0, -6.0), Kind.RAY))


def test_an_answer_of_which_a_part_is_gone_lies_nowhere():
    """One of two points exists; the segment does not reach the other."""
    given = steps("A free_point at=0,0\nB free_point at=4,0\nC free_point at=9,0")
    model = steps(
        "k circle A B\nl line A C\nX intersection l k pick=2\nm circle B A\ns segment B C\nY intersection s m pick=1"
    )
    task = replace(CROWN, given=given, model=model, wanted=(Wanted("X", "point"), Wanted("Y", "point")), conditions=())
    measures, places = answer_of(task, model, ["X", "Y"], ["A", "B", "C"])
    assert measures.shape == places.shape == (1,) and np.isnan(measures).all() and np.isnan(places).all()
    whole, _ = answer_of(task, model, ["X"], ["A", "B", "C"])
    assert whole.shape == (4,) and np.isfinite(whole).all()
