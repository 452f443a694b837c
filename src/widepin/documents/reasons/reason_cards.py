"""The reasons of proofs as cards: what each says, its figure, its place in the Elements, and its converse."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cache

from ...plane.rows import complete
from ...reason.rules import RULES, Pattern, Rule, RuleName, bound
from ..language import gettext as _
from ..language import marked
from ..wording.words import listed
from .proof_words import FIGURE_WORDS, REASON_WORDS, fact_in_words
from .reason_pictures import picture_of
from .reason_proofs import OWN_PROOFS

N = RuleName

TOPICS: dict[str, tuple[RuleName, ...]] = {
    marked("Triangles"): (N.SAS, N.SSS, N.ASA, N.AAS, N.RHS, N.CONGRUENT_SIDES, N.CONGRUENT_ANGLES),
    marked("Isosceles triangles"): (
        *(N.ISOSCELES, N.ISOSCELES_CONVERSE, N.MEDIAN_OF_ISOSCELES, N.KITE, N.EQUILATERAL, N.BASE_ANGLE, N.APEX_ANGLE),
        N.BISECTOR_BESIDE_ISOSCELES,
    ),
    marked("Perpendiculars and bisectors"): (
        *(N.BISECTOR_POINT, N.ON_BISECTOR, N.OF_BISECTOR, N.BISECTOR_LINE, N.BISECTOR_FOOT, N.BISECTOR_THIRD),
        *(N.PERPENDICULAR_FROM_APEX, N.PERPENDICULAR_TO_BISECTOR, N.MIRRORED_BY_AXIS, N.HALVES),
        *(N.BISECTOR_THREE, N.MIRRORED, N.MIRRORED_ROW, N.ALTITUDES, N.MIDPOINT, N.HALVES_OF_EQUALS),
        *(N.DOUBLES_OF_EQUALS, N.DOUBLES, N.MIDPOINT_BY_HALF, N.INCENTRE, N.EQUALLY_FAR, N.QUARTER_TURN),
    ),
    marked("Angles"): (
        *(N.VERTICAL, N.SUPPLEMENTS, N.ANGLES_ON_A_LINE, N.STRAIGHT_ANGLE, N.RIGHT_ANGLES, N.RIGHT_BY_EQUAL),
        *(N.RIGHT_BY_HALVES, N.RIGHT_BY_SIZE, N.COMMON_ANGLE, N.ADDED_ANGLES, N.ANGLE_OF_PARTS, N.REST_OF_ANGLE),
        *(N.HALF_ANGLE, N.ONE_ANGLE, N.SUPPLEMENTARY_BISECTORS, N.OUTER_BISECTOR),
    ),
    marked("Parallels"): (
        *(N.ALTERNATE_CONVERSE, N.CORRESPONDING_CONVERSE, N.CO_INTERIOR_CONVERSE, N.ALTERNATE, N.CORRESPONDING),
        *(N.CO_INTERIOR, N.CO_INTERIOR_BISECTORS, N.ONE_PERPENDICULAR, N.ONE_PARALLEL, N.DIRECTIONS),
    ),
    marked("Angle sums"): (N.ANGLE_SUM, N.EXTERIOR_ANGLE, N.THIRD_ANGLE, N.THIRTY, N.OPPOSITE_THIRTY),
    marked("Parallelograms and areas"): (
        *(N.PARALLELOGRAM_BY_ONE_PAIR, N.PARALLELOGRAM_BY_SIDES, N.PARALLELOGRAM_SIDES),
        *(N.PARALLELOGRAM_BY_DIAGONALS, N.DIAGONALS, N.RHOMBUS, N.RECTANGLE_SIDES, N.RECTANGLE_DIAGONALS),
        N.EQUAL_TRIANGLES,
        *(N.AREA_BETWEEN_PARALLELS, N.AREA_BY_MEDIAN, N.AREA_ON_MEDIAN, N.AREA_OF_EQUAL_BASES, N.AREA_OF_CONGRUENT),
    ),
    marked("Chords and tangents"): (
        *(N.RADII, N.AS_FAR_AS_A_RADIUS, N.CENTRE_OF_DIAMETER, N.CENTRE, N.TOUCHING_CIRCLES, N.EQUAL_CHORDS, N.TANGENT),
        *(N.TANGENT_RADIUS, N.EQUAL_TANGENTS),
        *(N.TANGENT_BY_LENGTH, N.TANGENT_AT_APEX, N.TANGENT_TO_BOTH_LEGS, N.TANGENT_BY_SIMILITUDE, N.ON_CURVE),
    ),
    marked("Angles in circles"): (
        *(N.HALF_OF_CENTRAL, N.HALF_OF_CENTRAL_FAR, N.CENTRAL, N.CENTRAL_FAR, N.INSCRIBED, N.BISECTOR_AT_ARC),
        *(N.ONE_CIRCLE, N.OPPOSITE_ANGLES, N.TANGENT_CHORD),
        *(N.THALES, N.THALES_CONVERSE, N.HEXAGON_SIDE, N.HEXAGON_LINE, N.HEXAGON_TRIANGLE),
    ),
    marked("Ratios and similar triangles"): (
        *(N.MIDLINE, N.MIDLINE_CONVERSE, N.HALF_OF_SIDE, N.EQUAL_STRIPS, N.INTERCEPT, N.INTERCEPT_REST),
        *(N.TRAPEZIUM_MIDLINE, N.SIMILAR_ANGLES),
        *(N.INTERCEPT_PARALLELS, N.MEDIANS, N.MEDIANS_PARTS, N.MEDIANS_THIRD, N.MEDIAN_THROUGH, N.CEVA_PARALLEL),
        *(N.CEVA_MIDPOINT, N.SIMILAR_ISOSCELES, N.SIMILAR_SIDES, N.RATIO_OF_HALVES, N.EQUAL_PARTS),
        *(N.RATIO_OF_EQUALS, N.RATIO_CHAIN, N.RATIO_OF_PARTS, N.RATIO_OF_REST, N.RATIO_BY_UNIT),
    ),
    marked("What is taken as given"): (N.TRANSITIVE, N.SAME_LINE, N.ONE_POINT, N.THERE_IS_ONE, N.BY_CONSTRUCTION),
}
"""The rules by what they are about; in each topic what comes first in the Elements is first."""

TOPIC_OF: dict[str, str] = complete(
    "TOPIC_OF", RuleName, {name: topic for topic, names in TOPICS.items() for name in names}
)
"""The topic of each rule."""

CONVERSES = {
    one: other
    for pair in (
        (N.ISOSCELES, N.ISOSCELES_CONVERSE),
        (N.ON_BISECTOR, N.OF_BISECTOR),
        (N.ALTERNATE, N.ALTERNATE_CONVERSE),
        (N.CORRESPONDING, N.CORRESPONDING_CONVERSE),
        (N.CO_INTERIOR, N.CO_INTERIOR_CONVERSE),
        (N.PARALLELOGRAM_BY_SIDES, N.PARALLELOGRAM_SIDES),
        (N.PARALLELOGRAM_BY_DIAGONALS, N.DIAGONALS),
        (N.ANGLES_ON_A_LINE, N.STRAIGHT_ANGLE),
        (N.HALVES_OF_EQUALS, N.DOUBLES_OF_EQUALS),
        (N.MIDLINE, N.MIDLINE_CONVERSE),
        (N.TANGENT, N.TANGENT_RADIUS),
        (N.INSCRIBED, N.ONE_CIRCLE),
        (N.THALES, N.THALES_CONVERSE),
        (N.THIRTY, N.OPPOSITE_THIRTY),
        (N.HALF_OF_CENTRAL, N.CENTRAL),
        (N.HALF_OF_CENTRAL_FAR, N.CENTRAL_FAR),
        (N.MEDIANS_THIRD, N.MEDIAN_THROUGH),
    )
    for one, other in (pair, pair[::-1])
}

PLAIN: dict[str, str] = {
    N.TRANSITIVE: marked("Things that are equal to the same thing are equal to each other."),
    N.SAME_LINE: marked("Points of which each lies on one line lie in a row."),
    N.DIRECTIONS: marked(
        "Parallels of one line are parallel to each other, and so are lines that are perpendicular to one line; what is"
        " perpendicular to one parallel is perpendicular to the other."
    ),
    N.ON_CURVE: marked("A point that is as far from the centre of a circle as a radius is long lies on the circle."),
    N.ONE_POINT: marked("Lines that all pass through one point meet there."),
    N.EQUALLY_FAR: marked(
        "A point of the bisector of an angle, or of the angle beside it, is as far from one line as from the other; so"
        " is the midpoint of two points on parallels."
    ),
    N.THERE_IS_ONE: marked(
        "Of some things there is only one: one perpendicular through a point, one midpoint of a segment, one bisector"
        " of an angle. What has all that it must have is that one."
    ),
    N.BY_CONSTRUCTION: marked("A step of the construction says it."),
    N.RADII: marked("All points of a circle are equally far from its centre; circles drawn with one radius are equal."),
    N.RHOMBUS: marked("If AB = BC = CD = DA, then ABCD is a rhombus, and AB ∥ CD."),
    N.RECTANGLE_SIDES: marked("If ABCD has right angles at B, C and D, then it is a rectangle, and AB = CD."),
    N.RECTANGLE_DIAGONALS: marked("If ABCD has right angles at B, C and D, then it is a rectangle, and AC = BD."),
    N.RATIO_OF_EQUALS: marked("If AB = EF and CD = GH, then AB : CD = EF : GH."),
    N.RATIO_CHAIN: marked("The ratio AP : AB is the product of AP : AM and AM : AB."),
    N.RATIO_OF_PARTS: marked("If B lies between A and C, then AC is as many times UV as AB and BC are together."),
    N.RATIO_OF_REST: marked("If B lies between A and C, then BC is as many times UV as AC is more than AB."),
    N.RATIO_BY_UNIT: marked("If AB and CD are multiples of UV, then AB : CD is the ratio of these multiples."),
    N.INTERCEPT: marked("If C lies on AE, P on AB and CP is parallel to EB, then AP : AB = AC : AE."),
    N.INTERCEPT_REST: marked("If C lies on AE, P on AB and CP is parallel to EB, then BP : BA = EC : EA."),
    N.INTERCEPT_PARALLELS: marked("If C lies on AE, P on AB and CP is parallel to EB, then CP : EB = AC : AE."),
    N.SIMILAR_SIDES: marked("If triangles ABC and DEF are similar, then AC : DF = AB : DE."),
}
"""Statements that are no list of premises."""


TITLES: dict[str, str] = {
    N.CONGRUENT_SIDES: marked("Sides of congruent triangles"),
    N.CONGRUENT_ANGLES: marked("Angles of congruent triangles"),
    N.BASE_ANGLE: marked("Base angles by the angle at the apex"),
    N.APEX_ANGLE: marked("The angle at the apex by a base angle"),
    N.BISECTOR_POINT: marked("Perpendicular through a midpoint"),
    N.ON_BISECTOR: marked("Points as far from one end as from the other"),
    N.OF_BISECTOR: marked("Points of a perpendicular bisector"),
    N.BISECTOR_LINE: marked("The line of points equally far from both ends"),
    N.MEDIAN_OF_ISOSCELES: marked("Median of an isosceles triangle"),
    N.KITE: marked("Axis of a kite"),
    N.BISECTOR_BESIDE_ISOSCELES: marked("Bisector beside an isosceles triangle"),
    N.RHOMBUS: marked("Rhombus"),
    N.RECTANGLE_SIDES: marked("Sides of a rectangle"),
    N.RECTANGLE_DIAGONALS: marked("Diagonals of a rectangle"),
    N.AS_FAR_AS_A_RADIUS: marked("A point as far from the centre as a radius"),
    N.BISECTOR_FOOT: marked("The perpendicular bisector halves"),
    N.BISECTOR_THIRD: marked("A third point of the perpendicular bisector"),
    N.BISECTOR_THREE: marked("Points equally far from both ends lie in a row"),
    N.PERPENDICULAR_FROM_APEX: marked("Perpendicular from the apex"),
    N.PERPENDICULAR_TO_BISECTOR: marked("Perpendicular to a bisector"),
    N.MIRRORED_BY_AXIS: marked("Lengths beside an axis"),
    N.HALVES: marked("Halves by the wholes"),
    N.MIDPOINT: marked("Midpoint"),
    N.DOUBLES: marked("Doubles by their halves"),
    N.MIDPOINT_BY_HALF: marked("Half the way along"),
    N.RIGHT_ANGLES: marked("Right angles are equal"),
    N.RIGHT_BY_EQUAL: marked("Angles equal to a right angle"),
    N.RIGHT_BY_SIZE: marked("An angle of 90°"),
    N.OUTER_BISECTOR: marked("Inner and outer bisector"),
    N.SUPPLEMENTARY_BISECTORS: marked("Bisectors of two angles on a line"),
    N.ONE_PARALLEL: marked("One parallel through a point"),
    N.ONE_PERPENDICULAR: marked("One line through a point in a direction"),
    N.CENTRE: marked("Equally far from three points of a circle"),
    N.TOUCHING_CIRCLES: marked("Circles that touch"),
    N.TANGENT: marked("Perpendicular to a radius at its end"),
    N.ONE_CIRCLE: marked("Equal angles over a chord"),
    N.OPPOSITE_ANGLES: marked("Opposite angles in a circle"),
    N.TANGENT_BY_LENGTH: marked("Perpendicular at the distance of a radius"),
    N.TANGENT_AT_APEX: marked("Parallel to a chord through the middle of its arc"),
    N.TANGENT_TO_BOTH_LEGS: marked("A circle with its centre on a bisector"),
    N.TANGENT_BY_SIMILITUDE: marked("Tangent through a centre of similitude"),
    N.ON_CURVE: marked("As far from the centre as a radius is long"),
    N.INTERCEPT_REST: marked("Intercept theorem, for the other parts"),
    N.MEDIANS_PARTS: marked("Two medians: their parts"),
    N.MEDIANS_THIRD: marked("Two medians: a third"),
    N.SAME_LINE: marked("Points of one line"),
    N.ONE_POINT: marked("Lines through one point"),
}
"""What cards are called, where the reason as it is said in a line would not do."""


@dataclass(frozen=True)
class Card:
    """A reason. ``key``: of its rule; ``converse``: of the rule that says the reverse, or empty; ``figure``: as SVG, or
    empty; ``proof``: its own, line by line, where not every class knows the rule as a theorem.
    """

    key: str
    title: str
    topic: str
    elements: str
    statement: str
    figure: str
    converse: str
    proof: tuple[str, ...]

    @property
    def anchor(self) -> str:
        """What stands for it in addresses."""
        return anchor_of(self.key)

    @property
    def converse_anchor(self) -> str:
        """The same of its converse."""
        return anchor_of(self.converse)


def anchor_of(key: str) -> str:
    """What stands for a rule in addresses: base-angles-of-an-isosceles-triangle."""
    return "".join(letter if letter.isalnum() else "-" for letter in key.lower())


@cache
def _figure(key: str) -> str:
    return picture_of(RULES[key])


def card_of(key: str) -> Card:
    """The card of a rule. Raises KeyError for what is no rule."""
    rule, said = RULES[key], _(REASON_WORDS[key])
    converse = CONVERSES.get(RuleName(key), "")
    title = _(TITLES[key]) if key in TITLES else said[:1].upper() + said[1:]
    proof = tuple(map(_, OWN_PROOFS.get(key, ())))
    return Card(key, title, _(TOPIC_OF[key]), rule.elements, statement_of(rule), _figure(key), str(converse), proof)


def card_at(anchor: str) -> Card | None:
    """The card that an address stands for, if there is one."""
    return next((card_of(key) for key in RULES if anchor_of(key) == anchor), None)


def cards() -> list[tuple[str, list[Card]]]:
    """All cards by topic."""
    return [(_(topic), [card_of(name) for name in names]) for topic, names in TOPICS.items()]


def statement_of(rule: Rule) -> str:
    """What a rule says, in its own letters.

    >>> statement_of(RULES[N.ISOSCELES])
    'If AB = AC, then angle ABC = angle ACB.'
    >>> statement_of(RULES[N.ALTERNATE])
    'If AB ∥ CD, and A and D lie on different sides of BC, then angle ABC = angle BCD.'
    >>> statement_of(RULES[N.ANGLE_SUM])
    'Angle BCA = 180° − angle CAB − angle ABC.'
    """
    key = str(rule.name)
    if key in PLAIN:
        return _(PLAIN[key])
    given = list(_premises_in_words(rule))
    seen = [
        _(FIGURE_WORDS[word]) % {str(n): letter for n, letter in enumerate(letters)}
        for word, letters in rule.figure_patterns
        if word in FIGURE_WORDS
    ]
    made = [_MADE[word].format(*letters) for word, letters in rule.figure_patterns if word in _MADE]
    follows = _pattern_in_words(rule.conclusion_pattern)
    if rule.makes is not None:
        given.append(f"{_sum_in_words(rule)} = {rule.makes}°")
    elif rule.degrees:
        follows = f"{_('angle %(name)s', name=rule.conclusion_pattern[1][0])} = {_sum_in_words(rule)}"
    if not given and not seen and not made:
        return follows[:1].upper() + follows[1:] + "."
    return _("If %(given)s, then %(follows)s.", given=_clauses([*given, *made, *seen]), follows=follows)


_MADE = {
    "centre": "{0} is the centre of {1}",
    "radius": "{0} has the radius {1}{2}",
    "bisector": "{0} is the perpendicular bisector of {1}{2}",
    "bisects": "{0} is the bisector of angle {1}{2}{3}",
}


def _clauses(parts: Sequence[str]) -> str:
    """Several clauses, each of which may have its own "and"."""
    return listed(parts) if not any(" and " in part for part in parts) else _(", and ").join(parts)


def _premises_in_words(rule: Rule) -> Iterator[str]:
    """What must be known, points of one curve together; not that a point is in a row between whose ends it lies."""
    between = {frozenset(letters) for word, letters in rule.figure_patterns if word == "between"}
    on: dict[str, list[str]] = {}
    for word, terms in rule.premise_patterns:
        if word == "on":
            on.setdefault(terms[1], []).append(terms[0])
    for word, terms in rule.premise_patterns:
        if word == "on":
            names = on.pop(terms[1], [])
            if len(names) == 1:
                yield _pattern_in_words((word, terms))
            elif names:
                yield _("%(names)s lie on %(curve)s", names=listed(names), curve=terms[1])
        elif word != "angle" and (word != "collinear" or frozenset(terms) not in between):
            yield _pattern_in_words((word, terms))


def _pattern_in_words(pattern: Pattern) -> str:
    word, terms = pattern
    one = bound(pattern, {letter: letter for term in terms for letter in term})
    return fact_in_words(one, None, {})


def _sum_in_words(rule: Rule) -> str:
    """The sum of angles of which a rule speaks: 180° − angle CAB − angle ABC."""
    constant, *factors = map(Fraction, rule.degrees)
    angles = [terms[0] for word, terms in rule.premise_patterns if word == "angle"]
    said = f"{float(constant):g}°" if constant or not factors else ""
    for factor, angle in zip(factors, angles, strict=True):
        name = _("angle %(name)s", name=angle)
        many = name if abs(factor) == 1 else f"{abs(factor)} · {name}"
        part = _("half of %(angle)s", angle=name) if abs(factor) < 1 else many
        said = f"{said} {'−' if factor < 0 else '+'} {part}" if said else part
    return said
