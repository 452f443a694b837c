"""Elementary moves and geometrography against the classical constructions."""

import pytest

from tests.judge.test_judging import task, verdict
from widepin.plane.makes import MAKES
from widepin.plane.strokes import Price, strokes
from widepin.school.tasks.library.notation import rel

PRICES = {name: row.price for name, row in MAKES.items() if isinstance(row.price, Price)}

TOOLS = ["points", "line", "ray", "segment", "circle", "circle_radius"]
AB = "A free_point at=1,1\nB free_point at=7,2"
LEGS = "A free_point at=1,1\nB free_point at=7,2\nC free_point at=3,6\nr ray A B\nq ray A C"
OFF = "A free_point at=1,1\nB free_point at=7,2\nP free_point at=3,6\ng line A B"
ON = "A free_point at=1,1\nB free_point at=7,2\ng line A B\nP point_on g at=4,1.5"

CLASSICAL = {
    # name: (given, wanted, condition, steps, simplicity, exactitude, elementary); strokes as counted by Lemoine (1902),
    # constructions from Euclid where he has them
    "bisector of a segment, free opening (I.10)": (
        AB,
        "line m",
        rel("same", "m", "model:m"),
        "m perpendicular_bisector A B",
        "H free_point at=5,5\nc circle A H\nd circle_radius B A H\nD intersection c d pick=1\n"
        "E intersection c d pick=2\nm line D E",
        7,
        4,
        3,
    ),
    "bisector of a segment, itself as the opening (I.1, I.10)": (
        AB,
        "line m",
        rel("same", "m", "model:m"),
        "m perpendicular_bisector A B",
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E",
        8,
        5,
        3,
    ),
    "bisector of an angle, one opening throughout (I.9)": (
        LEGS,
        "ray m",
        rel("same", "m", "model:m"),
        "m angle_bisector B A C",
        "H point_on r at=4,1.5\nc circle A H\nK intersection q c pick=2\nd circle H A\ne circle K A\n"
        "F intersection d e other_than=A\nm ray A F",
        9,
        5,
        4,
    ),
    "perpendicular from a point, one opening throughout (I.12)": (
        OFF,
        "line m",
        rel("perpendicular", "m", "g"),
        "",
        "H point_on g at=1.5,1.1\nc circle P H\nK intersection g c other_than=H\nd circle H P\ne circle K P\n"
        "F intersection d e other_than=P\nm line P F",
        9,
        5,
        4,
    ),
    "perpendicular at a point of the line (III.31)": (
        ON,
        "line m",
        rel("perpendicular", "m", "g"),
        "",
        "O free_point at=6,5\nc circle O P\nQ intersection g c other_than=P\nl line Q O\n"
        "R intersection l c other_than=Q\nm line R P",
        8,
        5,
        3,
    ),
    "parallel through a point, a rhombus (I.31)": (
        OFF,
        "line m",
        rel("parallel", "m", "g"),
        "",
        "H point_on g at=1.5,1.1\nc circle P H\nd circle H P\nK intersection g d pick=2\ne circle K H\n"
        "F intersection e c other_than=H\nm line P F",
        9,
        5,
        4,
    ),
}


@pytest.mark.parametrize(
    ("given", "wanted", "condition", "model", "made", "simplicity", "exactitude", "elementary"),
    CLASSICAL.values(),
    ids=CLASSICAL,
)
def test_classical_constructions_have_their_classical_values(
    given, wanted, condition, model, made, simplicity, exactitude, elementary
):
    conditions = [condition] if wanted.startswith("ray") or model else [condition, rel("on", "P", "m")]
    found = verdict(task(given, [wanted], conditions, model, TOOLS), made)
    assert found.outcome in ("sound", "fragile")
    costs = found.report.costs
    assert (costs.strokes.simplicity, costs.strokes.exactitude, costs.elementary) == (
        simplicity,
        exactitude,
        elementary,
    )


