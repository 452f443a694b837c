"""All words about makes: one row each, as ``plane/makes.py`` has one row of geometry each.

Templates name what a step is made from by its entry of ``from``: {0}, {1}, {2}. The browser gets these rows with the
tool book, so that scripts hold no words of their own about makes.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import asdict, dataclass

from ...plane.intersections import CHOICES
from ...plane.makes import MakeName, Undefined
from ...plane.rows import complete
from ..language import gettext
from ..language import marked as _
from ..reading import JsonObject


@dataclass(frozen=True)
class MakeWords:
    """A row of words.

    ``tool``: among the tools of a task. ``counted``: one and several of what it makes. ``card``: on the board's
    card, none for points, which have one card together. ``sentence``: with blanks, as it is filled on the board.
    ``told``: a step, after its name and a colon; {which} says which intersection. ``called``: an object by its making,
    where it has no name, from named ones; {012}: names in one. ``called_from``: the same from objects that are called
    by their making themselves; None where that leads too far. ``icon``: an SVG path in a box of 26 by 28. ``keeps``:
    blanks that stay filled for the next step.
    """

    tool: str
    counted: tuple[str, str]
    card: str
    sentence: str
    told: str
    called: str | None
    called_from: str | None
    icon: str = ""
    keeps: tuple[int, ...] = ()


M = MakeName

MAKE_WORDS: dict[str, MakeWords] = complete(
    "MAKE_WORDS",
    MakeName,
    {
        M.FREE_POINT: MakeWords(
            _("free points"), (_("a free point"), _("%(n)s free points")), "", "", _("free point"), None, None
        ),
        M.POINT_ON: MakeWords(
            _("points on a curve"),
            (_("a point on a curve"), _("%(n)s points on a curve")),
            "",
            "",
            _("point on {0}"),
            None,
            None,
        ),
        M.INTERSECTION: MakeWords(
            _("intersection"),
            (_("an intersection"), _("%(n)s intersections")),
            _("Intersection"),
            _("Intersection of {0} and {1}"),
            _("intersection of {0} and {1}{which}"),
            _("the intersection of {0} and {1}"),
            _("the intersection of {0} and {1}"),
            "M3 22L23 6M4 7l18 14M10 11l6 6M16 11l-6 6",
        ),
        M.MIDPOINT: MakeWords(
            _("midpoint"),
            (_("a midpoint"), _("%(n)s midpoints")),
            _("Midpoint"),
            _("Midpoint of {0} and {1}"),
            _("midpoint of {0} and {1}"),
            _("the midpoint of {01}"),
            _("the midpoint of {0} and {1}"),
            "M3 14h20M3 12.4a1.6 1.6 0 1 0 .1 0M23 12.4a1.6 1.6 0 1 0 .1 0M10 11l6 6M16 11l-6 6",
        ),
        M.LINE: MakeWords(
            _("line"),
            (_("a line"), _("%(n)s lines")),
            _("Line"),
            _("Line through {0} and {1}"),
            _("line through {0} and {1}"),
            _("the line {01}"),
            _("the line through {0} and {1}"),
            "M2 23L24 5M9 17.3a1.6 1.6 0 1 0 .1 0M17 10.7a1.6 1.6 0 1 0 .1 0",
        ),
        M.RAY: MakeWords(
            _("ray"),
            (_("a ray"), _("%(n)s rays")),
            _("Ray"),
            _("Ray from {0} through {1}"),
            _("ray from {0} through {1}"),
            _("the ray {01}"),
            _("the ray from {0} through {1}"),
            "M5 21L24 5M5 19.4a1.6 1.6 0 1 0 .1 0M15 11a1.6 1.6 0 1 0 .1 0",
        ),
        M.SEGMENT: MakeWords(
            _("segment"),
            (_("a segment"), _("%(n)s segments")),
            _("Segment"),
            _("Segment from {0} to {1}"),
            _("segment from {0} to {1}"),
            _("the segment {01}"),
            _("the segment from {0} to {1}"),
            "M5 21L21 7M5 19.4a1.6 1.6 0 1 0 .1 0M21 5.4a1.6 1.6 0 1 0 .1 0",
        ),
        M.PERPENDICULAR: MakeWords(
            _("perpendicular"),
            (_("a perpendicular"), _("%(n)s perpendiculars")),
            _("Perpendicular"),
            _("Perpendicular to {0} through {1}"),
            _("perpendicular to {0} through {1}"),
            _("the perpendicular to {0} through {1}"),
            _("the perpendicular to {0} through {1}"),
            "M3 21h20M13 21V4M13 16h5v5",
        ),
        M.PARALLEL: MakeWords(
            _("parallel"),
            (_("a parallel"), _("%(n)s parallels")),
            _("Parallel"),
            _("Parallel to {0} through {1}"),
            _("parallel to {0} through {1}"),
            _("the parallel to {0} through {1}"),
            _("the parallel to {0} through {1}"),
            "M3 18L23 9M3 24L23 15",
        ),
        M.PERPENDICULAR_BISECTOR: MakeWords(
            _("perpendicular bisector"),
            (_("a perpendicular bisector"), _("%(n)s perpendicular bisectors")),
            _("Perpendicular bisector"),
            _("Perpendicular bisector of {0} and {1}"),
            _("perpendicular bisector of {0} and {1}"),
            _("the perpendicular bisector of {01}"),
            _("the perpendicular bisector of {0} and {1}"),
            "M3 17h20M13 4v20M7 15v4M19 15v4",
        ),
        M.ANGLE_BISECTOR: MakeWords(
            _("angle bisector"),
            (_("an angle bisector"), _("%(n)s angle bisectors")),
            _("Angle bisector"),
            _("Bisector of the angle from {0} at {1} to {2}"),
            _("bisector of angle {012}"),
            _("the bisector of angle {012}"),
            None,
            "M4 22L23 22M4 22L16 5M4 22L22 12",
        ),
        M.CIRCLE: MakeWords(
            _("circle"),
            (_("a circle"), _("%(n)s circles")),
            _("Circle"),
            _("Circle centred {0} through {1}"),
            _("circle centred {0} through {1}"),
            _("the circle centred {0} through {1}"),
            _("the circle centred {0} through {1}"),
            "M13 5a9 9 0 1 0 .1 0M13 12.6a1.4 1.4 0 1 0 .1 0M19.4 6.2a1.4 1.4 0 1 0 .1 0",
        ),
        M.CIRCLE_RADIUS: MakeWords(
            _("circle by radius"),
            (_("a circle by radius"), _("%(n)s circles by radius")),
            _("Circle by radius"),
            _("Radius from {1} to {2}, circle centred {0}"),
            _("circle centred {0} with radius {12}"),
            _("the circle centred {0} with radius {12}"),
            _("the circle centred {0}"),
            "M13 3L6 24M13 3l7 21M8.5 15a8 8 0 0 0 9 0",
            (0, 1),
        ),
        M.CIRCLE_THROUGH: MakeWords(
            _("circle through 3 points"),
            (_("a circle through 3 points"), _("%(n)s circles through 3 points")),
            _("Circle through 3 points"),
            _("Circle through {0} and {1} and {2}"),
            _("circle through {0}, {1} and {2}"),
            _("the circle through {0}, {1} and {2}"),
            _("the circle through {0}, {1} and {2}"),
            "M13 5a9 9 0 1 0 .1 0M5 12a1.4 1.4 0 1 0 .1 0M20 9a1.4 1.4 0 1 0 .1 0M15 21.5a1.4 1.4 0 1 0 .1 0",
        ),
        M.REFLECTION: MakeWords(
            _("reflection"),
            (_("a reflection"), _("%(n)s reflections")),
            _("Reflection"),
            _("Reflection of {0} in {1}"),
            _("reflection of {0} in {1}"),
            _("the reflection of {0} in {1}"),
            _("the reflection of {0} in {1}"),
            "M13 3v22M4 12.4a1.6 1.6 0 1 0 .1 0M22 12.4a1.6 1.6 0 1 0 .1 0M6 14h3M17 14h3",
        ),
        M.TRANSLATION: MakeWords(
            _("translation"),
            (_("a translation"), _("%(n)s translations")),
            _("Translation"),
            _("Translation of {0} from {1} to {2}"),
            _("translation of {0} from {1} to {2}"),
            _("the translation of {0} from {1} to {2}"),
            None,
            "M4 21.4a1.6 1.6 0 1 0 .1 0M20 9.4a1.6 1.6 0 1 0 .1 0M6 20l10-7M16 13l-5 .5M16 13l-2.500 4.500",
        ),
        M.ROTATION: MakeWords(
            _("rotation"),
            (_("a rotation"), _("%(n)s rotations")),
            _("Rotation"),
            _("Rotation of {0} about {1} by the angle {2} {3} {4}"),
            _("rotation of {0} about {1} by angle {234}"),
            _("the rotation of {0} about {1} by angle {234}"),
            None,
            "M5 21.4a1.6 1.6 0 1 0 .1 0M21 21.4a1.6 1.6 0 1 0 .1 0M11 6.4a1.6 1.6 0 1 0 .1 0"
            "M8 23h10M19 20a14 14 0 0 0-6-11M13 9l4 1M13 9l1 4.500",
        ),
    },
)

WHICH: dict[str, str] = {
    "pick": "",
    "other_than": _(" other than {reference}"),
    "nearest_to": _(" nearer to {reference}"),
    "farthest_from": _(" farther from {reference}"),
}
"""Which intersection is meant, by its choice."""

if set(WHICH) != set(CHOICES):
    raise LookupError("words for a choice of intersection are missing")

WHY_UNDEFINED: dict[str, str] = complete(
    "WHY_UNDEFINED",
    Undefined,
    {
        Undefined.NEVER: _("{names} are undefined in this position."),
        Undefined.ONE_POINT: _("{names} are one point."),
        Undefined.IN_A_ROW: _("{names} lie on one line."),
        Undefined.NO_ANGLE: _("{names} make no angle."),
        Undefined.APART: _("{names} do not meet."),
    },
)
"""Why what a make gives is undefined although all that it is made from is there, as a sentence."""


LETTER = re.compile(r"[^\W\d_][\d_]*'*")
"""A name that can stand beside others without a space: A, B1, C'."""


def joined(names: Sequence[str]) -> str:
    """Names of points in one: AB; with dashes where they are not single letters.

    >>> joined(["A", "B1"]), joined(["Top", "B"])
    ('AB1', 'Top-B')
    """
    return "".join(names) if all(map(LETTER.fullmatch, names)) else "-".join(names)


def filled(template: str, names: Sequence[str], reference: str | None = None, choice: str = "pick") -> str:
    """A template with the names of what a step is made from.

    >>> filled(MAKE_WORDS["circle_radius"].told, ["P", "A", "B"])
    'circle centred P with radius AB'
    >>> filled(MAKE_WORDS["intersection"].told, ["c", "d"], "P", "other_than")
    'intersection of c and d other than P'
    """

    def value(found: re.Match[str]) -> str:
        if found[1] == "which":
            return gettext(WHICH[choice]).format(reference=reference)
        return joined([names[int(entry)] for entry in found[1]])

    return re.sub(r"\{(\w+)\}", value, gettext(template))


def words_for_scripts() -> JsonObject:
    """All of this as JSON, for the tool book."""
    return {
        "makes": {name: asdict(row) for name, row in MAKE_WORDS.items()},
        "which": WHICH,
        "undefined": WHY_UNDEFINED,
    }
