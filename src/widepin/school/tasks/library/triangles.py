"""Tasks on the centres of triangles, and on triangles from given parts."""

from ....documents.language import marked as _
from .notation import OBTUSE_TRIANGLE, RULER_AND_COMPASS, TRIANGLE, LibraryTask, rel

TRIANGLES = (
    LibraryTask(
        key="circumcircle",
        topic=_("Triangle centres"),
        title=_("Circumcircle of a triangle"),
        text=_("Construct the circle through the three vertices A, B and C."),
        level=2,
        elements="IV.5",
        terms=_("circumcircle, circumscribed circle, circumcentre, circumcenter, circumradius, perpendicular bisector"),
        mistake=_("Uses the centre of the incircle or of gravity."),
        given=TRIANGLE,
        wanted=["circle k"],
        conditions=[rel("on", "A", "k"), rel("on", "B", "k"), rel("on", "C", "k")],
        model="""
d circle A B
e circle B A
D intersection d e pick=1
E intersection d e pick=2
l line D E
f circle B C
g circle C B
F intersection f g pick=1
G intersection f g pick=2
m line F G
O intersection l m
k circle O A
""",
        moves=7,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="incircle",
        topic=_("Triangle centres"),
        title=_("Incircle of a triangle"),
        text=_(
            "Construct the circle that touches all three sides. Two angle bisectors and one perpendicular may be used."
        ),
        level=2,
        elements="IV.4",
        terms=_("incircle, inscribed circle, incentre, incenter, inradius, angle bisector, tangent"),
        mistake=_("Takes a point where the circle touches by eye instead of the foot of a perpendicular."),
        given=TRIANGLE,
        wanted=["circle k"],
        conditions=[rel("tangent", "k", "A-B"), rel("tangent", "k", "B-C"), rel("tangent", "k", "C-A")],
        model="""
u angle_bisector B A C
v angle_bisector A B C
I intersection u v
n perpendicular c I
F intersection n c
k circle I F
""",
        moves=4,
        tools=[
            "points",
            "line",
            "segment",
            "circle",
            {"tool": "angle_bisector", "most": 2},
            {"tool": "perpendicular", "most": 1},
        ],
        prerequisites=(
            "bisect-an-angle",
            "perpendicular-through-a-point",
        ),
    ),
    LibraryTask(
        key="foot-of-an-altitude",
        topic=_("Triangle centres"),
        title=_("Foot of an altitude"),
        text=_(
            "Construct the foot F of the altitude from C: the point where the perpendicular from C meets the "
            "line AB. It need not lie between A and B."
        ),
        level=1,
        elements="I.12",
        terms=_("altitude, height, foot, perpendicular, obtuse triangle, distance"),
        mistake=_("Uses the side instead of its line, so that the foot is lost when the triangle is obtuse."),
        given=OBTUSE_TRIANGLE,
        wanted=["point F"],
        conditions=[rel("on", "F", "A-B"), rel("perpendicular", "C-F", "A-B")],
        model="""
l line A B
d circle A C
e circle B C
D intersection d e other_than=C
p line C D
F intersection p l
""",
        moves=4,
        limit=5,
        prerequisites=("perpendicular-through-a-point",),
    ),
    LibraryTask(
        key="orthocentre",
        topic=_("Triangle centres"),
        title=_("Orthocentre of a triangle"),
        text=_(
            "Construct the point H where the altitudes meet: the lines through a vertex that are perpendicular "
            "to the opposite side. Two perpendiculars may be used."
        ),
        level=1,
        terms=_("orthocentre, orthocenter, altitudes, heights, perpendicular"),
        mistake=_("Takes perpendicular bisectors instead of altitudes."),
        given=OBTUSE_TRIANGLE,
        wanted=["point H"],
        conditions=[rel("perpendicular", "A-H", "B-C"), rel("perpendicular", "B-H", "A-C")],
        model="""
p perpendicular a A
q perpendicular b B
H intersection p q
""",
        moves=2,
        tools=["line", "segment", "circle", {"tool": "perpendicular", "most": 2}],
        prerequisites=("foot-of-an-altitude",),
    ),
    LibraryTask(
        key="centroid",
        topic=_("Triangle centres"),
        title=_("Centroid of a triangle"),
        text=_(
            "Construct the point S where the medians meet: the lines that join a vertex with the midpoint of "
            "the opposite side. Two midpoints may be used."
        ),
        level=1,
        terms=_("centroid, centre of gravity, center of gravity, median, barycentre, barycenter"),
        mistake=_("Takes angle bisectors instead of medians."),
        given=TRIANGLE,
        wanted=["point S"],
        conditions=[rel("same", "S", "model:S")],
        shows=[rel("ratio", "A-S", "A-M") | {"is": [2, 3]}, rel("ratio", "B-S", "B-N") | {"is": [2, 3]}],
        model="""
M midpoint B C
N midpoint C A
u segment A M
v segment B N
S intersection u v
""",
        moves=4,
        tools=["line", "segment", "circle", {"tool": "midpoint", "most": 2}],
        prerequisites=("midpoint",),
    ),
    LibraryTask(
        key="fermat-point",
        topic=_("Triangle centres"),
        title=_("Fermat point of a triangle"),
        text=_(
            "Construct the point F inside the triangle from which all three sides are seen under the same "
            "angle: the angles AFB, BFC and CFA are 120 degrees each. All angles of the triangle are less than "
            "120 degrees."
        ),
        level=4,
        terms=_("Fermat point, Torricelli point, isogonic centre, shortest network, Steiner tree, 120 degrees"),
        mistake=_("Takes the equilateral triangles towards the inside."),
        given=TRIANGLE,
        wanted=["point F"],
        conditions=[rel("same", "F", "model:F")],
        model="""
d circle A B
e circle B A
D intersection d e farthest_from=C
f circle B C
g circle C B
E intersection f g farthest_from=A
u line C D
v line A E
F intersection u v
""",
        moves=6,
        prerequisites=("equilateral-triangle",),
    ),
    LibraryTask(
        key="nine-point-circle",
        topic=_("Triangle centres"),
        title=_("Nine-point circle of a triangle"),
        text=_(
            "Construct the circle through the midpoints of the three sides. Three midpoints and one circle "
            "through 3 points may be used."
        ),
        level=2,
        terms=_("nine-point circle, Euler circle, Feuerbach circle, midpoints, feet of the altitudes"),
        mistake=_("Draws the circle through the vertices."),
        given=TRIANGLE,
        wanted=["circle k"],
        conditions=[rel("same", "k", "model:k")],
        model="""
P midpoint A B
Q midpoint B C
R midpoint C A
k circle_through P Q R
""",
        moves=4,
        tools=["line", "segment", "circle", {"tool": "midpoint", "most": 3}, {"tool": "circle_through", "most": 1}],
        prerequisites=(
            "midpoint",
            "circumcircle",
        ),
    ),
    LibraryTask(
        key="excircle",
        topic=_("Triangle centres"),
        title=_("Excircle of a triangle"),
        text=_(
            "Construct the circle that touches the side AB from outside, and the lines of the two other sides "
            "beyond A and B. Two angle bisectors and two perpendiculars may be used."
        ),
        level=3,
        terms=_("excircle, escribed circle, excentre, excenter, external angle bisector, tangent"),
        mistake=_("Uses the inner bisector at A, which gives the incircle."),
        given=TRIANGLE,
        wanted=["circle k"],
        conditions=[rel("same", "k", "model:k")],
        model="""
u angle_bisector A C B
v angle_bisector B A C
w perpendicular v A
J intersection u w
l line A B
n perpendicular l J
F intersection n l
k circle J F
""",
        moves=6,
        tools=[
            "points",
            "line",
            "segment",
            "circle",
            {"tool": "angle_bisector", "most": 2},
            {"tool": "perpendicular", "most": 2},
        ],
        prerequisites=("incircle",),
    ),
    LibraryTask(
        key="isosceles-right",
        topic=_("Triangles from given parts"),
        title=_("Isosceles right triangle on its hypotenuse"),
        text=_("Construct a point C so that the triangle ABC has a right angle at C and AC = BC."),
        level=2,
        elements="III.31",
        terms=_("isosceles right triangle, right triangle, hypotenuse, Thales, semicircle, 45 degrees"),
        mistake=_("Places C at a right angle but not on the perpendicular bisector."),
        given="""
A free_point at=2,3
B free_point at=8,3.8
s segment A B
""",
        wanted=["point C"],
        conditions=[rel("perpendicular", "A-C", "B-C"), rel("equal_length", "A-C", "B-C")],
        model="""
c circle A B
d circle B A
D intersection c d pick=1
E intersection c d pick=2
m line D E
M intersection m s
k circle M A
C intersection k m pick=1
""",
        moves=4,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="triangle-sss",
        topic=_("Triangles from given parts"),
        title=_("Triangle from three sides"),
        text=_("Construct a point C so that AC is as long as DE and BC is as long as FG."),
        level=1,
        elements="I.22",
        terms=_("triangle from three sides, SSS, side side side, congruence, triangle inequality"),
        mistake=_("Exchanges the two sides, or uses radii by eye."),
        given="""
A free_point at=3,2
B free_point at=8.5,2.4
s segment A B
D free_point at=1,8
E free_point at=5.2,8.4
t segment D E
F free_point at=6.5,8
G free_point at=10,8.6
u segment F G
""",
        wanted=["point C"],
        conditions=[rel("equal_length", "A-C", "D-E"), rel("equal_length", "B-C", "F-G")],
        model="""
c circle_radius A D E
d circle_radius B F G
C intersection c d pick=1
""",
        moves=2,
        prerequisites=("carry-a-length",),
    ),
    LibraryTask(
        key="triangle-sas",
        topic=_("Triangles from given parts"),
        title=_("Triangle from two sides and the angle between them"),
        text=_("Construct a point C so that the angle BAC is as large as the angle PVQ and AC is as long as EF."),
        level=2,
        elements="I.4",
        terms=_("triangle from two sides and an angle, SAS, side angle side, congruence, included angle"),
        mistake=_("Lays the length off along AB."),
        given="""
V free_point at=1,6
P free_point at=4,6.2
Q free_point at=3,8.4
p ray V P
q ray V Q
A free_point at=2,2
B free_point at=9,2.5
r ray A B
E free_point at=6,7
F free_point at=9.6,7.6
t segment E F
""",
        wanted=["point C"],
        conditions=[rel("equal_angle", "P-V-Q", "B-A-C"), rel("equal_length", "A-C", "E-F")],
        model="""
c circle V P
U intersection c q pick=2
d circle_radius A V P
R intersection d r pick=2
e circle_radius R P U
S intersection d e pick=1
m ray A S
f circle_radius A E F
C intersection f m pick=2
""",
        moves=5,
        prerequisites=(
            "copy-an-angle",
            "carry-a-length",
        ),
    ),
    LibraryTask(
        key="triangle-asa",
        topic=_("Triangles from given parts"),
        title=_("Triangle from a side and two angles"),
        text=_(
            "Construct a point C so that the angle BAC is as large as the angle PVQ and the angle ABC as large "
            "as the angle RWS."
        ),
        level=3,
        elements="I.26",
        terms=_("triangle from a side and two angles, ASA, angle side angle, congruence"),
        mistake=_("Copies the second angle to the wrong side of B."),
        given="""
V free_point at=0.8,6
P free_point at=3.4,6.2
Q free_point at=2.6,8.4
p ray V P
q ray V Q
W free_point at=6,6
R free_point at=8.8,6.2
S free_point at=7.2,8.6
u ray W R
v ray W S
A free_point at=2,1.5
B free_point at=8.5,2
s segment A B
""",
        wanted=["point C"],
        conditions=[rel("equal_angle", "P-V-Q", "B-A-C"), rel("equal_angle", "R-W-S", "A-B-C")],
        model="""
c circle V P
D intersection c q pick=2
l ray A B
d circle_radius A V P
E intersection d l pick=2
e circle_radius E P D
F intersection d e pick=1
m ray A F
f circle W R
G intersection f v pick=2
k ray B A
g circle_radius B W R
H intersection g k pick=2
h circle_radius H R G
I intersection g h pick=2
n ray B I
C intersection m n
""",
        moves=10,
        prerequisites=("copy-an-angle",),
    ),
    LibraryTask(
        key="triangle-two-sides-median",
        topic=_("Triangles from given parts"),
        title=_("Triangle from two sides and a median"),
        text=_(
            "Construct the points C and M so that AC is as long as EF, M is the midpoint of BC and the median "
            "AM is as long as GH. Two midpoints may be used."
        ),
        level=3,
        terms=_("triangle from two sides and a median, median, parallelogram, midpoint"),
        mistake=_("Draws the median to the wrong side."),
        given="""
A free_point at=2.5,2
B free_point at=8.5,2.4
s segment A B
E free_point at=1,8
F free_point at=5.6,8.4
t segment E F
G free_point at=6.8,8
H free_point at=10.8,8.5
u segment G H
""",
        wanted=["point C", "point M"],
        conditions=[
            rel("equal_length", "A-C", "E-F"),
            rel("midpoint", "M", "B", "C"),
            rel("equal_length", "A-M", "G-H"),
        ],
        model="""
N midpoint A B
K midpoint E F
c circle_radius A G H
d circle_radius N E K
M intersection c d pick=1
l line B M
e circle M B
C intersection e l other_than=B
""",
        moves=6,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 2}],
        prerequisites=(
            "triangle-sss",
            "midpoint",
        ),
    ),
)
