"""The fewest moves: what is known of classical tasks, and an independent count of everything that few moves make."""

import itertools
import math

import pytest

from tests.amount import chosen
from widepin.documents.formats.task import read_task
from widepin.economy import kernel
from widepin.economy.fewest import fewest
from widepin.economy.goal import goal_of
from widepin.economy.search import Search
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.tasks.library import LIBRARY


def task_of(key, tools=None):
    document = LIBRARY[key].document()
    return read_task(document | ({"tools": tools} if tools else {}))


COLLAPSING = ["points", "line", "ray", "segment", "circle"]


@pytest.mark.parametrize(
    ("key", "tools", "moves"),
    [
        ("perpendicular-bisector", None, 3),
        ("equilateral-triangle", None, 2),
        ("mirror-a-point", None, 2),
        ("perpendicular-through-a-point", None, 3),
        ("parallel-through-a-point", None, 3),
        ("parallel-through-a-point", COLLAPSING, 4),
        ("midpoint", ["midpoint"], 1),
        ("perpendicular-bisector", ["perpendicular_bisector", "circle", "line"], 1),
        ("bisect-an-angle", COLLAPSING, 4),
        ("perpendicular-at-an-end", COLLAPSING, 4),
        ("hexagon-on-a-side", None, 5),
        ("fermat-point", None, 5),
    ],
)
def test_classical_constructions_take_as_many_moves_as_is_known(key, tools, moves):
    task = task_of(key, tools)
    found = fewest(task, most=moves, seconds=300)
    assert (found.moves, found.excluded, found.stopped) == (moves, moves - 1, False)
    assert judge(task, Work(found.steps), report=False).outcome is Outcome.SOUND
    assert judge(task, Work(found.steps), report=False).counts.moves == moves


def test_what_the_tools_cannot_do_is_neither_found_nor_excluded_beyond_what_was_looked_at():
    found = fewest(task_of("perpendicular-bisector", ["line"]), most=3)
    assert (found.moves, found.excluded, found.arbitrary, found.stopped) == (None, 3, 0, False)


def test_a_point_is_turned_by_an_angle_that_is_there():
    document = LIBRARY["equilateral-triangle"].document() | {
        "given": [
            {"id": "A", "make": "free_point", "at": [2, 2]},
            {"id": "B", "make": "free_point", "at": [6, 3]},
            {"id": "P", "make": "free_point", "at": [9, 2]},
            {"id": "V", "make": "free_point", "at": [7.5, 6]},
            {"id": "Q", "make": "free_point", "at": [10, 7]},
        ],
        "tools": ["rotation", "line", "circle"],
        "wanted": [{"name": "C", "kind": "point"}],
        "conditions": [{"rel": "same", "of": ["C", "model:C"]}],
        "model": [{"id": "C", "make": "rotation", "from": ["B", "A", "P", "V", "Q"]}],
        "budget": None,
    }
    found = fewest(read_task({name: value for name, value in document.items() if value}), most=2)
    assert (found.moves, found.excluded) == (1, 0)
    assert [step.make for step in found.steps] == ["rotation"]


def test_a_limit_of_a_tool_is_kept():
    limited = [{"tool": "circle", "most": 1}, "circle_radius", "line"]
    found = fewest(task_of("perpendicular-bisector", limited), most=3, seconds=300)
    assert found.moves == 3 and sum(step.make == "circle" for step in found.steps) <= 1


def test_it_stops_when_its_time_is_over_and_says_how_far_it_came():
    found = fewest(task_of("nine-point-circle"), most=9, seconds=0.5)
    assert found.stopped and found.moves is None and found.excluded < 9


def test_a_stopped_search_goes_on_where_it_was():
    task = task_of("circumcircle")
    found = fewest(task, most=5, seconds=0.05)
    assert found.stopped
    tries = 1
    while found.stopped:
        before, found = found, fewest(task, most=5, seconds=0.5, since=found)
        assert found.states >= before.states and found.places >= before.places
        tries += 1
    assert tries > 1 and (found.moves, found.excluded, found.arbitrary) == (None, 5, 1)


@pytest.mark.parametrize(
    "key", chosen(["bisect-an-angle", "perpendicular-at-an-end", "tangent-at-a-point", "foot-of-an-altitude"], 3)
)
def test_compiled_or_not_the_same_is_found_and_excluded(key):
    task = task_of(key)
    moves = LIBRARY[key].moves if key == "bisect-an-angle" else 3
    slowly = Search(task, 300.0).run(goal_of(task), moves)
    found = fewest(task, most=moves, seconds=300)
    assert (found.moves, found.excluded, found.arbitrary) == (slowly.moves, slowly.excluded, slowly.arbitrary)


def test_a_page_is_not_kept_waiting_for_a_search_that_is_not_compiled_yet(monkeypatch):
    monkeypatch.setattr("widepin.economy.fewest.is_compiled", lambda: False)
    monkeypatch.setattr(kernel, "compile_all", lambda: pytest.fail("compiled while somebody waits"))
    found = fewest(task_of("mirror-a-point"), most=2, seconds=300, wait=False)
    assert (found.moves, found.excluded) == (2, 1)


