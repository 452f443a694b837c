"""The checker: passes a proof line by line, trusting nothing of the engine that found it.

A line passes if it follows by its named rule from the lines that it cites and from what the making of the figure says,
if all that the rule reads off the figure is so in fresh positions, and if the fact itself holds there, in floats and
in balls. It knows the rows of rules, the figure, and how facts are written; it does not know how they were found.
"""

from __future__ import annotations

from collections.abc import Collection, Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, permutations

from ..judge.conditions import RELATIONS, Relation, RelationName
from ..judge.reports.sameness import known_as
from ..judge.task import MODEL, Condition
from ..judge.trials.certifying import TRUTHS, Certifier
from ..judge.trials.examination import Examination
from .drawing import after_making, columns_where_all_is, drawn_in, put_model
from .drawn import Drawn, lie_in_a_row
from .facts import Fact, Rel, Term, fact, lengths_of, three
from .goals import Goals, said_by
from .proof import Case, Line, Proof
from .rules import RULES, RuleName, bound, concluded

N = RuleName


@dataclass(frozen=True)
class Wrong:
    """Why a proof does not pass: the number of the line, and what is wrong with it."""

    number: int
    words: str


@dataclass
class _State:
    """What is known while lines pass: the figure in fresh positions, what its making says, and where balls look."""

    drawn: Drawn
    made: set[Fact]
    certifier: Certifier
    columns: list[int] | None

    def says(self, one: Fact) -> bool:
        """Whether the making says a fact, whatever its lines are called by now."""
        normal = self.drawn.normal
        return any(normal(one, only) == normal(made, only) for only in (False, True) for made in self.made)


IN_BALLS: Mapping[str, Relation] = {**RELATIONS, **TRUTHS}
"""Relations that balls prove: those of conditions, and of what stays true."""


def check(proof: Proof, examined: Examination, numbers: Sequence[int], answer: Mapping[str, str]) -> Wrong | None:
    """What is wrong with a proof first; None for one that passes.

    ``numbers``: the objects that the proof may speak of, besides its helpers. ``answer``: wanted name -> id.
    """
    if proof.helpers:
        helpers = [examined.figure.index[name] for name in proof.helpers]
        examined, numbers = examined.with_model(helpers), sorted({*numbers, *helpers})
    cases = list(dict.fromkeys(line.case for line in proof.lines))
    if cases and not _cover(cases, proof.open_case):
        return Wrong(1, "its cases are not all that there are")
    columns = columns_where_all_is(examined, numbers, further=True)
    certifier = Certifier(examined, IN_BALLS)
    for case in cases:
        drawn = drawn_in(examined, numbers, columns, further=True)
        put_model(drawn, examined, columns, further=True)
        if case is not None and not drawn.keep(case).any():
            return Wrong(1, "no position is of its case")
        made = {one for one, _steps in (*drawn.given, *after_making(drawn, examined, numbers))}
        wrong = _check_case(
            proof, case, _State(drawn, made, certifier, _columns(examined, numbers, case)), examined, answer
        )
        if wrong is not None:
            return wrong
    return None


def _columns(examined: Examination, numbers: Sequence[int], case: Case | None) -> list[int] | None:
    """Columns of the first batch in which balls look at the lines of a case; None for those of all positions."""
    if case is None:
        return None
    columns = columns_where_all_is(examined, numbers)
    of_case = drawn_in(examined, numbers, columns).keep(case)
    return [column for column, is_of in zip(columns, of_case, strict=True) if is_of]


def _cover(cases: Sequence[Case | None], open_case: Case | None) -> bool:
    """Whether cases leave out no position but those that are said to be open."""
    said = [*cases, *([open_case] if open_case else [])]
    if len(said) < 2:
        return said in ([], [None])
    first, second, *more = said
    return first is not None and not more and second == first.other


