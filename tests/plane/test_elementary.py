"""What ruler and compass do is what the tool does."""

import random

import pytest

from widepin.plane.elementary import ELEMENTARY
from widepin.plane.figure import Figure, is_defined
from widepin.plane.makes import MAKES, MakeName
from widepin.plane.shapes import LINES, Line, cross, dot
from widepin.plane.steps import Step

GIVEN = [Step("A", MakeName.FREE_POINT, (), at=(1, 1)), Step("B", MakeName.FREE_POINT, (), at=(7, 2))]


def sources_of(make, rng):
    """A given figure, and the ids that a make is used on."""
    names, steps = [], []
    for number, role in enumerate(MAKES[make].sources):
        place = (rng.uniform(0, 9), rng.uniform(0, 9))
        if role & LINES:
            ends = [Step(f"{end}{number}", MakeName.FREE_POINT, (), at=(rng.uniform(0, 9), place[1])) for end in "EF"]
            ends[1] = Step(f"F{number}", MakeName.FREE_POINT, (), at=place[::-1])
            steps += [*ends, Step(f"g{number}", MakeName.LINE, (f"E{number}", f"F{number}"))]
            names.append(f"g{number}")
        else:
            steps.append(Step(f"P{number}", MakeName.FREE_POINT, (), at=place))
            names.append(f"P{number}")
    return steps, names


def built(given, names, construction):
    """The steps of a construction on these sources."""
    known = {str(number): name for number, name in enumerate(names)}
    figure = Figure(given)
    steps = []
    for one in construction.steps:
        choice = {}
        if one.choice:
            how, which = one.choice
            choice = {"pick": which} if how == "pick" else {"choice": how, "reference": known.get(which, which)}
        at = None
        if one.parameter is not None:
            line = figure.drawn()[1][figure.index[known[one.sources[0]]]]
            assert isinstance(line, Line)
            at = (line.x + one.parameter * line.dx, line.y + one.parameter * line.dy)
        steps.append(Step(one.name, one.make, tuple(known.get(name, name) for name in one.sources), at=at, **choice))
    return steps


def is_for(given, names, construction):
    """Whether a construction is meant for the way in which the angle of its sources turns."""
    if construction.turn is None:
        return True
    of, side = construction.turn
    figure = Figure(given)
    a, vertex, b = (figure.drawn()[1][figure.index[names[int(one)]]] for one in of)
    return side * cross(a.x - vertex.x, a.y - vertex.y, b.x - vertex.x, b.y - vertex.y) > 0


@pytest.mark.parametrize("make", ELEMENTARY)
def test_it_gives_what_the_tool_gives(make):
    rng = random.Random(5)
    compared = 0
    for _ in range(20):
        given, names = sources_of(make, rng)
        construction = next(one for one in ELEMENTARY[make] if is_for(given, names, one))
        steps = built(given, names, construction)
        figure = Figure([*given, *steps, Step("result", make, tuple(names))])
        shapes = figure.drawn()[1]
        result, drawn = shapes[-1], shapes[-2]
        if not is_defined(drawn):
            continue
        compared += 1
        if isinstance(result, Line) and isinstance(drawn, Line):  # the same line, and the same way of a ray
            assert abs(cross(result.dx, result.dy, drawn.dx, drawn.dy)) < 1e-9
            assert abs(cross(drawn.x - result.x, drawn.y - result.y, result.dx, result.dy)) < 1e-9
            assert make != MakeName.ANGLE_BISECTOR or dot(result.dx, result.dy, drawn.dx, drawn.dy) > 0
        else:
            assert drawn == pytest.approx(result)
    assert compared > 10


def test_a_perpendicular_at_a_point_of_the_line_has_a_construction_of_its_own():
    line = Step("g", MakeName.LINE, ("A", "B"))
    for on, variant in (("A", 2), ("B", 1)):
        steps = [built([*GIVEN, line], ["g", on], one) for one in ELEMENTARY[MakeName.PERPENDICULAR]]
        drawn = [Figure([*GIVEN, line, *one]).drawn()[1][-1] for one in steps]
        assert not is_defined(drawn[0]) and is_defined(drawn[variant])
        way = drawn[variant]
        assert isinstance(way, Line) and abs(6 * way.dx + way.dy) < 1e-9
