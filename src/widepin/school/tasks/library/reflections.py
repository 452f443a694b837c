"""Tasks on reflections and shortest paths."""

from ....documents.language import marked as _
from .notation import LINE, LibraryTask, rel

REFLECTIONS = (
    LibraryTask(
        key="mirror-a-point",
        topic=_("Reflections and shortest paths"),
        title=_("Reflection of a point in a line"),
        text=_(
            "Construct the point Q that is the reflection of P in the line g: g is the perpendicular bisector of PQ."
        ),
        level=1,
        elements="I.12",
        terms=_("reflection, mirror image, axial symmetry, line symmetry, reflect a point, image"),
        mistake=_("Draws the perpendicular and measures the distance by eye."),
        given=LINE + "P free_point at=4,6",
        wanted=["point Q"],
        conditions=[rel("equal_length", "A-P", "A-Q"), rel("equal_length", "B-P", "B-Q"), rel("distinct", "P", "Q")],
        model="""
c circle A P
d circle B P
Q intersection c d other_than=P
""",
        moves=2,
        limit=5,
        prerequisites=("perpendicular-through-a-point",),
    ),
    LibraryTask(
        key="shortest-path",
        topic=_("Reflections and shortest paths"),
        title=_("Shortest path by way of a line"),
        text=_(
            "A and B lie on the same side of the line g. Construct the point P on g for which the way from A "
            "over P to B is shortest."
        ),
        level=2,
        terms=_("shortest path, reflection, Heron, mirror, billiard, equal angles, minimum"),
        mistake=_("Takes the foot of a perpendicular, or the point halfway between the feet."),
        given="""
C free_point at=1,2
D free_point at=10,2.4
g line C D
A free_point at=2.5,5
B free_point at=8,6.5
""",
        wanted=["point P"],
        conditions=[rel("same", "P", "model:P")],
        shows=[rel("equal_length", "P-A", "P-E"), rel("equal_angle", "A-P-C", "E-P-C")],
        model="""
c circle C A
d circle D A
E intersection c d other_than=A
l line E B
P intersection l g
""",
        moves=3,
        limit=6,
        prerequisites=("mirror-a-point",),
    ),
    LibraryTask(
        key="point-reflection",
        topic=_("Reflections and shortest paths"),
        title=_("Reflection of a point in a point"),
        text=_("Construct the point Q that is the reflection of P in the point M: M is the midpoint of PQ."),
        level=1,
        terms=_("point reflection, central symmetry, half turn, rotation by 180 degrees, reflection"),
        mistake=_("Measures the distance by eye."),
        given="""
P free_point at=2.5,3
M free_point at=6,5
""",
        wanted=["point Q"],
        conditions=[rel("midpoint", "M", "P", "Q")],
        model="""
l line P M
c circle M P
Q intersection c l other_than=P
""",
        moves=2,
        prerequisites=("carry-a-length",),
    ),
)
