"""Tasks and steps in plain English."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from functools import cached_property
from typing import assert_never

from ...judge.conditions import RELATIONS, RelationName, TermKind
from ...judge.costs.class_tools import ClassToolGeometry
from ...judge.reports.sameness import known_as
from ...judge.task import MODEL, Allowance, Condition, Names, Task, Use
from ...plane.makes import MAKES, MakeName
from ...plane.rows import complete
from ...plane.shapes import Kind
from ...plane.steps import Step
from ..language import gettext as _
from ..language import marked, ngettext
from .amounts import times
from .make_words import LETTER, MAKE_WORDS, filled, joined
from .relation_words import CONCYCLIC, RELATION_WORDS

TOOL_WORDS = {"points": marked("points")} | {name: row.tool for name, row in MAKE_WORDS.items()}
"""The tools of a task."""

DEPTH = 2
"""How many steps of the model are described one within the other."""

JOINABLE = {"on": (1, 0), "tangent": (0, 1)}
"""Relations whose clauses may be said together: the place of the term they share, and of the other."""


def listed(words: Iterable[str]) -> str:
    """Words as a list: a, b and c; nothing for none."""
    words = list(words)
    *most, last = words or [""]
    return _("%(names)s and %(last)s", names=", ".join(most), last=last) if most else last


def tool_in_words(allowance: Allowance) -> str:
    """A tool with what may be used of it."""
    words = _(TOOL_WORDS[allowance.tool])
    if allowance.opening:
        words = _("circle with radius %(radius)s only", radius="".join(allowance.opening))
    if allowance.most is None:
        return words
    often = times(allowance.most)
    return _("%(tool)s (%(times)s at most)", tool=words, times=often) if allowance.most else f"{words} ({often})"


KIND_WORDS: dict[str, str] = complete(
    "KIND_WORDS",
    Kind,
    {
        Kind.POINT: marked("point"),
        Kind.LINE: marked("line"),
        Kind.RAY: marked("ray"),
        Kind.SEGMENT: marked("segment"),
        Kind.CIRCLE: marked("circle"),
    },
)
"""The kinds of objects."""


def kind_in_words(kind: str) -> str:
    """A kind of object as people call it; where a ray or a segment will do as well, it is called a line."""
    return "line" if kind == "straight" else kind


class Words:
    """Puts the conditions of one task into words."""

    def __init__(self, task: Task):
        self.task = task
        self.kinds = task.kinds_in_conditions
        self.model = {step.id: step for step in task.model_steps}

    @cached_property
    def known(self) -> dict[str, Step]:
        """Objects of the model as a textbook calls them, made from given ones."""
        return known_as(self.task)

    def wanted(self) -> str:
        """What the answer consists of: a point C; points B, C and D; a circle k and a line t."""
        names: dict[str, list[str]] = {}
        for one in self.task.wanted:
            names.setdefault(kind_in_words(one.kind), []).append(one.name)
        return listed(f"{kind}s {listed(of)}" if len(of) > 1 else f"a {kind} {of[0]}" for kind, of in names.items())

    def condition(self, condition: Condition) -> str:
        """One condition as a clause: what of the answer, in terms that the student can see."""
        if condition.rel == RelationName.SAME:
            return self._same(condition)
        row = CONCYCLIC if condition.rel == "concyclic" else RELATION_WORDS[condition.rel]
        terms = list(condition.of)
        if row.as_asked is not None and self._tells_enough(shown := self._shown(terms), terms):
            terms, template = shown, row.as_asked[len(shown) > 1]
            return self._filled(template, condition, terms)
        if condition.rel == RelationName.EQUAL_LENGTH and not all(map(self.is_plain, terms)):
            return self._far_alike(terms)
        template = row.clause if row.at_length is None or all(map(self.is_plain, terms)) else row.at_length
        if condition.rel == RelationName.RATIO and template == row.at_length:
            return self._as_many_times(condition)
        return self._filled(template, condition, terms)

    def _filled(self, template: str, condition: Condition, terms: Sequence[Names]) -> str:
        """A template with the terms of a condition in words, each by what it stands for there."""
        relation = RELATIONS.get(condition.rel)
        roles = relation.roles(len(terms)) if relation else (TermKind.POINT,) * len(terms)
        named = [self.term(term, role) for term, role in zip(terms, roles, strict=True)]
        row = RELATION_WORDS.get(condition.rel)
        if row is not None and row.spelled is not None and template == row.at_length:
            named = [self._spelled(row.spelled, term) for term in terms]
        n, d = condition.ratio or (1, 1)
        others = {"all": listed(named[relation.fixed if relation else 0 :]), "n": str(n), "d": str(d)}

        def value(found: re.Match[str]) -> str:
            if found[1] in others:
                return others[found[1]]
            places = [int(at) for at in found[1]]
            return named[places[0]] if len(places) == 1 else self.ends([str(terms[place]) for place in places])

        return re.sub(r"\{(\w+)\}", value, _(template))

    def _spelled(self, spelled: tuple[str, str], term: Names) -> str:
        by_letters, by_points = spelled
        if self.is_plain(term):
            return _(by_letters).format(all="".join(term))
        return _(by_points).format(*(self.term(name, TermKind.POINT) for name in term))

    def triangle(self, term: Names) -> str:
        """A triangle by its letters or by its corners."""
        spelled = RELATION_WORDS[RelationName.EQUAL_AREA].spelled
        assert spelled is not None
        return self._spelled(spelled, term)

    def _same(self, condition: Condition) -> str:
        """That an object of the answer is another one. What the sample solution makes is told by what a textbook calls
        it, and otherwise not by how it is made: that is what the task asks for.
        """
        first, second = condition.of
        if isinstance(first, str) and first.startswith(MODEL):
            first, second = second, first
        name = self.term(first, TermKind.OBJECT)
        if not isinstance(second, str) or not second.startswith(MODEL):
            kind = _(KIND_WORDS[self._kind(second)])
            return _("%(name)s is the same %(kind)s as %(other)s", name=name, kind=kind, other=self.name(second))
        return _("%(name)s is %(called)s", name=name, called=self.asked_for(second))

    def asked_for(self, term: Names) -> str:
        """An object as it is called where it is what the task asks for: by what a textbook calls it, and otherwise not
        by how it is made.
        """
        if not isinstance(term, str) or not self._is_model(term):
            return self.name(term)
        kind = _(KIND_WORDS[self._kind(term)])
        return self._called(self.model[term]) or _("the %(kind)s asked for", kind=kind)

    def tells_how(self, condition: Condition) -> bool:
        """Whether a condition tells how an object of the sample solution is made that has no name in a textbook."""
        if condition.rel == RelationName.SAME:
            return False
        made = [self.model[name] for name in condition.names if self._is_model(name)]
        return any(self._called(step) is None and self._described(step, DEPTH) is not None for step in made)

    def _called(self, step: Step) -> str | None:
        """What a textbook calls an object of the model that is made from given ones, if it has a name there."""
        known = self.known.get(step.id, step)
        if known.make == MakeName.INTERSECTION or any(source in self.model for source in known.sources):
            return None
        return filled(MAKE_WORDS[known.make].called or "", [self.line(source) for source in known.sources]) or None

    def _kind(self, term: Names) -> str:
        """The kind of an object, or of a line through two points; the first of several that it may be."""
        kinds = self.kinds[term] if isinstance(term, str) else {Kind.LINE}
        return next(kind.value for kind in Kind if kind in kinds)

    def _far_alike(self, terms: Sequence[Names]) -> str:
        """That distances are equal, of which some end at what has no letter: W is as far from the centre as A."""
        shared = next((name for name in terms[0] if all(name in term for term in terms[1:])), None)
        if shared is not None:
            ends = [next(name for name in term if name != shared) for term in terms if set(term) != {shared}]
            if len(ends) == len(terms):
                ends.sort(key=self._is_model)
                first, *others = (self.term(name, TermKind.POINT) for name in ends)
                there = self.term(shared, TermKind.POINT)
                if len(others) == 1:
                    return _("%(one)s is as far from %(there)s as %(other)s", one=first, there=there, other=others[0])
                return _("%(names)s are equally far from %(there)s", names=listed([first, *others]), there=there)
        return _("%(lengths)s are equal", lengths=listed(self.term(term, TermKind.PAIR) for term in terms))

    def _as_many_times(self, condition: Condition) -> str:
        """That one length is so many times another, where one of them ends at what has no letter."""
        n, d = condition.ratio or (1, 1)
        first, second = (self.term(term, TermKind.PAIR) for term in condition.of)
        if n == d:
            return _("%(lengths)s are equal", lengths=listed((first, second)))
        if 1 not in (n, d):
            return self._filled(RELATION_WORDS[RelationName.RATIO].at_length or "", condition, condition.of)
        (longer, shorter, times) = (first, second, n) if d == 1 else (second, first, d)
        if times == 2:
            return _("%(longer)s is twice %(shorter)s", longer=longer, shorter=shorter)
        return _("%(longer)s is %(times)s times %(shorter)s", longer=longer, times=times, shorter=shorter)

    def conditions(self, conditions: Iterable[Condition] | None = None) -> list[str]:
        """Conditions, those of the task if no others are given, as clauses.

        Those that only differ in one name are said together, and nothing is said twice.

        Clauses keep their case: k and K are different objects.
        """
        clauses: dict[Condition | tuple[str, Names], str] = {}
        together: dict[tuple[str, Names], list[Names]] = {}
        for condition in self.task.conditions if conditions is None else conditions:
            shared, other = JOINABLE.get(condition.rel, (None, None))
            if shared is None or other is None:
                clauses[condition] = self.condition(condition)
                continue
            key = (condition.rel, condition.of[shared])
            if condition.of[other] not in together.setdefault(key, []):
                together[key].append(condition.of[other])
            clauses[key] = self._together(condition, together[key])
        return list(dict.fromkeys(clauses.values()))

    def asked(self) -> tuple[str, list[str]]:
        """What the task asks for: the beginning of a sentence, and clauses that go on with it. What the text of the
        task alone can say, "the point asked for", is none; a sentence without clauses is whole.
        """
        told = [one for one in self.task.conditions if not self.task.text.strip() or not self._is_left_to_text(one)]
        clauses = self.conditions(told)
        if not clauses:
            return _("Construct %(wanted)s.", wanted=self.wanted()), []
        return _("Construct %(wanted)s such that", wanted=self.wanted()), clauses

    def _is_left_to_text(self, condition: Condition) -> bool:
        """Whether a condition only says that the answer is as the sample solution's, in no words of a textbook."""
        if condition.rel == RelationName.SAME:
            of_model = [name for name in condition.of if isinstance(name, str) and self._is_model(name)]
            return len(of_model) == 1 and self._called(self.model[of_model[0]]) is None
        row = RELATION_WORDS.get(condition.rel)
        shown = self._shown(condition.of) if row is not None and row.as_asked is not None else []
        return len(shown) == 1 and self._tells_enough(shown, condition.of)

    def _together(self, condition: Condition, others: list[Names]) -> str:
        if len(others) == 1:
            return self.condition(condition)
        if condition.rel == "on":
            names = listed(self.term(other, TermKind.POINT) for other in others)
            return _("%(names)s lie on %(name)s", names=names, name=self.term(condition.of[1], TermKind.CURVE))
        names = listed(self.term(other, TermKind.CURVE) for other in others)
        return _("%(name)s touches %(names)s", name=self.term(condition.of[0], TermKind.CURVE), names=names)

    def _shown(self, terms: Sequence[Names]) -> list[Names]:
        """The pairs or triples of which the student can see all points."""
        return [term for term in terms if not any(map(self._is_model, term))]

    def _tells_enough(self, shown: Sequence[Names], terms: Sequence[Names]) -> bool:
        """Whether what is to be equal can be told by these terms alone: all of the answer stands in them."""
        wanted = {one.name for one in self.task.wanted}
        left_out = {name for term in terms if term not in shown for name in term}
        return 0 < len(shown) < len(terms) and left_out.isdisjoint(wanted)

    def _is_model(self, name: str) -> bool:
        return name.startswith(MODEL)

    # -- terms ---------------------------------------------------------------------------------------

    def is_plain(self, term: Names) -> bool:
        """Whether a term can be told by letters alone: A, AB, ABC."""
        names = (term,) if isinstance(term, str) else term
        return all(LETTER.fullmatch(name) for name in names) if len(names) > 1 else not self._is_model(names[0])

    def name(self, term: Names) -> str:
        """An object as it is called: A, the perpendicular bisector of AB; or a line through two points: AB."""
        return self.term(term, TermKind.OBJECT)

    def term(self, term: Names, role: TermKind) -> str:
        """A term by what it stands for: an object, a line through two points, a length, an angle or a triangle."""
        if isinstance(term, str):
            return self.step(self.model[term], role is TermKind.CURVE) if self._is_model(term) else term
        if self.is_plain(term):
            return "".join(term)
        points = [self.term(name, TermKind.POINT) for name in term]
        match role:
            case TermKind.PAIR:
                first, second = sorted(term, key=self._is_model)
                return _(
                    "the distance from %(first)s to %(second)s",
                    first=self.term(first, TermKind.POINT),
                    second=self.term(second, TermKind.POINT),
                )
            case TermKind.TRIPLE:
                first, vertex, last = points
                return _(
                    "from %(first)s at %(vertex)s to %(last)s",
                    first=first,
                    vertex=vertex,
                    last=last,
                )
            case TermKind.OBJECT | TermKind.STRAIGHT | TermKind.CURVE | TermKind.POINT:
                return _("the line through %(points)s", points=listed(points))
            case _ as never:
                assert_never(never)

    def ends(self, names: Sequence[str]) -> str:
        """Two points between which something lies: AB, or A and the centre of k."""
        if self.is_plain(tuple(names)):
            return "".join(names)
        return listed(self.term(name, TermKind.POINT) for name in names)

    def step(self, step: Step, within_extent: bool = False) -> str:
        """What a step of the model makes, by its making, in objects that the student can see.

        Helpers of the model are described in turn; where that leads too far, it is the object that is asked for, or one
        of the sample solution. ``within_extent``: a segment or ray is not told as its line.
        """
        known = self.known.get(step.id)
        if known is not None and not (within_extent and MAKES[known.make].gives is not MAKES[step.make].gives):
            step = known
        described = self._described(step, DEPTH)
        if described is not None:
            return described
        name, kind = step.id.removeprefix(MODEL), _(KIND_WORDS[MAKES[step.make].gives.value])
        if any(name == one.name for one in self.task.wanted):
            return _("the %(kind)s asked for", kind=kind)
        return _("the %(kind)s %(name)s of the sample solution", kind=kind, name=name)

    def _described(self, step: Step, depth: int) -> str | None:
        """A step of the model in words of at most this many levels; None where there are more."""
        names = [self._source(source, depth) for source in step.sources]
        if any(name is None for name in names):
            return None
        sources = [str(name) for name in names]
        bare = all(source not in self.model for source in step.sources)
        if step.make == MakeName.INTERSECTION:
            makes = {self.model[source].make for source in step.sources if source in self.model}
            if len(makes) == 1 and not any(source not in self.model for source in step.sources):
                return _("the intersection of the %(tool)ss", tool=_(TOOL_WORDS[makes.pop()]))
        row = MAKE_WORDS[step.make]
        template = row.called if bare else row.called_from
        return None if template is None else filled(template, sources)

    def _source(self, id_: str, depth: int) -> str | None:
        """What a step of the model is made from: by name where it is given, else by its making."""
        if id_ in self.model:
            return self._described(self.model[id_], depth - 1) if depth > 1 else None
        return self.line(id_)

    def line(self, id_: str) -> str:
        """A line called by its points where it has two."""
        step = next((one for one in (*self.task.given, *self.task.model) if one.id == id_), None)
        return joined(step.sources) if step and step.make in ("line", "ray", "segment") else id_