def _check_case(
    proof: Proof, case: Case | None, state: _State, examined: Examination, answer: Mapping[str, str]
) -> Wrong | None:
    """What is wrong first with the lines of one case."""
    drawn = state.drawn
    for number, line in enumerate(proof.lines, 1):
        if line.case != case:
            continue
        if any(not 0 < cited < number or proof.lines[cited - 1].case != case for cited in line.because):
            return Wrong(number, "it cites a line that does not stand before it")
        cited = [proof.lines[place - 1].fact for place in line.because]
        if line.condition is not None and not _is_condition(drawn, line, examined, answer):
            return Wrong(number, "it is not the condition that it claims to be")
        if not _follows(state, line, cited, examined, answer):
            return Wrong(number, "it does not follow by its rule")
        if not _holds(state, line.fact):
            return Wrong(number, "it does not hold in every position")
        if line.fact.rel is Rel.COLLINEAR:
            lie_in_a_row(drawn, line.fact)
        elif line.fact.rel is Rel.ON and line.fact.of[1] in drawn.lines:
            drawn.put_on(str(line.fact.of[1]), str(line.fact.of[0]), (line.fact,))
    return None


def _is_condition(drawn: Drawn, line: Line, examined: Examination, answer: Mapping[str, str]) -> bool:
    conditions = examined.task.conditions
    if line.condition is None or not 0 <= line.condition < len(conditions):
        return False
    wanted = conditions[line.condition].renamed(dict(answer))
    if wanted.rel not in list(Rel):
        return False
    said = said_by(wanted)
    return said == line.fact or drawn.normal(said) == drawn.normal(line.fact)


# -- whether a line follows ----------------------------------------------------------------------------------


def _follows(
    state: _State, line: Line, cited: Sequence[Fact], examined: Examination, answer: Mapping[str, str]
) -> bool:
    drawn, one = state.drawn, state.drawn.normal(line.fact)
    match line.rule:
        case N.BY_CONSTRUCTION:
            return not cited and (state.says(line.fact) or _is_plain(drawn, line.fact))
        case N.RADII:
            equal = one.rel is Rel.EQUAL_LENGTH
            return not cited and equal and any(lengths_of(one) <= radii.keys() for radii in drawn.radii)
        case N.SAME_LINE:
            return bool(cited) and one.rel in (Rel.COLLINEAR, Rel.ON) and _is_on_a_line(drawn, one, cited)
        case N.TRANSITIVE:
            return _connected(drawn, line.fact, cited)
        case N.DIRECTIONS:
            return _turned(drawn, one, cited)
        case N.THERE_IS_ONE | N.ON_CURVE | N.ONE_POINT | N.EQUALLY_FAR:
            return _has_property(state, line, cited, examined, answer)
    rule = RULES[line.rule]
    letters = {
        letter for _rel, words in (*rule.premise_patterns, rule.conclusion_pattern) for word in words for letter in word
    }
    if not letters <= line.bindings.keys():
        return False
    known = {variant for premise in cited for variant in _variants(drawn, premise)}
    premises = []
    for pattern in rule.premise_patterns:
        premise = _as_known(state, bound(pattern, line.bindings), known)
        if premise is None:
            return False
        premises.append(premise)
    said = concluded(rule, line.bindings, premises)
    return (
        said is not None
        and any(variant == one for variant in _variants(drawn, said))
        and all(drawn.seen(word, [str(line.bindings[name]) for name in names]) for word, names in rule.figure_patterns)
    )


def _as_known(state: _State, premise: Fact, known: set[Fact]) -> Fact | None:
    """A premise, ratios and angles with the numbers that are cited; None where it is not known."""
    if premise.ratio is None and premise.rel in (Rel.RATIO, Rel.ANGLE):
        of = state.drawn.normal(premise).of
        cited = (one for one in known if one.rel is premise.rel and one.of in (of, premise.of))
        otherwise = fact(Rel.EQUAL_LENGTH if premise.rel is Rel.RATIO else Rel.RIGHT_ANGLE, *premise.of)
        return next(cited, None) or (otherwise if _is_known(state, otherwise, known) else None)
    return premise if _is_known(state, premise, known) else None


def _variants(drawn: Drawn, one: Fact) -> Iterator[Fact]:
    """A fact as it is cited, in its normal form, and what it says by itself of lengths and directions."""
    yield one
    yield drawn.normal(one)
    if one.rel is Rel.COLLINEAR:
        for line in drawn.lines:
            if sum(drawn.passes(line, str(p)) for p in one.of) > 1:
                yield from (fact(Rel.ON, str(p), line) for p in one.of)
        for p, q, r in permutations(one.of) if len(one.of) == 3 else ():
            yield fact(Rel.ON, str(p), (str(q), str(r)))
    if one.rel is Rel.RIGHT_ANGLE:
        yield fact(Rel.PERPENDICULAR, *drawn.legs(one))
    if one.rel is Rel.MIDPOINT:
        m, p, q = map(str, one.of)
        yield fact(Rel.EQUAL_LENGTH, (m, p), (m, q))
        yield fact(Rel.COLLINEAR, m, p, q)


