"""The demo's ten tasks, of rising difficulty, and ways in which students work on them.

Steps are written in the notation of the task library. A solution's key says what becomes of it; the judge decides when the demo
is loaded, and a test compares.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from ...documents.reading import JsonObject
from ..tasks.library.notation import RULER_AND_COMPASS, SEGMENT, TRIANGLE, rel, task_document


@dataclass(frozen=True)
class DemoTask:
    """A task document and the demo students' solutions: (expected outcome, steps as lines)."""

    title: str
    trade: str  # what a textbook calls it
    text: str
    given: str
    wanted: list[str]
    conditions: list[JsonObject]
    solutions: list[tuple[str, str]]
    tools: list[Any] = field(default_factory=lambda: list(RULER_AND_COMPASS))
    model: str = ""
    moves: int | None = None

    def document(self) -> JsonObject:
        """The task document."""
        model = self.model or next(lines for outcome, lines in self.solutions if outcome == "sound")
        return task_document(
            f"{self.title} ({self.trade})",
            self.text,
            self.given,
            self.tools,
            self.wanted,
            self.conditions,
            model,
            self.moves,
        )


TASKS = [
    DemoTask(
        "Centre line of a sill",
        "perpendicular bisector",
        "The sill AB is laid out on the floor. Set out the line that splits it in the middle at a right angle: "
        "the mullion will stand on it.",
        SEGMENT,
        ["straight m"],
        [rel("same", "m", "model:m")],
        model="m perpendicular_bisector A B",
        moves=3,
        solutions=[
            ("sound", "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E"),
            (
                "fragile",
                "C point_on s at=6.4,3.7333\nc circle A C\nd circle_radius B A C\nD intersection c d pick=1\n"
                "E intersection c d pick=2\nm line D E",
            ),
            ("eyeballed", "M free_point at=5,3.5\nN free_point at=4.5,6.5\nm line M N"),
            ("wrong", "c circle A B\nd circle B A\nD intersection c d pick=1\nm line D A"),
            (
                "sound",
                "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\n"
                "x segment A D\ny segment B D",
            ),
            ("refused", "t perpendicular_bisector A B"),
        ],
    ),
    DemoTask(
        "Crown of a pointed arch",
        "equilateral triangle",
        "An arch springs from A and from B, each side struck from the other's foot. Mark the crown C.",
        "A free_point at=2,2\nB free_point at=8,2.6\ns segment A B",
        ["point C"],
        [rel("equal_length", "A-B", "B-C", "C-A")],
        moves=2,
        tools=["line", "segment", "circle", "points"],
        solutions=[
            ("sound", "c circle A B\nd circle B A\nC intersection c d pick=1"),
            ("sound", "c circle A B\nd circle B A\nC intersection c d pick=2\nu segment A C\nv segment B C"),
            ("eyeballed", "c circle A B\nC point_on c at=4.4804,7.4962"),
            ("wrong", "c circle A B\nC point_on c at=5,8"),
        ],
    ),
    DemoTask(
        "Splitting a gable",
        "angle bisector",
        "Two rafters leave A. Set out the ray that halves the angle between them.",
        "A free_point at=2,2\nB free_point at=9,2.5\nC free_point at=5.5,7.5\nr ray A B\nq ray A C",
        ["ray m"],
        [rel("same", "m", "model:m")],
        model="m angle_bisector B A C",
        moves=4,
        solutions=[
            (
                "sound",
                "P point_on r at=5,2.2142\nc circle A P\nD intersection c q pick=2\nd circle P A\ne circle D A\n"
                "F intersection d e other_than=A\nm ray A F",
            ),
            (
                "switching",
                "c circle A B\nD intersection c q pick=2\nd circle B D\ne circle D B\nF intersection d e pick=2\nm ray A F",
            ),
            ("eyeballed", "F free_point at=8.13,5.66\nm ray A F"),
            ("wrong", "t segment B C\nd circle B C\ne circle C B\nF intersection d e pick=1\nm ray A F"),
        ],
    ),
    DemoTask(
        "Plumb from a boss",
        "perpendicular through a point",
        "From the boss P a plumb line hangs to the string course g. Set it out.",
        "A free_point at=1,2\nB free_point at=9,3\ng line A B\nP free_point at=4.5,7",
        ["straight p"],
        [rel("perpendicular", "p", "g"), rel("on", "P", "p")],
        moves=3,
        solutions=[
            ("sound", "c circle A P\nd circle B P\nQ intersection c d other_than=P\np line P Q"),
            ("sound", "c circle A P\nd circle B P\nQ intersection c d other_than=P\np segment P Q"),
            (
                "fragile",
                "c circle P A\nD intersection c g other_than=A\nE free_point at=5.6,1\nd circle A E\n"
                "e circle_radius D A E\nF intersection d e pick=2\np line P F",
            ),
            ("eyeballed", "F point_on g at=5.06,2.51\np line P F"),
            ("wrong", "p line P A"),
        ],
    ),
    DemoTask(
        "A course through a mark",
        "parallel through a point",
        "A new course of stone runs parallel to the base g, at the height of the mark P.",
        "A free_point at=1.5,2\nB free_point at=8.5,2.8\ng line A B\nP free_point at=3.5,6",
        ["straight n"],
        [rel("parallel", "n", "g"), rel("on", "P", "n")],
        moves=3,
        model="n parallel g P",
        solutions=[
            ("sound", "c circle_radius P A B\nd circle_radius B A P\nQ intersection c d farthest_from=A\nn line P Q"),
            ("switching", "c circle_radius P A B\nd circle_radius B A P\nQ intersection c d pick=1\nn line P Q"),
            (
                "sound",
                "l line A P\nc circle P A\nD intersection l c other_than=A\nk line D B\nd circle B D\n"
                "e circle_radius D B D\nE intersection k d other_than=D\nm midpoint D B\nn line P m",
            ),
            ("eyeballed", "Q free_point at=7,6.4\nn line P Q"),
            ("wrong", "n line P B"),
        ],
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}],
    ),
    DemoTask(
        "Hub of a broken wheel",
        "centre of a circle",
        "Of a wheel window only three pieces of the rim are left, at A, B and C. Find the hub O.",
        "A free_point at=2,3\nB free_point at=9,4\nC free_point at=5,8",
        ["point O"],
        [rel("equal_length", "O-A", "O-B", "O-C")],
        moves=2,
        model="u perpendicular_bisector A B\nv perpendicular_bisector B C\nO intersection u v",
        tools=["line", "segment", "circle", "points", {"tool": "perpendicular_bisector", "most": 2}],
        solutions=[
            ("sound", "u perpendicular_bisector A B\nv perpendicular_bisector B C\nO intersection u v"),
            (
                "sound",
                "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nl line D E\n"
                "v perpendicular_bisector B C\nO intersection l v",
            ),
            ("eyeballed", "u perpendicular_bisector A B\nO point_on u at=5.379,4.347"),
            ("wrong", "s segment A B\nt segment B C\nO free_point at=5,5"),
        ],
    ),
    DemoTask(
        "Six-petal rose",
        "regular hexagon in a circle",
        "The rose has six petals of one length. A is the tip of the first. Mark the other five in order.",
        "O free_point at=5,5\nA free_point at=8.5,6\nk circle O A",
        ["point B", "point C", "point D", "point E", "point F"],
        [
            *(rel("on", name, "k") for name in "BCDEF"),
            rel("distinct", *"ABCDEF"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-F", "F-A"),
        ],
        moves=4,
        solutions=[
            (
                "sound",
                "a circle A O\nB intersection a k pick=1\nb circle B O\nC intersection b k other_than=A\nc circle C O\n"
                "D intersection c k other_than=B\nd circle D O\nE intersection d k other_than=C\n"
                "F intersection a k other_than=B",
            ),
            (
                "sound",
                "l line A O\nD intersection l k other_than=A\na circle A O\nd circle D O\nB intersection a k pick=1\n"
                "F intersection a k pick=2\nC intersection d k pick=2\nE intersection d k pick=1",
            ),
            (
                "eyeballed",
                "a circle A O\nB intersection a k pick=1\nF intersection a k pick=2\nl line A O\n"
                "D intersection l k other_than=A\nC point_on k at=2.384,7.531\nE point_on k at=4.116,1.469",
            ),
            ("wrong", "a circle A O\nB intersection a k pick=1\nF intersection a k pick=2"),
        ],
    ),
    DemoTask(
        "Roundel in a gable",
        "incircle of a triangle",
        "A roundel fills the gable ABC: a circle that touches all three sides. Set it out.",
        TRIANGLE,
        ["circle k"],
        [rel("tangent", "k", "a"), rel("tangent", "k", "b"), rel("tangent", "k", "c")],
        moves=4,
        model="u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v\nl line A B\nn perpendicular l I\n"
        "F intersection n l\nk circle I F",
        tools=[
            "points",
            "line",
            "ray",
            "segment",
            {"tool": "circle", "most": 6},
            "circle_radius",
            {"tool": "angle_bisector", "most": 2},
            {"tool": "perpendicular", "most": 1},
        ],
        solutions=[
            (
                "sound",
                "u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v\nn perpendicular c I\n"
                "F intersection n c\nk circle I F",
            ),
            (
                "fragile",
                "u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v\nH point_on c at=7.5,1.1444\n"
                "d circle I H\nM intersection d c pick=1\nN intersection d c pick=2\ne circle M N\nf circle N M\n"
                "P intersection e f pick=1\nQ intersection e f pick=2\nl line P Q\nF intersection l c\nk circle I F",
            ),
            (
                "eyeballed",
                "u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v\nF point_on c at=4.556,1.079\nk circle I F",
            ),
            ("wrong", "M free_point at=5,3\nk circle M A"),
        ],
    ),
    DemoTask(
        "Three lights over a sill",
        "third of a segment",
        "The window gets three lights of one width. Mark P on the sill AB, a third of the way from A to B.",
        "A free_point at=2,2\nB free_point at=9,3\ns segment A B",
        ["point P"],
        [rel("on", "P", "s"), rel("ratio", "A-P", "A-B") | {"is": [1, 3]}],
        moves=6,
        tools=[*RULER_AND_COMPASS, "midpoint", {"tool": "parallel", "most": 1}],
        solutions=[
            (
                "sound",
                "C free_point at=3.5,4.5\nl line A C\nc circle C A\nD intersection l c other_than=A\nd circle D C\n"
                "E intersection l d other_than=C\nk line E B\nn parallel k C\nP intersection n s",
            ),
            (
                "approximate",
                "C midpoint A B\nD midpoint A C\nE midpoint C D\nF midpoint D E\nG midpoint E F\nH midpoint F G\n"
                "P midpoint G H",
            ),
            ("eyeballed", "P point_on s at=4.333,2.333"),
            ("wrong", "C midpoint A B\nP midpoint A C"),
        ],
    ),
    DemoTask(
        "Stay bar to a roundel",
        "tangent from a point",
        "A straight bar runs from the bolt P so that it just touches the roundel k. Set it out.",
        "O free_point at=3.5,4.5\nA free_point at=5.5,4\nk circle O A\nP free_point at=10,6",
        ["straight t"],
        [rel("tangent", "t", "k"), rel("on", "P", "t")],
        moves=5,
        model="M midpoint O P\nh circle M O\nT intersection h k pick=1\nt line P T",
        solutions=[
            (
                "sound",
                "c circle O P\nd circle P O\nD intersection c d pick=1\nE intersection c d pick=2\nl line D E\ng line O P\n"
                "M intersection l g\nh circle M O\nT intersection h k pick=1\nt line P T",
            ),
            ("eyeballed", "T point_on k at=3.68,6.55\nt line P T"),
            ("wrong", "t line P A"),
        ],
    ),
]

PEOPLE = {
    "First year": [
        "Bram Idris",
        "Nell Farrow",
        "Jory Pask",
        "Mina Tolle",
        "Aldo Venn",
        "Rhea Quill",
        "Kit Sorley",
        "Ewa Brandt",
        "Lio Carne",
        "Tess Amory",
        "Ivo Rask",
        "Dara Wynn",
        "Hale Osten",
        "Una Brisk",
        "Pell Marrow",
    ],
    "Second year": [
        "Ilse Marran",
        "Odo Vance",
        "Petra Lind",
        "Tam Orrel",
        "Suna Keel",
        "Corv Addis",
        "Wren Hollis",
        "Maud Ferrick",
        "Jas Tiller",
        "Anka Rood",
        "Fenn Astley",
        "Gil Storrow",
        "Bea Lanyon",
        "Rolf Tarn",
        "Sorcha Dell",
        "Emin Vale",
    ],
}
