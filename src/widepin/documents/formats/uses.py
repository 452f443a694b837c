"""Uses of class tools in the document of a work."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StrictStr, TypeAdapter, ValidationError

from ...judge.task import MAX_WANTED, Use
from ...plane.steps import MAX_STEPS, Step
from ..reading import JsonObject, Unreadable, from_validation


class WorkUseDocument(BaseModel):
    """One use of a class tool: the steps that it made at once, and which of them are its results."""

    model_config = ConfigDict(extra="forbid")
    class_tool: StrictStr = Field(min_length=1, max_length=40)
    ids: list[StrictStr] = Field(min_length=1, max_length=MAX_STEPS, description="of its steps in the work")
    gives: list[StrictStr] = Field(min_length=1, max_length=MAX_WANTED, description="ids of its results")
    moves: Annotated[int, Field(ge=0, le=MAX_STEPS, strict=True)] = Field(description="what the use counts")

    def use(self) -> Use:
        """The use as the judge knows it."""
        return Use(self.class_tool, tuple(self.ids), tuple(self.gives), self.moves)


_USES = TypeAdapter(list[WorkUseDocument])


def read_uses(value: object, steps: Sequence[Step]) -> tuple[Use, ...]:
    """The uses of a work with these steps from their JSON value. Raises Unreadable, with places from ``[0]`` on.

    A use that another one has made in its turn is a part of that.
    """
    try:
        uses = [one.use() for one in _USES.validate_python(value)]
    except ValidationError as error:
        raise from_validation(error) from None
    for wrong in _wrong(uses, {step.id for step in steps}):
        raise wrong
    return tuple(use for number, use in enumerate(uses) if not _is_within_another(number, uses))


def _wrong(uses: Sequence[Use], there: set[str]) -> Iterator[Unreadable]:
    """What does not fit the steps of the work, or other uses."""
    for number, use in enumerate(uses):
        for place, id_ in enumerate(use.ids):
            if id_ not in there:
                yield Unreadable(f"[{number}].ids[{place}]", f"{id_} is no step of the work; name its own steps")
        for place, id_ in enumerate(use.gives):
            if id_ not in use.ids:
                yield Unreadable(f"[{number}].gives[{place}]", f"{id_} is not among the ids of this use; add it there")
        for before in uses[:number]:
            both = set(use.ids) & set(before.ids)
            if both and both != set(use.ids) and both != set(before.ids):
                yield Unreadable(f"[{number}].ids", f"{min(both)} is in another use too; a step is made by one of them")


def _is_within_another(number: int, uses: Sequence[Use]) -> bool:
    ids = set(uses[number].ids)
    return any(
        ids < set(other.ids) or (place < number and ids == set(other.ids))
        for place, other in enumerate(uses)
        if place != number
    )


def write_uses(uses: Sequence[Use]) -> list[JsonObject]:
    """Uses as JSON."""
    return [
        {"class_tool": use.class_tool, "ids": list(use.ids), "gives": list(use.gives), "moves": use.moves}
        for use in uses
    ]
