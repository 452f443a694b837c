"""What is said of a rule that is broken: what is wrong, and what to do. One row per rule.

A row is a sentence without its full stop, so that a place may stand before it.
"""

from __future__ import annotations

from typing import Any

from ...judge.rules import ClassToolRule, TaskRule, WorkRule
from ...plane.rows import complete
from ...plane.rules import Broken, StepRule
from ...plane.shapes import LINES, Kind
from ..language import gettext
from ..language import marked as _
from .amounts import times

S, T, W, C = StepRule, TaskRule, WorkRule, ClassToolRule

RULE_WORDS: dict[str, str] = {
    **complete(
        "RULE_WORDS",
        StepRule,
        {
            S.TOO_MANY_STEPS: _("%(count)s steps are too many; keep a construction to %(most)s"),
            S.NO_ID: _("'%(id)s' is no id; use a letter, then letters, digits, _ or ', 24 at most"),
            S.ID_TAKEN: _("%(id)s is already the id of an earlier object; choose another"),
            S.NO_MAKE: _("'%(make)s' is no make; use one of %(makes)s"),
            S.HOW_MANY_SOURCES: _("%(make)s is made from %(roles)s; %(count)s ids are given"),
            S.SOURCE_NOT_BEFORE: _("%(source)s is not made before; name an object from an earlier step"),
            S.KIND_OF_SOURCE: _("%(source)s is a %(kind)s, but %(role)s is needed here"),
            S.MEETS_ITSELF: _("%(source)s cannot meet itself; name two different curves"),
            S.NO_PLACE: _("%(make)s needs its place, at: [x, y] in centimetres"),
            S.TOO_FAR: _("%(value)s is not within %(most)s cm of the origin; move the point"),
            S.NO_CHOICE: _("an intersection is chosen by one of %(choices)s"),
            S.PICK: _("%(pick)s is no intersection; pick 1 or 2"),
            S.REFERENCE_NOT_BEFORE: _("%(reference)s is not made before; name an earlier point"),
            S.REFERENCE_NO_POINT: _("%(reference)s is a %(kind)s; name a point"),
            S.MEET_ONCE: _("two lines meet only once; leave the choice out"),
            S.NOT_ON_BOTH: _("%(reference)s does not always lie on %(source)s; name a point where both curves meet"),
        },
    ),
    **complete(
        "RULE_WORDS",
        TaskRule,
        {
            T.STEPS_IN_ALL: _("more than %(most)s steps in all; make the figure simpler"),
            T.NO_TOOL: _("'%(tool)s' is no tool; use one of %(tools)s"),
            T.TOOL_TWICE: _("%(tool)s is listed twice; list it once"),
            T.NEGATIVE: _("%(most)s is negative; use 0 or more"),
            T.NO_FIXED_RADIUS: _("%(tool)s has no fixed radius; only circle_radius can"),
            T.NOT_A_GIVEN_POINT: _("'%(name)s' is no given point; name two given points"),
            T.POINT_TWICE: _("%(name)s is named twice; name two given points"),
            T.NOTHING_WANTED: _("nothing is to be constructed; name at least one object of the answer"),
            T.TOO_MUCH_WANTED: _("more than %(most)s objects are to be constructed; ask for fewer"),
            T.NO_KIND: _("'%(kind)s' is no kind; use %(kinds)s"),
            T.WANTED_TWICE: _("%(name)s is to be constructed twice; rename one"),
            T.WANTED_IS_GIVEN: _("%(name)s is the id of a given object; choose another name"),
            T.TOO_MANY_CONDITIONS: _("more than %(most)s conditions; ask for less"),
            T.NO_RELATION: _("'%(rel)s' is no relation; use one of %(relations)s"),
            T.TOO_MANY_TERMS: _("more than %(most)s terms; split the condition"),
            T.AT_LEAST_TERMS: _("%(rel)s takes %(least)s or more %(role)ss; %(count)s are given"),
            T.HOW_MANY_TERMS: _("%(rel)s takes %(exactly)s terms; %(count)s are given"),
            T.RATIO_ALONE: _('ratio, and only ratio, needs "is": [n, d]'),
            T.RATIO_BELOW_ONE: _("both numbers of a ratio must be 1 or more"),
            T.NO_CIRCLE_TO_TOUCH: _("a tangent needs a circle, and there is none among its terms"),
            T.NOT_COMPARABLE: _("same needs two objects of one kind: points, circles or lines"),
            T.NAME_UNKNOWN: _(
                "there is no %(name)s; use an object to construct, a given one, or model:ID of the sample solution"
            ),
            T.LIST_OF_POINTS: _("a list of %(size)s points is needed here"),
            T.NO_LIST: _("one %(role)s is needed here, not a list"),
            T.KIND_OF_TERM: _("%(name)s is a %(kind)s, but one %(role)s is needed"),
        },
    ),
    **complete(
        "RULE_WORDS",
        WorkRule,
        {
            W.TOOL_NOT_ALLOWED: _("%(tool)s is not among the tools of this task"),
            W.TOOL_USED_UP: _("%(tool)s may be used %(most)s, and here it is used %(time)s"),
            W.FIXED_COMPASS: _("the compass is fixed to the distance of %(ends)s"),
            W.NOT_ASKED_FOR: _("the answer names %(name)s, which the task does not ask for"),
            W.NOT_ON_THE_BOARD: _("the answer says that %(name)s is %(id)s, which is not on the board"),
            W.KIND_OF_ANSWER: _("%(name)s must be a %(wanted)s, but %(id)s is a %(kind)s"),
            W.ANSWER_IS_GIVEN: _("%(id)s is given; %(name)s must be constructed"),
            W.ANSWER_IS_HELPER: _(
                "%(id)s is a helper within the class tool %(class_tool)s and cannot be %(name)s; construct it yourself"
            ),
            W.ANSWER_LACKS: _("the answer does not say which object is %(name)s"),
            W.AS_WORDED: "%(words)s",
        },
    ),
    **complete(
        "RULE_WORDS",
        ClassToolRule,
        {
            C.NOTHING_TO_BUILD: _("The answer is given already; there is nothing to build"),
            C.PLACED_BY_HAND: _("%(id)s was placed by hand. A class tool is made from its given objects alone"),
            C.SLIDES: _("%(id)s slides on %(on)s, and a class tool cannot ask for that"),
        },
    ),
}


def worded(broken: Broken) -> str:
    """What a broken rule is said to be, without a full stop.

    >>> worded(Broken(StepRule.MEETS_ITSELF, {"source": "c"}))
    'c cannot meet itself; name two different curves'
    """
    values = {name: _spoken(name, value) for name, value in broken.values.items()}
    if broken.rule is W.TOOL_USED_UP:
        values |= {name: times(broken.values[name]) for name in ("most", "time")}
    return gettext(RULE_WORDS[broken.rule], **values)


def _spoken(name: str, value: Any) -> str:
    if name in ("tool", "make") and isinstance(value, str):
        return value[:30].replace("_", " ") if name == "tool" else value[:30]
    match value:
        case frozenset():
            return _role(value)
        case tuple():
            joint = _(" and ") if name == "ends" else ", "
            return gettext(joint).join(_spoken("", one) for one in value) or gettext(_("nothing"))
        case float():
            return f"{value:g}"
    return str(value) if name == "words" else str(value)[:30]


def _role(kinds: frozenset[Kind]) -> str:
    """A role in words: a point, a line, a curve."""
    if kinds == {Kind.POINT}:
        return gettext(_("a point"))
    return gettext(_("a line") if kinds == LINES else _("a curve"))
