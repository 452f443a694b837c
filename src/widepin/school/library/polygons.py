"""Tasks on regular polygons and rectangles."""

from .notation import ROUNDEL, RULER_AND_COMPASS, SILL, LibraryTask, rel

POLYGONS = (
    LibraryTask(
        "equilateral-triangle",
        "Polygons",
        "Crown of a pointed arch",
        "An arch springs from A and from B, each side struck from the other's foot. Mark its crown C.",
        SILL,
        ["point C"],
        [rel("equal_length", "A-B", "B-C", "C-A")],
        "c circle A B\nd circle B A\nC intersection c d pick=1",
        2,
    ),
    LibraryTask(
        "square-on-a-side",
        "Polygons",
        "A square slab",
        "AB is one edge of a square slab. Mark its other corners C, next to B, and D. Two perpendiculars are allowed.",
        "A free_point at=3,1.5\nB free_point at=7,2\ns segment A B",
        ["point C", "point D"],
        [
            rel("perpendicular", "A-B", "B-C"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-A"),
            rel("distinct", "B", "D"),
        ],
        "p perpendicular s B\nc circle B A\nC intersection c p pick=2\nq perpendicular s A\nd circle A B\n"
        "D intersection d q pick=2",
        4,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 2}],
        before=("perpendicular-at-a-point",),
    ),
    LibraryTask(
        "rectangle",
        "Polygons",
        "A window opening",
        "AB is the sill of a window as high as CD is long. Mark its upper corners P, above B, and Q, above A. "
        "Two perpendiculars and one parallel are allowed.",
        "A free_point at=2,1.5\nB free_point at=6,2\ns segment A B\nC free_point at=8.5,2\nD free_point at=9.5,7\n"
        "h segment C D",
        ["point P", "point Q"],
        [
            rel("perpendicular", "A-B", "B-P"),
            rel("equal_length", "B-P", "C-D"),
            rel("perpendicular", "A-B", "A-Q"),
            rel("parallel", "P-Q", "A-B"),
        ],
        "p perpendicular s B\nc circle_radius B C D\nP intersection c p pick=2\nq perpendicular s A\nn parallel s P\n"
        "Q intersection q n",
        4,
        tools=[*RULER_AND_COMPASS, {"tool": "perpendicular", "most": 2}, {"tool": "parallel", "most": 1}],
        before=("carry-a-length", "perpendicular-at-a-point"),
    ),
    LibraryTask(
        "equilateral-in-a-circle",
        "Polygons",
        "Trefoil",
        "Mark B and C on the roundel so that ABC has three equal edges.",
        ROUNDEL,
        ["point B", "point C"],
        [rel("on", "B", "k"), rel("on", "C", "k"), rel("equal_length", "A-B", "B-C", "C-A"), rel("distinct", *"ABC")],
        "l line A O\nD intersection l k other_than=A\nc circle D O\nB intersection c k pick=1\n"
        "C intersection c k pick=2",
        2,
        before=("equilateral-triangle",),
    ),
    LibraryTask(
        "square-in-a-circle",
        "Polygons",
        "Quatrefoil",
        "Mark B, C and D on the roundel so that ABCD is a square.",
        ROUNDEL,
        ["point B", "point C", "point D"],
        [
            *(rel("on", name, "k") for name in "BCD"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-A"),
            rel("distinct", *"ABCD"),
        ],
        "l line A O\nC intersection l k other_than=A\nc circle A C\nd circle C A\nE intersection c d pick=1\n"
        "F intersection c d pick=2\nm line E F\nB intersection m k pick=1\nD intersection m k pick=2",
        4,
        before=("perpendicular-bisector",),
    ),
    LibraryTask(
        "hexagon-in-a-circle",
        "Polygons",
        "Six-petal rose",
        "The rose has six petals of one length. A is the tip of the first. Mark the other five in order.",
        ROUNDEL,
        ["point B", "point C", "point D", "point E", "point F"],
        [
            *(rel("on", name, "k") for name in "BCDEF"),
            rel("distinct", *"ABCDEF"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-F", "F-A"),
        ],
        "l line A O\nD intersection l k other_than=A\na circle A O\nd circle D O\nB intersection a k pick=1\n"
        "F intersection a k pick=2\nC intersection d k pick=2\nE intersection d k pick=1",
        3,
        before=("equilateral-in-a-circle",),
    ),
    LibraryTask(
        "hexagon-on-a-side",
        "Polygons",
        "Six-sided font",
        "AB is one edge of a font with six equal edges. Mark its middle O and its corners C, D, E, F in order.",
        "A free_point at=4,1.5\nB free_point at=7,2\ns segment A B",
        ["point O", "point C", "point D", "point E", "point F"],
        [
            rel("equal_length", "A-B", "O-A", "O-B", "O-C", "O-D", "O-E", "O-F"),
            rel("equal_length", "A-B", "B-C", "C-D", "D-E", "E-F", "F-A"),
            rel("distinct", *"ABCDEF"),
        ],
        "c circle A B\nd circle B A\nO intersection c d pick=1\ne circle O A\nC intersection d e other_than=A\n"
        "F intersection c e other_than=B\nf circle C O\nD intersection e f other_than=B\ng circle F O\n"
        "E intersection e g other_than=A",
        5,
        before=("equilateral-triangle", "hexagon-in-a-circle"),
    ),
)
