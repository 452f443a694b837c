"""All words about relations: one row each, as ``judge/conditions.py`` has one row of geometry each.

Templates name the terms of a condition by their places: {0}, {1}, {12} for two in one, {all} for all of them, or
for those that follow the ones that are named. The browser gets these rows with the tool book.
"""

from __future__ import annotations

from dataclasses import dataclass

from ...judge.conditions import RELATIONS, RelationName
from ...plane.rows import complete
from ..language import marked as _
from ..reading import JsonObject


@dataclass(frozen=True)
class RelationWords:
    """A row of words.

    ``clause``: what is asked, as part of a sentence. ``sentence``: with blanks, as it is filled when a task is made;
    {n} and {d} are blanks for numbers. ``as_asked``: the clause where some of its terms are objects that the student
    cannot see, for one term that can be seen and for several; none where objects of the model are told by their making.
    ``at_length``: the clause where some of its terms cannot be told by letters alone, if that has to be another one.
    ``spelled``: what each term is in that one, told by its letters and by its points.
    """

    clause: str
    sentence: str
    as_asked: tuple[str, str] | None = None
    at_length: str | None = None
    spelled: tuple[str, str] | None = None


R = RelationName

RELATION_WORDS: dict[str, RelationWords] = complete(
    "RELATION_WORDS",
    RelationName,
    {
        R.SAME: RelationWords(_("{0} is {1}"), _("{0} is the same as {1}")),
        R.ON: RelationWords(_("{0} lies on {1}"), _("{0} lies on {1}")),
        R.PARALLEL: RelationWords(_("{0} is parallel to {1}"), _("{0} is parallel to {1}")),
        R.PERPENDICULAR: RelationWords(_("{0} is perpendicular to {1}"), _("{0} is perpendicular to {1}")),
        R.TANGENT: RelationWords(_("{0} touches {1}"), _("{0} touches {1}")),
        R.MIDPOINT: RelationWords(_("{0} is the midpoint of {12}"), _("{0} is the midpoint of {1} and {2}")),
        R.COLLINEAR: RelationWords(_("{all} lie on one line"), _("{all} lie on one line")),
        R.CONCURRENT: RelationWords(_("{all} pass through one point"), _("{all} pass through one point")),
        R.EQUIDISTANT: RelationWords(_("{0} is equally far from {all}"), _("{0} is equally far from {all}")),
        R.EQUAL_LENGTH: RelationWords(
            _("{all} are equally long"),
            _("{all} are equally long"),
            (_("{all} is as long as is asked for"), _("{all} are as long as is asked for")),
        ),
        R.EQUAL_ANGLE: RelationWords(
            _("the angles {all} are equal"),
            _("{all} are equal angles"),
            (_("the angle {all} is as large as is asked for"), _("the angles {all} are as large as is asked for")),
            _("{all} are equal"),
            (_("the angle {all}"), _("the angle from {0} at {1} to {2}")),
        ),
        R.EQUAL_AREA: RelationWords(
            _("the triangles {all} have equal areas"),
            _("{all} are triangles of equal area"),
            (
                _("the triangle {all} is as large as is asked for"),
                _("the triangles {all} are as large as is asked for"),
            ),
            _("{all} have equal areas"),
            (_("the triangle {all}"), _("the triangle with the corners {0}, {1} and {2}")),
        ),
        R.RATIO: RelationWords(
            _("{0} : {1} = {n} : {d}"),
            _("{0} : {1} = {n} : {d}"),
            at_length=_("{d} times {0} is {n} times {1}"),
        ),
        R.DISTINCT: RelationWords(_("{all} are different points"), _("{all} all differ")),
        R.SAME_SIDE: RelationWords(
            _("{1} and {2} lie on the same side of {0}"), _("on one side of {0} lie {1} and {2}")
        ),
        R.OPPOSITE_SIDE: RelationWords(
            _("{1} and {2} lie on different sides of {0}"), _("on opposite sides of {0} lie {1} and {2}")
        ),
        R.INSIDE_ANGLE: RelationWords(_("{0} lies inside the angle {1}"), _("{0} lies inside the angle {1}")),
    },
)

CONCYCLIC = RelationWords(_("{all} lie on one circle"), "")
"""What reports say besides, of points; no task asks for it."""


def words_for_scripts() -> JsonObject:
    """What the page for making tasks needs of relations, for the tool book."""
    return {
        name: {
            "sentence": RELATION_WORDS[name].sentence,
            "of": relation.of,
            "many": relation.many,
            "numbers": "{n}" in RELATION_WORDS[name].sentence,
        }
        for name, relation in RELATIONS.items()
    }