def instruction(step: Step) -> str:
    """A step as it is told to somebody who does it.

    >>> instruction(Step("c", "circle_radius", ("P", "A", "B")))
    'c: circle centred P with radius AB'
    """
    return f"{step.id}: {filled(MAKE_WORDS[step.make].told, step.sources, step.reference, step.choice)}"


def instruction_to_use(use: Use, steps: Sequence[Step]) -> str:
    """The use of a class tool as it is told to somebody who does it. ``steps``: those of the work.

    >>> instruction_to_use(Use("Centre line", ("c", "d", "m"), ("m",), 1), [Step("c", "circle", ("A", "B"))])
    'm: Centre line from A and B'
    """
    from_ = dict.fromkeys(source for step in steps if step.id in use.ids for source in step.parents)
    return _(
        "%(results)s: %(tool)s from %(sources)s",
        results=listed(use.gives),
        tool=use.class_tool,
        sources=listed(one for one in from_ if one not in use.ids),
    )


def class_tool_in_words(class_tool: ClassToolGeometry) -> str:
    """What a class tool asks for and what it makes: From the points A and B it makes the line m."""
    kinds = {step.id: MAKES[step.make].gives for step in class_tool.steps}
    asks = _of_each_kind((kind_in_words(blank.kind), blank.name) for blank in class_tool.takes)
    return _(
        "From %(sources)s it makes %(results)s.",
        sources=asks,
        results=_of_each_kind((kinds[id_], id_) for id_ in class_tool.gives),
    )


def _of_each_kind(objects: Iterable[tuple[str, str]]) -> str:
    by_kind: dict[str, list[str]] = {}
    for kind, name in objects:
        by_kind.setdefault(kind, []).append(name)
    return _(", and ").join(
        ngettext("the %(kind)s %(names)s", "the %(kind)ss %(names)s", len(names), kind=kind, names=listed(names))
        for kind, names in by_kind.items()
    )
