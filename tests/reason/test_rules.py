"""Every rule has a figure in which it is needed: what follows there does not follow without it."""

from __future__ import annotations

import pytest

from tests.reason.figures import known_of
from widepin.reason.facts import Fact, Rel, fact
from widepin.reason.rules import RULES
from widepin.reason.rules import RuleName as N

KITE = "c circle A B\nd circle C B\nD intersection c d other_than=B"
LENS = "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\ng line D E\nh line A B"

NEEDED: dict[N, tuple[str, Fact, frozenset[N]]] = {}
"""For each rule a figure, what follows in it, and the rules by which it follows besides."""


def needs(rule: N, lines: str, wanted: Fact, *besides: N) -> None:
    """One row of the table."""
    NEEDED[rule] = lines, wanted, frozenset(besides)


def lengths(one: str, other: str) -> Fact:
    return fact(Rel.EQUAL_LENGTH, tuple(one), tuple(other))


def angles(one: str, other: str) -> Fact:
    return fact(Rel.EQUAL_ANGLE, tuple(one), tuple(other))


def areas(one: str, other: str) -> Fact:
    return fact(Rel.EQUAL_AREA, tuple(one), tuple(other))


def ratio(one: str, other: str, n: int, d: int) -> Fact:
    return fact(Rel.RATIO, tuple(one), tuple(other), ratio=(n, d))


BISECTED = (
    "t angle_bisector A C B\nk circle C A\nh line C B\nD intersection k h pick=2\nP point_on t at=6,4\ng line C A"
)
TWICE = (
    "M midpoint C A\nk circle C M\nh line C B\nN intersection k h pick=1\nm circle N C\nD intersection m h other_than=C"
)
HALVED = "M midpoint A B\ng line B C\np parallel g M\nh line A C\nP intersection p h"
TWO_PARALLELS = "h line A B\np parallel h C\nf line A C\nq parallel f B\nD intersection p q"
RHOMBUS = "c circle A B\nd circle B A\nD intersection c d pick=1\ne circle D A\nE intersection e d other_than=A"

