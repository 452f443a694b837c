"""What the lines of a proof say, and why, in the words of a classroom."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ...judge.task import MODEL, Condition
from ...plane.makes import MAKES, MakeName
from ...plane.rows import complete
from ...plane.shapes import Kind
from ...plane.steps import Step
from ...reason.facts import Fact, Rel, Term, lengths_of
from ...reason.proof import Case, Line
from ...reason.rules import RULES, RuleName, bound
from ..language import gettext as _
from ..language import marked
from ..wording.words import Words, listed
from .step_reasons import point_of_all, stated_in_words

N = RuleName

REASON_WORDS: dict[str, str] = complete(
    "REASON_WORDS",
    RuleName,
    {
        N.SSS: marked("three sides (SSS)"),
        N.SAS: marked("two sides and the angle between them (SAS)"),
        N.ASA: marked("a side and both angles at it (ASA)"),
        N.AAS: marked("two angles and a side (AAS)"),
        N.RHS: marked("right angle, hypotenuse and side"),
        N.CONGRUENT_SIDES: marked("in congruent triangles"),
        N.CONGRUENT_ANGLES: marked("in congruent triangles"),
        N.ISOSCELES: marked("base angles of an isosceles triangle"),
        N.ISOSCELES_CONVERSE: marked("a triangle with two equal angles is isosceles"),
        N.BISECTOR_LINE: marked(
            "two points, each as far from one end as from the other, span the perpendicular bisector"
        ),
        N.KITE: marked("a kite: its axis halves the angle"),
        N.MEDIAN_OF_ISOSCELES: marked("the median of an isosceles triangle halves the angle at its apex"),
        N.BISECTOR_FOOT: marked(
            "two points, each as far from one end as from the other, span the perpendicular bisector"
        ),
        N.BISECTOR_POINT: marked("it lies on the perpendicular bisector"),
        N.BISECTOR_THIRD: marked("it lies on the perpendicular bisector"),
        N.ON_BISECTOR: marked("it is as far from one end as from the other"),
        N.OF_BISECTOR: marked("it lies on the perpendicular bisector"),
        N.PERPENDICULAR_FROM_APEX: marked("the perpendicular from the apex of an isosceles triangle halves its base"),
        N.PERPENDICULAR_TO_BISECTOR: marked("a perpendicular to the bisector cuts off equal lengths of both legs"),
        N.BISECTOR_THREE: marked("all three lie on the perpendicular bisector"),
        N.MIRRORED: marked("mirror images are as far apart as what they are images of"),
        N.MIRRORED_BY_AXIS: marked("mirror images are as far apart as what they are images of"),
        N.ALTITUDES: marked("the three altitudes of a triangle meet in one point"),
        N.MIDPOINT: marked("it halves the segment"),
        N.HALVES_OF_EQUALS: marked("halves of equal lengths"),
        N.DOUBLES_OF_EQUALS: marked("doubles of equal lengths"),
        N.HALVES: marked("halves of equal lengths"),
        N.DOUBLES: marked("their halves are equal"),
        N.HALF_OF_SIDE: marked("a midline is half as long as its side"),
        N.MIDPOINT_BY_HALF: marked("it lies half the way along"),
        N.MEDIANS: marked("two medians cut each other in the ratio 2 : 1"),
        N.MEDIANS_PARTS: marked("two medians cut each other in the ratio 2 : 1"),
        N.MEDIANS_THIRD: marked("two medians cut each other in the ratio 2 : 1"),
        N.CENTRE: marked("as far from three points of a circle as its centre alone is"),
        N.CENTRE_OF_DIAMETER: marked("the perpendicular bisector of a chord is a diameter, the centre halves it"),
        N.EQUAL_STRIPS: marked("parallels that cut equal parts of one line cut equal parts of another"),
        N.CEVA_PARALLEL: marked("Ceva’s theorem: with a midpoint on one side, the other two are cut in equal ratios"),
        N.CEVA_MIDPOINT: marked("Ceva’s theorem: where two sides are cut in equal ratios, the third is halved"),
        N.SIMILAR_ISOSCELES: marked("isosceles triangles with the same base angle"),
        N.SIMILAR_ANGLES: marked("two equal angles (AA)"),
        N.SIMILAR_SIDES: marked("sides of similar triangles"),
        N.AREA_BETWEEN_PARALLELS: marked("triangles on one base and between the same parallels have equal areas"),
        N.AREA_BY_MEDIAN: marked("a median halves the area of a triangle"),
        N.AREA_ON_MEDIAN: marked("a median halves the area, also from any point of it"),
        N.AREA_OF_EQUAL_BASES: marked("triangles with equal bases and equal heights have equal areas"),
        N.AREA_OF_CONGRUENT: marked("congruent triangles have equal areas"),
        N.EQUAL_TRIANGLES: marked("congruent triangles on one base, on the same side, have equal heights"),
        N.ALTERNATE: marked("alternate angles at parallels"),
        N.ALTERNATE_CONVERSE: marked("alternate angles are equal"),
        N.CORRESPONDING: marked("corresponding angles at parallels"),
        N.CORRESPONDING_CONVERSE: marked("corresponding angles are equal"),
        N.PARALLELOGRAM_BY_SIDES: marked("opposite sides are equal: a parallelogram"),
        N.PARALLELOGRAM_BY_ONE_PAIR: marked("two sides are equal and parallel: a parallelogram"),
        N.RHOMBUS: marked("four equal sides: a rhombus"),
        N.RECTANGLE_SIDES: marked("opposite sides of a rectangle"),
        N.RECTANGLE_DIAGONALS: marked("the diagonals of a rectangle are equal"),
        N.PARALLELOGRAM_SIDES: marked("opposite sides of a parallelogram"),
        N.PARALLELOGRAM_BY_DIAGONALS: marked("the diagonals halve each other: a parallelogram"),
        N.DIAGONALS: marked("the diagonals of a parallelogram halve each other"),
        N.MIDLINE: marked("midline of a triangle"),
        N.TRAPEZIUM_MIDLINE: marked("midline of a trapezium"),
        N.MIDLINE_CONVERSE: marked("the parallel through the midpoint of a side halves the other"),
        N.THALES: marked("angle in a semicircle (Thales)"),
        N.THALES_CONVERSE: marked("converse of Thales’ theorem"),
        N.VERTICAL: marked("vertical angles"),
        N.SUPPLEMENTS: marked("supplements of equal angles"),
        N.RIGHT_ANGLES: marked("both are right angles"),
        N.RIGHT_BY_EQUAL: marked("equal to a right angle"),
        N.RIGHT_BY_HALVES: marked("equal adjacent angles on a line are right angles"),
        N.COMMON_ANGLE: marked("equal angles, and the angle between them is added to both or taken from both"),
        N.ADDED_ANGLES: marked("sums or differences of equal angles"),
        N.THIRD_ANGLE: marked("two angles are equal, so the third ones are (angle sum)"),
        N.EQUILATERAL: marked("angles of an equilateral triangle"),
        N.ANGLE_SUM: marked("angle sum of a triangle"),
        N.EXTERIOR_ANGLE: marked("exterior angle of a triangle"),
        N.BASE_ANGLE: marked("base angles of an isosceles triangle, and its angle sum"),
        N.APEX_ANGLE: marked("base angles of an isosceles triangle, and its angle sum"),
        N.ANGLES_ON_A_LINE: marked("angles on a line make 180°"),
        N.ANGLE_OF_PARTS: marked("sum of both angles"),
        N.REST_OF_ANGLE: marked("difference of both angles"),
        N.HALF_ANGLE: marked("half of the angle"),
        N.RIGHT_BY_SIZE: marked("90° are a right angle"),
        N.STRAIGHT_ANGLE: marked("both angles make 180°: a straight angle"),
        N.CO_INTERIOR: marked("co-interior angles at parallels make 180°"),
        N.CO_INTERIOR_CONVERSE: marked("co-interior angles make 180°"),
        N.HALF_OF_CENTRAL: marked("an inscribed angle is half the angle at the centre"),
        N.HALF_OF_CENTRAL_FAR: marked("an inscribed angle on the smaller arc, by the angle at the centre"),
        N.CENTRAL: marked("the angle at the centre is twice the inscribed angle"),
        N.CENTRAL_FAR: marked("the angle at the centre, by an inscribed angle on the smaller arc"),
        N.THIRTY: marked("a leg that is half the hypotenuse lies opposite an angle of 30°"),
        N.OPPOSITE_THIRTY: marked("opposite an angle of 30°, the leg is half the hypotenuse"),
        N.ONE_ANGLE: marked("on one side of a line there is only one such angle"),
        N.OUTER_BISECTOR: marked("the bisectors of two angles on a line are perpendicular"),
        N.BISECTOR_BESIDE_ISOSCELES: marked(
            "beside the apex of an isosceles triangle, the bisector is parallel to its base (exterior angle)"
        ),
        N.BISECTOR_AT_ARC: marked(
            "the bisector of an angle and the perpendicular bisector of the side opposite meet on the circumcircle"
        ),
        N.EQUAL_CHORDS: marked("equal chords are equally far from the centre"),
        N.MIRRORED_ROW: marked("mirror images of points of one line lie on one line"),
        N.MEDIAN_THROUGH: marked("the three medians of a triangle meet in one point, a third of the way up each"),
        N.QUARTER_TURN: marked("a quarter turn takes the one line to the other"),
        N.INCENTRE: marked("the three bisectors of a triangle meet in one point"),
        N.SUPPLEMENTARY_BISECTORS: marked("the bisectors of two angles on a line are perpendicular"),
        N.CO_INTERIOR_BISECTORS: marked("the angles at parallels make 180°, so their halves leave a right angle"),
        N.INSCRIBED: marked("inscribed angles over the same chord"),
        N.ONE_CIRCLE: marked("equal angles over one chord, on one side of it: the points lie on one circle"),
        N.AS_FAR_AS_A_RADIUS: marked("it is as far from the centre as a radius is long"),
        N.OPPOSITE_ANGLES: marked("opposite angles of a quadrilateral in a circle make 180°"),
        N.TANGENT_CHORD: marked("angle between tangent and chord"),
        N.TANGENT_RADIUS: marked("a tangent is perpendicular to the radius at its end"),
        N.EQUAL_TANGENTS: marked("both tangents from one point are equally long"),
        N.TANGENT: marked("it is perpendicular to the radius at its end"),
        N.TANGENT_BY_LENGTH: marked("it is perpendicular to what is as long as a radius, at its end"),
        N.TANGENT_AT_APEX: marked("it is parallel to a chord, through the middle of its arc"),
        N.TANGENT_TO_BOTH_LEGS: marked("the centre lies on the bisector of the angle"),
        N.TOUCHING_CIRCLES: marked("their common point lies on the line of the centres"),
        N.TANGENT_BY_SIMILITUDE: marked("it passes through the centre of similitude of both circles"),
        N.RATIO_OF_HALVES: marked("a midpoint halves"),
        N.RATIO_OF_EQUALS: marked("equal lengths have the same ratio"),
        N.RATIO_CHAIN: marked("ratios multiply"),
        N.RATIO_OF_PARTS: marked("sum of both parts"),
        N.RATIO_OF_REST: marked("difference of both parts"),
        N.RATIO_BY_UNIT: marked("both are multiples of one length"),
        N.INTERCEPT_PARALLELS: marked("intercept theorem, for the parallels"),
        N.EQUAL_PARTS: marked("three equal parts"),
        N.INTERCEPT: marked("intercept theorem"),
        N.INTERCEPT_REST: marked("intercept theorem"),
        N.HEXAGON_SIDE: marked("on a line, two equilateral triangles leave room for a third"),
        N.HEXAGON_LINE: marked("three equilateral triangles side by side make a straight angle"),
        N.HEXAGON_TRIANGLE: marked("every other corner of a regular hexagon"),
        N.ONE_PERPENDICULAR: marked("through one point there is only one line in a direction"),
        N.ONE_PARALLEL: marked("through one point there is only one line in a direction"),
        N.TRANSITIVE: marked("equal to the same"),
        N.SAME_LINE: marked("they lie on the same line"),
        N.DIRECTIONS: marked("parallels and right angles"),
        N.ONE_POINT: marked("one point lies on all of them"),
        N.EQUALLY_FAR: marked("it is as far from one line as from the other"),
        N.ON_CURVE: marked("it is as far from the centre as a radius is long"),
        N.THERE_IS_ONE: marked("there is only one"),
        N.BY_CONSTRUCTION: marked("by construction"),
        N.RADII: marked("radii"),
    },
)
"""The reason of a line, in the trade's words."""