def test_a_figure_with_more_curves_than_the_compiled_search_has_room_for_is_searched_too():
    document = LIBRARY["mirror-a-point"].document()
    points = [one["id"] for one in document["given"] if one["make"] == "free_point"]
    many_circles = [{"id": f"z{n}", "make": "free_point", "at": [1 + n / 7, 20 + n % 5]} for n in range(55)]
    many_circles += [{"id": f"k{n}", "make": "circle", "from": [f"z{n}", points[0]]} for n in range(55)]
    found = fewest(read_task(document | {"given": document["given"] + many_circles}), most=0, seconds=60)
    assert (found.moves, found.excluded) == (None, 0)


def test_without_a_sample_solution_nothing_is_claimed():
    document = LIBRARY["midpoint"].document()
    del document["model"]
    document["conditions"] = [{"rel": "midpoint", "of": [document["wanted"][0]["name"], "A", "B"]}]
    found = fewest(read_task(document), most=3)
    assert (found.moves, found.excluded, found.states) == (None, 0, 0)


# -- an independent count -----------------------------------------------------------------------------------------


def meet(a, b):
    """Where two curves meet: lines as (x, y, dx, dy), circles as (x, y, r)."""
    if len(a) == 4 and len(b) == 4:
        spread = a[2] * b[3] - a[3] * b[2]
        if abs(spread) < 1e-9:
            return []
        t = ((b[0] - a[0]) * b[3] - (b[1] - a[1]) * b[2]) / spread
        return [(a[0] + t * a[2], a[1] + t * a[3])]
    if len(a) == 3 and len(b) == 3:
        far = math.dist(a[:2], b[:2])
        if far < 1e-9:
            return []
        along = (a[2] ** 2 - b[2] ** 2 + far**2) / (2 * far)
        square = a[2] ** 2 - along**2
        if square < 0:
            return []
        ux, uy, up = (b[0] - a[0]) / far, (b[1] - a[1]) / far, math.sqrt(square)
        return [(a[0] + along * ux + s * up * -uy, a[1] + along * uy + s * up * ux) for s in (1, -1)]
    line, circle = (a, b) if len(a) == 4 else (b, a)
    way = math.hypot(line[2], line[3])
    ux, uy = line[2] / way, line[3] / way
    foot = (circle[0] - line[0]) * ux + (circle[1] - line[1]) * uy
    square = circle[2] ** 2 - ((circle[0] - line[0]) * uy - (circle[1] - line[1]) * ux) ** 2
    if square < 0:
        return []
    return [
        (line[0] + (foot + s * math.sqrt(square)) * ux, line[1] + (foot + s * math.sqrt(square)) * uy) for s in (1, -1)
    ]


def same_curve(a, b):
    if len(a) != len(b):
        return False
    if len(a) == 3:
        return math.dist(a, b) < 1e-7
    way = math.hypot(b[2], b[3])
    return all(
        abs((x - b[0]) * b[3] - (y - b[1]) * b[2]) < 1e-7 * way for x, y in ((a[0], a[1]), (a[0] + a[2], a[1] + a[3]))
    )


def add(points, place):
    if all(math.dist(place, one) > 1e-7 for one in points):
        points.append(place)


def reaches(points, curves, moves, is_done):
    """Whether lines through two points and circles about one through another reach something in so many moves."""
    if is_done(points, curves):
        return True
    if moves == 0:
        return False
    for p, q in itertools.permutations(points, 2):
        for made in ((*p, q[0] - p[0], q[1] - p[1]), (*p, math.dist(p, q))):
            if any(same_curve(made, one) for one in curves):
                continue
            grown = list(points)
            for one in curves:
                for place in meet(one, made):
                    add(grown, place)
            if reaches(grown, [*curves, made], moves - 1, is_done):
                return True
    return False


def test_plain_counting_reaches_what_the_search_does_and_nothing_sooner():
    a, b = (0.0, 0.0), (4.0, 1.0)
    middle, wanted = (2.0, 0.5), (2.0, 0.5, -1.0, 4.0)
    by_hand = lambda _points, curves: any(same_curve(one, wanted) for one in curves)  # noqa: E731
    assert not reaches([a, b], [], 2, by_hand) and reaches([a, b], [], 3, by_hand)
    found = fewest(task_of("perpendicular-bisector", ["line", "circle"]), most=3)
    assert (found.moves, found.excluded) == (3, 2)
    apex = (2 - math.sqrt(3) / 2, 0.5 + 2 * math.sqrt(3))
    by_hand = lambda points, _curves: any(math.dist(one, apex) < 1e-7 for one in points)  # noqa: E731
    assert not reaches([a, b], [], 1, by_hand) and reaches([a, b], [], 2, by_hand)
    found = fewest(task_of("equilateral-triangle", ["line", "circle"]), most=2)
    assert (found.moves, found.excluded) == (2, 1) and middle


@pytest.mark.parametrize("tools", [["perpendicular", "line"], ["circle_through"], ["ray"], ["parallel", "midpoint"]])
@pytest.mark.parametrize("key", ["circumcircle", "midpoint", "centroid"])
def test_boards_without_what_a_tool_needs_are_no_fault(key, tools):
    found = fewest(task_of(key, tools), most=1, seconds=60)
    assert found.excluded in (0, 1) and not found.stopped