needs(N.SSS, KITE, angles("ABC", "ADC"), N.CONGRUENT_ANGLES)
needs(N.CONGRUENT_ANGLES, KITE, angles("ABC", "ADC"), N.SSS)
needs(N.SAS, BISECTED, lengths("PA", "PD"), N.CONGRUENT_SIDES)
needs(N.CONGRUENT_SIDES, BISECTED, lengths("PA", "PD"), N.SAS)
needs(N.ASA, TWO_PARALLELS + "\ng line C B", lengths("AB", "CD"), N.ALTERNATE, N.CONGRUENT_SIDES)
needs(
    N.AAS,
    "t angle_bisector A C B\nP point_on t at=4.2,5\ng line C A\nh line C B\np perpendicular g P\nq perpendicular h P\n"
    "D intersection p g\nE intersection q h",
    lengths("PD", "PE"),
    N.CONGRUENT_SIDES,
)
needs(
    N.RHS,
    "k circle C A\ng line A B\nh perpendicular g C\nF intersection h g\nD intersection k g other_than=A",
    lengths("FA", "FD"),
    N.CONGRUENT_SIDES,
)
needs(N.ISOSCELES, "k circle C A\nh line C B\nD intersection k h pick=1", angles("CAD", "CDA"))
needs(
    N.ISOSCELES_CONVERSE,
    "t angle_bisector A C B\nh line C A\np parallel h B\nD intersection t p\ng line C B",
    lengths("BC", "BD"),
    N.ALTERNATE,
)
needs(N.BISECTOR_LINE, LENS, fact(Rel.PERPENDICULAR, "g", "h"))
needs(N.KITE, KITE, angles("BAC", "CAD"))
needs(N.MEDIAN_OF_ISOSCELES, "k circle A B\nD point_on k at=3,8\nM midpoint B D", angles("BAM", "DAM"))
needs(N.BISECTOR_FOOT, LENS + "\nM intersection g h", fact(Rel.MIDPOINT, "M", "A", "B"))
needs(N.BISECTOR_POINT, "M midpoint A B\nh line A B\np perpendicular h M\nP point_on p at=4,9", lengths("PA", "PB"))
needs(N.BISECTOR_THIRD, LENS + "\nP point_on g at=5,9", lengths("PA", "PB"))
needs(
    N.BISECTOR_THREE,
    "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nM midpoint A B",
    fact(Rel.COLLINEAR, "D", "E", "M"),
)
needs(
    N.PERPENDICULAR_FROM_APEX,
    "k circle C A\nh line C B\nD intersection k h nearest_to=B\ng line A D\np perpendicular g C\nP point_on p at=8,3",
    lengths("AP", "DP"),
)
needs(
    N.PERPENDICULAR_TO_BISECTOR,
    "t angle_bisector A C B\nP free_point at=5,2\np perpendicular t P\ng line C A\nh line C B\nD intersection p g\n"
    "E intersection p h",
    lengths("CD", "CE"),
)
needs(
    N.MIRRORED_BY_AXIS,
    "u perpendicular_bisector A B\nh line A B\np parallel h C\nN intersection u p\nk circle N C\n"
    "D intersection k p other_than=C",
    lengths("AC", "BD"),
)
needs(
    N.HALVES,
    # MN is half of CA, and PQ half of CD, which is as long: M, N, P halve the sides from B, A and D.
    "k circle C A\nD point_on k at=9,7\nM midpoint B C\nN midpoint B A\nQ midpoint B D",
    lengths("MN", "MQ"),
    N.HALF_OF_SIDE,
)
TWO_BISECTORS = "u perpendicular_bisector A B\nh line A B\nM midpoint A B\np perpendicular h M\nP point_on p at=4,9"
needs(N.ON_BISECTOR, TWO_BISECTORS, fact(Rel.ON, "M", "u"))
needs(N.ONE_PARALLEL, TWO_BISECTORS, fact(Rel.ON, "P", "u"), N.ON_BISECTOR)
needs(N.OF_BISECTOR, TWO_BISECTORS, lengths("PA", "PB"), N.ON_BISECTOR, N.ONE_PARALLEL)
needs(N.MIRRORED, "u perpendicular_bisector A B\nD reflection C u", lengths("AC", "BD"))
needs(
    N.ALTITUDES,
    "a line B C\nc line A B\np perpendicular a A\nq perpendicular c C\nH intersection p q\nh line B H\nb line A C",
    fact(Rel.PERPENDICULAR, "h", "b"),
)
needs(N.MIDPOINT, "k circle A B\nh line A B\nD intersection k h other_than=B", fact(Rel.MIDPOINT, "A", "B", "D"))
needs(
    N.HALVES_OF_EQUALS,
    "k circle C A\nh line C B\nD intersection k h pick=1\nM midpoint C A\nN midpoint C D",
    lengths("CM", "CN"),
)
needs(N.DOUBLES_OF_EQUALS, TWICE, lengths("CA", "CD"), N.MIDPOINT)
needs(N.DOUBLES, TWICE, lengths("CA", "CD"), N.MIDPOINT, N.RATIO_OF_HALVES)
needs(N.RATIO_OF_HALVES, "M midpoint A B", ratio("AM", "AB", 1, 2))
needs(N.RATIO_OF_EQUALS, "M midpoint A B\nN midpoint A M", ratio("NM", "MB", 1, 2), N.RATIO_OF_HALVES)
needs(N.RATIO_CHAIN, "M midpoint A B\nN midpoint A M", ratio("AN", "AB", 1, 4), N.RATIO_OF_HALVES)
needs(N.HALF_OF_SIDE, "M midpoint A B\nN midpoint A C", ratio("MN", "BC", 1, 2))
needs(
    N.EQUAL_PARTS,
    "h line A B\nM point_on h at=3,1.25\nk circle M A\nN intersection k h other_than=A\nm circle N M\n"
    "D intersection m h other_than=M",
    ratio("AM", "AD", 1, 3),
)
needs(N.INTERCEPT, HALVED, ratio("AP", "AC", 1, 2), N.RATIO_OF_HALVES)
needs(
    N.INTERCEPT_REST,
    "h line C B\nk circle C B\nD intersection k h other_than=B\nm circle D C\nE intersection m h other_than=C\n"
    "g line E A\nf line A B\np parallel g D\nP intersection p f",
    ratio("AP", "AB", 1, 3),
    N.EQUAL_PARTS,
)
needs(N.MIDPOINT_BY_HALF, HALVED, fact(Rel.MIDPOINT, "P", "A", "C"), N.INTERCEPT, N.RATIO_OF_HALVES)
needs(N.MIDLINE, "M midpoint A B\nN midpoint A C\ng line B C", fact(Rel.PARALLEL, ("M", "N"), ("B", "C")))
needs(N.MIDLINE_CONVERSE, HALVED, fact(Rel.MIDPOINT, "P", "A", "C"))
needs(
    N.MEDIANS,
    "M midpoint B C\nN midpoint A C\ng line A M\nh line B N\nS intersection g h",
    ratio("AS", "AM", 2, 3),
)
needs(
    N.MEDIANS_THIRD,
    "M midpoint B C\nN midpoint A C\ng line A M\nh line B N\nS intersection g h",
    ratio("MS", "MA", 1, 3),
)
needs(
    N.CENTRE,
    "k circle_through A B C\ng line A B\np perpendicular g A\nD intersection p k other_than=A\nO midpoint B D",
    lengths("OA", "OC"),
    N.THALES_CONVERSE,
)
needs(
    N.CENTRE_OF_DIAMETER,
    "k circle_through A B C\nu perpendicular_bisector A B\nP intersection u k pick=1\nQ intersection u k pick=2\n"
    "O midpoint P Q",
    lengths("OP", "OC"),
)
needs(
    N.TANGENT_BY_LENGTH,
    "M midpoint A B\nh line A B\nm perpendicular h M\np line A C\nq perpendicular p A\nO intersection q m\nk circle O B",
    fact(Rel.TANGENT, "k", "p"),
    N.BISECTOR_POINT,
)
needs(
    N.TANGENT_AT_APEX,
    "k circle_through A B C\nu perpendicular_bisector A B\nP intersection u k pick=1\np perpendicular u P",
    fact(Rel.TANGENT, "k", "p"),
)
needs(
    N.RIGHT_BY_EQUAL,
    # The tangent from C to the circle about A through B: AP = AC, AT = AB.
    "k circle A B\nm circle A C\nl ray A C\nD intersection l k pick=2\nh line A C\nt perpendicular h D\n"
    "P intersection t m pick=1\nq line A P\nT intersection q k pick=2",
    fact(Rel.RIGHT_ANGLE, ("A", "T", "C")),
    N.SAS,
    N.CONGRUENT_ANGLES,
)
needs(
    N.EQUAL_STRIPS,
    "M midpoint A B\nf line A C\na parallel f M\nb parallel f B\nP point_on a at=6,9\nh line C P\nQ intersection h b",
    fact(Rel.MIDPOINT, "P", "C", "Q"),
)
needs(
    N.CEVA_PARALLEL,
    "M midpoint A B\nf line A C\ng line B C\nP point_on f at=3,5\nm line C M\no line B P\nX intersection m o\n"
    "p line A X\nQ intersection p g",
    fact(Rel.PARALLEL, ("P", "Q"), ("A", "B")),
)
needs(
    N.CEVA_MIDPOINT,
    "f line A C\ng line B C\nh line A B\nP point_on f at=3,5\nq parallel h P\nQ intersection q g\no line B P\n"
    "p line A Q\nX intersection o p\nm line C X\nM intersection m h",
    fact(Rel.MIDPOINT, "M", "A", "B"),
)
SIMILAR = "f circle C A\nF point_on f at=1,5\nl line A C\ng circle F A\nM intersection g l other_than=A"
needs(N.SIMILAR_ISOSCELES, SIMILAR, fact(Rel.SIMILAR, ("A", "F", "M"), ("A", "C", "F")))
needs(
    N.SIMILAR_SIDES,
    # C is twice as far from A as B and as F: AM : AF = AF : AC.
    "a circle A B\nh line A B\nb circle B A\nD intersection b h other_than=A\nd circle D A\nF intersection a d pick=1\n"
    "g circle F A\nM intersection g h other_than=A",
    ratio("AM", "AF", 1, 2),
    N.SIMILAR_ISOSCELES,
    N.MIDPOINT,
    N.RATIO_OF_HALVES,
)
needs(N.TANGENT, "k circle A B\ng line A B\np perpendicular g B", fact(Rel.TANGENT, "k", "p"))
needs(
    N.TANGENT_TO_BOTH_LEGS,
    "t angle_bisector A C B\nI point_on t at=4.2,5\nh line C A\nl line C B\np perpendicular h I\nP intersection p h\n"
    "k circle I P",
    fact(Rel.TANGENT, "k", "l"),
    N.TANGENT,
)
needs(
    N.TANGENT_BY_SIMILITUDE,
    # H on AB, a circle about A, and the one about B that is seen from H in the same way.
    "g line A B\nk circle A C\nH point_on g at=-15,-1\nM midpoint A H\nd circle M A\nT intersection k d pick=1\n"
    "t line H T\ne line A T\nf line A C\nb parallel f B\nh line H C\nQ intersection b h\nm circle B Q",
    fact(Rel.TANGENT, "m", "t"),
    N.TANGENT,
    N.THALES,
)
needs(
    N.ONE_PERPENDICULAR,
    "g line A B\np perpendicular g C\nP point_on p at=4,9\nh line A B\nq perpendicular h P\nQ point_on q at=4,2",
    fact(Rel.COLLINEAR, "C", "P", "Q"),
)
needs(
    N.THALES,
    "O midpoint A B\nk circle O A\ng line O C\nP intersection g k pick=1",
    fact(Rel.RIGHT_ANGLE, ("A", "P", "B")),
)
needs(N.THALES_CONVERSE, "g line A C\np perpendicular g B\nP intersection g p\nO midpoint A B", lengths("OP", "OA"))
needs(
    N.VERTICAL,
    "k circle A B\nm circle A C\ng line A B\nh line A C\nD intersection k g other_than=B\n"
    "E intersection m h other_than=C",
    angles("BAC", "DAE"),
)
needs(
    N.SUPPLEMENTS,
    "k circle C A\nh line C B\nD intersection k h pick=1\ng line A D\nu circle A D\nv circle D A\n"
    "P intersection u g other_than=D\nQ intersection v g other_than=A",
    angles("CAP", "CDQ"),
    N.ISOSCELES,
)
needs(
    N.RIGHT_BY_HALVES,
    "c circle A B\nd circle B A\nD intersection c d pick=1\nM midpoint A B",
    fact(Rel.RIGHT_ANGLE, ("A", "M", "D")),
    N.SSS,
    N.CONGRUENT_ANGLES,
)
needs(
    N.INSCRIBED,
    "k circle_through A B C\ng line A B\np parallel g C\nP intersection p k other_than=C",
    angles("ACB", "APB"),
)
needs(N.ALTERNATE, TWO_PARALLELS + "\ng line C B", angles("ABC", "BCD"))
needs(N.ALTERNATE_CONVERSE, RHOMBUS, fact(Rel.PARALLEL, ("A", "B"), ("D", "E")), N.SSS, N.CONGRUENT_ANGLES)
needs(
    N.CORRESPONDING,
    TWO_PARALLELS + "\nk circle C A\nP intersection k f other_than=A",
    angles("PAB", "PCD"),
)
needs(
    N.CORRESPONDING_CONVERSE,
    "f line A C\nk circle C A\nP intersection k f other_than=A\na circle A C\nQ intersection a k pick=1\n"
    "b circle_radius P C Q\nR intersection k b pick=1",
    fact(Rel.PARALLEL, ("A", "Q"), ("C", "R")),
    N.SSS,
    N.CONGRUENT_ANGLES,
)
needs(N.PARALLELOGRAM_BY_SIDES, RHOMBUS, fact(Rel.PARALLEL, ("A", "B"), ("D", "E")))
needs(N.RHOMBUS, RHOMBUS, fact(Rel.PARALLEL, ("A", "B"), ("D", "E")))
RECTANGLE = "g line A B\nh line A C\nx perpendicular g A\ny perpendicular g B\nP point_on x at=-1,6\n"
RECTANGLE += "z perpendicular x P\nQ intersection y z"
needs(N.RECTANGLE_SIDES, RECTANGLE, lengths("AB", "PQ"))
needs(N.RECTANGLE_DIAGONALS, RECTANGLE, lengths("AQ", "BP"))
needs(
    N.PARALLELOGRAM_BY_ONE_PAIR,
    "h line A B\np parallel h C\nk circle_radius C A B\nD intersection p k pick=2",
    fact(Rel.PARALLEL, ("A", "C"), ("B", "D")),
)
needs(N.PARALLELOGRAM_SIDES, TWO_PARALLELS, lengths("AB", "CD"))
needs(
    N.PARALLELOGRAM_BY_DIAGONALS,
    "M midpoint A B\nk circle M C\ng line C M\nD intersection k g other_than=C\nf line A C\nh line B D",
    fact(Rel.PARALLEL, "f", "h"),
    N.MIDPOINT,
)
needs(
    N.DIAGONALS,
    TWO_PARALLELS + "\nd line A D\ng line B C\nM intersection d g",
    fact(Rel.MIDPOINT, "M", "A", "D"),
)
needs(
    N.EQUAL_TRIANGLES,
    "a circle A C\nb circle B C\nD intersection a b pick=1\nc circle_radius A B C\nd circle_radius B A C\n"
    "E intersection c d pick=1",
    fact(Rel.PARALLEL, ("A", "B"), ("D", "E")),
    N.SSS,
)
SIX = (
    "k circle A B\na circle B A\nD intersection a k pick=1\nd circle D A\nE intersection d k other_than=B\n"
    "F intersection a k pick=2"
)
needs(N.HEXAGON_LINE, SIX, fact(Rel.COLLINEAR, "A", "E", "F"))
ACROSS = (
    "k circle A B\nl line A B\nD intersection k l other_than=B\na circle B A\nd circle D A\nE intersection a k pick=1\n"
)
needs(N.HEXAGON_SIDE, ACROSS + "F intersection d k pick=2", lengths("EF", "AB"))
needs(
    N.HEXAGON_TRIANGLE,
    ACROSS + "F intersection d k pick=1\nG intersection d k pick=2",
    lengths("BF", "FG"),
)


