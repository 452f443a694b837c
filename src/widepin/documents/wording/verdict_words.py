"""Verdicts in plain English: sentences that say why, and the parts of a result."""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum

from ...judge.task import Condition
from ...judge.verdict import Outcome, Report, Verdict, Whose
from ...plane.makes import MakeName
from ...plane.rows import complete
from ...plane.steps import Step
from ..language import gettext as _
from ..language import marked, ngettext
from ..reading import JsonObject
from .make_words import MAKE_WORDS, WHICH, filled
from .rule_words import worded
from .words import listed


def verdict_in_words(verdict: Verdict) -> str:
    """One sentence or two that say why, the most helpful first."""
    match verdict.outcome:
        case Outcome.SOUND:
            return _("It is right, and it stays right wherever the figure is dragged.")
        case Outcome.REFUSED:
            rule = worded(verdict.refusal.broken) if verdict.refusal else _("a rule of the task is broken")
            where = _("Step %(step)s: ", step=verdict.refusal.step) if verdict.refusal and verdict.refusal.step else ""
            return _("It was not checked. %(where)s%(rule)s.", where=where, rule=f"{rule[:1].upper()}{rule[1:]}")
        case Outcome.WRONG:
            return _("Nothing on the board is what the task asks for, even as it is drawn.")
        case Outcome.APPROXIMATE:
            return _("It is very close everywhere, but exact nowhere: it is an approximation.")
        case Outcome.EYEBALLED:
            return f"{_why_by_eye(verdict)}{_told(verdict, 'is off')}"
        case Outcome.FRAGILE:
            return _why_fragile(verdict)
        case Outcome.SWITCHING:
            start = _("It is right near the drawing")
            if verdict.method_holds:
                start = _("The method is right, but after dragging another intersection is taken")
            if verdict.breaks is None:
                return _("%(start)s. In other positions it is off, by less than the eye can see.", start=start)
            return f"{start}.{_told(verdict, 'is wrong')}"


def _why_by_eye(verdict: Verdict) -> str:
    """What was placed by eye, where something was; else that the method does not give what is asked for."""
    report, answer = verdict.report, listed((verdict.answer or {}).values())
    if report is None:
        return _("It looks right as drawn, but is not exact.")
    if not report.by_eye:
        return _("It only looks right as drawn: this construction does not give %(answer)s exactly.", answer=answer)
    free = [id_ for id_ in report.by_eye if id_ not in report.slides]
    parts = (
        [
            ngettext(
                "%(points)s was placed by eye%(beside)s",
                "%(points)s were placed by eye%(beside)s",
                len(free),
                points=listed(free),
                beside=_beside(report, free),
            )
        ]
        if free
        else []
    )
    for curve in dict.fromkeys(report.slides.values()):
        on_it = [id_ for id_, of in report.slides.items() if of == curve]
        parts.append(
            ngettext(
                "%(points)s was placed on %(curve)s by eye",
                "%(points)s were placed on %(curve)s by eye",
                len(on_it),
                points=listed(on_it),
                curve=curve,
            )
        )
    return _("It looks right as drawn, but %(parts)s.", parts=listed(parts))


def _beside(report: Report, free: Sequence[str]) -> str:
    """What a point by eye lies next to, where it is one point."""
    if len(free) != 1 or free[0] not in report.ties:
        return ""
    return _(", next to %(place)s", place=place_in_words(report.ties[free[0]]))


def place_in_words(step: Step) -> str:
    """Where a point lies that a step would make: an intersection, or a curve."""
    if step.make == MakeName.POINT_ON:
        return step.sources[0]
    return _("the %(object)s", object=filled(MAKE_WORDS[step.make].told, step.sources, step.reference, step.choice))


def which_in_words(step: Step) -> str:
    """Which intersection a step means, to follow what it is called: farther from A; nothing for a number."""
    return _(WHICH[step.choice]).format(reference=step.reference)


def _why_fragile(verdict: Verdict) -> str:
    found, report = verdict.breaks, verdict.report
    if found is None:
        return _("It is right as drawn, but in some positions something it needs does not exist.")
    if report is not None and report.provisos:
        own = listed(dict.fromkeys(name for one in report.provisos for name in placed_by(one)))
        kind = (
            _(" The method is right; only %(own)s must be placed so.", own=own)
            if own
            else _(" The method is right; only points of your own must be placed so.")
        )
        return _(
            "It is right as long as %(provisos)s.%(kind)s",
            provisos=listed(map(proviso_in_words, report.provisos)),
            kind=kind,
        )
    lost = [id_ for id_ in (verdict.answer or {}).values() if id_ != found.object]
    along = _(", and %(lost)s with it", lost=lost[0]) if len(lost) == 1 else ""
    start = _("It is right as long as %(object)s exists", object=found.object)
    return _(
        "%(start)s. %(drag)s far enough, and %(object)s is undefined%(along)s.",
        start=start,
        drag=_drag(verdict),
        object=found.object,
        along=along,
    )


