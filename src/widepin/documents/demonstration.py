"""Demonstrations: a construction shown frame by frame, with what is done and why. An open document; see docs/schemas.

A frame says how many steps are shown, what is said of them, where points lie from here on, how objects are shown from
here on, and which part of the paper is seen.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..judge.task import Task
from ..plane.steps import MAX_STEPS, Step
from .construction import Coordinate, StepDocument, write_step
from .language import gettext as _
from .operations import Dress
from .proofs import said_after
from .reading import JsonObject, Unreadable, from_validation
from .words import Words, instruction

Format = Literal["widepin.demonstration/1"]
FORMAT: Format = "widepin.demonstration/1"
Source = Literal["sample solution", "work", "drawing"]
MAX_FRAMES, LONGEST_WORDS = 200, 800


class Frame(BaseModel):
    """What is seen and said at one place of a demonstration. ``view``: two opposite corners in centimetres.

    ``measures``: what is measured from here on, each as in the operation "measure".
    """

    model_config = ConfigDict(extra="forbid")
    shown: Annotated[int, Field(ge=0, le=MAX_STEPS, strict=True)]
    words: str = Field(default="", max_length=LONGEST_WORDS)
    points: dict[str, tuple[Coordinate, Coordinate]] = Field(default_factory=dict, max_length=2 * MAX_STEPS)
    dress: dict[str, Dress] = Field(default_factory=dict, max_length=2 * MAX_STEPS)
    measures: list[Annotated[list[str], Field(min_length=1, max_length=4)]] = Field(default_factory=list, max_length=40)
    view: tuple[tuple[Coordinate, Coordinate], tuple[Coordinate, Coordinate]] | None = None


class DemonstrationDocument(BaseModel):
    """A construction and its frames. ``answer``: ids of what is constructed, brought out in the last frame.

    ``source``: what the construction is; one that is the sample solution is made anew when that has changed.
    """

    model_config = ConfigDict(extra="forbid")
    format: Format = FORMAT
    source: Source = "sample solution"
    title: str = Field(max_length=200)
    given: list[StepDocument] = Field(max_length=MAX_STEPS)
    steps: list[StepDocument] = Field(max_length=MAX_STEPS)
    answer: list[str] = Field(default_factory=list, max_length=MAX_STEPS)
    frames: list[Frame] = Field(min_length=1, max_length=MAX_FRAMES)


def read_demonstration(value: object) -> JsonObject:
    """A demonstration from its JSON value, as it is kept. Raises Unreadable with the place in the document."""
    try:
        document = DemonstrationDocument.model_validate(value)
    except ValidationError as error:
        raise from_validation(error) from None
    for number, frame in enumerate(document.frames):
        if frame.shown > len(document.steps):
            raise Unreadable(
                f"frames[{number}].shown", _("must be a number of steps, %(most)s at most", most=len(document.steps))
            )
    return document.model_dump(mode="json", exclude_none=True) | {
        "given": [write_step(step.step()) for step in document.given],
        "steps": [write_step(step.step()) for step in document.steps],
    }


def demonstration_of(task: Task) -> JsonObject:
    """A demonstration of a task's sample solution in the words of its steps: first what is asked for, then a frame a
    step, at last that it may be dragged.
    """
    answer = [one.name for one in task.wanted if one.name in {step.id for step in task.model}]
    return _document(task.title, "sample solution", asked_for(task), task.done, task.model, answer)


def asked_for(task: Task) -> str:
    """What a task asks for, in its own words and the conditions'."""
    words = Words(task)
    wanted = _(
        "Construct %(wanted)s such that %(conditions)s.",
        wanted=words.wanted(),
        conditions="; ".join(words.conditions()),
    )
    return f"{task.text} {wanted}".strip()


def demonstration_of_work(task: Task, given: Sequence[Step], made: Sequence[Step], answer: Sequence[str]) -> JsonObject:
    """A demonstration of a work on a task, as that of its sample solution. ``given``: with the steps at the start."""
    return _document(task.title, "work", asked_for(task), given, made, answer)


def demonstration_of_drawing(title: str, text: str, given: Sequence[Step], made: Sequence[Step]) -> JsonObject:
    """A demonstration of what was drawn for no task, or for one that is not finished."""
    return _document(title, "drawing", text or title, given, made, ())


def with_reasons(document: JsonObject, lines: Sequence[JsonObject]) -> JsonObject:
    """A demonstration in which each step carries what becomes true with it, and why.

    ``lines``: of the proof of its construction, in words.
    """
    seen = said_after(lines, [step["id"] for step in document["steps"]])
    frames = []
    told: set[int] = set()
    for frame in document["frames"]:
        fresh = [n for n, at in enumerate(seen) if at <= frame["shown"] and n not in told and frame["shown"] > 0]
        told.update(fresh)
        said = [f"{lines[n]['words']}: {lines[n]['because_of']}" for n in fresh]
        frames.append({**frame, "words": "\n".join([frame["words"], *said])[:LONGEST_WORDS]})
    return {**document, "frames": frames}


def _document(
    title: str, source: Source, first: str, given: Sequence[Step], made: Sequence[Step], answer: Sequence[str]
) -> JsonObject:
    frames: list[JsonObject] = [{"shown": 0, "words": first[:LONGEST_WORDS]}]
    for number, step in enumerate(made, 1):
        frames.append({"shown": number, "words": _("%(step)s.", step=instruction(step))})
    last = _("Drag the points: what is so in the drawing and what is always so come apart.")
    if source == "sample solution":
        last = _("Drag the given points: it stays right wherever they lie.")
    frames.append({"shown": len(made), "words": last})
    return {
        "format": FORMAT,
        "source": source,
        "title": title,
        "given": [write_step(step) for step in given],
        "steps": [write_step(step) for step in made],
        "answer": list(answer),
        "frames": frames[:MAX_FRAMES],
    }
