"""The rules of proofs, one row per theorem: premises, conclusion, what is read off the figure, place in the Elements.

In a pattern, capital letters stand for points and small ones for lines or circles. What a row reads off the figure
holds in every sampled position: ``between V A B`` (V lies between A and B), ``opposite A D B C`` (A and D lie on
different sides of the line BC), ``same_side A D B C``, ``distinct A B``, ``apart A B C`` (not in a row),
``same_way B C P`` (B and C lie on one side of P), ``unequal A B C`` (AB and AC differ); by its making, a line is
``bisector l A B`` of a segment, or ``bisects l A V B``, and a circle has ``centre O k`` and ``radius k A B``.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property
from math import gcd, prod
from typing import Literal, assert_never

from ..plane.rows import complete
from .facts import Fact, Rel, Term, fact
from .rule_names import RuleName as RuleName

Bindings = Mapping[str, Term]
Parts = Literal["product", "sum", "rest", "quotient"]
Pattern = tuple[str, tuple[str, ...]]


@dataclass(frozen=True)
class Rule:
    """A row: premises and conclusion as patterns, what is read off the ``figure``, the place in the ``elements``.

    ``degrees``: where sizes of angles are put together, a constant and a factor for each angle of the premises; their
    sum is the size that is concluded, or must be ``makes``. ``parts``: how the ratios of the premises are put together.
    """

    name: RuleName
    premises: str = ""
    conclusion: str = ""
    figure: str = ""
    elements: str = ""
    degrees: tuple[float, ...] = ()
    makes: int | None = None
    parts: Parts = "product"

    @cached_property
    def premise_patterns(self) -> tuple[Pattern, ...]:
        """What must be known."""
        return patterns(self.premises)

    @cached_property
    def conclusion_pattern(self) -> Pattern:
        """What follows."""
        return patterns(self.conclusion)[0]

    @cached_property
    def figure_patterns(self) -> tuple[Pattern, ...]:
        """What is read off the figure."""
        return patterns(self.figure)


def concluded(rule: Rule, bindings: Bindings, premises: Sequence[Fact]) -> Fact | None:
    """What a rule says of these points, with its numbers; None where the numbers of the premises do not fit.

    ``premises``: as in the row, ratios and angles with their numbers; a right angle is one of 90 degrees.
    """
    said = bound(rule.conclusion_pattern, bindings)
    if rule.degrees:
        sizes = [size_of(one) for one in premises if one.rel in (Rel.ANGLE, Rel.RIGHT_ANGLE)]
        counted = sizes[len(sizes) - len(rule.degrees) + 1 :]
        constant, *factors = map(Fraction, rule.degrees)
        size = constant + sum(factor * one for factor, one in zip(factors, counted, strict=True))
        if rule.makes is not None:
            return said if size == rule.makes else None
        return replace(said, ratio=size.as_integer_ratio()) if 0 < size < 180 else None
    if said.rel is Rel.RATIO and said.ratio is None:
        found = ratio_of(rule, premises)
        if found is None or found == 1:
            return None if found is None else fact(Rel.EQUAL_LENGTH, *said.of)
        return with_ratio(said, found.as_integer_ratio())
    return said


def size_of(one: Fact) -> Fraction:
    """The degrees of an angle."""
    return Fraction(90) if one.ratio is None else Fraction(*one.ratio)


def ratio_of(rule: Rule, premises: Sequence[Fact]) -> Fraction | None:
    """The ratio that a rule concludes from those that it rests on; equal lengths are one to one. None for none."""
    if rule.parts == "product":
        return prod((Fraction(*one.ratio) for one in premises if one.ratio is not None), start=Fraction(1))
    first, second = (Fraction(*(one.ratio or (1, 1))) for one in premises[:2])
    match rule.parts:
        case "sum":
            return 1 / (1 / first + 1 / second)
        case "rest":
            return 1 / (1 / first - 1 / second) if first < second else None
        case "quotient":
            return second / first
    assert_never(rule.parts)


def patterns(text: str) -> tuple[Pattern, ...]:
    """Patterns as they are written, with commas between."""
    return tuple((words[0], tuple(words[1:])) for part in text.split(",") if (words := part.split()))


def bound(pattern: Pattern, bindings: Bindings) -> Fact:
    """The fact that a pattern says of these points and lines."""
    terms = (term_of(word, bindings) for word in pattern[1])
    if pattern[0] in PARTS:
        return fact(Rel.RATIO, *terms, ratio=PARTS[pattern[0]])
    return fact(Rel(pattern[0]), *terms)


PARTS = {"half": (1, 2), "third": (1, 3), "two_thirds": (2, 3)}
"""Ratios of the first length of a pattern to the second."""


def with_ratio(one: Fact, ratio: tuple[int, int]) -> Fact:
    """A ratio of lengths with its numbers, in lowest terms, the smaller first."""
    shared = gcd(*ratio)
    return fact(one.rel, *one.of, ratio=(ratio[0] // shared, ratio[1] // shared))


def term_of(word: str, bindings: Bindings) -> Term:
    """A word of a pattern with its letters bound: one letter is a name or a line, several are a list of points."""
    if len(word) == 1:
        return bindings[word]
    return tuple(str(bindings[letter]) for letter in word)


N = RuleName
ROWS = (
    Rule(
        N.SSS, "equal_length AB DE, equal_length BC EF, equal_length CA FD", "congruent ABC DEF", "apart A B C", "I.8"
    ),
    Rule(
        N.SAS, "equal_length AB DE, equal_angle ABC DEF, equal_length BC EF", "congruent ABC DEF", "apart A B C", "I.4"
    ),
    Rule(
        N.ASA,
        "equal_angle CAB FDE, equal_length AB DE, equal_angle ABC DEF",
        "congruent ABC DEF",
        "apart A B C",
        "I.26",
    ),
    Rule(
        N.AAS,
        "equal_angle CAB FDE, equal_angle ABC DEF, equal_length BC EF",
        "congruent ABC DEF",
        "apart A B C",
        "I.26",
    ),
    Rule(
        N.RHS,
        "right_angle ABC, right_angle DEF, equal_length CA FD, equal_length AB DE",
        "congruent ABC DEF",
        "",
        "I.47",
    ),
    Rule(N.CONGRUENT_SIDES, "congruent ABC DEF", "equal_length AB DE", "", "I.4"),
    Rule(N.CONGRUENT_ANGLES, "congruent ABC DEF", "equal_angle ABC DEF", "", "I.4"),
    Rule(N.ISOSCELES, "equal_length AB AC", "equal_angle ABC ACB", "apart A B C", "I.5"),
    Rule(N.ISOSCELES_CONVERSE, "equal_angle ABC ACB", "equal_length AB AC", "apart A B C", "I.6"),
    Rule(N.BISECTOR_LINE, "equal_length PA PB, equal_length QA QB", "perpendicular PQ AB", "distinct P Q", "I.12"),
    Rule(
        N.KITE,
        "equal_length AB AD, equal_length CB CD",
        "equal_angle BAC CAD",
        "apart A B C, apart B C D, apart D A B",
        "I.9",
    ),
    Rule(N.MEDIAN_OF_ISOSCELES, "equal_length AB AC, midpoint M B C", "equal_angle BAM MAC", "apart A B C", "I.8"),
    Rule(
        N.BISECTOR_FOOT,
        "equal_length PA PB, equal_length QA QB, collinear P Q M, collinear A B M",
        "midpoint M A B",
        "distinct P Q",
        "I.10",
    ),
    Rule(N.BISECTOR_POINT, "midpoint M A B, perpendicular PM AB", "equal_length PA PB", "", "I.4"),
    Rule(
        N.BISECTOR_THIRD,
        "equal_length PA PB, equal_length QA QB, collinear P Q R",
        "equal_length RA RB",
        "distinct P Q",
        "I.4",
    ),
    Rule(N.PERPENDICULAR_FROM_APEX, "equal_length PA PB, perpendicular PQ AB", "equal_length QA QB", "", "I.12, III.3"),
    Rule(
        N.PERPENDICULAR_TO_BISECTOR,
        "perpendicular XY l, collinear V A X, collinear V B Y",
        "equal_length VX VY",
        "bisects l A V B, apart A V B",
        "I.26",
    ),
    Rule(
        N.BISECTOR_THREE,
        "equal_length PA PB, equal_length QA QB, equal_length RA RB",
        "collinear P Q R",
        "distinct A B",
        "I.10",
    ),
    Rule(N.ON_BISECTOR, "equal_length PA PB", "on P l", "bisector l A B", "I.10"),
    Rule(N.OF_BISECTOR, "on P l", "equal_length PA PB", "bisector l A B", "I.4"),
    Rule(
        N.MIRRORED,
        "perpendicular AB l, perpendicular CD l",
        "equal_length AC BD",
        "bisector l A B, bisector l C D",
        "I.4",
    ),
    Rule(
        N.MIRRORED_BY_AXIS,
        "equal_length NC ND, on N l, perpendicular CD l",
        "equal_length AC BD",
        "bisector l A B, distinct C D",
        "I.4",
    ),
    Rule(N.ALTITUDES, "perpendicular AH BC, perpendicular CH AB", "perpendicular BH AC", "apart A B C, distinct B H"),
    Rule(N.HALVES_OF_EQUALS, "midpoint M A B, midpoint N C D, equal_length AB CD", "equal_length MA NC"),
    Rule(N.DOUBLES_OF_EQUALS, "midpoint M A B, midpoint N C D, equal_length MA NC", "equal_length AB CD"),
    Rule(N.HALF_OF_SIDE, "midpoint M A B, midpoint N A C", "half MN BC", "apart A B C", "VI.2"),
    Rule(N.HALVES, "half AB CD, half EF GH, equal_length CD GH", "equal_length AB EF", "", "I, common notion 3"),
    Rule(N.DOUBLES, "half AB CD, half EF GH, equal_length AB EF", "equal_length CD GH", "", "I, common notion 2"),
    Rule(N.MIDPOINT_BY_HALF, "half AM PQ, equal_length PQ AB, collinear A M B", "midpoint M A B", "between M A B"),
    Rule(N.EQUAL_TRIANGLES, "congruent ABC BAD", "parallel AB CD", "same_side C D A B", "I.39"),
    Rule(N.AREA_BETWEEN_PARALLELS, "parallel AB CD", "equal_area ABC ABD", "apart A B C, distinct C D", "I.37"),
    Rule(N.AREA_BY_MEDIAN, "midpoint M B C", "equal_area ABM ACM", "apart A B C", "I.38"),
    Rule(
        N.AREA_ON_MEDIAN, "midpoint M B C, collinear A S M", "equal_area ABS ACS", "apart A B C, distinct A S", "I.38"
    ),
    Rule(
        N.AREA_OF_EQUAL_BASES,
        "equal_length AB CD, collinear A B C, collinear A B D",
        "equal_area ABP CDP",
        "apart A B P",
        "I.38",
    ),
    Rule(N.AREA_OF_CONGRUENT, "congruent ABC DEF", "equal_area ABC DEF", "", "I.4"),
    Rule(N.MIDPOINT, "equal_length MA MB, collinear A M B", "midpoint M A B", "distinct A B"),
    Rule(N.ALTERNATE, "parallel AB CD", "equal_angle ABC BCD", "opposite A D B C", "I.29"),
    Rule(N.ALTERNATE_CONVERSE, "equal_angle ABC BCD", "parallel AB CD", "opposite A D B C", "I.27"),
    Rule(
        N.CORRESPONDING,
        "parallel BA CD, collinear P B C",
        "equal_angle PBA PCD",
        "same_side A D B C, same_way B C P",
        "I.29",
    ),
    Rule(
        N.CORRESPONDING_CONVERSE,
        "equal_angle PBA PCD, collinear P B C",
        "parallel BA CD",
        "same_side A D B C, same_way B C P",
        "I.28",
    ),
    Rule(
        N.PARALLELOGRAM_BY_SIDES,
        "equal_length AB CD, equal_length BC DA",
        "parallel AB CD",
        "opposite A C B D, opposite B D A C",
        "I.34",
    ),
    Rule(
        N.PARALLELOGRAM_BY_ONE_PAIR,
        "equal_length AB CD, parallel AB CD",
        "parallel BC DA",
        "opposite A C B D, opposite B D A C",
        "I.33",
    ),
    Rule(N.RHOMBUS, "equal_length AB BC CD DA", "parallel AB CD", "distinct A C, distinct B D", "I.34"),
    Rule(N.RECTANGLE_SIDES, "right_angle ABC, right_angle BCD, right_angle CDA", "equal_length AB CD", elements="I.34"),
    Rule(
        N.RECTANGLE_DIAGONALS,
        "right_angle ABC, right_angle BCD, right_angle CDA",
        "equal_length AC BD",
        elements="I.34",
    ),
    Rule(N.PARALLELOGRAM_SIDES, "parallel AB CD, parallel BC DA", "equal_length AB CD", "apart A B C", "I.34"),
    Rule(N.PARALLELOGRAM_BY_DIAGONALS, "midpoint M A C, midpoint M B D", "parallel AB CD", "apart A B C", "I.34"),
    Rule(
        N.DIAGONALS,
        "parallel AB CD, parallel BC DA, collinear A M C, collinear B M D",
        "midpoint M A C",
        "apart A B C",
        "I.34",
    ),
    Rule(N.MIDLINE, "midpoint M A B, midpoint N A C", "parallel MN BC", "apart A B C", "VI.2"),
    Rule(
        N.MIDLINE_CONVERSE, "midpoint M A B, parallel MN BC, collinear A N C", "midpoint N A C", "apart A B C", "VI.2"
    ),
    Rule(
        N.TRAPEZIUM_MIDLINE,
        "midpoint M A D, midpoint N B C, parallel AB DC",
        "parallel MN AB",
        "distinct M N, same_side D C A B",
        "VI.2",
    ),
    Rule(
        N.THALES, "equal_length OA OB, equal_length OA OC, collinear A O B", "right_angle ACB", "distinct A B", "III.31"
    ),
    Rule(N.THALES_CONVERSE, "right_angle ACB, midpoint O A B", "equal_length OA OC", "", "III.31"),
    Rule(
        N.VERTICAL,
        "collinear A V C, collinear B V D",
        "equal_angle AVB CVD",
        "between V A C, between V B D",
        "I.15",
    ),
    Rule(
        N.SUPPLEMENTS,
        "equal_angle AVB CWD, collinear A V E, collinear C W F",
        "equal_angle EVB FWD",
        "between V A E, between W C F",
        "I.13",
    ),
    Rule(N.RIGHT_ANGLES, "right_angle ABC, right_angle DEF", "equal_angle ABC DEF", "", "I, postulate 4"),
    Rule(N.RIGHT_BY_EQUAL, "equal_angle ABC DEF, right_angle DEF", "right_angle ABC", "", "I, definition 10"),
    Rule(
        N.RIGHT_BY_HALVES,
        "equal_angle AVB BVC, collinear A V C",
        "right_angle AVB",
        "between V A C",
        "I, definition 10",
    ),
    Rule(
        N.COMMON_ANGLE,
        "equal_angle AVB EVF",
        "equal_angle AVE BVF",
        "turned_alike A V B E V F",
        "I, common notions 2 and 3",
    ),
    Rule(
        N.ADDED_ANGLES,
        "equal_angle AVB DWE, equal_angle BVC EWF",
        "equal_angle AVC DWF",
        "turned_together A V B D W E B V C E W F",
        "I, common notions 2 and 3",
    ),
    Rule(
        N.THIRD_ANGLE,
        "equal_angle CAB FDE, equal_angle ABC DEF",
        "equal_angle BCA EFD",
        "apart A B C, apart D E F",
        "I.32",
    ),
    Rule(N.EQUILATERAL, "equal_length AB BC CA", "angle ABC", "apart A B C", "I.5, I.32", degrees=(60,)),
    Rule(N.ANGLE_SUM, "angle CAB, angle ABC", "angle BCA", "apart A B C", "I.32", degrees=(180, -1, -1)),
    Rule(
        N.EXTERIOR_ANGLE,
        "angle CAB, angle ABC, collinear B C D",
        "angle ACD",
        "apart A B C, between C B D",
        "I.32",
        degrees=(0, 1, 1),
    ),
    Rule(N.BASE_ANGLE, "equal_length AB AC, angle BAC", "angle ABC", "apart A B C", "I.5, I.32", degrees=(90, -0.5)),
    Rule(N.APEX_ANGLE, "equal_length AB AC, angle ABC", "angle BAC", "apart A B C", "I.5, I.32", degrees=(180, -2)),
    Rule(
        N.ANGLES_ON_A_LINE,
        "angle AVB, collinear A V C",
        "angle BVC",
        "between V A C, apart A V B",
        "I.13",
        degrees=(180, -1),
    ),
    Rule(N.ANGLE_OF_PARTS, "angle AVB, angle BVC", "angle AVC", "inside B V A C", degrees=(0, 1, 1)),
    Rule(N.REST_OF_ANGLE, "angle AVC, angle AVB", "angle BVC", "inside B V A C", degrees=(0, 1, -1)),
    Rule(N.HALF_ANGLE, "equal_angle AVB BVC, angle AVC", "angle AVB", "inside B V A C", degrees=(0, 0.5)),
    Rule(N.RIGHT_BY_SIZE, "angle AVB", "right_angle AVB", "", "", degrees=(0, 1), makes=90),
    Rule(
        N.STRAIGHT_ANGLE,
        "angle AVB, angle BVC",
        "collinear A V C",
        "opposite A C B V",
        "I.14",
        degrees=(0, 1, 1),
        makes=180,
    ),
    Rule(N.CO_INTERIOR, "parallel AB CD, angle ABC", "angle BCD", "same_side A D B C", "I.29", degrees=(180, -1)),
    Rule(
        N.CO_INTERIOR_CONVERSE,
        "angle ABC, angle BCD",
        "parallel AB CD",
        "same_side A D B C",
        "I.28",
        degrees=(0, 1, 1),
        makes=180,
    ),
    Rule(
        N.HALF_OF_CENTRAL,
        "equal_length OA OB OC, angle AOB",
        "angle ACB",
        "same_side O C A B",
        "III.20",
        degrees=(0, 0.5),
    ),
    Rule(
        N.HALF_OF_CENTRAL_FAR,
        "equal_length OA OB OC, angle AOB",
        "angle ACB",
        "opposite O C A B",
        "III.20, III.22",
        degrees=(180, -0.5),
    ),
    Rule(N.CENTRAL, "equal_length OA OB OC, angle ACB", "angle AOB", "same_side O C A B", "III.20", degrees=(0, 2)),
    Rule(
        N.CENTRAL_FAR,
        "equal_length OA OB OC, angle ACB",
        "angle AOB",
        "opposite O C A B",
        "III.20, III.22",
        degrees=(360, -2),
    ),
    Rule(N.THIRTY, "right_angle ACB, midpoint M A B, equal_length AC AM", "angle ABC", "apart A B C", degrees=(30,)),
    Rule(N.OPPOSITE_THIRTY, "right_angle ACB, angle ABC", "half AC AB", "apart A B C", degrees=(0, 1), makes=30),
    Rule(
        N.QUARTER_TURN,
        "equal_length AD AB, equal_length AC AE, right_angle DAB, right_angle CAE",
        "perpendicular DC BE",
        "turned_alike D A B C A E, distinct D C",
    ),
    Rule(
        N.INCENTRE,
        "equal_angle ABI IBC, equal_angle BCI ICA",
        "equal_angle BAI IAC",
        "inside I B A C, inside I C A B",
        "IV.4",
    ),
    Rule(
        N.SUPPLEMENTARY_BISECTORS,
        "equal_angle AVX XVB, equal_angle BVY YVC, collinear A V C",
        "right_angle XVY",
        "between V A C, apart A V B",
        "I.13",
    ),
    Rule(
        N.CO_INTERIOR_BISECTORS,
        "parallel AP BQ, equal_angle PAX XAB, equal_angle ABX XBQ",
        "right_angle AXB",
        "same_side P Q A B",
        "I.29, I.32",
    ),
    Rule(N.ONE_ANGLE, "equal_angle BAC BAD", "collinear A C D", "same_side C D A B, distinct C D", "I.23"),
    Rule(
        N.OUTER_BISECTOR,
        "perpendicular VX l, collinear A V C",
        "equal_angle BVX XVC",
        "bisects l A V B, between V A C, inside X V B C",
        "I.13",
    ),
    Rule(
        N.BISECTOR_BESIDE_ISOSCELES,
        "equal_length AB AC, collinear B A D, equal_angle DAX XAC",
        "parallel AX BC",
        "between A B D, inside X A D C",
        "I.32, I.28",
    ),
    Rule(
        N.BISECTOR_AT_ARC,
        "equal_angle BAN NAC, equal_length NB NC, on A k, on B k, on C k",
        "on N k",
        "opposite A N B C, unequal A B C",
        "III.26, III.29",
    ),
    Rule(
        N.EQUAL_CHORDS,
        "on A k, on B k, on C k, on D k, equal_length AB CD, midpoint M A B, on M i",
        "tangent i CD",
        "centre O k, centre O i, distinct A B",
        "III.14",
    ),
    Rule(
        N.MIRRORED_ROW,
        "collinear A B C",
        "collinear D E F",
        "bisector l A D, bisector l B E, bisector l C F",
        "I.4",
    ),
    Rule(N.INSCRIBED, "concyclic A B C D", "equal_angle ACB ADB", "same_side C D A B", "III.21"),
    Rule(
        N.ONE_CIRCLE,
        "equal_angle ACB ADB, on A k, on B k, on C k",
        "on D k",
        "same_side C D A B",
        "III.21",
    ),
    Rule(N.AS_FAR_AS_A_RADIUS, "equal_length OP AB", "on P k", "centre O k, radius k A B", "I, definition 15"),
    Rule(
        N.OPPOSITE_ANGLES,
        "on A k, on B k, on C k, on D k, angle ABC",
        "angle ADC",
        "opposite B D A C",
        "III.22",
        degrees=(180, -1),
    ),
    Rule(
        N.TANGENT_CHORD,
        "tangent k AT, on A k, on B k, on C k",
        "equal_angle TAB ACB",
        "opposite T C A B",
        "III.32",
    ),
    Rule(N.TANGENT_RADIUS, "tangent k l, on T k, on T l", "perpendicular OT l", "centre O k", "III.18"),
    Rule(
        N.EQUAL_TANGENTS,
        "tangent k PA, tangent k PB, on A k, on B k",
        "equal_length PA PB",
        "distinct A B",
        "III.36",
    ),
    Rule(N.TANGENT, "on T k, on T l, perpendicular OT l", "tangent k l", "centre O k", "III.16"),
    Rule(
        N.TANGENT_BY_LENGTH,
        "equal_length OT OR, on R k, on T l, perpendicular OT l",
        "tangent k l",
        "centre O k",
        "III.16",
    ),
    Rule(
        N.TANGENT_AT_APEX,
        "on P k, on Q k, on R k, on P l, equal_length PQ PR, parallel QR l",
        "tangent k l",
        "apart P Q R",
        "III.16",
    ),
    Rule(
        N.TANGENT_TO_BOTH_LEGS,
        "tangent k AB, equal_angle BAO OAC",
        "tangent k AC",
        "centre O k, inside O A B C",
        "IV.4",
    ),
    Rule(
        N.TOUCHING_CIRCLES,
        "on T k, on T m, collinear O P T",
        "tangent k m",
        "centre O k, centre P m, distinct O P",
        "III.11, III.12",
    ),
    Rule(
        N.TANGENT_BY_SIMILITUDE,
        "tangent k l, on H l, collinear H O P, collinear H A Q, parallel OA PQ, on A k, on Q m",
        "tangent m l",
        "centre O k, centre P m, apart H O A",
        "VI.2",
    ),
    Rule(N.RATIO_OF_HALVES, "midpoint M A B", "half AM AB"),
    Rule(N.RATIO_OF_EQUALS, "ratio AB CD, equal_length AB EF, equal_length CD GH", "ratio EF GH", "", "V.7"),
    Rule(N.RATIO_CHAIN, "ratio AP AM, ratio AM AB", "ratio AP AB", elements="V.22"),
    Rule(
        N.RATIO_OF_PARTS,
        "ratio UV AB, ratio UV BC, collinear A B C",
        "ratio UV AC",
        "between B A C",
        "V.24",
        parts="sum",
    ),
    Rule(
        N.RATIO_OF_REST,
        "ratio UV AC, ratio UV AB, collinear A B C",
        "ratio UV BC",
        "between B A C",
        "V.19",
        parts="rest",
    ),
    Rule(N.RATIO_BY_UNIT, "ratio UV AB, ratio UV CD", "ratio AB CD", elements="V.15", parts="quotient"),
    Rule(
        N.INTERCEPT_PARALLELS,
        "ratio AC AE, parallel CP EB, collinear A C E, collinear A P B",
        "ratio CP EB",
        "apart A B C",
        "VI.4",
    ),
    Rule(
        N.EQUAL_PARTS,
        "equal_length AC CD, equal_length CD DE, collinear A C D, collinear C D E",
        "third AC AE",
        "between C A D, between D C E",
        "V.1",
    ),
    Rule(
        N.INTERCEPT,
        "ratio AC AE, parallel CP EB, collinear A C E, collinear A P B",
        "ratio AP AB",
        "apart A B C",
        "VI.2",
    ),
    Rule(
        N.INTERCEPT_REST,
        "ratio EC EA, parallel CP EB, collinear A C E, collinear A P B",
        "ratio BP BA",
        "apart A B C",
        "VI.2",
    ),
    Rule(
        N.MEDIANS,
        "midpoint M B C, midpoint N A C, collinear A S M, collinear B S N",
        "two_thirds AS AM",
        "apart A B C",
        "VI.2",
    ),
    Rule(
        N.MEDIANS_THIRD,
        "midpoint M B C, midpoint N A C, collinear A S M, collinear B S N",
        "third MS MA",
        "apart A B C",
        "VI.2",
    ),
    Rule(
        N.MEDIANS_PARTS,
        "midpoint M B C, midpoint N A C, collinear A S M, collinear B S N",
        "half MS AS",
        "apart A B C",
        "VI.2",
    ),
    Rule(
        N.MEDIAN_THROUGH,
        "midpoint M A B, midpoint N B C, third MS MC, collinear M S C",
        "collinear A S N",
        "apart A B C, between S M C",
        "VI.2",
    ),
    Rule(
        N.CENTRE,
        "equal_length OA OB OC, on A k, on B k, on C k, on D k",
        "equal_length OA OD",
        "apart A B C",
        "III.9",
    ),
    Rule(
        N.CENTRE_OF_DIAMETER,
        "on A k, on B k, on C k, on P k, on Q k, equal_length PA PB, equal_length QA QB, midpoint O P Q",
        "equal_length OP OC",
        "distinct A B, distinct P Q",
        "III.1",
    ),
    Rule(
        N.EQUAL_STRIPS,
        "midpoint O R T, parallel RA OM, parallel TB OM, collinear A M B",
        "midpoint M A B",
        "apart R A B, distinct O M",
        "VI.2",
    ),
    Rule(
        N.CEVA_PARALLEL,
        "midpoint M A B, collinear S A C, collinear S B D, collinear S M X, collinear A D X, collinear B C X",
        "parallel AB CD",
        "apart S A B, distinct C D, distinct A C, distinct B D, distinct S C",
    ),
    Rule(
        N.CEVA_MIDPOINT,
        "parallel AB CD, collinear S A C, collinear S B D, collinear A D X, collinear B C X, collinear S X M,"
        " collinear A M B",
        "midpoint M A B",
        "apart S A B, distinct A C, distinct S C",
    ),
    Rule(
        N.SIMILAR_ISOSCELES,
        "equal_length FA FM, equal_length CA CF, collinear A M C",
        "similar AFM ACF",
        "apart A C F, same_way M C A",
        "VI.4",
    ),
    Rule(
        N.SIMILAR_ANGLES,
        "equal_angle CAB FDE, equal_angle ABC DEF",
        "similar ABC DEF",
        "apart A B C, apart D E F",
        "VI.4",
    ),
    Rule(N.SIMILAR_SIDES, "similar ABC DEF, ratio PQ DE, equal_length PQ AB", "ratio AC DF", "", "VI.4"),
    Rule(
        N.HEXAGON_SIDE,
        "equal_length OA AB OB OC CD OD, collinear A O D",
        "equal_length BC OB",
        "between O A D, same_side B C A D",
        "IV.15",
    ),
    Rule(
        N.HEXAGON_LINE,
        "equal_length OA AB OB BC OC CD OD",
        "collinear A O D",
        "opposite A C O B, opposite B D O C",
        "IV.15",
    ),
    Rule(
        N.HEXAGON_TRIANGLE,
        "equal_length OA OB OC OD BD CD, collinear A O D",
        "equal_length AB BC",
        "between O A D, opposite B C A D",
        "IV.15",
    ),
    Rule(N.ONE_PERPENDICULAR, "parallel AB AC", "collinear A B C", "", "I, postulate 5"),
    Rule(N.ONE_PARALLEL, "parallel AB l, on A l", "on B l", "distinct A B", "I, postulate 5"),
    Rule(N.TRANSITIVE, "", "", "", "I, common notion 1"),
    Rule(N.SAME_LINE, "", "", ""),
    Rule(N.DIRECTIONS, "", "", "", "I.28 to I.30"),
    Rule(N.ON_CURVE, "", "", "", "I, definition 15"),
    Rule(N.ONE_POINT, "", "", ""),
    Rule(N.EQUALLY_FAR, "", "", "", "I.26"),
    Rule(N.THERE_IS_ONE, "", "", ""),
    Rule(N.BY_CONSTRUCTION, "", "", ""),
    Rule(N.RADII, "", "", "", "I, definition 15"),
)

RULES: dict[str, Rule] = complete("RULES", RuleName, {row.name: row for row in ROWS})