def _is_on_a_line(drawn: Drawn, one: Fact, cited: Collection[Fact]) -> bool:
    """Whether points lie on one line, each by the making of the figure or by a fact that is cited."""

    def passes(line: str, point: str) -> bool:
        why = drawn.found[line].get(point)
        return point in drawn.on[line] or (why is not None and all(one in cited for one in why))

    def in_a_row(*points: str) -> bool:
        return any(all(passes(line, point) for point in points) for line in drawn.lines)

    if one.rel is Rel.COLLINEAR:
        return in_a_row(*map(str, one.of))
    point, curve = str(one.of[0]), one.of[1]
    if not isinstance(curve, str):
        return in_a_row(point, *curve)
    if curve not in drawn.lines:
        return False
    of_curve = [name for name in drawn.points if passes(curve, name)]
    return point in of_curve or any(in_a_row(point, *pair) for pair in combinations(of_curve, 2))


def _is_known(state: _State, premise: Fact, known: set[Fact]) -> bool:
    drawn = state.drawn
    normal = drawn.normal(premise)
    if premise in known or normal in known or _is_plain(drawn, premise) or _is_plain(drawn, normal):
        return True
    match premise.rel:
        case Rel.EQUAL_LENGTH:
            return any(lengths_of(premise) <= lengths_of(one) for one in known)
        case Rel.RIGHT_ANGLE:
            return fact(Rel.PERPENDICULAR, *drawn.legs(premise)) in known
        case Rel.COLLINEAR | Rel.ON:
            return _is_on_a_line(drawn, premise, known)
    return False


def _is_plain(drawn: Drawn, one: Fact) -> bool:
    """Whether a fact needs no line: something equals itself, or points lie on what was drawn through them."""
    match one.rel:
        case Rel.EQUAL_LENGTH:
            return len(lengths_of(one)) == 1
        case Rel.EQUAL_AREA:
            return len(one.of) == 1
        case Rel.CONCURRENT:
            return any(all(_is_plain(drawn, Fact(Rel.ON, (point, line))) for line in one.of) for point in drawn.points)
        case Rel.EQUAL_ANGLE | Rel.PARALLEL:
            return len(set(drawn.normal(one).of)) == 1
        case Rel.COLLINEAR:
            return drawn.in_a_row([str(name) for name in one.of], made_only=True)
        case Rel.CONCYCLIC:
            return any(set(map(str, one.of)) <= set(drawn.on[circle]) for circle in drawn.circles)
        case Rel.ON:
            point, curve = one.of
            if isinstance(curve, str):
                return str(point) in drawn.on[curve]
            return str(point) in curve or drawn.in_a_row((*curve, str(point)))
    return False


def _connected(drawn: Drawn, one: Fact, cited: Sequence[Fact]) -> bool:
    """Whether the terms of an equality are all connected by equalities that are cited."""
    if one.rel not in (Rel.EQUAL_LENGTH, Rel.EQUAL_ANGLE, Rel.ANGLE, Rel.EQUAL_AREA):
        return False
    terms = _terms(drawn, one.rel, one)
    groups = [{term} for term in terms] + [_terms(drawn, one.rel, link) for link in cited]
    merged = True
    while merged:
        merged = False
        for first, second in combinations(groups, 2):
            if first & second:
                groups = [group for group in groups if group not in (first, second)] + [first | second]
                merged = True
                break
    return any(terms <= group for group in groups)


def _terms(drawn: Drawn, rel: Rel, one: Fact) -> set[Hashable]:
    """The lengths, triangles, or angles in their normal form and their degrees, that a fact says are equal; none where
    it says no such thing. ``rel``: that of the equality that is looked for.
    """
    if rel is Rel.EQUAL_LENGTH:
        return set(lengths_of(one))
    if rel is Rel.EQUAL_AREA:
        return set(one.of) if one.rel is rel else set()
    if one.rel not in (Rel.EQUAL_ANGLE, Rel.ANGLE):
        return set()
    return {*(drawn.normal(fact(Rel.RIGHT_ANGLE, term)).of[0] for term in one.of), *([one.ratio] if one.ratio else [])}


