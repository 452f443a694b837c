"""What is asked: the given figure, the tools, the wanted objects and the conditions on them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..plane.errors import CoreError
from ..plane.figure import Figure
from ..plane.makes import MAKES
from ..plane.rules import Broken, broken
from ..plane.shapes import LINES, Kind
from ..plane.steps import MAX_STEPS, IllFormed, Step, check_steps
from .conditions import KINDS_OF_TERM, RELATIONS, TermKind
from .rules import TaskRule as Rule

MODEL = "model:"

MAX_WANTED, MAX_CONDITIONS, MAX_TERMS = 40, 120, 60
"""Objects of an answer, conditions on them, and terms of one condition."""

TOOLS = (*(name for name in MAKES if name != "intersection"), "points")
"""What a task may allow. ``points`` stands for free and sliding points; intersections need no permission."""

WANTED_KINDS = (*(kind.value for kind in Kind), "straight")


class IllFormedTask(CoreError):
    """A task breaks a rule of the format. ``place``: as in the document, ``given[2].from[0]``."""

    def __init__(self, place: str, broken: Broken):
        super().__init__(f"{place}: {broken}")
        self.place = place
        self.broken = broken


@dataclass(frozen=True)
class Allowance:
    """A tool that may be used, and how often (None: as often as one likes).

    ``opening``: two given points whose distance is the only opening of a compass that keeps it; None for any opening.
    """

    tool: str
    most: int | None = None
    opening: tuple[str, str] | None = None


@dataclass(frozen=True)
class Wanted:
    """An object of the answer: its name in the conditions, its kind, and whether a given object may serve."""

    name: str
    kind: str
    given: bool = False

    @property
    def kinds(self) -> frozenset[Kind]:
        """The kinds of object that may serve."""
        return LINES if self.kind == "straight" else frozenset({Kind(self.kind)})


Names = str | tuple[str, ...]


@dataclass(frozen=True)
class Condition:
    """A relation and its terms: names, or tuples of names for pairs and triples. ``ratio`` is (n, d)."""

    rel: str
    of: tuple[Names, ...]
    ratio: tuple[int, int] | None = None

    @property
    def names(self) -> set[str]:
        """All names in the terms."""
        return {name for term in self.of for name in ((term,) if isinstance(term, str) else term)}

    def renamed(self, names: Mapping[str, str]) -> Condition:
        """The condition with other names; what is not named keeps its own."""

        def change(term: Names) -> Names:
            return names.get(term, term) if isinstance(term, str) else tuple(names.get(one, one) for one in term)

        return replace(self, of=tuple(change(term) for term in self.of))


@dataclass(frozen=True)
class Use:
    """One use of a class tool that is a construction: the ids of all its steps, and which are its results.

    ``moves``: what the use counts, however many steps it took.
    """

    class_tool: str
    ids: tuple[str, ...]
    gives: tuple[str, ...]
    moves: int

    @property
    def helpers(self) -> tuple[str, ...]:
        """The steps that are not results."""
        return tuple(id_ for id_ in self.ids if id_ not in self.gives)


@dataclass(frozen=True)
class Work:
    """What a student made: steps, which objects are meant as the answer, and which steps class tools made at once."""

    steps: tuple[Step, ...]
    answer: dict[str, str] | None = None
    uses: tuple[Use, ...] = ()

    @cached_property
    def hidden_helpers(self) -> frozenset[str]:
        """The ids of steps within class tools that are no answer, and that no sentence names.

        A helper that a step outside its class tool is made from is an object of the student's own.

        >>> c, d = Step("c", "circle", ("A", "B")), Step("d", "circle", ("B", "A"))
        >>> steps = (c, d, Step("P", "intersection", ("c", "d")))
        >>> use = Use("Apex", ("c", "d", "P"), ("P",), 1)
        >>> sorted(Work(steps, uses=(use,)).hidden_helpers)
        ['c', 'd']
        >>> sorted(Work((*steps, Step("X", "point_on", ("c",), (1, 1))), uses=(use,)).hidden_helpers)
        ['d']
        """

        def helpers_of(use: Use) -> set[str]:
            within = set(use.ids)
            used_outside = {parent for step in self.steps if step.id not in within for parent in step.parents}
            return set(use.helpers) - used_outside

        return frozenset().union(*map(helpers_of, self.uses))

    def tool_of(self, id_: str) -> str | None:
        """The class tool that made a step, None for one that was made by hand."""
        return next((use.class_tool for use in self.uses if id_ in use.ids), None)


@dataclass(frozen=True)
class Task:
    """A task that was checked on construction; raises IllFormedTask.

    Steps and terms are as in docs/formats.md; ``model`` continues ``given``.
    """

    title: str
    given: tuple[Step, ...]
    tools: tuple[Allowance, ...]
    wanted: tuple[Wanted, ...]
    conditions: tuple[Condition, ...]
    start: tuple[Step, ...] = ()
    model: tuple[Step, ...] = ()
    budget: int | None = None
    text: str = ""

    def __post_init__(self) -> None:
        given = self._checked("given", self.given, {})
        self._checked("start", self.start, given)
        self._checked("model", self.model, given)
        self._check_tools()
        self._check_wanted(given)
        if len(self.conditions) > MAX_CONDITIONS:
            raise IllFormedTask("conditions", broken(Rule.TOO_MANY_CONDITIONS, most=MAX_CONDITIONS))
        for index, condition in enumerate(self.conditions):
            check_condition(f"conditions[{index}]", condition, self.kinds_in_conditions)

    @property
    def done(self) -> tuple[Step, ...]:
        """What stands on the board before the student's first step."""
        return (*self.given, *self.start)

    @cached_property
    def model_steps(self) -> tuple[Step, ...]:
        """The model's steps under their names in conditions, ``model:ID``."""
        names = {step.id: MODEL + step.id for step in self.model}
        return tuple(step.renamed(names) for step in self.model)

    @cached_property
    def kinds_in_conditions(self) -> dict[str, frozenset[Kind]]:
        """What each name in a condition may stand for."""
        known = {step.id: frozenset({MAKES[step.make].gives}) for step in (*self.done, *self.model_steps)}
        return known | {wanted.name: wanted.kinds for wanted in self.wanted}

    @cached_property
    def model_needed(self) -> tuple[str, ...]:
        """The model's objects that must exist for the task to have an answer: those that conditions name, or all."""
        names = set().union(*(condition.names for condition in self.conditions)) if self.conditions else set()
        named = tuple(step.id for step in self.model_steps if step.id in names)
        return named or tuple(step.id for step in self.model_steps)

    def figure(self, steps: Sequence[Step] = ()) -> Figure:
        """The given figure, what is done already, these steps of a student, and the model, linked."""
        return Figure((*self.done, *steps, *self.model_steps))

    def _checked(self, part: str, steps: Sequence[Step], known: dict[str, Kind]) -> dict[str, Kind]:
        try:
            kinds = check_steps(steps, known)
        except IllFormed as wrong:
            raise IllFormedTask(f"{part}[{wrong.index}].{wrong.field}", wrong.broken) from None
        if len(self.given) + len(steps) > MAX_STEPS:
            raise IllFormedTask(part, broken(Rule.STEPS_IN_ALL, most=MAX_STEPS))
        return kinds

    def _check_tools(self) -> None:
        seen: set[str] = set()
        for index, allowance in enumerate(self.tools):
            if allowance.tool not in (*TOOLS, "intersection"):
                raise IllFormedTask(f"tools[{index}]", broken(Rule.NO_TOOL, tool=allowance.tool, tools=TOOLS))
            if allowance.tool in seen:
                raise IllFormedTask(f"tools[{index}]", broken(Rule.TOOL_TWICE, tool=allowance.tool))
            if allowance.most is not None and allowance.most < 0:
                raise IllFormedTask(f"tools[{index}].most", broken(Rule.NEGATIVE, most=allowance.most))
            if allowance.opening is not None:
                self._check_opening(f"tools[{index}].opening", allowance.tool, allowance.opening)
            seen.add(allowance.tool)

    def _check_opening(self, place: str, tool: str, opening: tuple[str, str]) -> None:
        if tool != "circle_radius":
            raise IllFormedTask(place, broken(Rule.NO_FIXED_RADIUS, tool=tool))
        points = {step.id for step in self.given if MAKES[step.make].gives is Kind.POINT}
        for end in opening:
            if end not in points:
                raise IllFormedTask(place, broken(Rule.NOT_A_GIVEN_POINT, name=end))
        if opening[0] == opening[1]:
            raise IllFormedTask(place, broken(Rule.POINT_TWICE, name=opening[0]))

    def _check_wanted(self, given: dict[str, Kind]) -> None:
        if not self.wanted:
            raise IllFormedTask("wanted", broken(Rule.NOTHING_WANTED))
        if len(self.wanted) > MAX_WANTED:
            raise IllFormedTask("wanted", broken(Rule.TOO_MUCH_WANTED, most=MAX_WANTED))
        seen: set[str] = set()
        for index, wanted in enumerate(self.wanted):
            if wanted.kind not in WANTED_KINDS:
                wrong = broken(Rule.NO_KIND, kind=wanted.kind, kinds=WANTED_KINDS)
                raise IllFormedTask(f"wanted[{index}].kind", wrong)
            if wanted.name in seen:
                raise IllFormedTask(f"wanted[{index}].name", broken(Rule.WANTED_TWICE, name=wanted.name))
            if wanted.name in given or any(step.id == wanted.name for step in self.start):
                raise IllFormedTask(f"wanted[{index}].name", broken(Rule.WANTED_IS_GIVEN, name=wanted.name))
            seen.add(wanted.name)