NAMED_REASONS: dict[str, str] = {
    N.BISECTOR_LINE: marked(
        "%(P)s and %(Q)s are each as far from %(A)s as from %(B)s: they span the perpendicular bisector"
    ),
    N.KITE: marked("%(A)s%(B)s%(C)s%(D)s is a kite: its axis %(A)s%(C)s halves the angle"),
    N.RHOMBUS: marked("%(A)s%(B)s%(C)s%(D)s is a rhombus: four equal sides"),
    N.RECTANGLE_SIDES: marked("%(A)s%(B)s%(C)s%(D)s is a rectangle: opposite sides are equal"),
    N.RECTANGLE_DIAGONALS: marked("%(A)s%(B)s%(C)s%(D)s is a rectangle: its diagonals are equal"),
    N.QUARTER_TURN: marked("a quarter turn about %(A)s takes %(D)s to %(B)s and %(C)s to %(E)s"),
    N.BISECTOR_FOOT: marked("%(P)s and %(Q)s span the perpendicular bisector of %(A)s%(B)s, which halves it"),
    N.BISECTOR_POINT: marked("%(P)s lies on the perpendicular bisector of %(A)s%(B)s"),
    N.BISECTOR_THIRD: marked("%(R)s lies on the perpendicular bisector of %(A)s%(B)s"),
    N.BISECTOR_THREE: marked(
        "%(P)s, %(Q)s and %(R)s are each as far from %(A)s as from %(B)s: all three lie on the perpendicular bisector"
    ),
    N.MIRRORED: marked("mirror images: %(B)s of %(A)s, %(D)s of %(C)s"),
    N.PERPENDICULAR_FROM_APEX: marked("%(Q)s lies on the perpendicular from %(P)s to %(A)s%(B)s, which halves it"),
    N.MIRRORED_BY_AXIS: marked("mirror images in %(l)s: %(B)s of %(A)s, %(D)s of %(C)s"),
    N.ALTITUDES: marked("%(H)s lies on the altitudes from %(A)s and %(C)s, so on that from %(B)s as well"),
    N.CENTRE_OF_DIAMETER: marked(
        "%(P)s%(Q)s is a diameter, the perpendicular bisector of the chord %(A)s%(B)s; the centre halves it"
    ),
    N.EQUAL_STRIPS: marked("parallels that cut off %(R)s%(O)s = %(O)s%(T)s cut equal parts of every line"),
    N.CEVA_PARALLEL: marked("Ceva’s theorem in triangle %(A)s%(B)s%(S)s: %(M)s halves %(A)s%(B)s"),
    N.CEVA_MIDPOINT: marked("Ceva’s theorem in triangle %(A)s%(B)s%(S)s: the sides from %(S)s are cut alike"),
    N.MIRRORED_ROW: marked("mirror images of %(A)s, %(B)s and %(C)s in %(l)s, which lie on one line"),
    N.SIMILAR_ISOSCELES: marked("both are isosceles, with the same base angle at %(A)s"),
}
"""Reasons that name the points that they are about; letters as in the rows of rules."""

