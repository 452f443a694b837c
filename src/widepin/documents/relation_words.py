"""All words about relations: one row each, as ``judge/conditions.py`` has one row of geometry each.

Templates name the terms of a condition by their places: {0}, {1}, {12} for two in one, {all} for all of them. The
browser gets these rows with the tool book.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..judge.conditions import RELATIONS, RelationName
from ..plane.rows import complete
from .reading import JsonObject


@dataclass(frozen=True)
class RelationWords:
    """A row of words.

    ``clause``: what is asked, as part of a sentence. ``sentence``: with blanks, as it is filled when a task is made;
    {n} and {d} are blanks for numbers. ``as_asked``: the clause where some of its terms are objects that the student
    cannot see, for one term that can be seen and for several; none where objects of the model are told by their making.
    """

    clause: str
    sentence: str
    as_asked: tuple[str, str] | None = None


R = RelationName

RELATION_WORDS: dict[str, RelationWords] = complete(
    RelationName,
    {
        R.SAME: RelationWords("{0} is {1}", "{0} is the same as {1}"),
        R.ON: RelationWords("{0} lies on {1}", "{0} lies on {1}"),
        R.PARALLEL: RelationWords("{0} is parallel to {1}", "{0} is parallel to {1}"),
        R.PERPENDICULAR: RelationWords("{0} is perpendicular to {1}", "{0} is perpendicular to {1}"),
        R.TANGENT: RelationWords("{0} touches {1}", "{0} touches {1}"),
        R.MIDPOINT: RelationWords("{0} is the midpoint of {12}", "{0} is the midpoint of {1} and {2}"),
        R.COLLINEAR: RelationWords("{all} lie on one line", "{all} lie on one line"),
        R.EQUAL_LENGTH: RelationWords(
            "{all} are equally long",
            "{all} are equally long",
            ("{all} is as long as is asked for", "{all} are as long as is asked for"),
        ),
        R.EQUAL_ANGLE: RelationWords(
            "the angles {all} are equal",
            "{all} are equal angles",
            ("the angle {all} is as large as is asked for", "the angles {all} are as large as is asked for"),
        ),
        R.EQUAL_AREA: RelationWords(
            "the triangles {all} have equal areas",
            "{all} are triangles of equal area",
            ("the triangle {all} is as large as is asked for", "the triangles {all} are as large as is asked for"),
        ),
        R.RATIO: RelationWords("{0} : {1} = {n} : {d}", "{0} : {1} = {n} : {d}"),
        R.DISTINCT: RelationWords("{all} are different points", "{all} all differ"),
        R.SAME_SIDE: RelationWords("{1} and {2} lie on the same side of {0}", "on one side of {0} lie {1} and {2}"),
        R.OPPOSITE_SIDE: RelationWords(
            "{1} and {2} lie on different sides of {0}", "on opposite sides of {0} lie {1} and {2}"
        ),
        R.INSIDE_ANGLE: RelationWords("{0} lies inside the angle {1}", "{0} lies inside the angle {1}"),
    },
)

CONCYCLIC = RelationWords("{all} lie on one circle", "")
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
