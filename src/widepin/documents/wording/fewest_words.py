"""What a search for the fewest moves found, in words."""

from __future__ import annotations

from ...economy.search import Fewest
from ..language import gettext as _
from ..language import ngettext
from .amounts import moves


def fewest_in_words(found: Fewest) -> str:
    """What was found, and what was excluded, as exactly as it was.

    >>> fewest_in_words(Fewest(3, excluded=2, arbitrary=1))
    'It can be done in 3 moves. No shorter way exists with at most one arbitrary point.'
    """
    points = _("with at most one arbitrary point") if found.arbitrary else _("without arbitrary points")
    if found.moves is not None and found.excluded == found.moves - 1:
        return _(
            "It can be done in %(moves)s. No shorter way exists %(points)s.", moves=moves(found.moves), points=points
        )
    if found.states == 0 and not found.stopped:
        return _("There is no sample solution that the search could go by.")
    excluded = ngettext(
        "Every way of %(n)s move is excluded %(points)s",
        "Every way of up to %(n)s moves is excluded %(points)s",
        found.excluded,
        n=found.excluded,
        points=points,
    )
    if found.stopped:
        return _("%(excluded)s. The search was stopped there, since it took too long.", excluded=excluded)
    return _("%(excluded)s; longer ones were not looked at.", excluded=excluded)
