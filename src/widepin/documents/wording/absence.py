"""Why an object does not exist, in words."""

from __future__ import annotations

from ...judge.verdict import Absent, Why
from ...plane.rows import complete
from ..language import gettext as _
from ..language import marked

WHY_ABSENT: dict[str, str] = complete(
    "WHY_ABSENT",
    Why,
    {
        Why.ONE_POINT: marked("%(first)s and %(last)s are one point"),
        Why.IN_A_ROW: marked("%(first)s, %(second)s and %(last)s lie on one line"),
        Why.NO_ANGLE: marked("%(first)s, %(second)s and %(last)s make no angle"),
        Why.PARALLEL: marked("%(first)s and %(second)s are parallel"),
        Why.APART: marked("%(first)s and %(second)s do not meet"),
        Why.BEYOND_END: marked("%(first)s and %(second)s would meet beyond the end of %(last)s"),
        Why.ONE_CURVE: marked("%(first)s and %(second)s are one and the same"),
        Why.WITHIN_TOOL: marked("the class tool %(first)s has no result here"),
        Why.TIE: marked("both intersections of %(first)s and %(second)s are equally far from %(last)s"),
    },
)
"""Why a step makes nothing, as a clause about the objects that make it so."""


def absence_in_words(absent: Absent) -> str:
    """That an object does not exist as drawn, and why.

    >>> absence_in_words(Absent("U", "U", Why.TIE, ("t", "k", "T")))
    'U does not exist as drawn: both intersections of t and k are equally far from T.'
    """
    names = {"first": absent.of[0], "second": absent.of[min(1, len(absent.of) - 1)], "last": absent.of[-1]}
    why = _(WHY_ABSENT[absent.why], **names)
    if absent.first == absent.id:
        return _("%(id)s does not exist as drawn: %(why)s.", id=absent.id, why=why)
    return _(
        "%(id)s does not exist as drawn, since %(first)s does not: %(why)s.",
        id=absent.id,
        first=absent.first,
        why=why,
    )
