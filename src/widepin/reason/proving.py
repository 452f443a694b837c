"""The proof of a work, or of a sample solution: found, and believed only where the checker passes it."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from functools import cached_property

from ..judge.conditions import RelationName
from ..judge.reports.sameness import known_as
from ..judge.task import MODEL, Task
from ..judge.trials.examination import Examination
from ..plane.figure import is_defined
from ..plane.shapes import Kind
from ..plane.steps import Step
from .checker import check
from .drawing import after_making, columns_where_all_is, drawn_in, put_model
from .drawn import Drawn
from .engine import MOST_TRIED, distinctions, saturate
from .extraction import MOST_CITED, Extraction
from .facts import Fact, Rel, fact
from .goals import READ_OFF, Goal, Goals
from .knowledge import MOST_POINTS, Knowledge
from .proof import Case, Line, Proof
from .rules import RuleName
from .shortening import shortened, without_unused

logger = logging.getLogger(__name__)

FEWEST_OF_A_CASE = 2
"""Positions that are looked at."""


def prove(task: Task, steps: Sequence[Step], answer: Mapping[str, str]) -> Proof:
    """The proof that an answer is right, as far as one is found: its open conditions are named.

    Where one proof does not do for all positions, each of two cases has its own, or one of them is named as open.
    ``answer``: wanted name -> id. Only for works that the judge calls sound.
    """
    examined = Examination(task, steps)
    figure = examined.figure
    numbers = [n for n in range(examined.last) if is_defined(examined.shapes[n])]
    columns = columns_where_all_is(examined, numbers)
    if len(columns) < 4 or sum(figure.nodes[number].kind is Kind.POINT for number in numbers) > MOST_POINTS:
        needed = figure.ancestors(figure.index[id_] for id_ in answer.values())
        numbers = sorted(n for n in needed | set(range(len(task.done))) if n < examined.last)
        columns = columns_where_all_is(examined, numbers)
    if not columns:
        return Proof((), tuple(n for n, one in enumerate(task.conditions) if one.rel not in READ_OFF))
    attempt = Attempt(examined, numbers, columns, answer)
    proof = attempt.proof()
    if not proof.open or attempt.left <= 0:
        return proof
    return _with_helpers(attempt, proof) or _by_cases(attempt) or proof


MOST_HELPERS = 8
"""Objects of the sample solution of which a proof may speak, beside those of the work."""


def _with_helpers(attempt: Attempt, proof: Proof) -> Proof | None:
    """A proof that speaks of objects of the sample solution too, where open conditions are about such; or None."""
    examined, drawn = attempt.examined, attempt.drawn
    figure = examined.figure
    needed: set[int] = set()
    for condition in (examined.task.conditions[place] for place in proof.open):
        for name in condition.names:
            if name.startswith(MODEL) and not drawn.twins(name):
                number = figure.index[name]
                needed |= figure.ancestors([number]) - ({number} if condition.rel == RelationName.SAME else set())
    helpers = [number for number in sorted(needed) if number >= examined.last]
    for number in helpers[::-1]:  # what is drawn in the work too, and that nothing else here is made from
        is_used = any(number in figure.nodes[other].sources for other in helpers)
        if not is_used and drawn.twins(figure.nodes[number].step.id):
            helpers.remove(number)
    if not 0 < len(helpers) <= MOST_HELPERS:
        return None
    numbers = [*attempt.numbers, *helpers]
    columns = columns_where_all_is(examined, numbers)
    if not columns:
        return None
    found = Attempt(examined, numbers, columns, attempt.answer, left=attempt.left).proof()
    return found if len(found.open) < len(proof.open) else None


MOST_SPLIT = 3
"""Distinctions of cases that are tried."""


def _by_cases(attempt: Attempt) -> Proof | None:
    """A proof for each of two cases into which the positions fall, or for one of them; None where there is neither."""
    partly = None
    for word, points in distinctions(attempt.known)[:MOST_SPLIT]:
        proofs = []
        for holds in (True, False):
            attempt = attempt.in_case(Case(word, points, holds))
            proofs.append(attempt.proof())
        first, second = proofs
        if not first.open and not second.open:
            return Proof((*first.lines, *moved(second.lines, len(first.lines))))
        for proof in proofs:
            if not proof.open and proof.lines and partly is None:
                partly = replace(proof, open=attempt.places())
        if attempt.left <= 0:
            break
    return partly


class Attempt:
    """A proof looked for in some columns of positions. ``left``: instances of rules that may still be tried."""

    def __init__(
        self,
        examined: Examination,
        numbers: Sequence[int],
        columns: Sequence[int],
        answer: Mapping[str, str],
        case: Case | None = None,
        left: int = MOST_TRIED,
    ):
        self.examined, self.numbers, self.columns, self.answer, self.case = examined, numbers, columns, answer, case
        self.drawn = drawn_in(examined, numbers, columns)
        put_model(self.drawn, examined, columns)
        self.is_empty = case is not None and self.drawn.keep(case).sum() < FEWEST_OF_A_CASE
        self.left = left

    @cached_property
    def known(self) -> Knowledge:
        """What follows in these positions; not to be asked for where there are none."""
        return Knowledge(self.drawn, said_by_making(self.drawn, self.examined, self.numbers))

    def in_case(self, case: Case) -> Attempt:
        """Another attempt, in the positions of a case only."""
        return Attempt(self.examined, self.numbers, self.columns, self.answer, case, self.left)

    def places(self) -> tuple[int, ...]:
        """The conditions that are to be proved, by their places."""
        return tuple(n for n, one in enumerate(self.examined.task.conditions) if one.rel not in READ_OFF)

    def proof(self) -> Proof:
        """The proof, as far as one is found and the checker passes it."""
        if self.is_empty:
            return Proof((), self.places())
        task, drawn, known = self.examined.task, self.drawn, self.known
        goals = list(Goals(task, drawn, self.answer, known_as(task, helpers=True)).all())
        wanted = _wanted(known, goals)
        self.left = saturate(known, wanted, self.left)
        extraction = Extraction(known)
        still_open = set(self.places()) - {goal.place for goal in goals}
        for goal in goals:
            ways = [way for way in goal.ways if all(known.knows(one) for one in way)]
            try:
                if not ways:
                    raise LookupError("nothing leads there")
                way = min(ways, key=lambda way: not way or extraction.said(way[0]) is None)  # what a line says already
                _reach(extraction, goal, list(way))
            except LookupError:  # what is known cannot be put into lines either
                still_open.add(goal.place)
        lines = shortened(extraction.lines, extraction.ways, drawn)
        if self.case is not None:
            lines = tuple(replace(line, case=self.case) for line in lines)
        missing = tuple(one for one in wanted if not known.knows(one))
        proof = Proof(lines, tuple(sorted(still_open)), not still_open and _is_trivial(lines), missing)
        proof = replace(proof, helpers=self._helpers(lines))
        if self.case is not None:
            proof = replace(proof, open_case=self.case.other)
        return checked(proof, self.examined, self.numbers, self.answer)

    def _helpers(self, lines: Sequence[Line]) -> tuple[str, ...]:
        """The objects of the sample solution that lines speak of, and those that these are made from."""
        figure = self.examined.figure
        helpers = {number for number in self.numbers if number >= self.examined.last}
        spoken_of = [figure.index[name] for line in lines for name in line.fact.names if name.startswith(MODEL)]
        return tuple(figure.nodes[number].step.id for number in sorted(figure.ancestors(spoken_of) & helpers))


def checked(proof: Proof, examined: Examination, numbers: Sequence[int], answer: Mapping[str, str]) -> Proof:
    """A proof that the checker has passed; where it has not, nothing is claimed."""
    wrong = check(proof, examined, numbers, answer)
    if wrong is None:
        return _without_idle_rows(proof, lambda less: check(less, examined, numbers, answer) is None)
    logger.warning("the checker refuses line %s (%s): %s", wrong.number, proof.lines[wrong.number - 1], wrong.words)
    conditions = tuple(sorted({*proof.open, *(line.condition for line in proof.lines if line.condition is not None)}))
    return Proof((), conditions, missing=proof.missing)


def _without_idle_rows(proof: Proof, passes: Callable[[Proof], bool]) -> Proof:
    """A proof whose lines, where they cite many, cite no points in a row that they do not need."""
    for place, line in enumerate(proof.lines):
        for number in line.because:
            if len(line.because) > MOST_CITED and proof.lines[number - 1].fact.rel is Rel.COLLINEAR:
                less = replace(line, because=tuple(other for other in line.because if other != number))
                tried = replace(proof, lines=(*proof.lines[:place], less, *proof.lines[place + 1 :]))
                if passes(tried):
                    proof, line = tried, less
    return replace(proof, lines=without_unused(proof.lines))


def follows_by(task: Task, steps: Sequence[Step], answer: Mapping[str, str], number: int, rule: RuleName) -> bool:
    """Whether a line of a proof, by its number from 1, follows by another rule too: the checker says so."""
    found = prove(task, steps, answer)
    lines = list(found.lines)
    lines[number - 1] = replace(lines[number - 1], rule=rule)
    examined = Examination(task, steps)
    numbers = [n for n in range(examined.last) if is_defined(examined.shapes[n])]
    return check(replace(found, lines=tuple(lines)), examined, numbers, answer) is None


def moved(lines: Sequence[Line], by: int) -> Iterator[Line]:
    """Lines that stand so many later."""
    return (replace(line, because=tuple(number + by for number in line.because)) for line in lines)


def _wanted(known: Knowledge, goals: Sequence[Goal]) -> list[Fact]:
    """Facts that prove the conditions by the shortest of their ways that hold."""
    found: list[Fact] = []
    for goal in goals:
        holding = [way for way in goal.ways if all(known.drawn.holds(known.drawn.normal(one)) for one in way)]
        if holding:
            found += min(holding, key=lambda way: len(tuple(way)))
    return found


def _reach(extraction: Extraction, goal: Goal, way: list[Fact]) -> None:
    """The lines of a condition, the last of which is the condition itself."""
    cited = tuple(sorted({number for one in way for number in extraction.numbers_for(one)}))
    rows = extraction.known.renaming(*way) if len(way) == 1 and way[0].rel not in (Rel.COLLINEAR, Rel.ON) else []
    cited = tuple(sorted({*cited, *(number for row in rows for number in extraction.numbers_for(row))}))
    lines = extraction.lines
    if len(way) == 1 and len(cited) == 1 and _is_said(extraction, goal, cited[0]):
        said = lines[cited[0] - 1]
        if said.condition is None:
            lines[cited[0] - 1] = replace(said, fact=goal.fact, condition=goal.place)
            return
    of_model = any(name.startswith(MODEL) for name in goal.fact.names)
    is_made = not cited and goal.fact.rel is not Rel.CONCURRENT  # of which no step says that it is one point
    usual = RuleName.BY_CONSTRUCTION if is_made else _usual(goal.fact, extraction.drawn)
    rule = RuleName.THERE_IS_ONE if of_model else usual
    own = sorted(name for name in goal.fact.names if name in extraction.drawn.own)
    lines.append(Line(goal.fact, rule, cited, tuple(own) if not cited else (), goal.place))
    extraction.ways[len(lines)] = tuple(way)


def _usual(one: Fact, drawn: Drawn) -> RuleName:
    """The rule by which a condition follows from what says the same of its points."""
    match one.rel:
        case Rel.ON:
            return RuleName.ON_CURVE if one.of[1] in drawn.circles else RuleName.SAME_LINE
        case Rel.COLLINEAR:
            return RuleName.SAME_LINE
        case Rel.CONCURRENT:
            return RuleName.ONE_POINT
        case Rel.EQUIDISTANT:
            return RuleName.EQUALLY_FAR
        case Rel.PARALLEL | Rel.PERPENDICULAR:
            return RuleName.DIRECTIONS
    return RuleName.TRANSITIVE


def said_by_making(
    drawn: Drawn, examined: Examination, numbers: Sequence[int]
) -> Iterator[tuple[Fact, RuleName, frozenset[str]]]:
    """What the making of a figure says by itself, with the rule and the steps: what tools guarantee, and radii."""
    for one, here in (*drawn.given, *after_making(drawn, examined, numbers)):
        yield one, RuleName.BY_CONSTRUCTION, here
    for radii in drawn.radii:
        yield fact(Rel.EQUAL_LENGTH, *radii), RuleName.RADII, frozenset().union(*radii.values())


def _is_said(extraction: Extraction, goal: Goal, number: int) -> bool:
    """Whether a line says the condition itself."""
    return extraction.drawn.normal(goal.fact) == extraction.lines[number - 1].fact


def _is_trivial(lines: Sequence[Line]) -> bool:
    """Whether the making alone says everything."""
    return all(line.rule in (RuleName.BY_CONSTRUCTION, RuleName.THERE_IS_ONE) for line in lines)
