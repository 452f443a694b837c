"""Tasks and steps in plain English."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ..judge.instruments import Instrument
from ..judge.task import MODEL, Allowance, Condition, Names, Task, Use
from ..judge.verdict import Outcome, Verdict
from ..plane.makes import MAKES
from ..plane.steps import Step

TOOL_WORDS = {
    "points": "points",
    "free_point": "free points",
    "point_on": "points on a curve",
    "midpoint": "midpoint",
    "line": "line",
    "ray": "ray",
    "segment": "segment",
    "perpendicular": "perpendicular",
    "parallel": "parallel",
    "perpendicular_bisector": "perpendicular bisector",
    "angle_bisector": "angle bisector",
    "circle": "circle",
    "circle_radius": "circle with a kept opening",
    "circle_through": "circle through three points",
    "intersection": "crossing",
}


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
        words = f"circle with the opening {''.join(allowance.opening)} only"
    if allowance.most is None:
        return words
    times = {0: "never", 1: "once", 2: "twice"}.get(allowance.most, f"{allowance.most} times")
    return f"{words} ({times} at most)" if allowance.most else f"{words} ({times})"


class Words:
    """Puts the conditions of one task into words."""

    def __init__(self, task: Task):
        self.task = task
        self.kinds = task.kinds_in_conditions
        self.model = {step.id: step for step in task.model_steps}

    def wanted(self) -> str:
        """What the answer consists of: a point C; points B, C and D; a circle k and a straight t."""
        names: dict[str, list[str]] = {}
        for one in self.task.wanted:
            names.setdefault(one.kind, []).append(one.name)
        return listed(f"{kind}s {listed(of)}" if len(of) > 1 else f"a {kind} {of[0]}" for kind, of in names.items())

    def condition(self, condition: Condition) -> str:
        """One condition as a sentence."""
        terms = condition.of
        match condition.rel:
            case "same":
                x, y = terms
                return self._same(x, y)
            case "on":
                return f"{self.name(terms[0])} lies on {self.name(terms[1])}"
            case "parallel":
                return f"{self.name(terms[0])} is parallel to {self.name(terms[1])}"
            case "perpendicular":
                return f"{self.name(terms[0])} is perpendicular to {self.name(terms[1])}"
            case "tangent":
                return f"{self.name(terms[0])} touches {self.name(terms[1])}"
            case "equal_length":
                return f"{listed(map(self.name, terms))} are equally long"
            case "equal_angle":
                return f"the angles {listed(map(self.name, terms))} are equal"
            case "ratio":
                n, d = condition.ratio or (1, 1)
                return f"{self.name(terms[0])} to {self.name(terms[1])} is as {n} to {d}"
            case "midpoint":
                return f"{self.name(terms[0])} is the midpoint of {self.name(terms[1:])}"  # type: ignore[arg-type]
            case "distinct":
                return f"{listed(map(self.name, terms))} are different points"
            case "same_side":
                return f"{self.name(terms[1])} and {self.name(terms[2])} lie on the same side of {self.name(terms[0])}"
            case "opposite_side":
                return (
                    f"{self.name(terms[1])} and {self.name(terms[2])} lie on different sides of {self.name(terms[0])}"
                )
            case "concyclic":
                return f"{listed(map(self.name, terms))} lie on one circle"
        return f"{self.name(terms[0])} lies inside the angle {self.name(terms[1])}"

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

    def name(self, term: Names) -> str:
        """A term as it is called: A, AB, the perpendicular bisector of AB."""
        if not isinstance(term, str):
            return "".join(self.name(part) for part in term)
        return self.step(self.model[term]) if term.startswith(MODEL) else term

    def _same(self, x: Names, y: Names) -> str:
        if isinstance(x, str) and x.startswith(MODEL):
            x, y = y, x
        return f"{self.name(x)} is {self.name(y)}"

    def step(self, step: Step) -> str:
        """What a step of the model makes, by its making; no more than one level is spelled out."""
        sources = [source.removeprefix(MODEL) for source in step.sources]
        pair = "".join(sources[:2])
        match step.make:
            case "midpoint":
                return f"the midpoint of {pair}"
            case "line" | "ray" | "segment":
                return f"the {step.make} {pair}"
            case "perpendicular" | "parallel":
                return f"the {step.make} to {self.straight(sources[0])} through {sources[1]}"
            case "perpendicular_bisector":
                return f"the perpendicular bisector of {pair}"
            case "angle_bisector":
                return f"the bisector of angle {''.join(sources)}"
            case "circle" | "circle_radius":
                return f"the circle about {sources[0]}"
            case "circle_through":
                return f"the circle through {listed(sources)}"
            case "intersection":
                makers = [self.model.get(source) for source in step.sources]
                kinds = [maker.make for maker in makers if maker]
                if len(kinds) == 2 and kinds[0] == kinds[1]:
                    return f"the point where the {TOOL_WORDS[kinds[0]]}s meet"
                curves = listed(self.step(m) if m else s for m, s in zip(makers, sources, strict=True))
                return f"the point where {curves} meet"
        return step.id.removeprefix(MODEL)

    def straight(self, id_: str) -> str:
        """A straight called by its points where it has two."""
        step = next((one for one in (*self.task.given, *self.task.model) if one.id == id_), None)
        return "".join(step.sources) if step and step.make in ("line", "ray", "segment") else id_


def instruction(step: Step) -> str:
    """A step as it is told to somebody who does it.

    >>> instruction(Step("c", "circle_radius", ("P", "A", "B")))
    'c: circle centred P with the opening AB'
    """
    a, b, c = (*step.sources, "", "", "")[:3]
    match step.make:
        case "free_point":
            what = "put freely"
        case "point_on":
            what = f"put anywhere on {a}"
        case "intersection":
            which = {"other_than": f", not {step.reference}", "nearest_to": f", the one nearer to {step.reference}"}
            which["farthest_from"] = f", the one farther from {step.reference}"
            what = f"where {a} meets {b}{which.get(step.choice, '')}"
        case "midpoint" | "perpendicular_bisector":
            what = f"{TOOL_WORDS[step.make]} of {a} and {b}"
        case "ray" | "line":
            what = f"{step.make} from {a} through {b}"
        case "segment":
            what = f"segment from {a} to {b}"
        case "perpendicular" | "parallel":
            what = f"{step.make} to {a} through {b}"
        case "angle_bisector":
            what = f"bisector of the angle from {a} at {b} to {c}"
        case "circle":
            what = f"circle centred {a} through {b}"
        case "circle_radius":
            what = f"circle centred {a} with the opening {b}{c}"
        case _:
            what = f"circle through {a}, {b} and {c}"
    return f"{step.id}: {what}"


def instruction_to_use(use: Use, steps: Sequence[Step]) -> str:
    """The use of an instrument as it is told to somebody who does it. ``steps``: those of the work.

    >>> instruction_to_use(Use("Centre line", ("c", "d", "m"), ("m",), 1), [Step("c", "circle", ("A", "B"))])
    'm: Centre line from A and B'
    """
    from_ = dict.fromkeys(source for step in steps if step.id in use.ids for source in step.parents)
    return f"{listed(use.gives)}: {use.instrument} from {listed(one for one in from_ if one not in use.ids)}"


def instrument_in_words(instrument: Instrument) -> str:
    """What an instrument asks for and what it makes: From the points A and B it makes the line m."""
    kinds = {step.id: MAKES[step.make].gives for step in instrument.steps}
    asks = _of_each_kind((blank.kind, blank.name) for blank in instrument.takes)
    return f"From {asks} it makes {_of_each_kind((kinds[id_], id_) for id_ in instrument.gives)}."


def _of_each_kind(objects: Iterable[tuple[str, str]]) -> str:
    by_kind: dict[str, list[str]] = {}
    for kind, name in objects:
        by_kind.setdefault(kind, []).append(name)
    return ", and ".join(
        f"the {kind}{'s' if len(names) > 1 else ''} {listed(names)}" for kind, names in by_kind.items()
    )


def verdict_in_words(verdict: Verdict) -> str:
    """One sentence that says why."""
    found = verdict.breaks
    match verdict.outcome:
        case Outcome.SOUND:
            return "It is right, and it stays right wherever the figure is dragged."
        case Outcome.REFUSED:
            rule = verdict.refusal.rule if verdict.refusal else "a rule of the task is broken"
            where = f"Step {verdict.refusal.step}: " if verdict.refusal and verdict.refusal.step else ""
            return f"It was not judged. {where}{rule[:1].upper()}{rule[1:]}."
        case Outcome.WRONG:
            if verdict.search_stopped:
                return "No answer was found among so many objects. Point out which object is meant."
            return "Nothing on the board is what the task asks for, even as it is drawn."
        case Outcome.APPROXIMATE:
            return "It is very close everywhere, but exact nowhere: it is an approximation."
    drag = f"Drag {listed(one.id for one in found.drags)}" if found and found.drags else "Drag the figure"
    if found is None:
        return "It is right as drawn, but it does not survive dragging."
    if verdict.outcome is Outcome.EYEBALLED:
        names = verdict.report.by_eye if verdict.report else ()
        what = f"{listed(names)} {'were' if len(names) > 1 else 'was'}" if names else "something was"
        return (
            f"It looks right as drawn, but {what} placed by eye and tied to nothing. {drag}, and {found.object} is off."
        )
    if found.happens == "undefined":
        lost = [id_ for id_ in (verdict.answer or {}).values() if id_ != found.object]
        along = f", and {lost[0]} with it" if len(lost) == 1 else ""
        return f"It is right as long as it exists. {drag} far enough, and {found.object} is gone{along}."
    tail = " The method holds; a crossing jumps to the wrong place." if verdict.method_holds else ""
    return f"It is right near the drawing. {drag} far enough, and {found.object} is wrong.{tail}"


def seals(outcome: Outcome, moves: int, budget: int | None) -> Sequence[tuple[str, str, str]]:
    """The three seals of a handed-in work: word, state ("good", "half", "bad" or "plain"), and what it means.

    Few moves are no merit of a work that is not right, so its third seal is plain. A refused work was not judged.
    """
    limit = "" if budget is None else f" of {budget}"
    if outcome not in RIGHT_AS_DRAWN:
        steps = ("plain", "moves used")
    elif budget is None or moves <= budget:
        steps = ("good", "within the budget")
    else:
        steps = ("half", "more than asked")
    right = RIGHT_SEAL.get(outcome, ("bad", "not right"))
    holds = HOLDS_SEAL.get(outcome, ("bad", "does not hold"))
    return (
        ("Right", *right),
        ("Holds", *holds),
        (f"{moves}{limit} {'move' if moves == 1 and not limit else 'moves'}", *steps),
    )


UNJUDGED = ("plain", "not judged")
RIGHT_AS_DRAWN = (Outcome.SOUND, Outcome.FRAGILE, Outcome.SWITCHING)
RIGHT_SEAL = {
    **dict.fromkeys(RIGHT_AS_DRAWN, ("good", "right as drawn")),
    **dict.fromkeys((Outcome.APPROXIMATE, Outcome.EYEBALLED), ("half", "right to the eye only")),
    Outcome.REFUSED: UNJUDGED,
}
HOLDS_SEAL = {
    Outcome.REFUSED: UNJUDGED,
    Outcome.SOUND: ("good", "holds when dragged"),
    Outcome.FRAGILE: ("half", "not in every position"),
    Outcome.SWITCHING: ("half", "not in every position"),
}
