"""The tool book: the tapes of all variants and of what is measured, and the table of makes, as one JSON document."""

from __future__ import annotations

from functools import cache
from typing import Any

from .elementary import ELEMENTARY, Construction, ElementaryStep
from .gauges import gauge_tapes
from .makes import MAKES
from .shapes import SHAPE_OF, Kind
from .tolerances import ROUNDING, SLACK
from .variants import tapes


@cache
def tool_book() -> dict[str, Any]:
    """The JSON document that the browser loads once."""
    return {
        "format": "widepin.toolbook/1",
        "rounding": ROUNDING,
        "slack": SLACK,
        "shapes": {kind.value: len(SHAPE_OF[kind]._fields) for kind in Kind},
        "makes": {
            make.name: {
                "from": [sorted(role) for role in make.sources],
                "gives": make.gives,
                "inputs": make.inputs,
                "counts": make.counts,
                "constructions": [_construction(one) for one in ELEMENTARY.get(make.name, ())],
                "through": make.through,
                "undefined": make.undefined,
                "spanned": make.spanned,
                "different": [*make.apart, *make.trivial],
            }
            for make in MAKES.values()
        },
        "tapes": {
            key: {"inputs": tape.inputs, "code": [list(line) for line in tape.code], "out": list(tape.out)}
            for key, tape in (tapes() | gauge_tapes()).items()
        },
    }


def _construction(one: Construction) -> dict[str, Any]:
    """An elementary construction: its steps, and between which sources the way turns left (1) or right (-1)."""
    of, side = one.turn or (None, 0)
    return {"steps": [_as_json(step) for step in one.steps], "turn": {"of": of, "side": side} if of else None}


def _as_json(step: ElementaryStep) -> dict[str, Any]:
    """A step of an elementary construction, as steps are written; ``parameter`` where it is a point of a line."""
    document: dict[str, Any] = {"id": step.name, "make": step.make, "from": list(step.sources)}
    if step.parameter is not None:
        document["parameter"] = step.parameter
    if step.choice is not None:
        how, which = step.choice
        document[how] = which
    return document
