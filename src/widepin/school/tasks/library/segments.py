"""Tasks on segments and their division."""

from ....documents.language import marked as _
from .notation import RULER_AND_COMPASS, SEGMENT, LibraryTask, rel

SEGMENTS = (
    LibraryTask(
        key="carry-a-length",
        topic=_("Segments"),
        title=_("Copy of a segment on a ray"),
        text=_("Construct the point P on the ray from C so that CP is as long as AB."),
        level=1,
        elements="I.3",
        terms=_("copy a segment, transfer a length, congruent segments, equal segments, compass"),
        mistake=_("Measures AB by eye and places P on the ray."),
        given="""
A free_point at=1,6
B free_point at=4,7
s segment A B
C free_point at=2,2
D free_point at=9,3
r ray C D
""",
        wanted=["point P"],
        conditions=[rel("on", "P", "r"), rel("equal_length", "C-P", "A-B")],
        model="""
c circle_radius C A B
P intersection c r pick=2
""",
        moves=1,
    ),
    LibraryTask(
        key="add-two-lengths",
        topic=_("Segments"),
        title=_("Sum of two segments"),
        text=_("Construct the point P on the ray from C so that CP is as long as AB and EF together."),
        level=1,
        terms=_("sum of segments, add lengths, addition"),
        mistake=_("Starts the second length at C again instead of at the end of the first."),
        given="""
A free_point at=1,7
B free_point at=3,7.6
s segment A B
E free_point at=5,7.8
F free_point at=8,7
t segment E F
C free_point at=1.5,3
D free_point at=8,3.6
r ray C D
""",
        wanted=["point P"],
        conditions=[rel("same", "P", "model:P")],
        shows=[rel("equal_length", "C-Q", "A-B"), rel("equal_length", "Q-P", "E-F")],
        model="""
c circle_radius C A B
Q intersection c r pick=2
d circle_radius Q E F
P intersection d r pick=2
""",
        moves=2,
        prerequisites=("carry-a-length",),
    ),
    LibraryTask(
        key="midpoint",
        topic=_("Segments"),
        title=_("Midpoint of a segment"),
        text=_("Construct the midpoint M of the segment AB."),
        level=1,
        elements="I.10",
        terms=_("midpoint, middle, centre of a segment, bisect a segment, halve"),
        mistake=_("Places M by eye, or draws two circles of different radius."),
        given=SEGMENT,
        wanted=["point M"],
        conditions=[rel("midpoint", "M", "A", "B")],
        model="""
c circle A B
d circle B A
D intersection c d pick=1
E intersection c d pick=2
m line D E
M intersection m s
""",
        moves=3,
    ),
    LibraryTask(
        key="perpendicular-bisector",
        topic=_("Segments"),
        title=_("Perpendicular bisector of a segment"),
        text=_("Construct the perpendicular bisector of the segment AB."),
        level=1,
        elements="I.10",
        terms=_("perpendicular bisector, mediator, right bisector, axis of symmetry, equidistant"),
        mistake=_("Uses circles whose radius is chosen by hand, so that they part when the segment grows."),
        given=SEGMENT,
        wanted=["straight m"],
        conditions=[rel("same", "m", "model:m")],
        model="""
c circle A B
d circle B A
D intersection c d pick=1
E intersection c d pick=2
m line D E
""",
        moves=3,
    ),
    LibraryTask(
        key="third-of-a-segment",
        topic=_("Division of segments"),
        title=_("Third of a segment"),
        text=_("Construct the point P on the segment AB with AP one third of AB. One parallel may be used."),
        level=2,
        elements="VI.9",
        terms=_("third, trisect a segment, divide a segment, intercept theorem, ratio, equal parts"),
        mistake=_("Divides the segment by eye, or halves it twice."),
        given=SEGMENT,
        wanted=["point P"],
        conditions=[rel("on", "P", "s"), rel("ratio", "A-P", "A-B") | {"is": [1, 3]}],
        model="""
C free_point at=3.2,5
l line A C
c circle C A
D intersection l c other_than=A
d circle D C
E intersection l d other_than=C
k line E B
n parallel k C
P intersection n s
""",
        moves=5,
        limit=6,
        tools=[*RULER_AND_COMPASS, {"tool": "parallel", "most": 1}],
        prerequisites=(
            "carry-a-length",
            "parallel-through-a-point",
        ),
    ),
    LibraryTask(
        key="quarter-of-a-segment",
        topic=_("Division of segments"),
        title=_("Quarter of a segment"),
        text=_("Construct the point P on the segment AB with AP one quarter of AB. Two midpoints may be used."),
        level=1,
        terms=_("quarter, fourth, divide a segment, halve twice, ratio, midpoint"),
        mistake=_("Halves the wrong half."),
        given=SEGMENT,
        wanted=["point P"],
        conditions=[rel("on", "P", "s"), rel("ratio", "A-P", "A-B") | {"is": [1, 4]}],
        model="""
M midpoint A B
P midpoint A M
""",
        moves=2,
        tools=["line", "segment", {"tool": "midpoint", "most": 2}],
        prerequisites=("midpoint",),
    ),
    LibraryTask(
        key="golden-section",
        topic=_("Division of segments"),
        title=_("Golden section of a segment"),
        text=_(
            "Construct the point P on the segment AB that divides it in the golden section: the whole AB is to "
            "the longer part AP as AP is to the shorter part PB. One midpoint and one perpendicular may be "
            "used."
        ),
        level=3,
        elements="II.11",
        terms=_("golden section, golden ratio, extreme and mean ratio, divine proportion, phi"),
        mistake=_("Takes the shorter part for AP."),
        given=SEGMENT,
        wanted=["point P"],
        conditions=[rel("same", "P", "model:P")],
        model="""
M midpoint A B
p perpendicular s B
c circle B M
D intersection c p pick=2
h line A D
d circle D B
E intersection d h pick=1
e circle A E
P intersection e s pick=2
""",
        moves=6,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "perpendicular", "most": 1}],
        prerequisites=(
            "perpendicular-at-a-point",
            "carry-a-length",
        ),
    ),
    LibraryTask(
        key="geometric-mean",
        topic=_("Division of segments"),
        title=_("Geometric mean of two segments"),
        text=_(
            "B lies on AC. Construct a point H on the perpendicular to AC at B so that BH times BH equals AB "
            "times BC: BH is the geometric mean of AB and BC. One midpoint and one perpendicular may be used."
        ),
        level=2,
        elements="VI.13",
        terms=_(
            "geometric mean, mean proportional, altitude theorem, right triangle, Thales, square root, squaring"
            " a rectangle"
        ),
        mistake=_("Takes half of AC, the arithmetic mean."),
        given="""
A free_point at=2,3
C free_point at=9,3.6
s segment A C
B point_on s at=4.5,3.2143
""",
        wanted=["point H"],
        conditions=[rel("perpendicular", "B-H", "A-C"), rel("perpendicular", "A-H", "C-H")],
        model="""
M midpoint A C
k circle M A
p perpendicular s B
H intersection k p pick=2
""",
        moves=3,
        tools=[*RULER_AND_COMPASS, {"tool": "midpoint", "most": 1}, {"tool": "perpendicular", "most": 1}],
        prerequisites=(
            "isosceles-right",
            "perpendicular-at-a-point",
        ),
    ),
)
