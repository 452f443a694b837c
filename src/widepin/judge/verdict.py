"""The outcomes of a verdict, and what is said with them. See docs/formats.md for their meaning."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from ..plane.rules import Broken
from ..plane.steps import Step
from .costs.elementary import Costs
from .task import Condition, Names


class Outcome(StrEnum):
    """The seven outcomes, the best first."""

    SOUND = "sound"
    FRAGILE = "fragile"
    SWITCHING = "switching"
    APPROXIMATE = "approximate"
    EYEBALLED = "eyeballed"
    WRONG = "wrong"
    REFUSED = "refused"

    @property
    def rank(self) -> int:
        """0 for the best."""
        return list(Outcome).index(self)

    @property
    def is_right_as_drawn(self) -> bool:
        """Whether the answer is right as drawn and in all small movements, if not everywhere."""
        return self in (Outcome.SOUND, Outcome.FRAGILE, Outcome.SWITCHING)


@dataclass(frozen=True)
class Counts:
    """Moves of the student, those among them that the answer needs, and the ids of the others."""

    moves: int = 0
    needed: int = 0
    idle: tuple[str, ...] = ()


class Whose(StrEnum):
    """Whose point is dragged."""

    GIVEN = "given"
    OWN = "own"


class Failure(StrEnum):
    """What happens to an answer at a break."""

    UNDEFINED = "undefined"
    WRONG = "wrong"


class Fate(StrEnum):
    """What becomes of an answer when the given triangle takes a named shape."""

    HOLDS = "holds"
    VANISHES = "vanishes"
    GOES_WRONG = "goes wrong"


class Quantity(StrEnum):
    """What is measured of a condition: degrees for an angle, square centimetres for an area, else centimetres."""

    LENGTH = "length"
    DISTANCE = "distance"
    DISTANCE_OF_CENTRE = "distance of centre"
    DISTANCE_OF_CENTRES = "distance of centres"
    DISTANCE_OF_INTERSECTION = "distance of intersection"
    RADIUS = "radius"
    ANGLE = "angle"
    AREA = "area"
    BEYOND_END = "beyond end"


Place = tuple[float, float]


@dataclass(frozen=True)
class Drag:
    """A point dragged from one place to another, in centimetres; ``by``: whose it is.

    ``path``: places on its way at equal shares of the drag, the first and last included; two where it is line.
    """

    id: str
    start: Place
    end: Place
    by: Whose
    path: tuple[Place, ...] = ()


@dataclass(frozen=True)
class Break:
    """A position in which an answer fails.

    ``position``: the inputs of the figure. ``object``: the id of the object
    that vanishes first, or of the first part of the answer that is off.
    """

    drags: tuple[Drag, ...]
    happens: Failure
    object: str
    position: tuple[float, ...] = ()

    @property
    def by(self) -> Whose:
        """``OWN`` if a point of the student's had to be dragged."""
        return Whose.OWN if any(drag.by is Whose.OWN for drag in self.drags) else Whose.GIVEN


@dataclass(frozen=True)
class Certificate:
    """At how many random positions balls proved the answer right, and to how many digits."""

    positions: int
    digits: int


@dataclass(frozen=True)
class Refusal:
    """Why a work is not judged: the id of the step (or None), and the rule that is broken."""

    step: str | None
    broken: Broken


class Why(StrEnum):
    """Why a step makes nothing although all that it is made from is there."""

    ONE_POINT = "one point"
    IN_A_ROW = "in a row"
    NO_ANGLE = "no angle"
    PARALLEL = "parallel"
    APART = "apart"
    BEYOND_END = "beyond end"
    ONE_CURVE = "one curve"
    TIE = "tie"
    WITHIN_TOOL = "within tool"


@dataclass(frozen=True)
class Absent:
    """An object that does not exist as drawn: ``id``, the ``first`` object that does not among those that it is made
    from, ``why`` that is so, and the ids ``of`` what makes it so; the name of the class tool where it is within one.
    """

    id: str
    first: str
    why: Why
    of: tuple[str, ...]


@dataclass(frozen=True)
class Mend:
    """Steps that would make the work sound if they stood in the places of those with the same ids."""

    steps: tuple[Step, ...]


@dataclass(frozen=True)
class Measured:
    """A value that a condition is about, as drawn and in the break; None where it does not exist.

    ``of``: the terms it is measured on.
    """

    what: Quantity
    of: tuple[Names, ...]
    drawn: float | None
    at_break: float | None = None


@dataclass(frozen=True)
class ConditionReport:
    """A condition of the task by its place, looked at as drawn and in the break.

    Gaps are the largest deviation in centimetres (angles times the figure's size), None where something is undefined;
    ``holds`` is to the eye.
    """

    place: int
    holds_as_drawn: bool
    gap_as_drawn: float | None
    holds_at_break: bool | None = None
    gap_at_break: float | None = None
    measured: tuple[Measured, ...] = ()


@dataclass(frozen=True)
class Report:
    """What can be said beyond the outcome.

    ``conditions``: of the answer; of ``closest``, the objects that come closest, where nothing looks right.
    ``shapes``: named shape of the given triangle -> what becomes of the answer there. ``by_eye``: own points that
    the answer hangs on; ``slides``: of these, id -> the curve that it slides on, the others are tied to nothing.
    ``repeated``: id -> the earlier object that it is. ``ties``: of these, id -> the intersection or curve next to it.
    ``mends``: changes of one step, or two, that were judged sound; where a step is then made from a later one, that
    is moved up. ``truths``: relations among the student's objects that hold wherever these exist, the most telling
    first. ``costs``: of the work, and of the task's model if it has one. ``instead``: wanted name -> the object that
    would be right, where another was pointed out; ``absent``: objects that were pointed out and do not exist as drawn;
    ``unmarked``: intersections that would be right if they were
    marked, under the wanted names. ``provisos``: where it is by points of the student's own that a
    work is fragile, what must be true of them, all of it.
    """

    conditions: tuple[ConditionReport, ...] = ()
    shapes: dict[str, Fate] = field(default_factory=dict)
    by_eye: tuple[str, ...] = ()
    slides: dict[str, str] = field(default_factory=dict)
    ties: dict[str, Step] = field(default_factory=dict)
    closest: dict[str, str] | None = None
    repeated: dict[str, str] = field(default_factory=dict)
    mends: tuple[Mend, ...] = ()
    truths: tuple[Condition, ...] = ()
    costs: Costs | None = None
    model_costs: Costs | None = None
    instead: dict[str, str] = field(default_factory=dict)
    absent: tuple[Absent, ...] = ()
    unmarked: tuple[Step, ...] = ()
    provisos: tuple[Condition, ...] = ()


@dataclass(frozen=True)
class Verdict:
    """What the judge says of a work."""

    outcome: Outcome
    counts: Counts = field(default_factory=Counts)
    answer: dict[str, str] | None = None
    breaks: Break | None = None
    method_holds: bool | None = None
    certificate: Certificate | None = None
    refusal: Refusal | None = None
    report: Report | None = None
    stopped: bool = False
    """Whether the search for the answer reached its bound, so that it should be pointed out."""
