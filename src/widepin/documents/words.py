"""Tasks and steps in plain English."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from functools import cached_property

from ..judge.compound_tools import CompoundTool
from ..judge.conditions import RelationName
from ..judge.sameness import known_as
from ..judge.task import MODEL, Allowance, Condition, Names, Task, Use
from ..judge.verdict import Outcome, Report, Verdict
from ..plane.makes import MAKES, MakeName
from ..plane.steps import Step
from .make_words import MAKE_WORDS, filled
from .relation_words import CONCYCLIC, RELATION_WORDS
from .rule_words import worded

TOOL_WORDS = {"points": "points"} | {name: row.tool for name, row in MAKE_WORDS.items()}
"""The tools of a task."""

DEPTH = 2
"""How many steps of the model are described one within the other."""

JOINABLE = {"on": (1, 0), "tangent": (0, 1)}
"""Relations whose clauses may be said together: the place of the term they share, and of the other."""


def listed(words: Iterable[str]) -> str:
    """Words as a list: a, b and c; nothing for none."""
    words = list(words)
    *most, last = words or [""]
    return f"{', '.join(most)} and {last}" if most else last


def tool_in_words(allowance: Allowance) -> str:
    """A tool with what may be used of it."""
    words = TOOL_WORDS[allowance.tool]
    if allowance.opening:
        words = f"circle with radius {''.join(allowance.opening)} only"
    if allowance.most is None:
        return words
    times = {0: "never", 1: "once", 2: "twice"}.get(allowance.most, f"{allowance.most} times")
    return f"{words} ({times} at most)" if allowance.most else f"{words} ({times})"


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
        """One condition as a sentence."""
        row = CONCYCLIC if condition.rel == "concyclic" else RELATION_WORDS[condition.rel]
        terms, template = list(condition.of), row.clause
        if row.as_asked is not None and len(shown := self._shown(terms)) < len(terms):
            terms, template = shown, row.as_asked[len(shown) > 1]
        if condition.rel == RelationName.SAME and isinstance(terms[0], str) and terms[0].startswith(MODEL):
            terms.reverse()
        n, d = condition.ratio or (1, 1)
        numbers = {"all": listed(map(self.name, terms)), "n": str(n), "d": str(d)}
        return re.sub(
            r"\{(\w+)\}",
            lambda found: numbers.get(found[1]) or "".join(self.name(terms[int(at)]) for at in found[1]),
            template,
        )

    def conditions(self, conditions: Iterable[Condition] | None = None) -> list[str]:
        """Conditions, those of the task if no others are given, as clauses.

        Those that only differ in one name are said together.

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
            together.setdefault(key, []).append(condition.of[other])
            clauses[key] = self._together(condition, together[key])
        return list(clauses.values())

    def _together(self, condition: Condition, others: list[Names]) -> str:
        if len(others) == 1:
            return self.condition(condition)
        names = listed(map(self.name, others))
        if condition.rel == "on":
            return f"{names} lie on {self.name(condition.of[1])}"
        return f"{self.name(condition.of[0])} touches {names}"

    def _shown(self, terms: Sequence[Names]) -> list[Names]:
        """The pairs or triples of which the student can see all points."""
        return [term for term in terms if not any(name.startswith(MODEL) for name in term)]

    def name(self, term: Names) -> str:
        """A term as it is called: A, AB, the perpendicular bisector of AB."""
        if not isinstance(term, str):
            return "".join(self.name(part) for part in term)
        return self.step(self.model[term]) if term.startswith(MODEL) else term

    def step(self, step: Step) -> str:
        """What a step of the model makes, by its making, in objects that the student can see.

        Helpers of the model are described in turn; where that leads too far, it is the object that is asked for.
        """
        if step.id in self.known:
            step = self.known[step.id]
        return self._described(step, DEPTH) or f"the {MAKES[step.make].gives} that is asked for"

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
                return f"the intersection of the {TOOL_WORDS[makes.pop()]}s"
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
        return "".join(step.sources) if step and step.make in ("line", "ray", "segment") else id_


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
    return f"{listed(use.gives)}: {use.class_tool} from {listed(one for one in from_ if one not in use.ids)}"