ONLY_ONE: dict[str, str] = complete(
    "ONLY_ONE",
    MakeName,
    {
        "free_point": marked("it is the same point"),
        "point_on": marked("it is the same point"),
        "line": marked("through two points there is only one line"),
        "segment": marked("between two points there is only one segment"),
        "ray": marked("from one point through another there is only one ray"),
        "circle": marked("centre and radius determine a circle"),
        "circle_radius": marked("centre and radius determine a circle"),
        "circle_through": marked("through three points there is only one circle"),
        "intersection": marked("it lies on both, and they meet there"),
        "midpoint": marked("a segment has only one midpoint"),
        "perpendicular": marked("through one point there is only one perpendicular"),
        "parallel": marked("through one point there is only one parallel"),
        "perpendicular_bisector": marked("a segment has only one perpendicular bisector"),
        "angle_bisector": marked("an angle has only one bisector"),
        "reflection": marked("a point has only one mirror image"),
        "translation": marked("there is only one such point"),
        "rotation": marked("there is only one such point"),
    },
)
"""Why an object that has what only one has is that one, by the make of that one."""

DIRECTION_REASONS = {
    (Rel.PARALLEL, 0): marked("both are parallel to one line"),
    (Rel.PARALLEL, 1): marked("the same lines, named by other points"),
    (Rel.PARALLEL, 2): marked("both are perpendicular to one line"),
    (Rel.PERPENDICULAR, 0): marked("the same lines, named by other points"),
    (Rel.PERPENDICULAR, 1): marked("one is perpendicular to a parallel of the other"),
    (Rel.PERPENDICULAR, 3): marked("they are perpendicular to two lines that are perpendicular to each other"),
}
"""Reasons for directions: what is said of two lines, and how many right angles are cited. One line that is cited alone
says the same of lines that are called otherwise.
"""

