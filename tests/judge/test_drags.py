"""The positions that a verdict is based on."""

import math

import numpy as np
import pytest

from tests import zoo
from tests.judge.test_judging import AB, TASKS_BY_NAME, task
from widepin.judge.positions.drags import LARGE, SMALL, TRIANGLES, extent, shaped_triangle
from widepin.judge.trials.examination import Examination
from widepin.plane.shapes import Point
from widepin.school.tasks.library.notation import rel

GABLE = TASKS_BY_NAME["Roundel in a gable"]
OWN = zoo.steps("D free_point at=5,3\nE point_on c at=6,1\nk circle D E\nF point_on k at=9,9")


@pytest.fixture(scope="module")
def examined():
    return Examination(GABLE, OWN)


def test_the_same_figure_gets_the_same_batch(examined):
    again = Examination(GABLE, OWN)
    assert np.array_equal(examined.batch.positions, again.batch.positions)


@pytest.mark.parametrize(
    ("group", "given_move", "own_move"),
    [
        ("small all", True, True),
        ("small given", True, False),
        ("small own", False, True),
        ("large given", True, False),
        ("large own", False, True),
    ],
)
def test_a_group_drags_what_it_says(examined, group, given_move, own_move):
    positions = examined.batch.positions[:, examined.batch.in_group(group)]
    assert positions.shape[1] > 30
    for handle in examined.handles:
        moved = not np.allclose(positions[handle.inputs].T, examined.drawn[handle.inputs])
        assert moved == (given_move if handle.given else own_move)


@pytest.mark.parametrize(("group", "reach"), [("small all", SMALL), ("large all", LARGE)])
def test_free_given_points_stay_within_reach_and_own_ones_in_small_movements(examined, group, reach):
    positions = examined.batch.positions[:, examined.batch.in_group(group)]
    for handle in examined.handles:
        if examined.figure.nodes[handle.number].step.make == "free_point" and (handle.given or reach == SMALL):
            way = np.hypot(*(positions[handle.inputs] - examined.drawn[handle.inputs][:, None]))
            assert way.max() <= reach * examined.size * (1 + 1e-9)
            assert way.max() > 0.8 * reach * examined.size


@pytest.mark.parametrize("at", ["5,3", "300,-200"])
def test_own_free_points_go_over_the_figure_and_as_far_around_it_wherever_they_were_put(at):
    examined = Examination(GABLE, zoo.steps(f"D free_point at={at}"))
    (own,) = (handle for handle in examined.handles if not handle.given)
    for group in ("large all", "large own"):
        places = examined.batch.positions[own.inputs][:, examined.batch.in_group(group)]
        far = np.hypot(places[0] - examined.home.x, places[1] - examined.home.y)
        corners = [examined.shapes[n] for n in examined.given_points]
        reach = max(math.hypot(p.x - examined.home.x, p.y - examined.home.y) for p in corners) + LARGE * examined.size
        assert far.max() <= reach * (1 + 1e-9) and far.max() > 0.9 * reach and far.min() < 0.2 * reach


def test_points_slide_over_the_whole_of_their_curve():
    made = "s segment A B\nl line A B\nc circle A B\nP point_on s at=1,1\nQ point_on l at=99,99\nR point_on c at=9,9"
    examined = Examination(task(AB, ["point X"], [rel("distinct", "X", "A")]), zoo.steps(made))
    moved = examined.batch.positions[:, examined.batch.in_group("large all")]
    p, q, r = (moved[examined.node(name).inputs][0] for name in "PQR")
    assert p.min() < 0.05 and p.max() > 0.95
    assert q.min() < 0 and q.max() > 1 and abs(np.median(q) - 0.5) < 0.3, "not about where it was put"
    assert np.ptp(r) > 6


def test_two_points_never_move_together(examined):
    positions = examined.batch.positions[:, examined.batch.in_group("large all")] - examined.drawn[:, None]
    free = [h.inputs for h in examined.handles if examined.figure.nodes[h.number].step.make == "free_point"]
    for one in free:
        for other in free:
            assert one is other or abs(np.corrcoef(positions[one][0], positions[other][0])[0, 1]) < 0.3


def test_sliding_points_keep_to_their_segment_and_come_near_its_ends(examined):
    slider = next(handle for handle in examined.handles if handle.number == examined.figure.index["E"])
    ts = examined.batch.positions[slider.inputs][0]
    assert ts.min() >= 0 and ts.max() <= 1
    assert ts.min() < 0.05 and ts.max() > 0.95
    assert not np.isin(ts, (0.0, 1.0)).any(), "at an end itself a helper may coincide with a given point"


@pytest.mark.parametrize("name", TRIANGLES)
def test_a_named_shape_has_its_angles_either_way_round(examined, name):
    positions = examined.batch.positions[:, examined.batch.in_group(f"shape {name}")]
    assert positions.shape[1] == 12
    alpha, beta = TRIANGLES[name]
    turns = set()
    for position in positions.T:
        corners = [position[handle.inputs] for handle in examined.handles if handle.given]
        angles = sorted(angle_at(corners, n) for n in range(3))
        assert angles == pytest.approx(sorted((alpha, beta, 180 - alpha - beta)), abs=1e-6)
        (ax, ay), (bx, by), (cx, cy) = corners
        turns.add(math.copysign(1, (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)))
    assert turns == {1.0, -1.0}


def angle_at(corners, n):
    vertex, p, q = corners[n], corners[n - 1], corners[n - 2]
    u, v = p - vertex, q - vertex
    return math.degrees(math.acos(u @ v / np.linalg.norm(u) / np.linalg.norm(v)))


def test_mirror_images_keep_all_distances(examined):
    positions = examined.batch.positions[:, examined.batch.in_group("mirror")]
    given = [handle.inputs for handle in examined.handles if handle.given]
    for position in positions.T:
        for a, b in ((0, 1), (1, 2), (2, 0)):
            now = np.linalg.norm(position[given[a]] - position[given[b]])
            assert now == pytest.approx(np.linalg.norm(examined.drawn[given[a]] - examined.drawn[given[b]]))


def test_the_size_is_the_root_mean_square_distance_from_the_centroid():
    home, size = extent([Point(0.0, 0.0), Point(6.0, 0.0), Point(0.0, 6.0), Point(6.0, 6.0)])
    assert home == (3, 3) and size == pytest.approx(math.sqrt(18))


def test_a_triangle_of_given_angles_lies_about_its_centroid():
    assert shaped_triangle(90, 45).mean(axis=0) == pytest.approx([0, 0])


def test_points_on_a_segment_or_ray_come_close_to_its_ends():
    made = "s segment A B\nr ray A B\nP point_on s at=3,1.3\nQ point_on r at=3,1.3\nc circle A B\nR point_on c at=9,9"
    examined = Examination(task(AB, ["point X"], [rel("distinct", "X", "A")]), zoo.steps(made))
    p, q = (examined.figure.nodes[examined.figure.index[name]].inputs for name in "PQ")
    near = examined.batch.positions[:, examined.batch.in_group("ends")]
    assert near.shape[1] == 12
    assert near[p].min() == pytest.approx(0.002) and near[p].max() == pytest.approx(0.998)
    assert near[q].min() == pytest.approx(0.002)