needs(
    N.MEDIANS_PARTS,
    "M midpoint B C\nN midpoint A C\ng line A M\nh line B N\nS intersection g h",
    ratio("MS", "AS", 1, 2),
)
needs(
    N.COMMON_ANGLE,
    "g line A B\nh line A C\np perpendicular g A\nq perpendicular h A\nk circle A B\nm circle A C\n"
    "D intersection k p pick=1\nE intersection m q pick=2",
    angles("DAC", "EAB"),
)
needs(
    N.ADDED_ANGLES,
    "l perpendicular_bisector A B\nP point_on l at=5.5,4.5\nQ point_on l at=6,-3",
    angles("PAQ", "PBQ"),
    N.ISOSCELES,
)
needs(
    N.QUARTER_TURN,
    "g line A B\nh line A C\np perpendicular g A\nq perpendicular h A\nk circle A B\nm circle A C\n"
    "D intersection k p pick=1\nE intersection m q pick=2",
    fact(Rel.PERPENDICULAR, tuple("CD"), tuple("BE")),
)
needs(
    N.INCENTRE,
    "b angle_bisector A B C\nc angle_bisector B C A\nI intersection b c",
    angles("BAI", "IAC"),
)
needs(
    N.SUPPLEMENTARY_BISECTORS,
    "g line A B\nM midpoint A B\nx angle_bisector A M C\ny angle_bisector C M B\n"
    "X point_on x at=1,5\nY point_on y at=9,6",
    fact(Rel.RIGHT_ANGLE, tuple("XMY")),
)
needs(
    N.CO_INTERIOR_BISECTORS,
    "g line A C\nh line A B\np parallel g B\nq parallel h C\nD intersection p q\nx angle_bisector C A B\n"
    "y angle_bisector A B D\nX intersection x y",
    fact(Rel.RIGHT_ANGLE, tuple("AXB")),
)
needs(
    N.BISECTOR_BESIDE_ISOSCELES,
    "k circle A B\ng line A B\nh line A C\nD intersection k g other_than=B\nE intersection k h nearest_to=C\n"
    "x angle_bisector D A E\nX point_on x at=2,6",
    fact(Rel.PARALLEL, tuple("AX"), tuple("BE")),
)
needs(
    N.AS_FAR_AS_A_RADIUS,
    # AC and BC are equal, and so are the distances of their midpoints from C.
    "k circle C A\nh line C B\nD intersection k h nearest_to=B\nM midpoint C A\nN midpoint C D\nm circle C M",
    fact(Rel.ON, "N", "m"),
    N.HALVES_OF_EQUALS,
)
needs(
    N.TOUCHING_CIRCLES,
    "g line A B\nP point_on g at=12,2.4\nk circle A B\nm circle P B",
    fact(Rel.TANGENT, "m", "k"),
)