LEGS = marked("the legs of the right angle lie on them")
"""The reason for lines that are perpendicular because an angle between points of them is a right one."""

PARALLELS_AND_RIGHT_ANGLES = marked("lines perpendicular to parallels are parallel")
"""The reason for parallels where both are cited."""


def fact_in_words(one: Fact, words: Words | None, called: Mapping[str, str]) -> str:
    """What a line says: AC = BC; angle ACM = angle BCM; triangles ACD and BCD are congruent.

    ``words``: of the task, by which what only its sample solution has is told; None where there is no such thing.
    """

    def name(term: Term) -> str:
        if isinstance(term, str):
            if words is not None and term.startswith(MODEL) and term not in called:
                return words.name(term)
            return "".join(called.get(part, part) for part in term.split(" "))
        return "".join(called.get(part, part) for part in term)

    terms = [name(term) for term in one.of]
    unnamed = any(_is_of_model(part, called) for term in one.of if not isinstance(term, str) for part in term)
    if unnamed and words is not None and one.rel is not Rel.EQUAL_ANGLE:
        return words.condition(Condition(str(one.rel.value), one.of, one.ratio))  # as the task says it
    match one.rel:
        case Rel.EQUAL_LENGTH:
            return " = ".join(terms)
        case Rel.EQUAL_ANGLE if any(_is_of_model(name, called) for name in one.names):
            own = next(term for term in one.of if not any(_is_of_model(name, called) for name in term))
            return _("angle %(name)s is as large as is asked for", name=name(own))
        case Rel.EQUAL_ANGLE:
            return " = ".join(_("angle %(name)s", name=term) for term in terms)
        case Rel.RIGHT_ANGLE:
            return _("angle %(name)s is a right angle", name=terms[0])
        case Rel.ANGLE:
            n, d = one.ratio or (90, 1)
            return _("angle %(name)s = %(degrees)s°", name=terms[0], degrees=f"{n / d:g}")
        case Rel.PARALLEL:
            return f"{terms[0]} ∥ {terms[1]}"
        case Rel.PERPENDICULAR:
            return f"{terms[0]} ⊥ {terms[1]}"
        case Rel.COLLINEAR:
            return _("%(names)s lie on one line", names=listed(terms))
        case Rel.CONCYCLIC:
            return _("%(names)s lie on one circle", names=listed(terms))
        case Rel.MIDPOINT:
            return _("%(name)s is the midpoint of %(ends)s", name=terms[0], ends="".join(terms[1:]))
        case Rel.ON:
            return _("%(name)s lies on %(curve)s", name=terms[0], curve=terms[1])
        case Rel.TANGENT:
            return _("%(one)s touches %(other)s", one=terms[0], other=terms[1])
        case Rel.CONGRUENT:
            return _("triangles %(one)s and %(other)s are congruent", one=terms[0], other=terms[1])
        case Rel.SIMILAR:
            return _("triangles %(one)s and %(other)s are similar", one=terms[0], other=terms[1])
        case Rel.EQUAL_AREA:
            return _("triangles %(names)s have equal areas", names=listed(terms))
        case Rel.RATIO:
            n, d = one.ratio or (1, 1)
            return f"{terms[0]} : {terms[1]} = {n} : {d}"
        case Rel.CONCURRENT:
            return _("%(names)s pass through one point", names=listed(terms))
        case Rel.EQUIDISTANT:
            return _("%(name)s is equally far from %(lines)s", name=terms[0], lines=listed(terms[1:]))
        case Rel.SAME:
            return _("%(one)s is %(other)s", one=terms[0], other=terms[1])