def _turned(drawn: Drawn, one: Fact, cited: Sequence[Fact]) -> bool:
    """Whether a direction follows from parallels and right angles that are cited."""
    if one.rel is Rel.RIGHT_ANGLE:
        (first, second), turned = drawn.legs(one), 1
    elif one.rel in (Rel.PARALLEL, Rel.PERPENDICULAR):
        first, second = map(drawn.line, one.of)
        turned = int(one.rel is Rel.PERPENDICULAR)
    else:
        return False
    links: list[tuple[Term, Term, int]] = []
    for link in cited:
        if link.rel is Rel.RIGHT_ANGLE:
            links.append((*drawn.legs(link), 1))
        elif link.rel in (Rel.PARALLEL, Rel.PERPENDICULAR):
            links.append((*map(drawn.line, link.of), int(link.rel is Rel.PERPENDICULAR)))  # type: ignore[arg-type]
    reached = {(first, 0)}
    while True:
        further = {
            (other, turn ^ way)
            for a, b, way in links
            for here, other in ((a, b), (b, a))
            for at, turn in reached
            if at == here
        }
        if further <= reached:
            return (second, turned) in reached
        reached |= further


def _has_property(
    state: _State, line: Line, cited: Sequence[Fact], examined: Examination, answer: Mapping[str, str]
) -> bool:
    """Whether an object has, by the lines that are cited, what only the sample solution's has."""
    drawn = state.drawn
    if line.condition is None:
        return False
    known = {variant for premise in cited for variant in _variants(drawn, premise)}
    goals = Goals(examined.task, drawn, answer, known_as(examined.task, helpers=True)).all()
    goal = next((goal for goal in goals if goal.place == line.condition), None)
    return goal is not None and any(all(_is_known(state, part, known) for part in way) for way in goal.ways)


# -- whether a fact holds ------------------------------------------------------------------------------------


def _holds(state: _State, one: Fact) -> bool:
    """Whether a fact holds in fresh positions: floats see it in each, balls prove it in several."""
    drawn = state.drawn
    there = drawn.points.keys() | drawn.lines.keys() | drawn.circles.keys()
    if any(name.startswith(MODEL) and name not in there for name in one.names):
        return True  # that is what was judged; what it follows from is looked at above
    if not drawn.holds(drawn.normal(one)):
        return False
    if state.columns is None:
        return all(map(state.certifier.is_proven, _in_balls(drawn, one)))
    return all(state.certifier.holds_in_balls(condition, state.columns) for condition in _in_balls(drawn, one))


def _in_balls(drawn: Drawn, one: Fact) -> Iterator[Condition]:
    """A fact as relations that the judge can prove."""
    of = tuple(drawn.said(term) for term in one.of)
    match one.rel:
        case Rel.RIGHT_ANGLE:
            p, v, q = three(of[0])
            yield Condition(RelationName.PERPENDICULAR, ((v, p), (v, q)))
        case Rel.COLLINEAR:
            for p, q, r in combinations(map(str, of), 3):
                yield Condition(RelationName.ON, (r, (p, q)))
        case Rel.MIDPOINT:
            m, p, q = map(str, of)
            yield Condition(RelationName.EQUAL_LENGTH, ((m, p), (m, q)))
            yield Condition(RelationName.ON, (m, (p, q)))
        case Rel.CONGRUENT:
            first, second = of
            for a, b in combinations(range(3), 2):
                yield Condition(RelationName.EQUAL_LENGTH, ((first[a], first[b]), (second[a], second[b])))
        case Rel.SIMILAR:
            first, second = of
            for a, b, c in ((0, 1, 2), (1, 2, 0)):
                yield Condition(
                    RelationName.EQUAL_ANGLE, ((first[a], first[b], first[c]), (second[a], second[b], second[c]))
                )
        case Rel.CONCYCLIC | Rel.SAME:
            return  # of four points on a drawn circle; what is the same was judged so
        case _:
            if one.rel in IN_BALLS:
                yield Condition(str(one.rel.value), of, one.ratio)
