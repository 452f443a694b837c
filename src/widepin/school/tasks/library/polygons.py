"""Tasks on quadrilaterals and regular polygons."""

from ....documents.language import marked as _
from .notation import CIRCLE, RULER_AND_COMPASS, SEGMENT, LibraryTask, rel

POLYGONS = (
    LibraryTask(
        key="equilateral-triangle",
        topic=_("Polygons"),
        title=_("Equilateral triangle on a side"),
        text=_("Construct a point C so that the triangle ABC is equilateral."),
        level=1,
        elements="I.1",
        terms=_("equilateral triangle, regular triangle, equal sides, 60 degrees"),
        mistake=_("Places C by eye on one circle."),
        given=SEGMENT,
        wanted=["point C"],
        conditions=[rel("equal_length", "A-B", "B-C", "C-A")],
        model="""
c circle A B
d circle B A
C intersection c d pick=1
""",
        moves=2,
    ),
    LibraryTask(
        key="square-on-a-side",
        topic=_("Polygons"),
        title=_("Square on a side"),
        text=_("Construct the points C, next to B, and D so that ABCD is a square. Two perpendiculars may be used."),
        level=1,
        elements="I.46",
        terms=_("square, regular quadrilateral, right angle, equal sides, quadrilateral"),
        mistake=_("Draws the second circle with the wrong radius."),
        given="""
A free_point at=3,1.5
B free_point at=7,2
s segment A B
""",
        wanted=["point C", "point D"],
        conditions=[
            rel("perpendicular", "A-B", "B-C"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-A"),
            rel("distinct", "B", "D"),
        ],
        model="""
p perpendicular s B
c circle B A
C intersection c p pick=2
q perpendicular s A
d circle A B
D intersection d q pick=2
""",
        moves=4,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 2}],
        prerequisites=("perpendicular-at-a-point",),
    ),
    LibraryTask(
        key="rectangle",
        topic=_("Polygons"),
        title=_("Rectangle with given sides"),
        text=_(
            "Construct the points P, above B, and Q, above A, so that ABPQ is a rectangle with BP as long as "
            "CD. Two perpendiculars and one parallel may be used."
        ),
        level=1,
        terms=_("rectangle, quadrilateral, right angle, perpendicular, length"),
        mistake=_("Copies the length CD by eye."),
        given="""
A free_point at=2,1.5
B free_point at=6,2
s segment A B
C free_point at=8.5,2
D free_point at=9.5,7
h segment C D
""",
        wanted=["point P", "point Q"],
        conditions=[
            rel("perpendicular", "A-B", "B-P"),
            rel("equal_length", "B-P", "C-D"),
            rel("perpendicular", "A-B", "A-Q"),
            rel("parallel", "P-Q", "A-B"),
        ],
        model="""
p perpendicular s B
c circle_radius B C D
P intersection c p pick=2
q perpendicular s A
n parallel s P
Q intersection q n
""",
        moves=4,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 2}, {"tool": "parallel", "most": 1}],
        prerequisites=(
            "carry-a-length",
            "perpendicular-at-a-point",
        ),
    ),
    LibraryTask(
        key="equilateral-in-a-circle",
        topic=_("Polygons"),
        title=_("Equilateral triangle in a circle"),
        text=_("Construct the points B and C on the circle so that the triangle ABC is equilateral."),
        level=1,
        elements="IV.2",
        terms=_("inscribed equilateral triangle, regular triangle, circle, inscribe"),
        mistake=_("Steps the radius off once instead of twice."),
        given=CIRCLE,
        wanted=["point B", "point C"],
        conditions=[
            rel("on", "B", "k"),
            rel("on", "C", "k"),
            rel("equal_length", "A-B", "B-C", "C-A"),
            rel("distinct", "A", "B", "C"),
        ],
        model="""
l line A O
D intersection l k other_than=A
c circle D O
B intersection c k pick=1
C intersection c k pick=2
""",
        moves=2,
        limit=5,
        prerequisites=("equilateral-triangle",),
    ),
    LibraryTask(
        key="square-in-a-circle",
        topic=_("Polygons"),
        title=_("Square in a circle"),
        text=_("Construct the points B, C and D on the circle so that ABCD is a square."),
        level=2,
        elements="IV.6",
        terms=_("inscribed square, diameter, perpendicular diameter, inscribe"),
        mistake=_("Places the second diameter by eye."),
        given=CIRCLE,
        wanted=["point B", "point C", "point D"],
        conditions=[
            rel("on", "B", "k"),
            rel("on", "C", "k"),
            rel("on", "D", "k"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-A"),
            rel("distinct", "A", "B", "C", "D"),
        ],
        model="""
l line A O
C intersection l k other_than=A
c circle A C
d circle C A
E intersection c d pick=1
F intersection c d pick=2
m line E F
B intersection m k pick=1
D intersection m k pick=2
""",
        moves=4,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="hexagon-in-a-circle",
        topic=_("Polygons"),
        title=_("Regular hexagon in a circle"),
        text=_("Construct the points B to F on the circle so that ABCDEF is a regular hexagon."),
        level=1,
        elements="IV.15",
        terms=_("regular hexagon, inscribed hexagon, six sides, 60 degrees, radius"),
        mistake=_("Steps the radius off with points chosen by eye."),
        given=CIRCLE,
        wanted=["point B", "point C", "point D", "point E", "point F"],
        conditions=[
            rel("on", "B", "k"),
            rel("on", "C", "k"),
            rel("on", "D", "k"),
            rel("on", "E", "k"),
            rel("on", "F", "k"),
            rel("distinct", "A", "B", "C", "D", "E", "F"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-F", "F-A"),
        ],
        model="""
l line A O
D intersection l k other_than=A
a circle A O
d circle D O
B intersection a k pick=1
F intersection a k pick=2
C intersection d k pick=2
E intersection d k pick=1
""",
        moves=3,
        limit=5,
        prerequisites=("equilateral-in-a-circle",),
    ),
    LibraryTask(
        key="hexagon-on-a-side",
        topic=_("Polygons"),
        title=_("Regular hexagon on a side"),
        text=_("Construct the centre O and the points C to F so that ABCDEF is a regular hexagon."),
        level=2,
        elements="IV.15",
        terms=_("regular hexagon, six sides, side, equilateral triangle"),
        mistake=_("Closes the hexagon by eye."),
        given="""
A free_point at=4,1.5
B free_point at=7,2
s segment A B
""",
        wanted=["point O", "point C", "point D", "point E", "point F"],
        conditions=[
            rel("equal_length", "A-B", "O-A", "O-B", "O-C", "O-D", "O-E", "O-F"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-F", "F-A"),
            rel("distinct", "A", "B", "C", "D", "E", "F"),
        ],
        model="""
c circle A B
d circle B A
O intersection c d pick=1
e circle O A
C intersection d e other_than=A
F intersection c e other_than=B
f circle C O
D intersection e f other_than=B
g circle F O
E intersection e g other_than=A
""",
        moves=5,
        limit=7,
        prerequisites=(
            "equilateral-triangle",
            "hexagon-in-a-circle",
        ),
    ),
    LibraryTask(
        key="pentagon-in-a-circle",
        topic=_("Polygons"),
        title=_("Regular pentagon in a circle"),
        text=_(
            "Construct the points B to E on the circle so that ABCDE is a regular pentagon. One midpoint and "
            "one perpendicular may be used."
        ),
        level=3,
        elements="IV.11",
        terms=_("regular pentagon, inscribed pentagon, five sides, golden section, golden ratio, 72 degrees"),
        mistake=_("Steps off a side that was found by trial."),
        given=CIRCLE,
        wanted=["point B", "point C", "point D", "point E"],
        conditions=[
            rel("on", "B", "k"),
            rel("on", "C", "k"),
            rel("on", "D", "k"),
            rel("on", "E", "k"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-A"),
            rel("distinct", "A", "B", "C", "D", "E"),
            rel("same_side", "A-B", "C", "D"),
        ],
        model="""
l line O A
p perpendicular l O
U intersection p k pick=1
M midpoint O U
c circle M A
V intersection c p pick=2
e circle A V
B intersection e k pick=1
E intersection e k pick=2
f circle B A
C intersection f k other_than=A
g circle E A
D intersection g k other_than=A
""",
        moves=7,
        limit=8,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "perpendicular", "most": 1}],
        prerequisites=("golden-section",),
    ),
    LibraryTask(
        key="pentagon-on-a-side",
        topic=_("Polygons"),
        title=_("Regular pentagon on a side"),
        text=_(
            "Construct the points C, D and E so that ABCDE is a regular pentagon. One midpoint and one "
            "perpendicular may be used."
        ),
        level=3,
        terms=_("regular pentagon, five sides, side, golden section, golden ratio, diagonal"),
        mistake=_("Uses a diagonal that was found by trial."),
        given="""
A free_point at=4,2
B free_point at=7,2.4
s segment A B
""",
        wanted=["point C", "point D", "point E"],
        conditions=[
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-A"),
            rel("equal_length", "A-C", "B-D", "C-E", "D-A", "E-B"),
            rel("same_side", "A-B", "C", "D"),
        ],
        model="""
p perpendicular s B
c circle B A
U intersection c p pick=2
M midpoint A B
d circle M U
l line A B
V intersection d l pick=2
e circle A V
f circle_radius B A V
D intersection e f pick=1
C intersection e c pick=1
g circle A B
E intersection g f pick=1
""",
        moves=8,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "perpendicular", "most": 1}],
        prerequisites=(
            "golden-section",
            "pentagon-in-a-circle",
        ),
    ),
    LibraryTask(
        key="square-on-a-diagonal",
        topic=_("Polygons"),
        title=_("Square on its diagonal"),
        text=_("AC is a diagonal. Construct the points B and D so that ABCD is a square."),
        level=2,
        terms=_("square, diagonal, perpendicular bisector, quadrilateral"),
        mistake=_("Draws the circle about an end of the diagonal instead of about its midpoint."),
        given="""
A free_point at=2.5,3
C free_point at=8,4
s segment A C
""",
        wanted=["point B", "point D"],
        conditions=[
            rel("equal_length", "A-B", "B-C", "C-D", "D-A"),
            rel("perpendicular", "A-B", "B-C"),
            rel("distinct", "B", "D"),
        ],
        model="""
c circle A C
d circle C A
E intersection c d pick=1
F intersection c d pick=2
l line E F
M intersection l s
k circle M A
B intersection k l pick=1
D intersection k l pick=2
""",
        moves=4,
        prerequisites=("perpendicular-bisector",),
    ),
    LibraryTask(
        key="rhombus",
        topic=_("Polygons"),
        title=_("Rhombus from a diagonal and a side"),
        text=_(
            "AC is a diagonal. Construct the points B and D so that ABCD is a rhombus: all four sides are as "
            "long as EF."
        ),
        level=1,
        terms=_("rhombus, diagonal, equal sides, quadrilateral, diamond"),
        mistake=_("Uses a radius chosen by hand instead of EF."),
        given="""
A free_point at=2.5,3
C free_point at=8,4
s segment A C
E free_point at=2,8
F free_point at=6.2,8.4
t segment E F
""",
        wanted=["point B", "point D"],
        conditions=[rel("equal_length", "A-B", "B-C", "C-D", "D-A", "E-F"), rel("distinct", "B", "D")],
        model="""
c circle_radius A E F
d circle_radius C E F
B intersection c d pick=1
D intersection c d pick=2
""",
        moves=2,
        prerequisites=("carry-a-length",),
    ),
    LibraryTask(
        key="kite",
        topic=_("Polygons"),
        title=_("Kite from its axis and two sides"),
        text=_(
            "AC is the axis of symmetry. Construct the points B and D so that ABCD is a kite: AB and AD are as "
            "long as EF, CB and CD as long as GH."
        ),
        level=2,
        terms=_("kite, axis of symmetry, quadrilateral, deltoid, sides"),
        mistake=_("Exchanges the two lengths."),
        given="""
A free_point at=2.5,3
C free_point at=8,4
s segment A C
E free_point at=1.5,8
F free_point at=4.9,8.4
t segment E F
G free_point at=6,8
H free_point at=10.2,8.6
u segment G H
""",
        wanted=["point B", "point D"],
        conditions=[
            rel("equal_length", "A-B", "A-D", "E-F"),
            rel("equal_length", "C-B", "C-D", "G-H"),
            rel("distinct", "B", "D"),
        ],
        model="""
c circle_radius A E F
d circle_radius C G H
B intersection c d pick=1
D intersection c d pick=2
""",
        moves=2,
        prerequisites=(
            "carry-a-length",
            "rhombus",
        ),
    ),
    LibraryTask(
        key="trapezium",
        topic=_("Polygons"),
        title=_("Isosceles trapezium"),
        text=_(
            "AB is a base and AD a leg. Construct the point C so that ABCD is an isosceles trapezium: CD is "
            "parallel to AB, and the figure is symmetric, so that both legs and both diagonals are equally "
            "long."
        ),
        level=2,
        terms=_("isosceles trapezium, trapezoid, quadrilateral, equal diagonals, symmetry"),
        mistake=_("Completes a parallelogram instead."),
        given="""
A free_point at=1.5,2
B free_point at=9,2.4
s segment A B
D free_point at=3.4,6
t segment A D
""",
        wanted=["point C"],
        conditions=[
            rel("parallel", "A-B", "C-D"),
            rel("equal_length", "A-D", "B-C"),
            rel("equal_length", "A-C", "B-D"),
        ],
        model="""
c circle_radius B A D
d circle_radius A B D
C intersection c d nearest_to=D
""",
        moves=2,
        prerequisites=(
            "mirror-a-point",
            "parallelogram",
        ),
    ),
)