def check_condition(place: str, condition: Condition, known: dict[str, frozenset[Kind]]) -> None:
    """That a condition names a relation there is, with terms it can take. Raises IllFormedTask."""
    relation = RELATIONS.get(condition.rel)
    if relation is None:
        wrong = broken(Rule.NO_RELATION, rel=condition.rel, relations=tuple(RELATIONS))
        raise IllFormedTask(f"{place}.rel", wrong)
    count = len(condition.of)
    if count > MAX_TERMS:
        raise IllFormedTask(f"{place}.of", broken(Rule.TOO_MANY_TERMS, most=MAX_TERMS))
    if relation.many and count < relation.fewest:
        wrong = broken(Rule.AT_LEAST_TERMS, rel=condition.rel, least=relation.fewest, role=relation.of[-1], count=count)
        raise IllFormedTask(f"{place}.of", wrong)
    if not relation.many and count != len(relation.of):
        wrong = broken(Rule.HOW_MANY_TERMS, rel=condition.rel, exactly=len(relation.of), count=count)
        raise IllFormedTask(f"{place}.of", wrong)
    if (condition.rel == "ratio") != (condition.ratio is not None):
        raise IllFormedTask(f"{place}.is", broken(Rule.RATIO_ALONE))
    if condition.ratio is not None and min(condition.ratio) <= 0:
        raise IllFormedTask(f"{place}.is", broken(Rule.RATIO_BELOW_ONE))
    for number, (term, role) in enumerate(zip(condition.of, relation.roles(count), strict=True)):
        check_term(f"{place}.of[{number}]", term, role, known)
    if condition.rel == "tangent" and not _takes(condition, frozenset({Kind.CIRCLE}), known):
        raise IllFormedTask(f"{place}.of", broken(Rule.NO_CIRCLE_TO_TOUCH))
    if condition.rel == "same" and not _comparable(condition, known):
        raise IllFormedTask(f"{place}.of", broken(Rule.NOT_COMPARABLE))