SHORTEST = {
    # tool: (given, wanted, conditions, ruler and compass with as many lines and circles as the tool's price)
    "perpendicular_bisector": (
        AB,
        "line m",
        [rel("same", "m", "model:m")],
        "m perpendicular_bisector A B",
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E",
    ),
    "midpoint": (
        AB,
        "point M",
        [rel("midpoint", "M", "A", "B")],
        "",
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\ns segment A B\nM intersection m s",
    ),
    "angle_bisector": (
        "A free_point at=1,1\nB free_point at=7,2\nC free_point at=3,6",
        "ray m",
        [rel("same", "m", "model:m")],
        "m angle_bisector B A C",
        "c circle A B\nq ray A C\nK intersection q c pick=2\nd circle B A\ne circle K A\nF intersection d e other_than=A\nm ray A F",
    ),
    "perpendicular": (
        OFF,
        "line m",
        [rel("perpendicular", "m", "g"), rel("on", "P", "m")],
        "",
        "c circle A P\nd circle B P\nF intersection c d other_than=P\nm line P F",
    ),
    "parallel": (
        OFF,
        "line m",
        [rel("parallel", "m", "g"), rel("on", "P", "m")],
        "",
        "c circle A P\nK intersection g c pick=1\nL intersection g c pick=2\nd circle_radius L P K\nF intersection c d nearest_to=P\nm line P F",
    ),
    "circle_through": (
        "A free_point at=1,1\nB free_point at=7,2\nC free_point at=3,6",
        "circle k",
        [rel("same", "k", "model:k")],
        "k circle_through A B C",
        "H free_point at=9,9\na circle A H\nb circle_radius B A H\nc circle_radius C A H\nD intersection a b pick=1\nE intersection a b pick=2\nl line D E\n"
        "F intersection b c pick=1\nG intersection b c pick=2\nm line F G\nO intersection l m\nk circle O A",
    ),
}


SHORTEST |= {
    "reflection": (
        "A free_point at=1,1\nB free_point at=7,2\nP free_point at=3,6\ng line A B",
        "point Q",
        [rel("same", "Q", "model:Q")],
        "Q reflection P g",
        "c circle A P\nd circle B P\nQ intersection c d other_than=P",
    ),
    "translation": (
        "A free_point at=1,1\nB free_point at=7,2\nP free_point at=3,6",
        "point Q",
        [rel("same", "Q", "model:Q")],
        "Q translation P A B",
        "c circle_radius P A B\nd circle_radius B A P\nQ intersection c d farthest_from=A",
    ),
    "rotation": (  # the angle is that of an equilateral triangle, which turns left wherever it is dragged
        "V free_point at=1,1\nA free_point at=4,2\nc circle V A\nd circle A V\nB intersection c d pick=1\n"
        "P free_point at=9,6\nO free_point at=7,2",
        "point Q",
        [rel("same", "Q", "model:Q")],
        "Q rotation P O A V B",
        "r ray V A\ns ray V B\ne circle_radius V O P\nK intersection r e pick=2\nL intersection s e pick=2\n"
        "f circle O P\nh circle_radius P K L\nQ intersection f h pick=1",
    ),
}


@pytest.mark.parametrize("tool", PRICES)
def test_a_tool_costs_what_its_construction_with_ruler_and_compass_costs(tool):
    given, wanted, conditions, model, made = SHORTEST[tool]
    found = verdict(task(given, [wanted], conditions, model, TOOLS), made)
    assert found.outcome in ("sound", "fragile")
    assert found.report.costs.elementary == PRICES[tool].elementary


def test_a_tool_is_priced_in_the_model_too():
    found = verdict(
        task(AB, ["line m"], [rel("same", "m", "model:m")], "m perpendicular_bisector A B", TOOLS),
        "m line A B",
        {"m": "m"},
    )
    assert found.outcome == "wrong"
    assert (found.report.model_costs.moves, found.report.model_costs.elementary) == (1, 3)


def test_an_opening_is_kept_only_until_the_next_one():
    made = "c circle A B\nd circle_radius B A B\nH free_point at=4,4\ne circle A H\nf circle B A\nm line A B"
    found = verdict(task(AB, ["line m"], [rel("on", "A", "m")], tools=TOOLS), made)
    # c: 2 C1 + C3; d: set still, C1 + C3; e: free, C1 + C3; f: set anew, 2 C1 + C3; m: 2 R1 + R2
    assert found.report.costs.strokes == strokes("C1 C1 C3", "C1 C3", "C1 C3", "C1 C1 C3", "R1 R1 R2")
