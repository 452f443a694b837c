"""What a step says by itself, as the reason of a line: P lies on the perpendicular bisector of AB."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from ...judge.task import MODEL
from ...plane.makes import MAKES, MakeName
from ...plane.rows import complete
from ...plane.shapes import LINES, Kind
from ...plane.steps import Step
from ...reason.facts import Rel
from ...reason.proof import Line
from ..language import gettext as _
from ..language import marked
from ..wording.words import Words

M = MakeName

MADE_WORDS: dict[str, str] = complete(
    "MADE_WORDS",
    MakeName,
    {
        M.FREE_POINT: marked("%(id)s is given"),
        M.POINT_ON: marked("%(id)s lies on %(a)s"),
        M.LINE: marked("%(id)s is drawn through %(a)s and %(b)s"),
        M.RAY: marked("%(id)s is drawn from %(a)s through %(b)s"),
        M.SEGMENT: marked("%(id)s is drawn from %(a)s to %(b)s"),
        M.CIRCLE: marked("%(id)s is drawn about %(a)s through %(b)s"),
        M.CIRCLE_RADIUS: marked("%(id)s is drawn about %(a)s with radius %(b)s%(c)s"),
        M.CIRCLE_THROUGH: marked("%(id)s is drawn through %(a)s, %(b)s and %(c)s"),
        M.INTERSECTION: marked("%(id)s is where %(a)s and %(b)s meet"),
        M.MIDPOINT: marked("%(id)s is made as the midpoint of %(a)s%(b)s"),
        M.PERPENDICULAR: marked("%(id)s is drawn perpendicular to %(a)s"),
        M.PARALLEL: marked("%(id)s is drawn parallel to %(a)s"),
        M.PERPENDICULAR_BISECTOR: marked("%(id)s is drawn as the perpendicular bisector of %(a)s%(b)s"),
        M.ANGLE_BISECTOR: marked("%(id)s is drawn as the bisector of angle %(a)s%(b)s%(c)s"),
        M.REFLECTION: marked("%(id)s is the mirror image of %(a)s in %(b)s"),
        M.TRANSLATION: marked("%(id)s is %(a)s moved as from %(b)s to %(c)s"),
        M.ROTATION: marked("%(id)s is %(a)s turned about %(b)s by angle %(c)s%(d)s%(e)s"),
    },
)
"""What a step has made; letters stand for what it is made from, in order."""

POINT_WORDS = {
    M.PERPENDICULAR_BISECTOR: marked("%(point)s lies on the perpendicular bisector of %(a)s%(b)s"),
    M.ANGLE_BISECTOR: marked("%(point)s lies on the bisector of angle %(a)s%(b)s%(c)s"),
}
"""What is said of a point that came to lie on it."""

NOT_SAYING = (M.FREE_POINT, M.POINT_ON, M.INTERSECTION)
"""Steps by which a point came to lie on something, where another step says what follows."""


def stated_in_words(line: Line, made: Mapping[str, Step], words: Words, called: Mapping[str, str]) -> str | None:
    """What the step says that states a line; None where the step is not known.

    ``made``: id -> the step that made it, of the work and of what is given.
    """
    if line.fact.rel is Rel.COLLINEAR and (common := _line_of_all(line.fact.names, made)) is not None:
        return _("all of them lie on %(line)s", line=called.get(common, common))
    steps = [made[id_] for id_ in line.steps if id_ in made]
    steps.sort(key=lambda step: step.make in NOT_SAYING)
    if not steps:
        return None
    step = steps[0]
    if step.id.startswith(MODEL):
        return _("let %(id)s be %(what)s", id=called.get(step.id, step.id), what=words.step(step, True))
    named = dict(zip("abcde", (called.get(source, source) for source in step.sources), strict=False))
    others = sorted(name for name in line.fact.names - {step.id, *step.sources} if _is_point(name, made))
    if step.make in POINT_WORDS and len(others) == 1:
        return _(POINT_WORDS[MakeName(step.make)]) % (named | {"point": called.get(others[0], others[0])})
    return _(MADE_WORDS[step.make]) % (named | {"id": called.get(step.id, step.id)})


def point_of_all(line: Line, made: Mapping[str, Step]) -> str | None:
    """A point on all the lines that a line of a proof speaks of: as far as the steps say it."""
    return next(
        (
            id_
            for id_, step in made.items()
            if MAKES[step.make].gives is Kind.POINT
            and all(_passes(term, id_, made) if isinstance(term, str) else id_ in term for term in line.fact.of)
        ),
        None,
    )


def _line_of_all(points: Collection[str], made: Mapping[str, Step]) -> str | None:
    """A line that was drawn through points or on which they were put, by the steps alone."""
    return next((id_ for id_ in made if all(_passes(id_, point, made) for point in points)), None)


def _passes(line: str, point: str, made: Mapping[str, Step]) -> bool:
    """Whether it is a line that was drawn through a point, or on which the point was put, by the steps alone."""
    step = made.get(line)
    if step is None or MAKES[step.make].gives not in LINES:
        return False
    return point in step.sources or (point in made and line in made[point].sources)


def _is_point(name: str, made: Mapping[str, Step]) -> bool:
    """Whether a name is that of a point; a line that nobody drew is called by two."""
    return " " not in name and (name not in made or MAKES[made[name].make].gives is Kind.POINT)
