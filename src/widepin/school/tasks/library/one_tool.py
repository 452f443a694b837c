"""Tasks with the compass alone or the ruler alone."""

from ....documents.language import marked as _
from .notation import LibraryTask, rel

ONE_TOOL = (
    LibraryTask(
        key="double-compass",
        topic=_("Compass alone"),
        title=_("Segment doubled, compass alone"),
        text=_("Construct the point C so that B is the midpoint of AC, with the compass alone."),
        level=2,
        terms=_("compass alone, Mascheroni, double a segment, Mohr"),
        mistake=_("Draws the line AB, which needs a ruler."),
        given="""
A free_point at=2,4
B free_point at=5,4.4
""",
        wanted=["point C"],
        conditions=[rel("midpoint", "B", "A", "C")],
        model="""
a circle A B
b circle B A
D intersection a b pick=1
d circle D A
E intersection b d other_than=A
e circle E B
C intersection b e other_than=D
""",
        moves=4,
        tools=["points", "circle", "circle_radius"],
        prerequisites=("hexagon-in-a-circle",),
    ),
    LibraryTask(
        key="midpoint-compass",
        topic=_("Compass alone"),
        title=_("Midpoint of a segment, compass alone"),
        text=_("Construct the midpoint M of A and B with the compass alone."),
        level=4,
        terms=_("compass alone, midpoint, Mascheroni, Mohr, inversion"),
        mistake=_("Looks for the midpoint on a line that cannot be drawn."),
        given="""
A free_point at=4,4
B free_point at=7,4.4
""",
        wanted=["point M"],
        conditions=[rel("midpoint", "M", "A", "B")],
        model="""
a circle A B
b circle B A
D intersection a b pick=1
d circle D A
E intersection b d other_than=A
e circle E B
C intersection b e other_than=D
f circle C A
F intersection a f pick=1
G intersection a f pick=2
g circle F A
h circle G A
M intersection g h other_than=A
""",
        moves=7,
        tools=["points", "circle", "circle_radius"],
        prerequisites=(
            "double-compass",
            "inverse",
        ),
    ),
    LibraryTask(
        key="line-circle-compass",
        topic=_("Compass alone"),
        title=_("Intersections of a line and a circle, compass alone"),
        text=_(
            "Construct the points P and Q where the circle k meets the line through A and B, with the compass "
            "alone. The line is not drawn."
        ),
        level=3,
        terms=_("compass alone, line and circle, intersection, Mascheroni, reflection, secant"),
        mistake=_("Guesses where the line would meet the circle."),
        given="""
O free_point at=5,5
R free_point at=7.4,6
k circle O R
A free_point at=1.5,3
B free_point at=9.5,4.6
""",
        wanted=["point P", "point Q"],
        conditions=[
            rel("on", "P", "k"),
            rel("on", "P", "A-B"),
            rel("on", "Q", "k"),
            rel("on", "Q", "A-B"),
            rel("distinct", "P", "Q"),
        ],
        model="""
c circle A O
d circle B O
S intersection c d other_than=O
m circle_radius S O R
P intersection k m pick=1
Q intersection k m pick=2
""",
        moves=3,
        tools=["points", "circle", "circle_radius"],
        prerequisites=("mirror-a-point",),
    ),
    LibraryTask(
        key="parallel-ruler",
        topic=_("Ruler alone"),
        title=_("Parallel to a bisected segment, ruler alone"),
        text=_("M is the midpoint of AB. Construct the parallel to AB through P with the ruler alone."),
        level=3,
        terms=_("ruler alone, straightedge alone, parallel, trapezium, Ceva, Steiner"),
        mistake=_("Moves the ruler along by eye."),
        given="""
A free_point at=2,2
B free_point at=9,2.6
s segment A B
M midpoint A B
P free_point at=3.4,5
""",
        wanted=["straight q"],
        conditions=[rel("parallel", "q", "s"), rel("on", "P", "q")],
        model="""
l line A P
C point_on l at=4.26,6.8428571429
m line C M
n line B C
o line B P
X intersection m o
p line A X
Q intersection p n
q line P Q
""",
        moves=6,
        tools=["points", "line"],
        prerequisites=("centroid",),
    ),
    LibraryTask(
        key="parallel-ruler-circle",
        topic=_("Ruler alone"),
        title=_("Parallel with a ruler and one circle"),
        text=_(
            "A circle k with its centre O is given. Construct the parallel to the line g through P with the "
            "ruler alone."
        ),
        level=4,
        terms=_("ruler alone, straightedge alone, Poncelet, Steiner, circle with centre, parallel"),
        mistake=_("Treats a parallel that was drawn by eye as exact."),
        given="""
G free_point at=1,1.6
H free_point at=10,2
g line G H
O free_point at=5,5.6
R free_point at=6.6,6.7
k circle O R
P free_point at=9,6
""",
        wanted=["straight q"],
        conditions=[rel("parallel", "q", "g"), rel("on", "P", "q")],
        model="""
M point_on g at=4,1.7333
a line M O
U intersection a k pick=1
V intersection a k pick=2
l line U R
C point_on l at=7.6,8.9
b line C O
c line C V
d line V R
X intersection b d
e line U X
Q intersection e c
f line R Q
S intersection f k other_than=R
A intersection f g
h line R O
T intersection h k other_than=R
i line S O
W intersection i k other_than=S
j line T W
B intersection j g
m line A P
D point_on m at=10,7.4
n line D M
o line D B
p line B P
Y intersection n p
r line A Y
Z intersection r o
q line P Z
""",
        moves=16,
        tools=["points", "line"],
        prerequisites=("parallel-ruler",),
    ),
    LibraryTask(
        key="midpoint-ruler-circle",
        topic=_("Ruler alone"),
        title=_("Midpoint of a chord, ruler alone"),
        text=_("AB is a chord of the circle k with the centre O. Construct the midpoint M of AB with the ruler alone."),
        level=4,
        terms=_("ruler alone, straightedge alone, Steiner, chord, midpoint, diameter, trapezium"),
        mistake=_("Draws the perpendicular from O by eye."),
        given="""
O free_point at=5,5
A free_point at=7.6,3.4
k circle O A
B point_on k at=2.6,3.1
s line A B
""",
        wanted=["point M"],
        conditions=[rel("midpoint", "M", "A", "B")],
        model="""
a line A O
C intersection a k other_than=A
b line B O
D intersection b k other_than=B
c line C D
E free_point at=5.6,10
d line A E
e line B E
F intersection d c
G intersection e c
f line A G
g line B F
X intersection f g
h line E X
M intersection h s
""",
        moves=8,
        tools=["points", "line"],
        prerequisites=("parallel-ruler",),
    ),
    LibraryTask(
        key="harmonic-conjugate",
        topic=_("Ruler alone"),
        title=_("Harmonic conjugate of a point, ruler alone"),
        text=_(
            "C lies on the line through A and B. Construct the other point D of this line that divides AB in "
            "the same ratio, DA : DB = CA : CB, with the ruler alone: the harmonic conjugate of C with respect "
            "to A and B."
        ),
        level=4,
        terms=_(
            "harmonic conjugate, harmonic division, complete quadrilateral, cross ratio, ruler alone, "
            "straightedge alone"
        ),
        mistake=_("Takes the reflection of C in the midpoint."),
        given="""
A free_point at=2,3
B free_point at=7,3.4
l line A B
C point_on l at=5.5,3.28
""",
        wanted=["point D"],
        conditions=[rel("same", "D", "model:D")],
        model="""
P free_point at=4,8
a line P A
b line P B
c line P C
Q point_on c at=4.6,6.112
d line A Q
e line B Q
S intersection d b
R intersection e a
f line R S
D intersection f l
""",
        moves=6,
        tools=["points", "line"],
        prerequisites=("parallel-ruler",),
    ),
)
