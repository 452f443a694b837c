"""Tasks on circles and tangents."""

from ....documents.language import marked as _
from .notation import CIRCLE, LINE, RULER_AND_COMPASS, LibraryTask, rel

CIRCLES = (
    LibraryTask(
        key="lost-centre",
        topic=_("Circles and tangents"),
        title=_("Centre of a circle"),
        text=_("Construct the centre O of the circle k through A, B and C. Two perpendicular bisectors may be used."),
        level=1,
        elements="III.1",
        terms=_("centre of a circle, center, circumcentre, circumcenter, chord, perpendicular bisector"),
        mistake=_("Places the centre by eye."),
        given="""
A free_point at=2,3
B free_point at=9,4
C free_point at=5,8
k circle_through A B C
""",
        wanted=["point O"],
        conditions=[rel("equal_length", "O-A", "O-B", "O-C")],
        model="""
u perpendicular_bisector A B
v perpendicular_bisector B C
O intersection u v
""",
        moves=2,
        tools=["points", "line", "segment", "circle", {"tool": "perpendicular_bisector", "most": 2}],
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="centre-on-a-line",
        topic=_("Circles and tangents"),
        title=_("Circle through two points with its centre on a line"),
        text=_("Construct the circle through A and B whose centre lies on the line g."),
        level=2,
        terms=_("circle through two points, locus, centre on a line, perpendicular bisector"),
        mistake=_("Takes the midpoint of AB as the centre."),
        given="""
C free_point at=1,2
D free_point at=10,3
g line C D
A free_point at=3.5,6.5
B free_point at=7,5.5
""",
        wanted=["circle k"],
        conditions=[rel("same", "k", "model:k")],
        shows=[rel("on", "A", "k"), rel("on", "B", "k"), rel("on", "O", "g")],
        model="""
c circle A B
d circle B A
E intersection c d pick=1
F intersection c d pick=2
m line E F
O intersection m g
k circle O A
""",
        moves=4,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="tangent-at-a-point",
        topic=_("Circles and tangents"),
        title=_("Tangent at a point of a circle"),
        text=_("Construct the tangent to the circle k at its point P."),
        level=2,
        elements="III.16",
        terms=_("tangent, touch, perpendicular to the radius, point of contact, tangent and radius"),
        mistake=_("Draws a line that only seems to touch."),
        given=CIRCLE + "P point_on k at=4,7.9",
        wanted=["straight t"],
        conditions=[rel("tangent", "k", "t"), rel("on", "P", "t")],
        model="""
l line O P
c circle P O
D intersection l c other_than=O
d circle O D
e circle D O
E intersection d e pick=1
F intersection d e pick=2
t line E F
""",
        moves=5,
        prerequisites=("perpendicular-at-a-point",),
    ),
    LibraryTask(
        key="tangent-from-a-point",
        topic=_("Circles and tangents"),
        title=_("Tangent to a circle from a point"),
        text=_("Construct a tangent to the circle k through the point P outside it."),
        level=2,
        elements="III.17",
        terms=_("tangent, tangent from an external point, Thales, touch, point of contact, semicircle"),
        mistake=_("Draws the line to a point of the circle chosen by eye."),
        given="""
O free_point at=3.5,4.5
A free_point at=5.5,4
k circle O A
P free_point at=10,6
""",
        wanted=["straight t"],
        conditions=[rel("tangent", "k", "t"), rel("on", "P", "t")],
        model="""
c circle O P
d circle P O
D intersection c d pick=1
E intersection c d pick=2
l line D E
g line O P
M intersection l g
h circle M O
T intersection h k pick=1
t line P T
""",
        moves=6,
        prerequisites=(
            "midpoint",
            "isosceles-right",
        ),
    ),
    LibraryTask(
        key="touch-a-line-at-a-point",
        topic=_("Circles and tangents"),
        title=_("Circle touching a line at a point"),
        text=_(
            "Construct the circle that touches the line g at P and passes through Q. One perpendicular and one "
            "perpendicular bisector may be used."
        ),
        level=2,
        terms=_("tangent circle, touch, circle through a point, locus"),
        mistake=_("Takes the midpoint of PQ as the centre."),
        given=LINE + "P point_on g at=4,2.2857\nQ free_point at=6.5,6.5",
        wanted=["circle k"],
        conditions=[rel("tangent", "k", "g"), rel("on", "P", "k"), rel("on", "Q", "k")],
        model="""
p perpendicular g P
m perpendicular_bisector P Q
O intersection p m
k circle O P
""",
        moves=3,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 1}, {"tool": "perpendicular_bisector", "most": 1}],
        prerequisites=(
            "perpendicular-at-a-point",
            "perpendicular-bisector",
        ),
    ),
    LibraryTask(
        key="outer-tangents",
        topic=_("Circles and tangents"),
        title=_("Outer common tangent of two circles"),
        text=_(
            "Construct a line that touches both circles and has both centres on the same side. One midpoint and"
            " one parallel may be used."
        ),
        level=3,
        terms=_(
            "common tangent, outer tangent, external tangent, direct common tangent, two circles, homothety, "
            "centre of similitude"
        ),
        mistake=_("Places the ruler against both circles by eye."),
        given="""
O free_point at=3,4.5
A free_point at=4.8,5
k circle O A
P free_point at=9,5.4
B free_point at=9.6,6.4
m circle P B
""",
        wanted=["straight t"],
        conditions=[rel("tangent", "k", "t"), rel("tangent", "m", "t"), rel("same_side", "t", "O", "P")],
        model="""
a line O A
b parallel a P
Q intersection b m pick=2
c line O P
d line A Q
H intersection c d
M midpoint O H
e circle M O
T intersection e k pick=1
t line H T
""",
        moves=7,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "parallel", "most": 1}],
        prerequisites=("tangent-from-a-point",),
    ),
    LibraryTask(
        key="inner-tangents",
        topic=_("Circles and tangents"),
        title=_("Inner common tangent of two circles"),
        text=_(
            "Construct a line that touches both circles and has the centres on different sides. One midpoint "
            "and one parallel may be used."
        ),
        level=3,
        terms=_("common tangent, inner tangent, internal tangent, transverse common tangent, two circles, homothety"),
        mistake=_("Draws the line through the midpoint of the centres."),
        given="""
O free_point at=3,4.5
A free_point at=4.8,5
k circle O A
P free_point at=9,5.4
B free_point at=9.6,6.4
m circle P B
""",
        wanted=["straight t"],
        conditions=[rel("tangent", "k", "t"), rel("tangent", "m", "t"), rel("opposite_side", "t", "O", "P")],
        model="""
a line O A
b parallel a P
Q intersection b m pick=1
c line O P
d line A Q
H intersection c d
M midpoint O H
e circle M O
T intersection e k pick=1
t line H T
""",
        moves=7,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "parallel", "most": 1}],
        prerequisites=(
            "tangent-from-a-point",
            "outer-tangents",
        ),
    ),
    LibraryTask(
        key="inverse",
        topic=_("Circles and tangents"),
        title=_("Inverse of a point in a circle"),
        text=_(
            "Construct the point Q on the ray from O through P for which OP times OQ equals the square of the "
            "radius: the inverse of P in the circle k."
        ),
        level=3,
        terms=_("inversion, inverse point, circle, reciprocal, power of a point"),
        mistake=_("Takes the reflection in the tangent instead."),
        given="""
O free_point at=4,4.5
A free_point at=6.6,5.5
k circle O A
P free_point at=8.6,6.4
""",
        wanted=["point Q"],
        conditions=[rel("same", "Q", "model:Q")],
        model="""
c circle P O
U intersection c k pick=1
V intersection c k pick=2
d circle U O
e circle V O
Q intersection d e other_than=O
""",
        moves=3,
        prerequisites=("mirror-a-point",),
    ),
    LibraryTask(
        key="radical-axis",
        topic=_("Circles and tangents"),
        title=_("Radical axis of two circles"),
        text=_(
            "Construct the line of all points from which the tangents to both circles are equally long: their "
            "radical axis. One perpendicular and one circle through 3 points may be used."
        ),
        level=4,
        terms=_("radical axis, power line, power of a point, equal tangents, two circles, chord"),
        mistake=_("Draws the perpendicular bisector of the centres."),
        given="""
O free_point at=3,4.5
A free_point at=4.8,5
k circle O A
P free_point at=9,5.4
B free_point at=9.6,6.4
m circle P B
""",
        wanted=["straight r"],
        conditions=[rel("same", "r", "model:r")],
        model="""
X free_point at=6,9
c circle_through A B X
U intersection c k other_than=A
V intersection c m other_than=B
a line A U
b line B V
R intersection a b
d line O P
r perpendicular d R
""",
        moves=5,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 1}, {"tool": "circle_through", "most": 1}],
        prerequisites=(
            "circumcircle",
            "perpendicular-through-a-point",
        ),
    ),
    LibraryTask(
        key="apollonius",
        topic=_("Circles and tangents"),
        title=_("Circle of Apollonius"),
        text=_(
            "Construct the circle of all points P that are twice as far from A as from B: PA : PB = 2 : 1. One "
            "midpoint and one circle through 3 points may be used."
        ),
        level=4,
        terms=_("circle of Apollonius, Apollonian circle, ratio of distances, locus, harmonic division"),
        mistake=_("Takes the circle on AB as its diameter."),
        given="""
A free_point at=2,4
B free_point at=6,4.5
s segment A B
""",
        wanted=["circle k"],
        conditions=[rel("same", "k", "model:k")],
        model="""
M midpoint A B
a circle A B
b circle B M
X intersection a b pick=1
Y intersection a b pick=2
l line A B
c circle B A
Q intersection c l other_than=A
k circle_through X Y Q
""",
        moves=6,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "circle_through", "most": 1}],
        prerequisites=(
            "third-of-a-segment",
            "circumcircle",
        ),
    ),
)
