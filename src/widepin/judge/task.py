"""What is asked: the given figure, the tools, the wanted objects and the conditions on them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..plane.errors import CoreError
from ..plane.figure import Figure
from ..plane.makes import MAKES
from ..plane.shapes import LINES, Kind
from ..plane.steps import MAX_STEPS, IllFormed, Step, check_steps
from .conditions import KINDS_OF_TERM, RELATIONS

MODEL = "model:"

MAX_WANTED, MAX_CONDITIONS, MAX_TERMS = 40, 120, 60
"""Objects of an answer, conditions on them, and terms of one condition."""

TOOLS = (*(name for name in MAKES if name != "intersection"), "points")
"""What a task may allow. ``points`` stands for free and sliding points; intersections need no permission."""

WANTED_KINDS = (*(kind.value for kind in Kind), "straight")


class IllFormedTask(CoreError):
    """A task breaks a rule of the format. ``place``: as in the document, ``given[2].from[0]``; ``rule``: in words."""

    def __init__(self, place: str, rule: str):
        super().__init__(f"{place}: {rule}")
        self.place = place
        self.rule = rule


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


@dataclass(frozen=True)
class Use:
    """One use of a class tool that is a proven construction: the ids of all its steps, and which are its results.

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
            raise IllFormedTask("conditions", f"more than {MAX_CONDITIONS} conditions; ask for less")
        for place, condition in enumerate(self.conditions):
            check_condition(f"conditions[{place}]", condition, self.kinds_in_conditions)

    @property
    def done(self) -> tuple[Step, ...]:
        """What stands on the board before the student's first step."""
        return (*self.given, *self.start)

    @cached_property
    def model_steps(self) -> tuple[Step, ...]:
        """The model's steps under their names in conditions, ``model:ID``."""
        own = {step.id for step in self.model}

        def named(source: str) -> str:
            return MODEL + source if source in own else source

        return tuple(
            replace(
                step,
                id=named(step.id),
                sources=tuple(named(source) for source in step.sources),
                reference=None if step.reference is None else named(step.reference),
            )
            for step in self.model
        )

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
            raise IllFormedTask(f"{part}[{wrong.index}].{wrong.field}", wrong.rule) from None
        if len(self.given) + len(steps) > MAX_STEPS:
            raise IllFormedTask(part, f"more than {MAX_STEPS} steps in all; make the figure simpler")
        return kinds

    def _check_tools(self) -> None:
        seen: set[str] = set()
        for place, allowance in enumerate(self.tools):
            if allowance.tool not in (*TOOLS, "intersection"):
                raise IllFormedTask(
                    f"tools[{place}]", f"{allowance.tool[:30]!r} is no tool; use one of {', '.join(TOOLS)}"
                )
            if allowance.tool in seen:
                raise IllFormedTask(f"tools[{place}]", f"{allowance.tool} is listed twice; list it once")
            if allowance.most is not None and allowance.most < 0:
                raise IllFormedTask(f"tools[{place}].most", f"{allowance.most} is negative; use 0 or more")
            if allowance.opening is not None:
                self._check_opening(f"tools[{place}].opening", allowance.tool, allowance.opening)
            seen.add(allowance.tool)

    def _check_opening(self, place: str, tool: str, opening: tuple[str, str]) -> None:
        if tool != "circle_radius":
            raise IllFormedTask(place, f"{tool} has no fixed radius; only circle_radius can")
        points = {step.id for step in self.given if MAKES[step.make].gives is Kind.POINT}
        for end in opening:
            if end not in points:
                raise IllFormedTask(place, f"{end[:30]!r} is no given point; name two given points")
        if opening[0] == opening[1]:
            raise IllFormedTask(place, f"{opening[0]} is named twice; name two given points")

    def _check_wanted(self, given: dict[str, Kind]) -> None:
        if not self.wanted:
            raise IllFormedTask("wanted", "nothing is to be constructed; name at least one object of the answer")
        if len(self.wanted) > MAX_WANTED:
            raise IllFormedTask("wanted", f"more than {MAX_WANTED} objects are to be constructed; ask for fewer")
        seen: set[str] = set()
        for place, wanted in enumerate(self.wanted):
            if wanted.kind not in WANTED_KINDS:
                raise IllFormedTask(
                    f"wanted[{place}].kind", f"{wanted.kind[:30]!r} is no kind; use {', '.join(WANTED_KINDS)}"
                )
            if wanted.name in seen:
                raise IllFormedTask(f"wanted[{place}].name", f"{wanted.name} is to be constructed twice; rename one")
            if wanted.name in given or any(step.id == wanted.name for step in self.start):
                raise IllFormedTask(
                    f"wanted[{place}].name", f"{wanted.name} is the id of a given object; choose another name"
                )
            seen.add(wanted.name)


def check_condition(place: str, condition: Condition, known: dict[str, frozenset[Kind]]) -> None:
    """That a condition names a relation there is, with terms it can take. Raises IllFormedTask."""
    relation = RELATIONS.get(condition.rel)
    if relation is None:
        raise IllFormedTask(f"{place}.rel", f"{condition.rel[:30]!r} is no relation; use one of {', '.join(RELATIONS)}")
    count = len(condition.of)
    if count > MAX_TERMS:
        raise IllFormedTask(f"{place}.of", f"more than {MAX_TERMS} terms; split the condition")
    if (count < relation.many) if relation.many else (count != len(relation.of)):
        few = {2: "two", 3: "three"}.get(relation.many, str(relation.many))
        needs = f"{few} or more {relation.of[0]}s" if relation.many else f"{len(relation.of)} terms"
        raise IllFormedTask(f"{place}.of", f"{condition.rel} takes {needs}; {count} are given")
    if (condition.rel == "ratio") != (condition.ratio is not None):
        raise IllFormedTask(f"{place}.is", 'ratio, and only ratio, needs "is": [n, d]')
    if condition.ratio is not None and min(condition.ratio) <= 0:
        raise IllFormedTask(f"{place}.is", "both numbers of a ratio must be 1 or more")
    roles = relation.of * count if relation.many else relation.of
    for number, (term, role) in enumerate(zip(condition.of, roles, strict=True)):
        check_term(f"{place}.of[{number}]", term, role, known)
    if condition.rel == "tangent" and not _takes(condition, frozenset({Kind.CIRCLE}), known):
        raise IllFormedTask(f"{place}.of", "tangent needs a circle among its terms")
    if condition.rel == "same" and not _comparable(condition, known):
        raise IllFormedTask(f"{place}.of", "same needs two objects of one kind: points, circles or lines")


def check_term(place: str, term: Names, role: str, known: dict[str, frozenset[Kind]]) -> None:
    """That a term of a condition is what its role asks for. Raises IllFormedTask."""
    for name in names_of(term):
        if name not in known:
            raise IllFormedTask(
                place,
                f"{name[:30]!r} is not known; use an object to construct, a given id, or model:ID",
            )
    if role in ("pair", "triple"):
        size = 2 if role == "pair" else 3
        if isinstance(term, str) or len(term) != size:
            raise IllFormedTask(place, f"a list of {size} points is needed here")
        role = "point"
    elif not isinstance(term, str):
        if role not in ("straight", "curve", "object") or len(term) != 2:
            raise IllFormedTask(place, f"one {role} is needed here, not a list")
        role = "point"
    for name in names_of(term):
        if not known[name] & KINDS_OF_TERM[role]:
            article = "an" if role == "object" else "a"
            raise IllFormedTask(place, f"{name} is a {sorted(known[name])[0]}, but {article} {role} is needed")


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