CASE_WORDS = {
    ("between", True): marked("where %(0)s lies between %(1)s and %(2)s"),
    ("between", False): marked("where %(0)s does not lie between %(1)s and %(2)s"),
    ("same_side", True): marked("where %(0)s and %(1)s lie on one side of %(2)s%(3)s"),
    ("same_side", False): marked("where %(0)s and %(1)s lie on different sides of %(2)s%(3)s"),
    ("same_way", True): marked("where %(0)s and %(1)s lie on one side of %(2)s"),
    ("same_way", False): marked("where %(0)s and %(1)s lie on different sides of %(2)s"),
    ("inside", True): marked("where %(0)s lies inside angle %(2)s%(1)s%(3)s"),
    ("inside", False): marked("where %(0)s does not lie inside angle %(2)s%(1)s%(3)s"),
}
"""Cases of positions; numbers stand for the points of what is read off the figure."""


def case_in_words(case: Case, called: Mapping[str, str]) -> str:
    """For which positions a line is said: where C and D lie on one side of AB."""
    points = {str(place): called.get(name, name) for place, name in enumerate(case.points)}
    return _(CASE_WORDS[case.word, case.holds]) % points


FIGURE_WORDS = {
    "between": marked("%(0)s lies between %(1)s and %(2)s"),
    "same_side": marked("%(0)s and %(1)s lie on one side of %(2)s%(3)s"),
    "opposite": marked("%(0)s and %(1)s lie on different sides of %(2)s%(3)s"),
    "inside": marked("%(0)s lies inside angle %(2)s%(1)s%(3)s"),
}
"""What rules read off the figure, where it is worth saying; numbers stand for the points."""

