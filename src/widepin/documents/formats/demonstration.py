"""Demonstrations: a construction shown frame by frame, with what is done and why. An open document; see docs/schemas.

A frame says how many steps are shown, what is said of them, where points lie from here on, how objects are shown from
here on, and which part of the paper is seen.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ...judge.task import Task
from ...plane.steps import MAX_STEPS, Step
from ..language import gettext as _
from ..reading import JsonObject, Unreadable, from_validation
from ..reasons.proofs import said_after
from ..wording.words import Words, instruction
from .construction import Coordinate, StepDocument, write_step
from .operations import Dress

Format = Literal["widepin.demonstration/1"]
FORMAT: Format = "widepin.demonstration/1"
Source = Literal["sample solution", "work", "drawing"]
MAX_FRAMES, LONGEST_WORDS = 200, 800


class Frame(BaseModel):
    """What is seen and said at one place of a demonstration. ``view``: two opposite corners in centimetres.

    ``own``: whether the words are somebody's own; others follow from the construction. ``measures``: what is measured
    from here on, each as in the operation "measure". ``voice``: the digest of a recording in which it is said.
    """

    model_config = ConfigDict(extra="forbid")
    shown: Annotated[int, Field(ge=0, le=MAX_STEPS, strict=True)]
    words: str = Field(default="", max_length=LONGEST_WORDS)
    own: bool = False
    voice: str | None = Field(default=None, pattern="^[0-9a-f]{64}$")
    points: dict[str, tuple[Coordinate, Coordinate]] = Field(default_factory=dict, max_length=2 * MAX_STEPS)
    dress: dict[str, Dress] = Field(default_factory=dict, max_length=2 * MAX_STEPS)
    measures: list[Annotated[list[str], Field(min_length=1, max_length=4)]] = Field(default_factory=list, max_length=40)
    view: tuple[tuple[Coordinate, Coordinate], tuple[Coordinate, Coordinate]] | None = None


class DemonstrationDocument(BaseModel):
    """A construction and its frames. ``answer``: ids of what is constructed, brought out in the last frame.

    ``source``: what the construction is; one that is the sample solution follows that when it changes. ``named``:
    whether the title is somebody's own; it is the task's otherwise.
    """

    model_config = ConfigDict(extra="forbid")
    format: Format = FORMAT
    source: Source = "sample solution"
    title: str = Field(max_length=200)
    named: bool = False
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
    sentence, clauses = Words(task).asked()
    if clauses:
        sentence = f"{sentence} {'; '.join(clauses)}."
    return f"{task.text} {sentence}".strip()


def demonstration_of_work(task: Task, given: Sequence[Step], made: Sequence[Step], answer: Sequence[str]) -> JsonObject:
    """A demonstration of a work on a task, as that of its sample solution. ``given``: with the steps at the start."""
    return _document(task.title, "work", asked_for(task), given, made, answer)


def demonstration_of_drawing(title: str, text: str, given: Sequence[Step], made: Sequence[Step]) -> JsonObject:
    """A demonstration of what was drawn for no task, or for one that is not finished."""
    return _document(title, "drawing", text or title, given, made, ())


def without_voices(document: JsonObject) -> JsonObject:
    """A demonstration of which nothing is spoken any more."""
    frames = [{name: value for name, value in frame.items() if name != "voice"} for frame in document["frames"]]
    return {**document, "frames": frames}


def voices(document: JsonObject) -> set[str]:
    """The digests of the recordings in which the frames of a demonstration are said."""
    return {frame["voice"] for frame in document["frames"] if frame.get("voice")}


def with_words_of(frames: list[JsonObject], made: JsonObject) -> list[JsonObject]:
    """Frames in which words that are nobody's own are as in a demonstration that follows from the construction.

    ``frames``: of that construction; what stands in them below such words, as reasons, goes.
    """
    said: dict[int, list[str]] = {}
    for frame in made["frames"]:
        said.setdefault(frame["shown"], []).append(frame["words"])
    return [
        frame if frame.get("own") else {**frame, "words": _closest(frame["words"], said.get(frame["shown"], []))}
        for frame in frames
    ]


def _closest(words: str, said: Sequence[str]) -> str:
    """Of what is said by itself, that with which words begin; those themselves where there is nothing else."""
    return next((one for one in said if words.startswith(one)), said[0] if said and words else words)


def following(kept: JsonObject, made: JsonObject) -> JsonObject:
    """A demonstration after its construction has changed: frames whose steps are there still stay, with own words,
    looks and positions; those of other steps go, but for own words, which stay with the step before; new steps come
    with frames of their own. ``made``: the demonstration that follows from the construction as it is now.
    """
    before, now = ([step["id"] for step in one["steps"]] for one in (kept, made))
    objects = {step["id"] for step in made["given"]} | set(now)
    frames = [_with_objects(frame, objects) for frame in kept["frames"]]
    if before != now:
        frames = _moved(frames, before, now)
        for frame in made["frames"][1:-1]:
            if now[frame["shown"] - 1] not in before:
                frames.insert(sum(one["shown"] <= frame["shown"] for one in frames[:-1]), frame)
    named = {"title": kept["title"], "named": True} if kept.get("named") else {}
    return {**made, **named, "frames": with_words_of(frames, made)[:MAX_FRAMES]}


def _moved(frames: Sequence[JsonObject], before: Sequence[str], now: Sequence[str]) -> list[JsonObject]:
    """Frames with as many steps as they had, of those that are there now; ``before`` and ``now``: ids of the steps.

    A last frame that had all of them has all.
    """
    found = []
    for frame in frames:
        steps = before[: frame["shown"]]
        if steps and steps[-1] not in now and not frame.get("own"):
            continue
        last = next((id_ for id_ in reversed(steps) if id_ in now), None)
        found.append({**frame, "shown": now.index(last) + 1 if last is not None else 0})
    if frames[-1]["shown"] == len(before):
        end = {**frames[-1], "shown": len(now)}
        found = [*(found[:-1] if found and found[-1]["words"] == end["words"] else found), end]
    return found or [{**frames[-1], "shown": len(now)}]


def _with_objects(frame: JsonObject, objects: set[str]) -> JsonObject:
    """A frame that speaks of these objects alone."""
    found = dict(frame)
    for name in ("points", "dress"):
        found[name] = {id_: value for id_, value in frame.get(name, {}).items() if id_ in objects}
    found["measures"] = [of for of in frame.get("measures", []) if set(of) <= objects]
    return found


def with_reasons(document: JsonObject, lines: Sequence[JsonObject]) -> JsonObject:
    """A demonstration in which each step carries what becomes true with it, and why, but where the words are somebody's
    own.

    ``lines``: of the proof of its construction, in words.
    """
    seen = said_after(lines, [step["id"] for step in document["steps"]])
    frames = []
    told: set[int] = set()
    for frame in document["frames"]:
        fresh = [n for n, at in enumerate(seen) if at <= frame["shown"] and n not in told and frame["shown"] > 0]
        told.update(fresh)
        said = [] if frame.get("own") else [f"{lines[n]['words']}: {lines[n]['because_of']}" for n in fresh]
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
