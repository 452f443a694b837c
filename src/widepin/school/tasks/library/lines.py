"""Tasks on angles, perpendiculars and parallels."""

from ....documents.language import marked as _
from .notation import ANGLE, LINE, LibraryTask, rel

LINES = (
    LibraryTask(
        key="bisect-an-angle",
        topic=_("Angles"),
        title=_("Bisector of an angle"),
        text=_("Construct the ray from A that bisects the angle BAC. Only short arcs are needed."),
        level=1,
        elements="I.9",
        terms=_("angle bisector, bisect an angle, halve an angle"),
        mistake=_("Starts from points on the legs that are not equally far from the vertex."),
        given=ANGLE,
        wanted=["ray m"],
        conditions=[rel("same", "m", "model:m")],
        model="""
c circle A B
D intersection c q pick=2
d circle B A
e circle D A
F intersection d e other_than=A
m ray A F
""",
        moves=4,
    ),
    LibraryTask(
        key="copy-an-angle",
        topic=_("Angles"),
        title=_("Copy of an angle"),
        text=_("Construct a point P so that the angle EDP is as large as the angle BAC."),
        level=2,
        elements="I.23",
        terms=_("copy an angle, transfer an angle, congruent angles, equal angles"),
        mistake=_("Draws the second circle with another radius than the first."),
        given="""
A free_point at=1,5
B free_point at=5,5.3
C free_point at=4,8
r ray A B
q ray A C
D free_point at=2,1
E free_point at=8,1.4
t ray D E
""",
        wanted=["point P"],
        conditions=[rel("equal_angle", "B-A-C", "E-D-P")],
        model="""
c circle A B
Q intersection c q pick=2
d circle_radius D A B
R intersection d t pick=2
e circle_radius R B Q
P intersection d e pick=1
""",
        moves=3,
        prerequisites=("carry-a-length",),
    ),
    LibraryTask(
        key="sixty-degrees",
        topic=_("Angles"),
        title=_("Angle of 60 degrees"),
        text=_("Construct a point P so that the angle BAP is 60 degrees."),
        level=1,
        elements="I.1",
        terms=_("60 degrees, sixty degrees, equilateral triangle, angle, degree"),
        mistake=_("Places P by eye on only one of the circles."),
        given="""
A free_point at=2,3
B free_point at=8,3.6
r ray A B
""",
        wanted=["point P"],
        conditions=[rel("equal_angle", "B-A-P", "B-A-model:P")],
        shows=[rel("equal_length", "A-B", "A-P", "B-P"), rel("equal_angle", "B-A-P", "A-B-P", "A-P-B")],
        model="""
c circle A B
d circle B A
P intersection c d pick=1
""",
        moves=2,
    ),
    LibraryTask(
        key="thirty-degrees",
        topic=_("Angles"),
        title=_("Angle of 30 degrees"),
        text=_("Construct a point P so that the angle BAP is 30 degrees."),
        level=2,
        terms=_("30 degrees, thirty degrees, half of sixty degrees, angle, degree"),
        mistake=_("Bisects the wrong angle, the one at B."),
        given="""
A free_point at=2,3
B free_point at=7,3.6
r ray A B
""",
        wanted=["point P"],
        conditions=[rel("equal_angle", "B-A-P", "B-A-model:P")],
        shows=[rel("equal_angle", "B-A-P", "P-A-C")],
        model="""
c circle A B
d circle B A
C intersection c d pick=1
e circle C A
P intersection d e other_than=A
""",
        moves=3,
        limit=4,
        prerequisites=(
            "sixty-degrees",
            "bisect-an-angle",
        ),
    ),
    LibraryTask(
        key="perpendicular-at-a-point",
        topic=_("Perpendiculars"),
        title=_("Perpendicular at a point of a line"),
        text=_("Construct the perpendicular to the line g at its point P."),
        level=1,
        elements="I.11",
        terms=_("perpendicular, right angle, normal, 90 degrees, ninety degrees"),
        mistake=_("Takes two points of g that are not equally far from P."),
        given=LINE + "P point_on g at=4,2.2857",
        wanted=["straight p"],
        conditions=[rel("perpendicular", "p", "g"), rel("on", "P", "p")],
        model="""
c circle P A
D intersection c g other_than=A
d circle A D
e circle D A
E intersection d e pick=1
F intersection d e pick=2
p line E F
""",
        moves=4,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="perpendicular-through-a-point",
        topic=_("Perpendiculars"),
        title=_("Perpendicular through a point off the line"),
        text=_("Construct the perpendicular to the line g through the point P."),
        level=1,
        elements="I.12",
        terms=_("perpendicular, drop a perpendicular, distance of a point from a line, foot, normal"),
        mistake=_("Draws a circle about P that does not reach the line after dragging."),
        given=LINE + "P free_point at=4.5,7",
        wanted=["straight p"],
        conditions=[rel("perpendicular", "p", "g"), rel("on", "P", "p")],
        model="""
c circle A P
d circle B P
Q intersection c d other_than=P
p line P Q
""",
        moves=3,
        limit=4,
    ),
    LibraryTask(
        key="perpendicular-with-one-opening",
        topic=_("Perpendiculars"),
        title=_("Perpendicular with a fixed compass"),
        text=_("The compass is fixed to the radius RS. Construct the perpendicular to the line g at its point P."),
        level=3,
        elements="I.11",
        terms=_("fixed compass, rusty compass, perpendicular, rusted compass"),
        mistake=_("Tries to set the compass to another radius."),
        given=LINE + "P point_on g at=4,2.2857\nR free_point at=7,6\nS free_point at=9,6.3\no segment R S",
        wanted=["straight p"],
        conditions=[rel("perpendicular", "p", "g"), rel("on", "P", "p")],
        model="""
c circle_radius P R S
D intersection c g pick=2
d circle_radius D R S
E intersection c d pick=1
e circle_radius E R S
F intersection c e other_than=D
f circle_radius F R S
T intersection e f other_than=P
p line P T
""",
        moves=5,
        tools=["points", "line", "ray", "segment", {"tool": "circle_radius", "opening": ["R", "S"]}],
        prerequisites=(
            "perpendicular-at-a-point",
            "sixty-degrees",
        ),
    ),
    LibraryTask(
        key="perpendicular-at-an-end",
        topic=_("Perpendiculars"),
        title=_("Perpendicular at the end of a ray"),
        text=_("Construct the perpendicular to the ray at its end A, without extending the ray beyond A."),
        level=2,
        elements="I.11",
        terms=_("perpendicular at an endpoint, end of a segment, right angle, Thales"),
        mistake=_("Extends the ray, for which there is no room."),
        given="""
A free_point at=3,2.5
B free_point at=6.5,2.9
r ray A B
""",
        wanted=["straight p"],
        conditions=[rel("perpendicular", "p", "r"), rel("on", "A", "p")],
        model="""
c circle A B
d circle B A
C intersection c d pick=1
e circle C A
D intersection c e other_than=B
f circle D A
G intersection e f other_than=A
p ray A G
""",
        moves=5,
        tools=["points", "ray", "segment", "circle", "circle_radius"],
        prerequisites=(
            "sixty-degrees",
            "bisect-an-angle",
        ),
    ),
    LibraryTask(
        key="parallel-through-a-point",
        topic=_("Parallels"),
        title=_("Parallel through a point"),
        text=_("Construct the line through P that is parallel to the line g."),
        level=2,
        elements="I.31",
        terms=_("parallel, parallel line, corresponding angles, alternate angles, rhombus"),
        mistake=_("Takes the other intersection of the two circles, which is right only on one side of the line."),
        given=LINE + "P free_point at=3.5,6",
        wanted=["straight n"],
        conditions=[rel("parallel", "n", "g"), rel("on", "P", "n")],
        model="""
c circle_radius P A B
d circle_radius B A P
Q intersection c d farthest_from=A
n line P Q
""",
        moves=3,
        limit=5,
    ),
    LibraryTask(
        key="parallelogram",
        topic=_("Parallels"),
        title=_("Fourth vertex of a parallelogram"),
        text=_("Construct the point D so that ABCD is a parallelogram."),
        level=2,
        elements="I.33",
        terms=_("parallelogram, opposite sides, fourth corner, vector, translation"),
        mistake=_("Takes the intersection beside B, so that the sides cross."),
        given="""
A free_point at=2,2
B free_point at=8,2.6
C free_point at=9.5,6.5
s segment A B
t segment B C
""",
        wanted=["point D"],
        conditions=[rel("parallel", "A-D", "B-C"), rel("parallel", "C-D", "A-B")],
        model="""
c circle_radius C A B
d circle_radius A B C
D intersection c d farthest_from=B
""",
        moves=2,
        prerequisites=("parallel-through-a-point",),
    ),
    LibraryTask(
        key="midline",
        topic=_("Parallels"),
        title=_("Midline of a triangle"),
        text=_(
            "Construct the midpoints P of the side CA and Q of the side CB. One midpoint and one parallel may be used."
        ),
        level=2,
        elements="VI.2",
        terms=_("midline, midsegment, midpoint theorem, intercept theorem, parallel"),
        mistake=_("Places the second midpoint by eye."),
        given="""
A free_point at=1,1
B free_point at=10,1.2
C free_point at=4,7.5
c segment A B
a segment B C
b segment C A
""",
        wanted=["point P", "point Q"],
        conditions=[rel("midpoint", "P", "C", "A"), rel("midpoint", "Q", "C", "B")],
        model="""
P midpoint C A
n parallel c P
Q intersection n a
""",
        moves=2,
        tools=["line", "segment", {"tool": "midpoint", "most": 1}, {"tool": "parallel", "most": 1}],
        prerequisites=(
            "midpoint",
            "parallel-through-a-point",
        ),
    ),
)