def placed_by(proviso: Condition) -> list[str]:
    """The points of the student's own that a proviso is about; none of two curves."""
    match proviso.rel, proviso.of:
        case "longer_than_half" | "longer" | "shorter", ((p, q), (a, _)):
            return [p] if q == a else [p, q]
        case "farther_than_line", ((p, _), _):
            return [p]
        case "nearer", (p, *_):
            return [str(p)]
        case "same_side" | "opposite_side", (_, p, _):
            return [str(p)]
    return []


def proviso_in_words(proviso: Condition) -> str:
    """What must be true of a point of the student's own, as a clause."""
    match proviso.rel, proviso.of:
        case "longer_than_half" | "longer" | "shorter", ((p, q), (a, b)) if q != a:
            return {
                "longer_than_half": _("%(p)s%(q)s is longer than half of %(a)s%(b)s", p=p, q=q, a=a, b=b),
                "longer": _("%(p)s%(q)s is longer than %(a)s%(b)s", p=p, q=q, a=a, b=b),
                "shorter": _("%(p)s%(q)s is shorter than %(a)s%(b)s", p=p, q=q, a=a, b=b),
            }[proviso.rel]
        case "longer_than_half", ((p, a), (_a, b)):
            return _("%(p)s is farther from %(a)s than half of %(a)s%(b)s", p=p, a=a, b=b)
        case "longer", ((p, a), (_a, b)):
            return _("%(p)s is farther from %(a)s than %(b)s is", p=p, a=a, b=b)
        case "shorter", ((p, a), (_a, b)):
            return _("%(p)s is nearer to %(a)s than %(b)s is", p=p, a=a, b=b)
        case "farther_than_line", ((p, a), g):
            return _("%(p)s is farther from %(a)s than %(g)s is", p=p, a=a, g=g)
        case "nearer", (p, a, b):
            return _("%(p)s is nearer to %(a)s than to %(b)s", p=p, a=a, b=b)
        case "same_side", (g, p, q):
            return _("%(p)s lies on the same side of %(g)s as %(q)s", p=p, g=g, q=q)
        case "opposite_side", (g, p, q):
            return _("%(p)s and %(q)s lie on different sides of %(g)s", p=p, q=q, g=g)
        case "meet", (c, d):
            return _("%(c)s and %(d)s meet", c=c, d=d)
    raise ValueError(f"{proviso.rel} of {proviso.of} is no proviso")


def _drag(verdict: Verdict) -> str:
    found = verdict.breaks
    return (
        _("Drag %(points)s", points=listed(drag.id for drag in found.drags))
        if found and found.drags
        else _("Drag the figure")
    )


def _told(verdict: Verdict, what: str) -> str:
    """What happens where it breaks."""
    return (
        _(" %(drag)s, and %(object)s %(what)s.", drag=_drag(verdict), object=verdict.breaks.object, what=what)
        if verdict.breaks
        else ""
    )


class Only(StrEnum):
    """What alone keeps a work from being right in every position, or its answer from being found."""

    HELPER = "helper"  # where a point of the student's own was put
    CHOICE = "choice"  # which intersections were chosen
    SEARCH = "search"  # there were too many objects to look at them all


def only_by(verdict: Verdict) -> Only | None:
    """What alone a work fails by; None where it is right, or fails by more than that."""
    return _only(
        verdict.outcome,
        is_not_found=verdict.stopped and verdict.answer is None,
        is_by_own=verdict.breaks is not None and verdict.breaks.by is Whose.OWN,
        has_proviso=verdict.report is not None and bool(verdict.report.provisos),
        method_holds=bool(verdict.method_holds),
    )


def only_in(verdict: JsonObject) -> Only | None:
    """The same of a verdict in JSON, which need not be read whole for it."""
    report = verdict.get("report") or {}
    return _only(
        Outcome(verdict["outcome"]),
        is_not_found=bool(verdict.get("stopped")) and verdict["answer"] is None,
        is_by_own=(verdict["breaks"] or {}).get("by") == Whose.OWN,
        has_proviso=bool(report.get("provisos") or report.get("proviso")),
        method_holds=bool(verdict["method_holds"]),
    )


