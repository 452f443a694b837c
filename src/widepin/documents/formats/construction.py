"""The construction document: steps in JSON, and as the plane knows them."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import (
    BaseModel,
    ConfigDict,
    Field,
    StrictInt,
    StrictStr,
    ValidationError,
    field_validator,
    model_validator,
)

from ...plane.intersections import CHOICES, Choice
from ...plane.makes import MAKES
from ...plane.steps import Step
from ..reading import JsonObject, Unreadable, from_validation

Coordinate = Annotated[float, Field(strict=True, allow_inf_nan=False)]


class StepDocument(BaseModel):
    """One step. Fields that are not named here are presentation, and kept."""

    model_config = ConfigDict(extra="allow", populate_by_name=True, title="Step")

    id: StrictStr = Field(description="a letter, then letters, digits, _ or ', 24 characters at most")
    make: StrictStr = Field(description="how the object is made", json_schema_extra={"enum": list(MAKES)})
    sources: list[StrictStr] = Field(
        default_factory=list, alias="from", description="ids of what it is made from, each made earlier"
    )
    at: tuple[Coordinate, Coordinate] | None = Field(
        default=None, description="place in centimetres, for free and sliding points"
    )
    pick: StrictInt | None = Field(default=None, description="which intersection: 1 or 2")
    other_than: StrictStr | None = Field(default=None, description="the intersection that is not this common point")
    nearest_to: StrictStr | None = Field(default=None, description="the intersection nearer to this point")
    farthest_from: StrictStr | None = Field(default=None, description="the intersection farther from this point")

    @field_validator("at", mode="before")
    @classmethod
    def _two_numbers(cls, value: object) -> Any:
        if value is not None and (not isinstance(value, list | tuple) or len(value) != 2):
            raise ValueError("must be two numbers, [x, y]")
        return value

    @model_validator(mode="after")
    def _one_choice(self) -> StepDocument:
        if self.make == "intersection" and sum(getattr(self, choice) is not None for choice in CHOICES) > 1:
            raise ValueError(f"an intersection takes at most one of {', '.join(CHOICES)}; keep one")
        return self

    def step(self) -> Step:
        """The step as the plane knows it; what does not belong to its make is left out."""
        choice, pick, reference = Choice.PICK, 1, None
        if self.make == "intersection":
            for name in CHOICES:
                value = getattr(self, name)
                if value is not None:
                    choice = name
                    pick, reference = (value, None) if name is Choice.PICK else (1, value)
        at = self.at if self.make in MAKES and MAKES[self.make].inputs else None
        return Step(self.id, self.make, tuple(self.sources), at, choice, pick, reference)


def read_step(value: object) -> Step:
    """A step from its JSON value. Raises Unreadable."""
    try:
        return StepDocument.model_validate(value).step()
    except ValidationError as error:
        raise from_validation(error) from None


def read_steps(value: object) -> tuple[Step, ...]:
    """Steps from a JSON list. Raises Unreadable."""
    if not isinstance(value, list):
        raise Unreadable("", "must be a list of steps in square brackets")
    steps = []
    for number, one in enumerate(value):
        try:
            steps.append(read_step(one))
        except Unreadable as wrong:
            raise wrong.inside(f"[{number}]") from None
    return tuple(steps)


def write_step(step: Step) -> JsonObject:
    """A step as JSON."""
    document: JsonObject = {"id": step.id, "make": step.make}
    if step.sources:
        document["from"] = list(step.sources)
    if step.at is not None:
        document["at"] = list(step.at)
    if step.make == "intersection":
        document[step.choice] = step.pick if step.choice == "pick" else step.reference
    return document