def size(angle: str, degrees: int) -> Fact:
    return fact(Rel.ANGLE, tuple(angle), ratio=(degrees, 1))


SIXTY = "c circle A B\nd circle B A\nD intersection c d pick=1\ng line A B\nh line A D"
UPRIGHT = SIXTY + "\np perpendicular g B\nE intersection h p"
FAN = SIXTY + "\ne circle D A\nF intersection e c other_than=B\nf circle F A\nG intersection f c other_than=D"
STRIDES = "h line A B\nk circle B A\nD intersection k h other_than=A\nm circle D B\nE intersection m h other_than=B"
HALF_OF_SIXTY = SIXTY + "\nt angle_bisector D A B\ns segment B D\nT intersection t s"

needs(N.EQUILATERAL, SIXTY, size("ABD", 60))
needs(N.ANGLE_SUM, UPRIGHT, size("AEB", 30), N.EQUILATERAL)
needs(N.EXTERIOR_ANGLE, UPRIGHT + "\nk circle E A\nF intersection k h other_than=A", size("BEF", 150), N.EQUILATERAL)
needs(N.BASE_ANGLE, "g line A B\np perpendicular g A\nk circle A B\nD intersection k p pick=1", size("ABD", 45))
needs(
    N.APEX_ANGLE,
    SIXTY + "\nt angle_bisector D A B\nl perpendicular_bisector A B\nE intersection t l",
    size("AEB", 120),
    *(N.EQUILATERAL, N.HALF_ANGLE),
)
needs(N.ANGLES_ON_A_LINE, SIXTY + "\nF intersection d g other_than=A", size("DBF", 120), N.EQUILATERAL)
needs(N.ANGLE_OF_PARTS, SIXTY + "\nE intersection c d pick=2", size("DAE", 120), N.EQUILATERAL)
needs(
    N.REST_OF_ANGLE,
    SIXTY + "\np perpendicular g A\nP intersection c p nearest_to=D",
    size("PAD", 30),
    N.EQUILATERAL,
)
needs(N.HALF_ANGLE, HALF_OF_SIXTY, size("DAT", 30), N.EQUILATERAL)
needs(
    N.RIGHT_BY_SIZE,
    SIXTY + "\nE intersection c d pick=2\nt angle_bisector B A E\ns segment B E\nT intersection t s",
    fact(Rel.RIGHT_ANGLE, tuple("DAT")),
    *(N.EQUILATERAL, N.HALF_ANGLE, N.ANGLE_OF_PARTS),
)
needs(N.STRAIGHT_ANGLE, FAN, fact(Rel.COLLINEAR, *"BAG"), N.EQUILATERAL, N.ANGLE_OF_PARTS)
needs(
    N.CO_INTERIOR,
    SIXTY + "\np parallel g D\nk circle D A\nP intersection k p nearest_to=B",
    size("ADP", 120),
    N.EQUILATERAL,
)
needs(
    N.CO_INTERIOR_CONVERSE,
    FAN,
    fact(Rel.PARALLEL, tuple("AB"), tuple("DF")),
    *(N.EQUILATERAL, N.ANGLE_OF_PARTS),
)
needs(N.HALF_OF_CENTRAL, FAN, size("BFD", 30), N.EQUILATERAL)
needs(
    N.HALF_OF_CENTRAL_FAR,
    FAN + "\nt angle_bisector D A F\nP intersection t c nearest_to=D",
    size("DPF", 150),
    N.EQUILATERAL,
)
needs(
    N.CENTRAL,
    SIXTY + "\nu perpendicular_bisector A B\nv perpendicular_bisector B D\nO intersection u v",
    size("AOB", 120),
    N.EQUILATERAL,
)
needs(
    N.CENTRAL_FAR,
    SIXTY
    + "\nF intersection d g other_than=A\nu perpendicular_bisector D B\nv perpendicular_bisector B F\nO intersection u v",
    size("DOF", 120),
    *(N.EQUILATERAL, N.ANGLES_ON_A_LINE),
)
needs(N.THIRTY, "M midpoint A B\nk circle M A\nm circle A M\nD intersection k m pick=1", size("ABD", 30), N.THALES)
needs(N.OPPOSITE_THIRTY, UPRIGHT, ratio("AB", "AE", 1, 2), N.EQUILATERAL, N.ANGLE_SUM)
needs(
    N.THIRD_ANGLE,
    "t angle_bisector A C B\nP point_on t at=4.2,5\ng line C A\nh line C B\np perpendicular g P\nq perpendicular h P\n"
    "D intersection p g\nE intersection q h",
    angles("CPD", "CPE"),
)
needs(
    N.ONE_ANGLE,
    "M midpoint A B\nc circle A B\nd circle B A\nD intersection c d pick=1\ne circle A M\nf circle M A\n"
    "E intersection e f pick=1",
    fact(Rel.COLLINEAR, *"ADE"),
    N.EQUILATERAL,
)
needs(
    N.OUTER_BISECTOR,
    "l line A B\nd circle B A\nD intersection d l other_than=A\nv angle_bisector D B C\nw perpendicular v B\n"
    "s segment A C\nP intersection w s",
    angles("ABP", "PBC"),
)
needs(
    N.BISECTOR_AT_ARC,
    "k circle_through A B C\nw angle_bisector B A C\nm perpendicular_bisector B C\nN intersection w m",
    fact(Rel.ON, "N", "k"),
)
needs(
    N.EQUAL_CHORDS,
    "k circle A B\nD point_on k at=1,9\nE point_on k at=-6,3\nc circle_radius E B D\nF intersection c k pick=1\n"
    "M midpoint B D\ni circle A M\nl line E F",
    fact(Rel.TANGENT, "i", "l"),
)
needs(
    N.MIRRORED_ROW,
    "g line A B\nl perpendicular_bisector A C\nP point_on g at=5,1.5\nE reflection B l\nF reflection P l",
    fact(Rel.COLLINEAR, *"CEF"),
)
needs(
    N.MEDIAN_THROUGH,
    "M midpoint A B\nh line M C\nk circle C M\nX intersection k h other_than=M\nm circle X C\n"
    "D intersection m h other_than=C\nN midpoint B D",
    fact(Rel.COLLINEAR, *"ACN"),
    N.EQUAL_PARTS,
)
TOUCHED = "k circle A B\nr line A B\nt perpendicular r B\n"
needs(
    N.TRAPEZIUM_MIDLINE,
    "g line A B\np parallel g C\nk circle C A\nD intersection k p pick=2\nM midpoint A D\nN midpoint B C",
    fact(Rel.PARALLEL, tuple("MN"), tuple("AB")),
)
needs(
    N.ONE_CIRCLE,
    "k circle_through A B C\nl perpendicular_bisector A B\nD reflection C l",
    fact(Rel.ON, "D", "k"),
    *(N.SSS, N.CONGRUENT_ANGLES, N.MIRRORED),
)
needs(
    N.OPPOSITE_ANGLES,
    SIXTY + "\nk circle_through A B D\nl perpendicular_bisector A B\nP intersection l k farthest_from=D",
    size("APB", 120),
    N.EQUILATERAL,
)
TWO_TANGENTS = (
    TOUCHED
    + "D point_on k at=1,9\nq line A D\nu perpendicular q D\nP intersection t u\nE intersection r k other_than=B"
)
needs(N.TANGENT_CHORD, TWO_TANGENTS, angles("PBD", "BED"), N.TANGENT)
needs(N.EQUAL_TANGENTS, TWO_TANGENTS, lengths("PB", "PD"), N.TANGENT)
needs(
    N.TANGENT_RADIUS,
    "k circle A B\nQ point_on k at=1,9\nd circle B Q\nR intersection d k other_than=Q\ng line Q R\nt parallel g B\nr line A B",
    fact(Rel.PERPENDICULAR, "r", "t"),
    N.TANGENT_AT_APEX,
)
needs(
    N.SIMILAR_ANGLES,
    "g line A B\nh line A C\nM midpoint A B\np parallel h M\nl line B C\nN intersection p l",
    ratio("BN", "BC", 1, 2),
    *(N.CORRESPONDING, N.RATIO_OF_HALVES, N.SIMILAR_SIDES),
)
needs(N.RATIO_OF_PARTS, STRIDES, ratio("AB", "AE", 1, 3))
needs(
    N.RATIO_OF_REST,
    "M midpoint A B\nN midpoint A M",
    ratio("AN", "NB", 1, 3),
    *(N.RATIO_OF_HALVES, N.RATIO_CHAIN),
)
needs(N.RATIO_BY_UNIT, STRIDES, ratio("AD", "AE", 2, 3), N.RATIO_OF_PARTS)
needs(N.AREA_BETWEEN_PARALLELS, "h line A B\np parallel h C\nP point_on p at=6,7", areas("ABC", "ABP"))
needs(N.AREA_BY_MEDIAN, "M midpoint B C", areas("ABM", "ACM"), N.MIDPOINT)
needs(N.AREA_ON_MEDIAN, "M midpoint B C\nm line A M\nP point_on m at=3,4", areas("ABP", "ACP"))
needs(N.AREA_OF_EQUAL_BASES, "h line A B\nk circle B A\nD intersection k h other_than=A", areas("ABC", "BCD"))
needs(N.AREA_OF_CONGRUENT, KITE, areas("ABC", "ACD"), N.SSS)
needs(N.INTERCEPT_PARALLELS, HALVED, ratio("MP", "BC", 1, 2), N.RATIO_OF_HALVES)


def test_every_rule_with_premises_is_in_the_table():
    assert set(NEEDED) == {name for name, rule in RULES.items() if rule.premises and name != N.RIGHT_ANGLES}


@pytest.mark.parametrize("rule", NEEDED, ids=str)
def test_a_rule_is_needed_in_its_figure(rule):
    lines, wanted, besides = NEEDED[rule]
    others = frozenset(N) - besides
    assert known_of(lines, others - {rule}, wanted)[0].knows(wanted)
    assert not known_of(lines, others, wanted)[0].knows(wanted)