MOST_READ_OFF = 1
"""Of what is read off the figure so much is said with a line."""


@dataclass(frozen=True)
class Reasons:
    """Why each line of a proof is so.

    ``made``: id -> step, of the work, the task and its sample solution; ``called``: what objects are called, where that
    is not their id.
    """

    lines: Sequence[Line]
    words: Words
    made: Mapping[str, Step]
    called: Mapping[str, str]

    def of(self, number: int) -> str:
        """The reason of a line, by its number from 1, with the numbers of the lines that it rests on, and what is read
        off the figure for it. The same reason as before is "likewise".
        """
        line = self.lines[number - 1]
        said = self.rule(line)
        if number > 1 and line.because and said == self.rule(self.lines[number - 2]):
            said = _("likewise")
        rests = [*map(str, line.because), *(_("%(name)s common", name=name) for name in self._common(line))]
        cited = f"{said} ({', '.join(rests)})" if rests else said
        seen = self._read_off(line)
        return _("%(reason)s; as in the figure, %(seen)s", reason=cited, seen=listed(seen)) if seen else cited

    def rule(self, line: Line) -> str:
        """The rule of a line, as it is known, with the points that it is about: radii of c, three sides (SSS)."""
        if line.rule in NAMED_REASONS:
            return _(NAMED_REASONS[line.rule]) % {letter: self._name(term) for letter, term in line.bindings.items()}
        match line.rule:
            case N.RADII:
                circles = [self._name(step) for step in line.steps if self._is_circle(step)]
                return _("radii of %(circles)s", circles=listed(circles)) if circles else _(REASON_WORDS[line.rule])
            case N.DIRECTIONS:
                return self._directions(line)
            case N.ONE_POINT if (point := point_of_all(line, self.made)) is not None:
                return _("%(point)s lies on all of them", point=self.called.get(point, point))
            case N.BY_CONSTRUCTION:
                return stated_in_words(line, self.made, self.words, self.called) or _(REASON_WORDS[line.rule])
            case N.THERE_IS_ONE:
                one = next((name for name in line.fact.names if name.startswith(MODEL)), None)
                if not line.because or one is None or line.fact.rel is not Rel.SAME:
                    return _("made as it is asked for")
                step = self.words.model[one]
                return _(ONLY_ONE[self.words.known.get(step.id, step).make])
        return _(REASON_WORDS[line.rule])

    def _name(self, term: Term) -> str:
        return "".join(self.called.get(part, part) for part in ((term,) if isinstance(term, str) else term))

    def _is_circle(self, id_: str) -> bool:
        step = self.made.get(id_)
        return MAKES[step.make].gives is Kind.CIRCLE if step is not None else id_[:1].islower()

    def _common(self, line: Line) -> list[str]:
        """The sides that two triangles share, where their congruence rests on them."""
        if line.fact.rel is not Rel.CONGRUENT:
            return []
        premises = (bound(pattern, line.bindings) for pattern in RULES[line.rule].premise_patterns)
        shared = [one.of[0] for one in premises if one.rel is Rel.EQUAL_LENGTH and len(lengths_of(one)) == 1]
        return [self._name(term) for term in shared]

    def _directions(self, line: Line) -> str:
        cited = [_direction(self.lines[number - 1].fact) for number in line.because]
        cited = [rel for rel in cited if rel in (Rel.PARALLEL, Rel.PERPENDICULAR)]  # points in a row say nothing
        said, right = _direction(line.fact), cited.count(Rel.PERPENDICULAR)
        if len(cited) == 1:
            is_of_angle = any(self.lines[number - 1].fact.rel is Rel.RIGHT_ANGLE for number in line.because)
            return _(LEGS if is_of_angle else DIRECTION_REASONS[Rel.PERPENDICULAR, 0])
        if said is Rel.PARALLEL and right and Rel.PARALLEL in cited:
            return _(PARALLELS_AND_RIGHT_ANGLES)
        return _(DIRECTION_REASONS.get((said, right), REASON_WORDS[line.rule]))

    def _read_off(self, line: Line) -> list[str]:
        """What is read off the figure for a line."""
        patterns = [one for one in RULES[line.rule].figure_patterns if one[0] in FIGURE_WORDS]
        return [
            _(FIGURE_WORDS[word]) % {str(n): self._name(line.bindings[letter]) for n, letter in enumerate(letters)}
            for word, letters in patterns[:MOST_READ_OFF]
        ]


def _is_of_model(name: str, called: Mapping[str, str]) -> bool:
    """Whether it is one of the sample solution's that is not called by a name."""
    return name.startswith(MODEL) and name not in called


def _direction(one: Fact) -> Rel:
    """A right angle says of its legs that they are perpendicular."""
    return Rel.PERPENDICULAR if one.rel is Rel.RIGHT_ANGLE else one.rel