def class_tool_in_words(class_tool: CompoundTool) -> str:
    """What a class tool asks for and what it makes: From the points A and B it makes the line m."""
    kinds = {step.id: MAKES[step.make].gives for step in class_tool.steps}
    asks = _of_each_kind((kind_in_words(blank.kind), blank.name) for blank in class_tool.takes)
    return f"From {asks} it makes {_of_each_kind((kinds[id_], id_) for id_ in class_tool.gives)}."


def _of_each_kind(objects: Iterable[tuple[str, str]]) -> str:
    by_kind: dict[str, list[str]] = {}
    for kind, name in objects:
        by_kind.setdefault(kind, []).append(name)
    return ", and ".join(
        f"the {kind}{'s' if len(names) > 1 else ''} {listed(names)}" for kind, names in by_kind.items()
    )


def verdict_in_words(verdict: Verdict) -> str:
    """One sentence or two that say why, the most helpful first."""
    match verdict.outcome:
        case Outcome.SOUND:
            return "It is right, and it stays right wherever the figure is dragged."
        case Outcome.REFUSED:
            rule = worded(verdict.refusal.broken) if verdict.refusal else "a rule of the task is broken"
            where = f"Step {verdict.refusal.step}: " if verdict.refusal and verdict.refusal.step else ""
            return f"It was not checked. {where}{rule[:1].upper()}{rule[1:]}."
        case Outcome.WRONG:
            return "Nothing on the board is what the task asks for, even as it is drawn."
        case Outcome.APPROXIMATE:
            return "It is very close everywhere, but exact nowhere: it is an approximation."
        case Outcome.EYEBALLED:
            return f"{_why_by_eye(verdict)}{_told(verdict, 'is off')}"
        case Outcome.FRAGILE:
            return _why_fragile(verdict)
        case Outcome.SWITCHING:
            start = "It is right near the drawing"
            if verdict.method_holds:
                start = "Your method is right, but after dragging another intersection is taken"
            if verdict.breaks is None:
                return f"{start}. In other positions it is off, by less than the eye can see."
            return f"{start}.{_told(verdict, 'is wrong')}"


def _why_by_eye(verdict: Verdict) -> str:
    """What was placed by eye, where something was; else that the method does not give what is asked for."""
    report, answer = verdict.report, listed((verdict.answer or {}).values())
    if report is None:
        return "It looks right as drawn, but is not exact."
    if not report.by_eye:
        return f"It only looks right as drawn: this construction does not give {answer} exactly."
    free = [id_ for id_ in report.by_eye if id_ not in report.slides]
    parts = (
        [f"{listed(free)} {'were' if len(free) > 1 else 'was'} placed by eye{_beside(report, free)}"] if free else []
    )
    for curve in dict.fromkeys(report.slides.values()):
        on_it = [id_ for id_, of in report.slides.items() if of == curve]
        parts.append(f"{listed(on_it)} {'were' if len(on_it) > 1 else 'was'} placed on {curve} by eye")
    return f"It looks right as drawn, but {listed(parts)}."


def _beside(report: Report, free: Sequence[str]) -> str:
    """What a point by eye lies next to, where it is one point."""
    if len(free) != 1 or free[0] not in report.ties:
        return ""
    return f", next to {place_in_words(report.ties[free[0]])}"


def place_in_words(step: Step) -> str:
    """Where a point lies that a step would make: an intersection, or a curve."""
    if step.make == MakeName.POINT_ON:
        return step.sources[0]
    return f"the {filled(MAKE_WORDS[step.make].told, step.sources, step.reference, step.choice)}"


