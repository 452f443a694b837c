"""Tasks on the centres and heights of triangles."""

from .notation import GABLE, RULER_AND_COMPASS, LibraryTask, rel

OBTUSE = """
A free_point at=4.5,2
B free_point at=9,2.4
C free_point at=2.5,6.5
c segment A B
a segment B C
b segment C A
"""

TRIANGLES = (
    LibraryTask(
        "circumcircle",
        "Triangle centres",
        "Round a gable",
        "Set out the circle through all three corners of the gable.",
        GABLE,
        ["circle k"],
        [rel("on", "A", "k"), rel("on", "B", "k"), rel("on", "C", "k")],
        "d circle A B\ne circle B A\nD intersection d e pick=1\nE intersection d e pick=2\nl line D E\n"
        "f circle B C\ng circle C B\nF intersection f g pick=1\nG intersection f g pick=2\nm line F G\n"
        "O intersection l m\nk circle O A",
        7,
        before=("perpendicular-bisector",),
    ),
    LibraryTask(
        "incircle",
        "Triangle centres",
        "Roundel in a gable",
        "Set out the circle that touches all three edges. Where does it touch AB? Two bisectors and one perpendicular "
        "are allowed.",
        GABLE,
        ["circle k"],
        [rel("tangent", "k", "A-B"), rel("tangent", "k", "B-C"), rel("tangent", "k", "C-A")],
        "u angle_bisector B A C\nv angle_bisector A B C\nI intersection u v\nn perpendicular c I\nF intersection n c\n"
        "k circle I F",
        4,
        tools=[
            "points",
            "line",
            "segment",
            "circle",
            {"tool": "angle_bisector", "most": 2},
            {"tool": "perpendicular", "most": 1},
        ],
        before=("bisect-an-angle", "perpendicular-through-a-point"),
    ),
    LibraryTask(
        "foot-of-an-altitude",
        "Triangle centres",
        "Height of a leaning gable",
        "Mark the foot F of the altitude from C. It need not lie between A and B.",
        OBTUSE,
        ["point F"],
        [rel("on", "F", "A-B"), rel("perpendicular", "C-F", "A-B")],
        "l line A B\nd circle A C\ne circle B C\nD intersection d e other_than=C\np line C D\nF intersection p l",
        4,
        before=("perpendicular-through-a-point",),
    ),
    LibraryTask(
        "orthocentre",
        "Triangle centres",
        "Where the altitudes meet",
        "Mark the point H in which the altitudes meet, whatever the shape of the gable.",
        OBTUSE,
        ["point H"],
        [rel("perpendicular", "A-H", "B-C"), rel("perpendicular", "B-H", "A-C")],
        "p perpendicular a A\nq perpendicular b B\nH intersection p q",
        2,
        tools=["line", "segment", "circle", {"tool": "perpendicular", "most": 2}],
        before=("foot-of-an-altitude",),
    ),
    LibraryTask(
        "centroid",
        "Triangle centres",
        "Balance of a slab",
        "A slab in the shape of the triangle is lifted at one point. Mark it: S, where the medians meet.",
        GABLE,
        ["point S"],
        [rel("same", "S", "model:S")],
        "M midpoint B C\nN midpoint C A\nu segment A M\nv segment B N\nS intersection u v",
        4,
        tools=["line", "segment", "circle", {"tool": "midpoint", "most": 2}],
        before=("midpoint",),
    ),
    LibraryTask(
        "isosceles-right",
        "Triangle centres",
        "Right angle over a sill",
        "Mark C so that the triangle ABC has a right angle at C and two equal edges there.",
        "A free_point at=2,3\nB free_point at=8,3.8\ns segment A B",
        ["point C"],
        [rel("perpendicular", "A-C", "B-C"), rel("equal_length", "A-C", "B-C")],
        "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E\n"
        "M intersection m s\nk circle M A\nC intersection k m pick=1",
        4,
        tools=list(RULER_AND_COMPASS),
        before=("perpendicular-bisector",),
    ),
)
