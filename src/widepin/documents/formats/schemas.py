"""The JSON Schemas of the open documents, as docs/schemas/ keeps them."""

from __future__ import annotations

import json
from pathlib import Path

from pydantic import TypeAdapter

from ..reading import JsonObject
from .construction import StepDocument
from .demonstration import DemonstrationDocument
from .kept import ClassToolDocument, FigureDocument, HandInDocument, Policy
from .operations import OperationDocument
from .task import TaskDocument
from .verdict import VerdictDocument

FOLDER = Path(__file__).resolve().parents[4] / "docs" / "schemas"


def schemas() -> dict[str, JsonObject]:
    """File name -> JSON Schema (draft 2020-12)."""
    documents: JsonObject = {
        "construction": list[StepDocument],
        "task": TaskDocument,
        "verdict": VerdictDocument,
        "operation": OperationDocument,
        "figure": FigureDocument,
        "hand-in": HandInDocument,
        "class-tool": ClassToolDocument,
        "policy": Policy,
        "demonstration": DemonstrationDocument,
    }
    return {
        f"{name}.schema.json": {
            "$schema": "https://json-schema.org/draft/2020-12/schema",
            **TypeAdapter(document).json_schema(),
        }
        for name, document in documents.items()
    }


def as_text(schema: JsonObject) -> str:
    """A schema as its file holds it."""
    return json.dumps(schema, indent=1) + "\n"


def write() -> list[Path]:
    """Write the schemas into docs/schemas; the files."""
    FOLDER.mkdir(exist_ok=True)
    written = []
    for name, schema in schemas().items():
        written.append(FOLDER / name)
        written[-1].write_text(as_text(schema))
    return written