def _only(
    outcome: Outcome, *, is_not_found: bool, is_by_own: bool, has_proviso: bool, method_holds: bool
) -> Only | None:
    if outcome is Outcome.WRONG:
        return Only.SEARCH if is_not_found else None
    if outcome is Outcome.FRAGILE and (is_by_own or has_proviso):
        return Only.HELPER
    return Only.CHOICE if outcome in (Outcome.FRAGILE, Outcome.SWITCHING) and method_holds else None


def results_of(
    outcome: Outcome, moves: int, budget: int | None, only: Only | None = None
) -> Sequence[tuple[str, str, str]]:
    """The parts of a result: word, state ("good", "half", "bad" or "plain"), and what it means.

    Few moves are no merit of a work that is not right, so its last part is plain. ``only``: what alone it fails by.

    >>> [word for word, _, _ in results_of(Outcome.FRAGILE, 4, 3)]
    ['Correct', 'Not in every position', '4 of 3 moves']
    >>> [word for word, _, _ in results_of(Outcome.FRAGILE, 3, None, Only.HELPER)]
    ['Correct', 'Holds for a fitting helper', '3 moves']
    """
    if budget is None or not outcome.is_right_as_drawn:
        steps = ("plain", _("how many moves it has"))
    elif moves <= budget:
        steps = ("good", _("within the move limit"))
    else:
        steps = ("half", _("over the move limit"))
    count = ngettext("%(n)s move", "%(n)s moves", moves, n=moves)
    if budget is not None:
        count = _("%(n)s of %(limit)s moves", n=moves, limit=budget)
    found = RESULTS[outcome] if only is None else (*RESULTS[outcome][: 0 if only is Only.SEARCH else 1], ONLY_BY[only])
    parts = [(_(word), state, _(meaning)) for word, state, meaning in found]
    return (*parts, (count, *steps))


_RIGHT = (marked("Correct"), "good", marked("correct as drawn"))
_BY_EYE = (marked("Placed by eye"), "half", marked("correct to the eye, not exactly"))
_IN_SOME = (marked("Not in every position"), "half", marked("fails in some positions when dragged"))
_NOT_HOLDING = (marked("Does not hold"), "bad", marked("fails when dragged"))

RESULTS: dict[str, Sequence[tuple[str, str, str]]] = complete(
    "RESULTS",
    Outcome,
    {
        Outcome.SOUND: (_RIGHT, (marked("Holds when dragged"), "good", marked("correct in every position"))),
        Outcome.FRAGILE: (_RIGHT, _IN_SOME),
        Outcome.SWITCHING: (_RIGHT, _IN_SOME),
        Outcome.APPROXIMATE: (_BY_EYE, _NOT_HOLDING),
        Outcome.EYEBALLED: (_BY_EYE, _NOT_HOLDING),
        Outcome.WRONG: ((marked("Not correct"), "bad", marked("not correct as drawn")), _NOT_HOLDING),
        Outcome.REFUSED: ((marked("Not checked"), "plain", marked("a tool or a step that the task does not allow")),),
    },
)
"""The parts of a result, without its moves."""

OUTCOME_WORDS: dict[str, str] = complete(
    "OUTCOME_WORDS",
    Outcome,
    {
        Outcome.SOUND: marked("correct in every position"),
        Outcome.FRAGILE: marked("undefined in some positions"),
        Outcome.SWITCHING: marked("wrong in some positions"),
        Outcome.APPROXIMATE: marked("approximate"),
        Outcome.EYEBALLED: marked("placed by eye"),
        Outcome.WRONG: marked("not correct"),
        Outcome.REFUSED: marked("not checked"),
    },
)
"""Outcomes in a few words, where a sentence has no room."""

ONLY_BY: dict[str, tuple[str, str, str]] = complete(
    "ONLY_BY",
    Only,
    {
        Only.HELPER: (
            marked("Holds for a fitting helper"),
            "good",
            marked("correct in every position as long as a point of your own is placed well"),
        ),
        Only.CHOICE: (
            marked("Method holds"),
            "half",
            marked("another intersection is taken in some positions when dragged"),
        ),
        Only.SEARCH: (marked("Not found in time"), "plain", marked("there may be an answer; it is to be pointed out")),
    },
)
"""What a result says besides of a work that fails by one thing alone."""