def _why_fragile(verdict: Verdict) -> str:
    found, report = verdict.breaks, verdict.report
    if found is None:
        return "It is right as drawn, but in some positions something it needs does not exist."
    if report is not None and report.proviso is not None:
        own = listed(one.id for one in found.drags)
        kind = f" The method is right; only {own} must be placed so." if own else ""
        return f"It is right as long as {proviso_in_words(report.proviso)}.{kind}"
    lost = [id_ for id_ in (verdict.answer or {}).values() if id_ != found.object]
    along = f", and {lost[0]} with it" if len(lost) == 1 else ""
    start = f"It is right as long as {found.object} exists"
    return f"{start}. {_drag(verdict)} far enough, and {found.object} is undefined{along}."


def proviso_in_words(proviso: Condition) -> str:
    """What must be true of a point of the student's own, as a clause."""
    match proviso.rel, proviso.of:
        case "longer_than_half", ((p, a), (_, b)):
            return f"{p} is farther from {a} than the middle of {a}{b}"
        case "longer", ((p, a), (_, b)):
            return f"{p} is farther from {a} than {b} is"
        case "shorter", ((p, a), (_, b)):
            return f"{p} is nearer to {a} than {b} is"
        case "nearer", (p, a, b):
            return f"{p} is nearer to {a} than to {b}"
        case "same_side", (g, p, q):
            return f"{p} lies on the same side of {g} as {q}"
        case "opposite_side", (g, p, q):
            return f"{p} and {q} lie on different sides of {g}"
        case "meet", (c, d):
            return f"{c} and {d} meet"
    raise ValueError(f"{proviso.rel} of {proviso.of} is no proviso")


def _drag(verdict: Verdict) -> str:
    found = verdict.breaks
    return f"Drag {listed(one.id for one in found.drags)}" if found and found.drags else "Drag the figure"


def _told(verdict: Verdict, what: str) -> str:
    """What happens where it breaks."""
    return f" {_drag(verdict)}, and {verdict.breaks.object} {what}." if verdict.breaks else ""


def results_of(outcome: Outcome, moves: int, budget: int | None) -> Sequence[tuple[str, str, str]]:
    """The parts of a result: word, state ("good", "half", "bad" or "plain"), and what it means.

    Few moves are no merit of a work that is not right, so its last part is plain.

    >>> [word for word, _, _ in results_of(Outcome.FRAGILE, 4, 3)]
    ['Correct', 'Not in every position', '4 of 3 moves']
    """
    limit = "" if budget is None else f" of {budget}"
    if not outcome.is_right_as_drawn:
        steps = ("plain", "moves used")
    elif budget is None or moves <= budget:
        steps = ("good", "within the move limit")
    else:
        steps = ("half", "over the move limit")
    return (*RESULTS[outcome], (f"{moves}{limit} {'move' if moves == 1 and not limit else 'moves'}", *steps))


_RIGHT = ("Correct", "good", "correct as drawn")
_BY_EYE = ("Placed by eye", "half", "correct to the eye, not exactly")
_IN_SOME = ("Not in every position", "half", "fails in some positions when dragged")
_NOT_HOLDING = ("Does not hold", "bad", "fails when dragged")

RESULTS: dict[Outcome, Sequence[tuple[str, str, str]]] = {
    Outcome.SOUND: (_RIGHT, ("Holds when dragged", "good", "correct in every position")),
    Outcome.FRAGILE: (_RIGHT, _IN_SOME),
    Outcome.SWITCHING: (_RIGHT, _IN_SOME),
    Outcome.APPROXIMATE: (_BY_EYE, _NOT_HOLDING),
    Outcome.EYEBALLED: (_BY_EYE, _NOT_HOLDING),
    Outcome.WRONG: (("Not correct", "bad", "not correct as drawn"), _NOT_HOLDING),
    Outcome.REFUSED: (("Not checked", "plain", "a tool or a step that the task does not allow"),),
}
if set(RESULTS) != set(Outcome):
    raise TypeError("every outcome needs the parts of its result")
