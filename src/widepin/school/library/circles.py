"""Tasks on circles and tangents."""

from .notation import COURSE, ROUNDEL, RULER_AND_COMPASS, LibraryTask, rel

CIRCLES = (
    LibraryTask(
        "lost-centre",
        "Circles and tangents",
        "Hub of a wheel window",
        "The hub of the wheel k is lost. Mark it: O, as far from A as from B and from C.",
        "A free_point at=2,3\nB free_point at=9,4\nC free_point at=5,8\nk circle_through A B C",
        ["point O"],
        [rel("equal_length", "O-A", "O-B", "O-C")],
        "u perpendicular_bisector A B\nv perpendicular_bisector B C\nO intersection u v",
        2,
        tools=["points", "line", "segment", "circle", {"tool": "perpendicular_bisector", "most": 2}],
        before=("perpendicular-bisector",),
    ),
    LibraryTask(
        "centre-on-a-line",
        "Circles and tangents",
        "A wheel on its axle",
        "Set out the circle that passes through A and B and has its centre on g.",
        "C free_point at=1,2\nD free_point at=10,3\ng line C D\nA free_point at=3.5,6.5\nB free_point at=7,5.5",
        ["circle k"],
        [rel("same", "k", "model:k")],
        "c circle A B\nd circle B A\nE intersection c d pick=1\nF intersection c d pick=2\nm line E F\n"
        "O intersection m g\n"
        "k circle O A",
        4,
        before=("perpendicular-bisector",),
    ),
    LibraryTask(
        "tangent-at-a-point",
        "Circles and tangents",
        "A bar along a roundel",
        "Set out the tangent to the roundel k at its mark P.",
        ROUNDEL + "P point_on k at=4,7.9",
        ["straight t"],
        [rel("tangent", "k", "t"), rel("on", "P", "t")],
        "l line O P\nc circle P O\nD intersection l c other_than=O\nd circle O D\ne circle D O\n"
        "E intersection d e pick=1\n"
        "F intersection d e pick=2\nt line E F",
        5,
        before=("perpendicular-at-a-point",),
    ),
    LibraryTask(
        "tangent-from-a-point",
        "Circles and tangents",
        "A stay bar to a roundel",
        "A straight bar runs from the bolt P so that it just touches the roundel k. Set it out.",
        "O free_point at=3.5,4.5\nA free_point at=5.5,4\nk circle O A\nP free_point at=10,6",
        ["straight t"],
        [rel("tangent", "k", "t"), rel("on", "P", "t")],
        "c circle O P\nd circle P O\nD intersection c d pick=1\nE intersection c d pick=2\nl line D E\ng line O P\n"
        "M intersection l g\nh circle M O\nT intersection h k pick=1\nt line P T",
        6,
        before=("midpoint", "isosceles-right"),
    ),
    LibraryTask(
        "touch-a-line-at-a-point",
        "Circles and tangents",
        "A wheel on a course",
        "Set out the circle that touches the course g at P and passes through Q.",
        COURSE + "P point_on g at=4,2.2857\nQ free_point at=6.5,6.5",
        ["circle k"],
        [rel("tangent", "k", "g"), rel("on", "P", "k"), rel("on", "Q", "k")],
        "p perpendicular g P\nm perpendicular_bisector P Q\nO intersection p m\nk circle O P",
        3,
        tools=[
            *RULER_AND_COMPASS,
            {"tool": "perpendicular", "most": 1},
            {"tool": "perpendicular_bisector", "most": 1},
        ],
        before=("perpendicular-at-a-point", "perpendicular-bisector"),
    ),
)
