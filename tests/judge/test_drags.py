"""The positions that a verdict is based on."""

import math

import numpy as np
import pytest

from tests import zoo
from tests.judge.test_judging import AB, TASKS_BY_NAME, task
from widepin.judge.board import Board
from widepin.judge.drags import LARGE, SMALL, TRIANGLES, extent, shaped_triangle
from widepin.plane.shapes import Point
from widepin.school.shelf.notation import rel

GABLE = TASKS_BY_NAME["Roundel in a gable"]
OWN = zoo.steps("D free_point at=5,3\nE point_on c at=6,1\nk circle D E\nF point_on k at=9,9")


@pytest.fixture(scope="module")
def board():
    return Board(GABLE, OWN)


def test_the_same_figure_gets_the_same_batch(board):
    again = Board(GABLE, OWN)
    assert np.array_equal(board.batch.positions, again.batch.positions)


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
def test_a_group_drags_what_it_says(board, group, given_move, own_move):
    positions = board.batch.positions[:, board.batch.in_group(group)]
    assert positions.shape[1] > 30
    for handle in board.handles:
        moved = not np.allclose(positions[handle.inputs].T, board.drawn[handle.inputs])
        assert moved == (given_move if handle.given else own_move)


@pytest.mark.parametrize(("group", "reach"), [("small all", SMALL), ("large all", LARGE)])
def test_free_points_stay_within_reach(board, group, reach):
    positions = board.batch.positions[:, board.batch.in_group(group)]
    for handle in board.handles:
        if board.figure.nodes[handle.number].step.make == "free_point":
            way = np.hypot(*(positions[handle.inputs] - board.drawn[handle.inputs][:, None]))
            assert way.max() <= reach * board.size * (1 + 1e-9)
            assert way.max() > 0.8 * reach * board.size


def test_sliding_points_keep_to_their_segment_and_come_near_its_ends(board):
    slider = next(handle for handle in board.handles if handle.number == board.figure.index["E"])
    ts = board.batch.positions[slider.inputs][0]
    assert ts.min() >= 0 and ts.max() <= 1
    assert ts.min() < 0.05 and ts.max() > 0.95
    assert not np.isin(ts, (0.0, 1.0)).any(), "at an end itself a helper may coincide with a given point"


@pytest.mark.parametrize("name", TRIANGLES)
def test_a_named_shape_has_its_angles_either_way_round(board, name):
    positions = board.batch.positions[:, board.batch.in_group(f"shape {name}")]
    assert positions.shape[1] == 12
    alpha, beta = TRIANGLES[name]
    turns = set()
    for position in positions.T:
        corners = [position[handle.inputs] for handle in board.handles if handle.given]
        angles = sorted(angle_at(corners, n) for n in range(3))
        assert angles == pytest.approx(sorted((alpha, beta, 180 - alpha - beta)), abs=1e-6)
        (ax, ay), (bx, by), (cx, cy) = corners
        turns.add(math.copysign(1, (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)))
    assert turns == {1.0, -1.0}


def angle_at(corners, n):
    vertex, p, q = corners[n], corners[n - 1], corners[n - 2]
    u, v = p - vertex, q - vertex
    return math.degrees(math.acos(u @ v / np.linalg.norm(u) / np.linalg.norm(v)))


def test_mirror_images_keep_all_distances(board):
    positions = board.batch.positions[:, board.batch.in_group("mirror")]
    given = [handle.inputs for handle in board.handles if handle.given]
    for position in positions.T:
        for a, b in ((0, 1), (1, 2), (2, 0)):
            now = np.linalg.norm(position[given[a]] - position[given[b]])
            assert now == pytest.approx(np.linalg.norm(board.drawn[given[a]] - board.drawn[given[b]]))


def test_the_size_is_the_root_mean_square_distance_from_the_centroid():
    home, size = extent([Point(0.0, 0.0), Point(6.0, 0.0), Point(0.0, 6.0), Point(6.0, 6.0)])
    assert home == (3, 3) and size == pytest.approx(math.sqrt(18))


def test_a_triangle_of_given_angles_lies_about_its_centroid():
    assert shaped_triangle(90, 45).mean(axis=0) == pytest.approx([0, 0])


def test_points_on_a_segment_or_ray_come_close_to_its_ends():
    made = "s segment A B\nr ray A B\nP point_on s at=3,1.3\nQ point_on r at=3,1.3\nc circle A B\nR point_on c at=9,9"
    board = Board(task(AB, ["point X"], [rel("distinct", "X", "A")]), zoo.steps(made))
    p, q = (board.figure.nodes[board.figure.index[name]].inputs for name in "PQ")
    near = board.batch.positions[:, board.batch.in_group("ends")]
    assert near.shape[1] == 12
    assert near[p].min() == pytest.approx(0.002) and near[p].max() == pytest.approx(0.998)
    assert near[q].min() == pytest.approx(0.002)