def check_term(place: str, term: Names, role: TermKind, known: dict[str, frozenset[Kind]]) -> None:
    """That a term of a condition is what its role asks for. Raises IllFormedTask."""
    for name in names_of(term):
        if name not in known:
            raise IllFormedTask(place, broken(Rule.NAME_UNKNOWN, name=name))
    if isinstance(term, str):
        if role.is_list:
            raise IllFormedTask(place, broken(Rule.LIST_OF_POINTS, size=role.size))
    elif role.size is None:
        raise IllFormedTask(place, broken(Rule.NO_LIST, role=role))
    elif len(term) != role.size:
        wrong = Rule.LIST_OF_POINTS if role.is_list else Rule.NO_LIST
        raise IllFormedTask(place, broken(wrong, role=role, size=role.size))
    expected = role if isinstance(term, str) else TermKind.POINT
    for name in names_of(term):
        if not known[name] & KINDS_OF_TERM[expected]:
            wrong_kind = broken(Rule.KIND_OF_TERM, name=name, kind=sorted(known[name])[0], role=expected)
            raise IllFormedTask(place, wrong_kind)


def names_of(term: Names) -> Iterator[str]:
    """The names in one term."""
    yield from (term,) if isinstance(term, str) else term


def kinds_of(term: Names, known: dict[str, frozenset[Kind]]) -> frozenset[Kind]:
    """What a term may be; a pair is the line through its points."""
    return known[term] if isinstance(term, str) else frozenset({Kind.LINE})


def _takes(condition: Condition, kinds: frozenset[Kind], known: dict[str, frozenset[Kind]]) -> bool:
    return any(kinds_of(term, known) & kinds for term in condition.of)


def _comparable(condition: Condition, known: dict[str, frozenset[Kind]]) -> bool:
    first, second = (kinds_of(term, known) for term in condition.of)
    return bool(first & second) or bool(first & LINES and second & LINES)
