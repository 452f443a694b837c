"""All words about makes: one row each, as ``plane/makes.py`` has one row of geometry each.

Templates name what a step is made from by its entry of ``from``: {0}, {1}, {2}. The browser gets these rows with the
tool book, so that scripts hold no words of their own about makes.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import asdict, dataclass

from ..plane.intersections import CHOICES
from ..plane.makes import MakeName, Undefined
from ..plane.rows import complete
from .reading import JsonObject


@dataclass(frozen=True)
class MakeWords:
    """A row of words.

    ``tool``: among the tools of a task. ``card``: on the board's card, none for points, which have one card together.
    ``sentence``: with blanks, as it is filled on the board. ``told``: a step, after its name and a colon; {which} says
    which intersection. ``called``: an object by its making, where it has no name, from named ones; {012}: names in one.
    ``called_from``: the same from objects that are called by their making themselves; None where that leads too far.
    ``icon``: an SVG path in a box of 26 by 28. ``keeps``: blanks that stay filled for the next step.
    """

    tool: str
    card: str
    sentence: str
    told: str
    called: str | None
    called_from: str | None
    icon: str = ""
    keeps: tuple[int, ...] = ()


M = MakeName

MAKE_WORDS: dict[str, MakeWords] = complete(
    MakeName,
    {
        M.FREE_POINT: MakeWords("free points", "", "", "free point", None, None),
        M.POINT_ON: MakeWords("points on a curve", "", "", "point on {0}", None, None),
        M.INTERSECTION: MakeWords(
            "intersection",
            "Intersection",
            "Intersection of {0} and {1}",
            "intersection of {0} and {1}{which}",
            "the intersection of {0} and {1}",
            "the intersection of {0} and {1}",
            "M3 22L23 6M4 7l18 14M10 11l6 6M16 11l-6 6",
        ),
        M.MIDPOINT: MakeWords(
            "midpoint",
            "Midpoint",
            "Midpoint of {0} and {1}",
            "midpoint of {0} and {1}",
            "the midpoint of {01}",
            "the midpoint of {0} and {1}",
            "M3 14h20M3 12.4a1.6 1.6 0 1 0 .1 0M23 12.4a1.6 1.6 0 1 0 .1 0M10 11l6 6M16 11l-6 6",
        ),
        M.LINE: MakeWords(
            "line",
            "Line",
            "Line through {0} and {1}",
            "line through {0} and {1}",
            "the line {01}",
            "the line through {0} and {1}",
            "M2 23L24 5M9 17.3a1.6 1.6 0 1 0 .1 0M17 10.7a1.6 1.6 0 1 0 .1 0",
        ),
        M.RAY: MakeWords(
            "ray",
            "Ray",
            "Ray from {0} through {1}",
            "ray from {0} through {1}",
            "the ray {01}",
            "the ray from {0} through {1}",
            "M5 21L24 5M5 19.4a1.6 1.6 0 1 0 .1 0M15 11a1.6 1.6 0 1 0 .1 0",
        ),
        M.SEGMENT: MakeWords(
            "segment",
            "Segment",
            "Segment from {0} to {1}",
            "segment from {0} to {1}",
            "the segment {01}",
            "the segment from {0} to {1}",
            "M5 21L21 7M5 19.4a1.6 1.6 0 1 0 .1 0M21 5.4a1.6 1.6 0 1 0 .1 0",
        ),
        M.PERPENDICULAR: MakeWords(
            "perpendicular",
            "Perpendicular",
            "Perpendicular to {0} through {1}",
            "perpendicular to {0} through {1}",
            "the perpendicular to {0} through {1}",
            "the perpendicular to {0} through {1}",
            "M3 21h20M13 21V4M13 16h5v5",
        ),
        M.PARALLEL: MakeWords(
            "parallel",
            "Parallel",
            "Parallel to {0} through {1}",
            "parallel to {0} through {1}",
            "the parallel to {0} through {1}",
            "the parallel to {0} through {1}",
            "M3 18L23 9M3 24L23 15",
        ),
        M.PERPENDICULAR_BISECTOR: MakeWords(
            "perpendicular bisector",
            "Perpendicular bisector",
            "Perpendicular bisector of {0} and {1}",
            "perpendicular bisector of {0} and {1}",
            "the perpendicular bisector of {01}",
            "the perpendicular bisector of {0} and {1}",
            "M3 17h20M13 4v20M7 15v4M19 15v4",
        ),
        M.ANGLE_BISECTOR: MakeWords(
            "angle bisector",
            "Angle bisector",
            "Bisector of the angle from {0} at {1} to {2}",
            "bisector of angle {012}",
            "the bisector of angle {012}",
            None,
            "M4 22L23 22M4 22L16 5M4 22L22 12",
        ),
        M.CIRCLE: MakeWords(
            "circle",
            "Circle",
            "Circle centred {0} through {1}",
            "circle centred {0} through {1}",
            "the circle centred {0} through {1}",
            "the circle centred {0} through {1}",
            "M13 5a9 9 0 1 0 .1 0M13 12.6a1.4 1.4 0 1 0 .1 0M19.4 6.2a1.4 1.4 0 1 0 .1 0",
        ),
        M.CIRCLE_RADIUS: MakeWords(
            "circle by radius",
            "Circle by radius",
            "Radius from {1} to {2}, circle centred {0}",
            "circle centred {0} with radius {12}",
            "the circle centred {0} with radius {12}",
            "the circle centred {0}",
            "M13 3L6 24M13 3l7 21M8.5 15a8 8 0 0 0 9 0",
            (0, 1),
        ),
        M.CIRCLE_THROUGH: MakeWords(
            "circle through 3 points",
            "Circle through 3 points",
            "Circle through {0} and {1} and {2}",
            "circle through {0}, {1} and {2}",
            "the circle through {0}, {1} and {2}",
            "the circle through {0}, {1} and {2}",
            "M13 5a9 9 0 1 0 .1 0M5 12a1.4 1.4 0 1 0 .1 0M20 9a1.4 1.4 0 1 0 .1 0M15 21.5a1.4 1.4 0 1 0 .1 0",
        ),
        M.REFLECTION: MakeWords(
            "reflection",
            "Reflection",
            "Reflection of {0} in {1}",
            "reflection of {0} in {1}",
            "the reflection of {0} in {1}",
            "the reflection of {0} in {1}",
            "M13 3v22M4 12.4a1.6 1.6 0 1 0 .1 0M22 12.4a1.6 1.6 0 1 0 .1 0M6 14h3M17 14h3",
        ),
        M.TRANSLATION: MakeWords(
            "translation",
            "Translation",
            "Translation of {0} from {1} to {2}",
            "translation of {0} from {1} to {2}",
            "the translation of {0} from {1} to {2}",
            None,
            "M4 21.4a1.6 1.6 0 1 0 .1 0M20 9.4a1.6 1.6 0 1 0 .1 0M6 20l10-7M16 13l-5 .5M16 13l-2.500 4.500",
        ),
    },
)

WHICH: dict[str, str] = {
    "pick": "",
    "other_than": " other than {reference}",
    "nearest_to": " nearer to {reference}",
    "farthest_from": " farther from {reference}",
}
"""Which intersection is meant, by its choice."""

if set(WHICH) != set(CHOICES):
    raise LookupError("words for a choice of intersection are missing")

WHY_UNDEFINED: dict[str, str] = complete(
    Undefined,
    {
        Undefined.NEVER: "{names} are undefined in this position.",
        Undefined.ONE_POINT: "{names} are one point.",
        Undefined.IN_A_ROW: "{names} lie on one line.",
        Undefined.APART: "{names} do not meet.",
    },
)
"""Why what a make gives is undefined although all that it is made from is there, as a sentence."""


def filled(template: str, names: Sequence[str], reference: str | None = None, choice: str = "pick") -> str:
    """A template with the names of what a step is made from.

    >>> filled(MAKE_WORDS["circle_radius"].told, ["P", "A", "B"])
    'circle centred P with radius AB'
    >>> filled(MAKE_WORDS["intersection"].told, ["c", "d"], "P", "other_than")
    'intersection of c and d other than P'
    """

    def value(found: re.Match[str]) -> str:
        if found[1] == "which":
            return WHICH[choice].format(reference=reference)
        return "".join(names[int(entry)] for entry in found[1])

    return re.sub(r"\{(\w+)\}", value, template)


def words_for_scripts() -> JsonObject:
    """All of this as JSON, for the tool book."""
    return {
        "makes": {name: asdict(row) for name, row in MAKE_WORDS.items()},
        "which": WHICH,
        "undefined": WHY_UNDEFINED,
    }
